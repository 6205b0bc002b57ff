using System.Text.Json.Serialization;

namespace Emendum.Core.Delivery;

/// <summary>What is said of a visit.</summary>
public enum VisitSaid
{
    /// <summary>Nothing, or nothing any more: it is still to come.</summary>
    Open,

    /// <summary>It was done.</summary>
    Done,

    /// <summary>It is left out, and comes off what the year is billed at (M30).</summary>
    LeftOut,

    /// <summary>It is left out at the customer's wish, within the notice: it is billed all the same (M30).</summary>
    LeftOutByThem,
}

/// <summary>What somebody says of a visit of a round: the last word counts. A fact (architecture decision 34).</summary>
/// <param name="Id">Its id.</param>
/// <param name="Visit">The visit; of an event one of its own.</param>
/// <param name="Kind">The rhythm, or the band of the event.</param>
/// <param name="Said">What is said.</param>
/// <param name="Day">The firm's day on which it was done; of one that is left out the day on which it was planned.</param>
/// <param name="Words">Why it is left out, or a note.</param>
/// <param name="At">When (UTC).</param>
/// <param name="By">Who says it.</param>
public sealed record VisitFact(
    Guid Id,
    Guid Visit,
    Guid Kind,
    VisitSaid Said,
    DateOnly Day,
    string Words,
    DateTime At,
    string By
)
{
    /// <summary>Most characters of a reason or a note.</summary>
    public const int MostWords = 500;

    /// <summary>The crew's link by which it came; null where it was written in the office.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Link { get; init; }

    /// <summary>Whether the visit is left out.</summary>
    [JsonIgnore]
    public bool IsLeftOut => Said is VisitSaid.LeftOut or VisitSaid.LeftOutByThem;
}
