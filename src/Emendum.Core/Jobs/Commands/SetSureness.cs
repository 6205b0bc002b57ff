using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Says how sure the job is; null for as a job starts with.</summary>
public sealed record SetSureness(Sureness? Was, Sureness? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Set(job, "sureness", Commands.Node(Was), Commands.Node(Now));
}
