using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a term of the crew. A set-up it names is pinned.</summary>
public sealed record SetCrew(string Field, JsonNode? Was, JsonNode? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Pinning(
            job,
            Commands.Set(job, Commands.Field("crew", Field), Was, Now),
            changed => changed.Crew.SetUp is { } setUp ? [setUp] : [],
            Field,
            book
        );
}
