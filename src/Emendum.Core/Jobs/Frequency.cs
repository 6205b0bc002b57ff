using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Jobs;

/// <summary>How often something comes.</summary>
/// <param name="Kind">Every working day, or so many times a year.</param>
/// <param name="Times">How many; of working days, those of a year without days off.</param>
public sealed record Frequency(RhythmKind Kind, int Times)
{
    /// <summary>Those that people have a word for, the most frequent first.</summary>
    public static readonly ImmutableArray<Frequency> Usual =
    [
        new(RhythmKind.WorkingDays, Rhythm.WorkingDays),
        new(RhythmKind.Times, 104),
        new(RhythmKind.Times, 52),
        new(RhythmKind.Times, 26),
        new(RhythmKind.Times, 12),
        new(RhythmKind.Times, 6),
        new(RhythmKind.Times, 4),
        new(RhythmKind.Times, 2),
        new(RhythmKind.Times, 1),
    ];

    /// <summary>What people call it.</summary>
    [JsonIgnore]
    public string Name =>
        (Kind, Times) switch
        {
            (RhythmKind.WorkingDays, _) => "Daily",
            (_, 104) => "Twice a week",
            (_, 52) => "Weekly",
            (_, 26) => "Fortnightly",
            (_, 12) => "Monthly",
            (_, 6) => "Every other month",
            (_, 4) => "Quarterly",
            (_, 2) => "Twice a year",
            (_, 1) => "Yearly",
            _ => $"{Times} times a year",
        };

    /// <summary>That of a rhythm.</summary>
    public static Frequency Of(Rhythm rhythm) =>
        new(rhythm.Kind, rhythm.Kind == RhythmKind.WorkingDays ? Rhythm.WorkingDays : rhythm.Times);

    /// <summary>A name that no other rhythm has.</summary>
    internal static string Free(Job job, Guid rhythm, string name)
    {
        bool Taken(string one) =>
            job.Rhythms.Any(r => r.Id != rhythm && string.Equals(r.Name, one, StringComparison.OrdinalIgnoreCase));
        var free = name;
        for (var n = 2; Taken(free); n++)
            free = $"{name}, {n}";
        return free;
    }
}
