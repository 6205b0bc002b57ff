using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Puts a block into the proposal; its rank is given here.</summary>
/// <param name="Block">The block.</param>
/// <param name="After">The block it follows; null for first.</param>
public sealed record AddBlock(ProposalBlock Block, Guid? After) : Command
{
    /// <inheritdoc/>
    public override IReadOnlyCollection<BlockFile> Files => Block.Files ?? [];

    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Block.Id == Guid.Empty || job.Blocks.Any(b => b.Id == Block.Id))
            throw RefusedException.Of("block", "A new block needs an id of its own.");
        var made = Block with { Title = Block.Title.Trim(), Rank = MoveBlock.RankAfter(job.Blocks, job, After) };
        return
        [
            .. made.Text is { } text ? Commands.Pin(job, text, "text", book) : [],
            new($"blocks/{made.Id}", null, Commands.Node(made)),
        ];
    }
}
