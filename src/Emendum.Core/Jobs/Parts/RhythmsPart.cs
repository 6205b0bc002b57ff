using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>The rhythms of a job, in order.</summary>
internal sealed class RhythmsPart() : ThingsPart<Rhythm>("rhythms")
{
    /// <summary>Most of them in a job.</summary>
    private const int Most = 20;

    /// <inheritdoc/>
    protected override ImmutableArray<Rhythm> Of(Job job) => job.Rhythms;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<Rhythm> things) => job with { Rhythms = things };

    /// <inheritdoc/>
    protected override Guid IdOf(Rhythm thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(Rhythm thing) => thing.Rank;

    /// <inheritdoc/>
    public override bool Settable(string field) => field is not ("id" or "rank") && HasField<Rhythm>(field);

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "rhythm");
        if (job.Rhythms.Length > Most)
            throw RefusedException.Of("rhythms", $"A job has at most {Most} rhythms.");
        foreach (var rhythm in job.Rhythms)
        {
            rhythm.Check();
            if (rhythm.Id == Rhythm.Once)
                throw RefusedException.Of("id", "That id is kept for what is done once.");
            CheckInstead(job, rhythm);
        }
        OnceNamed(job, of => of.Name, "a rhythm");
        CheckLeft(job, "times");
    }

    /// <summary>Refuses what is done more often instead of a rhythm than that comes.</summary>
    public static void CheckLeft(Job job, string field)
    {
        if (job.Rhythms.FirstOrDefault(r => RhythmTimes.Left(job, r) < 0) is { } less)
            throw RefusedException.Of(
                field,
                $"More is done instead of “{less.Name}” than that comes: {RhythmTimes.Stated(job, less)} times a year."
            );
    }

    /// <summary>What takes the place of something takes it of a rhythm of the job, and not, round about, of itself.</summary>
    private static void CheckInstead(Job job, Rhythm rhythm)
    {
        var seen = new HashSet<Guid> { rhythm.Id };
        for (var at = rhythm; at.Instead is { } instead; )
        {
            var other =
                job.Rhythm(instead)
                ?? throw RefusedException.Of(
                    "instead",
                    "It takes the place of a rhythm that is not in this job any more."
                );
            if (other.Kind == RhythmKind.Event)
                throw RefusedException.Of("instead", "Nothing takes the place of what an event brings.");
            if (!seen.Add(other.Id))
                throw RefusedException.Of("instead", $"{rhythm.Name} would be done instead of itself.");
            at = other;
        }
    }

    /// <inheritdoc/>
    public override void CheckTouched(Job job, IReadOnlyList<Change> changes)
    {
        Check(job);
        foreach (var (id, rhythm) in Touched(job, changes))
            if (rhythm is null && (job.Round.Usual == id || job.Work.Any(w => w.Rhythm == id)))
                throw RefusedException.Of("", "Work has since been given that rhythm, so it cannot be taken away.");
    }
}
