using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

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

    /// <summary>Offered beside it: what it would add.</summary>
    Alternate,

    /// <summary>Taken out of it: what putting it back would add.</summary>
    Out,
}

/// <summary>A piece of a job by its cells.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Id">Id of the section, place or work item.</param>
/// <param name="State">How it stands.</param>
/// <param name="Cells">Its cells that stand so.</param>
public sealed record Piece(PieceKind Kind, Guid Id, PieceState State, ImmutableArray<CellKey> Cells)
{
    /// <summary>Name in paths.</summary>
    public string Path => $"worth/{Kind.ToString().ToLowerInvariant()}/{Id}/{State.ToString().ToLowerInvariant()}";
}

/// <summary>What a piece is worth: the price with it less the price without it, bought and raised to least charges anew, before tax and before the job's rounding.</summary>
/// <param name="Piece">Which.</param>
/// <param name="Price">Money.</param>
/// <param name="Hours">Labour hours.</param>
/// <param name="GrossProfit">Money.</param>
/// <param name="Margin">Percent; null where there is no price.</param>
public sealed record Worth(Piece Piece, Total Price, Total Hours, Total GrossProfit, Total? Margin)
{
    /// <summary>The pieces of a job of one kind, in job order; those that are in first, then alternates, then what was taken out.</summary>
    public static IEnumerable<Piece> Pieces(Job job, PieceKind kind)
    {
        Guid Of(CellKey key) =>
            kind switch
            {
                PieceKind.Place => key.Place,
                PieceKind.Work => key.Work,
                _ => job.Item(key.Work)!.Section,
            };
        var order = kind switch
        {
            PieceKind.Place => job.Places.Select(p => p.Id),
            PieceKind.Work => job.Work.Select(w => w.Id),
            _ => job.Sections.Select(s => s.Id),
        };
        var at = order.Select((id, i) => (id, i)).ToDictionary(o => o.id, o => o.i);
        return job
            .Cells.Where(c => StateOf(c.Value) is not null)
            .GroupBy(c => (Id: Of(c.Key), State: StateOf(c.Value)!.Value))
            .OrderBy(g => g.Key.State)
            .ThenBy(g => at[g.Key.Id])
            .Select(g => new Piece(
                kind,
                g.Key.Id,
                g.Key.State,
                [.. g.Select(c => c.Key).OrderBy(k => k.Work).ThenBy(k => k.Place)]
            ));
    }

    private static PieceState? StateOf(Cell cell) =>
        cell switch
        {
            { State: CellState.Included } => PieceState.In,
            { State: CellState.Alternate } => PieceState.Alternate,
            { TakenOut: true } => PieceState.Out,
            _ => null,
        };

    /// <summary>The estimate that pieces are told by: before the job's rounding; under a fixed price, by the usual basis.</summary>
    /// <exception cref="RefusedException">It cannot be priced so.</exception>
    public static Estimate Base(Estimate estimate) => estimate.If(AsPriced(estimate.Job), []);

    private static Job AsPriced(Job job) => job with { Pricing = Alternates.WithoutWhole(job.Pricing) };

    /// <summary>The job with the piece where it was without it, and without it where it was with it.</summary>
    private static Job Other(Job job, Piece piece)
    {
        var cells = job.Cells.ToBuilder();
        foreach (var key in piece.Cells)
            if (piece.State == PieceState.In)
                cells.Remove(key);
            else
                cells[key] = cells[key] with { State = CellState.Included };
        return job with { Cells = cells.ToImmutable() };
    }

    /// <summary>What a piece is worth beside the base (see <see cref="Base"/>).</summary>
    /// <exception cref="RefusedException">The job cannot be priced without it, or with it.</exception>
    public static Worth Of(Estimate @base, Piece piece) =>
        Between(@base, @base.If(Other(@base.Job, piece), piece.Cells), piece, Trace.Silent);

    /// <summary>The same, recorded: both estimates stand under paths of their own.</summary>
    /// <exception cref="RefusedException">The job cannot be priced without it, or with it.</exception>
    public static Worth Recorded(Job job, Piece piece, Trace trace)
    {
        var priced = AsPriced(job);
        return Between(
            Estimate.Of(priced, trace.Within(piece.Path + "/now/")),
            Estimate.Of(Other(priced, piece), trace.Within(piece.Path + "/other/")),
            piece,
            trace
        );
    }

    private static Worth Between(Estimate now, Estimate other, Piece piece, Trace trace)
    {
        var (with, without) = piece.State == PieceState.In ? (now, other) : (other, now);
        Total Figure(Val value, string unit, string label, string leaf) =>
            trace.Total(value, unit, label, new(piece.Path, leaf));
        var price = Figure(
            with.Price.BeforeTax - without.Price.BeforeTax,
            "",
            "Worth: price with it less price without",
            "price"
        );
        var profit = Figure(
            with.Price.Readouts.GrossProfit - without.Price.Readouts.GrossProfit,
            "",
            "Gross profit with it less without",
            "grossProfit"
        );
        return new(
            piece,
            price,
            Figure(
                with.Reckoned.Costs.Hours - without.Reckoned.Costs.Hours,
                "h",
                "Hours with it less without",
                "hours"
            ),
            profit,
            price.V == 0 ? null : Figure(profit * 100m / price, "%", "Margin of the piece", "margin")
        );
    }
}
