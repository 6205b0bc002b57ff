using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>A typed price. Its lines share it by their price under the usual basis; allowances and price-only items are part of it. Overhead and contingency are readouts.</summary>
public sealed class FixedBasis : Basis
{
    /// <inheritdoc/>
    public override PriceBasis Kind => PriceBasis.Fixed;

    /// <inheritdoc/>
    public override string Words(PricingTerms terms) => "a fixed price";

    /// <inheritdoc/>
    internal override Built Build(PriceDraft draft, Pool pool)
    {
        var trace = draft.Trace;
        // A price for nothing is no price: there is no work that it would be for.
        Val typed = pool.Lines.Any(n => !draft.Reckoned.Lines[n].IsNothing)
            ? trace.Term(pool.Terms.FixedPrice, "", "fixed price", "fixedPrice")
            : 0m;
        var price = pool.Money(draft, typed, "Fixed price", "fixedPrice");
        var inPool = pool.Lines.ToHashSet();
        var own = draft
            .Priced.SelectMany(p => p.ByLine.Select(l => (p.Kind, l.Line, l.Price)))
            .Where(l => inPool.Contains(l.Line))
            .ToArray();
        var allowed = own.Where(l => l.Kind == OwnPriceKind.Allowance).ToArray();
        var ofLines = allowed.Length == 0 ? price.Value : price - Sum.Of(allowed.Select(a => a.Price));
        var prices = own.Where(l => l.Kind != OwnPriceKind.Allowance).ToDictionary(l => l.Line, l => l.Price);
        var (by, _) = pool.Weights(draft);
        var weights = pool
            .Lines.Select(
                (n, i) => (n, Weight: prices.TryGetValue(n, out var sold) ? sold : Sum.Of(by[i].Select(c => c.Of)))
            )
            .Where(l => draft.Reckoned.Lines[l.n].Sold)
            .ToArray();
        var shares = Shares.Of(
            ofLines,
            [.. weights.Select(w => w.Weight)],
            (trace.On ? pool.Section?.Name + " " : "") + "price of the lines as usual",
            draft.Places,
            trace
        );
        var portions = TaxShares.Own(
            draft,
            PortionKind.Fixed,
            pool.Section?.Id,
            weights.SelectMany((w, i) => TaxShares.OfLine(draft, w.n, shares[i]).Select(t => (w.n, t.Tax, t.Amount)))
        );
        if (weights.Length == 0 && ofLines.V != 0)
            portions = [new(PortionKind.Fixed, pool.Section?.Id, draft.Categories.Of(TaxOn.Labour), ofLines)];
        return Left(draft, pool, Classes(draft, pool), ofLines, portions, "what the fixed price leaves");
    }
}
