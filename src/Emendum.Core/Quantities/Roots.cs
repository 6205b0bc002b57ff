namespace Emendum.Core.Quantities;

/// <summary>Square roots, sines and cosines of decimals, to 12 places (architecture decision 9). Quarter turns are exact.</summary>
public static class Roots
{
    private const decimal Pi = 3.1415926535897932384626433833m;

    /// <summary>Square root to 12 places, half away from zero. Of zero and below: zero.</summary>
    public static decimal Sqrt(decimal value)
    {
        if (value <= 0)
            return 0;
        var root = (decimal)Math.Sqrt((double)value);
        // Newton from 15 good digits: two steps reach the last digit a decimal has.
        for (var i = 0; i < 3 && root > 0; i++)
            root = (root + value / root) / 2;
        return Rounding.Figure(root);
    }

    /// <summary>Cosine and sine of an angle in degrees.</summary>
    public static (decimal Cos, decimal Sin) Turn(decimal degrees)
    {
        var within = degrees % 360;
        if (within < 0)
            within += 360;
        return within switch
        {
            0 => (1, 0),
            90 => (0, 1),
            180 => (-1, 0),
            270 => (0, -1),
            _ => (Series(within + 90), Series(within)),
        };
    }

    /// <summary>Sine by its power series, from an angle brought between −90° and 90°.</summary>
    private static decimal Series(decimal degrees)
    {
        var within = degrees % 360;
        if (within > 270)
            within -= 360;
        else if (within > 90)
            within = 180 - within;
        var x = within * Pi / 180;
        decimal term = x,
            sum = x;
        for (var n = 1; n < 20; n++)
        {
            term = -term * x * x / (2 * n) / (2 * n + 1);
            sum += term;
        }
        return Rounding.Figure(sum);
    }
}
