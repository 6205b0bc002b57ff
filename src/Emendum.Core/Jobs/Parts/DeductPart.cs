using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>The rule by which openings are taken off.</summary>
internal sealed class DeductPart() : JobPart("deduct")
{
    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) => job.Deduct;

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) => job with { Deduct = value!.GetValue<string>() };

    /// <inheritdoc/>
    public override void Check(Job job) => _ = job.Rule;
}
