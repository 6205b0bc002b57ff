using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>The blocks of the proposal, in order.</summary>
internal sealed class BlocksPart() : ThingsPart<ProposalBlock>("blocks")
{
    /// <inheritdoc/>
    protected override ImmutableArray<ProposalBlock> Of(Job job) => job.Blocks;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<ProposalBlock> things) => job with { Blocks = things };

    /// <inheritdoc/>
    protected override Guid IdOf(ProposalBlock thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(ProposalBlock thing) => thing.Rank;

    /// <inheritdoc/>
    public override bool Settable(string field) =>
        field is "title" or "words" or "hidden" or "newPage" or "files" or "across" or "estimates";

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "block");
        ProposalBlock.Check(job.Blocks);
        if (job.Blocks.Any(b => b.Estimates?.Contains(job.Id) == true))
            throw RefusedException.Of("estimates", "A job is no further estimate beside itself.");
        foreach (var block in job.Blocks)
            if (block.Text is { } text && job.Book.GetValueOrDefault(text) is not BookText)
                throw RefusedException.Of("text", "That text is not in this job.");
    }
}
