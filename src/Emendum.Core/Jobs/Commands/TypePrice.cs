using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Moves the one term that a typed price leads to, as the core has found it.</summary>
/// <param name="Field">The term: <c>profit</c>, <c>targetMargin</c> or <c>adjustment</c>.</param>
/// <param name="Was">What it was.</param>
/// <param name="Now">What it is to be.</param>
/// <param name="Typed">The price as it stands before rounding, which then leaves it alone; null where nothing is rounded.</param>
/// <param name="Reason">Why the price goes below the floor, where it does; empty otherwise.</param>
public sealed record TypePrice(string Field, decimal Was, decimal Now, decimal? Typed, string Reason) : Command
{
    /// <summary>The check that a price below the floor stands in, and its reason with it.</summary>
    public const string BelowFloor = "belowFloor";

    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Field is not ("profit" or "targetMargin" or "adjustment"))
            throw RefusedException.Of("field", "A typed price moves profit, target margin or an adjustment.");
        ImmutableArray<Change> Set(string path, JsonNode? was, JsonNode? now) => Commands.Set(job, path, was, now);
        return
        [
            .. Set("pricing/" + Field, Commands.Node(Was), Commands.Node(Now)),
            .. Set("pricing/typed", ChangeSet.Get(job, "pricing/typed"), Commands.Node(Typed)),
            .. Reason.Trim().Length == 0
                ? ImmutableArray<Change>.Empty
                : Set("setAside/" + BelowFloor, ChangeSet.Get(job, "setAside/" + BelowFloor), Reason.Trim()),
        ];
    }
}
