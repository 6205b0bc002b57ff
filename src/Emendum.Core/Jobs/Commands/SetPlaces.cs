using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets <c>finish</c>, <c>notes</c> or <c>conditions</c> of places. Conditions they name are pinned.</summary>
public sealed record SetPlaces(string Field, ImmutableArray<AtPlace> At) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Pinning(
            job,
            Commands.SetAll(job, "places", Field, At),
            changed =>
                Field == "conditions"
                    ? At.SelectMany(at => changed.Place(at.Place)!.Conditions.Select(x => x.Condition))
                    : [],
            Field,
            book
        );
}

/// <summary>A field at a place: as it is seen, and as it is to be.</summary>
public sealed record AtPlace(Guid Place, JsonNode? Was, JsonNode? Now);
