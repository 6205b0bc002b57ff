using System.Collections.Immutable;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Tasks as a part of the job: laid out, edited, moved by one command and undone by one; who is told of what; hours and days off as they are typed (delivery.md, T).</summary>
public sealed class ScheduleTests
{
    // 1 March 2027 is a Monday.
    private static readonly DateTime Monday = new(2027, 3, 1, 8, 0, 0);

    private static readonly Crew Wyn = new(Id(1), "Wyn", 1, WorkingTime.Usual),
        Idris = new(Id(2), "Idris", 1, WorkingTime.Usual);

    private static readonly Crews Firm = new(WorkingTime.Usual, [Wyn, Idris]);

    private static Guid Id(int number) => new(number, 0, 0, new byte[8]);

    private static DateTime At(int day, int hour) => Monday.Date.AddDays(day).AddHours(hour);

    private static PlannedTask Task(int number, decimal hours, DateTime start, params TaskLink[] links) =>
        new(Id(100 + number), $"Task {number}", "Ground floor", Wyn.Id, hours, start)
        {
            Links = [.. links],
            Rank = $"{number}",
        };

    private static TaskPlan Plan(Crews firm, params IEnumerable<PlannedTask> tasks) =>
        TaskPlan.Of([.. tasks], firm.For([]), firm.Firm, LocalClock.Steady);

    private static TaskPlan Plan(params IEnumerable<PlannedTask> tasks) => Plan(Firm, tasks);

    private static readonly Job Empty = Job.Empty(
        Id(9),
        new("Clinic", "", "2039", null, "The firm", "", "EUR", "2027-03-01"),
        UnitSystem.Metres
    );

    private static Job Do(Job job, ChangeTasks command) => Commands.Apply(job, command, _ => null).Job;

    [Fact]
    public void Change_orders_are_taken_over_into_the_plan_where_nobody_has_said_otherwise()
    {
        PlannedTask Made(int number, decimal hours, params TaskLink[] links) =>
            Task(number, hours, Monday, links) with
            {
                Work = [Id(500 + number)],
            };
        // As it was made: walls, ceilings, floors after the walls, skirting. Then hours of the ceilings were typed, the skirting was taken away, the floors have begun.
        ImmutableArray<PlannedTask> signed =
        [
            Made(1, 8),
            Made(2, 8),
            Made(3, 8, new TaskLink(Id(101), 0, 0)),
            Made(4, 4),
        ];
        var before = Plan(
            signed[0],
            signed[1] with
            {
                Hours = 10,
                Start = At(1, 8),
            },
            signed[2] with
            {
                Start = At(3, 8),
                IsBegun = true,
            },
            Task(9, 2, At(4, 8), new TaskLink(Id(101), 0, 0))
        );
        // The change: more of the walls and the ceilings, a porch, no floors and no skirting any more.
        ImmutableArray<PlannedTask> now = [Made(1, 12), Made(2, 9), Made(5, 3, new TaskLink(Id(101), 0, 0))];
        var move = TaskEdit.Followed(before, [signed], [], now, Monday.Date, []);
        decimal Hours(int number) => move.Tasks.Single(t => t.Id == Id(100 + number)).Hours;
        Assert.Equal([Id(101), Id(102), Id(103), Id(109), Id(105)], move.Tasks.Select(t => t.Id));
        Assert.Equal((12m, 10m, 8m, 3m), (Hours(1), Hours(2), Hours(3), Hours(5)));
        // The porch comes behind what its crew has, Friday 10:00; what had begun stays.
        Assert.Equal(At(4, 10), move.Tasks.Single(t => t.Id == Id(105)).Start);
        Assert.Equal(At(3, 8), move.Tasks.Single(t => t.Id == Id(103)).Start);
        // Taken over once there is nothing more to take over.
        var after = before.With(move.Tasks);
        Assert.Equal(
            after.Settled.Select(t => (t.Id, t.Hours, t.Start)),
            TaskEdit.Followed(after, [signed], [], now, Monday.Date, []).Tasks.Select(t => (t.Id, t.Hours, t.Start))
        );
        // Not begun, what is done no more goes, and nothing waits for it.
        var open = Plan(signed[0], Task(9, 2, At(4, 8), new TaskLink(Id(101), 0, 0)));
        var gone = TaskEdit.Followed(open, [signed], [], [], Monday.Date, []);
        Assert.Empty(Assert.Single(gone.Tasks).Links);
    }

    [Theory]
    [InlineData("8–16", "8:00–16:00")]
    [InlineData("8-12, 12:30 - 16:30", "8:00–12:00, 12:30–16:30")]
    [InlineData("", "")]
    [InlineData(" 7:15–15:45 ", "7:15–15:45")]
    public void Hours_of_a_day_are_read_as_people_write_them(string typed, string written) =>
        Assert.Equal(written, WorkSpan.Written(WorkSpan.Read(typed)));

    [Theory]
    [InlineData("8")]
    [InlineData("8–25")]
    [InlineData("16–8")]
    [InlineData("8–12, 11–14")]
    [InlineData("early–late")]
    public void Hours_that_are_none_are_refused(string typed) =>
        Assert.Equal("week", Assert.Throws<RefusedException>(() => WorkSpan.Read(typed)).Refusal.Field);

    [Fact]
    public void A_task_is_moved_by_days_of_work_and_lies_on_the_tape_by_hours_of_work()
    {
        var time = WorkingTime.Usual with { Off = [new(new(2027, 3, 3), new(2027, 3, 3), "inspection")] };
        // Tuesday 10:00, a day of work later: Wednesday is off. Friday to Monday, and back again.
        Assert.Equal(At(3, 10), time.Days(At(1, 10), 1));
        Assert.Equal(At(1, 10), time.Days(At(3, 10), -1));
        Assert.Equal(At(7, 9), time.Days(At(4, 9), 1));
        Assert.Equal(At(4, 9), time.Days(At(7, 9), -1));
        Assert.Equal(At(0, 8), time.Days(At(0, 8), 0));
        // Half of the day's work is over at noon; all of it when it closes; of a day off so much as of the day.
        Assert.Equal(0.5m, time.OnTape(new(2027, 3, 1), At(0, 12)));
        Assert.Equal(1m, time.OnTape(new(2027, 3, 1), At(0, 16)));
        Assert.Equal(1m, time.OnTape(new(2027, 3, 1), At(1, 7)));
        Assert.Equal(2.25m, time.OnTape(new(2027, 3, 1), At(2, 6)));
        Assert.Equal(-3m, time.OnTape(new(2027, 3, 4), At(0, 8)));
    }

    [Fact]
    public void Days_off_of_the_firm_are_those_of_its_crews_and_not_of_other_firms()
    {
        var firm = new Crews(
            WorkingTime.Usual with
            {
                Off = [new(new(2027, 3, 1), new(2027, 3, 1), "")],
            },
            [Wyn, Idris with { IsOtherFirm = true }]
        );
        var crews = firm.For([Id(77)]);
        Assert.Equal([0m, 8m, 0m], crews.Select(c => c.Time.HoursOn(new(2027, 3, 1))));
        Assert.Equal(Crews.Unknown, crews[2].Name);
        firm.Check();
        Assert.Equal(
            "name",
            Assert
                .Throws<RefusedException>(() => (Firm with { All = [Wyn, Idris with { Name = "wyn " }] }).Check())
                .Refusal.Field
        );
    }

    [Fact]
    public void What_is_changed_is_one_command_and_one_undo()
    {
        var job = Do(
            Empty,
            TaskEdit.Command(
                [],
                [Task(1, 8, Monday), Task(2, 8, Monday, new TaskLink(Id(101), 0, 24)), Task(3, 4, At(3, 8))]
            )
        );
        var before = JobFile.Write(job);
        // Task 1 a day later: 2 waits for it to dry until Wednesday evening, and so for Thursday; 3 stays where it is.
        var move = TaskMove.Of(Plan(job.Tasks), Id(101), At(1, 8), []);
        var command = TaskEdit.Command(job.Tasks, move.Tasks);
        Assert.Equal([Id(101), Id(102)], command.Tasks.Select(t => t.Now!.Id).Order());
        var (moved, changes) = Commands.Apply(job, command, _ => null);
        Assert.Equal(At(3, 8), Plan(moved.Tasks)[Id(102)].Start);
        Assert.Equal(At(1, 8), moved.Tasks[0].Pin);
        Assert.Equal(before, JobFile.Write(ChangeSet.Apply(moved, ChangeSet.Reversed(changes))));
        Assert.Equal(moved.Tasks.Length, JobFile.Read(JobFile.Write(moved)).Tasks.Length);
        // It was made from tasks that somebody has changed meanwhile: shown, not overwritten.
        Assert.Throws<ConflictException>(() => Do(moved, command));
        // Nothing is changed by what stands like that.
        Assert.Empty(Commands.Apply(moved, new ChangeTasks([new(moved.Tasks[0], moved.Tasks[0])]), _ => null).Changes);
    }

    [Fact]
    public void T9_a_job_refuses_tasks_that_wait_for_themselves_or_for_nothing()
    {
        var ring = Assert.Throws<RefusedException>(() =>
            Do(
                Empty,
                TaskEdit.Command(
                    [],
                    [Task(1, 8, Monday, new TaskLink(Id(102), 0, 0)), Task(2, 8, Monday, new TaskLink(Id(101), 0, 0))]
                )
            )
        );
        Assert.Contains("Task 1 → Task 2 → Task 1", ring.Refusal.Message, StringComparison.Ordinal);
        Assert.Throws<RefusedException>(() =>
            Do(Empty, TaskEdit.Command([], [Task(1, 8, Monday, new TaskLink(Id(109), 0, 0))]))
        );
        foreach (
            var wrong in new[]
            {
                Task(1, -1, Monday),
                Task(1, 8, Monday.AddSeconds(1)),
                Task(1, 8, DateTime.SpecifyKind(Monday, DateTimeKind.Utc)),
                Task(1, 8, Monday) with
                {
                    Name = " ",
                },
            }
        )
            Assert.Throws<RefusedException>(() => Do(Empty, new ChangeTasks([new(null, wrong)])));
    }

    [Fact]
    public void T8_more_hours_push_what_waits_and_what_is_removed_is_waited_for_no_more()
    {
        var plan = Plan(Task(1, 8, Monday), Task(2, 8, At(1, 8), new TaskLink(Id(101), 0, 0)));
        var longer = TaskEdit.Set(plan, Task(1, 16, Monday), []);
        Assert.Equal(At(2, 8), plan.With(longer.Tasks)[Id(102)].Start);
        Assert.Equal("Task 2", Assert.Single(longer.Pushed, s => s.Now.Task.Id == Id(102)).Now.Task.Name);
        // Shorter again: nothing is pulled earlier by itself (T5).
        var shorter = TaskEdit.Set(plan.With(longer.Tasks), Task(1, 8, Monday), []);
        Assert.Equal(At(2, 8), plan.With(shorter.Tasks)[Id(102)].Start);
        var without = TaskEdit.Removed(plan, Id(101), []);
        Assert.Empty(Assert.Single(without.Tasks).Links);
        // A hand's own task comes behind, and is laid where its links let it (T4).
        var added = TaskEdit.Added(plan, Task(3, 4, Monday, new TaskLink(Id(102), 0, 16)), []);
        Assert.Equal(At(2, 8), plan.With(added.Tasks)[Id(103)].Start);
    }

    [Fact]
    public void A_start_that_is_typed_moves_the_task_and_says_by_how_much_its_links_put_it_off()
    {
        var plan = Plan(Task(1, 8, Monday), Task(2, 8, At(1, 8), new TaskLink(Id(101), 0, 0)));
        var set = TaskEdit.Set(plan, Task(2, 8, At(0, 8), new TaskLink(Id(101), 0, 0)), []);
        Assert.Equal((At(1, 8), TimeSpan.FromDays(1)), (plan.With(set.Tasks)[Id(102)].Start, set.Later));
        Assert.Throws<RefusedException>(() =>
            TaskEdit.Set(plan.With([.. plan.Tasks.Select(t => t with { IsBegun = true })]), Task(1, 8, At(4, 8)), [])
        );
    }

    [Fact]
    public void What_would_end_centuries_away_is_refused_in_a_sentence()
    {
        // Forty tasks of nearly nine years, one after the other: within the bounds of each, and beyond those of time.
        var chain = Enumerable
            .Range(1, 40)
            .Select(n => Task(n, 18_000, Monday, n == 1 ? [] : [new TaskLink(Id(99 + n), 0, 10_000)]));
        Assert.Equal("off", Assert.Throws<RefusedException>(() => Plan(chain)).Refusal.Field);
        Assert.Throws<RefusedException>(() => WorkingTime.Usual.Days(Monday, 200_000));
        Assert.Throws<RefusedException>(() => WorkingTime.Usual.Days(Monday, -200_000));
        Assert.Throws<RefusedException>(() => WorkingTime.Usual.Next(DateTime.MaxValue));
    }

    [Fact]
    public void Laid_out_anew_what_has_begun_and_what_was_written_by_hand_stays()
    {
        PlannedTask[] made = [Task(1, 8, Monday) with { Work = [Id(1)] }, Task(2, 8, Monday) with { Work = [Id(2)] }];
        var hand = Task(9, 2, At(4, 9), new TaskLink(Id(102), 0, 0));
        var plan = Plan(made[0] with { Start = At(-7, 8), IsBegun = true }, made[1] with { Start = At(2, 8) }, hand);
        var laid = plan.With(TaskEdit.LaidOut(plan, [.. made], Monday, []).Tasks);
        Assert.Equal([At(-7, 8), Monday, At(4, 9)], new[] { Id(101), Id(102), Id(109) }.Select(id => laid[id].Start));
    }

    [Fact]
    public void A_task_has_begun_with_its_hours_and_is_done_with_its_pieces()
    {
        OrderedLine Line(int work, int place, string group, decimal hours) =>
            new(Id(work), Id(place), "Walls", "Walls", group, $"Room {place}", 1, "", "1", 0, hours);
        var order = new WorkOrder(
            [Line(1, 11, "Up", 6), Line(1, 12, "Up", 2), Line(1, 13, "Down", 4), Line(2, 13, "Down", 0)],
            [],
            0,
            [],
            [],
            [],
            [],
            [],
            1,
            8
        );
        PlannedTask Made(int number, string at, params int[] work) =>
            Task(number, 8, Monday) with
            {
                At = at,
                Work = [.. work.Select(Id)],
            };
        ImmutableArray<PlannedTask> tasks = [Made(1, "Up", 1), Made(2, "Down", 1, 2), Made(3, "Down")];
        HoursFact Hours(int work, int? place) =>
            new(
                Guid.NewGuid(),
                HoursFor.Work,
                Id(work),
                place is { } at ? Id(at) : null,
                "Wyn",
                new(2027, 3, 1),
                1,
                "",
                default,
                "Wyn"
            );
        SiteLog Log(params HoursFact[] hours) =>
            new(order, [new(Guid.NewGuid(), Id(1), Id(11), 100, default, "Wyn")], [.. hours]);
        var ticked = TaskProgress.Of(tasks, Log());
        Assert.Equal(new TaskProgress(true, 75, 2, 1), ticked[tasks[0].Id]);
        Assert.Equal(new TaskProgress(false, 0, 2, 0), ticked[tasks[1].Id]);
        Assert.Equal(new TaskProgress(false, 0, 0, 0), ticked[tasks[2].Id]);
        Assert.True(TaskProgress.Of(tasks, Log(Hours(1, 13)))[tasks[1].Id].IsBegun);
        Assert.True(TaskProgress.Of(tasks, Log(Hours(1, null)))[tasks[1].Id].IsBegun);
        Assert.False(TaskProgress.Of(tasks, Log(Hours(1, 12)))[tasks[1].Id].IsBegun);
        Assert.Equal(2, TaskProgress.LinesOf(order, tasks[0]).Count());
    }

    [Fact]
    public void T10_a_notice_says_what_is_new_what_moved_and_what_is_no_longer_theirs()
    {
        PublishedTask Of(int number, Guid crew, DateTime start, DateTime end, string at = "Kennels") =>
            new(Id(number), $"Task {number}", at, crew, start, end);
        ImmutableArray<PublishedTask> was =
        [
            Of(1, Wyn.Id, At(0, 8), At(0, 16)),
            Of(2, Wyn.Id, At(1, 8), At(1, 16)),
            Of(3, Wyn.Id, At(2, 8), At(2, 12)),
        ];
        ImmutableArray<PublishedTask> now =
        [
            was[0],
            Of(2, Wyn.Id, At(2, 8), At(3, 12)),
            Of(3, Idris.Id, At(2, 8), At(2, 12)),
            Of(4, Wyn.Id, At(4, 8), At(4, 10), ""),
        ];
        var told = PublishedTask.Told(was, now);
        Assert.Equal([Idris.Id, Wyn.Id], told.Select(t => t.Key).OrderDescending());
        Assert.Equal(
            """
            The firm: your days at Clinic, Quay 2.

            Task 2, Kennels: Wed 3 Mar, 8:00 to Thu 4 Mar, 12:00 (was Tue 2 Mar, 8:00–16:00)
            Task 3, Kennels: no longer yours (was Wed 3 Mar, 8:00–12:00)
            Task 4: Fri 5 Mar, 8:00–10:00
            """.ReplaceLineEndings("\n"),
            ScheduleNotice.Words("The firm", "Clinic", "Quay 2", Wyn.Id, told[Wyn.Id], 1000)
        );
        // A text message has so many characters and no more; what is left out is counted.
        var text = ScheduleNotice.Words("The firm", "Clinic", "", Wyn.Id, told[Wyn.Id], 170);
        Assert.True(text.Length <= 170, text);
        Assert.EndsWith("and 2 more tasks: ask the office.", text, StringComparison.Ordinal);
    }

    /// <summary>Random edits, moves and days off: after each, no link is broken, no task that has begun moves, nothing comes earlier than it was unless it was put there, and an undo brings every byte back.</summary>
    [Fact]
    [Trait("Category", "Long")]
    public void Any_order_of_edits_keeps_every_link_and_is_undone_to_the_byte()
    {
        var random = new Random(20270301);
        var rounds = Properties.Times(400, 20_000);
        for (var round = 0; round < rounds; round++)
        {
            var job = Do(
                Empty,
                TaskEdit.Command(
                    [],
                    [
                        .. Enumerable
                            .Range(1, 8)
                            .Select(n =>
                                Task(
                                    n,
                                    random.Next(0, 20),
                                    At(random.Next(0, 12), 8),
                                    n > 1 && random.Next(2) == 0
                                        ?
                                        [
                                            new TaskLink(
                                                Id(100 + random.Next(1, n)),
                                                random.Next(0, 9),
                                                random.Next(0, 40)
                                            ),
                                        ]
                                        : []
                                ) with
                                {
                                    Crew = random.Next(2) == 0 ? Wyn.Id : Idris.Id,
                                }
                            ),
                    ]
                )
            );
            var begun = random.Next(3) == 0 ? Id(100 + random.Next(1, 9)) : Guid.Empty;
            var firm = Firm;
            for (var step = 0; step < 5; step++)
            {
                var tasks = job.Tasks.Select(t => t with { IsBegun = t.Id == begun }).ToList();
                var plan = Plan(firm, tasks);
                if (random.Next(4) == 0)
                    firm = firm with
                    {
                        Firm = firm.Firm with { Off = [new(new(2027, 3, 1 + random.Next(20)), new(2027, 3, 25), "")] },
                    };
                var of = tasks[random.Next(tasks.Count)];
                var put = random.Next(3);
                if (of.IsBegun && put < 2)
                    continue;
                var move = put switch
                {
                    0 => TaskMove.Of(plan, of.Id, At(random.Next(0, 14), 8), []),
                    1 => TaskEdit.Set(
                        plan,
                        plan.Settled.First(t => t.Id == of.Id) with
                        {
                            Hours = random.Next(0, 30),
                        },
                        []
                    ),
                    _ => TaskEdit.Added(plan, Task(200 + step, 3, At(2, 8), new TaskLink(of.Id, 2, 5)), []),
                };
                var was = JobFile.Write(job);
                var (now, changes) = Commands.Apply(job, TaskEdit.Command(job.Tasks, move.Tasks), _ => null);
                Assert.Equal(was, JobFile.Write(ChangeSet.Apply(now, ChangeSet.Reversed(changes))));
                job = JobFile.Read(JobFile.Write(now));
                var after = Plan(firm, job.Tasks.Select(t => t with { IsBegun = t.Id == begun }));
                foreach (var time in after.Times)
                {
                    if (!time.Task.IsBegun)
                        foreach (var link in time.Task.Links)
                            Assert.True(
                                time.Start
                                    >= firm.Firm.After(after[link.After].End, link.Lead).AddHours((double)link.Drying)
                            );
                    if (time.Task.Id != of.Id && tasks.Exists(t => t.Id == time.Task.Id))
                        Assert.True(time.Start >= plan[time.Task.Id].Start, "nothing is pulled earlier");
                    if (time.Task.IsBegun)
                        Assert.Equal(plan[time.Task.Id].Start, time.Start);
                }
            }
        }
    }
}
