using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Gives a rhythm another frequency. Where it is called by its frequency, it takes the name of the new one.</summary>
/// <param name="Rhythm">Which.</param>
/// <param name="Was">What it was; it counts where it was that.</param>
/// <param name="Now">What it becomes.</param>
public sealed record TakeFrequency(Guid Rhythm, Frequency Was, Frequency Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var rhythm = SetRhythm.Find(job, Rhythm);
        if (rhythm.Kind == RhythmKind.Event || Now.Kind == RhythmKind.Event)
            throw RefusedException.Of("rhythm", "What an event brings has no frequency of its own.");
        var path = $"rhythms/{Rhythm}/";
        var name = rhythm.Name == Was.Name ? Frequency.Free(job, Rhythm, Now.Name) : rhythm.Name;
        return
        [
            .. Commands.Set(job, path + "kind", Commands.Node(Was.Kind), Commands.Node(Now.Kind)),
            .. Commands.Set(job, path + "times", Commands.Node(Was.Times), Commands.Node(Now.Times)),
            .. Commands.Set(job, path + "name", Commands.Node(rhythm.Name), Commands.Node(name)),
        ];
    }
}
