using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Reckoning;
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

    private static Job By(Estimate estimate, PriceBasis basis) =>
        Commands
            .Apply(
                estimate.Job,
                new ChooseBasis(estimate.Job.Pricing.Basis, basis, decimal.Max(0, estimate.Price.BeforeTax.V)),
                _ => null
            )
            .Job;

    /// <summary>What the paths of a way begin with, where its figures were recorded; those of the way that is taken stand as they are.</summary>
    public static string Within(PriceBasis basis) => $"ways/{basis}/";

    /// <summary>Records one way with what each area and count would cost.</summary>
    /// <exception cref="RefusedException">The job cannot be priced so.</exception>
    public static void Recorded(Estimate estimate, PriceBasis basis, Trace trace)
    {
        var job = estimate.Job.Pricing.Basis == basis ? estimate.Job : By(estimate, basis);
        var recorded = trace.Within(Within(basis));
        var so = Estimate.Of(job, recorded);
        foreach (var measure in Measures.All)
            Per(so, measure, recorded);
    }

    /// <summary>The price before tax for each unit of an area or for each counted thing; null where there is none.</summary>
    public static Total? Per(Estimate estimate, Measure measure, Trace trace)
    {
        var (job, kind) = (estimate.Job, measure.Kind());
        if (kind is not (Quantities.Kind.Area or Quantities.Kind.Count))
            return null;
        var size = estimate.Reckoned.Sum(measure, job.Places, trace);
        if (size.V <= 0)
            return null;
        var unit = Line.SymbolOf(measure, job.Units);
        return trace.Total(
            estimate.Price.BeforeTax / size,
            unit.Length > 0 ? "per " + unit : "each",
            trace.On ? "Price for each: " + measure.Label(job.Units) : "",
            new("perMeasure", measure.Name())
        );
    }
}
