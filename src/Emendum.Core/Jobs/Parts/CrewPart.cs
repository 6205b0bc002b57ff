using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>The crew and its days.</summary>
internal sealed class CrewPart() : RecordPart<CrewTerms>("crew")
{
    /// <inheritdoc/>
    protected override CrewTerms Of(Job job) => job.Crew;

    /// <inheritdoc/>
    protected override Job With(Job job, CrewTerms value) => job with { Crew = value };

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        if (job.Crew.Size is < 1 or > 999)
            throw RefusedException.Of("size", "A crew is 1 to 999 people.");
        if (job.Crew.HoursPerDay is <= 0 or > 24)
            throw RefusedException.Of("hoursPerDay", "A working day is more than 0 and at most 24 hours.");
        if (job.Crew.SetUp is { } id && job.Book.GetValueOrDefault(id) is not SetUp)
            throw RefusedException.Of("setUp", "That set-up is not in this job's Book.");
    }
}
