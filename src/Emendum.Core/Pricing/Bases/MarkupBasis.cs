using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Pricing;

/// <summary>S = Σ class · (1 + its markup); overhead = o·S; contingency = c·(S + overhead); profit = p·(S + overhead + contingency).</summary>
public sealed class MarkupBasis : Basis
{
    /// <inheritdoc/>
    public override PriceBasis Kind => PriceBasis.Markup;

    /// <inheritdoc/>
    public override string Words(PricingTerms terms) => "by markup";

    /// <inheritdoc/>
    protected override Val OnClass(CostClass of, PricingTerms terms, Trace trace) => terms.MarkupOn(of, trace);

    /// <inheritdoc/>
    internal override Val Weight(Val cost, CostClass of, PricingTerms terms, Trace trace) =>
        terms.Markup(of) == 0 ? cost : cost * (100m + terms.MarkupOn(of, trace)) / 100m;

    /// <inheritdoc/>
    protected override PriceDraft Steps(PriceDraft draft)
    {
        var terms = draft.Terms;
        foreach (var (of, price) in draft.Classes.Where(c => IsShown(c.Of) && terms.Markup(c.Class) != 0))
            draft = draft.OnCosts(
                of.Name() + "Markup",
                "Markup on " + of.Label().ToLowerInvariant(),
                PriceDraft.Percent(terms.Markup(of)),
                StepKind.Added,
                price.Markup
            );
        var marked = draft.Money(Sum.Of(draft.Classes.Select(c => c.Of.Marked.Value)), "Cost with markups", "marked");
        draft = Overheads(draft, marked, "cost with markups", out var overhead, out var contingency);
        var upTo = marked + overhead + contingency;
        var profit = draft.Money(
            upTo * draft.Trace.Term(terms.Profit, "%", "profit", "profit") / 100m,
            "Profit",
            "profit"
        );
        var note = PriceDraft.Percent(terms.Profit) + " on all above";
        return draft.OnCosts("profit", "Profit", note, StepKind.Profit, profit) with { OfCosts = upTo + profit };
    }
}
