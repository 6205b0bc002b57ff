using Emendum.Core.Quantities;

namespace Emendum.Core.Figures;

/// <summary>Amounts that are split into parts which add up (architecture decision 12).</summary>
public static class Shares
{
    /// <summary>Shares an amount of money, whole in the smallest unit of its currency, by weight, by largest remainder.</summary>
    public static Val[] Of(Val total, Val[] weights, string name, int places, Trace trace)
    {
        var parts = Split.ByLargestRemainder(total.V, Array.ConvertAll(weights, w => w.V), places);
        var set = trace.On
            ? new ShareSet(trace.Prefix + name, total.HowOrConstant, [.. weights.Select(w => w.HowOrConstant)], places)
            : null;
        return [.. parts.Select((part, i) => new Val(part, set is null ? null : new Share(set, i)))];
    }
}
