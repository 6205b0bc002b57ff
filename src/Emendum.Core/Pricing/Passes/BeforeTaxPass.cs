using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>The price before tax.</summary>
internal static class BeforeTaxPass
{
    public const string Key = "beforeTax";

    public static PriceDraft Of(PriceDraft draft)
    {
        Val all = draft.OfPriced.V == 0 ? draft.OfCosts : draft.OfCosts + draft.OfPriced;
        var step = new PriceStep(
            Key,
            "Price before tax",
            Basis.Of(draft.Terms.Basis).Words(draft.Terms),
            StepKind.Sum,
            draft.Money(all, "Price before tax", Key),
            [new(PriceBody.Costs, draft.OfCosts), new(PriceBody.Priced, draft.OfPriced)]
        );
        return draft with { Steps = draft.Steps.Add(step) };
    }
}
