using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>Price-only items and allowances enter at their own prices; no percentage of the job's basis falls on them. Price-only items of a fixed price are part of it.</summary>
internal static class PriceOnlyPass
{
    public static PriceDraft Of(PriceDraft draft)
    {
        var pools = draft.Pools.ToDictionary(p => p.Section?.Id ?? Guid.Empty);
        Pool PoolOf(OwnPrice own) => pools.GetValueOrDefault(own.Item.Item.Section) ?? pools[Guid.Empty];
        var priced = draft
            .Priced.Where(p =>
                p.Kind == OwnPriceKind.Allowance
                || (p.Kind == OwnPriceKind.PriceOnly && PoolOf(p).Terms.Basis != PriceBasis.Fixed)
            )
            .ToArray();
        var amount = draft.Money(
            Sum.Of(priced.Select(p => p.Price.Value)),
            "Price-only items and allowances",
            "priceOnly"
        );
        if (amount.V == 0)
            return draft;
        var portions = priced
            .GroupBy(p => (PoolOf(p).Section?.Id, p.Kind))
            .SelectMany(of =>
                TaxShares.Own(
                    draft,
                    of.Key.Kind == OwnPriceKind.Allowance ? PortionKind.Allowance : PortionKind.Own,
                    of.Key.Id,
                    of.SelectMany(p =>
                        p.ByLine.Select(l => (l.Line, draft.Categories.Of(TaxOn.PriceOnly, Exempt(p)), l.Price))
                    )
                )
            )
            .ToArray();
        // A sum is made a figure, so that the items are seen beside what they are added to.
        var ofCosts =
            draft.OfCosts.How is Op
                ? draft.Money(draft.OfCosts, "Price of what costs", "ofCosts").Value
                : draft.OfCosts;
        var step = new PriceStep(
            "priceOnly",
            "Price-only items",
            "at their own prices",
            StepKind.Added,
            amount,
            [.. portions.Select(p => new StepPart(p.Of, p.Section, p.Tax, p.Amount))]
        );
        return draft with
        {
            Steps = draft.Steps.Add(step),
            Portions = draft.Joined(portions),
            OfCosts = ofCosts,
            OfPriced = amount,
            So = ofCosts + amount,
        };
    }

    private static string? Exempt(OwnPrice own) =>
        own.Kind == OwnPriceKind.PriceOnly && own.Item.Entry is Book.PriceOnlyItem { Taxable: false }
            ? own.Item.Entry.TaxExempt ?? "sold without tax"
            : own.Item.Entry.TaxExempt;
}
