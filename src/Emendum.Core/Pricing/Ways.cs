using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>What one way of pricing the job would bring.</summary>
/// <param name="Basis">The way.</param>
/// <param name="Estimate">The job priced so; null where it cannot be.</param>
/// <param name="Refused">Why not, or empty.</param>
public sealed record Way(PriceBasis Basis, Estimate? Estimate, string Refused)
{
    /// <summary>All ways side by side. The fixed price is the one that is typed; where none is, what the job comes to.</summary>
    public static ImmutableArray<Way> Of(Estimate estimate) =>
        [.. Enum.GetValues<PriceBasis>().Select(basis => Of(estimate, basis))];

    private static Way Of(Estimate estimate, PriceBasis basis)
    {
        if (estimate.Job.Pricing.Basis == basis)
            return new(basis, estimate, "");
        try
        {
            return new(basis, estimate.If(By(estimate, basis)), "");
        }
        catch (RefusedException refused)
        {
            return new(basis, null, refused.Refusal.Message);
        }
    }

    /// <summary>What a fixed price begins with: the job's, or in a round that of its first visit.</summary>
    public static decimal PriceToFix(Estimate estimate) =>
        decimal.Max(0, estimate.Price.Occurrences is [var first, ..] ? first.Price.V : estimate.Price.BeforeTax.V);

    private static Job By(Estimate estimate, PriceBasis basis) =>
        Commands
            .Apply(estimate.Job, new ChooseBasis(estimate.Job.Pricing.Basis, basis, PriceToFix(estimate)), _ => null)
            .Job;

    /// <summary>What the paths of a way begin with where its figures are recorded.</summary>
    public static string Within(PriceBasis basis) => $"ways/{basis}/";

    /// <summary>The job priced in one way, recorded.</summary>
    /// <exception cref="RefusedException">The job cannot be priced so.</exception>
    public static Estimate Recorded(Estimate estimate, PriceBasis basis, Trace trace) =>
        Estimate.Of(estimate.Job.Pricing.Basis == basis ? estimate.Job : By(estimate, basis), trace);
}
