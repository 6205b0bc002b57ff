using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Reports;

/// <summary>The places of a job as a table; <see cref="PlaceTable"/> reads it back.</summary>
public static class PlaceList
{
    /// <summary>Headings and rows of the places, each with its own measures (of one, before ×n).</summary>
    public static (IReadOnlyList<string> Columns, IReadOnlyList<IReadOnlyList<PlaceTable.Cell>> Rows) Of(
        Reckoned reckoned
    )
    {
        var (job, system) = (reckoned.Job, reckoned.Job.Units);
        var shown = Measures.All.Where(m => job.Places.Any(p => reckoned.Measures[p.Id].Has(m))).ToList();
        string[] columns =
        [
            "Heading",
            "Name",
            "Kind",
            "Equal places",
            "Tape line",
            "Finish",
            "Notes",
            "Typed measures",
            .. shown.Select(m => m.Kind() == Kind.Count ? m.Label(system) : $"{m.Label(system)}, {m.UnitIn(system)}"),
        ];
        var rows = job
            .Places.Select(place =>
            {
                var measures = reckoned.Measures[place.Id];
                return (IReadOnlyList<PlaceTable.Cell>)
                    [
                        PlaceTable.Cell.Of(place.Group),
                        PlaceTable.Cell.Of(place.Name),
                        PlaceTable.Cell.Of(place.Shape.Kind),
                        PlaceTable.Cell.Of(place.Count),
                        PlaceTable.Cell.Of(PlaceLine.Print(place, null, id => job.Place(id)?.Name)),
                        PlaceTable.Cell.Of(place.Finish),
                        PlaceTable.Cell.Of(place.Notes),
                        PlaceTable.Cell.Of(PlaceTable.WriteTyped(place.Typed)),
                        .. shown.Select(m =>
                            measures.Has(m) ? PlaceTable.Cell.Of(measures[m].V) : PlaceTable.Cell.Of("")
                        ),
                    ];
            })
            .ToList();
        return (columns, rows);
    }
}
