using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a field of a choice. Goods that its options name are pinned.</summary>
public sealed record SetChoice(Guid Choice, string Field, JsonNode? Was, JsonNode? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Pinning(
            job,
            Commands.Set(job, Commands.Field($"choices/{Find(job, Choice).Id}", Field), Was, Now),
            changed => Find(changed, Choice).Options.Select(o => o.Product).OfType<Guid>(),
            Field,
            book
        );

    /// <summary>The choice with that id.</summary>
    /// <exception cref="RefusedException">There is none.</exception>
    internal static Choice Find(Job job, Guid id) =>
        job.Choices.FirstOrDefault(c => c.Id == id)
        ?? throw RefusedException.Of("choice", "That choice is not in this job any more.");
}
