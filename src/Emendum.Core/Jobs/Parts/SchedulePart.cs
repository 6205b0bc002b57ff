using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>The customer's schedule of quantities, in order.</summary>
internal sealed class SchedulePart() : ThingsPart<ScheduleItem>("schedule")
{
    /// <inheritdoc/>
    protected override ImmutableArray<ScheduleItem> Of(Job job) => job.Schedule;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<ScheduleItem> things) => job with { Schedule = things };

    /// <inheritdoc/>
    protected override Guid IdOf(ScheduleItem thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(ScheduleItem thing) => thing.Rank;

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "row of the schedule");
        foreach (var item in job.Schedule)
            item.Check(job);
    }
}
