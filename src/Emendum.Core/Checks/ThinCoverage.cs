namespace Emendum.Core.Checks;

/// <summary>Goods are said to go further than physics allows.</summary>
internal static class ThinCoverage
{
    public static IEnumerable<Finding> In(CheckedJob job)
    {
        foreach (var buy in job.Reckoned.Costs.Buying.DistinctBy(b => b.Material.Id))
            if (buy.Material.Doubt() is { } doubt)
                yield return job.Found(
                    $"coverage/{buy.Material.Id}",
                    "Coverage above what thickness allows",
                    $"{buy.Material.Name}: {doubt}",
                    "Too little would be bought, or the film comes out thinner than it was sold.",
                    entry: buy.Material.Id
                );
    }
}
