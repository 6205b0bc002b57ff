using Emendum.Core.Pricing;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>What was agreed in money, for the firm alone: beside the work order and never in it.</summary>
/// <param name="Price">Before tax.</param>
/// <param name="Cost">All that it was to cost: labour, goods, machines, other firms, fees.</param>
/// <param name="Labour">Of it, labour at loaded cost.</param>
/// <param name="Hours">Labour hours.</param>
/// <param name="Contract">What was agreed by tax category, with the payment plan.</param>
public sealed record AgreedMoney(decimal Price, decimal Cost, decimal Labour, decimal Hours, AgreedContract Contract)
{
    /// <summary>That of an estimate that was agreed.</summary>
    public static AgreedMoney Of(Estimate agreed) =>
        new(
            agreed.Price.BeforeTax.V,
            Rounding.Kept(agreed.Price.Readouts.Cost.V),
            Rounding.Kept(agreed.Reckoned.Costs.Roles.Sum(r => r.Cost.V)),
            Rounding.Kept(agreed.Reckoned.Costs.Hours.V),
            AgreedContract.Of(agreed)
        );

    /// <summary>Margin in percent as it was agreed; null without a price.</summary>
    public decimal? Margin => MarginAt(Hours);

    /// <summary>Margin in percent if the labour comes to so many hours and all else to what was estimated: hours that differ cost what an hour of this job costs on average; null without a price, or without hours.</summary>
    public decimal? MarginAt(decimal hours) =>
        Price <= 0 ? null
        : hours == Hours ? (Price - Cost) / Price * 100m
        : Hours == 0 ? null
        : (Price - Cost - Labour * (hours - Hours) / Hours) / Price * 100m;
}
