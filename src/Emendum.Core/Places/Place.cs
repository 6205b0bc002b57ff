using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Places;

/// <summary>A place that is measured.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Name">What people call it.</param>
/// <param name="Group">Heading it stands under; headings nest with <c> / </c> (<c>House / First floor</c>); may be empty.</param>
/// <param name="Rank">Sort key among the job's places.</param>
/// <param name="Line">The tape line it was read from.</param>
/// <param name="Count">How many equal places it stands for.</param>
/// <param name="Shape">What was measured.</param>
/// <param name="Openings">In the order they were typed.</param>
/// <param name="Typed">Overrides of derived measures, and the user's own.</param>
/// <param name="Finish">Substrate or finish, in the user's words.</param>
/// <param name="Notes">Notes.</param>
public sealed record Place(
    Guid Id,
    string Name,
    string Group,
    string Rank,
    string Line,
    int Count,
    Shape Shape,
    ImmutableArray<Opening> Openings,
    ImmutableArray<TypedMeasure> Typed,
    string Finish,
    string Notes
)
{
    /// <summary>Conditions on the work here, or on what is done in one band.</summary>
    public ImmutableArray<PlaceCondition> Conditions { get; init; } = [];

    /// <summary>Whether every length was taken in inches; otherwise all is reckoned in millimetres.</summary>
    [JsonIgnore]
    public bool AllInches =>
        Shape.Lengths.Concat(Openings.SelectMany(o => o.Lengths)).All(l => l.Unit == Quantities.Unit.Inch);
}

/// <summary>A condition of the Book at a place.</summary>
/// <param name="Condition">The pinned condition.</param>
/// <param name="Band">The band it holds for (<c>bands/1</c>); empty for the whole place.</param>
public sealed record PlaceCondition(Guid Condition, string Band);

/// <summary>A measure someone typed: it stands instead of the derived one of that name, or is the user's own.</summary>
/// <param name="Name">A measure's name (<c>netWallArea</c>), or the user's own.</param>
/// <param name="Quantity">What was typed.</param>
public sealed record TypedMeasure(string Name, TypedQuantity Quantity);
