using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Json;

namespace Emendum.Core.Jobs;

/// <summary>The factor on all labour of a job.</summary>
internal sealed class PacePart() : JobPart("pace")
{
    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) => JsonSerializer.SerializeToNode(job.Pace, CoreJson.Options);

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) =>
        job with
        {
            Pace = value?.Deserialize<PaceFactor>(CoreJson.Options),
        };

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        if (job.Pace is not { } pace)
            return;
        if (pace.Factor is < 0.1m or > 10)
            throw RefusedException.Of("factor", "A factor on the labour of a job is 0.1 to 10.");
        if (string.IsNullOrWhiteSpace(pace.Reason) || pace.Reason.Length > 120)
            throw RefusedException.Of("reason", "Say why in a few words.");
    }
}
