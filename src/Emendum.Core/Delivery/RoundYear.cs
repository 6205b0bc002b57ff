using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A contract year of a round (M30): its sum is the year's, billed by months, and the month that closes it brings what was billed to what was done.</summary>
public static class RoundYear
{
    /// <summary>What the closing month bills for visits: those that are billed (done, or left out at the customer's wish within the notice) at the visit's price, less what months have billed of them; less than nothing is a credit.</summary>
    /// <param name="visits">Visits that are billed.</param>
    /// <param name="price">Price of a visit, before tax.</param>
    /// <param name="billed">What months have billed of them.</param>
    /// <param name="places">Places of the currency.</param>
    public static decimal Closing(int visits, decimal price, decimal billed, int places) =>
        Rounding.Money(visits * price, places) - billed;
}
