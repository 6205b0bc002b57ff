using System.Text.Json.Serialization;

namespace Emendum.Core.Proposals;

/// <summary>What happened to a revision of a proposal. Facts are never changed and never taken back; what mends one is another (architecture decision 34).</summary>
public enum FactKind
{
    /// <summary>The firm sent it.</summary>
    Sent,

    /// <summary>The firm sent it once more.</summary>
    SentAgain,

    /// <summary>Its page was visible to somebody who may sign.</summary>
    Seen,

    /// <summary>The customer asked something.</summary>
    Asked,

    /// <summary>The firm answered.</summary>
    Answered,

    /// <summary>The customer chose.</summary>
    Chosen,

    /// <summary>The customer accepted, on the page or at the firm's tablet.</summary>
    Accepted,

    /// <summary>The firm recorded a yes on paper or by word.</summary>
    YesRecorded,

    /// <summary>The customer declined.</summary>
    Declined,

    /// <summary>The firm recorded a no.</summary>
    NoRecorded,

    /// <summary>The firm put it on hold.</summary>
    PutOnHold,

    /// <summary>The firm took it off hold.</summary>
    TakenOffHold,

    /// <summary>The firm lets the prices hold longer.</summary>
    Extended,

    /// <summary>The firm opened it again after a no.</summary>
    Reopened,

    /// <summary>The firm withdrew it.</summary>
    Withdrawn,

    /// <summary>The firm annulled an acceptance that was recorded by mistake.</summary>
    Annulled,

    /// <summary>A link to it was revoked.</summary>
    LinkRevoked,
}

/// <summary>Something that happened.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Revision">The revision it happened to.</param>
/// <param name="Kind">What happened.</param>
/// <param name="At">When, UTC.</param>
/// <param name="By">Whose doing it was.</param>
/// <param name="Words">A reason, a question, an answer, how a yes came; empty for none.</param>
public sealed record Fact(Guid Id, Guid Revision, FactKind Kind, DateTime At, string By, string Words)
{
    /// <summary>Most characters of its words, where a person writes them.</summary>
    public const int MostWords = 2000;

    /// <summary>A day that it says: until when prices hold, which day a yes bears; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public DateOnly? Day { get; init; }

    /// <summary>What was accepted, with tax; null where it says no money.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public decimal? Total { get; init; }

    /// <summary>The customer's link by which it came, or which was revoked; null where it came otherwise.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Link { get; init; }

    /// <summary>Whether it came from somebody who has a copy, and may not sign (L19).</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool Copy { get; init; }

    /// <summary>SHA-256 of a photo or scan of a paper that it came by; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public string? Photo { get; init; }

    /// <summary>The question that it answers; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? About { get; init; }
}
