using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>The tasks of the job's schedule, in the work's order.</summary>
internal sealed class TasksPart() : ThingsPart<PlannedTask>("tasks")
{
    /// <inheritdoc/>
    protected override ImmutableArray<PlannedTask> Of(Job job) => job.Tasks;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<PlannedTask> things) => job with { Tasks = things };

    /// <inheritdoc/>
    protected override Guid IdOf(PlannedTask thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(PlannedTask thing) => thing.Rank;

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        if (job.Tasks.Length > PlannedTask.Most)
            throw RefusedException.Of("tasks", $"A job has at most {PlannedTask.Most:N0} tasks.");
        foreach (var task in job.Tasks)
            task.Check();
        PlannedTask.InOrder(job.Tasks);
    }
}
