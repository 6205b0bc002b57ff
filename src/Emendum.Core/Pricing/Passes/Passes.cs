using System.Collections.Immutable;

namespace Emendum.Core.Pricing;

/// <summary>What happens to a price after its basis has begun it, in this order. Nobody writes the sequence a second time; each pass is a file.</summary>
internal static class Passes
{
    /// <summary>The order.</summary>
    public static readonly ImmutableArray<Func<PriceDraft, PriceDraft>> InOrder =
    [
        PriceOnlyPass.Of,
        BeforeTaxPass.Of,
        TaxPass.Of,
        TotalPass.Of,
    ];
}
