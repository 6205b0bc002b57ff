using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Gives a job another rhythm, after those it has.</summary>
/// <param name="Rhythm">It; its rank is given here.</param>
/// <param name="Usual">Whether work that names none follows it.</param>
public sealed record AddRhythm(Rhythm Rhythm, bool Usual) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (job.Rhythm(Rhythm.Id) is not null)
            throw RefusedException.Of("rhythm", "There is a rhythm of that id already.");
        var made = Rhythm with
        {
            Name = Rhythm.Name.Trim(),
            Rank = Rank.Between(job.Rhythms.LastOrDefault()?.Rank, null),
        };
        return
        [
            new($"rhythms/{made.Id}", null, Commands.Node(made)),
            .. Usual
                ? [new Change("round/usual", Commands.Node(job.Round.Usual), Commands.Node(made.Id))]
                : ImmutableArray<Change>.Empty,
        ];
    }
}
