using System.Text.RegularExpressions;

namespace Emendum.Core.Quantities;

/// <summary>
/// Two typed numbers with their units, "A per B", as the trade says it either way round: <c>125 ft² per h</c>, <c>0.3 h per 100 m²</c>,
/// <c>1 t per 31 m²</c>. Both numbers are kept; a ratio is applied as quantity × numerator ÷ denominator and never stored as one decimal.
/// </summary>
public sealed partial record Ratio(decimal A, Unit UnitA, decimal B, Unit UnitB)
{
    [GeneratedRegex(
        @"^\s*(?<a>[0-9.]+)\s*(?<ua>[^\s0-9/][^\s/]*)\s*(?:\bper\b|/)\s*(?:(?<b>[0-9.]+)\s*)?(?<ub>[^\s0-9/][^\s/]*)\s*$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Shape();

    [GeneratedRegex(@"(?<=\d),(?=\d{3}\b)")]
    private static partial Regex Thousands();

    [GeneratedRegex(
        @"\b(?<what>sq|square|cu|cubic|lin|linear)\.?\s+(?<of>ft|feet|foot|yd|yards?|m|metres?|meters?|in|inch|inches)\b",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex LongUnit();

    [GeneratedRegex(@"\s(?:an?|every|for(?:\s+every)?|to\s+the|in\s+an?)\s(?=\s*[\p{L}\d])", RegexOptions.IgnoreCase)]
    private static partial Regex SaidPer();

    /// <summary>The same in the short form: <c>125 sq ft an hour</c> is <c>125 ft² per hour</c>, <c>1 hour for 1,000 m²</c> is <c>1 hour per 1000 m²</c>.</summary>
    private static string Short(string text)
    {
        text = Thousands().Replace(text, "");
        text = LongUnit()
            .Replace(
                text,
                m =>
                {
                    var of = m.Groups["of"].Value.ToLowerInvariant();
                    var unit =
                        of[0] == 'f' ? "ft"
                        : of[0] == 'y' ? "yd"
                        : of[0] == 'm' ? "m"
                        : "in";
                    return unit
                        + char.ToLowerInvariant(m.Groups["what"].Value[0]) switch
                        {
                            's' => "²",
                            'c' => "³",
                            _ => "",
                        };
                }
            );
        return SaidPer().Replace(text, " per ", 1);
    }

    /// <summary>Reads a ratio as people write it.</summary>
    /// <exception cref="RefusedException">Not in that form, an unknown unit, zero, or out of bounds.</exception>
    public static Ratio Parse(string text, string field = "ratio")
    {
        var match = Shape().Match(Short(text));
        if (!match.Success)
            throw RefusedException.Of(
                field,
                $"“{text.Trim()}” is not a rate. Write it like 125 ft² per h, or 0.3 h per 100 m²."
            );
        decimal Number(string group, string missing) =>
            Rounding.ReadInput(match.Groups[group].Success ? match.Groups[group].Value : missing)
            ?? throw RefusedException.Of(
                field,
                $"“{match.Groups[group].Value}” is not a number of at most six decimals."
            );
        Unit Named(string group) =>
            Unit.Find(match.Groups[group].Value)
            ?? throw RefusedException.Of(
                field,
                $"“{match.Groups[group].Value}” is not a unit known here. Try ft², m², ft, m, gal, L, kg, door or h."
            );
        var ratio = new Ratio(Number("a", ""), Named("ua"), Number("b", "1"), Named("ub"));
        if (ratio.A <= 0 || ratio.B <= 0)
            throw RefusedException.Of(field, "A rate must be more than zero on both sides.");
        return ratio;
    }

    /// <summary>The numbers to multiply by and divide by, with their units, to turn a quantity of kind <paramref name="from"/> into the other side.
    /// When both sides are of one kind (1 ft² per ft²) a quantity on the B side gives the A side.</summary>
    /// <exception cref="RefusedException">Neither side is of that kind.</exception>
    public (decimal Times, Unit To, decimal Over, Unit From) Turn(Kind from)
    {
        if (UnitB.Kind == from)
            return (A, UnitA, B, UnitB);
        if (UnitA.Kind == from)
            return (B, UnitB, A, UnitA);
        throw RefusedException.Of("ratio", $"“{this}” cannot be applied to a {from.ToString().ToLowerInvariant()}.");
    }

    /// <summary>The same the other way round, for one of the first side: <c>125 ft² per h</c> is <c>0.48 min per ft²</c>. Rounded to four figures, for reading only.</summary>
    public string OtherWay()
    {
        var (value, unit) = (B / A, UnitB);
        if (unit == Unit.Hour && value < 1)
            (value, unit) = (value * 60, Unit.Minute);
        return $"{Rounding.Text(Rounding.Digits(value, 4))} {unit} per {UnitA}";
    }

    /// <summary>A percentage of what drives it, <c>30 %</c>, as a ratio in one unit.</summary>
    public static Ratio? OfPercent(string text, Unit unit) =>
        text.Trim().EndsWith('%') && Rounding.ReadInput(text.Trim().TrimEnd('%').Trim()) is { } percent and > 0
            ? new(percent, unit, 100, unit)
            : null;

    /// <summary>The notation <see cref="Parse"/> reads back to an equal ratio.</summary>
    public override string ToString() =>
        $"{Rounding.Text(A)} {UnitA} per {(B == 1 ? "" : Rounding.Text(B) + " ")}{UnitB}";
}
