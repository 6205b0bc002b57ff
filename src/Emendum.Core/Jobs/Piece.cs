using System.Collections.Immutable;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Kinds of piece that a job can be without.</summary>
public enum PieceKind
{
    Section,
    Place,
    Work,
}

/// <summary>How a piece stands to the price.</summary>
public enum PieceState
{
    /// <summary>In the price.</summary>
    In,

    /// <summary>Offered beside it.</summary>
    Alternate,

    /// <summary>Was in it and has been taken out: stated to the customer as not included.</summary>
    Out,
}

/// <summary>A piece of a job by its cells.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Id">Id of the section, place or work item.</param>
/// <param name="State">How it stands.</param>
/// <param name="Cells">Its cells that stand so.</param>
public sealed record Piece(PieceKind Kind, Guid Id, PieceState State, ImmutableArray<CellKey> Cells)
{
    /// <summary>Start of the paths of what it is worth.</summary>
    public string Path => $"worth/{Kind.ToString().ToLowerInvariant()}/{Id}/{State.ToString().ToLowerInvariant()}";

    /// <summary>The pieces of a job of one kind: by state, then in job order.</summary>
    public static IEnumerable<Piece> Of(Job job, PieceKind kind)
    {
        var order = kind switch
        {
            PieceKind.Place => job.Places.Select(p => p.Id),
            PieceKind.Work => job.Work.Select(w => w.Id),
            _ => job.Sections.Select(s => s.Id),
        };
        var at = order.Select((id, i) => (id, i)).ToDictionary(o => o.id, o => o.i);
        return job
            .Cells.Select(c => (c.Key, State: StateOf(c.Value)))
            .Where(c => c.State is not null)
            .GroupBy(c => (Id: IdOf(job, kind, c.Key), State: c.State!.Value))
            .OrderBy(g => g.Key.State)
            .ThenBy(g => at[g.Key.Id])
            .Select(g => new Piece(
                kind,
                g.Key.Id,
                g.Key.State,
                [.. g.Select(c => c.Key).OrderBy(k => k.Work).ThenBy(k => k.Place)]
            ));
    }

    /// <summary>One of them; null where no cell of it stands so.</summary>
    public static Piece? Of(Job job, PieceKind kind, Guid id, PieceState state)
    {
        ImmutableArray<CellKey> cells =
        [
            .. job
                .Cells.Where(c => StateOf(c.Value) == state && IdOf(job, kind, c.Key) == id)
                .Select(c => c.Key)
                .OrderBy(k => k.Work)
                .ThenBy(k => k.Place),
        ];
        return cells.IsEmpty ? null : new(kind, id, state, cells);
    }

    private static Guid IdOf(Job job, PieceKind kind, CellKey key) =>
        kind switch
        {
            PieceKind.Place => key.Place,
            PieceKind.Work => key.Work,
            _ => job.Item(key.Work)!.Section,
        };

    private static PieceState? StateOf(Cell cell) =>
        cell switch
        {
            { State: CellState.Included } => PieceState.In,
            { State: CellState.Alternate } => PieceState.Alternate,
            { TakenOut: true } => PieceState.Out,
            _ => null,
        };

    /// <summary>A cell that stands otherwise. What leaves the price remembers that it was in it.</summary>
    public static Cell Moved(Cell cell, PieceState to) =>
        to == PieceState.In
            ? cell with
            {
                State = CellState.Included,
                TakenOut = false,
                Alternate = null,
            }
            : cell with
            {
                State = to == PieceState.Alternate ? CellState.Alternate : CellState.Excluded,
                TakenOut = true,
                Alternate = null,
            };
}
