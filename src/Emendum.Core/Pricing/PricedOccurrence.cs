using Emendum.Core.Figures;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>Work of one rhythm with its price: all steps run once for it, and the year only multiplies (estimating model §7, Rhythm of work).</summary>
/// <param name="Occurrence">What it takes and costs.</param>
/// <param name="Estimate">It, priced: one visit, one event, or what is done once.</param>
/// <param name="InYear">Its price before tax as often as the first year has it.</param>
public sealed record PricedOccurrence(Occurrence Occurrence, Estimate Estimate, Total InYear)
{
    /// <summary>Price before tax of one.</summary>
    public Total Price => Estimate.Price.BeforeTax;

    /// <summary>What one costs, with allowances and fees.</summary>
    public Total Cost => Estimate.Price.Readouts.Cost;
}
