using System.Collections.Immutable;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

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

    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override UnitPrice Sold =>
        new(Price, Unit)
        {
            BreakKind = BreakKind,
            Breaks = Breaks,
            NeverMoreThanNext = NeverMoreThanNext,
        };

    internal override void Check(BookCheck check)
    {
        CheckWork(check);
        if (Sold.Wrong(Measure) is var (field, message))
            throw check.Wrong(field, message);
        if (UnitPrice is not null)
            throw check.Wrong("unitPrice", "a price-only item has its price already.");
        if (Minimum < 0)
            throw check.Wrong("minimum", "a minimum is not below zero.");
    }
}
