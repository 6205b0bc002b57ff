using Emendum.Core.Jobs;

namespace Emendum.Core.Pricing;

/// <summary>Price = direct cost ÷ (1 − margin). Overhead and contingency are readouts, and what is left after them is what the margin leaves.</summary>
public sealed class TargetMarginBasis : Basis
{
    /// <inheritdoc/>
    public override PriceBasis Kind => PriceBasis.TargetMargin;

    /// <inheritdoc/>
    public override string Words(PricingTerms terms) =>
        $"by a target margin of {PriceDraft.Percent(terms.TargetMargin)}";

    /// <inheritdoc/>
    protected override PriceDraft Steps(PriceDraft draft)
    {
        draft = Overheads(draft, draft.Direct, "cost", out var overhead, out var contingency);
        var margin = draft.Trace.Term(draft.Terms.TargetMargin, "%", "target margin", "targetMargin");
        var ofCosts = draft.Money(draft.Direct * 100m / (100m - margin), "Price of what costs", "ofCosts");
        var left = draft.Money(
            ofCosts - draft.Direct - overhead - contingency,
            "Left after overhead and contingency",
            "profit"
        );
        return draft.OnCosts("profit", "Left as profit", "what the margin leaves", StepKind.Profit, left) with
        {
            OfCosts = ofCosts,
        };
    }
}
