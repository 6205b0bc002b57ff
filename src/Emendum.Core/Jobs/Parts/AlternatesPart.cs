using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>Alternates that have a name, in order.</summary>
internal sealed class AlternatesPart() : ThingsPart<Alternate>("alternates")
{
    /// <summary>Most of them in a job.</summary>
    private const int Most = 200;

    /// <inheritdoc/>
    protected override ImmutableArray<Alternate> Of(Job job) => job.Alternates;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<Alternate> things) => job with { Alternates = things };

    /// <inheritdoc/>
    protected override Guid IdOf(Alternate thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(Alternate thing) => thing.Rank;

    /// <inheritdoc/>
    public override bool Settable(string field) => field is "name";

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "alternate");
        if (job.Alternates.Length > Most)
            throw RefusedException.Of("alternates", $"A job has at most {Most} alternates with a name.");
        if (job.Alternates.Any(a => string.IsNullOrWhiteSpace(a.Name) || a.Name.Length > 120))
            throw RefusedException.Of("name", "An alternate has a name of at most 120 characters.");
        OnceNamed(job, of => of.Name, "an alternate");
    }

    /// <inheritdoc/>
    public override void CheckTouched(Job job, IReadOnlyList<Change> changes)
    {
        Check(job);
        foreach (var (id, alternate) in Touched(job, changes))
            if (alternate is null && job.Cells.Values.Any(c => c.Alternate == id))
                throw RefusedException.Of(
                    "",
                    "Work has since been put into that alternate, so it cannot be taken away."
                );
    }
}
