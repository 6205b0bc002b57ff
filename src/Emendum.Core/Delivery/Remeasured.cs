using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A line of a contract that is billed by what is measured when it is done (M27).</summary>
/// <param name="Signed">The signed quantity.</param>
/// <param name="UnitPrice">The printed unit price.</param>
/// <param name="Measured">The measured quantity; null until it is measured.</param>
/// <param name="Places">Places of the currency.</param>
public sealed record Remeasured(decimal Signed, decimal UnitPrice, decimal? Measured, int Places)
{
    /// <summary>Percent beyond which a difference is flagged; exactly so much is not.</summary>
    public const decimal Tolerance = 10;

    /// <summary>Its value: done quantity × unit price, rounded; the signed quantity until it is measured.</summary>
    public decimal Value => Rounding.Money((Measured ?? Signed) * UnitPrice, Places);

    /// <summary>Whether it was measured to more than the tolerance beside what was signed.</summary>
    public bool IsFlagged =>
        Measured is { } done
        && Rounding.ForCompare(Math.Abs(done - Signed)) > Rounding.ForCompare(Math.Abs(Signed) * Tolerance / 100m);
}
