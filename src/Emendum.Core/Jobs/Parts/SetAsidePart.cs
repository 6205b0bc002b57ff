using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>Checks that somebody has set aside, by key, with the reason.</summary>
internal sealed class SetAsidePart() : JobPart("setAside")
{
    /// <inheritdoc/>
    public override JsonNode? Get(Job job, string at) => job.SetAside.TryGetValue(at, out var reason) ? reason : null;

    /// <inheritdoc/>
    public override Job Set(Job job, string at, JsonNode? value) =>
        job with
        {
            SetAside = value is null ? job.SetAside.Remove(at) : job.SetAside.SetItem(at, value.GetValue<string>()),
        };

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        if (job.SetAside.Count > 5000)
            throw RefusedException.Of("check", "Too many checks are set aside.");
        if (job.SetAside.Any(s => s.Key.Length > 200 || s.Value.Length is 0 or > 300))
            throw RefusedException.Of("reason", "A reason is at most 300 characters.");
    }
}
