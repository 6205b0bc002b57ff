using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What the cells of these work items at these places are to be: included, excluded, alternate, or (null) none here.</summary>
/// <param name="Work">Columns.</param>
/// <param name="Places">Rows.</param>
/// <param name="Was">How the cells are seen, a letter each, row by row: <c>i</c>, <c>x</c>, <c>a</c>, or <c>.</c> for none.</param>
/// <param name="State">What they are to be.</param>
public sealed record FillCells(ImmutableArray<Guid> Work, ImmutableArray<Guid> Places, string Was, CellState? State)
    : Command
{
    /// <summary>The letter that stands for a state in a command.</summary>
    public static char Letter(CellState? state) =>
        state switch
        {
            CellState.Included => 'i',
            CellState.Excluded => 'x',
            CellState.Alternate => 'a',
            _ => '.',
        };

    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var changes = ImmutableArray.CreateBuilder<Change>();
        var write = ChangeSet.CellWriter();
        foreach (var (key, cell, _) in CellBlock.Seen(job, Work, Places, Was))
        {
            if (cell?.State == State)
                continue;
            var now =
                State is not { } to ? null
                : cell is null ? new Cell(to, "")
                : cell with { State = to, TakenOut = false, Alternate = null };
            changes.Add(new($"cells/{key.Work}/{key.Place}", write(cell), write(now)));
        }
        return changes.ToImmutable();
    }

    /// <inheritdoc/>
    internal override bool CellsAreSound => true;
}
