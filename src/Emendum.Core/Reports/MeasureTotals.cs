using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Reports;

/// <summary>Each measure over all places that have it, counting each place as often as it stands for.</summary>
public static class MeasureTotals
{
    /// <summary>Totals in the order of <see cref="Measure"/>; measures that no place has are left out.</summary>
    public static IReadOnlyList<(Measure Measure, Total Total)> Of(Reckoned reckoned, Trace trace) =>
        Of(reckoned, Measures.All, trace);

    /// <summary>Some of them.</summary>
    public static IReadOnlyList<(Measure Measure, Total Total)> Of(
        Reckoned reckoned,
        IEnumerable<Measure> measures,
        Trace trace
    ) => Of(reckoned, measures, reckoned.Job.Places, "all places", name => new("measured", name), trace);

    /// <summary>The same under each heading, those nested in it included; headings in the order of their first place. None where no place stands under one.</summary>
    public static IReadOnlyList<(string Heading, IReadOnlyList<(Measure Measure, Total Total)> Totals)> ByHeading(
        Reckoned reckoned,
        Trace trace
    ) =>
        [
            .. Groups
                .Of(reckoned.Job)
                .Select(heading =>
                    (
                        heading,
                        Of(
                            reckoned,
                            Measures.All,
                            Under(reckoned.Job, heading),
                            heading,
                            name => new("headings", DerivedId.Of("heading " + heading), name),
                            trace
                        )
                    )
                ),
        ];

    private static IReadOnlyList<(Measure Measure, Total Total)> Of(
        Reckoned reckoned,
        IEnumerable<Measure> measures,
        ImmutableArray<Place> places,
        string where,
        Func<string, FigurePath> path,
        Trace trace
    )
    {
        var units = reckoned.Job.Units;
        return
        [
            .. from measure in measures
            where places.Any(p => reckoned.Measures[p.Id].Has(measure))
            select (
                measure,
                trace.Total(
                    reckoned.Sum(measure, places, trace),
                    Line.SymbolOf(measure, units),
                    trace.On ? $"{measure.Label(units)}, {where}" : "",
                    path(measure.Name())
                )
            ),
        ];
    }

    private static ImmutableArray<Place> Under(Job job, string heading) =>
        [.. job.Places.Where(p => Groups.IsUnder(p.Group, heading))];

    /// <summary>One measure over the places under a heading and those nested in it; null is the whole job.</summary>
    public static Val Sum(Reckoned reckoned, Measure measure, string? group, Trace trace) =>
        reckoned.Sum(measure, group is null ? reckoned.Job.Places : Under(reckoned.Job, group), trace);
}
