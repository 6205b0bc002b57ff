using System.Collections.Immutable;
using System.Text.Json.Serialization.Metadata;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Emendum.Web;

/// <summary>Says in the API description what our converters write: decimals, units and ratios are text.</summary>
public static class ApiDescription
{
    /// <summary>Sets the description up.</summary>
    public static void Configure(OpenApiOptions options)
    {
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
                if (type == typeof(decimal) || type == typeof(Unit) || type == typeof(Ratio))
                {
                    schema.Type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) is null
                        ? JsonSchemaType.String
                        : JsonSchemaType.String | JsonSchemaType.Null;
                    schema.Pattern = null;
                    schema.Format = type.Name.ToLowerInvariant();
                    schema.Properties?.Clear();
                }
                // Read by a converter of ours, which takes out what no document can hold.
                if (type == typeof(string))
                    schema.Type = context.JsonPropertyInfo is { IsGetNullable: true }
                        ? JsonSchemaType.String | JsonSchemaType.Null
                        : JsonSchemaType.String;
                if (
                    context.JsonTypeInfo is { Kind: JsonTypeInfoKind.Enumerable } list
                    && list.ElementType == typeof(string)
                )
                    schema.Items ??= new OpenApiSchema { Type = JsonSchemaType.String };
                if (
                    context.JsonTypeInfo is { Kind: JsonTypeInfoKind.Dictionary } named
                    && named.ElementType == typeof(string)
                )
                    schema.AdditionalProperties ??= new OpenApiSchema { Type = JsonSchemaType.String };
                // Entries of the Book come with all their fields; what is left out when one is sent takes its default.
                if (
                    (
                        type.Namespace == typeof(Core.Book.BookEntry).Namespace
                        || type == typeof(Core.Jobs.PricingTerms)
                        || type == typeof(Core.Jobs.Rhythm)
                        || type == typeof(Core.Jobs.Quote)
                        || type == typeof(Core.Jobs.Choice)
                        || type == typeof(Core.Jobs.ChoiceOption)
                        || type == typeof(Core.Jobs.ProposalTerms)
                        || type == typeof(Core.Jobs.ProposalBlock)
                        || type.Namespace == typeof(Core.Proposals.Element).Namespace
                    ) && schema.Properties is { Count: > 0 }
                )
                    (schema.Required ??= new HashSet<string>()).UnionWith(schema.Properties.Keys);
                if (
                    type == typeof(ImmutableArray<Core.Jobs.BlockFile>)
                    && schema.Items is OpenApiSchema { Properties: { } texts }
                )
                    // What stands only in a list that may be missing does not come by here by itself.
                    foreach (var name in new[] { "file", "words" })
                        if (texts[name] is OpenApiSchema text)
                            text.Type = JsonSchemaType.String;
                return Task.CompletedTask;
            }
        );
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info = new() { Title = "Emendum", Version = "1" };
                document.Servers?.Clear();
                // Whether a value may be missing is said where it stands; a kind of value has no missing one of its own.
                foreach (var named in document.Components?.Schemas?.Values.OfType<OpenApiSchema>() ?? [])
                    named.Enum = named.Enum?.Where(value => value is not null).ToList();
                // A kind is told by its "type": without it nothing is read.
                foreach (var schema in document.Components?.Schemas?.Values ?? [])
                    if (schema is OpenApiSchema own && own.Properties is { } properties)
                        foreach (var told in new[] { "type", "kind" })
                            if (properties.TryGetValue(told, out var type) && type.Enum?.Count == 1)
                                (own.Required ??= new HashSet<string>()).Add(told);
                return Task.CompletedTask;
            }
        );
    }
}
