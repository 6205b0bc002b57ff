using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>How sure the job is; missing where nobody has said.</summary>
internal sealed class SurenessPart() : JobPart("sureness")
{
    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) => Node(job.Sureness);

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) =>
        job with
        {
            Sureness = Changed<Sureness>(null, "", value),
        };

    /// <inheritdoc/>
    public override void Check(Job job) => job.Sureness?.Check();
}
