using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>One class of direct cost: its cost, the markup on it, and both together.</summary>
public sealed record ClassPrice(CostClass Class, Total Cost, Total Markup, Total Marked);

/// <summary>
/// From cost to what the customer pays (estimating model §7). Money is rounded to the cent where an amount is made that stands in the build-up, so
/// that what is shown adds up (docs/decisions/001-cents.md). Amounts carry no currency: a job has one.
/// </summary>
/// <param name="Steps">The build-up, in order.</param>
/// <param name="Classes">Labour, materials, equipment, subcontracts, fixed charges.</param>
/// <param name="Direct">Σ class costs.</param>
/// <param name="Taxable">What the tax falls on.</param>
/// <param name="Readouts">Profit, margin and the like.</param>
public sealed record Price(
    ImmutableArray<PriceStep> Steps,
    ByClass<ClassPrice> Classes,
    Total Direct,
    Total Taxable,
    Readouts Readouts
)
{
    /// <summary>The step of that name, or null.</summary>
    public PriceStep? Step(string key) => Steps.FirstOrDefault(s => s.Key == key);

    private readonly PriceStep beforeTax = Steps.First(s => s.Key == BeforeTaxPass.Key);

    /// <summary>Price before tax.</summary>
    public Total BeforeTax => beforeTax.Amount;

    /// <summary>What the costs come to with everything on them: the price before tax less price-only items.</summary>
    public Val OfCosts => beforeTax.Of(PriceBody.Costs);

    /// <summary>Price-only items and allowances, at their own prices.</summary>
    public Val PriceOnly => beforeTax.Of(PriceBody.Priced);

    /// <summary>Tax.</summary>
    public Total Tax => Step(TaxPass.Key)!.Amount;

    /// <summary>What the customer pays.</summary>
    public Total Total => Steps[^1].Amount;

    /// <summary>Prices a job.</summary>
    public static Price Of(PricingTerms terms, Costs costs, ImmutableArray<OwnPrice> priced, Trace trace)
    {
        var draft = Basis.Of(terms.Basis).Begin(terms, costs, priced, trace);
        foreach (var pass in Passes.InOrder)
            draft = pass(draft);
        var beforeTax = draft.Steps.First(s => s.Key == BeforeTaxPass.Key).Amount;
        return new(draft.Steps, draft.Classes, draft.Direct, draft.Taxable!, Readouts.Of(draft, beforeTax));
    }
}
