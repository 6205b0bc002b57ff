using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Prices the job in another way. What was typed for the old one does not stand for the new.</summary>
/// <param name="Was">How it was priced.</param>
/// <param name="Now">How it is to be.</param>
/// <param name="FixedPrice">The price to begin with, where it is to be fixed and none was typed before; null otherwise.</param>
public sealed record ChooseBasis(PriceBasis Was, PriceBasis Now, decimal? FixedPrice) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var basis = Commands.Set(job, "pricing/basis", Commands.Node(Was), Commands.Node(Now));
        if (basis.IsEmpty)
            return basis;
        ImmutableArray<Change> Also<T>(string field, T now) =>
            Commands.Set(job, "pricing/" + field, ChangeSet.Get(job, "pricing/" + field), Commands.Node(now));
        var changes = basis.AddRange(Also<decimal?>("typed", null));
        if (Now != PriceBasis.Fixed)
            return changes;
        // Pieces go on being priced as they were.
        changes = changes.AddRange(Also("usualBasis", Was));
        return FixedPrice is { } price && job.Pricing.FixedPrice == 0
            ? changes.AddRange(Also("fixedPrice", price))
            : changes;
    }
}
