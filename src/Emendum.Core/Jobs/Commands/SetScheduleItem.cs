using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Says what of our own takeoff a row of the schedule is compared with; empty for nothing.</summary>
public sealed record SetScheduleItem(Guid Item, string Was, string Source) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        job.Schedule.Any(s => s.Id == Item)
            ? Commands.Set(job, $"schedule/{Item}/source", Was, Source)
            : throw RefusedException.Of("item", "That row is not in the schedule any more.");
}
