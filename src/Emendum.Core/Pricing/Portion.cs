using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>Kinds of money in a price, told apart because not every step falls on each.</summary>
public enum PortionKind
{
    /// <summary>Made from costs.</summary>
    Built,

    /// <summary>Has a price of its own: a unit price, a price-only item.</summary>
    Own,

    /// <summary>Of a fixed price: no bracket and no least charge but the job's falls on it.</summary>
    Fixed,

    /// <summary>A provisional sum: only fees, rounding and tax count it, and what they put on it falls on the others.</summary>
    Allowance,

    /// <summary>Of the job and of no line: tax, rounding after it, what is bought for a year.</summary>
    Job,
}

/// <summary>A part of the price while it is made: of one kind, one build-up and one tax category.</summary>
/// <param name="Of">Its kind.</param>
/// <param name="Section">The section, where that has a basis of its own; null for the job's.</param>
/// <param name="Tax">Its tax category.</param>
/// <param name="Amount">Money.</param>
public sealed record Portion(PortionKind Of, Guid? Section, TaxCategory Tax, Val Amount)
{
    /// <summary>What it is shared to lines by; null where that is made only when asked for.</summary>
    internal LineWeights? Lines { get; init; }

    /// <summary>The same, made when first asked for.</summary>
    internal Lazy<LineWeights>? Later { get; init; }

    private LineWeights Weights => Lines ?? Later!.Value;

    /// <summary>It with more of the same kind, build-up and tax category.</summary>
    internal Portion With(Portion more)
    {
        var before = this;
        LineWeights All() =>
            new([.. before.Weights.At, .. more.Weights.At], [.. before.Weights.Weights, .. more.Weights.Weights]);
        var amount = Amount + more.Amount;
        return Lines is null || more.Lines is null
            ? this with
            {
                Amount = amount,
                Lines = null,
                Later = new(All),
            }
            : this with
            {
                Amount = amount,
                Lines = All(),
            };
    }
}

/// <summary>Lines by their position, each with what it counts for.</summary>
internal sealed record LineWeights(int[] At, Val[] Weights)
{
    /// <summary>An amount shared to them.</summary>
    public Val[] Share(Val amount, string name, int places, Trace trace) =>
        Shares.Of(amount, Weights, name, places, trace);
}
