using System.Text.Json;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Alternates that add and deduct: the numbers of the model's §8 and of pricing.md, and hand-reckoned ones.</summary>
public class AlternatesTests
{
    /// <summary>Puts work under a name.</summary>
    private static Guid Named(PricedJob job, string name, AlternateKind kind, params Guid[] work)
    {
        var id = Sample.NewId();
        if (kind == AlternateKind.Add)
            foreach (var one in work.Where(w => Piece.Of(job.Job, PieceKind.Work, w, PieceState.In) is not null))
                job.Do(new SetPiece(PieceKind.Work, one, PieceState.In, PieceState.Alternate));
        job.Do(new GroupAlternate(id, name, kind, [.. work], []));
        return id;
    }

    private static decimal[] Prices(PricedJob job) =>
        [.. Alternates.Priced(job.Estimate, Trace.Silent).Select(a => a.Price.V)];

    private static TakenTogether Together(PricedJob job, params Guid[] taken) =>
        TakenTogether.Of(job.Estimate, taken, Trace.Silent);

    [Fact]
    public void Two_deducts_below_the_jobs_least_are_less_together()
    {
        // Built 700, least 500, two deducts of 150: together 200, so that 'taken together' is +100.
        var job = new PricedJob(PricedJob.Plain with { LeastJob = 500 });
        job.Work(labour: 400);
        var stores = Named(job, "Leave out the stores", AlternateKind.Deduct, job.Work(labour: 150));
        var hall = Named(job, "Leave out the hall", AlternateKind.Deduct, job.Work(labour: 150));
        Assert.Equal([-150m, -150m], Prices(job));
        var together = Together(job, stores, hall);
        Assert.Equal((700m, 100m, 500m), (together.Base.V, together.Together.V, together.Estimate.Price.BeforeTax.V));
    }

    [Fact]
    public void A_deduct_below_a_least_charge_takes_off_no_more_than_down_to_it()
    {
        // Built 600, least 500: 150 of work takes off 100.
        var job = new PricedJob(PricedJob.Plain with { LeastJob = 500 });
        job.Work(labour: 450);
        Named(job, "Without the hall", AlternateKind.Deduct, job.Work(labour: 150));
        Assert.Equal([-100m], Prices(job));
    }

    [Fact]
    public void Tax_is_reckoned_once_on_the_whole()
    {
        // 100.05 + 100.05 at 10 %: 20.01, and not twice 10.01.
        var job = new PricedJob(PricedJob.Plain with { Taxes = [PricedJob.Tax(10)] });
        var one = Named(job, "One", AlternateKind.Add, job.Work(labour: 100.05m));
        var other = Named(job, "Other", AlternateKind.Add, job.Work(labour: 100.05m));
        Assert.Equal([100.05m, 100.05m], Prices(job));
        var together = Together(job, one, other);
        Assert.Equal(
            (0m, 20.01m, 220.11m),
            (together.Together.V, together.Estimate.Price.Tax, together.Estimate.Price.Total.V)
        );
    }

    [Fact]
    public void Two_that_share_a_pail_cost_one_pail_less_together()
    {
        // Each needs 1 of a pail of 5 at 215, sold at + 20 %: 258 alone. Together one pail: 258 less.
        var job = new PricedJob(PricedJob.Plain with { MaterialMarkup = 20 });
        job.Work(labour: 1000);
        var pail = Sample.Material("Pail", Unit.Each, null, null, 0, new Pack("pail", 5, 215));
        var walls = Named(job, "Walls", AlternateKind.Add, job.Work(goods: 215, of: _ => pail));
        var ceilings = Named(job, "Ceilings", AlternateKind.Add, job.Work(goods: 215, of: _ => pail));
        Assert.Equal([258m, 258m], Prices(job));
        Assert.Equal(-258m, Together(job, walls, ceilings).Together.V);
        Assert.Equal(0m, Together(job, walls).Together.V);
    }

    [Fact]
    public void Percent_discounts_and_fees_reach_one_that_adds_and_brackets_least_charge_and_rounding_do_not()
    {
        var job = new PricedJob(
            PricedJob.Plain with
            {
                LeastJob = 500,
                Discounts = [new("Trade", 5, null), new("As agreed", null, 40)],
                Fees = [new("Card", 5, false)],
                Rounding = new(10, false, false),
                Brackets = new(BracketBy.Price, [new(0, 50)], false),
            }
        );
        job.Work(labour: 1000);
        Named(job, "More", AlternateKind.Add, job.Work(labour: 200));
        // 200 less 5 %: 190; with the fee 190 ÷ 0.95 = 200.
        Assert.Equal([200m], Prices(job));
    }

    [Fact]
    public void Under_a_fixed_price_it_is_reckoned_by_the_usual_basis_and_added_to_the_fixed_sum()
    {
        var job = new PricedJob(
            PricedJob.Plain with
            {
                Basis = PriceBasis.Fixed,
                FixedPrice = 5000,
                LabourMarkup = 50,
            }
        );
        job.Work(labour: 2000);
        var more = Named(job, "More", AlternateKind.Add, job.Work(labour: 200));
        var less = Named(job, "Less", AlternateKind.Deduct, job.Work(labour: 100));
        Assert.Equal([300m, -150m], Prices(job));
        var together = Together(job, more, less);
        Assert.Equal((5150m, 0m), (together.Estimate.Price.BeforeTax.V, together.Together.V));
        // Taking it moves the fixed price by what was printed; giving it back takes that off again.
        var taken = job.Job.Do(new TakeAlternate(more, false, true, TakenTogether.FixedWith(job.Job, 300)));
        Assert.Equal(5300m, Sample.Reckon(taken).Price.BeforeTax.V);
        Assert.Equal(5000m, Sample.Reckon(taken.Do(new TakeAlternate(more, true, false, 5000))).Price.BeforeTax.V);
    }

    [Fact]
    public void One_alternate_is_over_several_pieces_of_work_and_places_and_is_taken_as_one()
    {
        var job = new PricedJob();
        Guid[] places = [job.Place(), job.Place(), job.Place()];
        var (paint, skim) = (job.Work(labour: 100, at: places), job.Work(labour: 30, at: places));
        foreach (var work in new[] { paint, skim })
            job.Job.Fill(work, places[..2], CellState.Alternate);
        job.Do(new FillCells([paint, skim], [.. places[..2]], "iiii", CellState.Alternate));
        var front = Sample.NewId();
        job.Do(new GroupAlternate(front, " Street front ", AlternateKind.Add, [paint, skim], [places[0]]));
        // What is not in it stays by itself.
        var all = Alternates.Priced(job.Estimate, Trace.Silent);
        Assert.Equal(["S: Work 1", "S: Work 2", "Street front"], all.Select(a => a.Offered.Name));
        Assert.Equal([100m, 30m, 130m], all.Select(a => a.Price.V));
        var before = JobFile.Write(job.Job);
        var (taken, changes) = Commands.Apply(job.Job, new TakeAlternate(front, false, true, null), _ => null);
        Assert.Equal(390m - 260m + 130m, Sample.Reckon(taken).Price.BeforeTax.V);
        Assert.Equal([true], Alternates.Of(Sample.Reckon(taken)).Where(o => o.Id == front).Select(o => o.Taken));
        // Undone, the bytes are back; given back by its own command too.
        Assert.Equal(before, JobFile.Write(ChangeSet.Apply(taken, ChangeSet.Reversed(changes))));
        Assert.Equal(before, JobFile.Write(taken.Do(new TakeAlternate(front, true, false, null))));
        Assert.Equal(before, JobFile.Write(JobFile.Read(before)));
        // Its work stands by itself again without its name.
        Assert.Equal(
            [200m, 60m],
            Alternates
                .Priced(Sample.Reckon(job.Job.Do(new UngroupAlternate(front))), Trace.Silent)
                .Select(a => a.Price.V)
        );
    }

    [Fact]
    public void Work_that_is_moved_otherwise_leaves_its_alternate()
    {
        var job = new PricedJob();
        var (one, other) = (job.Work(labour: 100), job.Work(labour: 50));
        var less = Named(job, "Less", AlternateKind.Deduct, one, other);
        Assert.Equal([-150m], Prices(job));
        job.Do(new SetPiece(PieceKind.Work, one, PieceState.In, PieceState.Out));
        Assert.Equal([-50m], Prices(job));
        job.Do(new SetPiece(PieceKind.Work, other, PieceState.In, PieceState.Alternate));
        // The alternate without work is offered to nobody, and can be filled again.
        Assert.Equal([50m], Prices(job));
        Assert.Throws<RefusedException>(() => job.Job.Do(new TakeAlternate(less, false, true, null)));
    }

    [Fact]
    public void A_deduct_that_would_raise_the_price_says_so()
    {
        // 1,000 and more have 30 % off: without the 100, 950 stand at 950, and with it 1,050 at 735.
        var job = new PricedJob(
            PricedJob.Plain with
            {
                Brackets = new(BracketBy.Price, [new(0, 0), new(1000, -30)], false),
            }
        );
        job.Work(labour: 950);
        Named(job, "Less", AlternateKind.Deduct, job.Work(labour: 100));
        var less = Alternates.Priced(job.Estimate, Trace.Silent).Single();
        Assert.Equal((215m, true), (less.Price.V, less.Contrary));
    }

    [Fact]
    public void The_customer_reads_its_name_with_what_it_adds_or_takes_off()
    {
        var job = new PricedJob();
        job.Work(labour: 500);
        Named(job, "Street front, clean and repaint", AlternateKind.Add, job.Work(labour: 200));
        Named(job, "Leave out the stores", AlternateKind.Deduct, job.Work(labour: 80));
        var table = Sample.Proposed(job.Estimate).OfType<PriceTable>().Last();
        Assert.Equal(
            [("Street front, clean and repaint", 200m), ("Leave out the stores", -80m)],
            table.Rows.Select(r => (r.Label, r.Amount!.Value))
        );
        Assert.Equal(["200.00", "−80.00"], table.Rows.Select(r => r.Shown));
    }

    [Fact]
    public void What_cannot_be_is_refused()
    {
        var job = new PricedJob();
        var work = job.Work(labour: 100);
        GroupAlternate Of(AlternateKind kind, string name = "A", params Guid[] of) =>
            new(Sample.NewId(), name, kind, [.. of], []);
        // Nothing is named; nothing stands as an alternate; there is no name.
        Assert.Throws<RefusedException>(() => job.Job.Do(Of(AlternateKind.Deduct)));
        Assert.Throws<RefusedException>(() => job.Job.Do(Of(AlternateKind.Add, "A", work)));
        Assert.Throws<RefusedException>(() => job.Job.Do(Of(AlternateKind.Deduct, " ", work)));
        var id = Named(job, "A", AlternateKind.Deduct, work);
        // Its work is in it already; its name is taken; it is not taken yet.
        Assert.Throws<RefusedException>(() => job.Job.Do(Of(AlternateKind.Deduct, "B", work)));
        job.Work(labour: 10);
        Assert.Throws<RefusedException>(() => job.Job.Do(Of(AlternateKind.Deduct, "a", job.Job.Work[1].Id)));
        Assert.Throws<ConflictException>(() => job.Job.Do(new TakeAlternate(id, true, false, null)));
        Assert.Throws<RefusedException>(() => job.Job.Do(new RenameAlternate(id, "A", "")));
        Assert.Throws<RefusedException>(() => Together(job, Sample.NewId()));
        Assert.Throws<RefusedException>(() => job.Job.Do(new UngroupAlternate(Sample.NewId())));
    }

    [Fact]
    public void Every_figure_of_it_is_recomputed_from_its_workings()
    {
        var job = new PricedJob(PricedJob.Worked with { LeastJob = 300 });
        job.Work(labour: 100, goods: 50);
        var more = Named(job, "More", AlternateKind.Add, job.Work(labour: 200, goods: 10));
        var less = Named(job, "Less", AlternateKind.Deduct, job.Work(labour: 80));
        var trace = Trace.Recording();
        var estimate = Estimate.Of(job.Job, trace);
        var priced = Alternates.Priced(estimate, trace);
        var together = TakenTogether.Of(estimate, [more, less], trace);
        foreach (
            var path in priced
                .Select(p => p.Path)
                .Concat([together.Base.Path, together.Together.Path, together.Estimate.Price.Total.Path])
        )
        {
            using var json = JsonDocument.Parse(Explanation.Of(trace, path)!.ToJsonString());
            new WorkingsChecker(json.RootElement).Figure(path);
        }
        Assert.Equal(priced.Select(p => p.Path), priced.Select(p => p.Price.Path));
    }
}
