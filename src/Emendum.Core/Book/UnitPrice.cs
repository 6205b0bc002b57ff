using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>How a price goes down with the quantity in the job.</summary>
public enum BreakKind
{
    /// <summary>One price for any quantity.</summary>
    None,

    /// <summary>The whole quantity at the price reached.</summary>
    Whole,

    /// <summary>Each slice at its own price.</summary>
    Slices,

    /// <summary>So much in all up to a count, and so much for each further one.</summary>
    Packages,
}

/// <summary>A step in a price. Edges are inclusive.</summary>
/// <param name="From">The quantity from which the price holds; of a package, the count up to which it holds.</param>
/// <param name="Price">Money per unit; of a package, in all.</param>
public sealed record Break(decimal From, decimal Price);

/// <summary>What work is sold at for a unit of it.</summary>
/// <param name="Price">Money per unit, below the first break; of packages, for each further one.</param>
/// <param name="Unit">What the price is for.</param>
public sealed record UnitPrice(decimal Price, Unit Unit)
{
    /// <summary>How breaks work.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public BreakKind BreakKind { get; init; }

    /// <summary>From small to large; tested on the work's included quantity in the job, after rounding to 9 places. Null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ImmutableArray<Break>? Breaks { get; init; }

    /// <summary>With whole-quantity breaks: a quantity never costs more than a later break would.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool NeverMoreThanNext { get; init; }

    /// <summary>Refuses what cannot be priced with; gives the field and the sentence, or null.</summary>
    public (string Field, string Message)? Wrong(Measure of)
    {
        if (Price < 0)
            return ("price", "the price cannot be below zero.");
        if (Unit.Kind != of.Kind())
            return ("unit", $"{of.Name()} is {BookCheck.Words(of.Kind())}, not counted in {Unit}.");
        var breaks = Breaks ?? [];
        if (BreakKind == BreakKind.None != breaks.IsEmpty)
            return ("breaks", BreakKind == BreakKind.None ? "say how the breaks work." : "it needs a break.");
        if (breaks.Length > 50)
            return ("breaks", "at most 50 breaks.");
        for (var i = 0; i < breaks.Length; i++)
        {
            if (breaks[i].Price < 0)
                return ($"breaks[{i}].price", "a price cannot be below zero.");
            if (breaks[i].From <= (i == 0 ? 0 : breaks[i - 1].From))
                return ($"breaks[{i}].from", "breaks go from small to large, above zero.");
        }
        return null;
    }
}
