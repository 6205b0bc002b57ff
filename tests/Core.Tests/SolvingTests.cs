using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>A typed price and the term that moves for it (estimating model §7, *Pricing*: Solving).</summary>
public class SolvingTests
{
    private static PricedJob Worked(Func<PricingTerms, PricingTerms>? terms = null)
    {
        var job = new PricedJob(PricedJob.Worked);
        job.Work(labour: 1000, goods: 400);
        return terms is null ? job : job.With(terms);
    }

    private static MovedTerm Exact(PricedJob job, SolveFor what, decimal value, decimal quantity = 1) =>
        Solving.Of(job.Estimate, what, value, quantity).Exact ?? throw new InvalidOperationException("no exact answer");

    [Fact]
    public void Profit_and_margin_that_are_typed_are_those_of_the_readouts()
    {
        // Profit 256.41 typed on the worked example: 1,656.41.
        var moved = Exact(Worked(), SolveFor.Profit, 256.41m);
        Assert.Equal(1656.41m, moved.Estimate.Price.BeforeTax.V);
        Assert.Equal(("profit", 15m), (moved.Field, moved.Was));
        // Up to profit it is 1,709.40: 53.00 less is −3.1 %; a loss by that term.
        Assert.Equal(1656.41m, 1709.40m * (1 + moved.Now / 100), 2);
        // Margin 30 %: 1,400 ÷ 0.7 = 2,000.
        Assert.Equal(2000m, Exact(Worked(), SolveFor.Margin, 30).Estimate.Price.BeforeTax.V);
        // What is left after 148.00 and 81.40.
        Assert.Equal(
            1400 + 148.00m + 81.40m + 500,
            Exact(Worked(), SolveFor.AfterOverhead, 500).Estimate.Price.BeforeTax.V
        );
    }

    [Fact]
    public void A_total_with_tax_a_price_per_area_and_per_hour()
    {
        var job = Worked(t => t with { Taxes = [PricedJob.Tax(7)] });
        Assert.Equal(2140m, Exact(job, SolveFor.Total, 2140).Estimate.Price.Total.V);
        Assert.Equal(2500m, Exact(job, SolveFor.PerArea, 25, 100).Estimate.Price.BeforeTax.V);
        Assert.Equal(1800m, Exact(job, SolveFor.PerHour, 1800, 1).Estimate.Price.BeforeTax.V);
    }

    [Fact]
    public void The_shortest_number_of_those_that_lead_there()
    {
        // 1,709.40 with 20 %: 2,051.28.
        Assert.Equal(20m, Exact(Worked(), SolveFor.BeforeTax, 2051.28m).Now);
        // The present value, where it is one of them.
        Assert.Equal(15m, Exact(Worked(), SolveFor.BeforeTax, 1965.81m).Now);
    }

    [Theory]
    [InlineData(PriceBasis.TargetMargin, "targetMargin", "target margin")]
    [InlineData(PriceBasis.SellRate, "adjustment", "adjustment")]
    [InlineData(PriceBasis.Fixed, "adjustment", "adjustment")]
    public void The_term_that_moves_belongs_to_the_basis(PriceBasis basis, string field, string words)
    {
        var job = Worked(t => t with { Basis = basis, SellRate = 1600, FixedPrice = 2200 });
        var moved = Exact(job, SolveFor.BeforeTax, 2500);
        Assert.Equal((field, words, 2500m), (moved.Field, moved.Term, moved.Estimate.Price.BeforeTax.V));
        if (field == "adjustment")
            Assert.Equal(2500 - job.Price.BeforeTax.V, moved.Now);
    }

    [Fact]
    public void Cents_of_tax_in_the_way_offer_the_two_nearest_totals()
    {
        // At 7 %, 1,000.07: 934.64 gives 1,000.06, 934.65 gives 1,000.08.
        var solved = Solving.Of(Worked(t => t with { Taxes = [PricedJob.Tax(7)] }).Estimate, SolveFor.Total, 1000.07m);
        Assert.Null(solved.Exact);
        Assert.Equal(
            (934.64m, 1000.06m, 934.65m, 1000.08m),
            (
                solved.Below!.Estimate.Price.BeforeTax.V,
                solved.Below.Estimate.Price.Total.V,
                solved.Above!.Estimate.Price.BeforeTax.V,
                solved.Above.Estimate.Price.Total.V
            )
        );
        Assert.Contains("whole cents", solved.Why);
    }

    [Fact]
    public void Cents_of_fees_in_the_way_too()
    {
        // Fee 2.9 %: 200.17 is between 200.16 and 200.18.
        var job = new PricedJob(PricedJob.Plain with { Fees = [new("Card", 2.9m, false)] });
        job.Work(labour: 150);
        var solved = Solving.Of(job.Estimate, SolveFor.BeforeTax, 200.17m);
        Assert.Equal(
            (200.16m, 200.18m),
            (solved.Below!.Estimate.Price.BeforeTax.V, solved.Above!.Estimate.Price.BeforeTax.V)
        );
    }

    [Fact]
    public void The_least_charge_of_the_job_is_named_and_is_no_answer()
    {
        var job = Worked(t => t with { LeastJob = 1900 });
        var solved = Solving.Of(job.Estimate, SolveFor.BeforeTax, 1850);
        Assert.Null(solved.Exact);
        Assert.Contains("1,900.00", solved.Why);
        Assert.Equal(1900m, solved.Above!.Estimate.Price.BeforeTax.V);
        // Above it, and exactly at it, there are answers that do not lean on it.
        var at = Exact(job, SolveFor.BeforeTax, 1900);
        Assert.Null(at.Estimate.Price.Step("leastJob"));
        // A discount goes below it.
        job.With(t => t with { Discounts = [new("Early", null, 100)] });
        Assert.Equal(1850m, Exact(job, SolveFor.BeforeTax, 1850).Estimate.Price.BeforeTax.V);
    }

    [Fact]
    public void What_was_typed_is_not_rounded_until_the_price_moves()
    {
        // 1,003 typed, step 10, file closed and opened: 1,003.
        var job = Worked(t => t with { Rounding = new(10, false, false) });
        Assert.Equal(1970m, job.Price.BeforeTax.V);
        var moved = Exact(job, SolveFor.BeforeTax, 1003);
        Assert.Equal((1003m, 1003m), (moved.Estimate.Price.BeforeTax.V, moved.Typed!.Value));
        var opened = JobFile.Read(JobFile.Write(moved.Estimate.Job));
        Assert.Equal(1003m, Sample.Reckon(opened).Price.BeforeTax.V);
        // The next edit that moves the price rounds again; one that does not, does not.
        Assert.Equal(
            1003m,
            Sample.Reckon(opened with { Info = opened.Info with { Name = "Other" } }).Price.BeforeTax.V
        );
        var other = opened with { Pricing = opened.Pricing with { MaterialMarkup = 21 } };
        Assert.Equal(0m, Sample.Reckon(other).Price.BeforeTax.V % 10);
    }

    [Fact]
    public void Brackets_by_price_are_looked_at_one_by_one_and_the_nearest_answer_is_taken()
    {
        // From 1,000 on 10 % off: 950 is 950, or 1,055.56 less 10 %.
        var job = Worked(t => t with { Brackets = new(BracketBy.Price, [new(1000, -10)], false) });
        var near = Exact(job, SolveFor.BeforeTax, 950);
        Assert.Equal(950m, near.Estimate.Price.BeforeTax.V);
        // Now it is 1,769.23 (1,965.81 less 10 %); the answer above the edge is nearer to that.
        Assert.NotNull(near.Estimate.Price.Step("brackets"));
        // With 985 built the nearest is below the edge: 985.
        job.With(t => t with { Profit = -42.4m });
        Assert.Null(Exact(job, SolveFor.BeforeTax, 990).Estimate.Price.Step("brackets"));
    }

    [Fact]
    public void A_loss_is_a_loss()
    {
        var moved = Exact(Worked(), SolveFor.BeforeTax, 1000);
        Assert.Equal(-400m, moved.Estimate.Price.Readouts.GrossProfit.V);
        Assert.True(moved.Now < 0);
        Assert.Equal("Loss", moved.Estimate.Price.Step("profit")!.Label);
    }

    [Fact]
    public void Nothing_to_price_and_nonsense_are_refused()
    {
        Assert.Throws<RefusedException>(() => Solving.Of(Sample.Reckon(Sample.Empty()), SolveFor.Total, 100));
        Assert.Throws<RefusedException>(() => Solving.Of(Worked().Estimate, SolveFor.Total, 0));
        Assert.Throws<RefusedException>(() => Solving.Of(Worked().Estimate, SolveFor.PerArea, 10, 0));
        Assert.Throws<RefusedException>(() => Solving.Of(Worked().Estimate, SolveFor.Profit, 2_000_000_000));
    }

    [Fact]
    public void A_term_that_only_a_section_takes_from_the_job_moves()
    {
        // All work in a section that is priced by markup with the job's own profit: 1,000 at 15 % is 1,150; 1,200 is 20 %.
        var job = new PricedJob(PricedJob.Plain with { Profit = 15 });
        job.Work(labour: 1000, section: "Own");
        job.Section("Own", new(PriceBasis.Markup));
        var moved = Solving.Of(job.Estimate, SolveFor.BeforeTax, 1200).Exact!;
        Assert.Equal(("profit", 20m, 1200m), (moved.Field, moved.Now, moved.Estimate.Price.BeforeTax.V));
        // With a profit of its own nothing of the job's moves it.
        job.Section("Own", new(PriceBasis.Markup) { Profit = 15 });
        Assert.Equal("adjustment", Solving.Of(job.Estimate, SolveFor.BeforeTax, 1200).Exact!.Field);
    }
}
