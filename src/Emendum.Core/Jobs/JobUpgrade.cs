using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Json;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Brings what older versions wrote to the present form: job files, and the change sets of a job's log.</summary>
public static class JobUpgrade
{
    /// <summary>A file of an older version in the present form; null when it is of the present version, or of none known.</summary>
    /// <exception cref="JsonException">Not JSON.</exception>
    public static JsonNode? File(ReadOnlySpan<byte> bytes)
    {
        var version = VersionOf(bytes);
        if (version is not (1 or 2 or 3))
            return null;
        var file = JsonNode
            .Parse(bytes, documentOptions: new() { MaxDepth = CoreJson.Deepest, AllowDuplicateProperties = false })!
            .AsObject();
        if (version == 1)
        {
            foreach (var place in (file["places"] as JsonArray ?? []).OfType<JsonObject>())
                PlaceOf1(place);
            file["schedule"] = new JsonArray();
        }
        foreach (var entry in (file["book"] as JsonArray ?? []).OfType<JsonObject>())
            Entry(entry);
        // Version 4 added what has a default that means what it did before.
        foreach (var cell in version == 3 ? [] : (file["cells"] as JsonArray ?? []).OfType<JsonObject>())
        {
            var content = new JsonObject();
            foreach (var name in new[] { "state", "note" })
                if (cell.Remove(name, out var value))
                    content[name] = value;
            cell["cell"] = content;
        }
        file["schemaVersion"] = JobFile.CurrentVersion;
        return file;
    }

    /// <summary>A change of a job's log in the present form.</summary>
    public static Change Change(Change change)
    {
        foreach (var side in new[] { change.Before, change.After }.OfType<JsonObject>())
        {
            if (change.Path.StartsWith("places/", StringComparison.Ordinal) && side.ContainsKey("long"))
                PlaceOf1(side);
            if (change.Path.StartsWith("book/", StringComparison.Ordinal))
                Entry(side);
        }
        // Whole things are written as today's types write them, so that undo finds what it put there.
        var parts = change.Path.Split('/');
        return (parts[0], parts.Length) switch
        {
            ("places", 2) => Written<Places.Place>(change, "conditions"),
            ("work", 2) => Written<WorkItem>(change, "allowance"),
            ("cells", 3) => Written<Cell>(change, "answers"),
            ("book", 2) => Written<BookEntry>(change, "tags"),
            _ => change,
        };
    }

    private static Change Written<T>(Change change, string newest)
        where T : class
    {
        JsonNode? Side(JsonNode? side) =>
            side is JsonObject old && !old.ContainsKey(newest)
                ? JsonSerializer.SerializeToNode(old.Deserialize<T>(CoreJson.Options), CoreJson.Options)
                : side;
        return change with { Before = Side(change.Before), After = Side(change.After) };
    }

    /// <summary>Up to version 2 equipment had a cost per hour only. What later versions added to entries has a default that means what it did before.</summary>
    public static void Entry(JsonObject entry)
    {
        if (entry["kind"]?.ToString() == "equipment" && entry.Remove("costPerHour", out var cost))
            entry["cost"] = cost;
    }

    /// <summary>Version 1 knew rectangular rooms only, their sizes beside the name.</summary>
    private static void PlaceOf1(JsonObject place)
    {
        JsonNode? Take(string name)
        {
            var value = place[name]?.DeepClone();
            place.Remove(name);
            return value;
        }
        // What is missing in the old form is left missing, and is refused when the new one is read.
        if (Take("kind")?.ToString() != "room" || !place.ContainsKey("long"))
            return;
        place["shape"] = new JsonObject
        {
            ["kind"] = "room",
            ["outline"] = new JsonObject
            {
                ["by"] = "sides",
                ["long"] = Take("long"),
                ["wide"] = Take("wide"),
            },
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
        var reader = new Utf8JsonReader(bytes, new JsonReaderOptions { MaxDepth = CoreJson.Deepest });
        while (reader.Read())
            if (
                reader.CurrentDepth == 1
                && reader.TokenType == JsonTokenType.PropertyName
                && reader.ValueTextEquals("schemaVersion")
            )
                return reader.Read() && reader.TokenType == JsonTokenType.Number && reader.TryGetInt32(out var version)
                    ? version
                    : 0;
        return 0;
    }
}
