using System.Collections.Immutable;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Sections of the work, in order.</summary>
internal sealed class SectionsPart() : ThingsPart<Section>("sections")
{
    /// <inheritdoc/>
    protected override ImmutableArray<Section> Of(Job job) => job.Sections;

    /// <summary>The work follows its sections.</summary>
    protected override Job With(Job job, ImmutableArray<Section> things)
    {
        job = job with { Sections = things };
        return job with { Work = WorkPart.InOrder(job) };
    }

    /// <inheritdoc/>
    protected override Section? Find(Job job, Guid id) => job.Section(id);

    /// <inheritdoc/>
    protected override Guid IdOf(Section thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(Section thing) => thing.Rank;

    /// <inheritdoc/>
    public override bool Settable(string field) => field is "name" or "least" or "pricing" or "doubt";

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "section");
        if (job.Sections.Length > JobRules.MostWork)
            throw RefusedException.Of("sections", $"A job takes at most {JobRules.MostWork:N0} sections.");
        if (job.Sections.Any(s => s.Name.Length > 120))
            throw RefusedException.Of("name", "A section's name is at most 120 characters.");
        foreach (var section in job.Sections)
        {
            PricingTerms.NotBelowZero(section.Least ?? 0, "least", "A least charge");
            section.Doubt?.Check("doubt");
            if (section.Pricing is not { } own)
                continue;
            if (own is { Basis: PriceBasis.Fixed, FixedPrice: null })
                throw RefusedException.Of("pricing", "Type the fixed price of the section.");
            PricingTerms.NotBelowZero(own.FixedPrice ?? 0, "pricing", "A fixed price");
            PricingTerms.NotBelowZero(own.SellRate ?? 0, "pricing", "A charge rate");
            PricingTerms.CheckMargin(own.TargetMargin ?? 0, "pricing");
            PricingTerms.CheckProfit(own.Profit ?? 0, "pricing");
        }
        OnceNamed(job, of => of.Name, "a section");
    }

    /// <inheritdoc/>
    public override void CheckTouched(Job job, IReadOnlyList<Change> changes)
    {
        Check(job);
        foreach (var (id, section) in Touched(job, changes))
            if (section is null && job.Work.Any(w => w.Section == id))
                throw RefusedException.Of(
                    "",
                    "Work has since been put under that section, so it cannot be taken away."
                );
    }
}
