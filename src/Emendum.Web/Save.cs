using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core;
using Emendum.Core.Jobs;
using Emendum.Core.Json;

namespace Emendum.Web;

/// <summary>Something that is saved as a whole: as it was seen, and as it is to be. What is the same in both is left as it stands by now, so that two who change different fields lose nothing.</summary>
/// <param name="Was">As it was seen; null for a new one.</param>
/// <param name="Now">As it is to be.</param>
public sealed record Save<T>(T? Was, T Now)
    where T : class
{
    /// <summary>What is to be kept, where something else may stand there by now.</summary>
    /// <exception cref="ConflictException">A field that this changes was changed by somebody else since it was seen.</exception>
    public T Onto(T? current)
    {
        var (was, now, stands) = (Node(Was), Node(Now), Node(current));
        if (was is null || stands is null)
            return was is null && (stands is null || JsonNode.DeepEquals(stands, now))
                ? Now
                : throw new ConflictException("", stands);
        foreach (var (field, value) in now!)
        {
            if (JsonNode.DeepEquals(value, was[field]) || JsonNode.DeepEquals(value, stands[field]))
                continue;
            if (!JsonNode.DeepEquals(was[field], stands[field]))
                throw new ConflictException(field, stands[field]);
            stands[field] = value?.DeepClone();
        }
        return stands.Deserialize<T>(CoreJson.Options)!;
    }

    private static JsonObject? Node(T? value) =>
        value is null ? null : JsonSerializer.SerializeToNode(value, CoreJson.Options)!.AsObject();
}
