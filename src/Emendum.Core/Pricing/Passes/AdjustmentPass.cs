using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>What is added or taken off where no other term could move to a typed price.</summary>
internal static class AdjustmentPass
{
    public static PriceDraft Of(PriceDraft draft) =>
        draft.Terms.Adjustment == 0 || !Array.Exists(draft.Reckoned.Lines, l => !l.IsNothing)
            ? draft
            : draft.Spread(
                "adjustment",
                "Adjustment",
                draft.Terms.AdjustmentReason,
                draft.Money(
                    draft.Trace.Term(draft.Terms.Adjustment, "", "adjustment", "adjustment"),
                    "Adjustment",
                    "adjustment"
                )
            );
}
