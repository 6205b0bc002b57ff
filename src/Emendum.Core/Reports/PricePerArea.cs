using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Reports;

/// <summary>What the job's price before tax is for each unit of an area that it has: of walls, of glass, of a lot; or for each thing that is counted.</summary>
/// <param name="Measure">The area or count.</param>
/// <param name="Per">Money per its unit.</param>
/// <param name="Unit">That unit; empty for a count.</param>
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
    public static IReadOnlyList<PricePerArea> Of(Estimate estimate, Trace trace) =>
        [.. Said.Select(measure => Of(estimate, measure, trace)).OfType<PricePerArea>()];

    /// <summary>The price for each unit of an area, or for each of what is counted; null for another measure, and where there is nothing of it.</summary>
    public static PricePerArea? Of(Estimate estimate, Measure measure, Trace trace)
    {
        if (
            measure.Kind() is not (Kind.Area or Kind.Count)
            || MeasureTotals.Of(estimate.Reckoned, [measure], trace) is not [var (_, total)]
            || total.V == 0
        )
            return null;
        var (unit, label) = (Line.SymbolOf(measure, estimate.Job.Units), measure.Label(estimate.Job.Units));
        return new(
            measure,
            trace.Total(
                estimate.Price.BeforeTax / total,
                unit.Length > 0 ? "per " + unit : "each",
                !trace.On ? ""
                    : unit.Length > 0 ? $"Price per {unit} of {label.ToLowerInvariant()}"
                    : "Price for each: " + label,
                new("perArea", measure.Name())
            ),
            unit
        );
    }
}
