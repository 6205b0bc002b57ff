using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Takes an alternate into the job, or gives it back: all its work at once.</summary>
/// <param name="Alternate">Which; of work that stands as an alternate by itself the work item, which is taken and does not come back by this.</param>
/// <param name="Was">Whether it was taken.</param>
/// <param name="Taken">Whether it is to be.</param>
/// <param name="FixedPrice">The job's fixed price with it, or without it; null where the price is not a fixed one.</param>
public sealed record TakeAlternate(Guid Alternate, bool Was, bool Taken, decimal? FixedPrice) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var (cells, moved, name) =
            job.Item(Alternate) is { } item && job.Alternates.All(a => a.Id != Alternate)
                ? OfWork(job, item)
                : Named(job, RenameAlternate.Find(job, Alternate));
        if (Was == Taken)
            return [];
        if (cells.Length == 0)
            throw RefusedException.Of("alternate", $"{name} has no work any more.");
        return
        [
            .. Commands.Become(cells, moved),
            .. job.Pricing.Basis == PriceBasis.Fixed && FixedPrice is { } price ? FixedChanges(job, price) : [],
        ];
    }

    /// <summary>The changes by which a fixed price becomes another with what is taken.</summary>
    internal static ImmutableArray<Change> FixedChanges(Job job, decimal price) =>
        Priced(job, "fixedPrice", Fixed(job, price).FixedPrice)
            .AddRange(Priced(job, "adjustment", Fixed(job, price).Adjustment));

    private static ImmutableArray<Change> Priced(Job job, string field, decimal now) =>
        Commands.Set(job, "pricing/" + field, ChangeSet.Get(job, "pricing/" + field), Commands.Node(now));

    /// <summary>The terms of a job whose fixed price is another with what is taken. That of a round is of a visit, and what an alternate adds is of the year: it stands as an adjustment there.</summary>
    public static PricingTerms Fixed(Job job, decimal price) =>
        RhythmTimes.ComesBack(job)
            ? job.Pricing with
            {
                Adjustment = job.Pricing.Adjustment + price - job.Pricing.FixedPrice,
            }
            : job.Pricing with
            {
                FixedPrice = decimal.Max(0, price),
            };

    private (KeyValuePair<CellKey, Cell>[] Cells, Func<Cell, Cell> Moved, string Name) Named(
        Job job,
        Alternate alternate
    )
    {
        var cells = CellsOf(job, Alternate);
        var taken = IsTaken(alternate, cells);
        if (taken != Was)
            throw new ConflictException("taken", Commands.Node(taken));
        return (cells, cell => Moved(alternate, cell, Taken), alternate.Name);
    }

    private (KeyValuePair<CellKey, Cell>[] Cells, Func<Cell, Cell> Moved, string Name) OfWork(Job job, WorkItem item)
    {
        if (Was || !Taken)
            throw RefusedException.Of("taken", "Work that has no name as an alternate is taken, and put back on Work.");
        return (
            [
                .. job
                    .Cells.Where(c =>
                        c.Key.Work == item.Id && c.Value is { State: CellState.Alternate, Alternate: null }
                    )
                    .OrderBy(c => c.Key.Place),
            ],
            cell => Piece.Moved(cell, PieceState.In),
            item.Name
        );
    }

    /// <inheritdoc/>
    internal override bool CellsAreSound => true;

    /// <summary>The cells of an alternate, by work and place.</summary>
    public static KeyValuePair<CellKey, Cell>[] CellsOf(Job job, Guid alternate) =>
        [.. job.Cells.Where(c => c.Value.Alternate == alternate).OrderBy(c => c.Key.Work).ThenBy(c => c.Key.Place)];

    /// <summary>Whether an alternate is taken.</summary>
    public static bool IsTaken(Alternate alternate, IEnumerable<KeyValuePair<CellKey, Cell>> cells) =>
        cells.Any(c => c.Value.State == State(alternate, true));

    /// <summary>How its work stands when it is taken, or not.</summary>
    private static CellState State(Alternate alternate, bool taken) =>
        (alternate.Kind, taken) switch
        {
            (AlternateKind.Add, false) => CellState.Alternate,
            (AlternateKind.Deduct, true) => CellState.Excluded,
            _ => CellState.Included,
        };

    /// <summary>A cell of it when it is taken, or not.</summary>
    public static Cell Moved(Alternate alternate, Cell cell, bool taken) =>
        cell with
        {
            State = State(alternate, taken),
        };
}
