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
        var terms = estimate.Job.Pricing;
        if (terms.Basis == basis)
            return new(basis, estimate, "");
        try
        {
            return new(basis, estimate.If(estimate.Job with { Pricing = Changed(estimate, basis) }), "");
        }
        catch (RefusedException refused)
        {
            return new(basis, null, refused.Refusal.Message);
        }
    }

    /// <summary>The job's terms by another basis. What was typed for the old one does not stand for the new.</summary>
    public static PricingTerms Changed(Estimate estimate, PriceBasis basis)
    {
        var terms = estimate.Job.Pricing;
        return terms with
        {
            Basis = basis,
            Typed = null,
            FixedPrice =
                basis == PriceBasis.Fixed && terms.FixedPrice == 0
                    ? decimal.Max(
                        0,
                        estimate.Price.Draft.Pools[0].Terms.Basis == PriceBasis.Fixed
                            ? terms.FixedPrice
                            : estimate.Price.BeforeTax.V
                    )
                    : terms.FixedPrice,
            UsualBasis = basis == PriceBasis.Fixed && terms.Basis != PriceBasis.Fixed ? terms.Basis : terms.UsualBasis,
        };
    }
}
