using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a pricing term.</summary>
public sealed record SetPricing(string Field, JsonNode? Was, JsonNode? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Set(job, Commands.Field("pricing", Field), Was, Now);
}
