using Emendum.Core.Figures;

namespace Emendum.Core.Places;

/// <summary>Measures a stair (estimating model §2): r risers, t treads, going, rise, width and landings.</summary>
internal static class StairMeasures
{
    /// <summary>Makes its measures.</summary>
    public static void Of(Measuring tape, Stair stair)
    {
        var (risers, treads) = (tape.Typed(stair.Risers, "risers"), tape.Typed(stair.Treads, "treads"));
        var (rise, going, width) = (
            tape.Read(stair.Rise, "rise"),
            tape.Read(stair.Going, "going"),
            tape.Read(stair.Width, "width")
        );
        var (up, along) = (risers * rise, treads * going);
        Sum area = new(),
            edges = new();
        area.Add((up + along) * width);
        edges.Add(treads * width);
        foreach (var landing in stair.Landings)
        {
            var (edge, n) = (tape.Read(landing.Wide, "landing width"), tape.Typed(landing.Count, "landings"));
            area.Add(n * (edge * tape.Read(landing.High, "landing depth")));
            edges.Add(n * edge);
        }
        tape.Make(Measure.StepCount, risers);
        tape.Make(Measure.DevelopedArea, area.Total);
        tape.Make(Measure.StringerLength, 2 * (along * along + up * up).Sqrt());
        tape.Make(Measure.EdgeLength, edges.Total);
    }
}
