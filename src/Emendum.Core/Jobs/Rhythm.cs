using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Jobs;

/// <summary>What brings work back.</summary>
public enum RhythmKind
{
    /// <summary>So many times a year.</summary>
    Times,

    /// <summary>Every working day: 260 a year, less the days off that are listed.</summary>
    WorkingDays,

    /// <summary>Something that happens: snow, a storm.</summary>
    Event,
}

/// <summary>How far an event goes: to 5 cm of snow, to 10 cm. Each has its own hours and price.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Name">As people say it.</param>
/// <param name="Factor">On the labour hours of the work.</param>
/// <param name="Expected">How often a season brings it.</param>
/// <param name="Cap">How often a season is billed for it at the most; null for as often as it comes.</param>
public sealed record EventBand(Guid Id, string Name, decimal Factor, int Expected, int? Cap);

/// <summary>How often work is done (estimating model §7, Rhythm of work). What has one rhythm is one occurrence, with hours, cost and price of its own.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Rank">Sort key.</param>
/// <param name="Name">As people say it: weekly.</param>
/// <param name="Kind">What brings it back.</param>
/// <param name="Times">How often a year; counts only where it is that.</param>
public sealed record Rhythm(Guid Id, string Rank, string Name, RhythmKind Kind, int Times)
{
    /// <summary>What work that is done once has for its rhythm.</summary>
    public static readonly Guid Once = new("00000000-0000-7000-8000-000000000001");

    /// <summary>Working days of a year: five in each of 52 weeks.</summary>
    public const int WorkingDays = 260;

    /// <summary>Months of the year it is done in, 1 to 12 in order; empty for all.</summary>
    public ImmutableArray<int> Months { get; init; } = [];

    /// <summary>The rhythm whose times it takes the place of, as often as it comes; null where it is done beside it.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Instead { get; init; }

    /// <summary>Whether it needs a visit of its own, with set-up, travel and the least charge of a visit; otherwise it is done while the crew is there anyway.</summary>
    public bool OwnVisit { get; init; } = true;

    /// <summary>How far an event may go, at least one; empty where it is no event.</summary>
    public ImmutableArray<EventBand> Bands { get; init; } = [];

    /// <summary>How many months of a year it is done in.</summary>
    [JsonIgnore]
    public int MonthCount => Months.IsEmpty ? 12 : Months.Length;

    /// <summary>Whether it is done in a month, 1 to 12.</summary>
    public bool In(int month) => Months.IsEmpty || Months.Contains(month);

    /// <summary>Checks it by itself.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > 60)
            throw RefusedException.Of("name", "A rhythm has a name of at most 60 characters.");
        if (Kind == RhythmKind.Times && Times is < 1 or > 1000)
            throw RefusedException.Of("times", "Work comes 1 to 1,000 times a year.");
        if (
            Months.Any(m => m is < 1 or > 12)
            || !Months.Order().SequenceEqual(Months)
            || Months.Distinct().Count() != Months.Length
            || Months.Length == 12
        )
            throw RefusedException.Of(
                "months",
                "Months are 1 to 12, each once and in order; for all of them, name none."
            );
        if (Kind == RhythmKind.Event != !Bands.IsEmpty)
            throw RefusedException.Of("bands", "Work by event has at least one band, and other work has none.");
        if (Bands.Length > 20)
            throw RefusedException.Of("bands", "At most 20 bands.");
        if (Bands.Select(b => b.Id).Distinct().Count() != Bands.Length)
            throw RefusedException.Of("bands", "A band stands twice.");
        foreach (var band in Bands)
        {
            if (string.IsNullOrWhiteSpace(band.Name) || band.Name.Length > 60)
                throw RefusedException.Of("bands", "A band has a name of at most 60 characters.");
            if (band.Factor is <= 0 or > 100)
                throw RefusedException.Of("bands", "The factor of a band is more than 0 and at most 100.");
            if (band.Expected is < 0 or > 1000 || band.Cap is < 0 or > 1000)
                throw RefusedException.Of("bands", "A season brings an event 0 to 1,000 times.");
            if (band.Cap < band.Expected)
                throw RefusedException.Of("bands", $"{band.Name}: the cap is not below what is expected.");
        }
        if (Kind == RhythmKind.Event && Instead is not null)
            throw RefusedException.Of("instead", "What an event brings takes the place of nothing.");
    }
}
