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
        job.Crew.Check();
        if (job.Crew.SetUp is { } id && job.Book.GetValueOrDefault(id) is not SetUp)
            throw RefusedException.Of("setUp", "That set-up is not in this job's Book.");
    }
}
