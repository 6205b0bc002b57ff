namespace Emendum.Core.Jobs;

/// <summary>The crew that does a job, and its days.</summary>
/// <param name="Size">People.</param>
/// <param name="HoursPerDay">Hours of a working day.</param>
/// <param name="SetUp">The pinned set-up and travel of the Book that this job has; null for none.</param>
public sealed record CrewTerms(int Size, decimal HoursPerDay, Guid? SetUp)
{
    /// <summary>What a job starts with.</summary>
    public static readonly CrewTerms Starting = new(3, 8, null);
}
