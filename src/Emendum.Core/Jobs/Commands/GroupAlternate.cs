using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Puts work under one alternate with a name: of one that adds, what stands as an alternate; of one that deducts, what is in the price. What is in another alternate stays there.</summary>
/// <param name="Alternate">Its id; new, or one that is there.</param>
/// <param name="Name">As the customer reads it; of one that is there it stays.</param>
/// <param name="Kind">What taking it does; of one that is there it stays.</param>
/// <param name="Work">Only of these pieces of work; of all where none is named.</param>
/// <param name="Places">Only at these places; at all where none is named.</param>
public sealed record GroupAlternate(
    Guid Alternate,
    string Name,
    AlternateKind Kind,
    ImmutableArray<Guid> Work,
    ImmutableArray<Guid> Places
) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Work.IsEmpty && Places.IsEmpty)
            throw RefusedException.Of("work", "Say which work it is, or at which places.");
        var there = job.Alternates.FirstOrDefault(a => a.Id == Alternate);
        var kind = there?.Kind ?? Kind;
        var state = kind == AlternateKind.Add ? CellState.Alternate : CellState.Included;
        var (work, places) = (Work.ToHashSet(), Places.ToHashSet());
        KeyValuePair<CellKey, Cell>[] cells =
        [
            .. job
                .Cells.Where(c =>
                    c.Value.State == state
                    && c.Value.Alternate is null
                    && (work.Count == 0 || work.Contains(c.Key.Work))
                    && (places.Count == 0 || places.Contains(c.Key.Place))
                )
                .OrderBy(c => c.Key.Work)
                .ThenBy(c => c.Key.Place),
        ];
        if (cells.Length == 0)
            throw RefusedException.Of(
                "work",
                kind == AlternateKind.Add
                    ? "Nothing of that stands as an alternate yet: mark it on Work, or under Worth."
                    : "Nothing of that is in the price."
            );
        if (cells.Length > Commands.MostCells)
            throw RefusedException.Of("work", $"At most {Commands.MostCells} cells at a time.");
        var made = new Alternate(
            Alternate,
            Name.Trim(),
            Rank.Between(job.Alternates.LastOrDefault()?.Rank, null),
            kind
        );
        return
        [
            .. there is null
                ? [new Change($"alternates/{Alternate}", null, Commands.Node(made))]
                : ImmutableArray<Change>.Empty,
            .. Commands.Become(cells, cell => cell with { Alternate = Alternate }),
        ];
    }
}
