using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Proposals;

/// <summary>A part of the proposal. The page and the PDF render the same blocks (architecture decision 20).</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "type")]
[JsonDerivedType(typeof(Letterhead), "letterhead")]
[JsonDerivedType(typeof(Heading), "heading")]
[JsonDerivedType(typeof(Paragraph), "paragraph")]
[JsonDerivedType(typeof(Bullets), "bullets")]
[JsonDerivedType(typeof(PriceTable), "priceTable")]
[JsonDerivedType(typeof(Signature), "signature")]
public abstract record Block;

/// <summary>Who writes to whom, about what, when.</summary>
public sealed record Letterhead(
    string Firm,
    string FirmAddress,
    string Customer,
    string CustomerAddress,
    string Title,
    string Subtitle,
    string Reference,
    string Validity
) : Block;

/// <summary>A heading; sub-headings are level 2.</summary>
public sealed record Heading(int Level, string Text) : Block;

/// <summary>A paragraph.</summary>
public sealed record Paragraph(string Text) : Block;

/// <summary>A list; each item may begin with a few stressed words.</summary>
public sealed record Bullets(ImmutableArray<Bullet> Items) : Block;

/// <summary>One item of a list.</summary>
public sealed record Bullet(string Strong, string Text);

/// <summary>What a row of the price is.</summary>
public enum RowKind
{
    Group,
    Part,
    Discount,
    Subtotal,
    Tax,
    Total,
}

/// <summary>A row of the price.</summary>
/// <param name="Kind">What it is; a group has no amount.</param>
/// <param name="Label">Its words.</param>
/// <param name="Detail">More words, lighter.</param>
/// <param name="Amount">Money to the cent.</param>
/// <param name="Figure">Path of the figure.</param>
public sealed record PriceRow(RowKind Kind, string Label, string Detail, decimal? Amount, string? Figure)
{
    /// <summary>Places of its money.</summary>
    [JsonIgnore]
    public int Places { get; init; } = 2;

    /// <summary>The amount as it is read, on page and paper alike.</summary>
    public string Shown => Amount is { } amount ? Quantities.Shown.Money(amount, Places) : "";
}

/// <summary>The price. Its parts add up to the price before tax, and that with the tax to the total.</summary>
public sealed record PriceTable(string Currency, ImmutableArray<PriceRow> Rows) : Block
{
    /// <summary>Rows in the money of a job.</summary>
    internal static PriceTable Of(Pricing.Estimate estimate, IEnumerable<PriceRow> rows) =>
        new(estimate.Job.Info.Currency, [.. rows.Select(r => r with { Places = estimate.MoneyPlaces })]);
}

/// <summary>Where to sign.</summary>
public sealed record Signature(string For, string By) : Block;
