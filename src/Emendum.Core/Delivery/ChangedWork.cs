using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>What dropped and remeasured work is worth in a change.</summary>
public static class ChangedWork
{
    /// <summary>What is credited for dropped work: the contract value of what is not done, less goods ordered for it that cannot go back, at what they cost us; never below nothing (M14).</summary>
    /// <param name="notDone">Contract value of what is not done.</param>
    /// <param name="goods">Cost of goods that cannot go back; they are the customer's then.</param>
    /// <returns>What the contract sum changes by: nothing or less.</returns>
    public static decimal Dropped(decimal notDone, decimal goods) => -Math.Max(notDone - Math.Max(goods, 0), 0);

    /// <summary>A drop as far as the job's least charge bears it, unless a person lifts that (M15).</summary>
    /// <param name="drop">What the contract sum would change by.</param>
    /// <param name="contractSum">The contract sum before it.</param>
    /// <param name="least">The job's least charge; 0 for none.</param>
    public static decimal AboveLeast(decimal drop, decimal contractSum, decimal least) =>
        drop >= 0 ? drop : Math.Min(Math.Max(drop, least - contractSum), 0);

    /// <summary>More or less of a line whose unit price was shown, at that price (M16).</summary>
    public static decimal Remeasured(decimal by, decimal unitPrice, int places) =>
        Rounding.Money(by * unitPrice, places);

    /// <summary>What an allowance settles to (M19): what was spent without reclaimed tax, and our hours, less the allowance; the stated percent only on what is above it.</summary>
    /// <param name="allowance">The provisional sum.</param>
    /// <param name="spent">What was paid, without reclaimed tax, with our hours at the rate stated, else at loaded cost.</param>
    /// <param name="percent">Stated percent on what is above.</param>
    /// <param name="places">Places of the currency.</param>
    public static decimal Settled(decimal allowance, decimal spent, decimal percent, int places) =>
        Rounding.Money(spent - allowance + Math.Max(spent - allowance, 0) * percent / 100m, places);
}
