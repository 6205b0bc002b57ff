using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Puts a work item under a section, after other work of it or (null) before all.</summary>
public sealed record MoveWork(Guid Work, Guid Section, Guid? After) : Command
{
    /// <summary>Name of a section that is to be made with that id; null where it is there.</summary>
    public string? Name { get; init; }

    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var item = Commands.Item(job, Work);
        if (After == Work)
            throw RefusedException.Of("after", "Work cannot stand after itself.");
        var there = job.Section(Section) is not null;
        if (!there && (Section == Guid.Empty || string.IsNullOrWhiteSpace(Name)))
            throw RefusedException.Of("section", "That section is not in this job any more.");
        var after = After is { } left ? Commands.Item(job, left) : null;
        var was = job.Work.IndexOf(item);
        var before =
            item.Section == Section && was > 0 && job.Work[was - 1] is var b && b.Section == Section ? b : null;
        if (item.Section == Section && before == (after?.Section == Section ? after : null))
            return [];
        var now = item with { Section = Section, Rank = WorkInJob.RankAfter(job.Work.Remove(item), Section, after) };
        return
        [
            .. there ? [] : new[] { WorkInJob.Made(job, Section, Name!.Trim()) },
            new($"work/{item.Id}", Commands.Node(item), Commands.Node(now)),
            .. item.Section == Section ? [] : WorkInJob.Emptied(job, item),
        ];
    }
}
