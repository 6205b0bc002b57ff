using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>Discounts, in order, each on what is left. One may go below a least charge, and says so.</summary>
internal static class DiscountsPass
{
    /// <summary>Whether a step is a discount.</summary>
    public static bool Is(PriceStep step) => step.Key.StartsWith("discounts/", StringComparison.Ordinal);

    public static PriceDraft Of(PriceDraft draft)
    {
        var terms = draft.Terms;
        for (var i = 0; i < terms.Discounts.Length; i++)
        {
            var discount = terms.Discounts[i];
            var left = draft.LessAllowances;
            if (left.V <= 0)
                break;
            var off =
                draft.Intended is { } intended && i == terms.Discounts.Length - 1 ? left - intended
                : discount.Percent is { } percent
                    ? left * draft.Trace.Term(percent, "%", discount.Reason, "discounts") / 100m
                : Val.Min(draft.Trace.Term(discount.Amount!.Value, "", discount.Reason, "discounts"), left);
            var amount = draft.Money(0m - off, "Discount: " + discount.Reason, $"discounts/{i + 1}");
            var below =
                terms.LeastJob > 0 && left.V + amount.V < terms.LeastJob ? ", below the least charge of the job" : "";
            draft = draft.Spread(
                $"discounts/{i + 1}",
                discount.Percent is { } p ? $"Discount {PriceDraft.Percent(p)}" : "Discount",
                discount.Reason + below,
                amount
            );
        }
        return draft;
    }
}
