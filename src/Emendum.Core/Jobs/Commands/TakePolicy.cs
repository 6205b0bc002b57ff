using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Prices a job by one of the firm's policies; what is of the job alone, as its discounts, stays.</summary>
/// <param name="Was">Id of the policy it has; null for none.</param>
/// <param name="Policy">The policy, as it stands in the Office.</param>
public sealed record TakePolicy(Guid? Was, PricePolicy Policy) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (job.Policy?.Id != Was)
            throw new ConflictException("policy", Commands.Node(job.Policy?.Name));
        Policy.Check();
        return
        [
            .. Commands.Set(job, "policy", Commands.Node(job.Policy), Commands.Node(Policy)),
            .. Commands.Set(job, "pricing", Commands.Node(job.Pricing), Commands.Node(Policy.Onto(job.Pricing))),
        ];
    }
}
