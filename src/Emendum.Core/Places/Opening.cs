namespace Emendum.Core.Places;

/// <summary>What an opening is.</summary>
public enum OpeningKind
{
    Door,
    Window,
    PassThrough,
}

/// <summary>An opening of a room or an outside face; without a wall it counts against the whole place.</summary>
/// <param name="Kind">Door, window or pass-through.</param>
/// <param name="Width">Clear width.</param>
/// <param name="Height">Clear height.</param>
/// <param name="Count">How many alike; at least 1.</param>
/// <param name="Depth">Depth of the reveal, where it was measured.</param>
/// <param name="Sill">Whether the reveal runs along the bottom too.</param>
/// <param name="Wall">Letter of its wall; null where it was not said.</param>
/// <param name="ReachesFloor">Whether it interrupts the skirting. Doors and pass-throughs do unless said otherwise, windows do not.</param>
/// <param name="Bottom">How far its bottom is above the floor, where it was measured.</param>
/// <param name="Into">The place it leads into: it is deducted and interrupts skirting there too, and counts once, here.</param>
public sealed record Opening(
    OpeningKind Kind,
    Length Width,
    Length Height,
    int Count,
    Length? Depth,
    bool Sill,
    string? Wall,
    bool ReachesFloor,
    Length? Bottom,
    Guid? Into
)
{
    /// <summary>A door of glass: it counts as glass, as every window does.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingDefault
    )]
    public bool Glazed { get; init; }

    /// <summary>Whether it is glass.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsGlass => Glazed || Kind == OpeningKind.Window;

    /// <summary>Its kind in words.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public string Words =>
        Kind == OpeningKind.PassThrough ? "pass-through"
        : Kind == OpeningKind.Door ? "door"
        : "window";

    /// <summary>Its lengths.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public IEnumerable<Length> Lengths => new[] { Width, Height, Depth, Bottom }.OfType<Length>();
}
