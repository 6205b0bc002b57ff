using System.Collections.Immutable;
using System.Text;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Documents;
using Emendum.Documents.Workbooks;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Deliver;

/// <summary>Plans what was accepted in time: tasks of the work order, crews and their days, several jobs together; and tells those whom it concerns (delivery.md, T).</summary>
public sealed class Scheduling(
    OpenJobs open,
    WorkOrders works,
    RevisionStore revisions,
    SiteStore sites,
    ScheduleStore schedules,
    SettingStore settings,
    FirmDay day,
    Live live,
    TimeProvider time
)
{
    /// <summary>Tasks of other jobs are looked at when one of them begins later than so many days ago.</summary>
    private const int DaysBack = 60;

    private DateTime Now => time.GetUtcNow().UtcDateTime;

    /// <summary>The schedule of a job as it stands.</summary>
    private sealed record Standing(
        Guid Job,
        AcceptedWork Work,
        JobState State,
        Crews Firm,
        ImmutableArray<PlannedTask> Tasks,
        TaskPlan Plan,
        IReadOnlyDictionary<Guid, TaskProgress> Progress,
        IReadOnlyList<OtherTasks> Others
    )
    {
        public IReadOnlyCollection<TaskTime> OtherTimes => [.. Others.SelectMany(o => o.Times)];
    }

    /// <summary>A day on which something can be planned.</summary>
    /// <exception cref="RefusedException">It is none, or centuries away.</exception>
    internal static DateOnly DayOf(string text, string field) =>
        Typed.Day(text, field) is { Year: >= 2000 and < 2200 } day
            ? day
            : throw RefusedException.Of(field, "Plan between 2000 and 2199.");

    private Standing Of(Guid job) =>
        Of(
            job,
            open.Get(job).Now,
            works.Of(job) ?? throw RefusedException.Of("job", "Nothing was accepted yet: there is nothing to plan.")
        );

    private Standing Of(Guid job, JobState state, AcceptedWork work)
    {
        var firm = settings.Get(Crews.Setting, Crews.Starting);
        var left = sites.LeftOut();
        var tasks = PlannedTask.Without(state.Estimate.Job.Tasks, left);
        var progress = TaskProgress.Of(tasks, sites.Log(job, work.Order));
        var clock = day.Clock();
        var others = schedules
            .Tasks(day.Today.AddDays(-DaysBack).ToDateTime(default), job)
            .ConvertAll(o => o with { Tasks = PlannedTask.Without(o.Tasks, left) });
        var crews = firm.For(tasks.Concat(others.SelectMany(o => o.Tasks)).Select(t => t.Crew));
        return new(
            job,
            work,
            state,
            firm,
            tasks,
            TaskPlan.Of([.. tasks.Select(t => t with { IsBegun = progress[t.Id].IsBegun })], crews, firm.Firm, clock),
            progress,
            [.. others.Select(o => Other(o, crews, firm, clock)).OfType<OtherTasks>()]
        );
    }

    /// <summary>Another job's tasks in time; null where they have none, as when their crew does not work for years: that is said in their own job.</summary>
    private static OtherTasks? Other(TasksOfJob of, ImmutableArray<Crew> crews, Crews firm, LocalClock clock)
    {
        try
        {
            return new(of, [.. TaskPlan.Of(of.Tasks, crews, firm.Firm, clock).Times]);
        }
        catch (RefusedException)
        {
            return null;
        }
    }

    /// <summary>The view; null while nothing is accepted.</summary>
    internal TasksView? View(Guid job, StripAsked strip)
    {
        var state = open.Get(job).Now;
        return works.Of(job) is { } work ? Shown(Of(job, state, work), strip) : null;
    }

    private TasksView Shown(Standing of, StripAsked strip)
    {
        var clashes = Clashes(of.Plan, of.Others);
        var moment = day.Moments();
        return new(
            of.State.Version,
            StripOf(of, of.Plan, null, clashes, strip),
            TaskView.Of(of.Plan, of.Progress),
            [.. of.Plan.Crews.Select(c => new CrewChoice(c.Id, c.Name))],
            [.. SectionsOf(of)],
            [.. of.Work.Order.Lines.Select(l => l.Group).Where(g => g.Length > 0).Distinct()],
            [.. clashes.Select(c => Words(c, of.Plan, of.Others))],
            CrewDay.Of(of.Plan, day.Today),
            Tell(of, of.Plan),
            [.. schedules.Published(of.Job).Select(p => new ToldView($"{moment(p.At)}, {p.By}", p.Told))],
            day.Written,
            Says(of),
            Followed(of) is { } move ? [.. Differences(of.Plan.Settled, move.Tasks)] : []
        );
    }

    private static string Says(Standing of)
    {
        if (of.Plan.Tasks.IsEmpty)
            return "";
        var done = of.Progress.Values.Count(p => p.IsDone);
        var all = Counted.Of(of.Plan.Tasks.Length, "task");
        return $"{(done > 0 ? $"{done} of {all} done" : all)} · ends {ScheduleNotice.Day(of.Plan.Times.Max(t => t.End))}";
    }

    /// <summary>Sections with whoever does them by now; else the other firm that was named for them, else the first crew of ours.</summary>
    private static IEnumerable<SectionToLay> SectionsOf(Standing of)
    {
        var now = of.Plan.Tasks.Where(t => !t.Work.IsEmpty).ToLookup(t => t.Name, t => t.Crew);
        foreach (var section in of.Work.Order.Lines.GroupBy(l => l.Section))
        {
            var by = section.Select(l => l.By).FirstOrDefault(b => b.Length > 0);
            yield return new(
                section.Key,
                $"{Core.Quantities.Shown.Tenths(section.Sum(l => l.AllHours))} h",
                now[section.Key].Cast<Guid?>().FirstOrDefault() ?? of.Firm.All.FirstOrDefault(c =>
                        string.Equals(c.Name, by, StringComparison.OrdinalIgnoreCase)
                    )?.Id
                    ?? of.Firm.All.FirstOrDefault(c => !c.IsOtherFirm)?.Id
            );
        }
    }

    private StripView StripOf(
        Standing of,
        TaskPlan plan,
        TaskPlan? before,
        IReadOnlyList<CrewClash> clashes,
        StripAsked asked
    ) =>
        new ScheduleStrip(plan, before, of.Progress, of.Others, clashes).Of(
            asked.From.Length > 0 ? DayOf(asked.From, "from") : ScheduleStrip.Usual(before ?? plan, day.Today),
            asked.ByCrew,
            plan.Clock.ToLocal(Now)
        );

    private static IReadOnlyList<CrewClash> Clashes(TaskPlan plan, IReadOnlyList<OtherTasks> others) =>
        [.. TaskPlan.Clashes(plan.Times.Concat(others.SelectMany(o => o.Times)), plan.Crews)];

    private static string Words(CrewClash clash, TaskPlan plan, IReadOnlyList<OtherTasks> others)
    {
        var here = plan.Times.Where(t => clash.Tasks.Contains(t.Task.Id)).Select(t => t.Task.Called);
        var there = others.SelectMany(o =>
            o.Times.Where(t => clash.Tasks.Contains(t.Task.Id)).Select(t => $"{t.Task.Called} ({o.Of.Name})")
        );
        var crew = plan.Crews.First(c => c.Id == clash.Crew);
        return $"{crew.Name}, {ScheduleNotice.Day(clash.Day.ToDateTime(default))}: asked for {Core.Quantities.Shown.Fine(clash.Asked)} h, has {Core.Quantities.Shown.Fine(clash.Has)} h: {Counted.Few([.. here, .. there], 6)}";
    }

    /// <summary>Who would be told of what.</summary>
    private IReadOnlyList<TellView> Tell(Standing of, TaskPlan plan) => Tell(plan, Told(of.Job, plan));

    private static IReadOnlyList<TellView> Tell(
        TaskPlan plan,
        ILookup<Guid, (PublishedTask? Was, PublishedTask? Now)> told
    ) =>
        [
            .. told.Select(crew =>
            {
                var who = plan.Crews.FirstOrDefault(c => c.Id == crew.Key);
                return new TellView(
                    who?.Name ?? Crews.Unknown,
                    HowTold(who),
                    who is { Mail.Length: > 0 } or { Phone.Length: > 0 },
                    [
                        .. crew.OrderBy(c => (c.Now ?? c.Was)!.Start)
                            .Select(c => ScheduleNotice.Line(crew.Key, c.Was, c.Now)),
                    ]
                );
            }),
        ];

    private static string HowTold(Crew? crew) =>
        crew is { Mail.Length: > 0 } ? $"mail to {crew.Mail}"
        : crew is { Phone.Length: > 0 } ? $"text message to {crew.Phone}"
        : "no address: tell them yourself";

    private ILookup<Guid, (PublishedTask? Was, PublishedTask? Now)> Told(Guid job, TaskPlan plan) =>
        PublishedTask.Told(schedules.Published(job, 1).FirstOrDefault()?.Tasks ?? [], PublishedTask.Of(plan));

    /// <summary>What laying the work order out would do.</summary>
    internal TaskPreview LayOut(Guid job, LayOutTasks lay)
    {
        var of = Of(job);
        var from = DayOf(lay.From, "from");
        var by = (lay.Crews.IsDefault ? [] : lay.Crews)
            .GroupBy(c => c.Section)
            .ToDictionary(g => g.Key, g => g.First().Crew);
        if (of.Firm.All.IsEmpty)
            throw RefusedException.Of("crews", "There is no crew yet: Office, Crews.");
        var made = TaskMaking.Of(
            works.Agreed(job),
            section =>
                by.TryGetValue(section, out var crew) && of.Firm.All.Any(c => c.Id == crew)
                    ? crew
                    : throw RefusedException.Of(
                        "crews",
                        $"Say who does {(section.Length > 0 ? section : "the work")}."
                    ),
            from.ToDateTime(default)
        );
        if (made.IsEmpty)
            throw RefusedException.Of("crews", "There is no work in the order that could be laid out.");
        return Preview(of, TaskEdit.LaidOut(of.Plan, made, from.ToDateTime(default), of.OtherTimes), null, lay.Strip);
    }

    /// <summary>What moving a task would do.</summary>
    internal TaskPreview Move(Guid job, MoveTask move)
    {
        var of = Of(job);
        var now =
            of.Plan.Times.FirstOrDefault(t => t.Task.Id == move.Task) ?? throw RefusedException.Of(
                "task",
                "That task is not there any more."
            );
        if (Math.Abs(move.By) > 1000)
            throw RefusedException.Of("by", "At most 1,000 days at a time.");
        var to =
            move.Day.Length > 0
                ? DayOf(move.Day, "day").ToDateTime(TimeOnly.FromDateTime(now.Start))
                : of.Plan.CrewOf(now.Task).Time.Days(now.Start, move.By);
        return Preview(of, TaskMove.Of(of.Plan, move.Task, to, of.OtherTimes), move.Task, move.Strip);
    }

    /// <summary>What making a task another would do.</summary>
    internal TaskPreview Set(Guid job, SetTask set)
    {
        var of = Of(job);
        var stands = of.Plan.Settled;
        var old = stands[TaskEdit.IndexOf(stands, set.Task)];
        var now = Known(of, set.Typed.Task(old, set.Task));
        return Preview(of, TaskEdit.Set(of.Plan, now, of.OtherTimes), set.Task, set.Strip);
    }

    /// <summary>What adding a task would do.</summary>
    internal TaskPreview Add(Guid job, AddTask add)
    {
        var of = Of(job);
        return Preview(
            of,
            TaskEdit.Added(of.Plan, Known(of, add.Typed.Task(null, add.Id)), of.OtherTimes),
            add.Id,
            add.Strip
        );
    }

    private static PlannedTask Known(Standing of, PlannedTask task)
    {
        task.Check();
        return of.Plan.Crews.Any(c => c.Id == task.Crew) ? task : throw RefusedException.Of("crew", "Say who does it.");
    }

    /// <summary>What taking a task away would do.</summary>
    internal TaskPreview Remove(Guid job, RemoveTask remove)
    {
        var of = Of(job);
        return Preview(of, TaskEdit.Removed(of.Plan, remove.Task, of.OtherTimes), null, remove.Strip);
    }

    private TaskPreview Preview(Standing of, TaskMove move, Guid? task, StripAsked strip)
    {
        var after = of.Plan.With(move.Tasks);
        var own = after.Times.FirstOrDefault(t => t.Task.Id == task);
        var moved = move.Moved ?? move.Pushed.FirstOrDefault(p => p.Now.Task.Id == task);
        return new(
            of.State.Version,
            TaskEdit.Command(of.Tasks, move.Tasks).Tasks,
            own?.Task.Id,
            own is null ? "" : ScheduleNotice.Span(own.Start, own.End),
            [.. own is null ? LaidOut(after) : SaysOf(move, own, moved)],
            [.. move.Pushed.Where(p => p.Now.Task.Id != task).Select(ShiftView.Of)],
            [
                .. move.PinsMissed.Select(t =>
                    $"{t.Task.Called}: pinned to {ScheduleNotice.Day(t.Task.Pin!.Value)}, missed by {Counted.Of(t.PinMissed, "day")}"
                ),
            ],
            [.. move.Clashes.Select(c => Words(c, after, of.Others))],
            Tell(of, after),
            StripOf(of, after, of.Plan, Clashes(after, of.Others), strip)
        );
    }

    /// <summary>What change orders did to the work order, done to the plan; null where the plan says it already, or nothing was planned or changed.</summary>
    private TaskMove? Followed(Standing of)
    {
        if (
            of.Plan.Tasks.IsEmpty
            || !revisions
                .Changes(of.Job)
                .Any(c => c.Life.Facts.Any(f => f.Kind is FactKind.Accepted or FactKind.YesRecorded))
        )
            return null;
        var (earlier, annulled, now) = works.Stages(of.Job);
        var crews = of.Plan.Tasks.Where(t => !t.Work.IsEmpty).ToLookup(t => t.Name, t => t.Crew);
        var usual = of.Firm.All.FirstOrDefault(c => !c.IsOtherFirm) ?? of.Firm.All.FirstOrDefault();
        if (usual is null)
            return null;
        var from = day.Today.ToDateTime(default);
        ImmutableArray<PlannedTask> Made(Core.Pricing.Estimate estimate) =>
            TaskMaking.Of(estimate, section => crews[section].Append(usual.Id).First(), from);
        var move = TaskEdit.Followed(
            of.Plan,
            [.. earlier.Select(Made)],
            [.. annulled.Select(Made)],
            Made(now),
            from,
            of.OtherTimes
        );
        return Differences(of.Plan.Settled, move.Tasks).Any() ? move : null;
    }

    private static IEnumerable<string> Differences(ImmutableArray<PlannedTask> was, ImmutableArray<PlannedTask> now)
    {
        static string Hours(decimal of) => $"{Core.Quantities.Shown.Tenths(of)} h";
        var before = was.ToDictionary(t => t.Id);
        foreach (var task in now)
            if (!before.Remove(task.Id, out var old))
                yield return $"{task.Called}: new, {Hours(task.Hours)}";
            else if (old.Hours != task.Hours)
                yield return $"{task.Called}: {Hours(old.Hours)} → {Hours(task.Hours)}";
        foreach (var gone in before.Values)
            yield return $"{gone.Called}: not done any more";
    }

    /// <summary>What taking the change orders over into the plan would do.</summary>
    internal TaskPreview Follow(Guid job, FollowChanges follow)
    {
        var of = Of(job);
        var move = Followed(of) ?? throw RefusedException.Of("task", "The plan is as the work order has it.");
        return Preview(of, move, null, follow.Strip) with { Says = [.. Differences(of.Plan.Settled, move.Tasks)] };
    }

    private static IEnumerable<string> LaidOut(TaskPlan plan) =>
        plan.Tasks.IsEmpty
            ? []
            :
            [
                $"{Counted.Of(plan.Tasks.Length, "task")}, from {ScheduleNotice.Day(plan.Times.Min(t => t.Start))} to {ScheduleNotice.Day(plan.Times.Max(t => t.End))}.",
            ];

    private static IEnumerable<string> SaysOf(TaskMove move, TaskTime? own, TaskShift? moved)
    {
        if (moved is not null)
            yield return $"was {ScheduleNotice.Span(moved.Was.Start, moved.Was.End)}";
        if (move.Later > TimeSpan.Zero && own is not null)
            yield return $"What it waits for does not let it begin earlier than {ScheduleNotice.Day(own.Start)}, {ScheduleNotice.Clock(own.Start)}.";
    }

    /// <summary>Tells those whose tasks differ from what was told last (T10): a message each stands in the outbox.</summary>
    internal TasksView Publish(Guid job, PublishSchedule publish)
    {
        var of = Of(job);
        if (publish.Id == Guid.Empty)
            throw RefusedException.Of("id", "It needs an id.");
        var (now, by) = (Now, JobEndpoints.Owner);
        schedules.Publish(
            publish.Id,
            job,
            last =>
            {
                if (publish.Version != of.State.Version)
                    throw RefusedException.Of(
                        "version",
                        "The schedule has changed since it was looked at: look again who is told of what."
                    );
                var tasks = PublishedTask.Of(of.Plan);
                var told = PublishedTask.Told(last?.Tasks ?? [], tasks);
                if (told.Count == 0)
                    throw RefusedException.Of("schedule", "Everybody was told of all of this before.");
                var head = of.Work.Head;
                return (
                    new(
                        publish.Id,
                        0,
                        job,
                        head.Title,
                        head.CustomerAddress,
                        tasks,
                        [.. Tell(of.Plan, told).Select(t => $"{t.Crew}: {t.How}")],
                        now,
                        by
                    ),
                    [.. told.Select(crew => MailTo(of, publish.Id, crew, now)).OfType<Mail>()]
                );
            }
        );
        live.Happened(job);
        return Shown(Of(job), new("", false));
    }

    private Mail? MailTo(
        Standing of,
        Guid schedule,
        IGrouping<Guid, (PublishedTask? Was, PublishedTask? Now)> crew,
        DateTime at
    )
    {
        var who = of.Plan.Crews.FirstOrDefault(c => c.Id == crew.Key);
        if (who is null or { Mail.Length: 0, Phone.Length: 0 })
            return null;
        var head = of.Work.Head;
        var way = who.Mail.Length > 0 ? MessageWay.Mail : MessageWay.Text;
        var words = ScheduleNotice.Words(
            head.Firm,
            head.Title,
            head.CustomerAddress,
            crew.Key,
            crew,
            way == MessageWay.Mail ? Message.MostWords : Message.MostOfText
        );
        var message = new Message(
            [new(way == MessageWay.Mail ? who.Mail : who.Phone, false)],
            way == MessageWay.Mail ? $"Your days at {head.Title}" : "",
            words
        )
        {
            Way = way,
        };
        return new Mail(
            DerivedId.Of($"{schedule}/{crew.Key}"),
            null,
            of.Job,
            null,
            at,
            head.Firm,
            RevisionMails.Sender(message, settings),
            message.To[0],
            message.Subject,
            message.Words,
            "",
            ""
        )
        {
            Schedule = schedule,
            Way = way,
        };
    }

    /// <summary>The work order of a crew for a day: what its tasks of that day are made of.</summary>
    internal IResult WorkOrder(Guid job, Guid crew, string on)
    {
        var of = Of(job);
        var today = Typed.Day(on, "day");
        var who = of.Plan.Crews.FirstOrDefault(c => c.Id == crew) ?? throw RefusedException.Of("crew", "Say for whom.");
        var tasks = of
            .Plan.Times.Where(t => t.Task.Crew == crew && who.Time.On(today, t.Start, t.End) > 0)
            .Select(t => t.Task)
            .ToList();
        var order = of.Work.Order.OfTasks(tasks);
        if (order.Lines.IsEmpty)
            throw RefusedException.Of(
                "day",
                $"{who.Name} has nothing of the work order to do here on {ScheduleNotice.Day(today.ToDateTime(default))}."
            );
        return DeliverEndpoints.PdfOf(
            of.Work,
            order,
            false,
            day,
            $"{who.Name}, {ScheduleNotice.Day(today.ToDateTime(default))} {today.Year}"
        );
    }

    /// <summary>The schedule as a calendar file, as it is planned.</summary>
    internal IResult Calendar(Guid job)
    {
        var of = Of(job);
        var head = of.Work.Head;
        var text = CalendarFile.Write(
            head.Title,
            of.State.Version,
            Now,
            of.Plan.Times.Select(t => new CalendarEntry(
                t.Task.Id,
                t.Task.Called,
                of.Plan.CrewOf(t.Task).Name,
                head.CustomerAddress,
                of.Plan.Clock.ToReal(t.Start),
                of.Plan.Clock.ToReal(t.End)
            ))
        );
        return Results.File(Encoding.UTF8.GetBytes(text), CalendarFile.Type, $"Schedule, {head.Title}.ics");
    }

    /// <summary>The schedule as a workbook.</summary>
    internal IResult Workbook(Guid job)
    {
        var of = Of(job);
        var title = of.Work.Head.Title;
        return Results.File(
            ScheduleWorkbook.Write(
                $"Schedule, {title}",
                of.Plan.Times.OrderBy(t => t.Start)
                    .Select(t => new TaskRow(
                        t.Task.At,
                        t.Task.Name,
                        of.Plan.CrewOf(t.Task).Name,
                        decimal.Round(t.Task.Hours, 2),
                        t.Start,
                        t.End,
                        string.Join(
                            "; ",
                            t.Task.Links.Select(l =>
                                TaskView.Between(l) is { Length: > 0 } between
                                    ? $"{of.Plan[l.After].Task.Called} ({between})"
                                    : of.Plan[l.After].Task.Called
                            )
                        ),
                        decimal.Round(of.Progress[t.Task.Id].Percent),
                        t.PinMissed > 0 ? $"pin missed by {Counted.Of(t.PinMissed, "day")}"
                            : t.Task.Pin is not null ? "pinned"
                            : ""
                    ))
            ),
            "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
            $"Schedule, {title}.xlsx"
        );
    }
}
