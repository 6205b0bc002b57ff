using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;

namespace Emendum.Core.Checks;

/// <summary>A figure was typed, and is far from what the sizes give.</summary>
internal static class TypedFarFromReckoned
{
    /// <summary>A typed figure is far from the reckoned one when they differ by more than this part of the reckoned one.</summary>
    private const decimal FarTyped = 0.25m;

    public static IEnumerable<Finding> InPlaces(CheckedJob job)
    {
        foreach (var place in job.Job.Places)
        foreach (var typed in place.Typed)
            if (
                Measures.Find(typed.Name) is { } measure
                && Derived(job.Job, place, measure) is { } derived
                && job.Reckoned.Measures[place.Id][measure] is var stands
                && Far(stands.V, derived)
            )
                yield return job.Found(
                    $"typed/{place.Id}/{typed.Name}",
                    "Typed far from reckoned",
                    $"{measure.Label(job.Job.Units)} of {place.Name} is typed as {job.Shown(stands, measure)}; its sizes give {job.Shown(derived, measure)}.",
                    "A typed figure stands in place of the reckoned one, and stays when the sizes change.",
                    place.Id
                );
    }

    public static IEnumerable<Finding> InCells(CheckedJob job)
    {
        foreach (var line in job.Reckoned.Lines.Where(l => l.Cell.Quantity is not null))
        {
            var (place, measure) = (line.Measures.Place, line.OfItem.LedAt(line.Measures));
            var (common, counted) = (measure.UnitIn(job.Job.Units), line.Item.UnitIn(job.Job.Units));
            var typed = Trace.Silent.Convert(line.Quantity, counted, common);
            var reckoned = line.Measures[measure] * place.Count;
            if (line.Measures.Has(measure) && reckoned.V != 0 && Far(typed.V, reckoned.V))
                yield return job.Found(
                    $"typedHere/{line.OfItem.Item.Id}/{place.Id}",
                    "Typed far from reckoned",
                    $"{job.Named(line.OfItem)} in {place.Name} is typed as {job.Shown(typed, measure)}; {measure.Label(job.Job.Units).ToLowerInvariant()} there is {job.Shown(reckoned, measure)}.",
                    "A typed quantity stands in place of the measure, and stays when the place is measured anew.",
                    place.Id,
                    line.OfItem.Item.Id
                );
        }
    }

    private static decimal? Derived(Job job, Place place, Measure measure)
    {
        var measures = job.Measured(place with { Typed = [] }, Trace.Silent);
        return measures.Has(measure) ? measures[measure].V : null;
    }

    private static bool Far(decimal typed, decimal derived) =>
        decimal.Abs(typed - derived) > FarTyped * decimal.Abs(derived);
}
