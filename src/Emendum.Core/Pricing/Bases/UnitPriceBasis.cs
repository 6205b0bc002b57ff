using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>Quantity · unit price. Set-up, travel and hidden lines without one are cost without a price. Overhead and contingency are readouts.</summary>
public sealed class UnitPriceBasis : Basis
{
    /// <inheritdoc/>
    public override PriceBasis Kind => PriceBasis.UnitPrice;

    /// <inheritdoc/>
    public override string Words(PricingTerms terms) => "by unit prices";

    /// <inheritdoc/>
    internal override Built Build(PriceDraft draft, Pool pool)
    {
        var lines = pool.Lines.ToHashSet();
        var sold = draft
            .Priced.Where(p => p.Kind == OwnPriceKind.UnitPrice && p.ByLine.Any(l => lines.Contains(l.Line)))
            .ToArray();
        var price = pool.Money(draft, Sum.Of(sold.Select(p => p.Price.Value)), "Price by units", "ofCosts");
        var portions = TaxShares.Own(
            draft,
            PortionKind.Own,
            pool.Section?.Id,
            sold.SelectMany(p => p.ByLine)
                .OrderBy(l => l.Line)
                .SelectMany(l => TaxShares.OfLine(draft, l.Line, l.Price).Select(t => (l.Line, t.Tax, t.Amount)))
        );
        return Left(draft, pool, Classes(draft, pool), price, portions, "what unit prices leave");
    }
}
