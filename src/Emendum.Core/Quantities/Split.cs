namespace Emendum.Core.Quantities;

/// <summary>Splits an amount into parts that add up to it exactly (architecture decision 12).</summary>
public static class Split
{
    /// <summary>Shares <paramref name="total"/> by weight in steps of 10^-<paramref name="places"/> by largest remainder; ties go to the earlier part.
    /// All weights zero: equal weights. The parts sum to the total, which must be a whole number of steps; a total below zero is split by size, with its sign put back.</summary>
    public static decimal[] ByLargestRemainder(decimal total, decimal[] weights, int places = 2)
    {
        if (total < 0)
            return Array.ConvertAll(ByLargestRemainder(-total, weights, places), part => -part);
        var step = 1m;
        for (var i = 0; i < places; i++)
            step /= 10m;
        var sum = 0m;
        foreach (var weight in weights)
            sum += weight;
        var parts = new decimal[weights.Length];
        if (parts.Length == 0)
            return parts;
        var remainders = new (decimal Remainder, int Index)[parts.Length];
        var given = 0m;
        for (var i = 0; i < parts.Length; i++)
        {
            var exact = Rounding.Figure(sum == 0 ? total / parts.Length : total * weights[i] / sum);
            parts[i] = decimal.Round(exact, places, MidpointRounding.ToNegativeInfinity);
            remainders[i] = (exact - parts[i], i);
            given += parts[i];
        }
        Array.Sort(
            remainders,
            (a, b) => a.Remainder != b.Remainder ? b.Remainder.CompareTo(a.Remainder) : a.Index.CompareTo(b.Index)
        );
        var left = (int)((total - given) / step);
        for (var i = 0; i < left; i++)
            parts[remainders[i % parts.Length].Index] += step;
        return parts;
    }
}
