using Emendum.Core.Quantities;

namespace Emendum.Core.Figures;

/// <summary>Amounts that are split into parts which add up (architecture decision 12).</summary>
public static class Shares
{
    /// <summary>Shares an amount of whole cents by weight, by largest remainder.</summary>
    public static Val[] Of(Val total, Val[] weights, string name, Trace trace)
    {
        var parts = Split.ByLargestRemainder(total.V, Array.ConvertAll(weights, w => w.V));
        var set = trace.On
            ? new ShareSet(trace.Prefix + name, total.HowOrConstant, [.. weights.Select(w => w.HowOrConstant)])
            : null;
        return [.. parts.Select((part, i) => new Val(part, set is null ? null : new Share(set, i)))];
    }
}
