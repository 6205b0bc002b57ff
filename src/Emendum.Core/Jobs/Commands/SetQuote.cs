using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a field of a quote.</summary>
public sealed record SetQuote(Guid Quote, string Field, JsonNode? Was, JsonNode? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Set(job, Commands.Field($"quotes/{Find(job, Quote).Id}", Field), Was, Now);

    /// <summary>The quote with that id.</summary>
    /// <exception cref="RefusedException">There is none.</exception>
    internal static Quote Find(Job job, Guid id) =>
        job.Quotes.FirstOrDefault(q => q.Id == id)
        ?? throw RefusedException.Of("quote", "That quote is not in this job any more.");
}
