using System.Text.Json;
using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>Brings what older versions wrote to the present form: job files, and the change sets of a job's log.</summary>
public static class JobUpgrade
{
    /// <summary>A file of an older version in the present form; null when it is of the present version, or of none known.</summary>
    /// <exception cref="JsonException">Not JSON.</exception>
    public static JsonNode? File(ReadOnlySpan<byte> bytes)
    {
        if (VersionOf(bytes) != 1) return null;
        var file = JsonNode.Parse(bytes, documentOptions: new() { MaxDepth = JobJson.Deepest, AllowDuplicateProperties = false })!.AsObject();
        if (file["places"] is JsonArray places)
            foreach (var place in places.OfType<JsonObject>()) Place(place);
        file["schedule"] = new JsonArray();
        file["schemaVersion"] = JobFile.CurrentVersion;
        return file;
    }

    /// <summary>A change of a job's log in the present form.</summary>
    public static Change Change(Change change)
    {
        if (!change.Path.StartsWith("places/", StringComparison.Ordinal)) return change;
        foreach (var side in new[] { change.Before, change.After })
            if (side is JsonObject place && place.ContainsKey("long")) Place(place);
        return change;
    }

    /// <summary>Version 1 knew rectangular rooms only, their sizes beside the name.</summary>
    private static void Place(JsonObject place)
    {
        JsonNode? Take(string name)
        {
            var value = place[name]?.DeepClone();
            place.Remove(name);
            return value;
        }
        // What is missing in the old form is left missing, and is refused when the new one is read.
        if (Take("kind")?.ToString() != "room" || !place.ContainsKey("long")) return;
        place["shape"] = new JsonObject
        {
            ["kind"] = "room",
            ["outline"] = new JsonObject { ["by"] = "sides", ["long"] = Take("long"), ["wide"] = Take("wide") },
            ["high"] = Take("high"),
            ["slope"] = new JsonArray(),
            ["wallHeights"] = new JsonArray(),
            ["bands"] = new JsonArray(),
            ["islands"] = new JsonArray(),
        };
        foreach (var opening in (place["openings"] as JsonArray ?? []).OfType<JsonObject>())
        {
            opening["wall"] = null;
            opening["reachesFloor"] = opening["kind"]?.ToString() != "window";
            opening["bottom"] = null;
            opening["into"] = null;
        }
        (place["typed"], place["finish"], place["notes"]) = (new JsonArray(), "", "");
    }

    private static int VersionOf(ReadOnlySpan<byte> bytes)
    {
        var reader = new Utf8JsonReader(bytes, new JsonReaderOptions { MaxDepth = JobJson.Deepest });
        while (reader.Read())
            if (reader.CurrentDepth == 1 && reader.TokenType == JsonTokenType.PropertyName && reader.ValueTextEquals("schemaVersion"))
                return reader.Read() && reader.TokenType == JsonTokenType.Number && reader.TryGetInt32(out var version) ? version : 0;
        return 0;
    }
}
