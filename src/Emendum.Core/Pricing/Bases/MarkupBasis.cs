using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

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
        Marked(cost, of, terms, trace);

    /// <inheritdoc/>
    internal override Built Build(PriceDraft draft, Pool pool)
    {
        var terms = pool.Terms;
        var classes = Classes(draft, pool);
        var marked = pool.Money(draft, Sum.Of(classes.Select(c => c.Of.Marked.Value)), "Cost with markups", "marked");
        var (overhead, contingency, over) = Overheads(draft, pool, marked, "cost with markups");
        var upTo = marked + overhead + contingency;
        var profit = pool.Money(
            draft,
            upTo * draft.Trace.Term(terms.Profit, "%", "profit", "profit") / 100m,
            "Profit",
            "profit"
        );
        var price = upTo + profit;
        var markups = classes
            .Where(c => IsShown(c.Of) && terms.Markup(c.Class) != 0)
            .Select(c =>
                Step(
                    pool,
                    c.Class.Name() + "Markup",
                    "Markup on " + c.Class.Label().ToLowerInvariant(),
                    PriceDraft.Percent(terms.Markup(c.Class)),
                    StepKind.Added,
                    c.Of.Markup
                )
            );
        var last = Step(
            pool,
            "profit",
            profit.V < 0 ? "Loss" : "Profit",
            PriceDraft.Percent(terms.Profit) + " on all above",
            StepKind.Profit,
            profit
        );
        return new(
            price,
            classes,
            [.. CostSteps(draft, pool, classes), .. markups, .. over, last],
            TaxShares.Reckoned(draft, pool, price, new(of => classes[of].Marked)),
            overhead + contingency,
            contingency
        );
    }
}
