using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes a piece out of the price, offers it as an alternate, or puts it back: all its cells that stand as <paramref name="Was"/>.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Piece">Id of the section, place or work item.</param>
/// <param name="Was">How it stands.</param>
/// <param name="Now">How it is to stand.</param>
public sealed record SetPiece(PieceKind Kind, Guid Piece, PieceState Was, PieceState Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Was == Now)
            return [];
        var piece =
            Jobs.Piece.Of(job, Kind, Piece, Was)
            ?? throw RefusedException.Of("piece", "Nothing of that stands so any more.");
        if (piece.Cells.Length > Commands.MostCells)
            throw RefusedException.Of("piece", $"At most {Commands.MostCells} cells at a time.");
        var write = ChangeSet.CellWriter();
        return
        [
            .. piece.Cells.Select(key => new Change(
                $"cells/{key.Work}/{key.Place}",
                write(job.Cells[key]),
                write(Jobs.Piece.Moved(job.Cells[key], Now))
            )),
        ];
    }

    /// <inheritdoc/>
    internal override bool CellsAreSound => true;
}
