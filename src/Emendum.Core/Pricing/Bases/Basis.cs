using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>A way of making a price from costs (estimating model §7). Each stands in a file of its own.</summary>
public abstract class Basis
{
    /// <summary>All of them, in the order of <see cref="PriceBasis"/>.</summary>
    private static readonly ImmutableArray<Basis> All = [new MarkupBasis(), new TargetMarginBasis()];

    /// <summary>The way of that name.</summary>
    public static Basis Of(PriceBasis kind) => All[(int)kind];

    /// <summary>Which.</summary>
    public abstract PriceBasis Kind { get; }

    /// <summary>How the price is made, in words.</summary>
    public abstract string Words(PricingTerms terms);

    /// <summary>Percent on the cost of a class before anything falls on the whole.</summary>
    protected virtual Val OnClass(CostClass of, PricingTerms terms, Trace trace) => 0m;

    /// <summary>What a cost of a class counts for when the price is shared to lines.</summary>
    internal virtual Val Weight(Val cost, CostClass of, PricingTerms terms, Trace trace) => cost;

    /// <summary>The steps from the classes of cost to what the costs come to.</summary>
    protected abstract PriceDraft Steps(PriceDraft draft);

    /// <summary>Begins a price.</summary>
    internal PriceDraft Begin(PricingTerms terms, Costs costs, ImmutableArray<OwnPrice> priced, Trace trace)
    {
        Total Money(Val value, string label, string leaf) => trace.Total(value.Money(), "", label, new("price", leaf));
        var byClass = costs.ByClass(terms.MaterialCost);
        var classes = new ByClass<ClassPrice>(of =>
        {
            var name = of.Name();
            var cost = Money(byClass[of], of.Label(), name);
            var added = Money(cost * OnClass(of, terms, trace) / 100m, $"Markup on {name}", name + "Markup");
            return new(of, cost, added, Money(cost + added, $"{of.Label()} with markup", name + "Marked"));
        });
        var draft = new PriceDraft(terms, costs, priced, trace)
        {
            Classes = classes,
            Direct = Money(Sum.Of(classes.Select(c => c.Of.Cost.Value)), "Direct cost", "direct"),
        };
        foreach (var (of, price) in classes.Where(c => IsShown(c.Of)))
            draft = draft.OnCosts(of.Name(), of.Label(), Note(of, terms, costs), StepKind.Cost, price.Cost);
        return Steps(draft);
    }

    /// <summary>Subcontracts and fixed charges are shown only where there are any.</summary>
    protected static bool IsShown(ClassPrice price) =>
        price.Class is not (CostClass.Subcontract or CostClass.Fixed) || price.Cost.V != 0;

    private static string Note(CostClass of, PricingTerms terms, Costs costs) =>
        of switch
        {
            CostClass.Labour =>
                $"{costs.Hours.V.ToString("#,0.0", CultureInfo.InvariantCulture)} h, {Counted.Of(costs.Roles.Length, "role")}, loaded",
            CostClass.Material =>
                $"{(terms.MaterialCost == MaterialCost.Purchase ? "as bought" : "by need")}, {Counted.Of(costs.Buying.Length, "item")}",
            CostClass.Equipment => "while the crew works, by the day and visit",
            CostClass.Subcontract => "from other firms",
            _ => "charges and the way to the site",
        };

    /// <summary>Overhead on an amount, and contingency on both.</summary>
    protected static PriceDraft Overheads(
        PriceDraft draft,
        Total basis,
        string of,
        out Total overhead,
        out Total contingency
    )
    {
        var (terms, trace) = (draft.Terms, draft.Trace);
        overhead = draft.Money(
            basis * trace.Term(terms.Overhead, "%", "overhead", "overhead") / 100m,
            "Overhead",
            "overhead"
        );
        contingency = draft.Money(
            (basis + overhead) * trace.Term(terms.Contingency, "%", "contingency", "contingency") / 100m,
            "Contingency",
            "contingency"
        );
        return draft
            .OnCosts("overhead", "Overhead", $"{PriceDraft.Percent(terms.Overhead)} of {of}", StepKind.Added, overhead)
            .OnCosts(
                "contingency",
                "Contingency",
                PriceDraft.Percent(terms.Contingency) + ", after overhead",
                StepKind.Added,
                contingency
            );
    }
}
