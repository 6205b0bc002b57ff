using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>The reckoning: a pure function of the job with its pinned entries (architecture decision 2). A map over cells, then a fold.</summary>
public static class Reckoner
{
    /// <summary>Reckons <paramref name="job"/>. With an earlier reckoning of a like job, lines whose inputs are the same objects are taken over;
    /// the result is the same either way. Only a silent reckoning takes over. <paramref name="touched"/> are the cells in which the jobs differ, where they differ in nothing else.</summary>
    /// <exception cref="RefusedException">Something in it cannot be reckoned.</exception>
    public static Reckoned Reckon(
        Job job,
        Trace trace,
        Reckoned? earlier = null,
        IReadOnlyCollection<CellKey>? touched = null
    ) =>
        Bounded(() =>
            trace.On ? ReckonAll(job, trace, null)
            : earlier?.Serves(job) == true ? earlier.For(job)
            : earlier is not null && touched is not null ? ReckonCells(job, earlier, touched)
            : ReckonAll(job, trace, earlier)
        );

    /// <summary>Reckons a job whose places have the measures that somebody gave.</summary>
    /// <exception cref="RefusedException">Something in it cannot be reckoned.</exception>
    public static Reckoned Reckon(Job job, Dictionary<Guid, PlaceMeasures> given, Trace trace) =>
        Bounded(() => ReckonAll(job, trace, null, given));

    internal static T Bounded<T>(Func<T> reckon)
    {
        try
        {
            return reckon();
        }
        catch (OverflowException)
        {
            throw RefusedException.Of("", "The numbers are too large to reckon. Check the sizes, rates and prices.");
        }
    }

    private static Reckoned ReckonAll(
        Job job,
        Trace trace,
        Reckoned? earlier,
        Dictionary<Guid, PlaceMeasures>? given = null
    )
    {
        var measures = given ?? MeasureAll(job, trace, earlier);
        var items = CompileAll(job, earlier);
        var grid = new Line?[items.Length * job.Places.Length];
        var lines = new List<Line>(job.Cells.Count);
        var inOrder = new PlaceMeasures[job.Places.Length];
        for (var p = 0; p < inOrder.Length; p++)
            inOrder[p] = measures[job.Places[p].Id];
        // Cells mostly change one at a time: then an earlier line stands at the same position.
        var samePositions = earlier is not null && earlier.Job.Work == job.Work && earlier.Job.Places == job.Places;
        for (var i = 0; i < items.Length; i++)
        {
            for (var p = 0; p < inOrder.Length; p++)
            {
                var key = new CellKey(items[i].Item.Id, inOrder[p].Place.Id);
                if (!job.Cells.TryGetValue(key, out var cell) || cell.State == CellState.Excluded)
                    continue;
                var at = i * inOrder.Length + p;
                var line = samePositions ? earlier!.Grid[at] : earlier?.At(key);
                if (line is null || !line.IsOf(items[i], inOrder[p], cell, job))
                    line = Line.Of(items[i], inOrder[p], cell, job, trace);
                grid[at] = line;
                // An alternate is reckoned where it stands, and no part of what the job needs and costs.
                if (cell.State == CellState.Included)
                    lines.Add(line);
            }
        }
        return RoundFold.Of(job, trace, measures, items, [.. lines], grid);
    }

    private static Reckoned ReckonCells(Job job, Reckoned earlier, IReadOnlyCollection<CellKey> touched)
    {
        var grid = (Line?[])earlier.Grid.Clone();
        foreach (var key in touched)
        {
            if (earlier.Position(key) is not { } at)
                continue;
            var (item, measures) = (earlier.Items[at / job.Places.Length], earlier.Measures[key.Place]);
            grid[at] =
                job.Cells.TryGetValue(key, out var cell) && cell.State != CellState.Excluded
                    ? Line.Of(item, measures, cell, job, Trace.Silent)
                    : null;
        }
        var lines = new List<Line>(earlier.Lines.Length + touched.Count);
        foreach (var line in grid)
            if (line is { Cell.State: CellState.Included })
                lines.Add(line);
        return RoundFold.Of(job, Trace.Silent, earlier.Measures, earlier.Items, [.. lines], grid);
    }

    private static Dictionary<Guid, PlaceMeasures> MeasureAll(Job job, Trace trace, Reckoned? earlier)
    {
        var rule = job.Rule;
        var sameRule = earlier is not null && earlier.Job.Deduct == job.Deduct && earlier.Job.Units == job.Units;
        var measures = new Dictionary<Guid, PlaceMeasures>(job.Places.Length);
        var incoming = job.Incoming();
        foreach (var place in job.Places)
        {
            var from = incoming.GetValueOrDefault(place.Id, []);
            measures.Add(
                place.Id,
                sameRule && earlier!.Measures.TryGetValue(place.Id, out var kept) && kept.IsOf(place, from)
                    ? kept
                    : PlaceMeasures.Of(place, from, job.Units, rule, trace)
            );
        }
        return measures;
    }

    private static CompiledItem[] CompileAll(Job job, Reckoned? earlier)
    {
        var kept =
            earlier is not null && ReferenceEquals(earlier.Job.Book, job.Book)
                ? earlier.Items.ToDictionary(i => i.Item.Id)
                : null;
        return
        [
            .. job.Work.Select(item =>
                kept is not null && kept.TryGetValue(item.Id, out var compiled) && ReferenceEquals(compiled.Item, item)
                    ? compiled
                    : CompiledItem.Of(item, job.Book)
            ),
        ];
    }
}
