using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a check aside with a reason; an empty reason brings it back.</summary>
public sealed record SetAside(string Check, string Was, string Reason) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Set(
            job,
            "setAside/" + Check,
            Was.Length == 0 ? null : Was,
            Reason.Trim().Length == 0 ? null : Reason.Trim()
        );
}
