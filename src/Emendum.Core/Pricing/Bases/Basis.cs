using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>What a basis makes of the costs of one build-up.</summary>
/// <param name="Price">Money.</param>
/// <param name="Classes">Its costs by class, with what the basis puts on each.</param>
/// <param name="Steps">From costs to it.</param>
/// <param name="Portions">The same by tax category.</param>
/// <param name="Overheads">Overhead and contingency that it has to carry.</param>
/// <param name="Contingency">Contingency in it.</param>
internal sealed record Built(
    Val Price,
    ByClass<ClassPrice> Classes,
    ImmutableArray<PriceStep> Steps,
    ImmutableArray<Portion> Portions,
    Val Overheads,
    Val Contingency
);

/// <summary>A way of making a price from costs (estimating model §7). Each stands in a file of its own.</summary>
public abstract class Basis
{
    /// <summary>All of them, in the order of <see cref="PriceBasis"/>.</summary>
    private static readonly ImmutableArray<Basis> All =
    [
        new MarkupBasis(),
        new TargetMarginBasis(),
        new SellRateBasis(),
        new UnitPriceBasis(),
        new FixedBasis(),
    ];

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

    /// <summary>A cost with the markup on its class.</summary>
    private protected static Val Marked(Val cost, CostClass of, PricingTerms terms, Trace trace) =>
        terms.Markup(of) == 0 ? cost : cost * (100m + terms.MarkupOn(of, trace)) / 100m;

    /// <summary>Makes the price of a build-up.</summary>
    internal abstract Built Build(PriceDraft draft, Pool pool);

    /// <summary>Costs of a build-up by class, with what the basis puts on each.</summary>
    private protected ByClass<ClassPrice> Classes(PriceDraft draft, Pool pool) =>
        new(of =>
        {
            var name = of.Name();
            // Beside sections of their own, the job's classes are its own part of what everything costs.
            var leaf = pool.Section is null && draft.Pools.Length > 1 ? "own/" + name : name;
            var cost = pool.Money(draft, pool.Costs[of], of.Label(), leaf);
            var added = pool.Money(
                draft,
                cost * OnClass(of, pool.Terms, draft.Trace) / 100m,
                $"Markup on {name}",
                name + "Markup"
            );
            return new(of, cost, added, pool.Money(draft, cost + added, $"{of.Label()} with markup", name + "Marked"));
        });

    /// <summary>The steps that tell what a build-up costs.</summary>
    private protected static ImmutableArray<PriceStep> CostSteps(
        PriceDraft draft,
        Pool pool,
        ByClass<ClassPrice> classes
    ) =>
        [
            .. classes
                .Where(c => IsShown(c.Of))
                .Select(c =>
                    Step(pool, c.Class.Name(), c.Class.Label(), Note(c.Class, draft), StepKind.Cost, c.Of.Cost)
                ),
        ];

    /// <summary>A step of a build-up.</summary>
    private protected static PriceStep Step(
        Pool pool,
        string key,
        string label,
        string note,
        StepKind kind,
        Total amount
    ) => new(key, label, note, kind, amount, [new(PortionKind.Built, pool.Section?.Id, null, amount)]);

    /// <summary>Subcontracts and fixed charges are shown only where there are any.</summary>
    private protected static bool IsShown(ClassPrice price) =>
        price.Class is not (CostClass.Subcontract or CostClass.Fixed) || price.Cost.V != 0;

    private static string Note(CostClass of, PriceDraft draft)
    {
        var costs = draft.Costs;
        var taxed = draft.Terms.Taxes.Any(t => t.Way == TaxWay.Paid && t.Rate != 0 && t.On.Contains(Tax.Of(of)))
            ? ", with tax paid"
            : "";
        return of switch
            {
                CostClass.Labour =>
                    $"{Quantities.Shown.Tenths(costs.Hours.V)} h, {Quantities.Counted.Of(costs.Roles.Length, "role")}, loaded",
                CostClass.Material =>
                    $"{(draft.Terms.MaterialCost == MaterialCost.Purchase ? "as bought" : "by need")}, {Quantities.Counted.Of(costs.Buying.Length, "item")}",
                CostClass.Equipment => "by the hour, the day and the visit",
                CostClass.Subcontract => "from other firms",
                _ => "charges and the way to the site",
            } + taxed;
    }

    /// <summary>Overhead on an amount, and contingency on both.</summary>
    private protected static (Total Overhead, Total Contingency, ImmutableArray<PriceStep> Steps) Overheads(
        PriceDraft draft,
        Pool pool,
        Val basis,
        string of
    )
    {
        var (terms, trace) = (pool.Terms, draft.Trace);
        var overhead = pool.Money(
            draft,
            basis * trace.Term(terms.Overhead, "%", "overhead", "overhead") / 100m,
            "Overhead",
            "overhead"
        );
        var contingency = pool.Money(
            draft,
            (basis + overhead) * trace.Term(terms.Contingency, "%", "contingency", "contingency") / 100m,
            "Contingency",
            "contingency"
        );
        return (
            overhead,
            contingency,
            [
                Step(
                    pool,
                    "overhead",
                    "Overhead",
                    $"{PriceDraft.Percent(terms.Overhead)} of {of}",
                    StepKind.Added,
                    overhead
                ),
                Step(
                    pool,
                    "contingency",
                    "Contingency",
                    PriceDraft.Percent(terms.Contingency) + ", after overhead",
                    StepKind.Added,
                    contingency
                ),
            ]
        );
    }

    /// <summary>A build-up whose price does not come from overhead, contingency and profit: those are read off it.</summary>
    private protected static Built Left(
        PriceDraft draft,
        Pool pool,
        ByClass<ClassPrice> classes,
        Val price,
        ImmutableArray<Portion> portions,
        string note
    )
    {
        var direct = Sum.Of(classes.Select(c => c.Of.Cost.Value));
        var (overhead, contingency, steps) = Overheads(draft, pool, direct, "cost");
        var left = pool.Money(
            draft,
            price - direct - overhead - contingency,
            "Left after overhead and contingency",
            "profit"
        );
        return new(
            price,
            classes,
            [
                .. CostSteps(draft, pool, classes),
                .. steps,
                Step(pool, "profit", left.V < 0 ? "Loss" : "Left as profit", note, StepKind.Profit, left),
            ],
            portions,
            overhead + contingency,
            0m
        );
    }
}
