using System.Collections.Immutable;
using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>The terms a job is priced by.</summary>
internal sealed class PricingPart() : RecordPart<PricingTerms>("pricing")
{
    private const string InTaxes = "taxes/";

    /// <inheritdoc/>
    protected override PricingTerms Of(Job job) => job.Pricing;

    /// <inheritdoc/>
    protected override Job With(Job job, PricingTerms value) => job with { Pricing = value };

    /// <inheritdoc/>
    public override void Check(Job job) => job.Pricing.Check();

    // Edits of before there were several taxes changed a field of one.
    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) =>
        at.StartsWith(InTaxes, StringComparison.Ordinal)
            ? Node(job.Pricing.Taxes.FirstOrDefault(t => t.Id == Parsed(at).Id), Parsed(at).Field)
            : base.Get(job, at);

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value)
    {
        if (!at.StartsWith(InTaxes, StringComparison.Ordinal))
            return base.Set(job, at, value);
        var (id, field) = Parsed(at);
        var old =
            job.Pricing.Taxes.FirstOrDefault(t => t.Id == id) ?? throw RefusedException.Of(
                "taxes",
                "That tax is not in this job any more."
            );
        return With(job, job.Pricing with { Taxes = job.Pricing.Taxes.Replace(old, Changed(old, field, value)!) });
    }

    private static (Guid Id, string Field) Parsed(string at)
    {
        var parts = at[InTaxes.Length..].Split('/');
        return (Guid.Parse(parts[0]), parts[1]);
    }
}
