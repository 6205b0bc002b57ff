using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>
/// How sure an estimate is, against what can be said of it without drawing anything: a sum of numbers that each lie anywhere between two ends has a known distribution (one: uniform; two and three alike:
/// Irwin and Hall, 1927). A percentile of n draws strays by √(p(1 − p) ÷ n) ÷ density; four times that is allowed, with fixed seeds.
/// </summary>
public class HowSureTests
{
    private const int All = HowSure.MostDraws;

    private static readonly Doubt Certain = new(0, 0, 0, 0);

    /// <summary>Work of so many hours at 1 each, sold for a fixed price.</summary>
    private static PricedJob Job(decimal share, decimal price, params (decimal Hours, Doubt Doubt)[] work)
    {
        var job = new PricedJob(
            PricedJob.Plain with
            {
                Basis = PriceBasis.Fixed,
                FixedPrice = price,
                UsualBasis = PriceBasis.Markup,
            }
        );
        foreach (var (hours, doubt) in work)
            job.Set(job.Work(labour: 1, hours: hours), "doubt", doubt);
        job.Do(new SetSureness(null, new(Certain, share, 7)));
        return job;
    }

    private static HowSure Drawn(PricedJob job, int draws = All) => HowSure.Of(job.Estimate, draws, Trace.Silent);

    private static void Near(decimal expected, decimal stray, Total actual) =>
        Assert.InRange(actual.V, expected - 4 * stray, expected + 4 * stray);

    [Theory]
    [InlineData(2)]
    [InlineData(3)]
    public void Work_that_all_goes_alike_comes_out_anywhere_between_both_ends(int pieces)
    {
        // 100 h from −10 to +30 %, 200 h from −20 to +20 %, and 50 h from −10 to +10 %.
        (decimal, Doubt)[] work = [(100, new(-10, 30, 0, 0)), (200, new(-20, 20, 0, 0)), (50, new(-10, 10, 0, 0))];
        var sure = Drawn(Job(100, 1000, work[..pieces]));
        var (least, wide) = pieces == 2 ? (250m, 120m) : (295m, 130m);
        Near(least + wide * 0.1m, wide * 0.003m, sure.Hours.At10);
        Near(least + wide * 0.5m, wide * 0.005m, sure.Hours.At50);
        Near(least + wide * 0.9m, wide * 0.003m, sure.Hours.At90);
        // An hour costs 1 and the price stands: a tenth of all profits lie below what the cost leaves that nine tenths do not reach.
        Assert.Equal(1000 - sure.Cost.At90.V, sure.Profit.At10.V);
        Assert.Equal(Rounding.Money(sure.Hours.At50.V), sure.Cost.At50.V);
    }

    [Fact]
    public void Two_pieces_that_share_nothing_are_a_triangle()
    {
        // 100 h ± 20 % twice: from 160 to 240. F(x) = (x − 160)² ÷ 3,200 up to 200.
        var sure = Drawn(Job(0, 400, (100, new(-20, 20, 0, 0)), (100, new(-20, 20, 0, 0))));
        Near(160 + 17.8885m, 0.27m, sure.Hours.At10);
        Near(200, 0.2m, sure.Hours.At50);
        Near(240 - 17.8885m, 0.27m, sure.Hours.At90);
    }

    [Fact]
    public void Three_pieces_that_share_nothing_are_the_sum_of_three_uniform_numbers()
    {
        // 240 + 40 s; P(S < s) = s³ ÷ 6 up to 1, so that a tenth lies below ∛0.6 = 0.84343.
        var doubt = new Doubt(-20, 20, 0, 0);
        var sure = Drawn(Job(0, 400, (100, doubt), (100, doubt), (100, doubt)));
        Near(240 + 40 * 0.84343m, 0.34m, sure.Hours.At10);
        Near(300, 0.27m, sure.Hours.At50);
        Near(360 - 40 * 0.84343m, 0.34m, sure.Hours.At90);
    }

    [Fact]
    public void The_chance_of_ending_under_the_floor_is_the_corner_of_the_triangle()
    {
        // Sold for 400, the floor 45 %: a cost above 220. (240 − 220)² ÷ 3,200 = 12.5 %.
        var job = Job(0, 400, (100, new(-20, 20, 0, 0)), (100, new(-20, 20, 0, 0)));
        job.With(t => t with { FloorMargin = 45 });
        Near(12.5m, 0.33m, Drawn(job).BelowFloor!);
        // All alike: anywhere from 160 to 240, 20 of 80 above it.
        var alike = Job(100, 400, (100, new(-20, 20, 0, 0)), (100, new(-20, 20, 0, 0)));
        alike.With(t => t with { FloorMargin = 45 });
        Near(25m, 0.43m, Drawn(alike).BelowFloor!);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(30)]
    [InlineData(50)]
    [InlineData(100)]
    public void What_is_shared_in_part_has_the_mean_and_the_variance_of_its_correlation(int share)
    {
        // Widths 40, 80 and 20 around 100, 200 and 50: variance ((1 − s²) Σw² + s² W²) ÷ 12.
        Varying[] varying = [new(80, 120, 0), new(160, 240, 2), new(40, 60, 4)];
        var drawn = Outcomes.Of("hours", 0m, varying, 6, share, 3, All, default).InOrder;
        var mean = drawn.Average();
        var variance = drawn.Sum(d => (d - mean) * (d - mean)) / (All - 1);
        var s = share / 100m;
        var expected = ((1 - s * s) * (1600 + 6400 + 400) + s * s * 140 * 140) / 12;
        // A mean strays by σ ÷ √n; the variance by no more than σ² √(2 ÷ n), these being flatter than a bell.
        var sigma = (decimal)Math.Sqrt((double)expected);
        Assert.InRange(mean, 350 - 4 * sigma / 100, 350 + 4 * sigma / 100);
        Assert.InRange(variance, expected * (1 - 4 * 0.01415m), expected * (1 + 4 * 0.01415m));
    }

    [Fact]
    public void Work_carries_its_part_of_the_variance()
    {
        // Half shared: s² = 0.25. Widths 40 and 80: 1,600 · 0.75 + 0.25 · 40 · 120 = 2,400, and 6,400 · 0.75 + 0.25 · 80 · 120 = 7,200.
        var sure = Drawn(Job(50, 1000, (100, new(-20, 20, 0, 0)), (200, new(-10, 30, 0, 0)), (300, Certain)), 100);
        Assert.Equal([75m, 25m], sure.Risks.Select(r => r.Percent.V));
        Assert.Equal(["Work 2", "Work 1"], sure.Risks.Select(r => r.Work.Item.Item.Name));
    }

    [Fact]
    public void Hours_move_labour_and_machines_and_prices_what_is_bought()
    {
        var job = new PricedJob();
        var work = job.Work(labour: 30, hours: 2, goods: 400, charge: 25);
        job.Set(work, "doubt", new Doubt(-10, 50, -5, 25));
        var of = Assert.Single(Drawn(job, 100).Work);
        Assert.Equal((2m, 1.8m, 3m), (of.Hours.Reckoned.V, of.Hours.Least.V, of.Hours.Most.V));
        Assert.Equal((60m, 54m, 90m), (of.ByHours.Reckoned.V, of.ByHours.Least.V, of.ByHours.Most.V));
        Assert.Equal((400m, 380m, 500m), (of.Bought.Reckoned.V, of.Bought.Least.V, of.Bought.Most.V));
        // All at the least, all at the most: 485 in all, of which the charge of 25 does not vary.
        var sure = HowSure.Of(
            Sample.Reckon(job.Job.Do(new SetSureness(null, new(Certain, 100, 1)))),
            All,
            Trace.Silent
        );
        Assert.InRange(sure.Cost.At10.V, 459m, 475m);
        Assert.InRange(sure.Cost.At90.V, 599m, 615m);
    }

    [Fact]
    public void Work_says_it_itself_else_its_section_else_the_job()
    {
        var job = new PricedJob();
        var own = job.Work(labour: 10, section: "A");
        job.Work(labour: 10, section: "A");
        job.Work(labour: 10, section: "B");
        job.Set(own, "doubt", new Doubt(-1, 1, 0, 0));
        var section = job.Job.Sections.First(s => s.Name == "A").Id;
        var said = job.Job.Do(
            new SetSection(
                section,
                "doubt",
                null,
                JsonSerializer.SerializeToNode(new Doubt(-2, 2, 0, 0), Json.CoreJson.Options)
            )
        );
        var sure = HowSure.Of(Sample.Reckon(said), 100, Trace.Silent);
        Assert.Equal([DoubtOf.Work, DoubtOf.Section, DoubtOf.Job], sure.Work.Select(w => w.Says));
        Assert.Equal([1m, 2m, 20m], sure.Work.Select(w => w.Doubt.HoursHigh));
        // It stands in the job file, and moves no price.
        var read = JobFile.Read(JobFile.Write(said));
        Assert.Equal(new Doubt(-1, 1, 0, 0), read.Item(own)!.Doubt);
        Assert.Equal(new Doubt(-2, 2, 0, 0), read.Section(section)!.Doubt);
        Assert.Equal(job.Price.Total.V, Sample.Reckon(read).Price.Total.V);
    }

    [Fact]
    public void The_same_seed_gives_the_same_and_another_another()
    {
        var job = Sample.Library();
        var (first, again) = (
            HowSure.Of(Sample.Reckon(job), 1000, Trace.Silent),
            HowSure.Of(Sample.Reckon(job), 1000, Trace.Silent)
        );
        Assert.Equal(
            JsonSerializer.Serialize(first.Bars) + first.Cost.At90.V,
            JsonSerializer.Serialize(again.Bars) + again.Cost.At90.V
        );
        var other = job.Do(new SetSureness(job.Sureness, job.Sureness! with { Seed = 2 }));
        Assert.NotEqual(first.Cost.At90.V, HowSure.Of(Sample.Reckon(other), 1000, Trace.Silent).Cost.At90.V);
        Assert.Equal(1000, first.Bars.Sum(b => b.Count));
    }

    [Fact]
    public void The_row_of_numbers_is_that_of_its_authors()
    {
        // First numbers of SplitMix64 for the seed 1234567, from memory.
        var row = new Draws(1234567);
        Assert.Equal(
            [6457827717110365317UL, 3203168211198807973UL, 9817491932198370423UL],
            Enumerable.Range(0, 3).Select(n => row.At(n))
        );
        Assert.All(Enumerable.Range(0, 1000), n => Assert.InRange(row.Billionths(n), 0, Draws.Parts - 1));
    }

    [Fact]
    public void Every_figure_of_it_is_recomputed_from_its_workings()
    {
        var trace = Trace.Recording();
        var estimate = Estimate.Of(Sample.Library(), trace);
        var sure = HowSure.Of(estimate, 400, trace);
        Assert.NotNull(sure.BelowFloor);
        var paths = trace.Figures.Keys.Where(p => p.StartsWith("sure/", StringComparison.Ordinal)).ToArray();
        Assert.InRange(paths.Length, 100, int.MaxValue);
        foreach (var path in paths)
        {
            using var json = JsonDocument.Parse(Explanation.Of(trace, path)!.ToJsonString());
            new WorkingsChecker(json.RootElement).Figure(path);
        }
        Assert.Contains(
            "400 outcomes of the cost",
            Explanation.Of(trace, "sure/cost/50")!.ToJsonString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void A_job_of_nothing_and_one_that_is_certain_have_one_outcome()
    {
        var empty = HowSure.Of(Sample.Reckon(Sample.Empty()), 100, Trace.Silent);
        Assert.Equal((0m, 0, null), (empty.Hours.At90.V, empty.Risks.Length, empty.BelowFloor));
        var certain = Drawn(Job(50, 400, (100, Certain)), 100);
        Assert.Equal((100m, 100m, 300m), (certain.Cost.At10.V, certain.Cost.At90.V, certain.Profit.At10.V));
        Assert.Equal((0m, 1, 100), (certain.BelowFloor!.V, certain.Bars.Length, certain.Bars[0].Count));
        Assert.Empty(certain.Risks);
    }

    [Fact]
    public void It_can_be_stopped()
    {
        using var stop = new CancellationTokenSource();
        stop.Cancel();
        Assert.Throws<OperationCanceledException>(() =>
            HowSure.Of(Sample.Reckon(Sample.Library()), All, Trace.Silent, stop.Token)
        );
    }

    [Theory]
    [InlineData(20, -10, 0, 0)]
    [InlineData(0, 0, 5, -5)]
    [InlineData(-91, 0, 0, 0)]
    [InlineData(0, 401, 0, 0)]
    public void What_cannot_be_is_refused(int low, int high, int pricesLow, int pricesHigh)
    {
        var job = new PricedJob();
        var work = job.Work(labour: 10);
        Assert.Throws<RefusedException>(() => job.Set(work, "doubt", new Doubt(low, high, pricesLow, pricesHigh)));
        Assert.Throws<RefusedException>(() =>
            job.Job.Do(new SetSureness(null, new(new(low, high, pricesLow, pricesHigh), 50, 1)))
        );
    }

    [Fact]
    public void A_share_beyond_a_hundred_a_seed_below_zero_and_too_many_draws_are_refused()
    {
        var job = Sample.Library() with { Sureness = null };
        foreach (var wrong in new Sureness[] { new(Certain, 101, 1), new(Certain, -1, 1), new(Certain, 50, -1) })
            Assert.Throws<RefusedException>(() => job.Do(new SetSureness(null, wrong)));
        Assert.Throws<RefusedException>(() => HowSure.Of(Sample.Reckon(job), All + 1, Trace.Silent));
        // Somebody else has said it meanwhile.
        Assert.Throws<ConflictException>(() =>
            job.Do(new SetSureness(null, new(Certain, 10, 1))).Do(new SetSureness(null, new(Certain, 20, 1)))
        );
    }
}
