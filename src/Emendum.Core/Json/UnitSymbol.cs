using System.Text.Json;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Json;

/// <summary>Units by their symbols.</summary>
internal sealed class UnitSymbol : JsonConverter<Unit>
{
    public override Unit Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
        reader.TokenType == JsonTokenType.String && Unit.Find(reader.GetString()!) is { } unit
            ? unit
            : throw new PlainJsonException("That is not a unit known here.");

    public override void Write(Utf8JsonWriter writer, Unit value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.Symbol);
}
