using System.Collections.Immutable;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Web.Deliver;

/// <summary>What a task waits for.</summary>
/// <param name="After">The task before.</param>
/// <param name="Called">What and where that is.</param>
/// <param name="Lead">Working hours between, as they are typed.</param>
/// <param name="Drying">Real hours between, as they are typed.</param>
/// <param name="Words">How long, in words; empty for at once.</param>
public sealed record WaitView(Guid After, string Called, string Lead, string Drying, string Words);

/// <summary>What waits for a task.</summary>
public sealed record ThenView(Guid Task, string Called, string Begins);

/// <summary>A task of the schedule.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What is done.</param>
/// <param name="At">Where; empty for the whole job.</param>
/// <param name="Called">Both.</param>
/// <param name="Crew">Who does it.</param>
/// <param name="CrewName">Their name.</param>
/// <param name="Hours">Labour hours, as they are typed.</param>
/// <param name="Days">From when to when, in words.</param>
/// <param name="Day">The day on which it begins, like 2027-01-31.</param>
/// <param name="Clock">The time at which it begins, like 8:00.</param>
/// <param name="IsPinned">Whether its start is a promise.</param>
/// <param name="Pin">That in words: <c>Tue 1 Dec, 8:00</c>, and by how much it is missed; empty for none.</param>
/// <param name="PinMissed">Whether it is missed.</param>
/// <param name="IsBegun">Whether it has begun.</param>
/// <param name="Stands">How far it is, in words; empty for not begun.</param>
/// <param name="IsMade">Whether it is made of the work order; otherwise it was written by hand.</param>
/// <param name="Waits">What it waits for.</param>
/// <param name="Then">What waits for it.</param>
public sealed record TaskView(
    Guid Id,
    string Name,
    string At,
    string Called,
    Guid Crew,
    string CrewName,
    string Hours,
    string Days,
    string Day,
    string Clock,
    bool IsPinned,
    string Pin,
    bool PinMissed,
    bool IsBegun,
    string Stands,
    bool IsMade,
    IReadOnlyList<WaitView> Waits,
    IReadOnlyList<ThenView> Then
)
{
    /// <summary>The tasks of a plan, by when they begin.</summary>
    internal static IReadOnlyList<TaskView> Of(TaskPlan plan, IReadOnlyDictionary<Guid, TaskProgress> progress)
    {
        var then = plan.Tasks.SelectMany(t => t.Links.Select(l => (l.After, Task: t))).ToLookup(x => x.After);
        return
        [
            .. plan
                .Times.OrderBy(t => t.Start)
                .Select(time =>
                {
                    var (task, how) = (time.Task, progress.GetValueOrDefault(time.Task.Id));
                    return new TaskView(
                        task.Id,
                        task.Name,
                        task.At,
                        task.Called,
                        task.Crew,
                        plan.CrewOf(task).Name,
                        Rounding.Text(decimal.Round(task.Hours, 2)),
                        ScheduleNotice.Span(time.Start, time.End),
                        Core.Quantities.Day.Written(DateOnly.FromDateTime(time.Start)),
                        ScheduleNotice.Clock(time.Start),
                        task.Pin is not null,
                        task.Pin is not { } pin ? ""
                            : time.PinMissed > 0
                                ? $"{ScheduleNotice.Day(pin)}, missed by {Counted.Of(time.PinMissed, "day")}"
                            : $"{ScheduleNotice.Day(pin)}, {ScheduleNotice.Clock(pin)}",
                        time.PinMissed > 0,
                        how?.IsBegun == true,
                        how is null or { IsBegun: false } ? ""
                            : how.IsDone ? "done"
                            : $"{how.PiecesDone} of {Counted.Of(how.Pieces, "piece")} done, {Shown.Fine(decimal.Round(how.Percent))} %",
                        !task.Work.IsEmpty,
                        [
                            .. task.Links.Select(l => new WaitView(
                                l.After,
                                plan[l.After].Task.Called,
                                Typed(l.Lead),
                                Typed(l.Drying),
                                Between(l)
                            )),
                        ],
                        [
                            .. then[task.Id]
                                .Select(x => new ThenView(
                                    x.Task.Id,
                                    x.Task.Called,
                                    ScheduleNotice.Day(plan[x.Task.Id].Start)
                                )),
                        ]
                    );
                }),
        ];
    }

    private static string Typed(decimal hours) => hours == 0 ? "" : Rounding.Text(hours);

    /// <summary>What lies between, in words.</summary>
    internal static string Between(TaskLink link) =>
        string.Join(
            ", ",
            new[]
            {
                link.Lead > 0 ? $"{Shown.Typed(link.Lead)} working h between" : "",
                link.Drying > 0 ? $"dries {Shown.Typed(link.Drying)} h" : "",
            }.Where(w => w.Length > 0)
        );
}

/// <summary>Who is told of what, when the schedule is told as it stands.</summary>
/// <param name="Crew">Their name.</param>
/// <param name="How">How they are told; or that there is no address.</param>
/// <param name="Reached">Whether there is one.</param>
/// <param name="Lines">What, a line a task.</param>
public sealed record TellView(string Crew, string How, bool Reached, IReadOnlyList<string> Lines);

/// <summary>What was told before.</summary>
/// <param name="At">When, and by whom.</param>
/// <param name="Told">Who was told, a line each.</param>
public sealed record ToldView(string At, IReadOnlyList<string> Told);

/// <summary>A crew that can do a task.</summary>
public sealed record CrewChoice(Guid Id, string Name);

/// <summary>A day on which a crew has something of the work order to do.</summary>
/// <param name="Crew">The crew.</param>
/// <param name="Day">The day, like 2027-01-31.</param>
/// <param name="Words">Both as they are read.</param>
public sealed record CrewDay(Guid Crew, string Day, string Words)
{
    /// <summary>Most that are listed.</summary>
    private const int Most = 100;

    /// <summary>Those of a plan from a day on, the earliest first.</summary>
    internal static IReadOnlyList<CrewDay> Of(TaskPlan plan, DateOnly from) =>
        [
            .. plan
                .Times.Where(t => !t.Task.Work.IsEmpty && DateOnly.FromDateTime(t.End) >= from)
                .SelectMany(t => DaysOf(plan, t, from).Select(day => (day, Crew: plan.CrewOf(t.Task))))
                .DistinctBy(x => (x.day, x.Crew.Id))
                .OrderBy(x => x.day)
                .ThenBy(x => x.Crew.Name, StringComparer.Ordinal)
                .Take(Most)
                .Select(x => new CrewDay(
                    x.Crew.Id,
                    Core.Quantities.Day.Written(x.day),
                    $"{ScheduleNotice.Day(x.day.ToDateTime(default))}, {x.Crew.Name}"
                )),
        ];

    private static IEnumerable<DateOnly> DaysOf(TaskPlan plan, TaskTime time, DateOnly from)
    {
        var start = DateOnly.FromDateTime(time.Start);
        for (var day = start > from ? start : from; day.ToDateTime(default) < time.End; day = day.AddDays(1))
            if (plan.CrewOf(time.Task).Time.On(day, time.Start, time.End) > 0)
                yield return day;
    }
}

/// <summary>A section of the work order, to be laid out.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Hours">Labour hours allowed for it.</param>
/// <param name="Crew">Who does it, as far as that can be told; null where there is nobody.</param>
public sealed record SectionToLay(string Name, string Hours, Guid? Crew);

/// <summary>The schedule of a job.</summary>
/// <param name="Version">The job's version that it is of.</param>
/// <param name="Strip">The strip.</param>
/// <param name="Tasks">The tasks, by when they begin.</param>
/// <param name="Crews">Who can do them.</param>
/// <param name="Sections">What can be laid out, and by whom.</param>
/// <param name="Places">Where tasks are, for whoever writes one by hand.</param>
/// <param name="Clashes">Crews that are asked for more hours than they have on a day.</param>
/// <param name="Days">Days for which there is a work order.</param>
/// <param name="Tell">Who would be told of what.</param>
/// <param name="Told">What was told, the latest first.</param>
/// <param name="Today">The firm's day.</param>
/// <param name="Says">How it stands, in words.</param>
/// <param name="Changed">What change orders did to the work order and not to the plan yet; empty for nothing.</param>
public sealed record TasksView(
    long Version,
    StripView Strip,
    IReadOnlyList<TaskView> Tasks,
    IReadOnlyList<CrewChoice> Crews,
    IReadOnlyList<SectionToLay> Sections,
    IReadOnlyList<string> Places,
    IReadOnlyList<string> Clashes,
    IReadOnlyList<CrewDay> Days,
    IReadOnlyList<TellView> Tell,
    IReadOnlyList<ToldView> Told,
    string Today,
    string Says,
    IReadOnlyList<string> Changed
);

/// <summary>A task that is moved.</summary>
/// <param name="Called">What and where.</param>
/// <param name="Was">When it was done.</param>
/// <param name="Now">When it is done.</param>
public sealed record ShiftView(string Called, string Was, string Now)
{
    /// <summary>It, said as shortly as it can be: days alone, unless the day stays.</summary>
    internal static ShiftView Of(TaskShift shift) =>
        shift.Was.Start.Date != shift.Now.Start.Date
            ? new(shift.Now.Task.Called, ScheduleNotice.Day(shift.Was.Start), ScheduleNotice.Day(shift.Now.Start))
            : new(
                shift.Now.Task.Called,
                ScheduleNotice.Span(shift.Was.Start, shift.Was.End),
                ScheduleNotice.Span(shift.Now.Start, shift.Now.End)
            );
}

/// <summary>What something would do to the schedule, before it is done (T6).</summary>
/// <param name="Version">The job's version that it is of.</param>
/// <param name="Changes">What the command that does it changes.</param>
/// <param name="Task">The task that it is about; null where it is about all, or is gone.</param>
/// <param name="Days">When that is done then.</param>
/// <param name="Says">What else is to be known of it, a sentence each.</param>
/// <param name="Moves">What moves with it.</param>
/// <param name="PinsMissed">Promises that it breaks.</param>
/// <param name="Clashes">Crews that it asks for more hours than they have.</param>
/// <param name="Tell">Who would be told of what then.</param>
/// <param name="Strip">The strip then, and where pieces lay before.</param>
public sealed record TaskPreview(
    long Version,
    ImmutableArray<TaskChange> Changes,
    Guid? Task,
    string Days,
    IReadOnlyList<string> Says,
    IReadOnlyList<ShiftView> Moves,
    IReadOnlyList<string> PinsMissed,
    IReadOnlyList<string> Clashes,
    IReadOnlyList<TellView> Tell,
    StripView Strip
);
