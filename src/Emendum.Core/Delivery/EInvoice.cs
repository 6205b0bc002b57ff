using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>Seller or buyer as an e-invoice names them. Terms in brackets are those of EN 16931-1 (seller/buyer).</summary>
/// <param name="Name">Name (BT-27/BT-44).</param>
/// <param name="Street">Address line (BT-35/BT-50); empty where nobody says.</param>
/// <param name="City">City (BT-37/BT-52); empty where nobody says.</param>
/// <param name="PostCode">Post code (BT-38/BT-53); empty where nobody says.</param>
/// <param name="Country">Country, ISO 3166-1, two letters (BT-40/BT-55).</param>
/// <param name="TaxNumber">VAT identifier, with its country before it (BT-31/BT-48); empty for none.</param>
public sealed record EParty(string Name, string Street, string City, string PostCode, string Country, string TaxNumber)
{
    /// <summary>Nobody.</summary>
    public static readonly EParty Nobody = new("", "", "", "", "", "");

    /// <summary>Registration as a legal person (BT-30/BT-47); empty for none.</summary>
    public string Registration { get; init; } = "";

    /// <summary>E-mail address, which is the electronic address as well (BT-34/BT-49, scheme EM); empty for none.</summary>
    public string Mail { get; init; } = "";

    /// <summary>Refuses what cannot stand on one. What is empty is asked for when an invoice is issued with it.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        foreach (
            var (text, field) in new[]
            {
                (Name, "name"),
                (Street, "street"),
                (City, "city"),
                (PostCode, "postCode"),
                (Registration, "registration"),
            }
        )
            if (text.Length > 300 || text.Any(char.IsControl))
                throw RefusedException.Of(field, "At most 300 characters, in one line.");
        CheckCodes();
        if (Mail.Length > 0 && !Proposals.Message.IsAddress(Mail))
            throw RefusedException.Of("mail", "That is not an e-mail address. Write it like name@example.com.");
    }

    /// <summary>Refuses a country or a VAT number that is none.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void CheckCodes()
    {
        if (Country.Length > 0 && !IsCountry(Country))
            throw RefusedException.Of("country", "Write the country as two letters (ISO 3166), like IE.");
        if (TaxNumber.Length > 0 && !IsTaxNumber(TaxNumber))
            throw RefusedException.Of(
                "taxNumber",
                "A VAT number begins with the two letters of its country, like IE1234567T."
            );
    }

    private static bool IsCountry(string text) => text.Length == 2 && text.All(char.IsAsciiLetterUpper);

    /// <summary>Two letters of a country (EL stands for Greece), then letters and digits (BR-CO-9).</summary>
    private static bool IsTaxNumber(string text) =>
        text.Length is >= 4 and <= 20 && IsCountry(text[..2]) && text[2..].All(char.IsAsciiLetterOrDigit);
}

/// <summary>What the firm's e-invoices say of it.</summary>
/// <param name="Seller">The firm.</param>
/// <param name="Account">Account that is paid into, IBAN (BT-84); empty for none.</param>
public sealed record EInvoiceTerms(EParty Seller, string Account)
{
    /// <summary>Name of the setting.</summary>
    public const string Setting = "eInvoice";

    /// <summary>Nothing is said yet: then no e-invoice is made.</summary>
    public static readonly EInvoiceTerms Starting = new(EParty.Nobody, "");

    /// <summary>Refuses what cannot be.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        Seller.Check();
        if (Account.Length > 0 && !IsIban(Account))
            throw RefusedException.Of("account", "That is not an IBAN: its check digits do not agree.");
    }

    /// <summary>Whether a text is an IBAN: letters and digits whose check digits agree (ISO 13616, ISO 7064 mod 97-10). Blanks are left out.</summary>
    public static bool IsIban(string text)
    {
        var plain = Plain(text);
        if (plain.Length is < 15 or > 34 || !plain.All(c => char.IsAsciiLetterUpper(c) || char.IsAsciiDigit(c)))
            return false;
        if (!plain[..2].All(char.IsAsciiLetterUpper) || !plain[2..4].All(char.IsAsciiDigit))
            return false;
        var rest = 0;
        foreach (var c in plain[4..] + plain[..4])
            rest = char.IsAsciiDigit(c) ? (rest * 10 + (c - '0')) % 97 : (rest * 100 + (c - 'A' + 10)) % 97;
        return rest == 1;
    }

    /// <summary>An IBAN without blanks.</summary>
    public static string Plain(string iban) => iban.Replace(" ", "", StringComparison.Ordinal);
}

/// <summary>Whom an invoice is from and to, frozen with it.</summary>
/// <param name="Seller">The firm.</param>
/// <param name="Buyer">The customer.</param>
/// <param name="Account">IBAN that is paid into; empty for none.</param>
public sealed record EParties(EParty Seller, EParty Buyer, string Account)
{
    /// <summary>The same without VAT numbers.</summary>
    [JsonIgnore]
    public EParties WithoutTaxNumbers =>
        this with
        {
            Seller = Seller with { TaxNumber = "" },
            Buyer = Buyer with { TaxNumber = "" },
        };
}

/// <summary>A tax category of an e-invoice (BG-23).</summary>
/// <param name="Code">S, Z, E, AE or O (BT-118).</param>
/// <param name="Rate">Percent (BT-119); null where it has none (O).</param>
/// <param name="Reason">Why no tax is charged (BT-120); empty where it is.</param>
/// <param name="Taxable">What it is reckoned on (BT-116).</param>
/// <param name="Tax">The tax (BT-117).</param>
public sealed record ETax(string Code, decimal? Rate, string Reason, decimal Taxable, decimal Tax);

/// <summary>A line of an e-invoice (BG-25): once, at its amount; less than nothing is once back.</summary>
/// <param name="Name">What it is (BT-153).</param>
/// <param name="Amount">Before tax (BT-131).</param>
/// <param name="Code">Its tax category (BT-151).</param>
/// <param name="Rate">Its rate (BT-152); null where it has none.</param>
public sealed record ELine(string Name, decimal Amount, string Code, decimal? Rate);

/// <summary>
/// An invoice or a credit note in the terms of EN 16931-1, made of what was issued. Amounts of a credit note are those that are credited, above nothing. What is retained is a term of payment: the amount due is the whole
/// total (M11).
/// </summary>
/// <param name="IsCredit">Whether it is a credit note (type 381; otherwise 380).</param>
/// <param name="Number">Its number (BT-1).</param>
/// <param name="Issued">Day of issue (BT-2).</param>
/// <param name="Due">Day on which it is due (BT-9).</param>
/// <param name="Supplied">Day of supply (BT-72).</param>
/// <param name="Currency">ISO 4217 (BT-5).</param>
/// <param name="Places">Places of the currency.</param>
/// <param name="Parties">From whom and to whom.</param>
/// <param name="Before">Invoices that it credits, or whose amounts on account it uses up: number and day (BG-3).</param>
/// <param name="Terms">Terms of payment in words (BT-20); empty for none.</param>
/// <param name="Note">A note (BT-22): why it is credited; empty for none.</param>
/// <param name="Lines">Its lines.</param>
/// <param name="Taxes">Its tax categories.</param>
/// <param name="Rounding">Payable rounding (BT-114).</param>
public sealed record EInvoice(
    bool IsCredit,
    string Number,
    DateOnly Issued,
    DateOnly Due,
    DateOnly Supplied,
    string Currency,
    int Places,
    EParties Parties,
    ImmutableArray<(string Number, DateOnly Day)> Before,
    string Terms,
    string Note,
    ImmutableArray<ELine> Lines,
    ImmutableArray<ETax> Taxes,
    decimal Rounding
)
{
    /// <summary>All lines (BT-106), which is all before tax (BT-109): nothing is taken off the document as a whole.</summary>
    [JsonIgnore]
    public decimal Net => Lines.Sum(l => l.Amount);

    /// <summary>All tax (BT-110).</summary>
    [JsonIgnore]
    public decimal Tax => Taxes.Sum(t => t.Tax);

    /// <summary>With tax (BT-112).</summary>
    [JsonIgnore]
    public decimal Total => Net + Tax;

    /// <summary>To be paid, or given back (BT-115).</summary>
    [JsonIgnore]
    public decimal Payable => Total + Rounding;

    /// <summary>The e-invoice of an invoice or a credit note.</summary>
    /// <param name="invoice">It.</param>
    /// <param name="billed">What was billed of the job, itself among it.</param>
    /// <exception cref="RefusedException">It was issued without what an e-invoice needs, or cannot be said in one; says why.</exception>
    public static EInvoice Of(Invoice invoice, BilledJob billed)
    {
        var parties =
            invoice.Parties
            ?? throw RefusedException.Of(
                "parties",
                "It was issued before the Office said what e-invoices need (Invoices, E-invoices)."
            );
        var (agreed, part) = (billed.Agreed, invoice.Part);
        var credits = billed.Invoices.FirstOrDefault(i => i.Id == invoice.Credits);
        var sign = credits is null ? 1 : -1;
        var codes = agreed.Categories.Select(CodeOf).ToList();
        var lines = ImmutableArray.CreateBuilder<ELine>();
        void Add(string name, ByCategory of, int by)
        {
            for (var i = 0; i < codes.Count; i++)
                if (of[i] != 0)
                    lines.Add(new(name, of[i] * by, codes[i].Code, codes[i].Rate));
        }
        Add(invoice.Label, part.Work, sign);
        Add($"{invoice.Label}, on account", part.OnAccount, sign);
        var accounts =
            part.Used.Sum != 0 || part.Used.Amounts.Any(a => a != 0)
                ? billed
                    .Invoices.TakeWhile(i => i.Id != invoice.Id)
                    .Where(i => i.Credits is null && i.Part.OnAccount.Amounts.Any(a => a != 0))
                    .ToList()
                : [];
        Add($"Billed on account before ({string.Join(", ", accounts.Select(i => i.Number))})", part.Used, -sign);
        var made = new EInvoice(
            credits is not null,
            invoice.Number,
            invoice.Issued,
            invoice.Due,
            invoice.Supplied,
            agreed.Currency,
            agreed.Places,
            // Outside the scope of tax, nobody's VAT number stands on it (BR-O-2).
            codes.Exists(c => c.Code == "O")
                ? parties.WithoutTaxNumbers
                : parties,
            [.. (credits is null ? accounts : [credits]).Select(i => (i.Number, i.Issued))],
            credits is null ? TermsOf(invoice, agreed.Places) : $"Credits invoice {credits.Number}.",
            invoice.Reason,
            lines.ToImmutable(),
            [.. TaxesOf(agreed, part.Net, sign, codes)],
            part.Rounding * sign
        );
        if (made.Tax != part.Tax * sign)
            throw RefusedException.Of(
                "taxes",
                "Its tax was reckoned tax by tax, and an e-invoice reckons it category by category: here that differs by a cent."
            );
        if (agreed.Places > 2)
            throw RefusedException.Of("currency", "An e-invoice has amounts of at most two decimals (BR-DEC).");
        made.CheckParties();
        return made;
    }

    private static (string Code, decimal? Rate, string Reason) CodeOf(AgreedCategory of) =>
        of.Taxes.Length > 1
            ? throw RefusedException.Of("taxes", "An e-invoice has one tax on an amount, and here are several.")
        : of.Code == "O" ? ("O", null, of.Reason)
        : (of.Code, of.Rate, of.Reason);

    private static IEnumerable<ETax> TaxesOf(
        AgreedContract agreed,
        ByCategory net,
        int sign,
        List<(string Code, decimal? Rate, string Reason)> codes
    ) =>
        Enumerable
            .Range(0, codes.Count)
            .Where(i => net[i] != 0)
            .GroupBy(i => (codes[i].Code, codes[i].Rate))
            .Select(g =>
            {
                var taxable = g.Sum(i => net[i]) * sign;
                return new ETax(
                    g.Key.Code,
                    g.Key.Rate,
                    string.Join("; ", g.Select(i => codes[i].Reason).Where(r => r.Length > 0).Distinct()),
                    taxable,
                    Quantities.Rounding.Money(taxable * (g.Key.Rate ?? 0) / 100m, agreed.Places)
                );
            });

    private static string TermsOf(Invoice invoice, int places)
    {
        var words = new List<string> { $"Due by {Day.Written(invoice.Due)}." };
        if (invoice is { EarlyUntil: { } until, EarlyPercent: > 0 and var percent })
        {
            var (saved, _, _) = LateAndEarly.Discount(invoice.Part, percent, places);
            words.Add($"Paid until {Day.Written(until)}: {Shown.Typed(percent)} % off, {Shown.Money(saved, places)}.");
        }
        if (invoice.Part.Retained != 0)
            words.Add(
                $"Retained until it is released: {Shown.Money(invoice.Part.Retained, places)}; payable now: {Shown.Money(invoice.Part.PayableNow, places)}."
            );
        return string.Join(' ', words);
    }

    /// <summary>What the tax categories ask of those whom it is from and to (BR-S-2, BR-Z-2, BR-E-2, BR-AE-2, BR-O-2 and those beside them).</summary>
    private void CheckParties()
    {
        var (seller, buyer, _) = Parties;
        if (seller.Name.Length == 0 || seller.Country.Length == 0)
            throw RefusedException.Of("seller", "The Office does not say the firm's name and country (E-invoices).");
        if (buyer.Name.Length == 0 || buyer.Country.Length == 0)
            throw RefusedException.Of("buyer", "The customer has no country: Customers.");
        var outside = Taxes.Any(t => t.Code == "O");
        if (outside && Taxes.Length > 1)
            throw RefusedException.Of(
                "taxes",
                "What is outside the scope of tax cannot stand beside other work on an e-invoice (BR-O-11)."
            );
        // One of them has to say who the seller is (BR-CO-26).
        if (outside && seller.Registration.Length == 0)
            throw RefusedException.Of("seller", "The Office does not say the firm's registration (E-invoices).");
        if (!outside && seller.TaxNumber.Length == 0)
            throw RefusedException.Of("seller", "The Office does not say the firm's VAT number (E-invoices).");
        if (Taxes.Any(t => t.Code == "AE") && buyer.TaxNumber.Length == 0)
            throw RefusedException.Of(
                "buyer",
                "Where the customer owes the tax, their VAT number is needed: Customers."
            );
        if (Taxes.FirstOrDefault(t => t.Code is "E" or "AE" or "O" && t.Reason.Length == 0) is { } silent)
            throw RefusedException.Of("taxes", $"Category {silent.Code} needs the reason why no tax is charged.");
    }
}
