using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Hours used against hours allowed, and what they teach: every number of H1 to H6 of delivery.md.</summary>
public sealed class HoursUsedTests
{
    private static readonly AgreedContract Contract = new([], 0, false, "USD", 2, [], false);
    private static readonly DateOnly Monday = new(2026, 11, 23);
    private static readonly DateTime At = new(2026, 11, 23, 16, 0, 0, DateTimeKind.Utc);

    /// <summary>An order with lines of one work item, each of a quantity at a place.</summary>
    private static WorkOrder Order(OrderedRate? rate, params (decimal Quantity, decimal Hours)[] lines)
    {
        var work = Sample.NewId();
        ImmutableArray<OrderedLine> all =
        [
            .. lines.Select(l => new OrderedLine(
                work,
                Sample.NewId(),
                "Walls",
                "Paint",
                "",
                "Room",
                l.Quantity,
                "ft²",
                $"{l.Quantity} ft²",
                2,
                l.Hours
            )
            {
                Rate = rate is null ? null : rate with { Weighted = rate.Weighted * l.Quantity },
            }),
        ];
        return new(all, [], 0, [], [], [], [], [.. all.Select(l => l.Place)], 2, 8);
    }

    private static DoneFact Done(OrderedLine line, decimal percent = 100) =>
        new(Sample.NewId(), line.Work, line.Place, percent, At, "Idris");

    private static HoursFact Hours(
        OrderedLine? line,
        decimal hours,
        HoursFor what = HoursFor.Work,
        bool whole = false,
        int days = 0
    ) =>
        new(
            Sample.NewId(),
            what,
            line?.Work,
            whole ? null : line?.Place,
            "Idris",
            Monday.AddDays(days),
            hours,
            "",
            At,
            "Idris"
        );

    private static WorkUsed Used(WorkOrder order, IEnumerable<DoneFact> done, params HoursFact[] hours) =>
        HoursUsed.Of(new(order, [.. done], [.. hours])).Work[0];

    private static OrderedRate Rate(Guid? entry = null) => new(entry ?? Sample.NewId(), 2, "ft²", 1);

    private static decimal Pace(Reached reached, string like) =>
        RateReached
            .ToRead(RateReached.Of(Ratio.Parse(like), reached.Weighted, RateReached.UnitOf(reached), reached.Hours))
            .A;

    [Fact]
    public void Difficulty_and_conditions_count_and_a_rounding_step_does_not()
    {
        // 14'6" × 11' × 8' with a door and two windows: 360 ft² net (estimating model, Worked 1), two coats at 95 ft² per h, occupied.
        var role = Sample.Role();
        var occupied = new Condition(Sample.NewId(), 1, "occupied", "People live there", 1.15m, 1, 1);
        var rate = Sample.Rate(Measure.NetWallArea, role, null, "160 ft² per h", "95 ft² per h") with { Step = 0.5m };
        BookEntry[] book = [role, rate, occupied];
        var (job, work, _) = Sample.With("R 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2", book, rate.Id);
        job = job.Do(new SetConditions([], [occupied.Id]), book)
            .Do(new SetWork(work, "coats", job.Item(work)!.Coats, 2), book);
        var line = OrderMaking.Of(Sample.Reckon(job)).Lines[0];
        // 360 ÷ 95 × 1.15 = 4.358, rounded up to 4.5 h: those are allowed, and the rate is of the quantity as if it were easy.
        Assert.Equal((360m, 4.5m, 414m, 2), (line.Quantity, line.Hours, line.Rate!.Weighted, line.Rate.Coats));
        var order = OrderMaking.Of(Sample.Reckon(job));
        var used = Used(order, [Done(line)], Hours(line, 4.358m));
        Assert.Equal(95.0m, Pace(used.Reached!, "95 ft² per h"));
        // Without them it would be 82.6, which it is not.
        Assert.NotEqual(82.6m, Pace(used.Reached!, "95 ft² per h"));
        // Written the other way round it is the same pace: 1 ÷ 95 h per ft².
        Assert.Equal(1.05m, Pace(used.Reached!, "1 h per 100 ft²"));
        // Done to a half, half of the quantity counts.
        var half = Used(order, [Done(line, 50)], Hours(line, 4.358m / 2));
        Assert.Equal((180m, 2.25m), (half.QuantityDone, half.SoFar));
        Assert.Equal(95.0m, Pace(half.Reached!, "95 ft² per h"));
    }

    private static ReachedInJob Of(string number, decimal pace, int day = 0, decimal quantity = 1000) =>
        new(Sample.NewId(), number, new(new(default, 2, "ft²"), quantity, quantity / pace, Monday.AddDays(day)));

    [Fact]
    public void The_last_five_are_by_the_day_of_their_last_hour_and_then_by_number()
    {
        ReachedInJob[] jobs =
        [
            Of("1", 10, 3),
            Of("2", 20, 1),
            Of("4", 40, 2),
            Of("3", 30, 2),
            Of("5", 50, 9),
            Of("6", 60),
        ];
        Assert.Equal(["5", "1", "4", "3", "2"], RateReached.LastFive(jobs).Select(j => j.Number));
    }

    [Theory]
    // Of an even number the slower of the two middle ones.
    [InlineData(50, 40, 50, 90, 95)]
    [InlineData(90, 40, 90, 95)]
    // Four jobs of 1,000 ft² at 95 and one of 10,000 at 40 (estimating model §13).
    [InlineData(95, 95, 95, 95, 95, 40)]
    public void The_middle_one_is_suggested(int median, params int[] paces)
    {
        ReachedInJob[] jobs =
        [
            .. paces.Select((p, i) => Of($"{i}", p, quantity: p == 40 && paces.Length == 5 ? 10_000 : 1000)),
        ];
        var of = RateReached.Median(jobs).Of;
        Assert.Equal(median, Pace(of, "95 ft² per h"));
        // The same job, whichever way the rate is written.
        Assert.Equal(RateReached.ToRead(100m / median), Pace(of, "1 h per 100 ft²"));
        if (paces.Length == 5)
        {
            var (weighted, unit, hours) = RateReached.Together(jobs);
            Assert.Equal(
                47.9m,
                RateReached.ToRead(RateReached.Of(Ratio.Parse("95 ft² per h"), weighted, unit, hours)).A
            );
        }
    }

    [Fact]
    public void Below_three_jobs_nothing_is_suggested_and_from_three_on_what_is_read_is_what_is_kept()
    {
        var rate = Sample.Rate(Measure.NetWallArea, Sample.Role(), null, "160 ft² per h", "95 ft² per h");
        RateCompared Compared(params int[] paces) =>
            RateCompared.Of(rate, new(rate.Id, 2, "ft²"), null, paces.Select((p, i) => Of($"{i}", p)))!;
        Assert.Null(Compared(90, 91).Suggested);
        Assert.Equal(2, Compared(90, 91).LastFive.Length);
        var kept = Assert.IsType<ProductionRate>(Compared(90, 91, 92).Suggested);
        Assert.Equal(["160 ft² per h", "91 ft² per h"], kept.Paces.Select(p => p.Pace.ToString()));
        // As the Book has it: there is no question.
        Assert.Null(Compared(95, 95, 95).Suggested);
        // A row that the Book has not, an entry that is gone.
        Assert.Null(RateCompared.Of(rate, new(rate.Id, 3, "ft²"), null, []));
        Assert.Null(RateCompared.Of(null, new(rate.Id, 2, "ft²"), null, []));
        // Jobs in metres and jobs in feet are told by the same pace.
        var metres = new ReachedInJob(
            Sample.NewId(),
            "9",
            new(new(rate.Id, 2, "m²"), 100, 100 * 10.7639104167m / 91m, Monday)
        );
        Assert.Equal(
            91m,
            RateReached.ToRead(RateCompared.Of(rate, new(rate.Id, 2, "m²"), null, [metres])!.Median!.Pace)
        );
    }

    [Fact]
    public void An_assembly_has_one_factor_for_all_its_labour_and_keeps_it_once()
    {
        Component Labour(string ratio) =>
            new(
                Sample.NewId(),
                "Lay",
                ComponentKind.Labour,
                Sample.NewId(),
                Measure.Area,
                null,
                null,
                Ratio.Parse(ratio),
                false,
                null
            );
        var assembly = new Assembly(
            Sample.NewId(),
            1,
            "Path",
            "Paths",
            Measure.Area,
            [Labour("0.42 t per h"), Labour("1 h per 18 m")],
            "",
            ""
        );
        ReachedInJob Job(Assembly of) =>
            new(Sample.NewId(), "1", new(new(of.Id, 0, "h"), 7.349m, 8m, Monday) { Basis = LabourBasis.Of(of) });
        ReachedInJob[] jobs = [Job(assembly), Job(assembly), Job(assembly)];
        var compared = RateCompared.Of(assembly, new(assembly.Id, 0, "h"), jobs[0].Of, jobs)!;
        // 7.349 allowed, 8 used (H4).
        Assert.Equal((1.0886m, "× hours allowed"), (compared.Suggests, compared.Unit));
        var kept = Assert.IsType<Assembly>(compared.Suggested);
        Assert.Equal([0.385817m, 1.0886m], kept.Components.Select(c => c.Ratio!.A));
        // Those jobs stay among the last five (H6), with the hours that today's assembly would allow them: it is not suggested twice.
        var again = RateCompared.Of(kept, new(assembly.Id, 0, "h"), null, jobs)!;
        Assert.Equal(3, again.LastFive.Length);
        Assert.All(again.LastFive, j => Assert.InRange(j.Pace, 0.9999m, 1.0001m));
        Assert.Null(again.Suggested);
        // Labour that is made otherwise by now says nothing about those jobs.
        var other = assembly with
        {
            Components = [Labour("0.42 t per h")],
        };
        Assert.Empty(RateCompared.Of(other, new(assembly.Id, 0, "h"), null, jobs)!.LastFive);
    }

    [Fact]
    public void Mending_hours_on_no_piece_of_work_and_typed_hours_teach_nothing()
    {
        var order = Order(Rate(), (360, 4.5m));
        var line = order.Lines[0];
        var log = new SiteLog(
            order,
            [Done(line)],
            [Hours(line, 4), Hours(line, 2, HoursFor.Snags), Hours(null, 1), Hours(null, 0.5m, HoursFor.SetUp)]
        );
        var used = HoursUsed.Of(log);
        Assert.Equal((7.5m, 2m, 1m, 0.5m), (used.Used, used.Snags, used.Elsewhere, used.SetUp));
        Assert.Equal((4m, 90m), (used.Work[0].Used, Pace(used.Work[0].Reached!, "95 ft² per h")));
        Assert.Equal("Idris", Assert.Single(used.People).Person);
        // Hours that were typed as people × hours (H4).
        var typed = Used(Order(null, (360, 27)), [], Hours(line, 4));
        Assert.Null(typed.Reached);
        var untaught = Order(null, (360, 27));
        Assert.Contains(
            "teach no rate",
            Used(untaught, [Done(untaught.Lines[0])], Hours(untaught.Lines[0], 27)).Says,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void What_has_no_hours_or_is_not_done_is_left_out_and_said()
    {
        var order = Order(Rate(), (100, 1), (200, 2), (300, 3));
        var (a, b, c) = (order.Lines[0], order.Lines[1], order.Lines[2]);
        // Hours at a, which is done, and at c, which is not; b is done without hours.
        var used = Used(order, [Done(a), Done(b)], Hours(a, 2), Hours(c, 5));
        Assert.Equal((100m, 2m), (used.Reached!.Weighted, used.Reached.Hours));
        Assert.Equal(
            "Left out of the rate: 1 place done without hours, 1 place with hours and nothing done yet.",
            used.Says
        );
        Assert.Equal((7m, 3m), (used.Used, used.SoFar));
        // Hours on all of it go with all that is done.
        used = Used(order, [Done(a), Done(b)], Hours(a, 6, whole: true, days: 2));
        Assert.Equal((300m, 6m, Monday.AddDays(2)), (used.Reached!.Weighted, used.Reached.Hours, used.Reached.LastDay));
        Assert.Equal("", used.Says);
        Assert.Equal("Nothing of it is marked done yet.", Used(order, [], Hours(a, 6, whole: true)).Says);
    }

    [Fact]
    public void Hours_at_this_pace_and_the_margin_that_follows()
    {
        var order = Order(Rate(), (100, 10), (100, 10)) with { SetUp = 4 };
        var log = new SiteLog(
            order,
            [Done(order.Lines[0])],
            [Hours(order.Lines[0], 9), Hours(null, 6, HoursFor.SetUp)]
        );
        var used = HoursUsed.Of(log);
        // Half of the work, and with it half of set-up: 12 of 24 h; 15 used, so 30 in the end.
        Assert.Equal((12m, 24m, 15m, 30m), (used.SoFar, used.Allowed, used.Used, used.AtThisPace));
        Assert.Equal(50m, log.Percent);
        // Price 2,000, cost 1,000 of which 600 labour in 24 h: 6 h more at 25.00 are 150.
        var money = new AgreedMoney(2000, 1000, 600, 24, Contract);
        Assert.Equal((50m, 42.5m), (money.Margin, money.MarginAt(30)));
        // And goods that came 40 dearer.
        Assert.Equal((1000m, 850m, 810m), (money.ProfitAt(24, 0), money.ProfitAt(30, 0), money.ProfitAt(30, 40)));
        Assert.Null(new AgreedMoney(0, 0, 0, 0, Contract).Margin);
        Assert.Null(HoursUsed.Of(log with { Done = [] }).AtThisPace);
    }

    [Fact]
    public void The_last_word_about_a_line_counts_and_a_job_is_finished_with_its_last_line()
    {
        var order = Order(Rate(), (100, 1), (200, 2));
        var (a, b) = (order.Lines[0], order.Lines[1]);
        var log = new SiteLog(order, [Done(a), Done(b, 60)], []);
        Assert.Equal((100m, 60m, false), (log.PercentOf(a), log.PercentOf(b), log.IsFinished));
        log = new SiteLog(order, [Done(a), Done(b, 60), Done(b)], []);
        Assert.True(log.IsFinished);
        log = new SiteLog(order, [Done(a), Done(b), Done(a, 0)], []);
        Assert.Equal((0m, false), (log.PercentOf(a), log.IsFinished));
        // An order of nothing that is done once is never finished by ticks.
        Assert.False(new SiteLog(order with { Lines = [a with { Often = "weekly" }] }, [], []).IsFinished);
    }

    [Fact]
    public void What_cannot_be_said_is_refused_beside_its_field()
    {
        var order = Order(Rate(), (100, 1), (200, 2));
        var line = order.Lines[0];
        var log = new SiteLog(order, [], [Hours(line, 20)]);
        void Refused(string field, Action check) =>
            Assert.Equal(field, Assert.Throws<RefusedException>(check).Refusal.Field);
        Refused("percent", () => log.Check(Done(line, 100.5m)));
        Refused("percent", () => log.Check(Done(line, 33.333m)));
        Refused("work", () => log.Check(Done(line with { Place = Sample.NewId() })));
        var weekly = log with { Order = order with { Lines = [line with { Often = "weekly" }] } };
        Refused("percent", () => weekly.Check(Done(line)));
        void Hour(string field, HoursFact fact) => Refused(field, () => log.Check(fact, Monday));
        // 20 h are there already on that day; of another person they are not.
        Hour("hours", Hours(line, 4.5m));
        log.Check(Hours(line, 4), Monday);
        log.Check(Hours(line, 10) with { Person = "Wyn" }, Monday);
        Hour("hours", Hours(line, 4.5m) with { Person = " idris " });
        Hour("hours", Hours(line, 0));
        Hour("hours", Hours(line, 25));
        Hour("hours", Hours(line, 1.005m));
        Hour("day", Hours(line, 1, days: 1));
        Hour("day", Hours(line, 1, days: -367));
        Hour("person", Hours(line, 1) with { Person = "" });
        Hour("work", Hours(line, 1) with { Work = Sample.NewId() });
        Hour("place", Hours(line, 1) with { Place = Sample.NewId() });
        Hour("place", Hours(null, 1) with { Place = line.Place });
        Hour("work", Hours(line, 1, HoursFor.SetUp));
    }

    [Fact]
    public void Hours_are_taken_back_by_another_fact_and_only_once()
    {
        var order = Order(Rate(), (100, 1));
        var (mine, other) = (Sample.NewId(), Sample.NewId());
        var hours = Hours(order.Lines[0], 3) with { Link = mine };
        var log = new SiteLog(order, [], [hours]);
        // By a link only what came by it.
        Assert.Throws<RefusedException>(() => log.TakeBack(Sample.NewId(), hours.Id, At, "Wyn", other));
        var back = log.TakeBack(Sample.NewId(), hours.Id, At, "Idris", mine);
        Assert.Equal((-3m, hours.Id, hours.Day), (back.Hours, back.TakesBack, back.Day));
        var after = log with { Hours = [hours, back] };
        Assert.Empty(after.Standing);
        Assert.Equal(0m, HoursUsed.Of(after).Used);
        Assert.Throws<RefusedException>(() => after.TakeBack(Sample.NewId(), hours.Id, At, "Idris", null));
    }
}
