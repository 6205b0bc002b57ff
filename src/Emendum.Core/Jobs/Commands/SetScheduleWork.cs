using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Says which work is in the price of a row of the schedule.</summary>
public sealed record SetScheduleWork(Guid Item, ImmutableArray<ScheduleWork> Was, ImmutableArray<ScheduleWork> Now)
    : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (!job.Schedule.Any(s => s.Id == Item))
            throw RefusedException.Of("item", "That row is not in the schedule any more.");
        foreach (var work in Now.Except(Was))
        {
            Commands.Item(job, work.Work);
            if (work.Place is { } place)
                Commands.Place(job, place);
        }
        return Commands.Set(job, $"schedule/{Item}/work", Commands.Node(Was), Commands.Node(Now));
    }
}
