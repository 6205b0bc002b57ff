using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>Net wall area of each height band and of what is above them. The bands add up to the room's net walls.</summary>
internal static class BandMeasures
{
    /// <summary>How high a window's bottom is taken to be where it was not measured: 3 ft, or the middle of a lower wall.</summary>
    public static readonly decimal UsualBottom = 914.4m;

    /// <summary>Makes the bands' figures.</summary>
    public static void Of(Measuring tape, Room room, List<RoomMeasures.Stretch> walls, List<OpeningMeasures.Hole> holes)
    {
        if (room.Bands.IsEmpty)
            return;
        Val below = 0m;
        var tops = room.Bands.Select(b => tape.Read(b.Top, tape.On ? "top of " + b.Name : "")).ToArray();
        var roof = walls.Max(w => decimal.Max(w.From.V, w.To.V));
        for (var i = 0; i <= tops.Length; i++)
        {
            var top = i < tops.Length ? tops[i] : (Val?)null;
            var sum = new Sum();
            foreach (var wall in walls)
                sum.Add(Under(wall, top) - (i == 0 ? 0m : Under(wall, below)));
            Val net = sum.Total;
            foreach (var hole in holes)
            {
                if (hole.Part.Times == 0)
                    continue;
                var inBand = Overlap(tape, hole, below, top, roof);
                if (inBand.V == 0)
                    continue;
                var taken = hole.Count * hole.Width * inBand;
                net -= hole.Part.Over == 1 ? taken : taken / hole.Part.Over;
            }
            tape.Extra(
                $"bands/{i + 1}",
                i < tops.Length ? "Band " + room.Bands[i].Name : "Above the bands",
                Kind.Area,
                net
            );
            if (top is { } t)
                below = t;
        }
    }

    /// <summary>Area of a wall up to a height; the whole of it for none.</summary>
    private static Val Under(RoomMeasures.Stretch wall, Val? height)
    {
        if (height is not { } top || (wall.From.V <= top.V && wall.To.V <= top.V))
            return wall.Area;
        if (wall.From.V >= top.V && wall.To.V >= top.V)
            return wall.Length * top;
        var (low, high) = wall.From.V < wall.To.V ? (wall.From, wall.To) : (wall.To, wall.From);
        // The head crosses the height: below it a trapezoid, beyond it a rectangle.
        var crossing = wall.Length * (top - low) / (high - low);
        return crossing * (low + top) / 2 + (wall.Length - crossing) * top;
    }

    /// <summary>How much of an opening's height lies in the band.</summary>
    private static Val Overlap(Measuring tape, OpeningMeasures.Hole hole, Val below, Val? above, decimal roof)
    {
        var bottom = BottomOf(tape, hole, roof);
        var top = bottom + hole.Height;
        var from = bottom.V > below.V ? bottom : below;
        var to = above is { } a && a.V < top.V ? a : top;
        return to.V > from.V ? to - from : 0m;
    }

    private static Val BottomOf(Measuring tape, OpeningMeasures.Hole hole, decimal roof)
    {
        if (hole.Opening.ReachesFloor)
            return 0m;
        if (hole.Opening.Bottom is { } bottom)
            return tape.Read(bottom, "height of its bottom");
        var usual = UsualBottom / tape.Unit.Factor;
        return decimal.Min(usual, decimal.Max(0, (roof - hole.Height.V) / 2));
    }
}
