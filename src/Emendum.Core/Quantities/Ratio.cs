using System.Text.RegularExpressions;

namespace Emendum.Core.Quantities;

/// <summary>
/// Two typed numbers with their units, "A per B", as the trade says it either way round: <c>125 ft² per h</c>, <c>0.3 h per 100 m²</c>,
/// <c>1 t per 31 m²</c>. Both numbers are kept; a ratio is applied as quantity × numerator ÷ denominator and never stored as one decimal.
/// </summary>
public sealed partial record Ratio(decimal A, Unit UnitA, decimal B, Unit UnitB)
{
    [GeneratedRegex(@"^\s*(?<a>[0-9.]+)\s*(?<ua>[^\s0-9][^\s]*)\s+(?:per|/)\s+(?:(?<b>[0-9.]+)\s*)?(?<ub>[^\s0-9][^\s]*)\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex Shape();

    /// <summary>Reads a ratio as people write it.</summary>
    /// <exception cref="RefusedException">Not in that form, an unknown unit, zero, or out of bounds.</exception>
    public static Ratio Parse(string text, string field = "ratio")
    {
        var match = Shape().Match(text);
        if (!match.Success) throw RefusedException.Of(field, $"“{text.Trim()}” is not a rate. Write it like 125 ft² per h, or 0.3 h per 100 m².");
        decimal Number(string group, string missing) =>
            Rounding.ReadInput(match.Groups[group].Success ? match.Groups[group].Value : missing)
            ?? throw RefusedException.Of(field, $"“{match.Groups[group].Value}” is not a number of at most six decimals.");
        Unit Named(string group) =>
            Unit.Find(match.Groups[group].Value) ?? throw RefusedException.Of(field, $"“{match.Groups[group].Value}” is not a unit known here. Try ft², m², ft, m, gal, L, kg, door or h.");
        var ratio = new Ratio(Number("a", ""), Named("ua"), Number("b", "1"), Named("ub"));
        if (ratio.A <= 0 || ratio.B <= 0) throw RefusedException.Of(field, "A rate must be more than zero on both sides.");
        if (ratio.UnitA.Kind == ratio.UnitB.Kind && ratio.UnitA.Kind == Kind.Time) throw RefusedException.Of(field, "A rate needs a quantity on one side, not time on both.");
        return ratio;
    }

    /// <summary>The numbers to multiply by and divide by, with their units, to turn a quantity of kind <paramref name="from"/> into the other side.
    /// When both sides are of one kind (1 ft² per ft²) a quantity on the B side gives the A side.</summary>
    /// <exception cref="RefusedException">Neither side is of that kind.</exception>
    public (decimal Times, Unit To, decimal Over, Unit From) Turn(Kind from)
    {
        if (UnitB.Kind == from) return (A, UnitA, B, UnitB);
        if (UnitA.Kind == from) return (B, UnitB, A, UnitA);
        throw RefusedException.Of("ratio", $"“{this}” cannot be applied to a {from.ToString().ToLowerInvariant()}.");
    }

    /// <summary>The notation <see cref="Parse"/> reads back to an equal ratio.</summary>
    public override string ToString() => $"{Rounding.Text(A)} {UnitA} per {(B == 1 ? "" : Rounding.Text(B) + " ")}{UnitB}";
}
