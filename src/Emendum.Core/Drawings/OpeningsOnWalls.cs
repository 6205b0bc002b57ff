using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Drawings;

/// <summary>A wall or face to put openings on.</summary>
/// <param name="Name">Its letter.</param>
/// <param name="Length">Length in mm.</param>
/// <param name="High">Height in mm where openings are to fit.</param>
internal sealed record WallToFill(string Name, double Length, double High);

/// <summary>An opening where it is drawn: along its wall from <paramref name="From"/>, above the floor from <paramref name="Bottom"/>.</summary>
internal sealed record DrawnOpening(Opening Opening, int Wall, double From, double Bottom, double Width, double Height)
{
    /// <summary>What pointing at it says.</summary>
    public string Label(UnitSystem system) => $"{Opening.Words} {Size(system)}";

    /// <summary>Its width and height.</summary>
    public string Size(UnitSystem system) => $"{Opening.Width.Read(system)} × {Opening.Height.Read(system)}";
}

/// <summary>Puts openings on walls: on their own where that was said, otherwise on the wall with the most free length; evenly spaced.</summary>
internal static class OpeningsOnWalls
{
    private const int MostDrawn = 200;

    public static (List<DrawnOpening> Drawn, int Left) Arrange(
        IEnumerable<Opening> openings,
        IReadOnlyList<WallToFill> walls
    )
    {
        var free = walls.Select(w => w.Length).ToArray();
        var on = walls.Select(_ => new List<Opening>()).ToArray();
        var (left, drawn) = (0, 0);
        foreach (var opening in openings.OrderBy(o => o.Wall is null))
        {
            var (width, top) = (
                (double)opening.Width.Millimetres,
                (double)opening.Height.Millimetres + (double)(opening.Bottom?.Millimetres ?? 0)
            );
            for (var i = 0; i < opening.Count; i++)
            {
                var wall = -1;
                for (var w = 0; w < walls.Count; w++)
                    if (
                        (
                            opening.Wall is null
                                ? free[w] >= width && walls[w].High >= top - 0.01
                                : walls[w].Name == opening.Wall && free[w] >= width
                        ) && (wall < 0 || free[w] > free[wall])
                    )
                        wall = w;
                if (wall < 0 || drawn >= MostDrawn)
                {
                    left += opening.Count - i;
                    break;
                }
                on[wall].Add(opening);
                free[wall] -= width;
                drawn++;
            }
        }
        var placed = new List<DrawnOpening>();
        for (var w = 0; w < walls.Count; w++)
        {
            var gap = free[w] / (on[w].Count + 1);
            var at = gap;
            foreach (var opening in on[w])
            {
                var (width, height) = ((double)opening.Width.Millimetres, (double)opening.Height.Millimetres);
                var bottom =
                    opening.ReachesFloor ? 0
                    : opening.Bottom is { } b ? (double)b.Millimetres
                    : Math.Max(0, Math.Min((double)BandMeasures.UsualBottom, (walls[w].High - height) / 2));
                placed.Add(new(opening, w, at, bottom, width, height));
                at += width + gap;
            }
        }
        return (placed, left);
    }

    /// <summary>Whether the rule takes anything of an opening off.</summary>
    public static bool Deducted(Opening opening, DeductionRule rule) =>
        rule.PartOf(opening.Width.Millimetres * opening.Height.Millimetres / 1_000_000m, opening.ReachesFloor).Times
        > 0;
}
