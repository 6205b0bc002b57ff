using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>What is paid early, and what late.</summary>
public static class LateAndEarly
{
    /// <summary>Days of the year by which interest is reckoned (M25).</summary>
    public const int DaysOfInterest = 365;

    /// <summary>An early-payment discount: of what is payable now, with tax, and booked with its tax in proportion (M24).</summary>
    /// <param name="part">The invoice.</param>
    /// <param name="percent">The discount.</param>
    /// <param name="places">Places of the currency.</param>
    /// <returns>All of it, what of it is before tax, and what is tax.</returns>
    public static (decimal Discount, decimal Net, decimal Tax) Discount(Part part, decimal percent, int places)
    {
        var discount = Rounding.Money(part.PayableNow * percent / 100m, places);
        var tax = part.Total == 0 ? 0 : Rounding.Money(discount * part.Tax / part.Total, places);
        return (discount, discount - tax, tax);
    }

    /// <summary>Whether money that came on a day came early enough: up to the invoice's day and so many days more (M24).</summary>
    public static bool IsEarly(DateOnly issued, int days, DateOnly received) => received <= issued.AddDays(days);

    /// <summary>Simple interest on what is open, with tax, from the day after it was due (M25).</summary>
    /// <param name="open">What is open.</param>
    /// <param name="percent">A year.</param>
    /// <param name="due">The day on which it was due.</param>
    /// <param name="until">The day of the reminder.</param>
    /// <param name="places">Places of the currency.</param>
    public static decimal Interest(decimal open, decimal percent, DateOnly due, DateOnly until, int places) =>
        Rounding.Money(
            Math.Max(open, 0) * percent / 100m * Math.Max(until.DayNumber - due.DayNumber, 0) / DaysOfInterest,
            places
        );
}
