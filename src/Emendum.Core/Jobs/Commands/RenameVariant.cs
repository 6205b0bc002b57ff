using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Gives a variant another name.</summary>
public sealed record RenameVariant(Guid Variant, string Was, string Name) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Set(
            job,
            Commands.Field($"variants/{Find(job, Variant).Id}", "name"),
            Commands.Node(Was),
            Commands.Node(Name.Trim())
        );

    /// <summary>The variant with that id.</summary>
    /// <exception cref="RefusedException">There is none.</exception>
    internal static Variant Find(Job job, Guid id) =>
        job.Variants.FirstOrDefault(v => v.Id == id)
        ?? throw RefusedException.Of("variant", "That variant is not in this job any more.");
}
