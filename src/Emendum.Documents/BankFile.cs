using System.Collections.Immutable;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Documents.Tables;

namespace Emendum.Documents;

/// <summary>What a bank file says.</summary>
/// <param name="Entries">Money that came, in the file's order.</param>
/// <param name="LeftAside">What of it is left aside, and why, a line each.</param>
public sealed record BankStatement(ImmutableArray<BankEntry> Entries, ImmutableArray<string> LeftAside);

/// <summary>Reads bank files: statements as ISO 20022 has them (camt.053, and the like camt.052 and camt.054, any version), and CSV as banks export it. What it is, is told by its content.</summary>
public static partial class BankFile
{
    /// <summary>Most bytes of a file.</summary>
    public const int MostBytes = 10_000_000;

    /// <summary>Columns of a CSV that are looked for, with headings that banks give them.</summary>
    private static readonly ImmutableArray<TableField> Fields =
    [
        new(
            "day",
            "Day",
            [
                "date",
                "booking date",
                "transaction date",
                "posting date",
                "posted date",
                "value date",
                "completed date",
                "buchungstag",
                "buchungsdatum",
                "datum",
            ]
        ),
        new(
            "amount",
            "Amount",
            ["credit", "credit amount", "paid in", "money in", "value", "betrag", "gutschrift", "umsatz", "sum"]
        ),
        new("out", "Paid out", ["debit", "debit amount", "money out", "withdrawal", "lastschrift", "belastung"]),
        new(
            "payer",
            "Payer",
            ["name", "from", "counterparty", "payer name", "remitter", "debtor", "auftraggeber", "zahlungspflichtiger"]
        ),
        new("account", "Account", ["iban", "counterparty iban", "payer account", "account number", "kontonummer"]),
        new(
            "words",
            "Words",
            [
                "description",
                "details",
                "reference",
                "narrative",
                "memo",
                "purpose",
                "remittance information",
                "transaction details",
                "verwendungszweck",
            ]
        ),
        new("currency", "Currency", ["ccy", "currency code", "währung", "waehrung"]),
    ];

    /// <summary>Reads a file.</summary>
    /// <param name="content">Its bytes.</param>
    /// <exception cref="RefusedException">It is none; says why.</exception>
    public static BankStatement Read(byte[] content)
    {
        if (content.Length > MostBytes)
            throw RefusedException.Of("file", $"A bank file is at most {MostBytes / 1_000_000} MB.");
        if (content.Length == 0)
            throw RefusedException.Of("file", "The file is empty.");
        var read = IsXml(content) ? Camt(content) : Csv(CsvText.Read(content));
        return read.Entries.Length <= BankEntry.Most
            ? read
            : throw RefusedException.Of("file", $"A bank file has at most {BankEntry.Most:N0} entries.");
    }

    private static bool IsXml(byte[] content)
    {
        var at = content.AsSpan().StartsWith((ReadOnlySpan<byte>)[0xEF, 0xBB, 0xBF]) ? 3 : 0;
        while (at < content.Length && content[at] is (byte)' ' or (byte)'\n' or (byte)'\r' or (byte)'\t')
            at++;
        return at < content.Length && content[at] == (byte)'<';
    }

    private static BankStatement Camt(byte[] content)
    {
        XDocument document;
        try
        {
            using var reader = XmlReader.Create(
                new MemoryStream(content, writable: false),
                new()
                {
                    DtdProcessing = DtdProcessing.Prohibit,
                    XmlResolver = null,
                    MaxCharactersInDocument = MostBytes,
                    IgnoreComments = true,
                    IgnoreProcessingInstructions = true,
                }
            );
            document = XDocument.Load(reader);
        }
        catch (XmlException)
        {
            throw RefusedException.Of("file", "This XML cannot be read: it is damaged, or no bank file.");
        }
        var statements = document
            .Root!.Elements()
            .Where(e => e.Name.LocalName is "BkToCstmrStmt" or "BkToCstmrAcctRpt" or "BkToCstmrDbtCdtNtfctn")
            .SelectMany(e => e.Elements().Where(s => s.Name.LocalName is "Stmt" or "Rpt" or "Ntfctn"))
            .ToList();
        if (document.Root.Name.LocalName != "Document" || statements.Count == 0)
            throw RefusedException.Of("file", "This XML is no statement of a bank (camt.053).");
        var made = new Made();
        foreach (var statement in statements)
        {
            var own = Text(statement, "Acct", "Id", "IBAN") is { Length: > 0 } iban
                ? iban
                : Text(statement, "Acct", "Id", "Othr", "Id");
            foreach (var entry in Children(statement, "Ntry"))
                Entry(made, own, entry);
        }
        return made.Statement();
    }

    private static void Entry(Made made, string own, XElement entry)
    {
        if (Text(entry, "CdtDbtInd") != "CRDT")
        {
            made.Out++;
            return;
        }
        // In later versions a code stands in it.
        var status = Text(entry, "Sts", "Cd") is { Length: > 0 } code ? code : Text(entry, "Sts");
        if (status is not ("BOOK" or "") || Text(entry, "RvslInd") == "true")
        {
            made.NotBooked++;
            return;
        }
        var day = DayOf(entry, "BookgDt") ?? DayOf(entry, "ValDt");
        var details = Children(entry, "NtryDtls").SelectMany(d => Children(d, "TxDtls")).ToList();
        // Several payments that the bank has booked as one are told apart where each says its amount.
        var apart = details.Count > 1 && details.TrueForAll(d => AmountOf(d) is not null);
        foreach (var of in apart ? details : [details.FirstOrDefault() ?? entry])
        {
            var amount = apart ? AmountOf(of) : AmountOf(entry);
            if (day is not { } on || amount is not ({ } value and > 0))
            {
                made.Unread++;
                continue;
            }
            var party = Child(of, "RltdPties");
            var debtor = Child(party, "Dbtr");
            var reference = First(Text(of, "Refs", "AcctSvcrRef"), apart ? "" : Text(entry, "AcctSvcrRef"));
            made.Add(
                own,
                reference,
                on,
                value,
                (Child(apart ? of : entry, "Amt") ?? Child(of, "TxAmt"))?.Attribute("Ccy")?.Value
                    ?? Child(entry, "Amt")?.Attribute("Ccy")?.Value
                    ?? "",
                First(Text(debtor, "Nm"), Text(debtor, "Pty", "Nm")),
                First(Text(party, "DbtrAcct", "Id", "IBAN"), Text(party, "DbtrAcct", "Id", "Othr", "Id")),
                string.Join(
                    " ",
                    Children(Child(of, "RmtInf"), "Ustrd")
                        .Select(u => u.Value)
                        .Concat(
                            Children(Child(of, "RmtInf"), "Strd")
                                .SelectMany(s => s.Descendants().Where(d => d.Name.LocalName is "Ref" or "Nb"))
                                .Select(r => r.Value)
                        )
                        .Append(Text(of, "Refs", "EndToEndId") is var end && end != "NOTPROVIDED" ? end : "")
                        .Append(Text(entry, "AddtlNtryInf"))
                        .Where(w => w.Length > 0)
                        .Distinct()
                )
            );
        }
    }

    private static decimal? AmountOf(XElement of) =>
        (Child(of, "Amt") ?? Child(Child(Child(of, "AmtDtls"), "TxAmt"), "Amt")) is { } amount
            ? Rounding.ReadInput(amount.Value.Trim())
            : null;

    private static DateOnly? DayOf(XElement entry, string which)
    {
        var text = First(Text(entry, which, "Dt"), Text(entry, which, "DtTm"));
        return text.Length >= 10 && Day.Read(text[..10], out var day) ? day : null;
    }

    private static IEnumerable<XElement> Children(XElement? of, string name) =>
        of?.Elements().Where(e => e.Name.LocalName == name) ?? [];

    private static XElement? Child(XElement? of, string name) => Children(of, name).FirstOrDefault();

    private static string Text(XElement? of, params ReadOnlySpan<string> path)
    {
        foreach (var name in path)
            of = Child(of, name);
        return of is null || of.HasElements ? "" : of.Value.Trim();
    }

    private static string First(string one, string other) => one.Length > 0 ? one : other;

    private static BankStatement Csv(Table table)
    {
        var mapping = TableField.Guess(Fields, table.Columns);
        if (mapping["day"] < 0 || mapping["amount"] < 0)
            throw RefusedException.Of(
                "file",
                "The first line names the columns: there has to be one for the day (Day, Date, Booking date) and one for the amount (Amount, Credit, Paid in). A statement as XML (camt.053) needs none of that."
            );
        string In(IReadOnlyList<string> row, string field) => TableField.In(row, mapping, field);
        var monthFirst = IsMonthFirst(table.Rows.Select(r => In(r, "day")));
        var made = new Made();
        foreach (var row in table.Rows)
        {
            if (row.All(string.IsNullOrWhiteSpace))
                continue;
            var amount = Money(In(row, "amount"));
            if (amount is < 0 || (In(row, "amount").Length == 0 && In(row, "out").Length > 0))
            {
                made.Out++;
                continue;
            }
            if (amount is not ({ } value and > 0) || DayOf(In(row, "day"), monthFirst) is not { } day)
            {
                made.Unread++;
                continue;
            }
            made.Add("", "", day, value, In(row, "currency"), In(row, "payer"), In(row, "account"), In(row, "words"));
        }
        return made.Statement();
    }

    [GeneratedRegex(@"^([+-]?)(\d+|\d{1,3}([ '.,\u00a0\u202f\u2019])\d{3}(\3\d{3})*)(?:([.,])(\d{1,2}))?$")]
    private static partial Regex MoneyAsWritten();

    /// <summary>Money as banks write it: <c>1,250.00</c>, <c>1.250,00</c>, <c>1 250,00</c>; null where it is none, or could be two.</summary>
    private static decimal? Money(string text)
    {
        var match = MoneyAsWritten().Match(text.Trim().Trim('€', '$', '£').Trim());
        var (between, point) = (match.Groups[3].Value, match.Groups[5].Value);
        // What stands between thousands is no point; a comma alone, three places from the end, could be either.
        if (!match.Success || (between.Length > 0 && between == point) || (between is "." or "," && point.Length == 0))
            return null;
        var whole = string.Concat(match.Groups[2].Value.Where(char.IsAsciiDigit));
        return Rounding.ReadInput($"{match.Groups[1].Value}{whole}.{match.Groups[6].Value}0");
    }

    /// <summary>Whether days are written with the month first: where one of them can only be read so.</summary>
    /// <exception cref="RefusedException">None of them tells, and the other way they would be other days.</exception>
    private static bool IsMonthFirst(IEnumerable<string> days)
    {
        var (first, second, differ) = (0, 0, false);
        foreach (var parts in days.Select(d => d.Split('/')).Where(p => p.Length == 3 && p[0].Length <= 2))
        {
            if (!int.TryParse(parts[0], out var a) || !int.TryParse(parts[1], out var b))
                continue;
            (first, second, differ) = (Math.Max(first, a), Math.Max(second, b), differ || a != b);
        }
        return differ && first <= 12 && second <= 12
            ? throw RefusedException.Of(
                "file",
                "Days like 03/04/2027 can be read two ways. Take a longer stretch of the account, or export the days like 2027-04-03."
            )
            : second > 12;
    }

    private static DateOnly? DayOf(string text, bool monthFirst)
    {
        text = text.Split(' ', 'T')[0];
        string[] formats = monthFirst
            ? ["yyyy-MM-dd", "M/d/yyyy", "M/d/yy"]
            : ["yyyy-MM-dd", "d/M/yyyy", "d/M/yy", "d.M.yyyy", "d.M.yy", "d-M-yyyy", "d MMM yyyy", "yyyyMMdd"];
        return
            DateOnly.TryParseExact(text, formats, CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            && day.Year is >= 2000 and <= 2199
            ? day
            : null;
    }

    /// <summary>A statement while it is made.</summary>
    private sealed class Made
    {
        private readonly List<BankEntry> entries = [];
        private readonly Dictionary<string, int> alike = [];

        public int Out { get; set; }

        public int NotBooked { get; set; }

        public int Unread { get; set; }

        public void Add(
            string own,
            string reference,
            DateOnly day,
            decimal amount,
            string currency,
            string payer,
            string account,
            string words
        )
        {
            (payer, account, words) = (
                Line(payer, BankEntry.MostOfName),
                Line(account, BankEntry.MostOfName).Replace(" ", "", StringComparison.Ordinal),
                Line(words, BankEntry.MostWords)
            );
            var what = string.Join(
                '\u001f',
                own,
                reference,
                Day.Written(day),
                Rounding.Text(amount),
                payer,
                account,
                words
            );
            // Of two that are alike in all, in one file, each is one.
            var times = alike.GetValueOrDefault(what);
            alike[what] = times + 1;
            entries.Add(
                new(
                    Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes($"{what}\u001f{times}"))),
                    day,
                    amount,
                    currency.Trim().ToUpperInvariant(),
                    payer,
                    account,
                    words
                )
            );
        }

        private static string Line(string text, int most)
        {
            var line = string.Join(
                ' ',
                text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
                    .Select(w => string.Concat(w.Where(c => !char.IsControl(c))))
            );
            return line.Length <= most ? line : line[..most];
        }

        public BankStatement Statement() =>
            new(
                [.. entries],
                [
                    .. new[]
                    {
                        Out > 0 ? $"{Counted.Of(Out, "entry", "entries")} of money that went out" : "",
                        NotBooked > 0 ? $"{Counted.Of(NotBooked, "entry", "entries")} not booked, or taken back" : "",
                        Unread > 0 ? $"{Counted.Of(Unread, "line")} without a day or an amount that can be read" : "",
                    }.Where(w => w.Length > 0),
                ]
            );
    }
}
