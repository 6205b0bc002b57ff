using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Removes a work item with its cells and the choices of it.</summary>
public sealed record RemoveWork(Guid Work) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var item = Commands.Item(job, Work);
        var choices = ImmutableArray.CreateBuilder<Change>();
        var so = job;
        foreach (var choice in job.Choices.Where(c => c.Work == Work))
        {
            var gone = new RemoveChoice(choice.Id).Changes(so, book);
            so = ChangeSet.Apply(so, gone);
            choices.AddRange(gone);
        }
        return
        [
            .. choices,
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
