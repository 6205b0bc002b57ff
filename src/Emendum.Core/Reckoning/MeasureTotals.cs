using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Reckoning;

/// <summary>Each measure over all places that have it, counting each place as often as it stands for.</summary>
public static class MeasureTotals
{
    /// <summary>Totals in the order of <see cref="Measure"/>; measures that no place has are left out.</summary>
    public static IReadOnlyList<(Measure Measure, Val Total)> Of(Reckoning reckoning, Trace trace)
    {
        var totals = new List<(Measure, Val)>();
        foreach (var measure in Measures.All)
        {
            if (!reckoning.Job.Places.Any(p => reckoning.Measures[p.Id].Has(measure)))
                continue;
            totals.Add(
                (
                    measure,
                    trace.Make(
                        Sum(reckoning, measure, null, trace),
                        Line.SymbolOf(measure, reckoning.Job.Units),
                        trace.On ? $"{measure.Label(reckoning.Job.Units)}, all places" : "",
                        new("measured", measure.Name())
                    )
                )
            );
        }
        return totals;
    }

    /// <summary>One measure over the places under a heading and those nested in it; null is the whole job.</summary>
    public static Val Sum(Reckoning reckoning, Measure measure, string? group, Trace trace)
    {
        var sum = new Sum();
        foreach (var place in reckoning.Job.Places)
        {
            if (
                group is not null
                && place.Group != group
                && !place.Group.StartsWith(group + Jobs.Groups.Separator, StringComparison.Ordinal)
            )
                continue;
            var measures = reckoning.Measures[place.Id];
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
