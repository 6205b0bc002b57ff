using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>What makes a room impossible, however it was entered.</summary>
public static class RoomLimits
{
    private const decimal LongestMillimetres = 10_000_000m;

    /// <summary>Refuses sizes that are not above zero or over 10 km, openings larger than the largest wall, and openings that exceed the walls together.</summary>
    /// <exception cref="RefusedException">With a sentence naming the opening.</exception>
    public static void Check(TapeReading room, UnitSystem system)
    {
        foreach (var (length, name) in new[] { (room.Long, "length"), (room.Wide, "width"), (room.High, "height") }) Size(length, name);
        if (room.Count < 1) throw RefusedException.Of("line", "A room stands for at least one.");
        var longer = decimal.Max(Millimetres(room.Long), Millimetres(room.Wide));
        var total = 0m;
        foreach (var opening in room.Openings)
        {
            var words = RoomMeasures.Words(opening.Kind);
            Size(opening.Width, words + " width");
            Size(opening.Height, words + " height");
            if (opening.Depth is { } depth) Size(depth, words + " depth");
            if (opening.Count < 1) throw RefusedException.Of("line", $"A {words} is counted at least once.");
            if (Millimetres(opening.Width) > longer || Millimetres(opening.Height) > Millimetres(room.High))
                throw RefusedException.Of("line", $"The {words} {opening.Width.Read(system)} × {opening.Height.Read(system)} is larger than the largest wall, {(longer == Millimetres(room.Long) ? room.Long : room.Wide).Read(system)} × {room.High.Read(system)}.");
            total += opening.Count * Millimetres(opening.Width) * Millimetres(opening.Height);
        }
        var walls = 2 * (Millimetres(room.Long) + Millimetres(room.Wide)) * Millimetres(room.High);
        if (total > walls) throw RefusedException.Of("line", "The openings together are larger than the walls.");
    }

    private static decimal Millimetres(Length length) => length.Value * length.Unit.Factor;

    private static void Size(Length length, string name)
    {
        if (length.Unit != Unit.Inch && length.Unit != Unit.Millimetre) throw RefusedException.Of("line", $"The {name} must be kept in inches or millimetres.");
        if (length.Value <= 0) throw RefusedException.Of("line", $"The {name} must be more than zero.");
        if (Millimetres(length) > LongestMillimetres) throw RefusedException.Of("line", $"The {name} is over 10 km: check the unit.");
    }
}
