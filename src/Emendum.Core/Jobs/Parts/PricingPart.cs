namespace Emendum.Core.Jobs;

/// <summary>The terms a job is priced by.</summary>
internal sealed class PricingPart() : RecordPart<PricingTerms>("pricing")
{
    /// <inheritdoc/>
    protected override PricingTerms Of(Job job) => job.Pricing;

    /// <inheritdoc/>
    protected override Job With(Job job, PricingTerms value) => job with { Pricing = value };

    /// <inheritdoc/>
    public override void Check(Job job) => job.Pricing.Check();
}
