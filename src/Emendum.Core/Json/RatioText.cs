using System.Text.Json;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Json;

/// <summary>Ratios as they are typed.</summary>
internal sealed class RatioText : JsonConverter<Ratio>
{
    public override Ratio Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options)
    {
        try
        {
            return Ratio.Parse(reader.TokenType == JsonTokenType.String ? reader.GetString()! : "");
        }
        catch (RefusedException refused)
        {
            throw new PlainJsonException(refused.Refusal.Message);
        }
    }

    public override void Write(Utf8JsonWriter writer, Ratio value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.ToString());
}
