using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>Area, sides and corners of an outline in tape units, with how they came about.</summary>
internal sealed class OutlineMeasures
{
    private OutlineMeasures(Val area, Val around, Val[] sides, (Val X, Val Y)[] corners) =>
        (Area, Around, Sides, Corners) = (area, around, sides, corners);

    /// <summary>Area inside.</summary>
    public Val Area { get; }

    /// <summary>Length of the edge.</summary>
    public Val Around { get; }

    /// <summary>Length of each side.</summary>
    public Val[] Sides { get; }

    /// <summary>Where each corner is.</summary>
    public (Val X, Val Y)[] Corners { get; }

    /// <summary>Measures an outline.</summary>
    public static OutlineMeasures Of(Measuring tape, Outline outline)
    {
        switch (outline)
        {
            case Rectangle box:
                var (length, width) = (tape.Read(box.Long, "length"), tape.Read(box.Wide, "width"));
                return new(
                    length * width,
                    2 * (length + width),
                    [length, width, length, width],
                    [(0, 0), (length, 0), (length, width), (0, width)]
                );
            case Corners by:
                var points = by
                    .Points.Select(
                        (p, i) =>
                            (
                                X: tape.Read(p.X, tape.On ? $"corner {i + 1}, across" : ""),
                                Y: tape.Read(p.Y, tape.On ? $"corner {i + 1}, up" : "")
                            )
                    )
                    .ToArray();
                return Closed(
                    points,
                    Enumerable
                        .Range(0, points.Length)
                        .Select(i => Side(points[i], points[(i + 1) % points.Length]))
                        .ToArray()
                );
            default:
                var walls = (Walls)outline;
                var sides = walls
                    .Runs.Select((r, i) => tape.Read(r.Long, tape.On ? "wall " + Outline.Letter(i) : ""))
                    .ToArray();
                var corners = new (Val X, Val Y)[sides.Length];
                corners[0] = (0, 0);
                var headings = walls.Headings;
                for (var i = 1; i < corners.Length; i++)
                {
                    var (cos, sin) = headings[i - 1];
                    corners[i] = (
                        Walked(corners[i - 1].X, sides[i - 1], cos),
                        Walked(corners[i - 1].Y, sides[i - 1], sin)
                    );
                }
                return Closed(corners, sides);
        }
    }

    /// <summary>A step along a wall; a quarter turn is a plain sum or difference.</summary>
    private static Val Walked(Val from, Val length, decimal by) =>
        by switch
        {
            0 => from,
            1 => from + length,
            -1 => from - length,
            _ => from + length * by,
        };

    private static Val Side((Val X, Val Y) a, (Val X, Val Y) b)
    {
        if (a.X.V == b.X.V)
            return a.Y.V < b.Y.V ? b.Y - a.Y : a.Y - b.Y;
        if (a.Y.V == b.Y.V)
            return a.X.V < b.X.V ? b.X - a.X : a.X - b.X;
        var (x, y) = (b.X - a.X, b.Y - a.Y);
        return (x * x + y * y).Sqrt();
    }

    private static OutlineMeasures Closed((Val X, Val Y)[] corners, Val[] sides)
    {
        var around = new Sum();
        foreach (var side in sides)
            around.Add(side);
        return new(AreaOf(corners), around.Total, sides, corners);
    }

    /// <summary>Half the sum of cross products, walked either way round (shoelace formula).</summary>
    private static Val AreaOf((Val X, Val Y)[] corners)
    {
        var (right, left) = (new Sum(), new Sum());
        for (var i = 0; i < corners.Length; i++)
        {
            var (a, b) = (corners[i], corners[(i + 1) % corners.Length]);
            if (a.X.V != 0 && b.Y.V != 0)
                right.Add(a.X * b.Y);
            if (b.X.V != 0 && a.Y.V != 0)
                left.Add(b.X * a.Y);
        }
        var twice = right.Total.V >= left.Total.V ? right.Total - left.Total : left.Total - right.Total;
        return twice / 2;
    }
}
