using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>A part of the price shared to its lines.</summary>
internal static class LinePrices
{
    /// <summary>What a part is shared to lines by; for what is made from costs that is worked out when first asked for.</summary>
    public static LineWeights WeightsOf(PriceDraft draft, Portion portion) =>
        portion.Lines
        ?? portion.Later?.Value
        // What stands in a round beside its occurrences falls on no line.
        ?? (
            draft.Pools.FirstOrDefault(p => p.Section?.Id == portion.Section) is { } pool
                ? TaxShares.Lines(draft, pool, portion.Tax)
                : new([], [])
        );

    /// <summary>Its amount so far, by line.</summary>
    public static Val[] Share(PriceDraft draft, Portion portion, LineWeights lines, string when) =>
        lines.Share(
            portion.Amount,
            draft.Trace.On ? $"price by line {when} ({portion.Of}{portion.Section}, tax {portion.Tax.Number + 1})" : "",
            draft.Places,
            draft.Trace
        );
}
