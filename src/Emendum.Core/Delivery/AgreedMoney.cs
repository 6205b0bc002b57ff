using System.Collections.Immutable;
using Emendum.Core.Jobs;
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
    /// <summary>Goods that it takes, as they were to be bought; default in what was kept before there was buying.</summary>
    public ImmutableArray<AgreedGoods> Goods { get; init; }

    /// <summary>That of an estimate that was agreed.</summary>
    public static AgreedMoney Of(Estimate agreed) =>
        new(
            agreed.Price.BeforeTax.V,
            Rounding.Kept(agreed.Price.Readouts.Cost.V),
            Rounding.Kept(agreed.Reckoned.Costs.Roles.Sum(r => r.Cost.V)),
            Rounding.Kept(agreed.Reckoned.Costs.Hours.V),
            AgreedContract.Of(agreed)
        )
        {
            Goods = AgreedGoods.Of(agreed),
            NeedCounts = agreed.Job.Pricing.MaterialCost == MaterialCost.Need,
        };

    /// <summary>Whether goods counted by need in the job's cost; otherwise as they were bought.</summary>
    public bool NeedCounts { get; init; }

    /// <summary>Margin in percent as it was agreed; null without a price.</summary>
    public decimal? Margin => MarginAt(Hours);

    /// <summary>Profit if the labour comes to so many hours, goods to so much more than was estimated, and all else to what was estimated; null where there are hours and none were estimated.</summary>
    /// <param name="hours">Labour hours.</param>
    /// <param name="more">What goods cost beyond what counted for them.</param>
    public decimal? ProfitAt(decimal hours, decimal more) =>
        hours == Hours ? Price - Cost - more
        : Hours == 0 ? null
        : Price - Cost - more - Labour * (hours - Hours) / Hours;

    /// <summary>Margin in percent if the labour comes to so many hours and all else to what was estimated: hours that differ cost what an hour of this job costs on average; null without a price, or without hours.</summary>
    public decimal? MarginAt(decimal hours) => MarginOf(ProfitAt(hours, 0));

    /// <summary>A profit in percent of the price; null without a price.</summary>
    public decimal? MarginOf(decimal? profit) => Price <= 0 ? null : profit / Price * 100m;
}
