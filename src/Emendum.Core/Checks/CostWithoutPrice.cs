using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Checks;

/// <summary>Under unit prices set-up, travel and hidden work without a unit price are paid for by nobody (pricing, Bases).</summary>
internal static class CostWithoutPrice
{
    public static IEnumerable<Finding> In(CheckedJob job)
    {
        var draft = job.Estimate.Price.Draft;
        var (hidden, way) = draft.Occurrences.IsEmpty
            ? Of(job.Estimate)
            : draft
                .Occurrences.Select(o => (Times: o.Occurrence.Times.V, One: Of(o.Estimate)))
                .Aggregate((0m, 0m), (sum, o) => (sum.Item1 + o.Times * o.One.Hidden, sum.Item2 + o.Times * o.One.Way));
        (hidden, way) = (Rounding.Money(hidden, draft.Places), Rounding.Money(way, draft.Places));
        if (hidden <= 0 && way <= 0)
            yield break;
        var parts = new[]
        {
            (way, "set-up and the way to the site"),
            (hidden, "hidden work without a unit price"),
        }.Where(p => p.Item1 > 0);
        yield return job.Found(
            "unpriced",
            "Cost without a price",
            $"{draft.Words(hidden + way)} of the cost is in no unit price: {string.Join(", ", parts.Select(p => $"{p.Item2} {draft.Words(p.Item1)}"))}.",
            "Unit prices bring only what is measured. Let them cover it, sell it as an item of its own, or set this aside when they do."
        );
    }

    private static (decimal Hidden, decimal Way) Of(Estimate estimate)
    {
        var draft = estimate.Price.Draft;
        var (hidden, way) = (0m, 0m);
        if (draft.Pools.All(p => p.Terms.Basis != PriceBasis.UnitPrice))
            return (hidden, way);
        var sold = estimate.Priced.SelectMany(p => p.ByLine).Select(l => l.Line).ToHashSet();
        decimal Cost(int line) => draft.LineCosts.Lines[line].Sum(c => c.Of.V);
        foreach (var pool in draft.Pools.Where(p => p.Terms.Basis == PriceBasis.UnitPrice))
        {
            hidden += pool.Lines.Where(n => !sold.Contains(n)).Sum(Cost);
            way += pool.Costs.Sum(c => c.Of.V) - pool.Lines.Sum(Cost);
        }
        return (hidden, way);
    }
}
