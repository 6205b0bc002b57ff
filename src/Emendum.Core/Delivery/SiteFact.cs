using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>How much of a line is done, as somebody says it: the last word about a line counts. A fact (architecture decision 34).</summary>
/// <param name="Id">Its id.</param>
/// <param name="Work">The work item.</param>
/// <param name="Place">The place.</param>
/// <param name="Percent">Of the line, 0 to 100; a tick is 100.</param>
/// <param name="At">When (UTC).</param>
/// <param name="By">Who says it.</param>
public sealed record DoneFact(Guid Id, Guid Work, Guid Place, decimal Percent, DateTime At, string By)
{
    /// <summary>The crew's link by which it came; null where it was written in the office.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Link { get; init; }

    /// <summary>Refuses what cannot be said.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (Percent is < 0 or > 100 || decimal.Round(Percent, 2) != Percent)
            throw RefusedException.Of("percent", "So much of it: 0 to 100 %, with at most two decimals.");
    }
}

/// <summary>What hours were spent on.</summary>
public enum HoursFor
{
    /// <summary>The work itself.</summary>
    Work,

    /// <summary>Set-up, travel, clearing up: what belongs to the whole job.</summary>
    SetUp,

    /// <summary>Mending what was found wrong afterwards: it counts in the profit and teaches no rate (rule H5).</summary>
    Snags,
}

/// <summary>Hours that somebody worked. A fact: what was written wrong is taken back by another, with the same hours below nothing.</summary>
/// <param name="Id">Its id.</param>
/// <param name="For">What for.</param>
/// <param name="Work">The work item; null where it is of no one piece of work.</param>
/// <param name="Place">The place; null for all of it.</param>
/// <param name="Person">Who worked.</param>
/// <param name="Day">On which day of the firm's calendar.</param>
/// <param name="Hours">How long; below nothing in what takes one back.</param>
/// <param name="Words">A note; empty for none.</param>
/// <param name="At">When it was written (UTC).</param>
/// <param name="By">Who wrote it.</param>
public sealed record HoursFact(
    Guid Id,
    HoursFor For,
    Guid? Work,
    Guid? Place,
    string Person,
    DateOnly Day,
    decimal Hours,
    string Words,
    DateTime At,
    string By
)
{
    /// <summary>Most characters of a person's name.</summary>
    public const int MostOfPerson = 80;

    /// <summary>Most characters of a note.</summary>
    public const int MostWords = 500;

    /// <summary>The crew's link by which it came; null where it was written in the office.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Link { get; init; }

    /// <summary>The visit of a round on which they were worked; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Visit { get; init; }

    /// <summary>The one that it takes back; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? TakesBack { get; init; }

    /// <summary>Refuses what cannot have been worked, whatever else was.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (Person.Length is 0 or > MostOfPerson || Person.Any(char.IsControl))
            throw RefusedException.Of("person", $"Say who worked, in at most {MostOfPerson} characters.");
        if (Hours is <= 0 or > 24 || decimal.Round(Hours, 2) != Hours)
            throw RefusedException.Of("hours", "Hours of one day: more than 0, at most 24, with at most two decimals.");
        if (Words.Length > MostWords)
            throw RefusedException.Of("words", $"At most {MostWords} characters.");
        if (For == HoursFor.SetUp && Work is not null)
            throw RefusedException.Of("work", "Set-up and travel belong to the whole job.");
        if (Work is null && Place is not null)
            throw RefusedException.Of("place", "Say which work it was there.");
    }
}
