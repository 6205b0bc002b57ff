using System.Collections.Immutable;

namespace Emendum.Core.Places;

/// <summary>What an opening is. Doors and pass-throughs reach the floor, windows do not.</summary>
public enum OpeningKind { Door, Window, PassThrough }

/// <summary>An opening of a room; without a wall it counts against the room.</summary>
/// <param name="Kind">Door, window or pass-through.</param>
/// <param name="Width">Clear width.</param>
/// <param name="Height">Clear height.</param>
/// <param name="Count">How many alike; at least 1.</param>
/// <param name="Depth">Depth of the reveal, where it was measured.</param>
/// <param name="Sill">Whether the reveal runs along the bottom too.</param>
public sealed record Opening(OpeningKind Kind, Length Width, Length Height, int Count, Length? Depth, bool Sill)
{
    /// <summary>Whether it interrupts the skirting.</summary>
    public bool ReachesFloor => Kind != OpeningKind.Window;
}

/// <summary>A place that is measured. One kind so far: a rectangular room with openings.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Name">What people call it.</param>
/// <param name="Group">Heading it stands under (a floor, a building); may be empty.</param>
/// <param name="Rank">Sort key among the job's places.</param>
/// <param name="Kind">Discriminator; <c>room</c>.</param>
/// <param name="Line">The tape line it was read from.</param>
/// <param name="Count">How many equal places it stands for.</param>
/// <param name="Long">First dimension.</param>
/// <param name="Wide">Second dimension.</param>
/// <param name="High">Height.</param>
/// <param name="Openings">In the order they were typed.</param>
public sealed record Place(
    Guid Id, string Name, string Group, string Rank, string Kind, string Line, int Count,
    Length Long, Length Wide, Length High, ImmutableArray<Opening> Openings);
