using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Work that comes back: the numbers of estimating model §7 and of pricing, Rounds, and others reckoned by hand beside them.</summary>
public class RoundTests
{
    private static Guid Rhythm(
        PricedJob job,
        string name,
        int times,
        bool usual = false,
        Guid? instead = null,
        bool ownVisit = true,
        RhythmKind kind = RhythmKind.Times,
        int[]? months = null,
        EventBand[]? bands = null
    )
    {
        var id = Sample.NewId();
        job.Do(
            new AddRhythm(
                new(id, "", name, kind, times)
                {
                    Instead = instead,
                    OwnVisit = ownVisit,
                    Months = [.. months ?? []],
                    Bands = [.. bands ?? []],
                },
                usual
            )
        );
        return id;
    }

    private static void Round<T>(PricedJob job, string field, T now) =>
        job.Do(
            new SetRound(
                field,
                ChangeSet.Get(job.Job, "round/" + field),
                JsonSerializer.SerializeToNode(now, Json.CoreJson.Options)
            )
        );

    private static Year YearOf(PricedJob job) => Year.Of(job.Estimate, Trace.Silent)!;

    private static decimal PriceOf(PricedJob job, Guid rhythm) =>
        job.Price.Occurrences.Single(o => o.Occurrence.Id == rhythm).Price.V;

    private static decimal[] Billed(PricedJob job) => [.. YearOf(job).Months.Select(m => m.Billed.V)];

    private static readonly PricingTerms UpTo5 = PricedJob.Plain with { Rounding = new(5, true, false) };

    [Fact]
    public void The_year_of_the_contract_is_reckoned_to_the_cent_month_by_month()
    {
        // 26 × 420.00 + supplies 1,184.25 with 20 % + once 980.00; a visit costs 235.78, the start 612.00 (interface, the sketch of a year, whose numbers add up in themselves).
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.Fixed, FixedPrice = 420 });
        job.Work(charge: 235.78m);
        var start = job.Work(charge: 612, section: "Start");
        job.Section("Start", new OwnBasis(PriceBasis.Fixed) { FixedPrice = 980 });
        Rhythm(job, "Fortnightly", 26, usual: true);
        job.Set(start, "rhythm", Jobs.Rhythm.Once);
        Round(job, "start", "2027-01-04");
        Round(job, "supplies", new[] { new YearSupply(Sample.NewId(), "Towels", 25, 47.37m, [1, 7]) });
        Round(job, "rise", 3m);
        Round(job, "years", 3);
        var year = YearOf(job);
        Assert.Equal((1_421.10m, 12_341.10m), (year.Supplies!.V, year.OfYear.V));
        Assert.Equal((1_028.43m, 1_028.37m, 980m), (year.Month.V, year.Last.V, year.Once!.Price.V));
        Assert.Equal((7_314.53m, 5_026.57m), (year.Cost.V, year.Profit.V));
        Assert.Equal(new DateOnly(2027, 1, 4), year.FirstDay);
        Assert.Equal((int[])[2, 2, 3, 2, 2, 2, 2, 3, 2, 2, 2, 2], year.Occurrences.Single().Visits);
        Assert.Equal([2_008.43m, .. Enumerable.Repeat(1_028.43m, 10), 1_028.37m], year.Months.Select(m => m.Billed.V));
        decimal[] costs =
        [
            1_675.69m,
            471.56m,
            707.34m,
            471.56m,
            471.56m,
            471.56m,
            1_063.68m,
            707.34m,
            471.56m,
            471.56m,
            471.56m,
            471.56m,
        ];
        Assert.Equal(costs, year.Months.Select(m => m.Cost.V));
        Assert.Equal((-35.25m, 5_394.57m), (year.Months[6].Profit.V, year.Months[11].SoFar.V));
        Assert.Equal([12_341.10m, 12_711.33m, 13_092.67m], year.Years.Select(y => y.V));
        Assert.Equal((13_321.10m, 7_926.53m), (job.Price.BeforeTax.V, job.Price.Readouts.Cost.V));
    }

    [Fact]
    public void All_steps_run_once_for_a_visit_and_the_year_only_multiplies()
    {
        // 417.35 less 5 % is 396.48, up to 5: 400; 26 × 400.
        var job = new PricedJob(UpTo5 with { Discounts = [new("loyal", 5, null)] });
        job.Work(charge: 417.35m);
        var rhythm = Rhythm(job, "Fortnightly", 26, usual: true);
        Assert.Equal((400m, 10_400m), (PriceOf(job, rhythm), job.Price.BeforeTax.V));
        // A year after at 3 % is not rounded to the step again, and neither is a tenth of it.
        Round(job, "rise", 3.3m);
        Round(job, "years", 2);
        Assert.Equal(10_743.20m, YearOf(job).Years[1].V);
        Assert.Equal((866.67m, 866.63m), (YearOf(job).Month.V, YearOf(job).Last.V));
    }

    [Fact]
    public void A_month_is_a_twelfth_and_the_last_closes()
    {
        var job = new PricedJob();
        job.Work(charge: 1_000);
        Rhythm(job, "Yearly", 1, usual: true);
        Assert.Equal([.. Enumerable.Repeat(83.33m, 11), 83.37m], Billed(job));
    }

    [Fact]
    public void Seasonal_work_is_billed_in_three_ways()
    {
        // 28 × 65 = 1,820: 151.67 level, 260.00 over seven months, and as done.
        var job = new PricedJob();
        job.Work(charge: 65);
        Rhythm(job, "Mowing", 28, usual: true, months: [4, 5, 6, 7, 8, 9, 10]);
        Round(job, "start", "2027-01-04");
        Assert.Equal([.. Enumerable.Repeat(151.67m, 11), 151.63m], Billed(job));
        Round(job, "billing", RoundBilling.OverMonths);
        decimal[] over = [0, 0, 0, 260, 260, 260, 260, 260, 260, 260, 0, 0];
        Assert.Equal(over, Billed(job));
        Round(job, "billing", RoundBilling.AsDone);
        // 152 working days of April to October 2027, one of 28 in the middle of each 5.43 of them: four a month.
        Assert.Equal(over, Billed(job));
        Assert.Equal(1_820m, Billed(job).Sum());
    }

    [Fact]
    public void Work_billed_as_done_follows_its_days_and_what_is_over_a_season_closes_in_its_last_month()
    {
        var job = new PricedJob();
        job.Work(charge: 100.01m);
        Rhythm(job, "Weekly", 52, usual: true);
        Round(job, "start", "2027-03-01");
        Round(job, "billing", RoundBilling.AsDone);
        // Mondays from 1 March 2027: 5 4 5 4 4 5 4 4 5 4 5 and, to the 52nd on 21 February, 3.
        int[] mondays = [5, 4, 5, 4, 4, 5, 4, 4, 5, 4, 5, 3];
        Assert.Equal(mondays.Select(n => n * 100.01m), Billed(job));
        Round(job, "billing", RoundBilling.OverMonths);
        // 5,200.52 ÷ 12 = 433.3767.
        Assert.Equal([.. Enumerable.Repeat(433.38m, 11), 433.34m], Billed(job));
    }

    [Theory]
    [InlineData(false, 240)]
    [InlineData(true, 1_200)]
    public void A_rarer_occurrence_is_done_on_the_visit_or_needs_its_own(bool own, decimal year)
    {
        // Monthly extra of 20, least 100 (pricing, Rounds).
        var job = new PricedJob(PricedJob.Plain with { LeastJob = 100 });
        job.Work(charge: 300);
        var extra = job.Work(charge: 20, section: "Extra");
        Rhythm(job, "Weekly", 52, usual: true);
        var monthly = Rhythm(job, "Monthly", 12, ownVisit: own);
        job.Set(extra, "rhythm", monthly);
        Assert.Equal(year, job.Price.Step("occurrences/" + monthly)!.Amount.V);
        Assert.Equal(52 * 300 + year, job.Price.BeforeTax.V);
    }

    [Fact]
    public void Set_up_and_the_way_come_with_the_visits_that_are_made()
    {
        var setUp = new SetUp(Sample.NewId(), 1, "Van", Guid.Empty, 0, TravelPer.CrewDay, 10, DistanceUnit.Mile, 0, 2);
        var role = Sample.Role("Driver", 30);
        setUp = setUp with { Role = role.Id };
        var job = new PricedJob();
        job.Work(charge: 50, labour: 30);
        var extra = job.Work(charge: 20, labour: 30, section: "Extra");
        Rhythm(job, "Weekly", 52, usual: true);
        var monthly = Rhythm(job, "Monthly", 12, ownVisit: false);
        job.Set(extra, "rhythm", monthly);
        job.Pin(role, setUp);
        job.Do(new SetCrew("setUp", null, setUp.Id.ToString()));
        // A visit costs 50 + 30 of work and 20 for ten miles; on it the extra is 20 + 30.
        Assert.Equal(52 * 100 + 12 * 50, job.Price.BeforeTax.V);
        job.Do(new SetRhythm(monthly, "ownVisit", false, true));
        Assert.Equal(52 * 100 + 12 * 70, job.Price.BeforeTax.V);
        Assert.Equal(64 * 20, job.Estimate.Reckoned.Costs.Charges.Single(c => c.Name == "Travel").Cost.V);
    }

    [Fact]
    public void Instead_lowers_the_others_times_by_its_own_as_stated()
    {
        // 260, 52 instead, 4 instead of those: 208 + 48 + 4.
        var job = new PricedJob();
        job.Work(charge: 10);
        var weekly = job.Work(charge: 100, section: "Weekly");
        var quarterly = job.Work(charge: 1_000, section: "Quarterly");
        var days = Rhythm(job, "Daily", 260, usual: true, kind: RhythmKind.WorkingDays);
        var weeks = Rhythm(job, "Weekly", 52, instead: days);
        var quarters = Rhythm(job, "Quarterly", 4, instead: weeks);
        job.Set(weekly, "rhythm", weeks);
        job.Set(quarterly, "rhythm", quarters);
        Round(job, "start", "2027-01-04");
        decimal Times(Guid id) => job.Price.Occurrences.Single(o => o.Occurrence.Id == id).Occurrence.Times.V;
        Assert.Equal((208m, 48m, 4m), (Times(days), Times(weeks), Times(quarters)));
        Assert.Equal(208 * 10 + 48 * 100 + 4 * 1_000, job.Price.BeforeTax.V);
        var year = YearOf(job);
        Assert.Equal([208, 48, 4], year.Occurrences.Select(o => o.Visits.Sum()));
        // Days of one are no days of the other, and all are the 260.
        var laid = RoundDays.Of(job.Job);
        var all = job.Job.Rhythms.SelectMany(r => laid.Of(r)).ToArray();
        Assert.Equal((260, 260), (all.Length, all.Distinct().Count()));
        // With two of the days off listed the working days are 258.
        Round(job, "daysOff", new[] { "2027-05-03", "2027-12-25", "2027-12-27" });
        Assert.Equal(206m, Times(days));
        var refused = Assert.Throws<RefusedException>(() => job.Do(new SetRhythm(weeks, "times", 52, 300)));
        Assert.Equal("times", refused.Refusal.Field);
        refused = Assert.Throws<RefusedException>(() =>
            job.Do(new SetRhythm(days, "instead", null, quarters.ToString()))
        );
        Assert.Equal("instead", refused.Refusal.Field);
    }

    [Fact]
    public void Rarer_visits_take_longer_by_the_build_up_of_the_entry()
    {
        // 1 h at 20; × 0.85 from 52 times a year, 1 from 26, 1.35 from 12.
        ImmutableArray<BuildUp> rows = [new(52, 0.85m), new(26, 1), new(12, 1.35m)];
        var job = new PricedJob();
        job.Work(labour: 20, entry: of => of with { BuildUp = rows });
        var rhythm = Rhythm(job, "Weekly", 52, usual: true);
        foreach (var (times, price) in new[] { (260, 17m), (52, 17m), (40, 20m), (26, 20m), (13, 27m), (4, 27m) })
        {
            job.Do(new SetRhythm(rhythm, "times", job.Job.Rhythm(rhythm)!.Times, times));
            Assert.Equal(price, PriceOf(job, rhythm));
        }
        // Twenty-six times in half a year is as often as weekly.
        job.Do(new SetRhythm(rhythm, "times", 4, 26));
        job.Do(
            new SetRhythm(
                rhythm,
                "months",
                ChangeSet.Get(job.Job, $"rhythms/{rhythm}/months"),
                JsonSerializer.SerializeToNode(new[] { 4, 5, 6, 7, 8, 9 })
            )
        );
        Assert.Equal(17m, PriceOf(job, rhythm));
    }

    [Fact]
    public void Another_frequency_stands_beside_the_present_one_and_is_taken_as_it_was_shown()
    {
        ImmutableArray<BuildUp> rows = [new(52, 0.85m), new(26, 1), new(12, 1.35m)];
        var job = new PricedJob(PricedJob.Plain with { LabourMarkup = 100 });
        job.Work(labour: 20, entry: of => of with { BuildUp = rows });
        var rhythm = Rhythm(job, "Fortnightly", 26, usual: true);
        var other = OtherFrequency.Of(
            job.Estimate,
            rhythm,
            [new(RhythmKind.Times, 52), new(RhythmKind.Times, 12), new(RhythmKind.Times, 26)]
        );
        Assert.Equal([1_768m, 1_040m, 648m], other.Select(o => o.Year!.OfYear.V));
        Assert.Equal([0.85m, 1m, 1.35m], other.Select(o => o.Year!.Occurrences[0].Hours.V));
        Assert.Equal([false, true, false], other.Select(o => o.IsNow));
        job.Do(new TakeFrequency(rhythm, new(RhythmKind.Times, 26), new(RhythmKind.Times, 12)));
        Assert.Equal((648m, "Monthly"), (job.Price.BeforeTax.V, job.Job.Rhythm(rhythm)!.Name));
    }

    [Fact]
    public void An_event_has_a_price_for_each_band_and_a_season_what_is_expected_and_what_is_billed_at_the_most()
    {
        // 1 h at 30 and 12 of salt. To 5 cm × 1: 42, eight times, at most ten; to 15 cm × 2.5: 87, three times, at most five.
        var job = new PricedJob();
        job.Work(labour: 30, charge: 12);
        EventBand[] bands = [new(Sample.NewId(), "to 5 cm", 1, 8, 10), new(Sample.NewId(), "to 15 cm", 2.5m, 3, 5)];
        var snow = Rhythm(job, "Snow", 1, usual: true, kind: RhythmKind.Event, months: [1, 2, 3, 11, 12], bands: bands);
        Assert.Equal((42m, 87m), (PriceOf(job, bands[0].Id), PriceOf(job, bands[1].Id)));
        var year = YearOf(job);
        Assert.Equal((8 * 42m + 3 * 87m, 10 * 42m + 5 * 87m), (year.Seasons[0].Expected.V, year.Seasons[0].Capped!.V));
        Assert.Equal(597m, year.OfYear.V);
        Assert.Equal(8 + 3 * 2.5m, job.Estimate.Reckoned.Costs.Hours.V);
        Assert.Equal(15.5m, job.Estimate.Reckoned.HoursInYear(0).V);
        Round(job, "start", "2027-11-01");
        Round(job, "billing", RoundBilling.OverMonths);
        Assert.Equal([0m, 0m], Billed(job)[5..7]);
        Assert.Equal(597m, Billed(job).Sum());
        job.Do(
            new SetRhythm(
                snow,
                "bands",
                ChangeSet.Get(job.Job, $"rhythms/{snow}/bands"),
                JsonSerializer.SerializeToNode(new[] { bands[0], bands[1] with { Cap = null } }, Json.CoreJson.Options)
            )
        );
        Assert.Null(YearOf(job).Seasons[0].Capped);
    }

    [Fact]
    public void Goods_are_bought_once_for_the_year_and_a_visit_bears_what_it_needs()
    {
        // 0.3 can a visit, 10 times: three cans of 12 and not ten. A visit bears 3.60.
        var job = new PricedJob(PricedJob.Plain with { MaterialMarkup = 50 });
        var can = Sample.Material("Cleaner", Unit.Each, null, null, 0, new Pack("can", 1, 12));
        job.Work(charge: 10, goods: 1, of: _ => can, entry: of => Needing(of, "0.3 each per 100 ft²"));
        var rhythm = Rhythm(job, "Ten times", 10, usual: true);
        var bought = Assert.Single(job.Estimate.Reckoned.Costs.Buying);
        Assert.Equal((3m, 3m, 36m), (bought.Need.V, bought.Bought.V, bought.BoughtCost.V));
        Assert.Equal(15.40m, PriceOf(job, rhythm));
        // Eleven times: 3.3 cans, four are bought, and the year bears what it needs of them.
        job.Do(new SetRhythm(rhythm, "times", 10, 11));
        bought = Assert.Single(job.Estimate.Reckoned.Costs.Buying);
        Assert.Equal((4m, 48m, 39.60m), (bought.Bought.V, bought.BoughtCost.V, bought.NeedCost.V));
        Assert.Equal((15.40m, 169.40m), (PriceOf(job, rhythm), job.Price.BeforeTax.V));
    }

    private static Assembly Needing(Assembly of, string ratio) =>
        of with
        {
            Components =
            [
                .. of.Components.Select(c =>
                    c.Kind == ComponentKind.Material ? c with { Ratio = Ratio.Parse(ratio) } : c
                ),
            ],
        };

    [Fact]
    public void Work_done_once_shares_the_pail_with_the_round_and_bears_its_part_of_what_was_bought()
    {
        // The start needs 2 cans, twelve visits 0.25 each: five cans of 10 are bought; the start bears 20, a visit 2.50.
        var job = new PricedJob();
        var can = Sample.Material("Cleaner", Unit.Each, null, null, 0, new Pack("can", 1, 10));
        job.Work(goods: 1, of: _ => can, entry: of => Needing(of, "0.25 each per 100 ft²"));
        var start = job.Work(goods: 1, of: _ => can, section: "Start", entry: of => Needing(of, "2 each per 100 ft²"));
        var monthly = Rhythm(job, "Monthly", 12, usual: true);
        job.Set(start, "rhythm", Jobs.Rhythm.Once);
        Assert.Equal(5m, Assert.Single(job.Estimate.Reckoned.Costs.Buying).Bought.V);
        Assert.Equal((2.50m, 20m), (PriceOf(job, monthly), PriceOf(job, Jobs.Rhythm.Once)));
        Assert.Equal(50m, job.Price.BeforeTax.V);
    }

    [Fact]
    public void A_discount_in_money_falls_on_the_year_and_reaches_no_supplies_and_tax_is_told_apart()
    {
        // 12 × 100 less 150 is 1,050; supplies 200 with 10 %: 220, taxed 7 % as goods: 15.40.
        var tax = PricedJob.Tax(7, TaxOn.Material);
        var job = new PricedJob(PricedJob.Plain with { Discounts = [new("spring", null, 150)], Taxes = [tax] });
        job.Work(charge: 100);
        Rhythm(job, "Monthly", 12, usual: true);
        Round(job, "supplies", new[] { new YearSupply(Sample.NewId(), "Salt", 10, 20, []) });
        Round(job, "supplyMarkup", 10m);
        var price = job.Price;
        Assert.Equal((-150m, 220m), (price.Step("discounts/1")!.Amount.V, price.Step("supplies")!.Amount.V));
        Assert.Equal((1_270m, 15.40m, 1_285.40m), (price.BeforeTax.V, price.Tax, price.Total.V));
        var spread = Spread.Of(job.Estimate, Trace.Silent);
        Assert.Equal((1_050m, 220m), (spread.Lines.Sum(l => l.V), spread.NoLines.V));
        Assert.Equal(price.BeforeTax.V, Billed(job).Sum());
    }

    [Fact]
    public void A_price_that_is_typed_is_met_beside_the_visits()
    {
        var job = new PricedJob(UpTo5 with { Profit = 10 });
        job.Work(charge: 101);
        var rhythm = Rhythm(job, "Monthly", 12, usual: true);
        Assert.Equal(1_380m, job.Price.BeforeTax.V);
        var solved = Solving.Of(job.Estimate, SolveFor.BeforeTax, 1_400);
        Assert.Equal(("adjustment", 20m), (solved.Exact!.Field, solved.Exact.Now));
        Assert.Equal(
            (1_400m, 115m),
            (solved.Exact.Estimate.Price.BeforeTax.V, solved.Exact.Estimate.Price.Occurrences[0].Price.V)
        );
    }

    [Fact]
    public void A_job_whose_work_is_all_done_once_is_priced_as_if_it_had_no_rhythm()
    {
        var job = new PricedJob(UpTo5);
        job.Work(charge: 101);
        Rhythm(job, "Weekly", 52);
        Assert.Equal(105m, job.Price.BeforeTax.V);
        Assert.Null(Year.Of(job.Estimate, Trace.Silent));
    }

    [Fact]
    public void A_rhythm_goes_with_its_work_and_undo_brings_both_back_to_the_byte()
    {
        var job = new PricedJob();
        var work = job.Work(charge: 101);
        var bytes = JobFile.Write(job.Job);
        var changes = new List<ImmutableArray<Change>>();
        void Do(Command command)
        {
            var (after, made) = Commands.Apply(job.Job, command, _ => null);
            changes.Add(made);
            job.Do(command);
            Assert.Equal(JobFile.Write(after), JobFile.Write(job.Job));
        }
        var (a, b) = (Sample.NewId(), Sample.NewId());
        Do(new AddRhythm(new(a, "", "Daily", RhythmKind.WorkingDays, 260), true));
        Do(new AddRhythm(new(b, "", "Weekly", RhythmKind.Times, 52) { Instead = a }, false));
        Do(new SetWork(work, "rhythm", null, b.ToString()));
        Do(new SetRound("rise", "0", "2"));
        Do(new TakeFrequency(b, new(RhythmKind.Times, 52), new(RhythmKind.Times, 26)));
        Do(new RemoveRhythm(a));
        Assert.Null(job.Job.Round.Usual);
        Assert.Null(job.Job.Rhythm(b)!.Instead);
        Do(new RemoveRhythm(b));
        Assert.Null(job.Job.Item(work)!.Rhythm);
        Assert.Equal(
            bytes,
            JobFile.Write(
                changes
                    .AsEnumerable()
                    .Reverse()
                    .Aggregate(job.Job, (so, made) => ChangeSet.Apply(so, ChangeSet.Reversed(made)))
            )
        );
        Assert.Equal(JobFile.Write(job.Job), JobFile.Write(JobFile.Read(JobFile.Write(job.Job))));
    }

    [Fact]
    public void Every_figure_of_a_year_is_recomputed_from_its_workings()
    {
        var tax = PricedJob.Tax(7, TaxOn.Material);
        var job = new PricedJob(
            PricedJob.Worked with
            {
                Taxes = [tax],
                Rounding = new(5, true, false),
                Fees = [new("card", 2.9m, false)],
                Discounts = [new("loyal", 5, null), new("spring", null, 40)],
            }
        );
        job.Work(labour: 25, goods: 4, charge: 3, entry: of => of with { BuildUp = [new(52, 0.85m), new(12, 1.35m)] });
        var deep = job.Work(labour: 90, goods: 11, section: "Deep");
        var start = job.Work(labour: 300, goods: 20, section: "Start");
        var salt = job.Work(labour: 40, charge: 12, section: "Snow");
        var weekly = Rhythm(job, "Weekly", 52, usual: true);
        job.Set(deep, "rhythm", Rhythm(job, "Quarterly", 4, instead: weekly));
        job.Set(start, "rhythm", Jobs.Rhythm.Once);
        job.Set(
            salt,
            "rhythm",
            Rhythm(
                job,
                "Snow",
                1,
                kind: RhythmKind.Event,
                months: [1, 2],
                bands: [new(Sample.NewId(), "little", 1, 4, 6), new(Sample.NewId(), "much", 2, 2, 3)]
            )
        );
        Round(job, "billing", RoundBilling.AsDone);
        Round(job, "supplies", new[] { new YearSupply(Sample.NewId(), "Towels", 25, 47.37m, [1, 7]) });
        Round(job, "years", 3);
        Round(job, "rise", 2.5m);
        var (estimate, trace) = Reported.Record(job.Job);
        Assert.Equal(estimate.Price.BeforeTax.V, Year.Of(estimate, Trace.Silent)!.Months.Sum(m => m.Billed.V));
        Assert.Equal(estimate.Price.Readouts.Cost.V, Year.Of(estimate, Trace.Silent)!.Months.Sum(m => m.Cost.V));
        Assert.True(trace.Figures.ContainsKey("year/months/7/billed"));
        foreach (var path in trace.Figures.Keys)
        {
            using var json = JsonDocument.Parse(Explanation.Of(trace, path)!.ToJsonString());
            new WorkingsChecker(json.RootElement).Figure(path);
        }
        var silent = Sample.Reckon(job.Job);
        Assert.Equal(silent.Price.Total.V, estimate.Price.Total.V);
        Assert.Equal(silent.Reckoned.Costs.Hours.V, estimate.Reckoned.Costs.Hours.V);
    }
}
