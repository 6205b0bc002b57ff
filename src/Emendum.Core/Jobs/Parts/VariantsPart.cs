using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>Variants of the estimate, in order.</summary>
internal sealed class VariantsPart() : ThingsPart<Variant>("variants")
{
    /// <inheritdoc/>
    protected override ImmutableArray<Variant> Of(Job job) => job.Variants;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<Variant> things) => job with { Variants = things };

    /// <inheritdoc/>
    protected override Guid IdOf(Variant thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(Variant thing) => thing.Rank;

    /// <inheritdoc/>
    public override bool Settable(string field) => field is "name";

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "variant");
        if (job.Variants.Length > Variants.Most)
            throw RefusedException.Of("variants", $"A job has at most {Variants.Most} variants.");
        if (job.Variants.Any(v => string.IsNullOrWhiteSpace(v.Name) || v.Name.Length > 60))
            throw RefusedException.Of("name", "A variant has a name of at most 60 characters.");
        OnceNamed(job, of => of.Name, "a variant");
        if (!job.Variants.IsEmpty && job.Variants.Count(v => v.Taken) != 1)
            throw RefusedException.Of("variants", "One variant is taken, and no more than one.");
    }
}
