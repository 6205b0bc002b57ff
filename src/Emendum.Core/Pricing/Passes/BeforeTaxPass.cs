using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>The price before tax.</summary>
internal static class BeforeTaxPass
{
    public const string Key = "beforeTax";

    public static PriceDraft Of(PriceDraft draft)
    {
        var amount = draft.Money(draft.So, "Price before tax", Key);
        var step = new PriceStep(
            Key,
            "Price before tax",
            Basis.Of(draft.Terms.Basis).Words(draft.Terms),
            StepKind.Sum,
            amount,
            [.. draft.Portions.Select(p => new StepPart(p.Of, p.Section, p.Tax, p.Amount))]
        );
        return draft with { Steps = draft.Steps.Add(step), So = amount };
    }
}
