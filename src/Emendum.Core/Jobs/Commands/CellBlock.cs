using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>A block of cells as a command names it: works across, places down. One command is one undo, however many cells it touches.</summary>
internal static class CellBlock
{
    /// <summary>The cells of a block with their place in it, row by row, when they are still as they were seen.</summary>
    public static IEnumerable<(CellKey Key, Cell? Cell, int At)> Seen(
        Job job,
        ImmutableArray<Guid> works,
        ImmutableArray<Guid> places,
        string was
    )
    {
        CheckBlock(job, works, places);
        if (was.Length != works.Length * places.Length)
            throw RefusedException.Of("was", "There must be one letter for each cell.");
        for (var at = 0; at < was.Length; at++)
        {
            var key = new CellKey(works[at % works.Length], places[at / works.Length]);
            var cell = job.Cells.GetValueOrDefault(key);
            if (FillCells.Letter(cell?.State) != was[at])
                throw new ConflictException("cells", Commands.Node(cell?.State));
            yield return (key, cell, at);
        }
    }

    public static void CheckBlock(Job job, ImmutableArray<Guid> works, ImmutableArray<Guid> places)
    {
        if ((long)works.Length * places.Length > Commands.MostCells)
            throw RefusedException.Of("cells", $"At most {Commands.MostCells} cells at a time.");
        var (knownPlaces, knownWork) = (
            job.Places.Select(p => p.Id).ToHashSet(),
            job.Work.Select(w => w.Id).ToHashSet()
        );
        if (works.Any(w => !knownWork.Contains(w)))
            throw RefusedException.Of("work", "That work is not in this job any more.");
        if (places.Any(p => !knownPlaces.Contains(p)))
            throw RefusedException.Of("places", "That place is not in this job any more.");
        if (works.Distinct().Count() != works.Length || places.Distinct().Count() != places.Length)
            throw RefusedException.Of("cells", "A cell stands twice in one command.");
    }

    public static Change Set(CellKey key, Cell? was, JsonNode? now) =>
        new($"cells/{key.Work}/{key.Place}", Commands.Node(was), now?.DeepClone());

    /// <summary>The measures of places as they are asked for, each measured once.</summary>
    public static Func<Guid, PlaceMeasures> Measures(Job job)
    {
        var known = new Dictionary<Guid, PlaceMeasures>();
        return place =>
            known.TryGetValue(place, out var of) ? of : known[place] = job.Measured(job.Place(place)!, Trace.Silent);
    }
}
