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
        var said = new Dictionary<ScheduleWork, ScheduleItem>();
        foreach (var item in job.Schedule)
        foreach (var work in item.Work)
            if (!said.TryAdd(work, item))
                throw RefusedException.Of(
                    "work",
                    $"{job.Item(work.Work)?.Name ?? "That work"}{Where(job, work)} is in the price of row {said[work].Called} already."
                );
    }

    private static string Where(Job job, ScheduleWork work) =>
        work.Place is { } place ? $" at {job.Place(place)?.Name}"
        : work.Group.Length > 0 ? $" in {work.Group}"
        : "";
}
