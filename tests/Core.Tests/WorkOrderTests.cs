using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using Emendum.Core.Book;
using Emendum.Core.Delivery;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The work order of what was agreed (estimating model §13): what is in it, what is not, and never a price.</summary>
public sealed class WorkOrderTests
{
    private static readonly Estimate Library = Sample.Reckon(Sample.Library());

    public static TheoryData<Guid> Jobs => [.. DemoJobs.Fixed().Select(j => j.Id)];

    private static Job Job(Guid id) => DemoJobs.Fixed().Single(j => j.Id == id);

    [Theory]
    [MemberData(nameof(Jobs))]
    public void Hours_of_the_order_are_the_hours_of_the_estimate(Guid id)
    {
        var estimate = Sample.Reckon(Job(id));
        var order = OrderMaking.Of(estimate);
        // Of a round the estimate has those of the year, the order those of each time.
        if (estimate.Reckoned.Occurrences.IsEmpty)
            Assert.InRange(order.Hours - estimate.Reckoned.Costs.Hours.V, -0.001m, 0.001m);
        Assert.Equal(order.Lines.Sum(l => l.Hours), order.ByPlace.Sum(g => g.Hours));
        Assert.Equal(order.Lines.Sum(l => l.Hours), order.BySection.Sum(g => g.Hours));
        Assert.Equal(order.Lines.Length, order.ByPlace.Sum(g => g.Lines.Length));
        // Read back from what is kept it is the same, to the byte.
        var kept = JsonSerializer.Serialize(order, CoreJson.Options);
        var again = JsonSerializer.Deserialize<WorkOrder>(kept, CoreJson.Options)!;
        Assert.Equal(kept, JsonSerializer.Serialize(again, CoreJson.Options));
    }

    [Theory]
    [MemberData(nameof(Jobs))]
    public void No_amount_of_money_stands_in_it(Guid id)
    {
        var estimate = Sample.Reckon(Job(id));
        var order = OrderMaking.Of(estimate);
        var text = JsonSerializer.Serialize(order, CoreJson.Options);
        // A quantity or hours may happen to be the same number as an amount.
        var quantities = order
            .Lines.SelectMany(l => new[] { l.Quantity, l.Hours, l.Rate?.Weighted ?? 0 })
            .Concat(order.Once.Select(o => o.Hours))
            .Append(order.SetUp)
            .ToHashSet();
        foreach (var amount in Amounts(estimate).Where(a => !quantities.Contains(a)))
        foreach (var written in new[] { Shown.Money(amount), amount.ToString("0.00", CultureInfo.InvariantCulture) })
        {
            var found = Regex.Match(text, $@"(?<![\d.,]){Regex.Escape(written)}(?!\d).{{0,40}}");
            Assert.True(!found.Success, found.Value);
        }
        Assert.DoesNotContain(estimate.Job.Info.Currency, text, StringComparison.Ordinal);
    }

    /// <summary>Every amount of money that an estimate says, with cents, so that no count is taken for one.</summary>
    private static IEnumerable<decimal> Amounts(Estimate estimate)
    {
        var costs = estimate.Reckoned.Costs;
        return costs
            .Roles.SelectMany(r => new[] { r.Cost.V, r.LoadedCost.V })
            .Concat(costs.Buying.SelectMany(b => new[] { b.BoughtCost.V, b.NeedCost.V }))
            .Concat(costs.Buying.SelectMany(b => b.Material.Packs.Select(p => p.Price)))
            .Concat(costs.Equipment.Select(e => e.Cost.V))
            .Concat(estimate.Price.Steps.Select(s => s.Amount.V))
            .Append(estimate.Price.Total.V)
            .Select(a => decimal.Round(a, 2))
            .Where(a => a > 0)
            .Distinct();
    }

    [Fact]
    public void It_says_goods_colours_notes_what_is_left_out_and_what_the_customer_does()
    {
        var job = Library.Job;
        var (work, place) = (job.Work.First(w => w.Name.StartsWith("Paint", StringComparison.Ordinal)), job.Places[0]);
        var lines = Library.Reckoned.Lines.Where(l => l.OfItem.Item.Id == work.Id).Take(3).ToList();
        var (left, theirs, noted) = (lines[0].Measures.Place, lines[1].Measures.Place, lines[2].Measures.Place);
        job = job.Do(new FillCells([work.Id], [left.Id], job.Seen([work.Id], [left.Id]), CellState.Excluded))
            .Set(work.Id, theirs.Id, "supply", Supply.Customer)
            .Set(work.Id, noted.Id, "crewNote", "Mind the piano");
        var order = OrderMaking.Of(Sample.Reckon(job));
        var line = order.Line(work.Id, noted.Id)!;
        Assert.Contains("Mind the piano.", line.Notes);
        Assert.Contains(line.Goods, g => g.Need.EndsWith("gal", StringComparison.Ordinal));
        Assert.Null(order.Line(work.Id, left.Id));
        Assert.Null(order.Line(work.Id, theirs.Id));
        Assert.Contains(order.LeftOut, s => s.Contains(left.Name, StringComparison.Ordinal));
        Assert.Contains(order.Theirs, s => s.Contains(theirs.Name, StringComparison.Ordinal));
        Assert.Contains(order.Supplies, s => s.Packs.Length > 0 && s.Need.Length > 0);
    }

    [Fact]
    public void A_part_of_it_knows_its_sections_alone()
    {
        var order = OrderMaking.Of(Library);
        var section = order.Lines[0].Section;
        var part = order.About([section]);
        Assert.All(part.Lines, l => Assert.Equal(section, l.Section));
        Assert.InRange(part.Lines.Length, 1, order.Lines.Length - 1);
        Assert.Empty(part.Supplies);
        Assert.Same(order, order.About([]));
    }

    [Fact]
    public void What_was_chosen_is_what_is_done()
    {
        // The gallery: the customer may choose the carpet tile, and the stair lobby is an alternate.
        var sent = Job(DemoJobs.Gallery);
        var estimate = Sample.Reckon(sent);
        var document = Proposal.Of(estimate, Party.None, Brand.Starting, Trace.Silent, "A");
        var figures = RevisionFigures.Of(estimate);
        var statement = Statement.AsSent(
            document,
            Brand.Starting,
            figures,
            new RevisionStart(Guid.Empty, 1, null),
            new string('0', 64)
        );
        var offer = Offer.Of(sent, figures, Brand.Starting, statement)!;
        var (choice, option) = (sent.Choices[0], sent.Choices[0].Options[1]);
        Assert.NotEqual(option.Id, choice.Taken);
        var selection = Selection.AsSent.With(choice.Id, option.Id, true).With(null, sent.Alternates[0].Id, true);
        var agreed = offer.Agreed(selection);
        // It comes to what was signed.
        Assert.Equal(offer.With(selection).Total, agreed.Price.Total.V);
        var (before, after) = (OrderMaking.Of(estimate), OrderMaking.Of(agreed));
        Assert.True(after.Lines.Length > before.Lines.Length);
        var goods = option.Name;
        Assert.DoesNotContain(
            before.Lines,
            l => l.Goods.Any(g => $"{g.Name} {g.Colour}".Contains(goods, StringComparison.Ordinal))
        );
        Assert.Contains(
            after.Lines,
            l => l.Goods.Any(g => $"{g.Name} {g.Colour}".Contains(goods, StringComparison.Ordinal))
        );
        Assert.Same(offer.Agreed(Selection.AsSent).Job, offer.Sent);
    }
}
