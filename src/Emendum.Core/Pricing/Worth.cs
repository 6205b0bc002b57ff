using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Pricing;

/// <summary>What a piece is worth: the price with it less the price without it, bought and raised to least charges anew, before tax and before the job's rounding.</summary>
/// <param name="Piece">Which.</param>
/// <param name="Price">Money.</param>
/// <param name="Hours">Labour hours.</param>
/// <param name="GrossProfit">Money.</param>
/// <param name="Margin">Percent; null where there is no price.</param>
public sealed record Worth(Piece Piece, Total Price, Total Hours, Total GrossProfit, Total? Margin)
{
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
                cells[key] = Piece.Moved(cells[key], PieceState.In);
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
