using System.Collections.Immutable;

namespace Emendum.Core.Delivery;

/// <summary>By what money found its invoices.</summary>
public enum MatchedBy
{
    /// <summary>By nothing: a person says where it goes.</summary>
    Nothing,

    /// <summary>By numbers of invoices in what was written with it.</summary>
    Number,

    /// <summary>By who paid: it goes to what is due first.</summary>
    Payer,
}

/// <summary>A part of the money, for an invoice.</summary>
/// <param name="Of">The invoice.</param>
/// <param name="Amount">How much of the money.</param>
/// <param name="Discount">The discount for paying early that is taken with it; nothing for none.</param>
public sealed record BankPart(OwedInvoice Of, decimal Amount, decimal Discount);

/// <summary>Where money goes that came by bank (M26): to the invoices that it names, else to what its payer owes, the oldest due first; what is too much is the customer's credit.</summary>
/// <param name="By">By what that was found.</param>
/// <param name="Parts">To which invoices.</param>
/// <param name="Credit">What is left.</param>
/// <param name="Customer">Whose money it is; null where nobody knows.</param>
public sealed record BankMatch(MatchedBy By, ImmutableArray<BankPart> Parts, decimal Credit, Guid? Customer)
{
    /// <summary>Shortest number of an invoice that is looked for in what people write: a shorter one could be a day or a house.</summary>
    public const int ShortestNumber = 4;

    /// <summary>Shortest name by which a payer is known.</summary>
    private const int ShortestName = 5;

    /// <summary>Where an entry would go.</summary>
    /// <param name="entry">The entry.</param>
    /// <param name="owed">What is owed, of all jobs.</param>
    /// <param name="accounts">Whose an account is, by what was booked before.</param>
    public static BankMatch Of(
        BankEntry entry,
        IReadOnlyList<OwedInvoice> owed,
        IReadOnlyDictionary<string, Guid> accounts
    )
    {
        var named = owed.Where(o => Names(entry.Words, o.Number)).ToList();
        if (named.Count > 0)
        {
            // Of several it names, in the order in which they are due.
            var whose = named.Select(n => n.Customer).Distinct().ToList();
            return To(entry, named, MatchedBy.Number, whose is [var one] ? one : null);
        }
        return PayerOf(entry, owed, accounts) is { } payer
            ? To(entry, [.. owed.Where(o => o.Customer == payer)], MatchedBy.Payer, payer)
            : new(MatchedBy.Nothing, [], entry.Amount, null);
    }

    private static BankMatch To(BankEntry entry, List<OwedInvoice> invoices, MatchedBy by, Guid? customer)
    {
        // What settles one in time with its discount settles it.
        if (
            invoices is [var only]
            && only.Early > 0
            && entry.Day <= only.EarlyUntil
            && entry.Amount == only.Open - only.Early
        )
            return new(by, [new(only, entry.Amount, only.Early)], 0, customer);
        var byNumber = invoices.ToDictionary(i => i.Number);
        var goes = Payments.Of(
            entry.Amount,
            by == MatchedBy.Number ? [.. byNumber.Keys] : [],
            invoices.Select(i => new OpenInvoice(i.Number, i.Due, i.Open))
        );
        return new(by, [.. goes.To.Select(t => new BankPart(byNumber[t.Number], t.Amount, 0))], goes.Credit, customer);
    }

    /// <summary>Whether words name a number: whatever its case, with nothing of a number or a word before or behind it; also where the bank has broken it by spaces.</summary>
    public static bool Names(string words, string number)
    {
        if (number.Length < ShortestNumber)
            return false;
        for (var start = 0; start < words.Length; start++)
        {
            if (start > 0 && char.IsLetterOrDigit(words[start - 1]))
                continue;
            var (at, of) = (start, 0);
            while (of < number.Length && at < words.Length)
                if (char.ToUpperInvariant(words[at]) == char.ToUpperInvariant(number[of]))
                    (at, of) = (at + 1, of + 1);
                else if (of > 0 && words[at] is ' ' or '\n')
                    at++;
                else
                    break;
            if (of == number.Length && (at == words.Length || !char.IsLetterOrDigit(words[at])))
                return true;
        }
        return false;
    }

    /// <summary>Who paid: whose account it is, or else the one customer who bears the payer's name.</summary>
    private static Guid? PayerOf(
        BankEntry entry,
        IReadOnlyList<OwedInvoice> owed,
        IReadOnlyDictionary<string, Guid> accounts
    )
    {
        if (entry.Account.Length > 0 && accounts.TryGetValue(entry.Account, out var known))
            return known;
        var payer = Plain(entry.Payer);
        if (payer.Length < ShortestName)
            return null;
        var same = owed.Where(o => o.Customer is not null)
            .DistinctBy(o => o.Customer)
            .Where(o =>
                Plain(o.CustomerName) is { Length: >= ShortestName } name
                && (payer.Contains(name, StringComparison.Ordinal) || name.Contains(payer, StringComparison.Ordinal))
            )
            .ToList();
        return same is [var one] ? one.Customer : null;
    }

    private static string Plain(string name) =>
        string.Concat(name.Where(char.IsLetterOrDigit).Select(char.ToUpperInvariant));
}
