namespace Emendum.Core.Delivery;

/// <summary>What one invoice bills of a contract; less than nothing is a credit note.</summary>
/// <param name="Work">For work, or by a step of the payment plan: before tax.</param>
/// <param name="OnAccount">Not tied to work: a deposit, or an amount on account (M8).</param>
/// <param name="Used">What of that, billed before, it uses up: minus lines in the categories in which it was billed (M9).</param>
/// <param name="Retained">What of it is kept back until later, before tax (M10).</param>
/// <param name="Tax">Tax of what is billed.</param>
/// <param name="Rounding">Payable rounding, without tax: only the last has one (M2).</param>
public sealed record Part(
    ByCategory Work,
    ByCategory OnAccount,
    ByCategory Used,
    decimal Retained,
    decimal Tax,
    decimal Rounding
)
{
    /// <summary>What is billed, before tax.</summary>
    public ByCategory Net => Work + OnAccount - Used;

    /// <summary>The invoice's total.</summary>
    public decimal Total => Net.Sum + Tax + Rounding;

    /// <summary>What is to be paid now, where tax is billed in full: retention is a term of payment (M11).</summary>
    public decimal PayableNow => Total - Retained;
}
