using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>Puts a work item under a section, after another or (null) before all.</summary>
public sealed record MoveWork(Guid Id, Guid Work, string Section, Guid? After) : Command(Id)
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var item = Commands.Item(job, Work);
        if (After == Work)
            throw RefusedException.Of("after", "Work cannot stand after itself.");
        var staying = job.Work.Remove(item);
        var now = item with
        {
            Section = Section.Trim(),
            Rank = WorkInJob.RankAfter(staying, After is { } after ? Commands.Item(job, after) : null),
        };
        if (now.Section.Length == 0)
            throw RefusedException.Of("section", "Work stands under a section.");
        var to = After is { } left ? staying.IndexOf(Commands.Item(job, left)) + 1 : 0;
        return now.Section == item.Section && job.Work.IndexOf(item) == to
            ? []
            : [new($"work/{item.Id}", Commands.Node(item), Commands.Node(now))];
    }
}
