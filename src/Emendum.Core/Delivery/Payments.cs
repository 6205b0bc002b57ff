using System.Collections.Immutable;

namespace Emendum.Core.Delivery;

/// <summary>An invoice with what is open of it.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Due">The day on which it is due.</param>
/// <param name="Open">What is to be paid of it.</param>
public sealed record OpenInvoice(string Number, DateOnly Due, decimal Open);

/// <summary>Where money goes that was paid (M26).</summary>
/// <param name="To">Invoices with what each takes.</param>
/// <param name="Credit">What is too much: it stands as the customer's credit, and is used only by a person.</param>
public sealed record Payments(ImmutableArray<(string Number, decimal Amount)> To, decimal Credit)
{
    /// <summary>A payment goes to the invoices that it names, as far as they are open; else to the oldest due.</summary>
    /// <param name="amount">What came.</param>
    /// <param name="names">Numbers of the invoices that it names; none for none.</param>
    /// <param name="open">What is open, of this customer.</param>
    public static Payments Of(decimal amount, IReadOnlyCollection<string> names, IEnumerable<OpenInvoice> open)
    {
        var invoices = open.Where(i => i.Open > 0).ToList();
        var named = invoices.Where(i => names.Contains(i.Number)).ToList();
        var to = ImmutableArray.CreateBuilder<(string, decimal)>();
        // What names some is for those alone: what is left of it is a credit, and no guess.
        foreach (
            var invoice in (named.Count > 0 ? named : invoices)
                .OrderBy(i => i.Due)
                .ThenBy(i => i.Number, StringComparer.Ordinal)
        )
        {
            var takes = Math.Min(amount, invoice.Open);
            if (takes <= 0)
                break;
            to.Add((invoice.Number, takes));
            amount -= takes;
        }
        return new(to.ToImmutable(), amount);
    }
}
