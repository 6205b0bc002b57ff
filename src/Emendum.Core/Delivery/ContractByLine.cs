using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A row of the contract sum that is no line: the job's least charge, its rounding, contingency that is shown.</summary>
/// <param name="Label">What it is.</param>
/// <param name="Value">Before tax, by category.</param>
public sealed record ContractRow(string Label, ByCategory Value);

/// <summary>The contract sum by its lines (rules M1 and M13): what each was worth with brackets and its own least charges, less its share of discounts, with its share of percent costs. What concerns the job as a whole stands in rows of its own, and is never credited.</summary>
/// <param name="Lines">Value of each line, before tax.</param>
/// <param name="Rows">What is no line's; lines and rows add up to the contract sum in each category.</param>
public sealed record ContractByLine(ImmutableDictionary<CellKey, ByCategory> Lines, ImmutableArray<ContractRow> Rows)
{
    /// <summary>What a line is worth; nothing where it is not in the contract.</summary>
    public ByCategory this[CellKey line] => Lines.GetValueOrDefault(line) ?? new([]);

    /// <summary>That of an estimate that was agreed; categories stand as <see cref="AgreedContract.Of"/> has them.</summary>
    public static ContractByLine Of(Estimate agreed)
    {
        var categories = AgreedContract.CategoriesOf(agreed.Price).ToList();
        var spread = Spread.Of(agreed, Trace.Silent, Apart.Whole);
        var lines = agreed.Reckoned.Lines;
        var values = ImmutableDictionary.CreateBuilder<CellKey, ByCategory>();
        for (var n = 0; n < lines.Length; n++)
        {
            var value = new ByCategory(
                [.. categories.Select(c => spread.ByTax.TryGetValue(c.Number, out var prices) ? prices[n].V : 0)]
            );
            if (value.Amounts.Any(a => a != 0))
                values[new(lines[n].OfItem.Item.Id, lines[n].Measures.Place.Id)] = value;
        }
        var rows = agreed
            .Price.Draft.Portions.SelectMany(p =>
                Spread.Whole(agreed.Price.Draft, p).Select(w => (w.Key, w.Label, p.Tax.Number, w.Amount))
            )
            .GroupBy(w => (w.Key, w.Label))
            .Select(g => new ContractRow(
                g.Key.Label,
                new([.. categories.Select(c => g.Where(w => w.Number == c.Number).Sum(w => w.Amount))])
            ))
            .ToList();
        var sum = new ByCategory([.. categories.Select(c => c.Category.Amount)]);
        var rest = sum - Sum(values.Values.Concat(rows.Select(r => r.Value)), categories.Count);
        if (rest.Amounts.Any(a => a != 0))
            rows.Add(new(spread.Contingency.V != 0 ? "Contingency" : "Other work", rest));
        return new(values.ToImmutable(), [.. rows.Where(r => r.Value.Amounts.Any(a => a != 0))]);
    }

    private static ByCategory Sum(IEnumerable<ByCategory> of, int categories) =>
        of.Aggregate(ByCategory.Nothing(categories), (sum, one) => sum + one);

    /// <summary>How much of it is done: each line as it is, what is no line's as much as of the lines.</summary>
    /// <param name="percent">How much of a line is done, 0 to 100.</param>
    public ImmutableArray<LineDone> DoneBy(Func<CellKey, decimal> percent)
    {
        var lines = Lines.Select(l => new LineDone(l.Value, percent(l.Key))).ToList();
        var all = lines.Sum(l => l.Value.Sum);
        var done = all == 0 ? 0 : Rounding.Figure(lines.Sum(l => l.Value.Sum * l.Percent) / all);
        return [.. lines, .. Rows.Select(r => new LineDone(r.Value, Math.Clamp(done, 0, 100)))];
    }

    /// <summary>It after a change: each line that the change touches is worth what the change leaves of it.</summary>
    /// <param name="change">The change.</param>
    /// <param name="contract">The contract with the change in it.</param>
    public ContractByLine With(ChangeOrder change, AgreedContract contract)
    {
        var lines = Lines.ToBuilder();
        foreach (var line in change.Lines)
        {
            var key = new CellKey(line.Work, line.Place);
            var left = contract.Placed(line.Left).Amounts;
            if (left.Amounts.Any(a => a != 0))
                lines[key] = left;
            else
                lines.Remove(key);
        }
        // What goods that stay and the job's least charge keep of what was dropped, and contingency that is shown, belong to no line.
        var beside = contract.Placed(change.Beside).Amounts;
        return new(
            lines.ToImmutable(),
            beside.Amounts.Any(a => a != 0)
                ? Rows.Add(new($"Beside the lines of change order {change.Number}", beside))
                : Rows
        );
    }
}
