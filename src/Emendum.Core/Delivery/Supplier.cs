using System.Collections.Immutable;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>Somebody who sells goods to the firm.</summary>
/// <param name="Name">As materials of the Book name it.</param>
/// <param name="Mail">E-mail address that orders go to; empty for none.</param>
/// <param name="Address">Postal address; empty for none.</param>
/// <param name="Account">The firm's number as its customer; empty for none.</param>
public sealed record Supplier(string Name, string Mail, string Address, string Account)
{
    /// <summary>Most characters of a name, as in the Book.</summary>
    public const int MostOfName = 120;

    /// <summary>Refuses what cannot be.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (string.IsNullOrWhiteSpace(Name) || Name.Length > MostOfName || Name.Any(char.IsControl))
            throw RefusedException.Of("name", $"A supplier has a name of at most {MostOfName} characters.");
        if (Mail.Length > 0 && !Message.IsAddress(Mail))
            throw RefusedException.Of("mail", $"“{Mail}” is not an e-mail address. Write it like orders@example.com.");
        if (Address.Length > 300)
            throw RefusedException.Of("address", "At most 300 characters.");
        if (Account.Length > 60 || Account.Any(char.IsControl))
            throw RefusedException.Of("account", "At most 60 characters.");
    }

    /// <summary>Whether a name is this one's: capitals and spaces at the ends apart.</summary>
    public bool IsCalled(string name) => string.Equals(Name.Trim(), name.Trim(), StringComparison.OrdinalIgnoreCase);
}

/// <summary>How the firm orders.</summary>
/// <param name="Numbers">How purchase orders are numbered (<see cref="NumberScheme"/>): a series of their own (rule N1).</param>
/// <param name="DeliverTo">Where goods go unless an order says otherwise; empty for the site of its job.</param>
/// <param name="Words">What stands at the end of an order.</param>
/// <param name="Suppliers">Whom it buys from, as far as more is known than the name.</param>
public sealed record OrderTerms(string Numbers, string DeliverTo, string Words, ImmutableArray<Supplier> Suppliers)
{
    /// <summary>Name of the setting.</summary>
    public const string Setting = "orderTerms";

    /// <summary>Most suppliers.</summary>
    public const int Most = 200;

    /// <summary>What a firm starts with.</summary>
    public static readonly OrderTerms Starting = new("PO {year}-{number:3}", "", "", []);

    /// <summary>What is known of a supplier.</summary>
    public Supplier Of(string name) => Suppliers.FirstOrDefault(s => s.IsCalled(name)) ?? new(name, "", "", "");

    /// <summary>Refuses what cannot be.</summary>
    /// <param name="invoices">How invoices are numbered: no order could have the text of one (N5).</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(string invoices)
    {
        NumberScheme.Check(Numbers);
        if (NumberScheme.CouldMeet(Numbers, invoices))
            throw RefusedException.Of(
                "numbers",
                $"Written like that, an order could have the number of an invoice ({invoices}): put something before it."
            );
        if (DeliverTo.Length > 300)
            throw RefusedException.Of("deliverTo", "At most 300 characters.");
        if (Words.Length > InvoiceTerms.MostWords)
            throw RefusedException.Of("words", $"At most {InvoiceTerms.MostWords:N0} characters.");
        if (Suppliers.Length > Most)
            throw RefusedException.Of("suppliers", $"At most {Most} suppliers.");
        foreach (var supplier in Suppliers)
            supplier.Check();
        if (Suppliers.FirstOrDefault(s => Suppliers.Count(o => o.IsCalled(s.Name)) > 1) is { } twice)
            throw RefusedException.Of("name", $"{twice.Name} stands twice.");
    }
}
