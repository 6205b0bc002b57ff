using System.Collections.Immutable;
using Emendum.Core.Jobs;

namespace Emendum.Core.Delivery;

/// <summary>What people do with tasks: each gives what it would move, to be seen before it is done (T6). All of it starts from the tasks as they come to begin, so that nothing is pulled earlier by itself (T5).</summary>
public static class TaskEdit
{
    /// <summary>A task is made another: what, where, who, how long, what it waits for, pinned or not; and put elsewhere, where its start is another than the one it had.</summary>
    /// <param name="before">The plan as it stands.</param>
    /// <param name="now">The task as it is to be; its start is where it is put.</param>
    /// <param name="others">Tasks of other jobs, for clashes.</param>
    /// <exception cref="RefusedException">It is not there; it has begun and is put elsewhere; it would wait for itself.</exception>
    public static TaskMove Set(TaskPlan before, PlannedTask now, IReadOnlyCollection<TaskTime> others)
    {
        var settled = before.Settled;
        var at = IndexOf(settled, now.Id);
        now = now with { IsBegun = settled[at].IsBegun };
        var moves = now.Start != settled[at].Start;
        var changed = before.With(settled.SetItem(at, now with { Start = settled[at].Start }));
        if (!moves)
            return TaskMove.Of(before, changed, others);
        var moved = TaskMove.Of(changed, now.Id, now.Start, others);
        return TaskMove.Of(before, before.With(moved.Tasks), others) with { Later = moved.Later };
    }

    /// <summary>A task is added, behind the others.</summary>
    public static TaskMove Added(TaskPlan before, PlannedTask task, IReadOnlyCollection<TaskTime> others) =>
        TaskMove.Of(before, before.With(before.Settled.Add(task)), others);

    /// <summary>A task goes; what waited for it waits for it no more.</summary>
    /// <exception cref="RefusedException">It is not there.</exception>
    public static TaskMove Removed(TaskPlan before, Guid task, IReadOnlyCollection<TaskTime> others)
    {
        var settled = before.Settled;
        return TaskMove.Of(
            before,
            before.With(
                [
                    .. settled
                        .RemoveAt(IndexOf(settled, task))
                        .Select(t =>
                            t.Links.Any(l => l.After == task)
                                ? t with
                                {
                                    Links = [.. t.Links.Where(l => l.After != task)],
                                }
                                : t
                        ),
                ]
            ),
            others
        );
    }

    /// <summary>All that is made of the work order is laid out (anew); what was written by hand stays. What has begun stays where it is.</summary>
    /// <param name="before">The plan as it stands.</param>
    /// <param name="made">The tasks of the work order, with whoever does them.</param>
    /// <param name="from">From when.</param>
    /// <param name="others">Tasks of other jobs, for clashes.</param>
    public static TaskMove LaidOut(
        TaskPlan before,
        ImmutableArray<PlannedTask> made,
        DateTime from,
        IReadOnlyCollection<TaskTime> others
    )
    {
        var settled = before.Settled.ToDictionary(t => t.Id);
        var there = made.Select(t => t.Id).ToHashSet();
        var laid = TaskPlan.FirstLaid(
            [
                .. made.Select(t =>
                    settled.TryGetValue(t.Id, out var begun) && begun.IsBegun
                        ? t with
                        {
                            IsBegun = true,
                            Start = begun.Start,
                        }
                        : t
                ),
            ],
            before.Crews,
            before.Firm,
            before.Clock,
            from
        );
        var byHand = settled.Values.Where(t => t.Work.IsEmpty && !there.Contains(t.Id)).ToList();
        var left = there.Concat(byHand.Select(t => t.Id)).ToHashSet();
        return TaskMove.Of(
            before,
            before.With(
                [
                    .. laid.Settled,
                    .. byHand.Select(t => t with { Links = [.. t.Links.Where(l => left.Contains(l.After))] }),
                ]
            ),
            others
        );
    }

    /// <summary>What change orders did to the work order is done to the plan: hours of tasks that stand as they were made follow, what is new is laid out behind what its crew has, what is not done any more goes. What
    /// somebody has typed, taken away or begun stays as it is.</summary>
    /// <param name="before">The plan as it stands.</param>
    /// <param name="earlier">The tasks of the work order as it was before each change that stands.</param>
    /// <param name="annulled">Those of the work order with changes that were accepted once and annulled.</param>
    /// <param name="now">The tasks of the work order as it is.</param>
    /// <param name="from">From when new ones are laid out.</param>
    /// <param name="others">Tasks of other jobs, for clashes.</param>
    public static TaskMove Followed(
        TaskPlan before,
        ImmutableArray<ImmutableArray<PlannedTask>> earlier,
        ImmutableArray<ImmutableArray<PlannedTask>> annulled,
        ImmutableArray<PlannedTask> now,
        DateTime from,
        IReadOnlyCollection<TaskTime> others
    )
    {
        var was = earlier.Concat(annulled).SelectMany(e => e).ToLookup(t => t.Id);
        var known = earlier.SelectMany(e => e).Select(t => t.Id).ToHashSet();
        var made = now.ToDictionary(t => t.Id);
        var kept = before
            .Settled.Where(t => t.Work.IsEmpty || t.IsBegun || made.ContainsKey(t.Id) || !was.Contains(t.Id))
            .ToList();
        var there = kept.Select(t => t.Id).ToHashSet();
        var fresh = now.Where(t => !there.Contains(t.Id) && !known.Contains(t.Id)).ToList();
        there.UnionWith(fresh.Select(t => t.Id));
        var ends = before.Times.ToLookup(t => t.Task.Crew, t => t.End);
        ImmutableArray<TaskLink> Links(PlannedTask task) => [.. task.Links.Where(l => there.Contains(l.After))];
        return TaskMove.Of(
            before,
            before.With(
                [
                    .. kept.Select(t =>
                        (
                            made.TryGetValue(t.Id, out var anew) && !t.Work.IsEmpty
                                ? t with
                                {
                                    Work = anew.Work,
                                    Hours = was[t.Id].Any(e => e.Hours == t.Hours) ? anew.Hours : t.Hours,
                                }
                                : t
                        )
                            is var task
                            ? task with
                            {
                                Links = Links(task),
                            }
                            : t
                    ),
                    .. fresh.Select(t => t with { Start = ends[t.Crew].Append(from).Max(), Links = Links(t) }),
                ]
            ),
            others
        );
    }

    /// <summary>The command that brings a job's tasks to others, each with its place in the order.</summary>
    /// <param name="stands">As they stand in the job.</param>
    /// <param name="now">As they are to be.</param>
    public static ChangeTasks Command(ImmutableArray<PlannedTask> stands, ImmutableArray<PlannedTask> now)
    {
        var (was, changes, rank) = (stands.ToDictionary(t => t.Id), new List<TaskChange>(), (string?)null);
        foreach (var task in now)
        {
            var old = was.GetValueOrDefault(task.Id);
            var kept = old is not null && string.CompareOrdinal(old.Rank, rank) > 0;
            rank = kept ? old!.Rank : Rank.Between(rank, null);
            var here = task with { Rank = rank, IsBegun = false };
            was.Remove(task.Id);
            if (old is null || (old with { IsBegun = false }) != here)
                changes.Add(new(old is null ? null : old with { IsBegun = false }, here));
        }
        changes.AddRange(was.Values.Select(gone => new TaskChange(gone with { IsBegun = false }, null)));
        return new([.. changes]);
    }

    /// <summary>Where a task stands among some.</summary>
    /// <exception cref="RefusedException">It is not there.</exception>
    public static int IndexOf(ImmutableArray<PlannedTask> tasks, Guid task)
    {
        for (var i = 0; i < tasks.Length; i++)
            if (tasks[i].Id == task)
                return i;
        throw RefusedException.Of("task", "That task is not there any more.");
    }
}
