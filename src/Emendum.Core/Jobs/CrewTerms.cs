namespace Emendum.Core.Jobs;

/// <summary>The crew that does a job, and its days.</summary>
/// <param name="Size">People.</param>
/// <param name="HoursPerDay">Hours of a working day.</param>
/// <param name="SetUp">The pinned set-up and travel of the Book that this job has; null for none.</param>
public sealed record CrewTerms(int Size, decimal HoursPerDay, Guid? SetUp)
{
    /// <summary>Name of the firm's setting: the crew of new jobs.</summary>
    public const string Setting = "crew";

    /// <summary>Refuses what no crew is.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (Size is < 1 or > 999)
            throw RefusedException.Of("size", "A crew is 1 to 999 people.");
        if (HoursPerDay is <= 0 or > 24)
            throw RefusedException.Of("hoursPerDay", "A working day is more than 0 and at most 24 hours.");
    }

    /// <summary>What a job starts with, unless the firm has set it.</summary>
    public static readonly CrewTerms Starting = new(3, 8, null);
}
