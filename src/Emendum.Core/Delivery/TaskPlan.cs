using System.Collections.Immutable;
using Emendum.Core.Jobs;

namespace Emendum.Core.Delivery;

/// <summary>A task with when it is done.</summary>
/// <param name="Task">The task.</param>
/// <param name="Start">When it begins: as planned, or at the first moment that links and working time let it.</param>
/// <param name="End">When it ends.</param>
/// <param name="PinMissed">By how many days its pin is missed; nothing where it is kept, or there is none (T3).</param>
public sealed record TaskTime(PlannedTask Task, DateTime Start, DateTime End, int PinMissed);

/// <summary>A crew that is asked on one day for more hours than it has (T7).</summary>
/// <param name="Crew">The crew.</param>
/// <param name="Day">The day.</param>
/// <param name="Asked">Hours that are asked of it.</param>
/// <param name="Has">Hours that it works.</param>
/// <param name="Tasks">The tasks that ask.</param>
public sealed record CrewClash(Guid Crew, DateOnly Day, decimal Asked, decimal Has, ImmutableArray<Guid> Tasks);

/// <summary>
/// Tasks in time (T1 to T9). A task begins when it was planned to, or later where what it waits for, its pin or its crew's time ask for it: a link is never broken. Nothing begins earlier than planned. Each task and each link
/// is looked at once.
/// </summary>
public sealed class TaskPlan
{
    private readonly Dictionary<Guid, TaskTime> times = [];

    private TaskPlan(
        ImmutableArray<PlannedTask> tasks,
        ImmutableArray<Crew> crews,
        WorkingTime firm,
        LocalClock clock
    ) => (Tasks, Crews, Firm, Clock) = (tasks, crews, firm, clock);

    /// <summary>The tasks, in their order.</summary>
    public ImmutableArray<PlannedTask> Tasks { get; }

    /// <summary>The crews.</summary>
    public ImmutableArray<Crew> Crews { get; }

    /// <summary>The firm's working time, in which leads run.</summary>
    public WorkingTime Firm { get; }

    /// <summary>How the local clock goes.</summary>
    public LocalClock Clock { get; }

    /// <summary>How many tasks and links were looked at: what tests bound instead of time.</summary>
    public int Steps { get; private set; }

    /// <summary>The tasks with their times, in their order.</summary>
    public IEnumerable<TaskTime> Times => Tasks.Select(t => times[t.Id]);

    /// <summary>When a task is done.</summary>
    public TaskTime this[Guid task] => times[task];

    /// <summary>The plan of some tasks.</summary>
    /// <param name="tasks">The tasks.</param>
    /// <param name="crews">The crews that do them.</param>
    /// <param name="firm">The firm's working time.</param>
    /// <param name="clock">How the local clock goes.</param>
    /// <exception cref="RefusedException">A task waits for itself, for one that is not there, or its crew is not there.</exception>
    public static TaskPlan Of(
        ImmutableArray<PlannedTask> tasks,
        ImmutableArray<Crew> crews,
        WorkingTime firm,
        LocalClock clock
    )
    {
        var plan = new TaskPlan(tasks, crews, firm, clock);
        foreach (var task in PlannedTask.InOrder(tasks))
            plan.times[task.Id] = plan.Timed(task);
        return plan;
    }

    /// <summary>Tasks as they are first laid out: those of one crew follow each other in the work's order, from a moment on, each not before what it waits for (T9).</summary>
    /// <param name="tasks">The tasks, in the work's order.</param>
    /// <param name="crews">The crews.</param>
    /// <param name="firm">The firm's working time.</param>
    /// <param name="clock">How the local clock goes.</param>
    /// <param name="from">From when.</param>
    /// <exception cref="RefusedException">A task waits for itself; gives the path.</exception>
    public static TaskPlan FirstLaid(
        ImmutableArray<PlannedTask> tasks,
        ImmutableArray<Crew> crews,
        WorkingTime firm,
        LocalClock clock,
        DateTime from
    )
    {
        var plan = new TaskPlan(tasks, crews, firm, clock);
        var busy = new Dictionary<Guid, DateTime>();
        foreach (var task in PlannedTask.InOrder(tasks))
        {
            // What has begun before may be over before, and nothing is laid out earlier for that.
            var free = busy.GetValueOrDefault(task.Crew, from);
            // A visit has a day of its own, whatever else its crew does.
            var begins =
                task.IsBegun || task.Visit is not null ? task.Start
                : free > from ? free
                : from;
            var time = plan.Timed(task with { Start = begins });
            plan.times[task.Id] = time;
            if (task.Visit is null && (!busy.TryGetValue(task.Crew, out var until) || time.End > until))
                busy[task.Crew] = time.End;
        }
        return plan.With(plan.Settled);
    }

    /// <summary>The same with other tasks.</summary>
    public TaskPlan With(ImmutableArray<PlannedTask> tasks) => Of(tasks, Crews, Firm, Clock);

    /// <summary>The tasks as they come to begin, so that nothing is pulled earlier by what changes afterwards (T5).</summary>
    public ImmutableArray<PlannedTask> Settled => [.. Tasks.Select(t => t with { Start = times[t.Id].Start })];

    /// <summary>The crew of a task.</summary>
    public Crew CrewOf(PlannedTask task) =>
        Crews.FirstOrDefault(c => c.Id == task.Crew)
        ?? throw RefusedException.Of("crew", $"The crew of {task.Name} is not there any more.");

    private TaskTime Timed(PlannedTask task)
    {
        var crew = CrewOf(task);
        Steps += 1 + task.Links.Length;
        var start = task.IsBegun ? task.Start : crew.Time.Next(Earliest(task));
        // A task of no hours ends when it begins.
        var end = crew.Time.After(start, task.Hours / crew.Size);
        var missed =
            task.Pin is { } pin && start > crew.Time.Next(pin) ? Math.Max(1, start.Date.Subtract(pin.Date).Days) : 0;
        return new(task, start, end, missed);
    }

    /// <summary>The first moment that its plan, its pin and its links let a task begin, working or not.</summary>
    private DateTime Earliest(PlannedTask task)
    {
        var earliest = task.Pin > task.Start ? task.Pin.Value : task.Start;
        foreach (var link in task.Links)
            if (LetBy(link) is var moment && moment > earliest)
                earliest = moment;
        return earliest;
    }

    /// <summary>When a link lets what waits for it begin: the task before has ended, its lead in the firm's working hours and its drying in real hours are over (T2).</summary>
    private DateTime LetBy(TaskLink link) => Clock.After(Firm.After(times[link.After].End, link.Lead), link.Drying);

    /// <summary>Crews that are asked on a day for more hours than they have (T7); it is shown, and never moved.</summary>
    /// <param name="times">Tasks of all jobs.</param>
    /// <param name="crews">The crews.</param>
    public static IEnumerable<CrewClash> Clashes(IEnumerable<TaskTime> times, IEnumerable<Crew> crews)
    {
        var byCrew = times.ToLookup(t => t.Task.Crew);
        foreach (var crew in crews)
        {
            var asked = new SortedDictionary<DateOnly, List<(Guid Task, decimal Hours)>>();
            foreach (var time in byCrew[crew.Id])
                for (
                    var day = DateOnly.FromDateTime(time.Start);
                    day.ToDateTime(default) < time.End;
                    day = day.AddDays(1)
                )
                    if (crew.Time.On(day, time.Start, time.End) is > 0 and var hours)
                    {
                        if (!asked.TryGetValue(day, out var of))
                            asked[day] = of = [];
                        of.Add((time.Task.Id, hours));
                    }
            foreach (var (day, of) in asked)
                if (of.Sum(o => o.Hours) is var sum && crew.Time.HoursOn(day) is var has && sum > has)
                    yield return new(crew.Id, day, sum, has, [.. of.Select(o => o.Task)]);
        }
    }
}
