using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Drawings;

/// <summary>A room with its walls folded flat around the floor and the ceiling beside it. Where folded walls would lie on each other (in the notch of an L)
/// they are unrolled in a strip below instead.</summary>
internal sealed class UnfoldedRoom
{
    private readonly Room room;
    private readonly UnitSystem system;
    private readonly Pencil pencil = new();
    private readonly (double X, double Y)[] floor;
    private readonly double[] lengths,
        starts,
        ends;
    private readonly (double X, double Y)[] along,
        away;

    private UnfoldedRoom(Room room, UnitSystem system)
    {
        (this.room, this.system) = (room, system);
        floor = Plan(room.Outline.Millimetres);
        var n = floor.Length;
        lengths = [.. Enumerable.Range(0, n).Select(i => Distance(floor[i], floor[(i + 1) % n]))];
        along =
        [
            .. Enumerable
                .Range(0, n)
                .Select(i =>
                    ((floor[(i + 1) % n].X - floor[i].X) / lengths[i], (floor[(i + 1) % n].Y - floor[i].Y) / lengths[i])
                ),
        ];
        var clockwise = Pencil.Twice(floor) > 0;
        away = [.. along.Select(u => clockwise ? (u.Y, -u.X) : (-u.Y, u.X))];
        double Over(int corner) =>
            room.Slope.IsEmpty ? (double)room.High!.Millimetres : (double)room.Slope[corner % n].Millimetres;
        double? Own(int wall) =>
            room.WallHeights.FirstOrDefault(w => room.Outline.WallOf(w.Wall) == wall) is { } own
                ? (double)own.High.Millimetres
                : null;
        starts = [.. Enumerable.Range(0, n).Select(i => Own(i) ?? Over(i))];
        ends = [.. Enumerable.Range(0, n).Select(i => Own(i) ?? Over(i + 1))];
    }

    /// <summary>Draws it.</summary>
    public static Drawing Of(
        Room room,
        ImmutableArray<Opening> own,
        ImmutableArray<Opening> incoming,
        UnitSystem system,
        DeductionRule rule
    )
    {
        var drawn = new UnfoldedRoom(room, system);
        var place = drawn.Folds() ? drawn.FoldOut() : drawn.Unroll();
        drawn.DrawWalls(place);
        drawn.DrawOpenings(place, [.. own, .. incoming.Select(o => o with { Wall = null, Bottom = null })], rule);
        drawn.DrawIslands(rule);
        return drawn.pencil.Done();
    }

    /// <summary>Where a point of a wall (along it, above the floor) lies on the sheet.</summary>
    private delegate (double X, double Y) OnSheet(int wall, double s, double z);

    /// <summary>Walls fold without lying on each other when no corner turns by more than a right angle, and none inwards.</summary>
    private bool Folds()
    {
        for (var i = 0; i < along.Length; i++)
        {
            var (a, b) = (along[i], along[(i + 1) % along.Length]);
            var turn = a.X * b.Y - a.Y * b.X;
            if (Math.Sign(turn) != Math.Sign(Pencil.Twice(floor)) || a.X * b.X + a.Y * b.Y < -1e-9)
                return false;
        }
        return true;
    }

    private OnSheet FoldOut()
    {
        OnSheet place = (wall, s, z) =>
            (
                floor[wall].X + along[wall].X * s + away[wall].X * z,
                floor[wall].Y + along[wall].Y * s + away[wall].Y * z
            );
        var points = Enumerable
            .Range(0, floor.Length)
            .SelectMany(w => new[] { place(w, 0, starts[w]), place(w, lengths[w], ends[w]) })
            .Concat(floor)
            .ToList();
        var (left, top, right, bottom) = (
            points.Min(p => p.X),
            points.Min(p => p.Y),
            points.Max(p => p.X),
            points.Max(p => p.Y)
        );
        DrawFloor();
        // The ceiling goes beside or below, wherever the sheet is used better.
        var ceiling = Ceiling();
        var (cw, ch) = (ceiling.Max(p => p.X) - ceiling.Min(p => p.X), ceiling.Max(p => p.Y) - ceiling.Min(p => p.Y));
        var gap = Math.Max(cw, ch) * 0.12;
        var beside = Math.Max(right - left + gap + cw, Math.Max(bottom - top, ch) * Drawing.Sheet);
        var below = Math.Max(Math.Max(right - left, cw), (bottom - top + gap + ch) * Drawing.Sheet);
        var (x, y) =
            beside <= below
                ? (right + gap - ceiling.Min(p => p.X), floor.Min(p => p.Y) - ceiling.Min(p => p.Y))
                : (floor.Min(p => p.X) - ceiling.Min(p => p.X), bottom + gap - ceiling.Min(p => p.Y));
        DrawCeiling([.. ceiling.Select(p => (p.X + x, p.Y + y))]);
        var letter = Pencil.Letter(right - left + (beside <= below ? gap + cw : 0), bottom - top);
        for (var w = 0; w < floor.Length; w++)
        {
            // Walls as long and as high as their opposites say so once.
            if (room.Outline is Rectangle && w is 1 or 2 && starts[w] == starts[0] && ends[w] == ends[0])
                continue;
            pencil.Mark(
                Text(lengths[w]),
                Shifted(
                    place(w, lengths[w] / 2, (starts[w] + ends[w]) / 2),
                    away[w],
                    letter * (starts[w] == ends[w] ? 0.75 : 1.4)
                ),
                Pencil.Upright(along[w])
            );
            if (w == 0 || starts[w] != starts[0])
                pencil.Mark(
                    Text(starts[w]),
                    Shifted(place(w, 0, starts[w] / 2), along[w], -letter * 0.75),
                    Pencil.Upright(away[w])
                );
        }
        return place;
    }

    private OnSheet Unroll()
    {
        DrawFloor();
        var (left, top, right, bottom) = (
            floor.Min(p => p.X),
            floor.Min(p => p.Y),
            floor.Max(p => p.X),
            floor.Max(p => p.Y)
        );
        var (width, height) = (right - left, bottom - top);
        var ceiling = Ceiling();
        var (cw, ch) = (ceiling.Max(p => p.X) - ceiling.Min(p => p.X), ceiling.Max(p => p.Y) - ceiling.Min(p => p.Y));
        var tall = Math.Max(starts.Max(), ends.Max());
        // As many rows of walls as use the sheet best.
        var best = Enumerable
            .Range(1, 4)
            .Select(rows => (Rows: rows, Layout: Rows(rows)))
            .MinBy(r =>
            {
                var letter = Pencil.Letter(width + cw, height);
                return Math.Max(
                    Math.Max(width + letter * 8 + cw, r.Layout.Max(w => w.X)),
                    (Math.Max(height, ch) + r.Rows * (tall + letter * 3.4)) * Drawing.Sheet
                );
            });
        var total = Math.Max(width + cw, best.Layout.Max(w => w.X));
        var size = Pencil.Letter(total, Math.Max(height, ch) + best.Rows * tall);
        DrawCeiling(
            [
                .. ceiling.Select(p =>
                    (p.X - ceiling.Min(c => c.X) + right + size * 6, p.Y - ceiling.Min(c => c.Y) + top)
                ),
            ]
        );
        var first = Math.Max(bottom, top + ch) + size * 3.4;
        (double X, double Y) Corner(int wall) =>
            (left + best.Layout[wall].From, first + best.Layout[wall].Row * (tall + size * 3.4) + tall);
        OnSheet place = (wall, s, z) => (Corner(wall).X + s, Corner(wall).Y - z);
        for (var w = 0; w < floor.Length; w++)
        {
            var middle = (
                X: (floor[w].X + floor[(w + 1) % floor.Length].X) / 2,
                Y: (floor[w].Y + floor[(w + 1) % floor.Length].Y) / 2
            );
            pencil.Mark(
                $"{Outline.Letter(w)} {Text(lengths[w])}",
                Shifted(middle, away[w], size * 0.85),
                Pencil.Upright(along[w])
            );
            pencil.Mark(Outline.Letter(w), place(w, lengths[w] / 2, -size * 0.95), 0);
            if (w == 0 || starts[w] != ends[w] || starts[w] != starts[w - 1])
                pencil.Mark(Text(starts[w]), place(w, -size * 0.7, starts[w] / 2), -90);
            if (starts[w] != ends[w] && w + 1 < floor.Length && best.Layout[w].Row != best.Layout[w + 1].Row)
                pencil.Mark(Text(ends[w]), place(w, lengths[w] + size * 0.7, ends[w] / 2), -90);
        }
        return place;
    }

    private (double From, int Row, double X)[] Rows(int rows)
    {
        var limit = Math.Max(lengths.Sum() / rows * 1.02, lengths.Max());
        var gap = lengths.Sum() * 0.025;
        var layout = new (double, int, double)[lengths.Length];
        var (at, row) = (0d, 0);
        for (var i = 0; i < lengths.Length; i++)
        {
            if (at > 0 && at + lengths[i] > limit && row < rows - 1)
                (at, row) = (0, row + 1);
            layout[i] = (at, row, at + lengths[i]);
            at += lengths[i] + gap;
        }
        return layout;
    }

    private void DrawFloor()
    {
        pencil.Surface("floor", "", floor, "floorArea", "volume");
    }

    /// <summary>The ceiling in its true shape: stretched along the slope.</summary>
    private (double X, double Y)[] Ceiling()
    {
        if (room.Slope.IsEmpty)
            return floor;
        var (a, b, c) = (floor[0], floor[1], floor[2]);
        var flat = (b.X - a.X) * (c.Y - a.Y) - (b.Y - a.Y) * (c.X - a.X);
        var (up1, up2) = (ends[0] - starts[0], ends[1] - starts[0]);
        var (gx, gy) = ((up1 * (c.Y - a.Y) - up2 * (b.Y - a.Y)) / flat, (up2 * (b.X - a.X) - up1 * (c.X - a.X)) / flat);
        var steep = Math.Sqrt(gx * gx + gy * gy);
        if (steep == 0)
            return floor;
        var stretch = Math.Sqrt(1 + steep * steep) - 1;
        return
        [
            .. floor.Select(p =>
            {
                var t = (p.X * gx + p.Y * gy) / steep * stretch;
                return (p.X + gx / steep * t, p.Y + gy / steep * t);
            }),
        ];
    }

    private void DrawCeiling((double X, double Y)[] ceiling)
    {
        pencil.Surface("ceiling", "", ceiling, "ceilingArea");
        for (var i = 0; i < ceiling.Length; i++)
            pencil.Edge("corniceLength", ceiling[i], ceiling[(i + 1) % ceiling.Length]);
    }

    private void DrawWalls(OnSheet place)
    {
        for (var w = 0; w < floor.Length; w++)
        {
            var below = 0d;
            for (var b = 0; b <= room.Bands.Length; b++)
            {
                var top = b < room.Bands.Length ? (double)room.Bands[b].Top.Millimetres : double.MaxValue;
                var points = Between(w, below, top);
                if (points.Count >= 3)
                {
                    ImmutableArray<string> counts = ["grossWallArea", "netWallArea", "walls/" + Outline.Letter(w)];
                    pencil.Surface(
                        "wall",
                        Outline.Letter(w),
                        points.Select(p => place(w, p.S, p.Z)),
                        room.Bands.IsEmpty ? counts : counts.Add($"bands/{b + 1}")
                    );
                }
                below = top;
            }
        }
    }

    /// <summary>The part of a wall between two heights, in its own terms.</summary>
    private List<(double S, double Z)> Between(int wall, double low, double high)
    {
        List<(double S, double Z)> points =
        [
            (0, 0),
            (lengths[wall], 0),
            (lengths[wall], ends[wall]),
            (0, starts[wall]),
        ];
        return Clip(Clip(points, low, true), high, false);
    }

    private static List<(double S, double Z)> Clip(List<(double S, double Z)> points, double at, bool above)
    {
        var kept = new List<(double S, double Z)>();
        for (var i = 0; i < points.Count; i++)
        {
            var (a, b) = (points[i], points[(i + 1) % points.Count]);
            var (inA, inB) = (above ? a.Z >= at : a.Z <= at, above ? b.Z >= at : b.Z <= at);
            if (inA)
                kept.Add(a);
            if (inA != inB)
                kept.Add((a.S + (b.S - a.S) * (at - a.Z) / (b.Z - a.Z), at));
        }
        return kept;
    }

    private void DrawOpenings(OnSheet place, IEnumerable<Opening> openings, DeductionRule rule)
    {
        var walls = Enumerable
            .Range(0, floor.Length)
            .Select(w => new WallToFill(Outline.Letter(w), lengths[w], Math.Max(starts[w], ends[w])))
            .ToList();
        var (drawn, left) = OpeningsOnWalls.Arrange(openings, walls);
        if (left > 0)
            pencil.Note($"{left} openings do not fit side by side and are not drawn");
        if (drawn.Any(o => o.Opening.Wall is null))
            pencil.Note("which wall an opening is on, and where, was not measured");
        var from = new double[floor.Length];
        (double, double) OnFloor(int wall, double s) =>
            (floor[wall].X + along[wall].X * s, floor[wall].Y + along[wall].Y * s);
        foreach (var o in drawn)
        {
            pencil.Cut(
                o.Opening.Words,
                Outline.Letter(o.Wall),
                [
                    place(o.Wall, o.From, o.Bottom),
                    place(o.Wall, o.From + o.Width, o.Bottom),
                    place(o.Wall, o.From + o.Width, o.Bottom + o.Height),
                    place(o.Wall, o.From, o.Bottom + o.Height),
                ],
                o.Label(system),
                OpeningsOnWalls.Deducted(o.Opening, rule),
                o.Opening.IsGlass,
                o.Size(system)
            );
            if (!o.Opening.ReachesFloor || !rule.Interrupts(o.Opening.Width.Millimetres / 1000m))
                continue;
            pencil.Edge("skirtingLength", OnFloor(o.Wall, from[o.Wall]), OnFloor(o.Wall, o.From));
            from[o.Wall] = o.From + o.Width;
        }
        for (var w = 0; w < floor.Length; w++)
            pencil.Edge("skirtingLength", OnFloor(w, from[w]), OnFloor(w, lengths[w]));
    }

    private void DrawIslands(DeductionRule rule)
    {
        foreach (var island in room.Islands)
            Islands.Draw(pencil, island, floor, room.Outline is Corners, rule, "skirtingLength");
    }

    private string Text(double mm) => new Length((decimal)Math.Round(mm, 3), Unit.Millimetre, "").Read(system);

    /// <summary>Corners as they lie on a sheet: up is up for coordinates, walks turn as they are walked.</summary>
    private (double X, double Y)[] Plan(ImmutableArray<(decimal X, decimal Y)> corners) =>
        [.. corners.Select(c => ((double)c.X, room.Outline is Corners ? -(double)c.Y : (double)c.Y))];

    private static double Distance((double X, double Y) a, (double X, double Y) b) =>
        Math.Sqrt((b.X - a.X) * (b.X - a.X) + (b.Y - a.Y) * (b.Y - a.Y));

    private static (double X, double Y) Shifted((double X, double Y) p, (double X, double Y) by, double far) =>
        (p.X + by.X * far, p.Y + by.Y * far);
}

/// <summary>Islands in a floor or a site.</summary>
internal static class Islands
{
    /// <summary>Draws an island where it stands, or in the middle where that was not measured.</summary>
    public static void Draw(
        Pencil pencil,
        Island island,
        (double X, double Y)[] around,
        bool flipped,
        DeductionRule rule,
        string edge
    )
    {
        var corners = Polygon
            .Moved(island)
            .Select(c => (X: (double)c.X, Y: flipped ? -(double)c.Y : (double)c.Y))
            .ToArray();
        var known = island.At is not null || island.Outline is Corners;
        if (!known)
        {
            pencil.Note("where islands stand was not measured");
            var (cx, cy) = Middle(around);
            var (ix, iy) = (
                (corners.Min(c => c.X) + corners.Max(c => c.X)) / 2,
                (corners.Min(c => c.Y) + corners.Max(c => c.Y)) / 2
            );
            corners = [.. corners.Select(c => (c.X - ix + cx, c.Y - iy + cy))];
        }
        if (island.Count > 1)
            pencil.Note($"{island.Count} islands alike are drawn once");
        pencil.Cut(
            "island",
            "",
            corners,
            "island",
            rule.TakesIsland(decimal.Abs(Polygon.Twice(island.Outline.Millimetres)) / 2_000_000m)
        );
        for (var i = 0; i < corners.Length; i++)
            pencil.Edge(edge, corners[i], corners[(i + 1) % corners.Length]);
    }

    /// <summary>A point well inside: the middle of the largest of a few slices.</summary>
    private static (double X, double Y) Middle((double X, double Y)[] p)
    {
        var (top, bottom) = (p.Min(c => c.Y), p.Max(c => c.Y));
        var best = (Length: -1d, X: 0d, Y: 0d);
        for (var k = 1; k < 12; k++)
        {
            var y = top + (bottom - top) * (k + 0.0137) / 12;
            var xs = Enumerable
                .Range(0, p.Length)
                .Select(i => (A: p[i], B: p[(i + 1) % p.Length]))
                .Where(e => e.A.Y > y != e.B.Y > y)
                .Select(e => e.A.X + (e.B.X - e.A.X) * (y - e.A.Y) / (e.B.Y - e.A.Y))
                .Order()
                .ToArray();
            for (var i = 0; i + 1 < xs.Length; i += 2)
            {
                var centred = (xs[i + 1] - xs[i]) * (1 - Math.Abs(k - 6) * 0.04);
                if (centred > best.Length)
                    best = (centred, (xs[i] + xs[i + 1]) / 2, y);
            }
        }
        return (best.X, best.Y);
    }
}
