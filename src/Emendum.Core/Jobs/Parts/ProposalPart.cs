namespace Emendum.Core.Jobs;

/// <summary>What the customer sees.</summary>
internal sealed class ProposalPart() : RecordPart<ProposalTerms>("proposal")
{
    /// <inheritdoc/>
    protected override ProposalTerms Of(Job job) => job.Proposal;

    /// <inheritdoc/>
    protected override Job With(Job job, ProposalTerms value) => job with { Proposal = value };

    /// <inheritdoc/>
    public override void Check(Job job) => job.Proposal.Check();
}
