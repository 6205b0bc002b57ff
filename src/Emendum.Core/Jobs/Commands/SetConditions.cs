using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets the conditions on all work of the job, and pins them.</summary>
public sealed record SetConditions(ImmutableArray<Guid> Was, ImmutableArray<Guid> Conditions) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Pinning(
            job,
            Commands.Set(job, "conditions", Commands.Node(Was), Commands.Node(Conditions)),
            changed => changed.Conditions,
            "conditions",
            book
        );
}
