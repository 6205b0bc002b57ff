using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes a block out of the proposal.</summary>
public sealed record RemoveBlock(Guid Block) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        [new($"blocks/{Block}", Commands.Node(MoveBlock.Find(job, Block)), null)];
}
