using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Puts a quote for a section beside the others. It is not taken yet; its rank is given here.</summary>
public sealed record AddQuote(Quote Quote) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (job.Quotes.Any(q => q.Id == Quote.Id))
            throw RefusedException.Of("quote", "There is a quote of that id already.");
        var made = Quote with
        {
            From = Quote.From.Trim(),
            Taken = false,
            Rank = Rank.Between(job.Quotes.LastOrDefault()?.Rank, null),
        };
        return [new($"quotes/{made.Id}", null, Commands.Node(made))];
    }
}
