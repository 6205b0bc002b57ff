using System.Text.Json;
using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>In what the variants that are not taken differ from the job.</summary>
internal sealed class DiffersPart() : JobPart("differs")
{
    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) =>
        job.Differs.TryGetValue(at, out var raw) ? new JsonObject { ["value"] = Variants.Read(raw) } : null;

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) =>
        job with
        {
            Differs = value is null ? job.Differs.Remove(at) : job.Differs.SetItem(at, Variants.Write(value["value"])),
        };

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        CheckTouched(job, []);
        foreach (var key in job.Differs.Keys)
        {
            var (variant, path) = Variants.Parsed(key);
            if (job.Variants.FirstOrDefault(v => v.Id == variant) is not { Taken: false } || !Variants.IsThing(path))
                throw RefusedException.Of("differs", $"No variant can differ at {path}.");
        }
        foreach (var variant in job.Variants.Where(v => !v.Taken))
            try
            {
                JobParts.CheckVariant(Variants.Of(job, variant.Id));
            }
            catch (Exception wrong) when (wrong is JsonException or InvalidOperationException or FormatException)
            {
                throw RefusedException.Of("differs", $"{variant.Name} holds something that cannot be read.");
            }
    }

    /// <summary>An edit keeps what stood in the job, which was sound.</summary>
    public override void CheckTouched(Job job, IReadOnlyList<Change> changes)
    {
        if (job.Differs.Count > Variants.MostDiffering)
            throw RefusedException.Of(
                "",
                $"Variants of a job differ in at most {Variants.MostDiffering:N0} things. Remove a variant first."
            );
    }
}
