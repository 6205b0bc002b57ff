using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The cost sheet: its lines add up to the job, and a trace that follows changes no figure.</summary>
public class CostSheetTests
{
    public static TheoryData<string, bool> Jobs => DemoCases.All;

    [Theory]
    [MemberData(nameof(Jobs))]
    public void Its_lines_add_up_to_the_job(string name, bool other)
    {
        var estimate = Sample.Reckon(DemoCases.Of(name, other));
        var sheet = CostSheet.Of(estimate, Trace.Silent);
        Assert.Equal(estimate.Reckoned.Lines.Length, sheet.Lines.Length);
        Assert.Equal(
            estimate.Price.Direct.V,
            Rounding.Money(sheet.Lines.Sum(l => l.Cost.V) + sheet.CostOfNoLine.V, estimate.Price.Draft.Places)
        );
        Assert.All(sheet.Lines, l => Assert.InRange(l.Costs.Sum(c => c.Of.V) - l.Cost.V, -1e-9m, 1e-9m));
        Assert.Equal(
            estimate.Price.BeforeTax.V,
            sheet.Lines.Sum(l => l.Price.V) + sheet.PriceOfNoLine.V + sheet.Contingency.V
        );
        Assert.InRange(
            sheet.Lines.Sum(l => l.Line.Hours.V) + sheet.HoursOfNoLine.V - estimate.Reckoned.Costs.Hours.V,
            -1e-9m,
            1e-9m
        );
    }

    [Fact]
    public void What_sets_a_line_apart_is_said_and_sections_keep_their_order()
    {
        var job = new PricedJob();
        var place = job.Place();
        var later = job.Work(labour: 10, section: "B", at: [place]);
        var first = job.Work(labour: 10, section: "A", at: [place]);
        job.Work(labour: 10, section: "B", at: [place]);
        job.Set(later, "supply", Supply.CustomerMaterial);
        job.Set(later, "hidden", true);
        job.Set(first, "supply", Supply.Customer);
        var lines = CostSheet.Of(job.Estimate, Trace.Silent).Lines;
        Assert.Equal(["B", "B", "A"], lines.Select(l => l.Section));
        Assert.Equal(
            ["the customer supplies the material, hidden from the customer", "", "the customer does it"],
            lines.Select(l => l.Note)
        );
        Assert.Equal([10m, 10m, 0m], lines.Select(l => l.Cost.V));
    }

    /// <summary>A least charge that is not reached, and rounding that has nothing to do, are recorded as nothing.</summary>
    [Fact]
    public void A_trace_that_follows_gives_the_same_price()
    {
        var job = new PricedJob(
            PricedJob.Worked with
            {
                LeastJob = 100,
                LeastLine = 50,
                Rounding = new(1, false, false),
                Brackets = new(BracketBy.Price, [new(5000, -2)], false),
                Discounts = [new("early", 10, null)],
                Taxes = [PricedJob.Tax(7)],
            }
        );
        job.Work(labour: 1000, goods: 400);
        job.Work(labour: 20, charge: 5);
        var (silent, trace) = (job.Price, Trace.Following());
        var following = Estimate.Of(job.Job, trace).Price;
        var more = following.Steps.ExceptBy(silent.Steps.Select(s => s.Key), s => s.Key).ToArray();
        Assert.Equal(["brackets", "leastJob"], more.Select(s => s.Key));
        Assert.All(more, s => Assert.Equal(0m, s.Amount.V));
        Assert.Equal(
            silent.Steps.Select(s => (s.Key, s.Amount.V)),
            following.Steps.Except(more).Select(s => (s.Key, s.Amount.V))
        );
        Assert.Contains(
            trace.Assumptions,
            a => a.Otherwise.EndsWith("its least charge counts now.", StringComparison.Ordinal)
        );
        Assert.Contains(trace.Assumptions, a => a.Otherwise.EndsWith("counts no more.", StringComparison.Ordinal));
        Assert.Empty(Trace.Recording().Assumptions);
    }
}
