using System.Globalization;

namespace Emendum.Core.Quantities;

/// <summary>The only places where numbers are rounded (estimating model §1, architecture decision 9).</summary>
public static class Rounding
{
    /// <summary>Inputs are bounded: |x| below this, at most <see cref="InputDecimals"/> decimals.</summary>
    public const decimal InputBound = 1_000_000_000m;

    /// <summary>Most decimals an input may have.</summary>
    public const int InputDecimals = 6;

    /// <summary>A figure, when it is made: 12 places, half away from zero.</summary>
    public static decimal Figure(decimal value) => decimal.Round(value, 12, MidpointRounding.AwayFromZero);

    /// <summary>What ceilings, breaks and limits compare: 9 places, so that three thirds of two metres are two metres.</summary>
    public static decimal ForCompare(decimal value) => decimal.Round(value, 9, MidpointRounding.AwayFromZero);

    /// <summary>Whole number not below the value, after rounding to 9 places.</summary>
    public static decimal Ceiling(decimal value) => decimal.Ceiling(ForCompare(value));

    /// <summary>Money to <paramref name="places"/> places, after rounding to 9, half away from zero.</summary>
    public static decimal Money(decimal value, int places = 2) =>
        decimal.Round(ForCompare(value), places, MidpointRounding.AwayFromZero);

    /// <summary>A figure with as many decimals as are read back from what is kept.</summary>
    public static decimal Kept(decimal value) => decimal.Round(value, InputDecimals, MidpointRounding.AwayFromZero);

    /// <summary>So many significant figures, for reading only.</summary>
    public static decimal Digits(decimal value, int figures)
    {
        if (value == 0)
            return 0;
        var before = 0;
        for (var size = decimal.Abs(value); size >= 1; size /= 10)
            before++;
        for (var size = decimal.Abs(value); size < 0.1m; size *= 10)
            before--;
        return decimal.Round(value, int.Clamp(figures - before, 0, 28), MidpointRounding.AwayFromZero);
    }

    /// <summary>Shortest text of a decimal: invariant, no trailing zeros.</summary>
    public static string Text(decimal value) =>
        value.ToString("0.############################", CultureInfo.InvariantCulture);

    /// <summary>Reads an input decimal: sign, digits, point. Null when it is not one or is out of bounds.</summary>
    public static decimal? ReadInput(string text)
    {
        const NumberStyles style = NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint;
        if (!decimal.TryParse(text, style, CultureInfo.InvariantCulture, out var value))
            return null;
        return decimal.Abs(value) < InputBound && decimal.Round(value, InputDecimals) == value ? value : null;
    }
}
