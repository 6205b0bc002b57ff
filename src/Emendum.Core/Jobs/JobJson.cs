using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>How everything of the job is written as JSON: decimals as strings, units by symbol, ratios as they are typed; unknown, missing and duplicate
/// members are refused (architecture decision 17).</summary>
public static class JobJson
{
    /// <summary>Deepest nesting that is read.</summary>
    public const int Deepest = 32;

    /// <summary>The options.</summary>
    public static readonly JsonSerializerOptions Options = Apply(new JsonSerializerOptions());

    /// <summary>The same, indented, for files people may read.</summary>
    public static readonly JsonSerializerOptions Indented = new(Options) { WriteIndented = true, NewLine = "\n" };

    /// <summary>Sets options up to read and write the job's own types.</summary>
    public static JsonSerializerOptions Apply(JsonSerializerOptions options)
    {
        options.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
        options.UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.AllowDuplicateProperties = false;
        options.AllowOutOfOrderMetadataProperties = true;
        options.NumberHandling = JsonNumberHandling.Strict;
        options.MaxDepth = Deepest;
        options.Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping;
        foreach (
            JsonConverter converter in new JsonConverter[]
            {
                new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, false),
                new DecimalText(),
                new UnitSymbol(),
                new RatioText(),
            }
        )
            options.Converters.Add(converter);
        return options;
    }

    private sealed class DecimalText : JsonConverter<decimal>
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

    private sealed class UnitSymbol : JsonConverter<Unit>
    {
        public override Unit Read(ref Utf8JsonReader reader, Type type, JsonSerializerOptions options) =>
            reader.TokenType == JsonTokenType.String && Unit.Find(reader.GetString()!) is { } unit
                ? unit
                : throw new PlainJsonException("That is not a unit known here.");

        public override void Write(Utf8JsonWriter writer, Unit value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.Symbol);
    }

    private sealed class RatioText : JsonConverter<Ratio>
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
}

/// <summary>A value of ours that cannot be read, with a sentence fit to be shown; the framework's own messages are not.</summary>
public sealed class PlainJsonException(string message) : JsonException(message);
