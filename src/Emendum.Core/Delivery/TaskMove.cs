using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Jobs;

namespace Emendum.Core.Delivery;

/// <summary>A task that begins at another time than it did.</summary>
/// <param name="Was">When it was done.</param>
/// <param name="Now">When it is done now.</param>
public sealed record TaskShift(TaskTime Was, TaskTime Now);

/// <summary>What a move would do, said before it is done (T6). It is one command, and one undo.</summary>
/// <param name="Tasks">All tasks with it done.</param>
/// <param name="Moved">The task itself; null where it stays.</param>
/// <param name="Later">By how long its links or its crew's time put it off from where it was put; nothing where it stands there (T4).</param>
/// <param name="Pushed">What it pushes, in order.</param>
/// <param name="PinsMissed">Pins that it misses and that were kept before, its own among them.</param>
/// <param name="Clashes">Clashes that it makes and that were not there before.</param>
public sealed record TaskMove(
    ImmutableArray<PlannedTask> Tasks,
    TaskShift? Moved,
    TimeSpan Later,
    ImmutableArray<TaskShift> Pushed,
    ImmutableArray<TaskTime> PinsMissed,
    ImmutableArray<CrewClash> Clashes
)
{
    /// <summary>A task is put somewhere: it is pinned there, or at the first moment its links allow (T4). What waits for it is pushed, only later and only as far as links and working time ask; slack is used first, and nothing is pulled earlier (T5).</summary>
    /// <param name="before">The plan as it stands.</param>
    /// <param name="task">The task.</param>
    /// <param name="to">Where it is put, local time.</param>
    /// <param name="others">Tasks of other jobs, for clashes.</param>
    /// <exception cref="RefusedException">It is not there, or it has begun.</exception>
    public static TaskMove Of(TaskPlan before, Guid task, DateTime to, IReadOnlyCollection<TaskTime> others)
    {
        var settled = before.Settled;
        var at = TaskEdit.IndexOf(settled, task);
        if (settled[at].IsBegun)
            throw RefusedException.Of("task", $"{settled[at].Name} has begun: hours are booked on it.");
        var crew = before.CrewOf(settled[at]);
        var wanted = crew.Time.Next(to);
        var free = before.With(settled.SetItem(at, settled[at] with { Start = wanted, Pin = null }));
        var start = free[task].Start;
        var after = before.With(settled.SetItem(at, settled[at] with { Start = start, Pin = start }));
        return Between(before, after, task, start - wanted, others);
    }

    /// <summary>Tasks are changed otherwise: another duration, crew or link, a new day off. What that pushes is pushed alike (T8).</summary>
    /// <param name="before">The plan as it stands.</param>
    /// <param name="after">The plan with the change, from the settled tasks of the one before.</param>
    /// <param name="others">Tasks of other jobs, for clashes.</param>
    public static TaskMove Of(TaskPlan before, TaskPlan after, IReadOnlyCollection<TaskTime> others) =>
        Between(before, after, null, TimeSpan.Zero, others);

    private static TaskMove Between(
        TaskPlan before,
        TaskPlan after,
        Guid? moved,
        TimeSpan later,
        IReadOnlyCollection<TaskTime> others
    )
    {
        var was = before.Times.ToDictionary(t => t.Task.Id);
        var shifts = after
            .Times.Where(t => was.TryGetValue(t.Task.Id, out var old) && (old.Start != t.Start || old.End != t.End))
            .Select(t => new TaskShift(was[t.Task.Id], t))
            .ToList();
        var known = TaskPlan
            .Clashes([.. before.Times, .. others], before.Crews)
            .ToDictionary(c => (c.Crew, c.Day), c => c.Asked);
        return new(
            after.Settled,
            shifts.Find(s => s.Now.Task.Id == moved),
            later,
            [.. shifts.Where(s => s.Now.Task.Id != moved).OrderBy(s => s.Now.Start)],
            [
                .. after.Times.Where(t =>
                    t.PinMissed > 0 && (!was.TryGetValue(t.Task.Id, out var old) || old.PinMissed < t.PinMissed)
                ),
            ],
            [
                .. TaskPlan
                    .Clashes([.. after.Times, .. others], after.Crews)
                    .Where(c => !known.TryGetValue((c.Crew, c.Day), out var asked) || c.Asked > asked),
            ]
        );
    }
}

/// <summary>A task as it was last published to those whom it concerns.</summary>
/// <param name="Task">Its id.</param>
/// <param name="Name">What is done.</param>
/// <param name="At">Where.</param>
/// <param name="Crew">Who does it.</param>
/// <param name="Start">When it begins.</param>
/// <param name="End">When it ends.</param>
public sealed record PublishedTask(Guid Task, string Name, string At, Guid Crew, DateTime Start, DateTime End)
{
    /// <summary>What and where, as it is read.</summary>
    [JsonIgnore]
    public string Called => At.Length > 0 ? $"{Name}, {At}" : Name;

    /// <summary>The tasks of a plan as they would be published now.</summary>
    public static ImmutableArray<PublishedTask> Of(TaskPlan plan) =>
        [.. plan.Times.Select(t => new PublishedTask(t.Task.Id, t.Task.Name, t.Task.At, t.Task.Crew, t.Start, t.End))];

    /// <summary>Who is told of what: those whose tasks differ from the last version in start, end, crew or place, and nobody else (T10). Who loses a task to another crew is told as well.</summary>
    /// <param name="last">As it was last published; empty for never.</param>
    /// <param name="now">As it is.</param>
    public static ILookup<Guid, (PublishedTask? Was, PublishedTask? Now)> Told(
        ImmutableArray<PublishedTask> last,
        ImmutableArray<PublishedTask> now
    )
    {
        var (was, there) = (last.ToDictionary(t => t.Task), now.ToDictionary(t => t.Task));
        return was
            .Keys.Union(there.Keys)
            .Select(id => (Was: was.GetValueOrDefault(id), Now: there.GetValueOrDefault(id)))
            .Where(x =>
                x.Was is null
                || x.Now is null
                || (x.Was.Start, x.Was.End, x.Was.Crew, x.Was.At) != (x.Now.Start, x.Now.End, x.Now.Crew, x.Now.At)
            )
            .SelectMany(x =>
                new[] { x.Was?.Crew, x.Now?.Crew }.OfType<Guid>().Distinct().Select(crew => (Crew: crew, Change: x))
            )
            .ToLookup(x => x.Crew, x => x.Change);
    }
}
