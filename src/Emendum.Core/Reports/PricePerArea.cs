using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Reports;

/// <summary>What the job's price before tax is for each unit of an area that it has: of walls, of glass, of a lot.</summary>
/// <param name="Measure">The area.</param>
/// <param name="Per">Money per its unit.</param>
/// <param name="Unit">That unit.</param>
public sealed record PricePerArea(Measure Measure, Total Per, string Unit)
{
    /// <summary>The areas a price is said for, the one that is asked for first first.</summary>
    private static readonly ImmutableArray<Measure> Said =
    [
        Measure.FloorArea,
        Measure.NetWallArea,
        Measure.CeilingArea,
        Measure.NetFaceArea,
        Measure.Area,
        Measure.DevelopedArea,
        Measure.GlassArea,
        Measure.GrossWallArea,
        Measure.GrossFaceArea,
    ];

    /// <summary>One for each area that is not nothing.</summary>
    public static IReadOnlyList<PricePerArea> Of(Estimate estimate, Trace trace)
    {
        var totals = MeasureTotals.Of(estimate.Reckoned, Said, trace).ToDictionary(t => t.Measure, t => t.Total);
        var units = estimate.Job.Units;
        return
        [
            .. from measure in Said
            where totals.TryGetValue(measure, out var total) && total.V != 0
            let unit = Line.SymbolOf(measure, units)
            select new PricePerArea(
                measure,
                trace.Total(
                    estimate.Price.BeforeTax / totals[measure],
                    "per " + unit,
                    trace.On ? $"Price per {unit} of {measure.Label(units).ToLowerInvariant()}" : "",
                    new("perArea", measure.Name())
                ),
                unit
            ),
        ];
    }
}
