using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Puts a block of the proposal after another, or (null) before all.</summary>
public sealed record MoveBlock(Guid Block, Guid? After) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var block = Find(job, Block);
        if (After == Block)
            throw RefusedException.Of("after", "A block cannot stand after itself.");
        var at = job.Blocks.IndexOf(block);
        if (After == (at == 0 ? null : job.Blocks[at - 1].Id))
            return [];
        var now = block with { Rank = RankAfter(job.Blocks.Remove(block), job, After) };
        return [new($"blocks/{Block}", Commands.Node(block), Commands.Node(now))];
    }

    /// <summary>A rank after a block; first for null.</summary>
    internal static string RankAfter(ImmutableArray<ProposalBlock> staying, Job job, Guid? after)
    {
        var to = after is { } id ? staying.IndexOf(Find(job, id)) + 1 : 0;
        return Rank.At(staying, to, b => b.Rank);
    }

    /// <summary>The block with that id.</summary>
    /// <exception cref="RefusedException">There is none.</exception>
    internal static ProposalBlock Find(Job job, Guid id) =>
        job.Blocks.FirstOrDefault(b => b.Id == id)
        ?? throw RefusedException.Of("block", "That block is not in this proposal any more.");
}
