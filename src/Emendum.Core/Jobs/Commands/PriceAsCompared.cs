using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Puts the work with which rows of the schedule are compared into their prices, where a row has none and the work is in no other row.</summary>
public sealed record PriceAsCompared() : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        [
            .. Of(job)
                .Select(row => new Change(
                    $"schedule/{row.Item.Id}/work",
                    Commands.Node(row.Item.Work),
                    Commands.Node(ImmutableArray.Create(row.Work))
                )),
        ];

    /// <summary>The rows that it would price, each with the work.</summary>
    public static IEnumerable<(ScheduleItem Item, ScheduleWork Work)> Of(Job job)
    {
        var taken = job.Schedule.SelectMany(s => s.Work).ToHashSet();
        foreach (var item in job.Schedule.Where(s => s.Work.IsEmpty && !s.IsHeading))
            if (
                item.ComparedWork is { } id
                && job.Item(id) is not null
                && new ScheduleWork(id, "", null) is var work
                && taken.Add(work)
            )
                yield return (item, work);
    }
}
