using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>Raises the list price so that what the discounts leave is the intended price: P ÷ (1 − d) for a percent, P + d for an amount, from the last discount back to the first.</summary>
internal static class RaisePass
{
    public static PriceDraft Of(PriceDraft draft)
    {
        if (!draft.Terms.RaiseList || draft.Terms.Discounts.IsEmpty)
            return draft;
        var intended = draft.LessAllowances;
        if (intended.V <= 0)
            return draft;
        var list = intended;
        foreach (var discount in draft.Terms.Discounts.Reverse())
            list = discount.Percent is { } percent
                ? list * 100m / (100m - draft.Trace.Term(percent, "%", discount.Reason, "discounts"))
                : list + draft.Trace.Term(discount.Amount!.Value, "", discount.Reason, "discounts");
        return draft.Spread(
            "raised",
            "List price raised",
            "so that the discounts leave the intended price",
            draft.Money(list - intended, "List price raised", "raised")
        ) with
        {
            Intended = intended,
        };
    }
}
