using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>What the way to the site is counted by.</summary>
public enum TravelPer
{
    CrewDay,
    Visit,
}

/// <summary>Set-up and travel: minutes and distance that come on top of the work, from crew days or visits (estimating model §5).</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Role">Whose hours they are.</param>
/// <param name="SetUpMinutes">Minutes per person and crew day to set up and clear away.</param>
/// <param name="Per">Whether the way is gone each crew day or each visit.</param>
/// <param name="Distance">There and back.</param>
/// <param name="DistanceUnit">Unit of the distance.</param>
/// <param name="TravelMinutes">Minutes per person on the way there and back.</param>
/// <param name="PerDistance">Money per unit of distance, for the vehicle.</param>
public sealed record SetUp(
    Guid Id,
    int Version,
    string Name,
    Guid Role,
    decimal SetUpMinutes,
    TravelPer Per,
    decimal Distance,
    DistanceUnit DistanceUnit,
    decimal TravelMinutes,
    decimal PerDistance
) : BookEntry(Id, Version, Name)
{
    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Guid> Needs => Role == Guid.Empty ? [] : [Role];

    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Lack> Lacks => Lack.Of((Role == Guid.Empty, "role", "a role"));

    internal override void Check(BookCheck check)
    {
        if (Role != Guid.Empty)
            check.Needed<LabourRole>(Role, "role", "role");
        foreach (
            var (value, field, most) in new[]
            {
                (SetUpMinutes, "setUpMinutes", 1440m),
                (Distance, "distance", 10_000m),
                (TravelMinutes, "travelMinutes", 1440m),
                (PerDistance, "perDistance", 10_000m),
            }
        )
            if (value < 0 || value > most)
                throw check.Wrong(field, $"0 to {most:#,0}.");
    }
}

/// <summary>Unit of a way.</summary>
public enum DistanceUnit
{
    Mile,
    Kilometre,
}
