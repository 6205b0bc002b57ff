using Emendum.Core.Figures;
using Emendum.Core.Pricing;

namespace Emendum.Core.Reports;

/// <summary>What a list of jobs says of one.</summary>
/// <param name="Places">Places, each as often as it stands for.</param>
/// <param name="Hours">Labour hours.</param>
/// <param name="Price">Price before tax.</param>
/// <param name="Margin">Margin in percent of the price; null where there is no price.</param>
/// <param name="BelowFloor">Whether that is below the floor of the job.</param>
/// <param name="Currency">ISO 4217 code the price is in.</param>
public sealed record JobGlance(
    int Places,
    decimal Hours,
    decimal Price,
    decimal? Margin,
    bool BelowFloor,
    string Currency
)
{
    /// <summary>Of a reckoned job.</summary>
    public static JobGlance Of(Estimate estimate)
    {
        // What stands in a file has at most six decimals.
        static decimal Kept(decimal value) => decimal.Round(value, 6, MidpointRounding.AwayFromZero);
        var margin = estimate.Price.Readouts.Margin?.V;
        return new(
            estimate.Job.Places.Sum(p => p.Count),
            Kept(estimate.Reckoned.Costs.Hours.V),
            Kept(estimate.Price.BeforeTax.V),
            margin is { } m ? Kept(m) : null,
            margin < estimate.Job.Pricing.FloorMargin,
            estimate.Job.Info.Currency
        );
    }
}
