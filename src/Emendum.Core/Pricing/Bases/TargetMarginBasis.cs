using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

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
    internal override Built Build(PriceDraft draft, Pool pool)
    {
        var classes = Classes(draft, pool);
        var direct = Sum.Of(classes.Select(c => c.Of.Cost.Value));
        var margin = draft.Trace.Term(pool.Terms.TargetMargin, "%", "target margin", "targetMargin");
        var price = pool.Money(draft, direct * 100m / (100m - margin), "Price of what costs", "ofCosts");
        return Left(
            draft,
            pool,
            classes,
            price,
            TaxShares.Reckoned(draft, pool, price, new(of => classes[of].Cost)),
            "what the margin leaves"
        );
    }
}
