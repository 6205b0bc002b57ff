using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A line of the contract and how much of it is done (M4).</summary>
/// <param name="Value">Its contract value.</param>
/// <param name="Percent">Of it, 0 to 100; an item that is billed whole is at 100.</param>
public sealed record LineDone(ByCategory Value, decimal Percent);

/// <summary>The value of work that is done.</summary>
public static class WorkDone
{
    /// <summary>Value to date: rounded once, and shared over the categories of the lines that it is of (M4).</summary>
    /// <param name="lines">The lines.</param>
    /// <param name="categories">How many categories there are.</param>
    /// <param name="places">Places of the currency.</param>
    /// <exception cref="RefusedException">A line is done to less than nothing, or more than all.</exception>
    public static ByCategory ToDate(IEnumerable<LineDone> lines, int categories, int places)
    {
        var exact = new decimal[categories];
        foreach (var line in lines)
        {
            if (line.Percent is < 0 or > 100)
                throw RefusedException.Of("percent", "Work is done to 0 to 100 %.");
            for (var i = 0; i < categories; i++)
                exact[i] += line.Value[i] * line.Percent / 100m;
        }
        var value = Rounding.Money(exact.Sum(), places);
        // Where nothing is below nothing, largest remainder keeps each within a unit of what it exactly is.
        if (exact.All(e => e >= 0))
            return new([.. Split.ByLargestRemainder(value, exact, places)]);
        var rounded = exact.Select(e => Rounding.Money(e, places)).ToArray();
        rounded[Array.IndexOf(exact, exact.Max())] += value - rounded.Sum();
        return new([.. rounded]);
    }
}
