using System.Collections.Immutable;
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
        var was = estimate.Job.Pricing.Basis;
        if (was == basis)
            return new(basis, estimate, "");
        try
        {
            var chosen = new ChooseBasis(was, basis, decimal.Max(0, estimate.Price.BeforeTax.V));
            return new(basis, estimate.If(Commands.Apply(estimate.Job, chosen, _ => null).Job), "");
        }
        catch (RefusedException refused)
        {
            return new(basis, null, refused.Refusal.Message);
        }
    }
}
