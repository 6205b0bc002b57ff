using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Drawings;

/// <summary>An outside face: rectangles along the ground with their gables on them.</summary>
internal static class DrawnFace
{
    private const int MostDrawn = 24;

    public static Drawing Of(Elevation face, ImmutableArray<Opening> openings, UnitSystem system, DeductionRule rule)
    {
        var pencil = new Pencil();
        var bodies = Singles(face.Faces)
            .Select(p => (Wide: (double)p.Wide.Millimetres, High: (double)p.High.Millimetres, Part: p))
            .ToList();
        var gables = Singles(face.Gables).ToList();
        if (bodies.Count + gables.Count > MostDrawn)
            pencil.Note($"only the first {MostDrawn} parts are drawn");
        (bodies, gables) = ([.. bodies.Take(MostDrawn)], [.. gables.Take(MostDrawn)]);
        var gap = bodies.Sum(b => b.Wide) * 0.05;
        var letter = Pencil.Letter(bodies.Sum(b => b.Wide) + gap * bodies.Count, bodies.Max(b => b.High));
        var on = gables.Select((_, g) => Best(bodies, gables, g)).ToList();
        var x = 0d;
        var at = new double[bodies.Count];
        for (var i = 0; i < bodies.Count; i++)
        {
            at[i] = x;
            var (wide, high, part) = bodies[i];
            pencil.Surface("wall", Outline.Letter(i), Pencil.Box(x, -high, wide, high), "grossFaceArea", "netFaceArea");
            pencil.Mark(part.Wide.Read(system), (x + wide / 2, letter * 0.8));
            pencil.Mark(part.High.Read(system), (x - letter * 0.7, -high / 2), -90);
            var crowned = 0d;
            for (var g = 0; g < gables.Count; g++)
            {
                if (on[g] != i)
                    continue;
                var (width, rise) = ((double)gables[g].Wide.Millimetres, (double)gables[g].High.Millimetres);
                pencil.Surface(
                    "wall",
                    "gable",
                    [(x + crowned, -high), (x + crowned + width, -high), (x + crowned + width / 2, -high - rise)],
                    "grossFaceArea",
                    "netFaceArea"
                );
                pencil.Mark(gables[g].High.Read(system), (x + crowned + width / 2, -high - rise - letter * 0.7));
                crowned += width;
            }
            if (wide - crowned > 1)
                pencil.Edge("eavesLength", (x + crowned, -high), (x + wide, -high));
            x += wide + gap;
        }
        for (var g = 0; g < gables.Count; g++)
        {
            if (on[g] >= 0)
                continue;
            var (width, rise) = ((double)gables[g].Wide.Millimetres, (double)gables[g].High.Millimetres);
            pencil.Surface(
                "wall",
                "gable",
                [(x, 0), (x + width, 0), (x + width / 2, -rise)],
                "grossFaceArea",
                "netFaceArea"
            );
            pencil.Mark($"{gables[g].Wide.Read(system)} gable", (x + width / 2, letter * 0.8));
            x += width + gap;
        }
        if (face.Eaves is not null)
            pencil.Note("the eaves' length was typed and may differ from the lines drawn");
        var (drawn, left) = OpeningsOnWalls.Arrange(
            openings,
            [.. bodies.Select((b, i) => new WallToFill(Outline.Letter(i), b.Wide, b.High))]
        );
        if (left > 0)
            pencil.Note($"{left} openings do not fit side by side and are not drawn");
        if (drawn.Count > 0)
            pencil.Note("where openings stand was not measured");
        foreach (var o in drawn)
            pencil.Cut(
                o.Opening.Words,
                Outline.Letter(o.Wall),
                Pencil.Box(at[o.Wall] + o.From, -o.Bottom - o.Height, o.Width, o.Height),
                o.Label(system),
                OpeningsOnWalls.Deducted(o.Opening, rule),
                o.Opening.IsGlass,
                o.Size(system)
            );
        return pencil.Done();
    }

    private static IEnumerable<FacePart> Singles(IEnumerable<FacePart> parts) =>
        parts.SelectMany(p => Enumerable.Repeat(p, Math.Min(p.Count, MostDrawn + 1)));

    /// <summary>The body a gable goes on: one as wide that has none yet, otherwise the first with room; −1 when none has.</summary>
    private static int Best(List<(double Wide, double High, FacePart Part)> bodies, List<FacePart> gables, int gable)
    {
        var width = (double)gables[gable].Wide.Millimetres;
        bool AsWide(double other) => Math.Abs(other - width) < 1;
        var same = Enumerable.Range(0, bodies.Count).Where(i => AsWide(bodies[i].Wide)).ToList();
        if (same.Count > 0)
            return same[Math.Min(gables.Take(gable).Count(g => AsWide((double)g.Wide.Millimetres)), same.Count - 1)];
        return bodies.FindIndex(b => b.Wide > width);
    }
}

/// <summary>A site area on its own ground.</summary>
internal static class DrawnSite
{
    public static Drawing Of(Site site, UnitSystem system, DeductionRule rule)
    {
        var pencil = new Pencil();
        if (site.Outline is not { } outline)
        {
            var side = Math.Sqrt((double)TypedQuantities.In(site.Area!, Unit.SquareMetre)) * 1000;
            pencil.Surface("unknown", "", Pencil.Box(0, 0, side, side), "area", "volume");
            pencil.Mark(site.Area!.Text, (side / 2, side / 2));
            pencil.Note("only the area is known: drawn as a square of its size");
            return pencil.Done();
        }
        var corners = outline
            .Millimetres.Select(c => (X: (double)c.X, Y: outline is Corners ? -(double)c.Y : (double)c.Y))
            .ToArray();
        var size = Pencil.Letter(
            corners.Max(c => c.X) - corners.Min(c => c.X),
            corners.Max(c => c.Y) - corners.Min(c => c.Y)
        );
        pencil.Surface("site", "", corners, "area", "volume");
        var turned = Pencil.Twice(corners) > 0 ? 1 : -1;
        for (var i = 0; i < corners.Length; i++)
        {
            var (a, b) = (corners[i], corners[(i + 1) % corners.Length]);
            var length = Math.Sqrt((b.X - a.X) * (b.X - a.X) + (b.Y - a.Y) * (b.Y - a.Y));
            var (ux, uy) = ((b.X - a.X) / length, (b.Y - a.Y) / length);
            pencil.Edge("perimeter", a, b);
            pencil.Mark(
                new Length((decimal)Math.Round(length, 3), Unit.Millimetre, "").Read(system),
                ((a.X + b.X) / 2 + turned * uy * size * 0.85, (a.Y + b.Y) / 2 - turned * ux * size * 0.85),
                Pencil.Upright((ux, uy))
            );
        }
        foreach (var island in site.Islands)
            Islands.Draw(pencil, island, corners, outline is Corners, rule, "perimeter");
        return pencil.Done();
    }
}

/// <summary>A run as a strip.</summary>
internal static class DrawnRun
{
    public static Drawing Of(Run run, UnitSystem system)
    {
        var pencil = new Pencil();
        var (length, across) = ((double)run.Long.Millimetres, (double)(run.Across?.Millimetres ?? 0));
        var thick = Math.Max(across, length * 0.03);
        if (thick > across)
            pencil.Note(run.Across is null ? "its width was not measured" : "drawn wider than it is, to be seen");
        pencil.Surface("run", "", Pencil.Box(0, 0, length, thick), run.Across is null ? ["length"] : ["area"]);
        pencil.Edge("length", (0, thick), (length, thick));
        var size = Pencil.Letter(length, thick);
        pencil.Mark(run.Long.Read(system), (length / 2, thick + size * 0.9));
        if (run.Across is { } wide)
            pencil.Mark($"{wide.Read(system)} {(run.IsGirth ? "round" : "wide")}", (length / 2, -size * 0.8));
        return pencil.Done();
    }
}

/// <summary>A stair from the side, and developed: risers and treads laid flat one after another, landings beside.</summary>
internal static class DrawnStair
{
    private const int MostSteps = 60;

    public static Drawing Of(Stair stair, UnitSystem system)
    {
        var pencil = new Pencil();
        var (rise, going, width) = (
            (double)stair.Rise.Millimetres,
            (double)stair.Going.Millimetres,
            (double)stair.Width.Millimetres
        );
        var (risers, treads) = (Math.Min(stair.Risers, MostSteps), Math.Min(stair.Treads, MostSteps));
        if (risers < stair.Risers)
            pencil.Note($"only the first {MostSteps} steps are drawn");
        var (up, along) = (risers * rise, treads * going);
        var developed = up + along;
        var size = Pencil.Letter(Math.Max(along, developed), up + width * 1.4);
        // From the side: the steps, and the stringer under them.
        var profile = new List<(double X, double Y)> { (0, 0) };
        for (var i = 0; i < Math.Max(risers, treads); i++)
        {
            var (x, y) = profile[^1];
            if (i < risers)
                profile.Add((x, y -= rise));
            if (i < treads)
                profile.Add((x + going, y));
        }
        var middle = (developed - along) / 2;
        if (profile[^1].X > 0)
            pencil.Surface(
                "unknown",
                "side",
                [.. profile.Select(p => (p.X + middle, p.Y)), (middle + along, 0)],
                "stringerLength"
            );
        pencil.Edge("stringerLength", (middle, 0), (middle + along, -up));
        pencil.Mark($"{stair.Risers} × {stair.Rise.Read(system)}", (middle + along + size * 0.9, -up / 2), -90);
        pencil.Mark($"{stair.Treads} × {stair.Going.Read(system)}", (middle + along * 0.62, size * 0.9));
        var (at, top) = (0d, size * 2.6);
        for (var i = 0; i < Math.Max(risers, treads); i++)
        {
            if (i < risers)
            {
                pencil.Surface("riser", "", Pencil.Box(at, top, rise, width), "developedArea", "stepCount");
                at += rise;
            }
            if (i >= treads)
                continue;
            pencil.Surface("tread", "", Pencil.Box(at, top, going, width), "developedArea");
            pencil.Edge("edgeLength", (at, top), (at, top + width));
            at += going;
        }
        pencil.Mark(stair.Width.Read(system), (-size * 0.8, top + width / 2), -90);
        pencil.Mark("developed", (at / 2, top + width + size * 0.9), 0, true);
        var x2 = at + size * 2.5;
        foreach (var landing in stair.Landings.SelectMany(l => Enumerable.Repeat(l, Math.Min(l.Count, 6))))
        {
            var (edge, deep) = ((double)landing.Wide.Millimetres, (double)landing.High.Millimetres);
            pencil.Surface("tread", "landing", Pencil.Box(x2, top, deep, edge), "developedArea");
            pencil.Edge("edgeLength", (x2, top), (x2, top + edge));
            pencil.Mark(
                $"landing {landing.Wide.Read(system)} × {landing.High.Read(system)}",
                (x2 + deep / 2, top + edge + size * 0.9)
            );
            x2 += deep + size * 4;
        }
        return pencil.Done();
    }
}

/// <summary>Windows and doors without their room, one beside the other on one line.</summary>
internal static class DrawnOpenings
{
    private const int MostDrawn = 60;

    public static Drawing Of(ImmutableArray<Opening> openings, UnitSystem system)
    {
        var pencil = new Pencil();
        var largest = (double)openings.Max(o => decimal.Max(o.Width.Millimetres, o.Height.Millimetres));
        var gap = largest * 0.18;
        // As many side by side as make the whole about as wide as the sheet.
        var across = openings.Sum(o => ((double)o.Width.Millimetres + gap) * Math.Min(o.Count, MostDrawn));
        var row = Math.Max(largest, Math.Sqrt(across * largest * 1.6 * Drawing.Sheet));
        var (drawn, top) = (0, 0d);
        foreach (var opening in openings)
        {
            var (width, height) = ((double)opening.Width.Millimetres, (double)opening.Height.Millimetres);
            var shown = Math.Min(opening.Count, MostDrawn - drawn);
            if (shown == 0)
                break;
            var abreast = Math.Clamp((int)((row + gap) / (width + gap)), 1, shown);
            for (var i = 0; i < shown; i++)
                pencil.Surface(
                    "item",
                    opening.Words,
                    Pencil.Box(i % abreast * (width + gap), top + i / abreast * (height + gap), width, height),
                    Counts(opening)
                );
            drawn += shown;
            top += ((shown - 1) / abreast + 1) * (height + gap);
            pencil.Mark(
                $"{opening.Count} × {opening.Words} {opening.Width.Read(system)} × {opening.Height.Read(system)}",
                ((abreast * (width + gap) - gap) / 2, top)
            );
            top += largest * 0.3;
        }
        if (openings.Sum(o => (long)o.Count) > drawn)
            pencil.Note($"only {MostDrawn} are drawn");
        return pencil.Done();
    }

    private static ImmutableArray<string> Counts(Opening opening) =>
        [
            .. opening.IsGlass ? ["glassArea"] : Array.Empty<string>(),
            .. opening.Kind == OpeningKind.Window ? ["windowArea", "windowCount"]
            : opening.Kind == OpeningKind.Door ? ["doorArea", "doorCount"]
            : Array.Empty<string>(),
            "openingArea",
            "openingCount",
            "revealLength",
            "revealArea",
            "count",
        ];
}

/// <summary>Counted things, a square each.</summary>
internal static class DrawnItems
{
    private const int MostDrawn = 30;

    public static Drawing Of(ItemSet items)
    {
        var pencil = new Pencil();
        pencil.Note("a square for each");
        const double square = 100,
            gap = 24;
        var y = 0d;
        for (var i = 0; i < items.Items.Length; i++)
        {
            var item = items.Items[i];
            var shown = Math.Min(item.Count, MostDrawn);
            for (var n = 0; n < shown; n++)
                pencil.Surface(
                    "item",
                    item.Name,
                    Pencil.Box(n % 15 * (square + gap), y + n / 15 * (square + gap), square, square),
                    "count",
                    $"items/{i + 1}"
                );
            if (shown < item.Count)
                pencil.Note($"only {MostDrawn} of each are drawn");
            y += ((shown - 1) / 15 + 1) * (square + gap);
            pencil.Mark($"{item.Count} {item.Name}", (Math.Min(shown, 15) * (square + gap) / 2, y + 34));
            y += 150;
        }
        return pencil.Done();
    }
}
