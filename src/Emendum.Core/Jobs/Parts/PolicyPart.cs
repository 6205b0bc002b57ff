using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>The price policy that a job took, as it was then.</summary>
internal sealed class PolicyPart() : JobPart("policy")
{
    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) => Node(job.Policy);

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) =>
        job with
        {
            Policy = Changed<PricePolicy>(null, "", value),
        };

    /// <inheritdoc/>
    public override void Check(Job job) => job.Policy?.Check();
}
