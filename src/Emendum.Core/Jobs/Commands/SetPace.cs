using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets the factor on all labour of the job; null for none.</summary>
public sealed record SetPace(PaceFactor? Was, PaceFactor? Pace) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Set(job, "pace", Commands.Node(Was), Commands.Node(Pace));
}
