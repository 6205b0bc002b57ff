using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>A length off the tape: exact in decimal inches or millimetres, with the text it was typed as.</summary>
/// <param name="Value">Size in <paramref name="Unit"/>; more than zero, but for a coordinate.</param>
/// <param name="Unit">Inch or millimetre.</param>
/// <param name="Typed">As typed, for showing and for the workings.</param>
public sealed record Length(decimal Value, Unit Unit, string Typed)
{
    /// <summary>Longest length that is taken, in mm: 10 km.</summary>
    public const decimal Longest = 10_000_000m;

    /// <summary>Size in millimetres, exact.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public decimal Millimetres => Value * Unit.Factor;

    /// <summary>Feet and inches to 1/16, or metres, as a tape reads: <c>14'6"</c>, <c>6'8 1/2"</c>, <c>3.81 m</c>.</summary>
    public string Read(UnitSystem system) =>
        system == UnitSystem.Metres
            ? $"{Rounding.Text(decimal.Round(Millimetres / 1000m, 3, MidpointRounding.AwayFromZero))} m"
            : FeetAndInches(Millimetres / Unit.Inch.Factor);

    /// <summary>Text with its unit that reads back to exactly this length under either system.</summary>
    public string Exact()
    {
        var size = decimal.Abs(Value);
        var text =
            Unit == Unit.Millimetre
                ? Rounding.ReadInput(Rounding.Text(size / 1000)) is not null
                    ? Rounding.Text(size / 1000) + " m"
                    : Rounding.Text(size) + " mm"
                : size * 16 == decimal.Truncate(size * 16)
                    ? FeetAndInches(size)
                    : Rounding.Text(size) + "\"";
        return Value < 0 ? "-" + text : text;
    }

    private static string FeetAndInches(decimal inches)
    {
        if (inches < 0)
            return "-" + FeetAndInches(-inches);
        var sixteenths = decimal.ToInt64(decimal.Round(inches * 16, 0, MidpointRounding.AwayFromZero));
        var (feet, rest) = Math.DivRem(sixteenths, 192);
        var (whole, part) = Math.DivRem(rest, 16);
        var fraction = "";
        if (part > 0)
        {
            var below = 16L;
            while (part % 2 == 0)
                (part, below) = (part / 2, below / 2);
            fraction = $"{part}/{below}";
        }
        var inch = (whole, fraction) switch
        {
            (0, "") => "",
            (0, _) => fraction + "\"",
            (_, "") => $"{whole}\"",
            _ => $"{whole} {fraction}\"",
        };
        return feet == 0
            ? inch.Length == 0
                ? "0\""
                : inch
            : $"{feet}'{inch}";
    }
}
