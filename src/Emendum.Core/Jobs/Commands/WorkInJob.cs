using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Work of a job as commands add and rank it.</summary>
internal static class WorkInJob
{
    public static ImmutableArray<Change> Added(
        Job job,
        Guid id,
        Guid entry,
        Guid? after,
        ImmutableArray<Answer> answers,
        Func<Guid, BookEntry?> book
    )
    {
        if (id == Guid.Empty || job.Item(id) is not null)
            throw RefusedException.Of("work", "New work needs an id of its own.");
        var pins = Commands.Pin(job, entry, "entry", book);
        var found = job.Book.GetValueOrDefault(entry) ?? book(entry)!;
        if (found is not WorkEntry of)
            throw RefusedException.Of(
                "entry",
                $"{found.Name} is not work: add a rate, an assembly or a price-only item."
            );
        var rank = RankAfter(job.Work, after is { } left ? Commands.Item(job, left) : job.Work.LastOrDefault());
        var item = new WorkItem(id, rank, of.Id, of.Section, of.Name, of.UsualCoats(), null, "", null, of.Wording)
        {
            Answers = answers,
        };
        return [.. pins, new($"work/{id}", null, Commands.Node(item))];
    }

    public static string RankAfter(ImmutableArray<WorkItem> work, WorkItem? after)
    {
        var at = after is null ? 0 : work.IndexOf(after) + 1;
        return Rank.Between(after?.Rank, at == work.Length ? null : work[at].Rank);
    }
}
