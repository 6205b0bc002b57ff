using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Json;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>The units a job is shown in.</summary>
internal sealed class UnitsPart() : JobPart("units")
{
    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) => JsonSerializer.SerializeToNode(job.Units, CoreJson.Options);

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) =>
        job with
        {
            Units = value.Deserialize<UnitSystem>(CoreJson.Options),
        };

    /// <inheritdoc/>
    public override void Check(Job job) { }
}
