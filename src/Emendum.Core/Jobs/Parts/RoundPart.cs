namespace Emendum.Core.Jobs;

/// <summary>The terms of work that comes back.</summary>
internal sealed class RoundPart() : RecordPart<RoundTerms>("round")
{
    /// <inheritdoc/>
    protected override RoundTerms Of(Job job) => job.Round;

    /// <inheritdoc/>
    protected override Job With(Job job, RoundTerms value) => job with { Round = value };

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        job.Round.Check();
        if (job.Round.Usual is { } usual && job.Rhythm(usual) is null)
            throw RefusedException.Of("usual", "That rhythm is not in this job.");
        RhythmsPart.CheckLeft(job, "daysOff");
    }
}
