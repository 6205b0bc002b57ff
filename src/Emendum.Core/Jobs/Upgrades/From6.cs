using System.Text.Json.Nodes;

namespace Emendum.Core.Jobs;

/// <summary>Up to version 6 a job had one tax: a name, a rate, and whether it fell on the price, the materials' part of it, or nothing. Now it has several, each with what it falls on.</summary>
internal sealed class From6 : Upgrade
{
    /// <inheritdoc/>
    public override void File(JsonObject file)
    {
        if (file["pricing"] is JsonObject pricing)
            Bring(pricing);
    }

    private static void Bring(JsonObject pricing)
    {
        // What is missing is refused when the file is read: the old form had to have it.
        if (
            !pricing.Remove("taxName", out var name)
            || !pricing.Remove("taxRate", out var rate)
            || !pricing.Remove("taxOn", out var on)
        )
            return;
        pricing["taxes"] = new JsonArray(
            new JsonObject
            {
                ["id"] = Tax.First.ToString(),
                ["name"] = Named(name),
                ["rate"] = rate,
                ["on"] = On(on),
                ["way"] = "charged",
            }
        );
    }

    /// <inheritdoc/>
    public override Change? Change(Change change)
    {
        foreach (var pricing in change.Path == "pricing" ? Sides(change) : [])
            Bring(pricing);
        Change Of(string field, Func<JsonNode?, JsonNode?> brought) =>
            new($"pricing/taxes/{Tax.First}/{field}", brought(change.Before), brought(change.After));
        return change.Path switch
        {
            "pricing/taxName" => Of("name", Named),
            "pricing/taxRate" => Of("rate", rate => rate?.DeepClone()),
            "pricing/taxOn" => Of("on", On),
            _ => change,
        };
    }

    /// <summary>A tax needs a name now.</summary>
    private static JsonNode? Named(JsonNode? name) =>
        name is JsonValue value && value.TryGetValue<string>(out var text)
            ? string.IsNullOrWhiteSpace(text)
                ? "Tax"
                : text
            : name?.DeepClone();

    private static JsonNode? On(JsonNode? on) =>
        (on is JsonValue value && value.TryGetValue<string>(out var text) ? text : "") switch
        {
            "price" => new JsonArray("labour", "material", "equipment", "subcontract", "fixed", "priceOnly"),
            "materials" => new JsonArray("material", "priceOnly"),
            "nothing" => new JsonArray(),
            _ => on?.DeepClone(),
        };
}
