using System.Collections.Immutable;

namespace Emendum.Core.Pricing;

/// <summary>What makes a price, in this order. Nobody writes the sequence a second time; each pass is a file.</summary>
internal static class Passes
{
    /// <summary>The order.</summary>
    public static readonly ImmutableArray<Func<PriceDraft, PriceDraft>> InOrder =
    [
        BuildPass.Of,
        PriceOnlyPass.Of,
        SectionsPass.Of,
        BracketsPass.Of,
        LeastPass.Of,
        RaisePass.Of,
        DiscountsPass.Of,
        AdjustmentPass.Of,
        FeesPass.Of,
        RoundingPass.BeforeTax,
        BeforeTaxPass.Of,
        TaxPass.Of,
        RoundingPass.AfterTax,
        TotalPass.Of,
    ];

    /// <summary>The order where work comes back: the passes above run for each occurrence, and these for the first year.</summary>
    public static readonly ImmutableArray<Func<PriceDraft, PriceDraft>> OfYear =
    [
        OccurrencesPass.Of,
        SuppliesPass.Of,
        RaisePass.Of,
        DiscountsPass.Of,
        AdjustmentPass.Of,
        YearPass.Of,
        OccurrencesPass.OfOnce,
        BeforeTaxPass.Of,
        TaxPass.Of,
        TotalPass.Of,
    ];
}
