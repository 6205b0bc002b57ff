using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What each piece of a job is worth: the price with it less the price without it (estimating model §7).</summary>
public class WorthTests
{
    private static Worth Of(PricedJob job, PieceKind kind, Guid id, PieceState state = PieceState.In) =>
        Worth.Of(Worth.Base(job.Estimate), Piece.Of(job.Job, kind, id, state)!);

    [Fact]
    public void Two_pieces_that_share_a_pail_need_not_add_up()
    {
        // A pail of 2 costs 100; each room needs one of it. With both 100, without either 100: each is worth its labour alone.
        var job = new PricedJob();
        var pail = Sample.Material("Pail", Unit.Each, null, null, 0, new Pack("two", 2, 100));
        var first = job.Work(labour: 40, goods: 1, of: _ => pail);
        var second = job.Work(labour: 60, goods: 1, of: _ => pail);
        Assert.Equal(200m, job.Price.BeforeTax.V);
        Assert.Equal((40m, 1m, 0m), Read(Of(job, PieceKind.Work, first)));
        Assert.Equal((60m, 1m, 0m), Read(Of(job, PieceKind.Work, second)));
        var section = job.Job.Sections.Single().Id;
        Assert.Equal(200m, Of(job, PieceKind.Section, section).Price.V);
        static (decimal, decimal, decimal) Read(Worth w) => (w.Price.V, w.Hours.V, w.GrossProfit.V);
    }

    [Fact]
    public void The_least_charge_of_the_job_makes_small_pieces_worth_nothing()
    {
        var job = new PricedJob(PricedJob.Plain with { LeastJob = 500 });
        var small = job.Work(labour: 30);
        job.Work(labour: 300);
        var worth = Of(job, PieceKind.Work, small);
        // It costs 30 and brings nothing.
        Assert.Equal((0m, -30m), (worth.Price.V, worth.GrossProfit.V));
        Assert.Null(worth.Margin);
    }

    [Fact]
    public void Before_tax_and_before_the_jobs_rounding_with_percents_on_it()
    {
        // Step 10, a piece of 4: 4.
        var job = new PricedJob(PricedJob.Plain with { Rounding = new(10, false, false), Taxes = [PricedJob.Tax(7)] });
        var place = job.Place();
        job.Work(labour: 4, at: [place]);
        job.Work(labour: 100);
        Assert.Equal(100m, job.Price.BeforeTax.V);
        Assert.Equal(4m, Of(job, PieceKind.Place, place).Price.V);
        job.With(t => t with { Profit = 25, Discounts = [new("Trade", 10, null)] });
        var worth = Of(job, PieceKind.Place, place);
        Assert.Equal((4.50m, 0.50m), (worth.Price.V, worth.GrossProfit.V));
        Assert.Equal(11.1m, worth.Margin!.V, 1);
    }

    [Fact]
    public void Under_a_fixed_price_pieces_go_by_the_usual_basis()
    {
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.Fixed, FixedPrice = 5000, Profit = 50 });
        var piece = job.Work(labour: 100);
        job.Work(labour: 900);
        Assert.Equal(150m, Of(job, PieceKind.Work, piece).Price.V);
    }

    [Fact]
    public void Alternates_and_what_was_left_out_say_what_they_would_add()
    {
        var job = new PricedJob(PricedJob.Plain with { Profit = 10 });
        job.Work(labour: 100);
        var place = job.Place();
        var other = job.Work(labour: 50, at: [place]);
        var job2 = job.Job.Do(new SetPiece(PieceKind.Work, other, PieceState.In, PieceState.Alternate));
        Worth Added(Job now, PieceState state) =>
            Worth.Of(Worth.Base(Sample.Reckon(now)), Piece.Of(now, PieceKind.Place, place, state)!);
        Assert.Equal(110m, Sample.Reckon(job2).Price.BeforeTax.V);
        Assert.Equal(
            (55m, 1m, 5m),
            (
                Added(job2, PieceState.Alternate).Price.V,
                Added(job2, PieceState.Alternate).Hours.V,
                Added(job2, PieceState.Alternate).GrossProfit.V
            )
        );
        var job3 = job2.Do(new SetPiece(PieceKind.Work, other, PieceState.Alternate, PieceState.Out));
        Assert.Equal(CellState.Excluded, job3.Cells[new(other, place)].State);
        Assert.Equal(55m, Added(job3, PieceState.Out).Price.V);
        // Filled in the grid it is no piece that was taken out any more.
        var filled = job3.Fill(other, [place], CellState.Included).Fill(other, [place], CellState.Excluded);
        Assert.Null(Piece.Of(filled, PieceKind.Place, place, PieceState.Out));
        Assert.Throws<RefusedException>(() =>
            filled.Do(new SetPiece(PieceKind.Place, place, PieceState.Out, PieceState.In))
        );
    }

    [Theory]
    [InlineData("library")]
    [InlineData("court")]
    public void Worth_without_a_piece_is_the_same_as_an_estimate_without_it(string name)
    {
        var estimate = Sample.Reckon(DemoCases.Of(name, false));
        var start = Worth.Base(estimate);
        foreach (var kind in Enum.GetValues<PieceKind>())
        foreach (var piece in Piece.Of(estimate.Job, kind).Where(p => p.State == PieceState.In))
        {
            var cells = estimate.Job.Cells.RemoveRange(piece.Cells);
            var without = Estimate.Of(start.Job with { Cells = cells }, Trace.Silent);
            Assert.Equal(start.Price.BeforeTax.V - without.Price.BeforeTax.V, Worth.Of(start, piece).Price.V);
        }
        // Recorded, it says the same and how.
        var one = Piece.Of(estimate.Job, PieceKind.Section).First();
        var trace = Trace.Recording();
        Assert.Equal(Worth.Of(start, one).Price.V, Worth.Recorded(estimate.Job, one, trace).Price.V);
        var checker = WorkingsTests.Checker(trace, one.Path + "/price");
        checker.Figure(one.Path + "/price");
        Assert.Contains(one.Path + "/now/price/beforeTax", checker.Known);
    }

    [Fact]
    public void Alternates_do_not_bear_brackets_money_discounts_or_the_jobs_least_charge()
    {
        var job = new PricedJob(
            PricedJob.Plain with
            {
                LeastJob = 900,
                Brackets = new(BracketBy.Price, [new(0, 20)], false),
                Discounts = [new("Trade", 10, null), new("Flyer", null, 30)],
                Fees = [new("Card", 3, false)],
            }
        );
        job.Work(labour: 100);
        var other = job.Work(labour: 97);
        var offered = job.Job.Do(new SetPiece(PieceKind.Work, other, PieceState.In, PieceState.Alternate));
        // 97 less 10 %: 87.30; fee: 87.30 ÷ 0.97 = 90.
        Assert.Equal(90m, Alternates.Priced(Sample.Reckon(offered), Trace.Silent).Single().Price.V);
    }

    [Fact]
    public void A_policy_leaves_what_is_of_the_job_and_says_what_is_bent()
    {
        var policy = new PricePolicy(Sample.NewId(), "Public buildings", PricedJob.Worked with { LeastJob = 400 });
        var job = new PricedJob(PricedJob.Plain with { Discounts = [new("Trade", 5, null)], FixedPrice = 12 }).Job;
        job = job.Do(new TakePolicy(null, policy));
        Assert.Equal(
            (400m, 15m, 12m, 1),
            (job.Pricing.LeastJob, job.Pricing.Profit, job.Pricing.FixedPrice, job.Pricing.Discounts.Length)
        );
        Assert.Empty(policy.Bent(job.Pricing));
        job = job.Do(new SetPricing("profit", "15", "18"));
        Assert.Equal(["profit"], policy.Bent(job.Pricing).Keys);
        Assert.Equal("15", (string)policy.Bent(job.Pricing)["profit"]!);
        // Somebody else has taken another meanwhile.
        Assert.Throws<ConflictException>(() => job.Do(new TakePolicy(null, policy)));
        Assert.Equal("Public buildings", JobFile.Read(JobFile.Write(job)).Policy!.Name);
    }

    [Fact]
    public void A_typed_price_moves_one_term_and_keeps_the_reason_below_the_floor()
    {
        var job = new PricedJob(PricedJob.Worked);
        job.Work(labour: 1000, goods: 400);
        var now = job.Job.Do(new TypePrice("profit", 15, -3.1m, null, "Slow month"));
        Assert.Equal((-3.1m, "Slow month"), (now.Pricing.Profit, now.SetAside[TypePrice.BelowFloor]));
        Assert.Throws<ConflictException>(() => now.Do(new TypePrice("profit", 15, 14, null, "")));
        Assert.Throws<RefusedException>(() => now.Do(new TypePrice("overhead", 10, 14, null, "")));
        Assert.Throws<RefusedException>(() => now.Do(new TypePrice("targetMargin", 45, 100, null, "")));
    }
}
