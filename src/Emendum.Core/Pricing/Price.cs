using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>One class of direct cost: its cost, the markup on it, and both together.</summary>
public sealed record ClassPrice(CostClass Class, Total Cost, Total Markup, Total Marked);

/// <summary>
/// From cost to what the customer pays (estimating model §7). Money is rounded to the places of its currency where an amount is made that stands in the build-up, so
/// that what is shown adds up (docs/decisions/001-cents.md). Amounts carry no currency: a job has one.
/// </summary>
/// <param name="Draft">How it was made, to its end.</param>
/// <param name="Readouts">Profit, margin and the like.</param>
public sealed record Price(PriceDraft Draft, Readouts Readouts)
{
    /// <summary>The build-up, in order.</summary>
    public ImmutableArray<PriceStep> Steps => Draft.Steps;

    /// <summary>Labour, materials, equipment, subcontracts, fixed charges, of the whole job.</summary>
    public ByClass<ClassPrice> Classes => Draft.Classes;

    /// <summary>Σ class costs.</summary>
    public Total Direct => Draft.Direct;

    /// <summary>Each occurrence of a round with its price; empty where all work is done once. Then the steps are those of the first year.</summary>
    public ImmutableArray<PricedOccurrence> Occurrences => Draft.Occurrences;

    /// <summary>The price before tax by what it is made of and by tax category.</summary>
    public ImmutableArray<Portion> Portions => Draft.Portions;

    /// <summary>Each tax that is charged.</summary>
    public ImmutableArray<TaxAmount> Taxes => Draft.Taxes;

    /// <summary>The step of that name, or null.</summary>
    public PriceStep? Step(string key) => Steps.FirstOrDefault(s => s.Key == key);

    /// <summary>Price before tax.</summary>
    public Total BeforeTax { get; } = Draft.Steps.First(s => s.Key == BeforeTaxPass.Key).Amount;

    /// <summary>What the costs came to under their bases, before the steps that follow.</summary>
    public Val OfCosts => Draft.OfCosts;

    /// <summary>Price-only items and allowances, at their own prices.</summary>
    public Val PriceOnly => Draft.OfPriced;

    /// <summary>All tax.</summary>
    public decimal Tax => Taxes.Sum(t => t.Amount.V);

    /// <summary>What the customer pays.</summary>
    public Total Total => Steps[^1].Amount;

    /// <summary>Prices a job.</summary>
    /// <exception cref="RefusedException">It cannot be priced as its terms say.</exception>
    public static Price Of(Reckoned reckoned, ImmutableArray<OwnPrice> priced, Trace trace)
    {
        var draft = new PriceDraft(reckoned, priced, trace);
        foreach (var pass in reckoned.Occurrences.IsEmpty ? Passes.InOrder : Passes.OfYear)
            draft = pass(draft);
        return new(draft, Readouts.Of(draft));
    }
}
