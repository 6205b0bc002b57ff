using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>How much of the value is kept back until the work has stood its time (M10, M12).</summary>
/// <param name="Percent">Of the value to date, before tax; 0 for none.</param>
/// <param name="Cap">Most that is kept back, in money; null for none.</param>
/// <param name="CapPercent">Most that is kept back, in percent of the contract sum as it is that day; null for none.</param>
/// <param name="Releases">Cumulative shares, in percent of all that was retained, by which it is given back: 50, 100.</param>
public sealed record Retention(decimal Percent, decimal? Cap, decimal? CapPercent, ImmutableArray<decimal> Releases)
{
    /// <summary>Nothing is kept back.</summary>
    public static readonly Retention None = new(0, null, null, []);

    /// <summary>Refuses what is no retention.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (Percent is < 0 or > 100)
            throw RefusedException.Of("percent", "Retention is 0 to 100 % of the value.");
        if (Cap < 0 || CapPercent is < 0 or > 100)
            throw RefusedException.Of("cap", "A cap is money, or 0 to 100 % of the contract sum.");
        if (Releases.Any(r => r is <= 0 or > 100) || !Releases.SequenceEqual(Releases.Order().Distinct()))
            throw RefusedException.Of("releases", "Releases are rising shares of what was retained, up to 100 %.");
        if (Percent > 0 && (Releases.IsEmpty || Releases[^1] != 100))
            throw RefusedException.Of("releases", "The last release gives back all that was retained.");
    }

    /// <summary>What is to have been retained of a value to date.</summary>
    /// <param name="value">The value to date, before tax.</param>
    /// <param name="contractSum">The contract sum as it is that day.</param>
    /// <param name="places">Places of the currency.</param>
    public decimal ToDate(decimal value, decimal contractSum, int places)
    {
        var retained = Rounding.Money(Math.Max(value, 0) * Percent / 100m, places);
        if (Cap is { } money)
            retained = Math.Min(retained, money);
        if (CapPercent is { } percent)
            retained = Math.Min(retained, Rounding.Money(Math.Max(contractSum, 0) * percent / 100m, places));
        return retained;
    }

    /// <summary>What a release gives back: its cumulative share of all that was retained, less what was given back before (M12).</summary>
    /// <param name="number">Which release, from 1.</param>
    /// <param name="retained">All that was retained.</param>
    /// <param name="released">What was given back before.</param>
    /// <param name="places">Places of the currency.</param>
    public decimal Release(int number, decimal retained, decimal released, int places) =>
        number < 1 || number > Releases.Length
            ? throw RefusedException.Of("release", $"There are {Releases.Length} releases.")
            : Math.Max(Rounding.Money(retained * Releases[number - 1] / 100m, places) - released, 0);
}
