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
    public static IReadOnlyList<(Measure Measure, Val Total)> Of(Reckoned reckoned, Trace trace)
    {
        var totals = new List<(Measure, Val)>();
        foreach (var measure in Measures.All)
        {
            if (!reckoned.Job.Places.Any(p => reckoned.Measures[p.Id].Has(measure)))
                continue;
            totals.Add(
                (
                    measure,
                    trace.Make(
                        Sum(reckoned, measure, null, trace),
                        Line.SymbolOf(measure, reckoned.Job.Units),
                        trace.On ? $"{measure.Label(reckoned.Job.Units)}, all places" : "",
                        new("measured", measure.Name())
                    )
                )
            );
        }
        return totals;
    }

    /// <summary>The same under each heading, those nested in it included; headings in the order of their first place. None where no place stands under one.</summary>
    public static IReadOnlyList<(string Heading, Measure Measure, Total Total)> ByHeading(
        Reckoned reckoned,
        Trace trace
    )
    {
        var units = reckoned.Job.Units;
        return
        [
            .. from heading in Headings(reckoned.Job)
            let places = Under(reckoned.Job, heading)
            from measure in Measures.All
            where places.Any(p => reckoned.Measures[p.Id].Has(measure))
            select (
                heading,
                measure,
                trace.Total(
                    Sum(reckoned, measure, places, trace),
                    Line.SymbolOf(measure, units),
                    trace.On ? $"{measure.Label(units)}, {heading}" : "",
                    new("headings", DerivedId.Of("heading " + heading), measure.Name())
                )
            ),
        ];
    }

    private static IEnumerable<string> Headings(Job job) =>
        job
            .Places.Where(p => p.Group.Length > 0)
            .SelectMany(p =>
            {
                var parts = p.Group.Split(Jobs.Groups.Separator);
                return parts.Select((_, i) => string.Join(Jobs.Groups.Separator, parts.Take(i + 1)));
            })
            .Distinct();

    private static ImmutableArray<Place> Under(Job job, string heading) =>
        [
            .. job.Places.Where(p =>
                p.Group == heading || p.Group.StartsWith(heading + Jobs.Groups.Separator, StringComparison.Ordinal)
            ),
        ];

    /// <summary>One measure over the places under a heading and those nested in it; null is the whole job.</summary>
    public static Val Sum(Reckoned reckoned, Measure measure, string? group, Trace trace) =>
        Sum(reckoned, measure, group is null ? reckoned.Job.Places : Under(reckoned.Job, group), trace);

    private static Val Sum(Reckoned reckoned, Measure measure, ImmutableArray<Place> places, Trace trace)
    {
        var sum = new Sum();
        foreach (var place in places)
        {
            var measures = reckoned.Measures[place.Id];
            if (!measures.Has(measure))
                continue;
            sum.Add(
                place.Count == 1
                    ? measures[measure]
                    : measures[measure] * trace.Typed(place.Count, "", "equal places", null, "places", place.Id)
            );
        }
        return sum.Total;
    }
}
