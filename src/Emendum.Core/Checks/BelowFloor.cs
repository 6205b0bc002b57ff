using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Core.Checks;

/// <summary>The margin is below what the firm must earn.</summary>
internal static class BelowFloor
{
    public static IEnumerable<Finding> In(CheckedJob job)
    {
        var floor = job.Job.Pricing.FloorMargin;
        if (job.Estimate.Price.Readouts.Margin is not { } margin || margin.V >= floor)
            yield break;
        var shown = Rounding.Text(decimal.Round(margin.V, 1, MidpointRounding.AwayFromZero));
        yield return job.Found(
            TypePrice.BelowFloor,
            "Below the floor margin",
            $"The margin is {shown} %; your floor is {Rounding.Text(floor)} %.",
            "At this price the job does not carry its share of the firm. Raise it, or say why it goes out so."
        );
    }
}
