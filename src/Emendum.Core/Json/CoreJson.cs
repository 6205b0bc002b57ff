using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Emendum.Core.Figures;

namespace Emendum.Core.Json;

/// <summary>How everything of the job is written as JSON: decimals as strings, units by symbol, ratios as they are typed; unknown, missing and duplicate
/// members are refused (architecture decision 17).</summary>
public static class CoreJson
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
        options.TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { Gaps.Refuse } };
        foreach (
            JsonConverter converter in new JsonConverter[]
            {
                new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, false),
                new DecimalText(),
                new CleanText(),
                new CleanNode(),
                new UnitSymbol(),
                new RatioText(),
            }
        )
            options.Converters.Add(converter);
        return options;
    }
}
