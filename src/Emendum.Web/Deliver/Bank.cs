using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Quantities;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Deliver;

/// <summary>An entry of a bank file as the file says it: sent back as it was read.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Day">Like 2027-01-31.</param>
/// <param name="Amount">As it is written.</param>
/// <param name="Currency">ISO 4217; empty where the file does not say.</param>
/// <param name="Payer">Who paid.</param>
/// <param name="Account">Their account.</param>
/// <param name="Words">What they wrote.</param>
public sealed record BankLine(
    string Id,
    string Day,
    string Amount,
    string Currency,
    string Payer,
    string Account,
    string Words
)
{
    internal static BankLine Of(BankEntry of) =>
        new(
            of.Id,
            Core.Quantities.Day.Written(of.Day),
            Rounding.Text(of.Amount),
            of.Currency,
            of.Payer,
            of.Account,
            of.Words
        );

    /// <summary>It, read.</summary>
    internal BankEntry Read() =>
        new(Id, Typed.Day(Day, "day"), Typed.Number(Amount, "amount") ?? 0, Currency, Payer, Account, Words);
}

/// <summary>A part of money that came, for an invoice.</summary>
/// <param name="Job">The job.</param>
/// <param name="Invoice">The invoice.</param>
/// <param name="Amount">How much, as it is typed; empty for as much as the invoice takes.</param>
/// <param name="Discount">The discount for paying early that is taken with it; empty for none.</param>
public sealed record BankPartTyped(Guid Job, Guid Invoice, string Amount, string Discount);

/// <summary>Where an entry would go.</summary>
/// <param name="Line">The entry.</param>
/// <param name="Words">Day, payer and what was written, as they are read.</param>
/// <param name="Amount">The amount as it is read.</param>
/// <param name="Before">When it was taken in before; empty where it was not.</param>
/// <param name="Stops">Why it cannot be taken in; empty where it can.</param>
/// <param name="By">By what its invoices were found.</param>
/// <param name="Parts">To which invoices it would go.</param>
/// <param name="Goes">They in words, a line each.</param>
/// <param name="Credit">What is too much, as it is read; empty for nothing.</param>
/// <param name="Customer">Whose money it is; null where nobody knows.</param>
public sealed record BankProposal(
    BankLine Line,
    string Words,
    string Amount,
    string Before,
    string Stops,
    MatchedBy By,
    IReadOnlyList<BankPartTyped> Parts,
    IReadOnlyList<string> Goes,
    string Credit,
    Guid? Customer
);

/// <summary>An invoice that can be paid.</summary>
/// <param name="Job">The job.</param>
/// <param name="Invoice">The invoice.</param>
/// <param name="Words">Number, customer, what is open and when it is due.</param>
/// <param name="Open">What is open, to be typed over.</param>
public sealed record OwedRow(Guid Job, Guid Invoice, string Words, string Open);

/// <summary>What a bank file says, and where it would go. Nothing of it is kept yet.</summary>
/// <param name="Says">How much it is, in a sentence.</param>
/// <param name="Entries">Money that came.</param>
/// <param name="LeftAside">What of the file is left aside, and why.</param>
/// <param name="Owed">What is owed, for whoever says where money goes.</param>
public sealed record BankFileView(
    string Says,
    IReadOnlyList<BankProposal> Entries,
    IReadOnlyList<string> LeftAside,
    IReadOnlyList<OwedRow> Owed
);

/// <summary>Money that was taken in.</summary>
/// <param name="Id">The entry.</param>
/// <param name="Words">Day, payer and what was written.</param>
/// <param name="Amount">The amount.</param>
/// <param name="Credit">What of it is on no invoice, as it is read; empty for nothing.</param>
/// <param name="Left">The same, to be typed over.</param>
public sealed record KeptMoney(string Id, string Words, string Amount, string Credit, string Left);

/// <summary>Money that came by bank.</summary>
/// <param name="Currency">The firm's currency.</param>
/// <param name="Credits">Money of which some is on no invoice, the latest first.</param>
/// <param name="Latest">The latest that was taken in.</param>
/// <param name="Owed">What is owed.</param>
/// <param name="Sum">All that is owed, as it is read.</param>
/// <param name="Refused">What did not go to its invoice after all, and why, a line each: it stands among the credits.</param>
public sealed record BankView(
    string Currency,
    IReadOnlyList<KeptMoney> Credits,
    IReadOnlyList<KeptMoney> Latest,
    IReadOnlyList<OwedRow> Owed,
    string Sum,
    IReadOnlyList<string> Refused
);

/// <summary>An entry that is taken in.</summary>
/// <param name="Line">The entry.</param>
/// <param name="Customer">Whose money it is; null where nobody knows.</param>
/// <param name="Parts">To which invoices it goes.</param>
public sealed record TakeEntry(BankLine Line, Guid? Customer, ImmutableArray<BankPartTyped> Parts);

/// <summary>Takes entries of a bank file in.</summary>
public sealed record TakeEntries(ImmutableArray<TakeEntry> Entries);

/// <summary>Uses money that is on no invoice.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Part">For which invoice, and how much.</param>
public sealed record UseCredit(Guid Id, BankPartTyped Part);

/// <summary>Money that comes by bank finds its invoices (delivery.md, M26).</summary>
public sealed class Bank(
    BankStore bank,
    InvoiceStore invoices,
    Invoicing invoicing,
    CompanyStore companies,
    FirmDay day,
    TimeProvider time
)
{
    /// <summary>Most that are listed.</summary>
    private const int MostListed = 200;

    private const int MostParts = 200;

    private string Currency => companies.Get()?.Currency ?? "";

    private int Places => Core.Quantities.Currency.Places(Currency) ?? 2;

    /// <summary>Money that came, and what is owed.</summary>
    internal BankView View() => View([]);

    private BankView View(IReadOnlyList<string> refused)
    {
        var (places, kept, owed) = (Places, bank.Latest(BankStore.Most), invoices.Owed(Currency, Places));
        KeptMoney Row(KeptBankEntry of) =>
            new(
                of.Entry.Id,
                WordsOf(of.Entry),
                Shown.Money(of.Entry.Amount, places),
                of.Credit > 0 ? Shown.Money(of.Credit, places) : "",
                of.Credit > 0 ? Rounding.Text(of.Credit) : ""
            );
        return new(
            Currency,
            [.. kept.Where(k => k.Credit > 0).Take(MostListed).Select(Row)],
            [.. kept.Take(MostListed).Select(Row)],
            Rows(owed),
            Shown.Money(owed.Sum(o => o.Open), places),
            refused
        );
    }

    private IReadOnlyList<OwedRow> Rows(IEnumerable<OwedInvoice> owed) =>
        [.. owed.Select(o => new OwedRow(o.Job, o.Invoice, WordsOf(o), Rounding.Text(o.Open)))];

    private string WordsOf(OwedInvoice of) =>
        $"{of.Number}{(of.CustomerName.Length > 0 ? $", {of.CustomerName}" : "")}: {Shown.Money(of.Open, Places)}, due {VisitRow.InWords(of.Due)} {of.Due.Year}";

    private static string WordsOf(BankEntry of) =>
        string.Join(
            " · ",
            new[] { $"{VisitRow.InWords(of.Day)} {of.Day.Year}", of.Payer, of.Words }.Where(w => w.Length > 0)
        );

    /// <summary>What a file says, and where it would go.</summary>
    internal BankFileView Read(byte[] content)
    {
        var statement = BankFile.Read(content);
        var all = invoices.Owed(Currency, Places);
        var (owed, accounts, there, moment) = (all, bank.Accounts(), bank.TakenIn(), day.Moments());
        var proposals = new List<BankProposal>();
        foreach (var entry in statement.Entries)
        {
            var before = there.TryGetValue(entry.Id, out var at) ? moment(at) : "";
            var match = before.Length > 0 ? null : BankMatch.Of(entry, owed, accounts);
            proposals.Add(Proposed(entry, before, match));
            // What one entry pays is not open for the next.
            foreach (var part in match?.Parts ?? [])
                owed = Less(owed, part);
        }
        var fresh = proposals.Where(p => p.Before.Length == 0).ToList();
        return new(
            proposals.Count == 0
                ? "No money came by this file."
                : $"{Counted.Of(proposals.Count, "entry", "entries")} of money that came, {fresh.Count} of them new: {fresh.Count(p => p.Parts.Count > 0)} have found an invoice.",
            proposals,
            statement.LeftAside,
            Rows(all)
        );
    }

    private static List<OwedInvoice> Less(List<OwedInvoice> owed, BankPart part) =>
        [
            .. owed.Select(o =>
                    o.Invoice == part.Of.Invoice ? o with { Open = o.Open - part.Amount - part.Discount, Early = 0 } : o
                )
                .Where(o => o.Open > 0),
        ];

    private BankProposal Proposed(BankEntry entry, string before, BankMatch? match)
    {
        var stops =
            entry.Currency.Length > 0 && entry.Currency != Currency
                ? $"It is in {entry.Currency}; the firm's invoices are in {Currency}."
                : "";
        var parts = stops.Length > 0 ? [] : match?.Parts ?? [];
        return new(
            BankLine.Of(entry),
            WordsOf(entry),
            Shown.Money(entry.Amount, Places),
            before,
            stops,
            match?.By ?? MatchedBy.Nothing,
            [
                .. parts.Select(p => new BankPartTyped(
                    p.Of.Job,
                    p.Of.Invoice,
                    Rounding.Text(p.Amount),
                    p.Discount > 0 ? Rounding.Text(p.Discount) : ""
                )),
            ],
            [
                .. parts.Select(p =>
                    $"{Shown.Money(p.Amount, Places)} to {p.Of.Number}{(p.Of.CustomerName.Length > 0 ? $", {p.Of.CustomerName}" : "")}{(p.Discount > 0 ? $", with {Shown.Money(p.Discount, Places)} off for paying early" : "")}"
                ),
            ],
            match is { By: not MatchedBy.Nothing, Credit: > 0 } ? Shown.Money(match.Credit, Places) : "",
            match?.Customer
        );
    }

    /// <summary>Takes entries in: each is kept once, and its parts are payments of their invoices. What was taken in before stays as it is.</summary>
    internal BankView Take(TakeEntries take)
    {
        if (take.Entries.IsDefaultOrEmpty || take.Entries.Length > BankEntry.Most)
            throw RefusedException.Of("entries", $"Say which entries, at most {BankEntry.Most:N0} at a time.");
        var read = take.Entries.Select(e => (Entry: e.Line.Read(), e.Customer, e.Parts)).ToList();
        // All of it is looked at before any of it is kept.
        foreach (var (entry, _, parts) in read)
        {
            entry.Check(Places);
            if (entry.Currency.Length > 0 && entry.Currency != Currency)
                throw RefusedException.Of(
                    "entries",
                    $"An entry is in {entry.Currency}, the invoices are in {Currency}."
                );
            if (parts.IsDefault || parts.Length > MostParts)
                throw RefusedException.Of("entries", $"An entry goes to at most {MostParts} invoices.");
            if (parts.Sum(p => Typed.Number(p.Amount, "amount") ?? 0) > entry.Amount)
                throw RefusedException.Of("amount", "More would go to invoices than came.");
        }
        var refused = new List<string>();
        var owed = invoices.Owed(Currency, Places);
        foreach (var (entry, known, parts) in read)
        {
            if (bank.Find(entry.Id) is not null)
                continue;
            // Whose invoice it pays, theirs it is: the next from that account is known by that.
            var whose = parts
                .Select(p => owed.FirstOrDefault(o => o.Invoice == p.Invoice)?.Customer)
                .Distinct()
                .ToList();
            var customer = known ?? (whose is [var one] ? one : null);
            bank.Keep(entry, customer, time.GetUtcNow().UtcDateTime, JobEndpoints.Owner);
            foreach (var (part, n) in parts.Select((p, n) => (p, n)))
                try
                {
                    Pay(DerivedId.Of($"{entry.Id}/{part.Invoice}/{n}"), entry, part);
                }
                catch (RefusedException wrong)
                {
                    // Somebody else may have written it meanwhile. The money is there all the same.
                    refused.Add($"{WordsOf(entry)}: {wrong.Refusal.Message}");
                }
        }
        return View(refused);
    }

    /// <summary>Uses money that is on no invoice (M26: only a person does).</summary>
    internal BankView Use(string entry, UseCredit use)
    {
        var kept = bank.Find(entry) ?? throw new NotThereException("That money was never taken in.");
        if (use.Id == Guid.Empty)
            throw RefusedException.Of("id", "It needs an id.");
        Pay(use.Id, kept.Entry, use.Part);
        return View();
    }

    private void Pay(Guid id, BankEntry entry, BankPartTyped part) =>
        invoicing.Pay(
            part.Job,
            part.Invoice,
            new(id, part.Invoice, entry.Day, 0, How(entry), time.GetUtcNow().UtcDateTime, JobEndpoints.Owner)
            {
                Discount = Typed.Number(part.Discount, "discount") ?? 0,
                Entry = entry.Id,
            },
            Typed.Number(part.Amount, "amount"),
            bank.Find(entry.Id)!.Credit
        );

    private static string How(BankEntry entry)
    {
        var how = entry.Payer.Length > 0 ? $"bank, {entry.Payer}" : "bank";
        return how.Length <= PaymentFact.MostHow ? how : how[..PaymentFact.MostHow];
    }
}

/// <summary>What is asked of money that comes by bank, and done with it.</summary>
public static class BankEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapBank(this IEndpointRouteBuilder app)
    {
        var bank = app.MapGroup("/api/bank");
        bank.MapGet("/", (Bank of) => of.View());
        bank.MapPost("/read", async (HttpRequest request, Bank of) => of.Read(await Bodies.Read(request)))
            .WithMetadata(new BodyLimit(BankFile.MostBytes))
            .Accepts<byte[]>("application/octet-stream");
        bank.MapPost("/take", (TakeEntries take, Bank of) => of.Take(take)).WithMetadata(new BodyLimit(20_000_000));
        bank.MapPost("/{entry:length(64)}/use", (string entry, UseCredit use, Bank of) => of.Use(entry, use));
    }
}
