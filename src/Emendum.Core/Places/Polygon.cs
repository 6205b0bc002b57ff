using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>Plane geometry on corners in millimetres, for checks and drawings; what is measured is reckoned in <see cref="OutlineMeasures"/>, where it explains itself.</summary>
internal static class Polygon
{
    /// <summary>Twice the signed area (shoelace formula).</summary>
    public static decimal Twice(ImmutableArray<(decimal X, decimal Y)> corners)
    {
        var sum = 0m;
        for (var i = 0; i < corners.Length; i++)
        {
            var (a, b) = (corners[i], corners[(i + 1) % corners.Length]);
            sum += a.X * b.Y - b.X * a.Y;
        }
        return sum;
    }

    /// <summary>Lengths of the sides.</summary>
    public static decimal[] Sides(ImmutableArray<(decimal X, decimal Y)> corners)
    {
        var sides = new decimal[corners.Length];
        for (var i = 0; i < sides.Length; i++)
        {
            var (a, b) = (corners[i], corners[(i + 1) % corners.Length]);
            sides[i] =
                a.X == b.X ? decimal.Abs(b.Y - a.Y)
                : a.Y == b.Y ? decimal.Abs(b.X - a.X)
                : Roots.Sqrt((b.X - a.X) * (b.X - a.X) + (b.Y - a.Y) * (b.Y - a.Y));
        }
        return sides;
    }

    /// <summary>The first two sides that meet where they should not, or null.</summary>
    public static (int A, int B)? Crossing(ImmutableArray<(decimal X, decimal Y)> corners)
    {
        var n = corners.Length;
        for (var i = 0; i < n; i++)
        {
            for (var j = i + 1; j < n; j++)
            {
                var (a, b, c, d) = (corners[i], corners[(i + 1) % n], corners[j], corners[(j + 1) % n]);
                var next = j == i + 1 || (i == 0 && j == n - 1);
                if (next)
                {
                    // Neighbours share a corner; they may not fold back on each other.
                    var (from, to, other) = j == i + 1 ? (b, a, d) : (a, b, c);
                    if (
                        Side(from, to, other) == 0
                        && (to.X - from.X) * (other.X - from.X) + (to.Y - from.Y) * (other.Y - from.Y) > 0
                    )
                        return (i, j);
                }
                else if (Meet(a, b, c, d))
                {
                    return (i, j);
                }
            }
        }
        return null;
    }

    /// <summary>Whether a point is inside or on the edge.</summary>
    public static bool Contains(ImmutableArray<(decimal X, decimal Y)> corners, (decimal X, decimal Y) point)
    {
        var inside = false;
        for (int i = 0, j = corners.Length - 1; i < corners.Length; j = i++)
        {
            var (a, b) = (corners[i], corners[j]);
            if (Side(a, b, point) == 0 && Between(a, b, point))
                return true;
            if (a.Y > point.Y != b.Y > point.Y && point.X < (b.X - a.X) * (point.Y - a.Y) / (b.Y - a.Y) + a.X)
                inside = !inside;
        }
        return inside;
    }

    /// <summary>An island's corners where it stands; from its own origin where that was not said.</summary>
    public static ImmutableArray<(decimal X, decimal Y)> Moved(Island island)
    {
        var corners = island.Outline.Millimetres;
        return island.At is { } at
            ? [.. corners.Select(c => (c.X + at.X.Millimetres, c.Y + at.Y.Millimetres))]
            : corners;
    }

    /// <summary>Height over any point of the plane through the first three corners that are not in line.</summary>
    public static Func<(decimal X, decimal Y), decimal> Plane(
        ImmutableArray<(decimal X, decimal Y)> corners,
        decimal[] heights
    )
    {
        var (o, a, b) = (corners[0], corners[1], corners[2]);
        var (ux, uy, uz) = (a.X - o.X, a.Y - o.Y, heights[1] - heights[0]);
        var (vx, vy, vz) = (b.X - o.X, b.Y - o.Y, heights[2] - heights[0]);
        var flat = ux * vy - uy * vx;
        if (flat == 0)
            throw RefusedException.Of(
                "line",
                "The first three corners of a sloped room may not be in line: begin the walk at another corner."
            );
        return p => heights[0] + ((uz * vy - vz * uy) * (p.X - o.X) + (vz * ux - uz * vx) * (p.Y - o.Y)) / flat;
    }

    private static int Side((decimal X, decimal Y) a, (decimal X, decimal Y) b, (decimal X, decimal Y) p)
    {
        var cross = (b.X - a.X) * (p.Y - a.Y) - (b.Y - a.Y) * (p.X - a.X);
        // Sines and cosines have 12 places: what is nearer to the line than that allows for is on it.
        return decimal.Abs(cross) < 0.000001m ? 0 : Math.Sign(cross);
    }

    private static bool Between((decimal X, decimal Y) a, (decimal X, decimal Y) b, (decimal X, decimal Y) p) =>
        p.X >= decimal.Min(a.X, b.X)
        && p.X <= decimal.Max(a.X, b.X)
        && p.Y >= decimal.Min(a.Y, b.Y)
        && p.Y <= decimal.Max(a.Y, b.Y);

    private static bool Meet(
        (decimal X, decimal Y) a,
        (decimal X, decimal Y) b,
        (decimal X, decimal Y) c,
        (decimal X, decimal Y) d
    )
    {
        var (s1, s2, s3, s4) = (Side(a, b, c), Side(a, b, d), Side(c, d, a), Side(c, d, b));
        if (s1 * s2 < 0 && s3 * s4 < 0)
            return true;
        return (s1 == 0 && Between(a, b, c))
            || (s2 == 0 && Between(a, b, d))
            || (s3 == 0 && Between(c, d, a))
            || (s4 == 0 && Between(c, d, b));
    }
}
