using System.Collections.Immutable;
using Emendum.Core.Pricing;

namespace Emendum.Core.Delivery;

/// <summary>What is added to a contract after it was signed, or taken from it: an accepted change, or an allowance that was settled.</summary>
/// <param name="Amounts">Before tax; less than nothing for what is dropped.</param>
/// <param name="Total">With its own tax, as it was signed or settled.</param>
public sealed record ContractChange(ByCategory Amounts, decimal Total);

/// <summary>The contract sum (estimating model §13): what was signed, with accepted changes and settled allowances, before tax and by tax category.</summary>
/// <param name="Categories">Tax categories; those that changes brought in come after those of what was signed.</param>
/// <param name="Signed">What was signed, before tax; rounding after tax is not in it (M1).</param>
/// <param name="SignedTotal">What was signed, with tax, and with its rounding.</param>
/// <param name="RoundsAfterTax">Whether that total was rounded after tax: then the last invoice closes on it (M2).</param>
/// <param name="Places">Places of the currency.</param>
public sealed record Contract(
    ImmutableArray<TaxCategory> Categories,
    ByCategory Signed,
    decimal SignedTotal,
    bool RoundsAfterTax,
    int Places
)
{
    /// <summary>What was added to it since, in order.</summary>
    public ImmutableArray<ContractChange> Changes { get; init; } = [];

    /// <summary>The contract sum as it stands.</summary>
    public ByCategory Sum =>
        Changes.Aggregate(Signed + ByCategory.Nothing(Categories.Length), (sum, c) => sum + c.Amounts);

    /// <summary>What all invoices together come to, where the total was rounded after tax (M2).</summary>
    public decimal Total => SignedTotal + Changes.Sum(c => c.Total);

    /// <summary>Tax of an amount of it.</summary>
    public decimal Tax(ByCategory amount) => amount.Tax(Categories, Places);
}
