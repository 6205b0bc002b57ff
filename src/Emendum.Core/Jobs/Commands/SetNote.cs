using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets the sentence at a cell.</summary>
public sealed record SetNote(Guid Work, Guid Place, string Was, string Note) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        CellsPart.CheckNote(Note);
        var key = new CellKey(Work, Place);
        if (!job.Cells.TryGetValue(key, out var cell))
            throw RefusedException.Of("note", "Include or exclude the work here first.");
        if (cell.Note != Was)
            throw new ConflictException("note", cell.Note);
        return cell.Note == Note ? [] : [CellBlock.Set(key, cell, Commands.Node(cell with { Note = Note }))];
    }

    /// <inheritdoc/>
    internal override bool CellsAreSound => true;
}
