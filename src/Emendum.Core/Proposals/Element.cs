using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Proposals;

/// <summary>What a block is made of. The page and the PDF render the same elements (architecture decision 20).</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "type")]
[JsonDerivedType(typeof(Heading), "heading")]
[JsonDerivedType(typeof(Paragraph), "paragraph")]
[JsonDerivedType(typeof(Bullets), "bullets")]
[JsonDerivedType(typeof(PriceTable), "priceTable")]
[JsonDerivedType(typeof(Signature), "signature")]
[JsonDerivedType(typeof(SignedBy), "signed")]
[JsonDerivedType(typeof(PictureRow), "pictures")]
[JsonDerivedType(typeof(Attached), "attached")]
public abstract record Element;

/// <summary>A heading within a block: level 1 is its title, level 2 what stands under it.</summary>
public sealed record Heading(int Level, string Text) : Element;

/// <summary>A paragraph.</summary>
public sealed record Paragraph(ImmutableArray<Span> Spans) : Element
{
    /// <summary>Its words without marks.</summary>
    [JsonIgnore]
    public string Text => Span.Plain(Spans);
}

/// <summary>A list.</summary>
public sealed record Bullets(ImmutableArray<Bullet> Items) : Element;

/// <summary>One item of a list.</summary>
public sealed record Bullet(ImmutableArray<Span> Spans)
{
    /// <summary>Its words without marks.</summary>
    [JsonIgnore]
    public string Text => Span.Plain(Spans);
}

/// <summary>How words stand.</summary>
public enum Stress
{
    Plain,
    Strong,
    Slanted,
}

/// <summary>Words that stand alike.</summary>
/// <param name="Text">The words.</param>
/// <param name="Stress">How they stand.</param>
public sealed record Span(string Text, Stress Stress = Stress.Plain)
{
    /// <summary>Name of the figure that they are; null where they are just words.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Name { get; init; }

    /// <summary>Path of that figure; null where it has no workings.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Figure { get; init; }

    /// <summary>Spans as plain words.</summary>
    public static string Plain(IEnumerable<Span> spans) => string.Concat(spans.Select(s => s.Text));
}

/// <summary>What a row of the price is.</summary>
public enum RowKind
{
    Group,

    /// <summary>Work that the rows below it are of, by place.</summary>
    Work,
    Part,
    Discount,
    Subtotal,
    Tax,
    Total,
}

/// <summary>A row of the price.</summary>
/// <param name="Kind">What it is; groups and work have no amount.</param>
/// <param name="Label">Its words.</param>
/// <param name="Detail">More words, lighter.</param>
/// <param name="Amount">Money in the places of its currency.</param>
/// <param name="Figure">Path of the figure.</param>
public sealed record PriceRow(RowKind Kind, string Label, string Detail, decimal? Amount, string? Figure)
{
    /// <summary>The amount as it is read, on page and paper alike.</summary>
    public string Shown { get; init; } = "";

    /// <summary>How much of it, with unit; empty where that is not shown.</summary>
    public string Quantity { get; init; } = "";

    /// <summary>Price of a unit; empty where that is not shown.</summary>
    public string UnitPrice { get; init; } = "";

    /// <summary>Hours of it; empty where they are not shown.</summary>
    public string Hours { get; init; } = "";

    /// <summary>The customer's own number for it; empty where it has none.</summary>
    public string Number { get; init; } = "";

    /// <summary>What it counts, where it is a row of the customer's schedule.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public ScheduleNumbers? Of { get; init; }
}

/// <summary>A row of the customer's schedule as numbers, for tables that reckon on.</summary>
/// <param name="Quantity">The customer's quantity.</param>
/// <param name="Unit">The customer's unit, as written.</param>
/// <param name="UnitPrice">Money; null where the row has no price or counts nothing.</param>
public sealed record ScheduleNumbers(decimal Quantity, string Unit, decimal? UnitPrice);

/// <summary>Money in rows. Where it has a total, its parts add up to the price before tax, and that with the tax to the total.</summary>
public sealed record PriceTable(string Currency, ImmutableArray<PriceRow> Rows) : Element;

/// <summary>Where to sign.</summary>
public sealed record Signature(string For, string By) : Element;

/// <summary>A name under what was agreed.</summary>
/// <param name="For">For whom.</param>
/// <param name="Name">The name in full.</param>
/// <param name="Drawn">It as it was drawn (<see cref="Drawing"/>); empty where it was typed.</param>
/// <param name="At">When, in words.</param>
public sealed record SignedBy(string For, string Name, string Drawn, string At) : Element;

/// <summary>Pictures side by side, all as high as each other.</summary>
public sealed record PictureRow(ImmutableArray<Pictured> Pictures) : Element;

/// <summary>A picture with its caption.</summary>
/// <param name="File">SHA-256 of the file.</param>
/// <param name="Caption">Its caption; empty for none.</param>
/// <param name="Width">Points as it stands upright.</param>
/// <param name="Height">Points.</param>
/// <param name="Share">How wide it stands, in percent of what a row of its pictures has beside the gaps between them.</param>
public sealed record Pictured(string File, string Caption, int Width, int Height, decimal Share);

/// <summary>Files that go with the proposal.</summary>
public sealed record Attached(ImmutableArray<AttachedFile> Files) : Element;

/// <summary>A file that goes with the proposal.</summary>
/// <param name="File">SHA-256 of the file.</param>
/// <param name="Name">Its name.</param>
public sealed record AttachedFile(string File, string Name);
