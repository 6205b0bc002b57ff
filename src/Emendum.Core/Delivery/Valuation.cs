namespace Emendum.Core.Delivery;

/// <summary>The statement that goes with a part by work (M23), each as it is read, in order.</summary>
/// <param name="Value">Value to date.</param>
/// <param name="Previous">Value of the parts before.</param>
/// <param name="Period">Value of this period.</param>
/// <param name="Used">Used from account.</param>
/// <param name="Net">What is billed, before tax.</param>
/// <param name="Tax">Its tax.</param>
/// <param name="RetainedToDate">Retained to date.</param>
/// <param name="RetainedNow">Of it now.</param>
/// <param name="Payable">What is to be paid now.</param>
/// <param name="Balance">The contract sum less the value.</param>
public sealed record Valuation(
    decimal Value,
    decimal Previous,
    decimal Period,
    decimal Used,
    decimal Net,
    decimal Tax,
    decimal RetainedToDate,
    decimal RetainedNow,
    decimal Payable,
    decimal Balance
)
{
    /// <summary>That of a part, beside what was billed before it.</summary>
    public static Valuation Of(Billing before, Part part)
    {
        var (previous, period) = (before.Worked.Sum, part.Work.Sum);
        return new(
            previous + period,
            previous,
            period,
            part.Used.Sum,
            part.Net.Sum,
            part.Tax,
            before.Retained + part.Retained,
            part.Retained,
            part.PayableNow,
            before.Contract.Sum.Sum - previous - period
        );
    }
}
