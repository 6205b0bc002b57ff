using System.Text.Json;
using System.Text.Json.Serialization;

namespace Emendum.Core.Json;

/// <summary>What no document can hold never comes in, from wherever (see <see cref="PlainText"/>).</summary>
internal sealed class CleanText : JsonConverter<string>
{
    public override string? Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
        reader.TokenType == JsonTokenType.String ? PlainText.Clean(reader.GetString()!) : throw new JsonException();

    public override void Write(Utf8JsonWriter writer, string value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value);

    public override string ReadAsPropertyName(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
        PlainText.Clean(reader.GetString()!);

    public override void WriteAsPropertyName(Utf8JsonWriter writer, string value, JsonSerializerOptions options) =>
        writer.WritePropertyName(value);
}
