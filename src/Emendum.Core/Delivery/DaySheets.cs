using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A line of a day sheet: hours at their rate, or goods at their price.</summary>
/// <param name="Quantity">How much.</param>
/// <param name="Rate">For one.</param>
public sealed record DaySheetLine(decimal Quantity, decimal Rate);

/// <summary>A sheet of what was worked and used on a day.</summary>
/// <param name="Lines">Its lines.</param>
/// <param name="IsSigned">Whether the customer signed it: only then is it billed.</param>
public sealed record DaySheet(ImmutableArray<DaySheetLine> Lines, bool IsSigned)
{
    /// <summary>Before tax, each line rounded (M28).</summary>
    public decimal Value(int places) => Lines.Sum(l => Rounding.Money(l.Quantity * l.Rate, places));
}

/// <summary>Time and material (M28): what signed sheets come to under a cap.</summary>
/// <param name="Billed">What each signed sheet bills, in order.</param>
/// <param name="Above">What is above the cap: listed, and not billed.</param>
public sealed record DaySheets(ImmutableArray<decimal> Billed, decimal Above)
{
    /// <summary>That of sheets in their order.</summary>
    /// <param name="sheets">The sheets.</param>
    /// <param name="cap">Most that is billed, before tax, over hours and goods; null for none.</param>
    /// <param name="places">Places of the currency.</param>
    public static DaySheets Of(IEnumerable<DaySheet> sheets, decimal? cap, int places)
    {
        var billed = ImmutableArray.CreateBuilder<decimal>();
        var (so, above) = (0m, 0m);
        foreach (var sheet in sheets.Where(s => s.IsSigned))
        {
            var value = sheet.Value(places);
            var bears = cap is { } most ? Math.Clamp(most - so, 0, Math.Max(value, 0)) : value;
            billed.Add(bears);
            so += bears;
            above += value - bears;
        }
        return new(billed.ToImmutable(), above);
    }

    /// <summary>The contract sum: the signed estimate until the last sheet, then what was signed for, at most the cap.</summary>
    /// <param name="estimate">The signed estimate, before tax.</param>
    /// <param name="ended">Whether the last sheet is in.</param>
    public decimal ContractSum(decimal estimate, bool ended) => ended ? Billed.Sum() : estimate;
}
