using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core.Delivery;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The contract year of a round after the yes: its visits, what months bill, what closes it, its hours (delivery.md, M30 and H2), reckoned by hand beside them.</summary>
public sealed class RoundYearTests
{
    private static readonly DateOnly Late = new(2029, 1, 10);
    private static readonly DateTime At = new(2027, 1, 4, 16, 0, 0, DateTimeKind.Utc);

    /// <summary>A round of one rhythm at 65.00 a visit, from 4 January 2027.</summary>
    private static Job Weekly(
        int times = 28,
        decimal price = 65,
        RoundBilling billing = RoundBilling.Level,
        decimal tax = 0,
        EventBand[]? bands = null
    )
    {
        var job = new PricedJob(PricedJob.Plain with { Taxes = tax == 0 ? [] : [PricedJob.Tax(tax)] });
        job.Work(charge: price);
        return Terms(
            job.Job.Do(
                new AddRhythm(
                    new(
                        Sample.NewId(),
                        "",
                        "Weekly",
                        bands is null ? RhythmKind.Times : RhythmKind.Event,
                        bands is null ? times : 0
                    )
                    {
                        Bands = [.. bands ?? []],
                    },
                    true
                )
            ),
            billing
        );
    }

    private static Job Terms(Job job, RoundBilling billing)
    {
        Job Set<T>(string field, T now) =>
            job.Do(
                new SetRound(
                    field,
                    ChangeSet.Get(job, "round/" + field),
                    JsonSerializer.SerializeToNode(now, Json.CoreJson.Options)
                )
            );
        job = Set("start", "2027-01-04");
        return Set("billing", billing);
    }

    /// <summary>What was agreed, what was said, and what was billed.</summary>
    private sealed record Running(AgreedContract Agreed, SiteLog Log, BilledJob Billed)
    {
        public static Running Of(Job job)
        {
            var estimate = Sample.Reckon(job);
            var agreed = AgreedContract.Of(estimate);
            return new(agreed, new(OrderMaking.Of(estimate), [], []), new(agreed, AccountUse.InProportion, [], []));
        }

        public OrderedVisits Kind => Log.Order.Visits[0];

        public RoundYear Year(DateOnly? today = null) =>
            new(Agreed.Round!, RoundVisits.Of(Log, RoundVisits.Planned([])), today ?? Late);

        public Running Say(VisitSaid said, IEnumerable<OrderedVisit> visits, DateOnly? day = null)
        {
            var log = Log;
            foreach (var visit in visits)
            {
                var fact = new VisitFact(
                    Sample.NewId(),
                    visit.Id,
                    (
                        log.Order.Visits.FirstOrDefault(k => k.IsEvent || k.Days.Contains(visit)) ?? log.Order.Visits[0]
                    ).Id,
                    said,
                    day ?? visit.Day,
                    "rain",
                    At,
                    "Idris"
                );
                log.Check(fact, fact.Day);
                log = log with { Visits = log.Visits.Add(fact) };
            }
            return this with { Log = log };
        }

        /// <summary>It as it is billed on a day.</summary>
        public BilledJob Stands(DateOnly? today = null) => Billed with { Agreed = Agreed with { Year = Year(today) } };

        public Running Bill(BillsBy by, int? month = null, decimal? amount = null, DateOnly? today = null)
        {
            var (stands, bills) = (Stands(today), new Bills(by, month, amount));
            var invoice = new Invoice(
                Sample.NewId(),
                $"{Billed.Invoices.Length + 1}",
                Late,
                Late,
                Late,
                bills,
                stands.Of(bills),
                ""
            );
            return this with { Billed = Billed with { Invoices = Billed.Invoices.Add(invoice) } };
        }

        public decimal Last => Billed.Invoices[^1].Part.Net.Sum;

        public decimal Sum => Billed.Invoices.Sum(i => i.Part.Net.Sum);
    }

    private static string Refused(Action act, string field)
    {
        var refused = Assert.Throws<RefusedException>(act);
        Assert.Equal(field, refused.Refusal.Field);
        return refused.Refusal.Message;
    }

    [Fact]
    public void M30_a_year_that_ends_early_closes_on_the_visits_that_were_done()
    {
        // 28 × 65 = 1,820.00, level 151.67 a month; four months are billed, sixteen visits done: 1,040.00 − 606.68.
        var round = Running.Of(Weekly());
        Assert.Equal(1_820, round.Agreed.Contract.Sum.Sum);
        for (var month = 0; month < 4; month++)
        {
            round = round.Bill(BillsBy.Month, month, today: new(2027, month + 1, 28));
            Assert.Equal(151.67m, round.Last);
        }
        round = round.Say(VisitSaid.Done, round.Kind.Days[..16]);
        Assert.Contains("12 visits", Refused(() => round.Bill(BillsBy.Rest), "by"), StringComparison.Ordinal);
        round = round.Say(VisitSaid.LeftOut, round.Kind.Days[16..]).Bill(BillsBy.Rest);
        Assert.Equal((433.32m, 1_040), (round.Last, round.Sum));
        Assert.Equal(0, round.Stands().Billing.Open.Sum);
    }

    [Fact]
    public void M30_the_closing_month_credits_what_was_left_out_and_not_what_the_customer_left_out_too_late()
    {
        // Twelve visits of 100.00: one left out by us, one by them, ten done. Eleven months of 100.00, then 0 − 100 + 100.
        var round = Running.Of(Weekly(12, 100, tax: 20));
        round = round
            .Say(VisitSaid.Done, round.Kind.Days[..10])
            .Say(VisitSaid.LeftOut, round.Kind.Days[10..11])
            .Say(VisitSaid.LeftOutByThem, round.Kind.Days[11..]);
        Assert.Equal(1_100, round.Stands().Agreed.Contract.Sum.Sum);
        // Any order of months; the one that is left closes.
        for (var month = 11; month > 1; month--)
            round = round.Bill(BillsBy.Month, month);
        Assert.Contains("already", Refused(() => round.Bill(BillsBy.Month, 5), "step"), StringComparison.Ordinal);
        round = round.Bill(BillsBy.Month, 0);
        Assert.Equal((100, 1_100), (round.Last, round.Sum));
        Assert.Contains(
            "nothing to bill",
            Refused(() => round.Bill(BillsBy.Month, 1), "value"),
            StringComparison.Ordinal
        );
        // Made up after all: it is on the contract again, and the closing month bills it.
        round = round.Say(VisitSaid.Done, round.Kind.Days[10..11]).Bill(BillsBy.Month, 1);
        Assert.Equal((100, 1_200), (round.Last, round.Sum));
        Assert.Equal(20, round.Billed.Invoices[^1].Part.Tax);
    }

    [Fact]
    public void The_month_that_closes_waits_until_each_visit_is_known_and_a_visit_is_no_ones_twice()
    {
        var round = Running.Of(Weekly(12, 100));
        for (var month = 0; month < 11; month++)
            round = round.Bill(BillsBy.Month, month);
        round = round.Say(VisitSaid.Done, round.Kind.Days[..11]);
        var why = Refused(() => round.Bill(BillsBy.Month, 11), "step");
        Assert.Contains("1 visit of the contract year is neither done nor left out", why, StringComparison.Ordinal);
        round = round.Say(VisitSaid.Done, round.Kind.Days[11..]).Say(VisitSaid.Done, round.Kind.Days[11..]);
        Assert.Equal((100, 1_200), (round.Bill(BillsBy.Month, 11).Last, round.Bill(BillsBy.Month, 11).Sum));
        // Another 53rd week is not one of the contract's.
        Refused(() => round.Say(VisitSaid.Done, [new(Sample.NewId(), Late)]), "visit");
        Refused(() => round.Bill(BillsBy.Percent, null, 50), "by");
        Refused(() => round.Bill(BillsBy.Month, 12), "step");
    }

    [Fact]
    public void As_done_a_month_bills_what_was_done_by_its_end_and_a_late_word_falls_to_the_next()
    {
        // Weekly in 2027 from Monday 4 January: 4, 11, 18, 25 January, 1 February …
        var round = Running.Of(Weekly(52, 10, RoundBilling.AsDone));
        round = round.Say(VisitSaid.Done, round.Kind.Days[..3]).Bill(BillsBy.Month, 0);
        Assert.Equal(30, round.Last);
        // The visit of 25 January was said late, that of 1 February in time.
        round = round.Say(VisitSaid.Done, round.Kind.Days[3..5]).Bill(BillsBy.Month, 1);
        Assert.Equal((20, 50), (round.Last, round.Sum));
        // Done on another day than it was laid: the day on which it was done counts.
        round = round.Say(VisitSaid.Done, round.Kind.Days[5..6], new DateOnly(2027, 3, 2));
        Refused(() => round.Bill(BillsBy.Month, 2, today: new(2027, 2, 28)).Bill(BillsBy.Month, 3), "value");
        Assert.Equal(10, round.Bill(BillsBy.Month, 2).Last);
    }

    [Fact]
    public void An_amount_on_account_is_used_up_by_the_months()
    {
        // 1,200.00 with 240.00 on account: of it 20.00 of each of twelve months of 100.00.
        var round = Running.Of(Weekly(12, 100)).Bill(BillsBy.Amount, null, 240);
        round = round.Say(VisitSaid.Done, round.Kind.Days).Bill(BillsBy.Month, 0);
        Assert.Equal(80, round.Last);
        for (var month = 1; month < 12; month++)
            round = round.Bill(BillsBy.Month, month);
        Assert.Equal((80, 1_200), (round.Last, round.Sum));
    }

    [Fact]
    public void An_event_is_billed_as_it_comes_up_to_its_cap_and_what_has_not_come_is_not()
    {
        // Expected three times at 100.00, five billed at the most.
        var band = new EventBand(Sample.NewId(), "to 5 cm", 1, 3, 5);
        var round = Running.Of(Weekly(price: 100, billing: RoundBilling.AsDone, bands: [band]));
        Assert.Equal((300, true), (round.Agreed.Contract.Sum.Sum, round.Kind.IsEvent));
        Running Came(Running of, int day) => of.Say(VisitSaid.Done, [new(Sample.NewId(), new DateOnly(2027, 1, day))]);
        var once = Came(round, 10);
        // While the months run it may still come; when they are over it comes no more.
        var during = new DateOnly(2027, 6, 1);
        Assert.Equal(300, once.Stands(during).Agreed.Contract.Sum.Sum);
        Assert.Equal(100, once.Stands().Agreed.Contract.Sum.Sum);
        Refused(() => once.Bill(BillsBy.Rest, today: during), "by");
        Assert.Equal(100, once.Bill(BillsBy.Rest).Last);
        var often = Enumerable.Range(11, 6).Aggregate(once, Came);
        Assert.Equal(7, often.Year().Visits.All.Length);
        Assert.Equal(500, often.Stands(during).Agreed.Contract.Sum.Sum);
        Assert.Equal(500, often.Bill(BillsBy.Month, 0, today: during).Last);
        Refused(() => round.Say(VisitSaid.LeftOut, [new(Sample.NewId(), during)]), "said");
    }

    [Fact]
    public void Hours_of_a_round_are_those_of_its_visits_and_one_contract_year_teaches_as_one_job()
    {
        // Twelve visits of 2 h for 200 ft²; ten done in 2.5 h each, two left out.
        var job = new PricedJob();
        job.Work(labour: 20, hours: 2);
        var round = Running.Of(
            Terms(
                job.Job.Do(new AddRhythm(new(Sample.NewId(), "", "Monthly", RhythmKind.Times, 12), true)),
                RoundBilling.Level
            )
        );
        var line = round.Log.Order.Lines.Single();
        Assert.Equal((2, 12, 24), (line.Hours, line.Times, round.Log.Order.Hours));
        // All hours of a visit are for its one work; with set-up and travel among them they would be nobody's.
        Assert.Equal(line.Work, round.Kind.OnlyWork(round.Log.Order));
        Assert.Null((round.Kind with { Hours = 2.5m }).OnlyWork(round.Log.Order));
        round = round.Say(VisitSaid.Done, round.Kind.Days[..10]);
        var log = round.Log with
        {
            Hours =
            [
                .. round
                    .Kind.Days[..10]
                    .Select(v => new HoursFact(
                        Sample.NewId(),
                        HoursFor.Work,
                        line.Work,
                        null,
                        "Wyn",
                        v.Day,
                        2.5m,
                        "",
                        At,
                        "Wyn"
                    )
                    {
                        Visit = v.Id,
                    }),
            ],
        };
        var used = HoursUsed.Of(log);
        Assert.Equal((20, 25, 24), (used.SoFar, used.Used, used.Allowed));
        Assert.Equal((1_000, 1_200), (used.Work[0].QuantityDone, used.Work[0].Quantity));
        // What an assembly's labour was allowed against what it took: 20 h and 25 h.
        Assert.Equal((20, 25), (used.Reached.Single().Weighted, used.Reached.Single().Hours));
        Assert.False(log.IsFinished);
        var ended = round.Say(VisitSaid.LeftOut, round.Kind.Days[10..]).Log with { Hours = log.Hours };
        Assert.True(ended.IsFinished);
        Assert.Equal(20, HoursUsed.Of(ended).SoFar);
        // Taken back, the year is not over.
        var open = round.Say(VisitSaid.LeftOut, round.Kind.Days[10..]).Say(VisitSaid.Open, round.Kind.Days[11..]);
        Assert.False(open.Log.IsFinished);
        Refused(() => open.Say(VisitSaid.Open, open.Kind.Days[11..]), "said");
    }

    [Fact]
    public void Hours_allowed_by_the_order_are_those_that_were_agreed()
    {
        foreach (var job in DemoJobs.Fixed())
        {
            var estimate = Sample.Reckon(job);
            Assert.InRange(OrderMaking.Of(estimate).Hours - AgreedMoney.Of(estimate).Hours, -0.001m, 0.001m);
        }
    }

    [Fact]
    public void Visits_are_tasks_on_their_own_days_and_what_is_done_on_anothers_visit_goes_with_it()
    {
        var job = new PricedJob();
        job.Work(labour: 20, hours: 2);
        var quarter = job.Work(labour: 20, hours: 1);
        var start = job.Work(labour: 20, hours: 16, section: "Start");
        var monthly = new Rhythm(Sample.NewId(), "", "Monthly", RhythmKind.Times, 12);
        var quarterly = new Rhythm(Sample.NewId(), "", "Quarterly", RhythmKind.Times, 4) { OwnVisit = false };
        var round = Terms(
                job.Job.Do(new AddRhythm(monthly, true)).Do(new AddRhythm(quarterly, false)),
                RoundBilling.Level
            )
            .Do(new SetWork(quarter, "rhythm", null, quarterly.Id.ToString()))
            .Do(new SetWork(start, "rhythm", null, Rhythm.Once.ToString()));
        var crew = new Crew(Sample.NewId(), "Wyn", 1, WorkingTime.Usual);
        var tasks = TaskMaking.Of(Sample.Reckon(round), _ => crew.Id, new(2027, 1, 4));
        var plan = TaskPlan.FirstLaid(tasks, [crew], WorkingTime.Usual, LocalClock.Steady, new(2027, 1, 4));
        Assert.Equal(17, tasks.Length);
        var times = plan.Times.Where(t => t.Task.Visit == monthly.Id).ToList();
        var first = plan.Times.Single(t => t.Task.Visit is null);
        // 16 h of one person, whatever visits lie on its days; the visits on theirs: 4 January, 4 February, 4 March, 5 April …
        Assert.Equal((new DateTime(2027, 1, 4, 8, 0, 0), new DateTime(2027, 1, 5, 16, 0, 0)), (first.Start, first.End));
        Assert.Equal(
            [new(2027, 1, 4), new(2027, 2, 4), new(2027, 3, 4), new(2027, 4, 5)],
            times.Take(4).Select(t => DateOnly.FromDateTime(t.Start))
        );
        Assert.Equal(new DateTime(2027, 2, 4, 10, 0, 0), times[1].End);
        // A quarter's work begins when the visit of that day has ended, and is pushed with it.
        var with = plan.Times.First(t => t.Task.Visit == quarterly.Id);
        var host = plan[with.Task.Links.Single().After];
        Assert.Equal((monthly.Id, host.End), (host.Task.Visit!.Value, with.Start));
        var moved = TaskMove.Of(plan, host.Task.Id, host.Start.AddDays(1), []);
        Assert.Equal(with.Task.Id, Assert.Single(moved.Pushed, p => p.Now.Task.Id != host.Task.Id).Now.Task.Id);
        // Left out, it is on nobody's day, and what waited for it waits no more.
        var left = PlannedTask.Without(plan.Tasks, new HashSet<Guid> { host.Task.Id });
        Assert.Equal(16, left.Length);
        Assert.Empty(left.Single(t => t.Id == with.Task.Id).Links);
    }

    /// <summary>Random rounds: what was ordered agrees with what was priced; said at random, billed in random order of months, they close to the cent in each category on the visits that are billed.</summary>
    [Fact]
    [Trait("Category", "Long")]
    public void Any_round_closes_on_the_visits_that_are_billed()
    {
        var (count, looked) = (Properties.Times(150, 5_000), 0);
        for (var seed = 8_000_000; seed < 8_000_000 + count; seed++)
        {
            var random = new Random(seed);
            Job job;
            Estimate estimate;
            try
            {
                job = RoundPropertyTests.Round(RandomPricing.Job(random), random);
                estimate = Sample.Reckon(job);
            }
            catch (RefusedException)
            {
                continue;
            }
            if (estimate.Price.Occurrences.All(o => o.Occurrence.Rhythm is null))
                continue;
            looked++;
            Closes(seed, Running.Of(job), estimate, random);
        }
        Assert.InRange(looked, count / 3, count);
    }

    private static void Closes(int seed, Running round, Estimate estimate, Random random)
    {
        void Same<T>(T a, T b, string what) => Assert.True(Equals(a, b), $"{seed}, {what}: {a} and {b}");
        var contract = round.Agreed.Contract;
        Same(estimate.Price.BeforeTax.V, contract.Sum.Sum, "contract sum");
        Same(estimate.Price.BeforeTax.V, round.Agreed.Round!.Months.Sum(), "months");
        foreach (var kind in round.Log.Order.Visits)
            Same(round.Agreed.Round.Visits.Single(v => v.Id == kind.Id).Times, kind.Times, kind.Name);
        var ids = round.Log.Order.Visits.SelectMany(v => v.Days).Select(d => d.Id).ToList();
        Same(ids.Count, ids.Distinct().Count(), "ids of visits");
        foreach (var kind in round.Log.Order.Visits)
            if (kind.IsEvent)
                for (var n = random.Next(12); n > 0; n--)
                    round = SayOf(round, kind, VisitSaid.Done, new(Sample.NewId(), new(2027, 6, 1)));
            else
                foreach (var visit in kind.Days)
                    round = SayOf(
                        round,
                        kind,
                        random.Next(5) switch
                        {
                            0 => VisitSaid.LeftOut,
                            1 => VisitSaid.LeftOutByThem,
                            _ => VisitSaid.Done,
                        },
                        visit
                    );
        // By hand: what was agreed, with so many visits fewer or more at their price.
        var year = round.Year();
        var sum = contract.Sum.Sum;
        foreach (var kind in round.Agreed.Round!.Visits)
        {
            var visits = year.Visits.All.Where(v => v.Of.Id == kind.Id).ToList();
            var billed = visits.Count(v => v.Said is VisitSaid.Done or VisitSaid.LeftOutByThem);
            sum += kind.Price.Sum * (Math.Min(billed, kind.Cap ?? int.MaxValue) - kind.Times);
        }
        Same(sum, round.Stands().Agreed.Contract.Sum.Sum, "contract sum after all was said");
        foreach (var month in Enumerable.Range(0, 12).OrderBy(_ => random.Next()).ToList())
            try
            {
                round = round.Bill(BillsBy.Month, month);
            }
            catch (RefusedException)
            {
                // Nothing was done in it, or more was billed by then.
            }
        var open = round.Stands().Billing.Open;
        try
        {
            if (open.Amounts.Any(a => a != 0))
                round = round.Bill(BillsBy.Rest);
        }
        catch (RefusedException refused)
        {
            // Months as they were agreed bill more than was done, in all or in a category: that is a credit note.
            Assert.True(open.Amounts.Any(a => a < 0), $"{seed}: {open.Sum} is open: {refused.Refusal.Message}");
            return;
        }
        Same(sum, round.Sum, "billed");
        Assert.All(round.Stands().Billing.Open.Amounts, a => Assert.True(a == 0, $"{seed}: {a} is open"));
    }

    private static Running SayOf(Running round, OrderedVisits kind, VisitSaid said, OrderedVisit visit) =>
        round with
        {
            Log = round.Log with
            {
                Visits = round.Log.Visits.Add(new(Sample.NewId(), visit.Id, kind.Id, said, visit.Day, "", At, "Idris")),
            },
        };
}
