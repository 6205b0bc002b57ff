using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;

namespace Emendum.Core.Jobs;

/// <summary>Sets the rule by which openings are taken off.</summary>
public sealed record SetDeduction(string Was, string Rule) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        Commands.Set(
            job,
            "deduct",
            Was,
            DeductionRule.Find(Rule)?.Name ?? throw RefusedException.Of("rule", $"There is no deduction rule “{Rule}”.")
        );
}
