using System.Collections.Immutable;

namespace Emendum.Core.Delivery;

/// <summary>What is credited of an invoice, in its own categories (M20).</summary>
/// <param name="Net">Before tax.</param>
/// <param name="Tax">Its tax.</param>
public sealed record CreditNote(ByCategory Net, decimal Tax)
{
    /// <summary>A credit of a part of an invoice: never more than is left of it, and the one that closes it takes the tax that is left.</summary>
    /// <param name="contract">Whose categories and places it has.</param>
    /// <param name="invoice">What was billed, before tax.</param>
    /// <param name="tax">Its tax.</param>
    /// <param name="before">What was credited of it already.</param>
    /// <param name="amount">What is to be credited, before tax.</param>
    /// <exception cref="RefusedException">More than is left, or nothing.</exception>
    public static CreditNote Of(
        Contract contract,
        ByCategory invoice,
        decimal tax,
        ImmutableArray<CreditNote> before,
        ByCategory amount
    )
    {
        var left = before.Aggregate(invoice, (sum, note) => sum - note.Net);
        for (var i = 0; i < contract.Categories.Length; i++)
            // A minus line of the invoice is credited towards nothing, from below.
            if (Math.Abs(amount[i]) > Math.Abs(left[i]) || amount[i] * left[i] < 0)
                throw RefusedException.Of("amount", "That is more than is left of the invoice.");
        if (amount.Amounts.All(a => a == 0))
            throw RefusedException.Of("amount", "Say what is credited.");
        var taxLeft = tax - before.Sum(note => note.Tax);
        var closes = (left - amount).Amounts.All(a => a == 0);
        var own = contract.Tax(amount);
        // No part takes more tax than is left.
        return new(
            amount,
            closes ? taxLeft
                : Math.Abs(own) > Math.Abs(taxLeft) ? taxLeft
                : own
        );
    }
}
