using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes a quote away; where it was taken, the work is ours again.</summary>
public sealed record RemoveQuote(Guid Quote) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        [new($"quotes/{Quote}", Commands.Node(SetQuote.Find(job, Quote)), null)];
}
