using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>A rectangle of the drawing, in millimetres from the top left.</summary>
public sealed record Box(decimal X, decimal Y, decimal Width, decimal Height);

/// <summary>A surface of the drawing.</summary>
/// <param name="Kind"><c>floor</c>, <c>ceiling</c> or <c>wall</c>.</param>
/// <param name="Name">Wall letter; empty for the others.</param>
/// <param name="Box">Where.</param>
/// <param name="Counts">Measures that count it.</param>
public sealed record Surface(string Kind, string Name, Box Box, ImmutableArray<string> Counts);

/// <summary>An opening cut out of a wall. Where along the wall it stands was not measured: the drawing spaces them evenly.</summary>
public sealed record Cut(OpeningKind Kind, string Wall, Box Box, string Label, bool Deducted);

/// <summary>A line that trims an edge (skirting, cornice).</summary>
public sealed record Edge(string Kind, decimal X1, decimal Y1, decimal X2, decimal Y2);

/// <summary>A written dimension.</summary>
public sealed record Dimension(string Text, decimal X, decimal Y, bool Upright);

/// <summary>A room drawn to scale with its walls folded flat around the floor and the ceiling beside it. A picture of the numbers.</summary>
public sealed record UnfoldedRoom(decimal Width, decimal Height, ImmutableArray<Surface> Surfaces, ImmutableArray<Cut> Cuts, ImmutableArray<Edge> Edges, ImmutableArray<Dimension> Dimensions, int NotDrawn)
{
    /// <summary>The drawing of a room; coordinates in millimetres.</summary>
    public static UnfoldedRoom Of(Place room, UnitSystem system, DeductionRule rule)
    {
        decimal Mm(Length length) => length.Value * length.Unit.Factor;
        var (length, width, height) = (Mm(room.Long), Mm(room.Wide), Mm(room.High));
        var gap = decimal.Max(length, width) * 0.12m;
        var margin = decimal.Max(length, width) * 0.1m;
        var (left, top) = (margin + height, margin + height);
        var floor = new Box(left, top, length, width);
        var ceiling = new Box(left + length + height + gap, top, length, width);
        ImmutableArray<string> wallMeasures = ["grossWallArea", "netWallArea"];
        ImmutableArray<Surface> surfaces =
        [
            new("floor", "", floor, ["floorArea", "volume"]), new("ceiling", "", ceiling, ["ceilingArea"]),
            new("wall", "A", new(left, top - height, length, height), wallMeasures), new("wall", "B", new(left + length, top, height, width), wallMeasures),
            new("wall", "C", new(left, top + width, length, height), wallMeasures), new("wall", "D", new(left - height, top, height, width), wallMeasures),
        ];

        var cuts = ImmutableArray.CreateBuilder<Cut>();
        var edges = ImmutableArray.CreateBuilder<Edge>();
        var walls = Arrange(room, length, width, Mm);
        for (var w = 0; w < 4; w++)
        {
            var openings = walls.OnWall[w];
            var run = w % 2 == 0 ? length : width;
            var free = (run - openings.Sum(o => Mm(o.Width))) / (openings.Count + 1);
            var at = free;
            var from = 0m;
            foreach (var opening in openings)
            {
                var (ow, oh) = (Mm(opening.Width), Mm(opening.Height));
                var above = opening.ReachesFloor ? 0 : decimal.Max(0, decimal.Min(900, (height - oh) / 2));
                var squareMetres = ow * oh / 1_000_000m;
                cuts.Add(new(opening.Kind, "ABCD"[w].ToString(), OnWall(surfaces[w + 2].Box, w, at, ow, above, oh), $"{RoomMeasures.Words(opening.Kind)} {opening.Width.Read(system)} × {opening.Height.Read(system)}", rule.PartOf(squareMetres).Times > 0));
                if (opening.ReachesFloor && rule.Interrupts(ow / 1000m))
                {
                    edges.Add(Along(floor, w, "skirtingLength", from, at));
                    from = at + ow;
                }
                at += ow + free;
            }
            edges.Add(Along(floor, w, "skirtingLength", from, run));
            edges.Add(Along(ceiling, w, "corniceLength", 0, run));
        }

        ImmutableArray<Dimension> dimensions =
        [
            new(room.Long.Read(system), left + length / 2, top - height, false), new(room.Wide.Read(system), left - height, top + width / 2, true), new(room.High.Read(system), left, top - height / 2, true),
        ];
        return new(ceiling.X + length + margin, top + width + height + margin, surfaces, cuts.ToImmutable(), edges.ToImmutable(), dimensions, walls.Left);
    }

    /// <summary>Puts each opening on the wall with the most free length; what does not fit side by side is counted but not drawn.</summary>
    private static (List<Opening>[] OnWall, int Left) Arrange(Place room, decimal length, decimal width, Func<Length, decimal> mm)
    {
        const int mostDrawn = 200;
        decimal[] free = [length, width, length, width];
        List<Opening>[] walls = [[], [], [], []];
        var (left, drawn) = (0, 0);
        foreach (var opening in room.Openings)
        {
            for (var i = 0; i < opening.Count; i++)
            {
                var wall = Array.IndexOf(free, free.Max());
                if (mm(opening.Width) > free[wall] || drawn >= mostDrawn)
                {
                    left += opening.Count - i;
                    break;
                }
                walls[wall].Add(opening with { Count = 1 });
                free[wall] -= mm(opening.Width);
                drawn++;
            }
        }
        return (walls, left);
    }

    /// <summary>A box standing on a wall that is folded away from the floor.</summary>
    private static Box OnWall(Box wall, int side, decimal along, decimal width, decimal above, decimal height) => side switch
    {
        0 => new(wall.X + along, wall.Y + wall.Height - above - height, width, height),
        1 => new(wall.X + above, wall.Y + along, height, width),
        2 => new(wall.X + along, wall.Y + above, width, height),
        _ => new(wall.X + wall.Width - above - height, wall.Y + along, height, width),
    };

    private static Edge Along(Box floor, int side, string kind, decimal from, decimal to) => side switch
    {
        0 => new(kind, floor.X + from, floor.Y, floor.X + to, floor.Y),
        1 => new(kind, floor.X + floor.Width, floor.Y + from, floor.X + floor.Width, floor.Y + to),
        2 => new(kind, floor.X + from, floor.Y + floor.Height, floor.X + to, floor.Y + floor.Height),
        _ => new(kind, floor.X, floor.Y + from, floor.X, floor.Y + to),
    };
}
