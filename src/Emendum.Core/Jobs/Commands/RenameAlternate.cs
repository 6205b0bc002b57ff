using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Gives an alternate another name.</summary>
public sealed record RenameAlternate(Guid Alternate, string Was, string Name) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Set(
            job,
            Commands.Field($"alternates/{Find(job, Alternate).Id}", "name"),
            Commands.Node(Was),
            Commands.Node(Name.Trim())
        );

    /// <summary>The alternate with that id.</summary>
    /// <exception cref="RefusedException">There is none.</exception>
    internal static Alternate Find(Job job, Guid id) =>
        job.Alternates.FirstOrDefault(a => a.Id == id)
        ?? throw RefusedException.Of("alternate", "That alternate is not in this job any more.");
}
