using Emendum.Core.Figures;

namespace Emendum.Core.Places;

/// <summary>Measures an outside face: rectangles and gables less openings (estimating model §2).</summary>
internal static class FaceMeasures
{
    /// <summary>Makes all its measures.</summary>
    public static void Of(Measuring tape, Elevation face)
    {
        Sum area = new(),
            wide = new(),
            gables = new();
        foreach (var part in face.Faces)
        {
            var (width, n) = (tape.Read(part.Wide, "width"), tape.Typed(part.Count, "faces"));
            area.Add(Times(width * tape.Read(part.High, "height"), part.Count, n));
            wide.Add(Times(width, part.Count, n));
        }
        foreach (var part in face.Gables)
        {
            var (width, n) = (tape.Read(part.Wide, "gable width"), tape.Typed(part.Count, "gables"));
            area.Add(Times(width * tape.Read(part.High, "gable rise"), part.Count, n) / 2);
            gables.Add(Times(width, part.Count, n));
        }
        var openings = OpeningMeasures.Of(tape, tape.Place.Openings, []);
        var gross = tape.Make(Measure.GrossFaceArea, area.Total);
        openings.MakeAreas(tape);
        var less = tape.Make(Measure.DeductedArea, openings.Deducted);
        tape.Keep(Measure.NetFaceArea, gross - less);
        // A gable has a verge, no eaves: what is under one is left out.
        Val eaves =
            face.Eaves is { } typed ? tape.Read(typed, "eaves")
            : face.Gables.IsEmpty ? wide.Total
            : wide.Total.V > gables.Total.V ? wide.Total - gables.Total
            : 0m;
        tape.Make(Measure.EavesLength, eaves);
        openings.MakeCounts(tape);
    }

    private static Val Times(Val value, int count, Val n) => count == 1 ? value : n * value;
}
