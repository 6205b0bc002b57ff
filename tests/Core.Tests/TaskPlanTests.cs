using System.Collections.Immutable;
using CsCheck;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Tasks in time: delivery.md, T1 to T10, each by its number.</summary>
public sealed class TaskPlanTests
{
    // 1 March 2027 is a Monday.
    private static readonly DateTime Monday = new(2027, 3, 1, 8, 0, 0);
    private static readonly Crew Pair = Of(1, "Wyn and Idris", 2),
        One = Of(2, "Nora", 1);

    private static Crew Of(int number, string name, int size, params DaysOff[] off) =>
        new(Id(number), name, size, WorkingTime.Usual with { Off = [.. off] });

    private static Guid Id(int number) => new(number, 0, 0, new byte[8]);

    private static PlannedTask Task(
        int number,
        decimal hours,
        DateTime start,
        Crew? crew = null,
        params TaskLink[] links
    ) => new(Id(100 + number), $"Task {number}", "Ground floor", (crew ?? One).Id, hours, start) { Links = [.. links] };

    private static TaskLink After(int number, decimal lead = 0, decimal drying = 0) =>
        new(Id(100 + number), lead, drying);

    private static TaskPlan Plan(params PlannedTask[] tasks) => Plan([Pair, One], tasks);

    private static TaskPlan Plan(Crew[] crews, params PlannedTask[] tasks) =>
        TaskPlan.Of([.. tasks], [.. crews], WorkingTime.Usual, LocalClock.Steady);

    private static DateTime At(int day, int hour) => Monday.Date.AddDays(day).AddHours(hour);

    [Fact]
    public void T1_a_task_takes_its_hours_by_its_crew_in_its_working_hours_and_is_not_rounded_to_days()
    {
        var time = Plan(Task(1, 40, Monday, Pair))[Id(101)];
        Assert.Equal((Monday, At(2, 12)), (time.Start, time.End));
        // A closing moment can be an end, and a task of no hours ends when it begins.
        Assert.Equal(At(0, 16), Plan(Task(1, 8, Monday))[Id(101)].End);
        Assert.Equal(Monday, Plan(Task(1, 0, Monday))[Id(101)].End);
        // Over a weekend, and begun in the middle of a day.
        Assert.Equal(At(7, 10), Plan(Task(1, 6, At(4, 12)))[Id(101)].End);
        // 8:00 to 12:00 and 13:00 to 17:00: over the noon break.
        var split = WorkingTime.Usual with
        {
            Week =
            [
                .. Enumerable
                    .Range(0, 7)
                    .Select(_ =>
                        ImmutableArray.Create(new WorkSpan(new(8, 0), new(12, 0)), new WorkSpan(new(13, 0), new(17, 0)))
                    ),
            ],
        };
        Assert.Equal(At(0, 15), split.After(Monday, 6));
        Assert.Equal(At(0, 13), split.Next(At(0, 12)));
        Assert.Equal(6, split.Between(Monday, At(0, 15)));
    }

    [Fact]
    public void T2_leads_run_in_working_hours_and_drying_in_real_ones_and_a_closing_moment_is_never_a_start()
    {
        // It ends on Friday at 16:00.
        var ends = Task(1, 8, At(4, 8));
        Assert.Equal(At(7, 8), Plan(ends, Task(2, 1, Monday, One, After(1, drying: 24)))[Id(102)].Start);
        Assert.Equal(At(8, 8), Plan(ends, Task(2, 1, Monday, One, After(1, lead: 8)))[Id(102)].Start);
        // Nothing lies between: not on Friday at 16:00, but on Monday.
        Assert.Equal(At(7, 8), Plan(ends, Task(2, 1, Monday, One, After(1)))[Id(102)].Start);
        // The waiting crew's own days off count, not those of the one before.
        var away = Of(3, "away", 1, new DaysOff(new(2027, 3, 8), new(2027, 3, 9), "course"));
        Assert.Equal(At(9, 8), Plan([One, away], ends, Task(2, 1, Monday, away, After(1)))[Id(102)].Start);
        // Dry at noon of a working day: then.
        Assert.Equal(At(1, 12), Plan(Task(1, 4, Monday), Task(2, 1, Monday, One, After(1, drying: 24)))[Id(102)].Start);
    }

    [Fact]
    public void T2_drying_goes_on_through_a_change_of_the_clock()
    {
        // Clocks go forward in the night to Sunday, 28 March 2027 (EU summer time): from Saturday 16:00 24 real hours end at 17:00.
        var zone = TimeZoneInfo.FindSystemTimeZoneById("Europe/Berlin");
        var clock = new LocalClock(
            t => TimeZoneInfo.ConvertTimeToUtc(t, zone),
            t => TimeZoneInfo.ConvertTimeFromUtc(t, zone)
        );
        Assert.Equal(new DateTime(2027, 3, 28, 17, 0, 0), clock.After(new(2027, 3, 27, 16, 0, 0), 24));
        Assert.Equal(new DateTime(2027, 3, 28, 16, 0, 0), LocalClock.Steady.After(new(2027, 3, 27, 16, 0, 0), 24));
        Assert.Equal(new DateTime(2027, 3, 27, 16, 0, 0), clock.After(new(2027, 3, 27, 16, 0, 0), 0));
    }

    [Fact]
    public void T3_a_pin_is_the_earliest_start_and_a_promise_and_no_link_is_broken_for_it()
    {
        var pinned = Task(2, 4, Monday, One, After(1)) with { Pin = At(3, 8) };
        // It waits for its pin though it could begin on Tuesday.
        Assert.Equal((At(3, 8), 0), Timed(Plan(Task(1, 8, Monday), pinned)));
        // Its forerunner is moved to Thursday: it begins on Friday, and its pin is missed by a day.
        Assert.Equal((At(4, 8), 1), Timed(Plan(Task(1, 8, At(3, 8)), pinned)));
        // A pin on a day off is kept by the first working moment after it.
        Assert.Equal((At(7, 8), 0), Timed(Plan(Task(1, 8, Monday), pinned with { Pin = At(5, 8) })));
        // Later on the same day is missed, too.
        Assert.Equal((At(3, 12), 1), Timed(Plan(Task(1, 4, At(3, 8)), pinned)));
        static (DateTime, int) Timed(TaskPlan plan) => (plan[Id(102)].Start, plan[Id(102)].PinMissed);
    }

    [Fact]
    public void T4_a_dragged_task_is_pinned_where_it_was_put_or_where_its_links_let_it()
    {
        var plan = Plan(Task(1, 8, Monday), Task(2, 8, At(1, 8), One, After(1)));
        var late = TaskMove.Of(plan, Id(102), At(3, 8), []);
        Assert.Equal((At(3, 8), TimeSpan.Zero), (late.Tasks[1].Pin, late.Later));
        // Put on Monday, where its forerunner is: the first moment is Tuesday, a day later.
        var early = TaskMove.Of(plan, Id(102), Monday, []);
        Assert.Equal(
            (At(1, 8), At(1, 8), TimeSpan.FromDays(1)),
            (early.Tasks[1].Pin, early.Tasks[1].Start, early.Later)
        );
        Assert.Empty(early.PinsMissed);
        Assert.Null(early.Moved);
        // On a Saturday it is put on Monday, as nobody works then.
        Assert.Equal((At(7, 8), TimeSpan.Zero), (TaskMove.Of(plan, Id(102), At(5, 9), []).Tasks[1].Pin, late.Later));
        Assert.Throws<RefusedException>(() => TaskMove.Of(plan, Id(199), Monday, []));
    }

    [Fact]
    public void T5_and_T6_a_move_pushes_only_what_waits_for_it_only_later_and_says_so_before()
    {
        var plan = Plan(
            Task(1, 8, Monday),
            // A day of slack, then one right behind it, and one that waits for nothing.
            Task(2, 8, At(2, 8), One, After(1)),
            Task(3, 8, At(3, 8), One, After(2)) with
            {
                Pin = At(3, 8),
            },
            Task(4, 8, At(1, 8), Pair)
        );
        // By a day: the slack is used, nothing is pushed.
        var day = TaskMove.Of(plan, Id(101), At(1, 8), []);
        Assert.Empty(day.Pushed);
        // By two: one day is pushed, and the pin is missed by it.
        var two = TaskMove.Of(plan, Id(101), At(2, 8), []);
        Assert.Equal([(Id(102), At(3, 8)), (Id(103), At(4, 8))], two.Pushed.Select(p => (p.Now.Task.Id, p.Now.Start)));
        Assert.Equal([(Id(103), 1)], two.PinsMissed.Select(t => (t.Task.Id, t.PinMissed)));
        Assert.Equal(At(1, 8), two.Tasks[3].Start);
        // Moved back, nothing is pulled earlier by itself.
        var back = TaskMove.Of(plan.With(two.Tasks), Id(101), Monday, []);
        Assert.Empty(back.Pushed);
        Assert.Equal([Monday, At(3, 8), At(4, 8)], back.Tasks.Take(3).Select(t => t.Start));
        // Both of Nora's on Wednesday are a clash that it would make, and is said.
        var clash = TaskMove.Of(plan, Id(102), At(3, 8), []);
        Assert.Empty(clash.Clashes);
        var other = Plan(Task(5, 4, At(1, 8)));
        Assert.Equal(
            [new DateOnly(2027, 3, 2)],
            TaskMove.Of(plan, Id(101), At(1, 8), [.. other.Times]).Clashes.Select(c => c.Day)
        );
    }

    [Fact]
    public void T7_a_clash_is_more_hours_of_a_crew_on_a_day_than_it_has_over_all_jobs()
    {
        IEnumerable<CrewClash> Clashes(params decimal[] hours) =>
            TaskPlan.Clashes(hours.Select((h, i) => Plan(Task(i, h, Monday))[Id(100 + i)]), [Pair, One]);
        Assert.Empty(Clashes(4, 4));
        var clash = Assert.Single(Clashes(4, 4, 1));
        Assert.Equal(
            (One.Id, new DateOnly(2027, 3, 1), 9m, 8m, 3),
            (clash.Crew, clash.Day, clash.Asked, clash.Has, clash.Tasks.Length)
        );
        // Ten hours of one task over two days ask for eight and two.
        Assert.Empty(Clashes(10));
        Assert.Single(Clashes(10, 8, 6));
    }

    [Fact]
    public void T8_a_day_off_or_another_duration_pushes_and_what_has_begun_keeps_its_start()
    {
        var (first, then) = (Task(1, 8, Monday), Task(2, 8, At(1, 8), One, After(1)));
        var plan = Plan(first, then);
        var longer = TaskMove.Of(plan, plan.With([first with { Hours = 12 }, then]), []);
        Assert.Equal((At(1, 12), At(2, 12)), (longer.Pushed[1].Now.Start, longer.Pushed[1].Now.End));
        var off = One with { Time = One.Time with { Off = [new(new(2027, 3, 1), new(2027, 3, 1), "ill")] } };
        Assert.Equal([At(1, 8), At(2, 8)], Plan([off], first, then).Times.Select(t => t.Start));
        // Hours are booked on the first: it keeps its start, and goes on the day after.
        var begun = Plan([off], first with { IsBegun = true, Start = At(0, 8) }, then);
        Assert.Equal((Monday, At(1, 16), At(2, 8)), (begun[Id(101)].Start, begun[Id(101)].End, begun[Id(102)].Start));
        Assert.Throws<RefusedException>(() => TaskMove.Of(begun, Id(101), At(3, 8), []));
    }

    [Fact]
    public void T9_first_laid_out_one_crews_tasks_follow_each_other_and_a_ring_is_refused_with_its_path()
    {
        ImmutableArray<PlannedTask> tasks =
        [
            Task(1, 8, default),
            Task(2, 16, default, Pair),
            Task(3, 4, default, One, After(2, drying: 16)),
            Task(4, 4, default),
        ];
        var laid = TaskPlan.FirstLaid(tasks, [Pair, One], WorkingTime.Usual, LocalClock.Steady, Monday).Tasks;
        // Nora: Monday, then on Tuesday what waits for the pair and is dry at 8:00, then what comes after it.
        Assert.Equal([Monday, Monday, At(1, 8), At(1, 12)], laid.Select(t => t.Start));
        Assert.Empty(TaskPlan.Clashes(Plan([.. laid]).Times, [Pair, One]));
        var ring = Assert.Throws<RefusedException>(() =>
            Plan(
                Task(1, 1, Monday, One, After(3)),
                Task(2, 1, Monday, One, After(1)),
                Task(3, 1, Monday, One, After(2))
            )
        );
        Assert.Contains(
            "wait for itself: Task 1 → Task 2 → Task 3 → Task 1",
            ring.Refusal.Message,
            StringComparison.Ordinal
        );
        Assert.Throws<RefusedException>(() => Plan(Task(1, 1, Monday, One, After(9))));
        Assert.Throws<RefusedException>(() => Plan(Task(1, 1, Monday) with { Crew = Id(9) }));
    }

    [Fact]
    public void T10_told_are_those_whose_tasks_differ_and_nobody_else()
    {
        var plan = Plan(Task(1, 8, Monday), Task(2, 8, At(1, 8), Pair), Task(3, 8, At(2, 8)));
        var last = PublishedTask.Of(plan);
        Assert.Empty(PublishedTask.Told(last, PublishedTask.Of(plan)));
        Assert.Equal(2, PublishedTask.Told([], last).Count);
        // Another name is told to nobody; a pushed task to its crew; another crew to both.
        Assert.Empty(PublishedTask.Told(last, [last[0] with { Name = "Walls" }, last[1], last[2]]));
        var moved = PublishedTask.Told(
            last,
            PublishedTask.Of(plan.With(TaskMove.Of(plan, Id(102), At(4, 8), []).Tasks))
        );
        Assert.Equal([Pair.Id], moved.Select(g => g.Key));
        var given = PublishedTask.Told(last, [last[0], last[1] with { Crew = One.Id }, last[2]]);
        Assert.Equal([Pair.Id, One.Id], given.Select(g => g.Key).Order());
        Assert.Equal([One.Id], PublishedTask.Told(last, [last[0], last[1]]).Select(g => g.Key));
        Assert.Equal(
            [One.Id],
            PublishedTask.Told(last, [last[0] with { At = "Attic" }, last[1], last[2]]).Select(g => g.Key)
        );
    }

    public static TheoryData<Guid> Jobs => [.. DemoJobs.Fixed().Select(j => j.Id)];

    [Theory]
    [MemberData(nameof(Jobs))]
    public void Tasks_of_a_job_hold_all_its_hours_and_can_be_laid_out(Guid id)
    {
        var estimate = Sample.Reckon(DemoJobs.Fixed().Single(j => j.Id == id));
        var tasks = TaskMaking.Of(estimate, _ => Pair.Id, Monday);
        Assert.NotEmpty(tasks);
        Assert.Equal(tasks.Length, tasks.Select(t => t.Id).Distinct().Count());
        // Those of a round are its year's: each visit is a task. An event has no day to stand on.
        if (estimate.Reckoned.Occurrences.All(o => o.Band is null))
            Assert.InRange(tasks.Sum(t => t.Hours) - estimate.Reckoned.Costs.Hours.V, -0.001m, 0.001m);
        foreach (var task in tasks)
            task.Check();
        var laid = TaskPlan.FirstLaid(tasks, [Pair], WorkingTime.Usual, LocalClock.Steady, Monday).Tasks;
        Assert.All(
            laid.Where(t => t.Visit is not null),
            t => Assert.Equal(tasks.Single(m => m.Id == t.Id).Start.Date, t.Start.Date)
        );
        // Visits have days of their own: what follows each other is what is done once.
        var times = Plan([.. laid.Where(t => t.Visit is null)]).Times.ToList();
        Assert.Empty(TaskPlan.Clashes(times, [Pair]));
        for (var i = 1; i < times.Count; i++)
            Assert.True(times[i].Start >= times[i - 1].End || times[i].Task.Hours == 0 || times[i - 1].Task.Hours == 0);
    }

    private static readonly Gen<TaskPlan> AnyPlan = Gen.Int[2, 14]
        .SelectMany(count =>
            Gen.Select(
                Gen.Decimal[0, 30].Select(h => decimal.Round(h, 1)).Array[count],
                Gen.Int[0, 12].Array[count],
                Gen.Int[-1, 12].Array[count * 2],
                Gen.Int[0, 30].Array[count],
                Gen.Bool.Array[count],
                (hours, days, links, between, flags) =>
                {
                    var tasks = Enumerable
                        .Range(0, count)
                        .Select(i =>
                            Task(
                                i,
                                hours[i],
                                At(days[i], 8 + between[i] % 7),
                                flags[i] ? Pair : One,
                                [
                                    .. new[] { links[2 * i], links[2 * i + 1] }
                                        .Where(l => l >= 0 && l < i)
                                        .Distinct()
                                        .Select(l => After(l, flags[i] ? between[i] : 0, flags[i] ? 0 : between[i])),
                                ]
                            ) with
                            {
                                Pin = links[2 * i] > 9 ? At(days[i] + 2, 8) : null,
                                IsBegun = links[2 * i + 1] > 11,
                            }
                        );
                    var off = One with { Time = One.Time with { Off = [new(new(2027, 3, 4), new(2027, 3, 5), "")] } };
                    return Plan([Pair, off], [.. tasks]);
                }
            )
        );

    /// <summary>No plan and no move breaks a link, and a move moves the least.</summary>
    [Fact]
    [Trait("Category", "Long")]
    public void No_link_is_ever_broken_and_a_move_moves_the_least() =>
        Gen.Select(AnyPlan, Gen.Int[0, 13], Gen.Int[0, 20], Gen.Int[0, 23])
            .Always(
                drawn =>
                {
                    var (plan, which, day, hour) = drawn;
                    Holds(plan);
                    var task = plan.Tasks[which % plan.Tasks.Length];
                    if (task.IsBegun)
                        return;
                    var move = TaskMove.Of(plan, task.Id, At(day, hour), []);
                    var after = plan.With(move.Tasks);
                    Holds(after);
                    var waits = new HashSet<Guid> { task.Id };
                    foreach (var other in plan.Tasks)
                        if (other.Links.Any(l => waits.Contains(l.After)))
                            waits.Add(other.Id);
                    foreach (var now in after.Times.Where(t => t.Task.Id != task.Id))
                    {
                        var was = plan[now.Task.Id];
                        if (!waits.Contains(now.Task.Id) || now.Task.IsBegun)
                            Assert.Equal(was.Start, now.Start);
                        Assert.True(now.Start >= was.Start);
                        // Pushed as far as its links ask, and no further.
                        if (now.Start > was.Start)
                            Assert.Contains(
                                now.Start,
                                now.Task.Links.Select(l => after.CrewOf(now.Task).Time.Next(Let(after, l)))
                            );
                    }
                    // What is said to be pushed is what is.
                    Assert.Equal(
                        after
                            .Times.Where(t => t.Task.Id != task.Id && plan[t.Task.Id].Start != t.Start)
                            .Select(t => t.Task.Id)
                            .Order(),
                        move.Pushed.Where(p => p.Was.Start != p.Now.Start).Select(p => p.Now.Task.Id).Order()
                    );
                    // The same once more changes nothing.
                    Assert.Empty(TaskMove.Of(after, task.Id, after[task.Id].Start, []).Pushed);
                    Assert.Equal(plan.Tasks.Length + plan.Tasks.Sum(t => t.Links.Length), plan.Steps);
                },
                times: Properties.Times(500, 20_000)
            );

    private static DateTime Let(TaskPlan plan, TaskLink link) =>
        plan.Clock.After(plan.Firm.After(plan[link.After].End, link.Lead), link.Drying);

    private static void Holds(TaskPlan plan)
    {
        foreach (var time in plan.Times.Where(t => !t.Task.IsBegun))
        {
            Assert.All(time.Task.Links, l => Assert.True(time.Start >= Let(plan, l)));
            // It begins when its crew works, and takes its hours.
            Assert.Equal(time.Start, plan.CrewOf(time.Task).Time.Next(time.Start));
            Assert.True(time.Start >= time.Task.Start);
            Assert.InRange(
                plan.CrewOf(time.Task).Time.Between(time.Start, time.End)
                    - time.Task.Hours / plan.CrewOf(time.Task).Size,
                -0.02m,
                0.02m
            );
        }
    }

    [Fact]
    public void Working_time_that_cannot_be_is_refused()
    {
        void Refused(WorkingTime time) => Assert.Throws<RefusedException>(time.Check);
        WorkingTime.Usual.Check();
        Refused(WorkingTime.Usual with { Week = [] });
        Refused(WorkingTime.Usual with { Week = [.. Enumerable.Repeat(ImmutableArray<WorkSpan>.Empty, 7)] });
        Refused(WorkingTime.Usual with { Week = WorkingTime.Usual.Week.SetItem(0, [new(new(16, 0), new(8, 0))]) });
        Refused(WorkingTime.Usual with { Off = [new(new(2027, 3, 2), new(2027, 3, 1), "")] });
        var never = WorkingTime.Usual with
        {
            Off = [.. Enumerable.Range(0, 12).Select(y => new DaysOff(new(2027 + y, 1, 1), new(2027 + y, 12, 31), ""))],
        };
        never.Check();
        Assert.Throws<RefusedException>(() => never.Next(Monday));
    }
}
