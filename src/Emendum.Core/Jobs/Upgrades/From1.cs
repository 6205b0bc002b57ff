using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>Version 1 knew rectangular rooms only, their sizes beside the name, and no schedule.</summary>
internal sealed class From1 : Upgrade
{
    /// <inheritdoc/>
    public override void File(JsonObject file)
    {
        foreach (var place in In(file, "places"))
            Place(place);
        file["schedule"] = new JsonArray();
    }

    /// <inheritdoc/>
    public override Change? Change(Change change)
    {
        if (change.Path.StartsWith("places/", StringComparison.Ordinal))
            foreach (var place in Sides(change).Where(p => p.ContainsKey("long")))
                Place(place);
        return change;
    }

    private static void Place(JsonObject place)
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
}
