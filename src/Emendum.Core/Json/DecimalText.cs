using System.Text.Json;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Json;

/// <summary>Decimals as text: a number in JSON would be read as binary floating point by others.</summary>
internal sealed class DecimalText : JsonConverter<decimal>
{
    public override decimal Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
        reader.TokenType == JsonTokenType.String && Rounding.ReadInput(reader.GetString()!) is { } value
            ? value
            : throw new PlainJsonException(
                "A number is written as text, like \"12.5\", below a thousand million and with at most six decimals."
            );

    public override void Write(Utf8JsonWriter writer, decimal value, JsonSerializerOptions options) =>
        writer.WriteStringValue(Rounding.Text(value));
}
