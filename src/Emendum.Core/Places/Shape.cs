using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>What was measured of a place: one of the six kinds of estimating model §2, or nothing yet.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(Room), "room")]
[JsonDerivedType(typeof(Elevation), "elevation")]
[JsonDerivedType(typeof(Site), "site")]
[JsonDerivedType(typeof(Run), "run")]
[JsonDerivedType(typeof(Stair), "stair")]
[JsonDerivedType(typeof(ItemSet), "items")]
[JsonDerivedType(typeof(Unmeasured), "unmeasured")]
public abstract record Shape
{
    /// <summary>Every length in it.</summary>
    [JsonIgnore]
    public abstract IEnumerable<Length> Lengths { get; }

    /// <summary>Measures that such a place has.</summary>
    [JsonIgnore]
    public abstract ImmutableArray<Measure> Has { get; }

    /// <summary>The measure people ask for first.</summary>
    [JsonIgnore]
    public virtual Measure? Main => Has.IsEmpty ? null : Has[0];

    /// <summary>Name of the kind in files and on the command line.</summary>
    [JsonIgnore]
    public abstract string Kind { get; }

    /// <summary>Whether it takes doors and windows.</summary>
    [JsonIgnore]
    public virtual bool TakesOpenings => false;
}

/// <summary>A room: its outline, height, and what departs from a plain box.</summary>
/// <param name="Outline">The floor's edge.</param>
/// <param name="High">Height; null only where <paramref name="Slope"/> gives one to each corner.</param>
/// <param name="Slope">Ceiling height at each corner, in one plane; empty for a level ceiling.</param>
/// <param name="WallHeights">Walls of another height: changes that wall's area only.</param>
/// <param name="Bands">Heights at which walls are split, upwards.</param>
/// <param name="Islands">What stands in the room from floor to ceiling.</param>
public sealed record Room(
    Outline Outline,
    Length? High,
    ImmutableArray<Length> Slope,
    ImmutableArray<WallHeight> WallHeights,
    ImmutableArray<Band> Bands,
    ImmutableArray<Island> Islands
) : Shape
{
    private static readonly ImmutableArray<Measure> Measured = [.. Measures.All.Where(m => m <= Measure.Volume)];

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths =>
        Outline
            .Lengths.Concat(High is null ? [] : [High])
            .Concat(Slope)
            .Concat(WallHeights.Select(w => w.High))
            .Concat(Bands.Select(b => b.Top))
            .Concat(Islands.SelectMany(i => i.Lengths));

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<Measure> Has => Measured;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => "room";

    /// <inheritdoc/>
    [JsonIgnore]
    public override bool TakesOpenings => true;
}

/// <summary>The height of one wall.</summary>
public sealed record WallHeight(string Wall, Length High);

/// <summary>A stretch of wall from the band below (or the floor) up to a height.</summary>
public sealed record Band(string Name, Length Top);

/// <summary>Something that stands in an area: a column, a bed, a counter.</summary>
/// <param name="Outline">Its edge.</param>
/// <param name="Count">How many alike.</param>
/// <param name="At">Where its first corner stands; null where that was not measured.</param>
public sealed record Island(Outline Outline, int Count, Point? At)
{
    /// <summary>Every length in it.</summary>
    [JsonIgnore]
    public IEnumerable<Length> Lengths => At is null ? Outline.Lengths : Outline.Lengths.Concat([At.X, At.Y]);
}

/// <summary>An outside face: rectangles and gables.</summary>
/// <param name="Faces">Rectangles, along the ground.</param>
/// <param name="Gables">Triangles above them: ½ · width · rise.</param>
/// <param name="Eaves">Length of the eaves; null for the width of the rectangles less that of the gables.</param>
public sealed record Elevation(ImmutableArray<FacePart> Faces, ImmutableArray<FacePart> Gables, Length? Eaves) : Shape
{
    private static readonly ImmutableArray<Measure> Measured =
    [
        Measure.GrossFaceArea,
        Measure.OpeningArea,
        Measure.DoorArea,
        Measure.WindowArea,
        Measure.GlassArea,
        Measure.DeductedArea,
        Measure.NetFaceArea,
        Measure.EavesLength,
        Measure.DoorCount,
        Measure.WindowCount,
        Measure.OpeningCount,
        Measure.RevealLength,
        Measure.RevealArea,
    ];

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths =>
        Faces.Concat(Gables).SelectMany(p => p.Lengths).Concat(Eaves is null ? [] : [Eaves]);

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<Measure> Has => Measured;

    /// <inheritdoc/>
    [JsonIgnore]
    public override Measure? Main => Measure.NetFaceArea;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => "elevation";

    /// <inheritdoc/>
    [JsonIgnore]
    public override bool TakesOpenings => true;
}

/// <summary>A rectangle, gable or landing.</summary>
public sealed record FacePart(Length Wide, Length High, int Count)
{
    /// <summary>Both sides.</summary>
    [JsonIgnore]
    public IEnumerable<Length> Lengths => [Wide, High];
}

/// <summary>An area of ground or deck.</summary>
/// <param name="Outline">Its edge; null where only the area is known.</param>
/// <param name="Area">The area as typed; null where there is an outline.</param>
/// <param name="Around">Its perimeter, typed beside an area.</param>
/// <param name="Depth">Depth of what is laid or dug.</param>
/// <param name="Islands">What is left out of it.</param>
public sealed record Site(
    Outline? Outline,
    TypedQuantity? Area,
    Length? Around,
    Length? Depth,
    ImmutableArray<Island> Islands
) : Shape
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths =>
        (Outline?.Lengths ?? [])
            .Concat(new[] { Around, Depth }.OfType<Length>())
            .Concat(Islands.SelectMany(i => i.Lengths));

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<Measure> Has =>
        (Outline is null && Around is null, Depth is null) switch
        {
            (true, true) => [Measure.Area],
            (true, false) => [Measure.Area, Measure.Volume],
            (false, true) => [Measure.Area, Measure.Perimeter],
            _ => [Measure.Area, Measure.Perimeter, Measure.Volume],
        };

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => "site";
}

/// <summary>A length of something: kerb, fascia, pipe.</summary>
/// <param name="Long">How long.</param>
/// <param name="Across">Its girth or width; null for none.</param>
/// <param name="IsGirth">Whether <paramref name="Across"/> goes round it.</param>
public sealed record Run(Length Long, Length? Across, bool IsGirth) : Shape
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths => Across is null ? [Long] : [Long, Across];

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<Measure> Has => Across is null ? [Measure.Length] : [Measure.Length, Measure.Area];

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => "run";
}

/// <summary>A flight of steps with its landings.</summary>
/// <param name="Risers">How many; the step count.</param>
/// <param name="Treads">How many; one less than the risers unless said.</param>
/// <param name="Rise">Height of a step.</param>
/// <param name="Going">Depth of a tread.</param>
/// <param name="Width">Width of the flight.</param>
/// <param name="Landings">Each by its edge and its depth.</param>
public sealed record Stair(
    int Risers,
    int Treads,
    Length Rise,
    Length Going,
    Length Width,
    ImmutableArray<FacePart> Landings
) : Shape
{
    private static readonly ImmutableArray<Measure> Measured =
    [
        Measure.StepCount,
        Measure.DevelopedArea,
        Measure.StringerLength,
        Measure.EdgeLength,
    ];

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths =>
        new[] { Rise, Going, Width }.Concat(Landings.SelectMany(l => l.Lengths));

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<Measure> Has => Measured;

    /// <inheritdoc/>
    [JsonIgnore]
    public override Measure? Main => Measure.DevelopedArea;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => "stair";
}

/// <summary>Things that are counted, by name; or, with no things, windows and doors measured without their room.</summary>
public sealed record ItemSet(ImmutableArray<Item> Items) : Shape
{
    private static readonly ImmutableArray<Measure> Counted = [Measure.Count];

    private static readonly ImmutableArray<Measure> Measured =
    [
        Measure.OpeningArea,
        Measure.DoorArea,
        Measure.WindowArea,
        Measure.GlassArea,
        Measure.DoorCount,
        Measure.WindowCount,
        Measure.OpeningCount,
        Measure.RevealLength,
        Measure.RevealArea,
        Measure.Count,
    ];

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths => [];

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<Measure> Has => TakesOpenings ? Measured : Counted;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => "items";

    /// <inheritdoc/>
    [JsonIgnore]
    public override bool TakesOpenings => Items.IsEmpty;
}

/// <summary>So many of one thing.</summary>
public sealed record Item(string Name, int Count);

/// <summary>A place that is listed but not measured yet.</summary>
public sealed record Unmeasured : Shape
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<Length> Lengths => [];

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<Measure> Has => [];

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Kind => "unmeasured";
}

/// <summary>A quantity as someone wrote it, with the units bare numbers in it are in; read anew whenever it is needed, so that nothing is lost.</summary>
/// <param name="Kind">Length, area, volume or count.</param>
/// <param name="Text">Tape notation: <c>24 x 15 + 10 x 10</c>, <c>0.4 acre</c>.</param>
/// <param name="Units">Units of its bare numbers.</param>
public sealed record TypedQuantity(Kind Kind, string Text, UnitSystem Units);
