using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Copies a block of cells over a larger or equal one, as often as it goes into it. A cell that goes to another work item takes state, sentence, conditions and
/// supply along; to another place, everything but a source of quantity that is not there.</summary>
/// <param name="FromWork">Columns of the block.</param>
/// <param name="FromPlaces">Rows of the block.</param>
/// <param name="Work">Columns it is copied to.</param>
/// <param name="Places">Rows it is copied to.</param>
/// <param name="Was">How the cells it is copied to are seen, as in <see cref="FillCells"/>.</param>
public sealed record CopyCells(
    ImmutableArray<Guid> FromWork,
    ImmutableArray<Guid> FromPlaces,
    ImmutableArray<Guid> Work,
    ImmutableArray<Guid> Places,
    string Was
) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (FromWork.IsEmpty || FromPlaces.IsEmpty)
            throw RefusedException.Of("fromWork", "There is nothing to copy.");
        CellBlock.CheckBlock(job, FromWork, FromPlaces);
        var measures = CellBlock.Measures(job);
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var (key, cell, at) in CellBlock.Seen(job, Work, Places, Was))
        {
            var (row, column) = (at / Work.Length, at % Work.Length);
            var from = new CellKey(FromWork[column % FromWork.Length], FromPlaces[row % FromPlaces.Length]);
            var now = job.Cells.GetValueOrDefault(from) is { } copied ? copied with { Alternate = null } : null;
            if (
                now is { Source.Length: > 0 }
                && from.Place != key.Place
                && measures(key.Place).Named(now.Source) is null
            )
                now = now with { Source = "" };
            if (now is not null && from.Work != key.Work)
                now = new Cell(now.State, now.Note) { Conditions = now.Conditions, Supply = now.Supply };
            var change = CellBlock.Set(key, cell, Commands.Node(now));
            if (!ChangeSet.Same(change.Before, change.After))
                changes.Add(change);
        }
        return changes.ToImmutable();
    }
}
