using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes a rhythm away. Its work goes by the job's usual one; what was done instead of it is done beside the rest.</summary>
public sealed record RemoveRhythm(Guid Rhythm) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var rhythm = SetRhythm.Find(job, Rhythm);
        Change Without(string path) => new(path, JsonValue.Create(Rhythm.ToString()), null);
        return
        [
            .. job.Work.Where(w => w.Rhythm == Rhythm).Select(w => Without($"work/{w.Id}/rhythm")),
            .. job.Rhythms.Where(r => r.Instead == Rhythm).Select(r => Without($"rhythms/{r.Id}/instead")),
            .. job.Round.Usual == Rhythm ? [Without("round/usual")] : ImmutableArray<Change>.Empty,
            new($"rhythms/{Rhythm}", Commands.Node(rhythm), null),
        ];
    }
}
