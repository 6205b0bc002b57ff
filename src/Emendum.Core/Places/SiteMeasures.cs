using Emendum.Core.Figures;

namespace Emendum.Core.Places;

/// <summary>Measures a site area (estimating model §2).</summary>
internal static class SiteMeasures
{
    /// <summary>Makes its measures.</summary>
    public static void Of(Measuring tape, Site site)
    {
        Val area;
        Val? around = null;
        if (site.Outline is { } outline)
        {
            var edge = OutlineMeasures.Of(tape, outline);
            (area, around) = (edge.Area, edge.Around);
            foreach (var island in site.Islands)
            {
                var own = OutlineMeasures.Of(tape, island.Outline);
                var n = tape.Typed(island.Count, "islands");
                if (tape.Rule.TakesIsland(tape.SquareMetres(own.Area)))
                    area -= n * own.Area;
                around += n * own.Around;
            }
        }
        else
        {
            area = tape.Area(site.Area!);
            if (site.Around is { } typed)
                around = tape.Read(typed, "length around");
        }
        tape.Make(Measure.Area, area);
        if (around is { } length)
            tape.Make(Measure.Perimeter, length);
        if (site.Depth is { } depth)
            tape.Make(Measure.Volume, area * tape.Read(depth, "depth"));
    }
}
