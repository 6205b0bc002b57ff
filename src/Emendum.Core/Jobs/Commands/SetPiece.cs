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
        return
        [
            .. Commands.Become(
                piece.Cells.Select(key => KeyValuePair.Create(key, job.Cells[key])),
                cell => Jobs.Piece.Moved(cell, Now)
            ),
        ];
    }

    /// <inheritdoc/>
    internal override bool CellsAreSound => true;
}
