using System.Collections.Immutable;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>How the price of a price-only item goes down with its quantity in the job.</summary>
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

/// <summary>Work that is sold at a price without a cost behind it.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Section">Heading in grid and proposal.</param>
/// <param name="Measure">What it is measured against.</param>
/// <param name="Unit">What the price is for.</param>
/// <param name="Price">Money per unit, below the first break; of packages, for each further one.</param>
/// <param name="Wording">What the customer reads.</param>
/// <param name="CrewNote">What the crew reads.</param>
public sealed record PriceOnlyItem(
    Guid Id,
    int Version,
    string Name,
    string Section,
    Measure Measure,
    Unit Unit,
    decimal Price,
    string Wording,
    string CrewNote
) : WorkEntry(Id, Version, Name, Section, Measure, Wording, CrewNote)
{
    /// <summary>Least money for it in a job where it is done at all.</summary>
    public decimal Minimum { get; init; }

    /// <summary>Whether tax falls on it.</summary>
    public bool Taxable { get; init; } = true;

    /// <summary>How breaks work.</summary>
    public BreakKind BreakKind { get; init; }

    /// <summary>From small to large; tested on the item's included quantity in the job, after rounding to 9 places.</summary>
    public ImmutableArray<Break> Breaks { get; init; } = [];

    /// <summary>With whole-quantity breaks: a quantity never costs more than the next break would.</summary>
    public bool NeverMoreThanNext { get; init; }

    internal override void Check(BookCheck check)
    {
        CheckWork(check);
        if (Price < 0)
            throw check.Wrong("price", "the price cannot be below zero.");
        if (Minimum < 0)
            throw check.Wrong("minimum", "a minimum is not below zero.");
        if (Unit.Kind != Measure.Kind())
            throw check.Wrong("unit", $"{Measure.Name()} is {BookCheck.Words(Measure.Kind())}, not counted in {Unit}.");
        if (BreakKind == BreakKind.None != Breaks.IsEmpty)
            throw check.Wrong("breaks", BreakKind == BreakKind.None ? "say how the breaks work." : "it needs a break.");
        check.Most(Breaks.Length, 50, "breaks", "breaks");
        for (var i = 0; i < Breaks.Length; i++)
        {
            if (Breaks[i].Price < 0)
                throw check.Wrong($"breaks[{i}].price", "a price cannot be below zero.");
            if (Breaks[i].From <= (i == 0 ? 0 : Breaks[i - 1].From))
                throw check.Wrong($"breaks[{i}].from", "breaks go from small to large, above zero.");
        }
    }
}
