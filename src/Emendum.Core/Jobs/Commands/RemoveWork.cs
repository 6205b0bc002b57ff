using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Removes a work item with its cells.</summary>
public sealed record RemoveWork(Guid Work) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var item = Commands.Item(job, Work);
        return
        [
            .. Commands.CellsGone(job, key => key.Work == Work),
            .. job
                .Work.Where(w => w.WaitsFor.Contains(Work))
                .Select(w => new Change(
                    $"work/{w.Id}/waitsFor",
                    Commands.Node(w.WaitsFor),
                    Commands.Node(w.WaitsFor.Remove(Work))
                )),
            new($"work/{Work}", Commands.Node(item), null),
            .. WorkInJob.Emptied(job, item),
        ];
    }
}
