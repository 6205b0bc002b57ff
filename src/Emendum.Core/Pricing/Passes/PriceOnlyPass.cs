using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>Price-only items and allowances enter at their own prices; no percentage of the job falls on them.</summary>
internal static class PriceOnlyPass
{
    public static PriceDraft Of(PriceDraft draft)
    {
        var amount = draft.Money(
            Sum.Of(draft.Priced.Select(p => p.Price.Value)),
            "Price-only items and allowances",
            "priceOnly"
        );
        if (amount.V == 0)
            return draft;
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
            [new(PriceBody.Priced, amount)]
        );
        return draft with { Steps = draft.Steps.Add(step), OfCosts = ofCosts, OfPriced = amount };
    }
}
