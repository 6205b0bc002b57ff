using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;

namespace Emendum.Core.Json;

/// <summary>The same within JSON whose kind is not known yet.</summary>
internal sealed class CleanNode : JsonConverter<JsonNode>
{
    private static readonly JsonSerializerOptions Plain = new()
    {
        AllowDuplicateProperties = false,
        MaxDepth = CoreJson.Deepest,
    };
    private static readonly JsonConverter<JsonNode?> Inner =
        (JsonConverter<JsonNode?>)Plain.GetConverter(typeof(JsonNode));

    public override JsonNode? Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
        Clean(Inner.Read(ref reader, type, Plain));

    public override void Write(Utf8JsonWriter writer, JsonNode value, JsonSerializerOptions options) =>
        value.WriteTo(writer, options);

    private static JsonNode? Clean(JsonNode? node)
    {
        if (node is JsonObject thing)
        {
            foreach (var (name, value) in thing.ToList())
                if (Clean(value) is var clean && !ReferenceEquals(clean, value))
                    thing[name] = clean;
        }
        else if (node is JsonArray list)
        {
            for (var i = 0; i < list.Count; i++)
                if (Clean(list[i]) is var clean && !ReferenceEquals(clean, list[i]))
                    list[i] = clean;
        }
        else if (node is JsonValue value && value.TryGetValue<string>(out var text) && !PlainText.IsPlain(text))
            return JsonValue.Create(PlainText.Clean(text));
        return node;
    }
}
