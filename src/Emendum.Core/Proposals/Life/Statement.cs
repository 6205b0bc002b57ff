using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Serialization;
using Emendum.Core.Jobs;

namespace Emendum.Core.Proposals;

/// <summary>A row of what is signed: what it is, more about it, and its amount as it is read; empty where it has none.</summary>
public sealed record StatementRow(string Label, string Detail, string Amount)
{
    /// <summary>A row of the document.</summary>
    public static StatementRow Of(PriceRow row) => new(row.Label, row.Detail, row.Shown);
}

/// <summary>What can be signed, with its total as a number.</summary>
/// <param name="Statement">It.</param>
/// <param name="Total">What the customer pays, with tax.</param>
public sealed record ToSign(Statement Statement, decimal Total);

/// <summary>What is signed (L17): which revision with the hash of its PDF, its price with tax, what was offered and is not in it, and how it is paid. It says nothing that the document does not say.</summary>
/// <param name="Firm">The firm.</param>
/// <param name="Customer">The customer; empty where there is none.</param>
/// <param name="Title">Name of the job.</param>
/// <param name="Reference">Number, revision and date as the document says them.</param>
/// <param name="Revision">Letters of the revision.</param>
/// <param name="Pdf">SHA-256 of the PDF that was sent, in hexadecimal digits.</param>
/// <param name="Selection">Version of what was chosen; 0 for the revision as it was sent.</param>
/// <param name="Currency">ISO 4217; empty where the document has no amounts.</param>
/// <param name="Price">From the price before tax to the total.</param>
/// <param name="Total">What the customer pays, with tax, as it is read.</param>
/// <param name="Offered">What is offered beside it and not taken.</param>
/// <param name="Steps">How it is paid.</param>
public sealed record Statement(
    string Firm,
    string Customer,
    string Title,
    string Reference,
    string Revision,
    string Pdf,
    int Selection,
    string Currency,
    ImmutableArray<StatementRow> Price,
    string Total,
    ImmutableArray<StatementRow> Offered,
    ImmutableArray<StatementRow> Steps
)
{
    /// <summary>Names of what was chosen otherwise than it was sent; what follows it is not named.</summary>
    public ImmutableArray<string> Taken { get; init; } = [];

    /// <summary>Whether it is a change order to a contract, whose number <see cref="Revision"/> says.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool IsChange { get; init; }

    /// <summary>Names of the further estimates that are accepted with it (L22).</summary>
    public ImmutableArray<string> Also { get; init; } = [];

    /// <summary>It together with those of further estimates: each row says whose it is, and the total is that of all.</summary>
    /// <param name="further">Theirs as they were sent; their choices are not offered here.</param>
    /// <param name="total">What the customer pays for all, with tax, as it is read.</param>
    public Statement With(IReadOnlyCollection<Statement> further, string total)
    {
        static IEnumerable<StatementRow> Of(Statement one, ImmutableArray<StatementRow> rows) =>
            rows.Select(r => r with { Label = $"{one.Title}: {r.Label}" });
        return this with
        {
            Also = [.. further.Select(f => f.Title)],
            Price = [.. Of(this, Price), .. further.SelectMany(f => Of(f, f.Price))],
            Total = total,
            Steps = [.. Of(this, Steps), .. further.SelectMany(f => Of(f, f.Steps))],
        };
    }

    /// <summary>That of a revision as it was sent. It is read from the document and its stored figures, and holds whatever the rules have become (L10).</summary>
    /// <param name="document">The document.</param>
    /// <param name="brand">How it writes numbers.</param>
    /// <param name="figures">Its stored figures.</param>
    /// <param name="start">Which revision it is.</param>
    /// <param name="pdf">Hash of its PDF.</param>
    public static Statement AsSent(
        Document document,
        Brand brand,
        RevisionFigures figures,
        RevisionStart start,
        string pdf
    )
    {
        string Money(decimal amount) => brand.Writes.Number(Quantities.Shown.Money(amount, figures.Places));
        var (head, beside) = (document.Head, figures.Total - figures.BeforeTax);
        return new(
            head.Firm,
            head.Customer,
            head.Title,
            head.Reference,
            start.Letters,
            pdf,
            0,
            document.Elements.OfType<PriceTable>().FirstOrDefault()?.Currency ?? "",
            [
                new(
                    start.IsChange ? "This change, before tax" : "As proposed, before tax",
                    "",
                    Money(figures.BeforeTax)
                ),
                // What is rounded after tax is in it, too.
                .. Taxes(document, beside) ?? [new StatementRow("Tax", "", Money(beside))],
            ],
            Money(figures.Total),
            [.. Tables(document, BlockKind.Options).SelectMany(Offers)],
            [
                .. Tables(document, BlockKind.Payment)
                    .SelectMany(t => t.Rows)
                    .Where(r => r.Kind == RowKind.Part)
                    .Select(StatementRow.Of),
            ]
        )
        {
            IsChange = start.IsChange,
        };
    }

    private static IEnumerable<PriceTable> Tables(Document document, BlockKind kind) =>
        document.Blocks.Where(b => b.IsRead && b.Kind == kind).SelectMany(b => b.Made).OfType<PriceTable>();

    /// <summary>What stands between price before tax and total in the document, where it stands there and comes to what it should.</summary>
    private static IEnumerable<StatementRow>? Taxes(Document document, decimal beside)
    {
        PriceRow[] rows =
        [
            .. Tables(document, BlockKind.Price)
                .SelectMany(t => t.Rows.SkipWhile(r => r.Kind != RowKind.Subtotal).Skip(1))
                .Where(r => r.Kind is not (RowKind.Total or RowKind.Group)),
        ];
        return rows.Length > 0 && rows.Sum(r => r.Amount ?? 0) == beside ? rows.Select(StatementRow.Of) : null;
    }

    /// <summary>What can be had beside the price; of a choice the group says what it is between.</summary>
    private static IEnumerable<StatementRow> Offers(PriceTable table)
    {
        var group = "";
        foreach (var row in table.Rows)
            if (row.Kind == RowKind.Group)
                group = row.Label + ": ";
            else if (row.Kind == RowKind.Part)
                yield return new(group + row.Label, row.Detail, row.Shown);
    }

    /// <summary>What is signed in one sentence.</summary>
    public string Sentence
    {
        get
        {
            var paid = Steps.Length switch
            {
                0 => "",
                1 => ", to be paid at once",
                _ => $", to be paid in {Steps.Length} steps",
            };
            if (IsChange)
                return $"{(Customer.Length > 0 ? Customer : "The customer")} accepts “{Title}” by {Firm} as it was sent: {Total}{(Currency.Length > 0 ? " " + Currency : "")}, with tax, is {(Total.StartsWith('-') || Total.StartsWith('−') ? "taken off" : "added to")} what was agreed before.";
            return $"{(Customer.Length > 0 ? Customer : "The customer")} accepts revision {Revision} of “{Title}”{With(Also)} by {Firm} {(Taken.IsEmpty ? "as it was sent" : "with " + string.Join("; ", Taken))}, for {Total}{(Currency.Length > 0 ? " " + Currency : "")} in all, with tax{paid}.";
        }
    }

    private static string With(ImmutableArray<string> also) =>
        also.IsEmpty ? "" : ", together with " + string.Join(" and ", also.Select(title => $"“{title}”")) + ",";

    /// <summary>What whoever signs says of themselves.</summary>
    public string Declares =>
        $"I may sign{(Customer.Length > 0 ? $" for {Customer}" : "")}, and I have read what is included, what is not, and the terms.";

    /// <summary>All of it as plain text, line by line: what the hash is made of.</summary>
    [JsonIgnore]
    public string Text
    {
        get
        {
            var text = new StringBuilder();
            void Line(string line) => text.Append(line).Append('\n');
            void Rows(string title, IEnumerable<StatementRow> rows)
            {
                Line(title);
                foreach (var row in rows)
                    Line($"- {row.Label}{(row.Detail.Length > 0 ? $" ({row.Detail})" : "")}: {row.Amount}");
            }
            Line(Sentence);
            Line(Declares);
            Line(Reference);
            Line($"SHA-256 of the PDF: {Pdf}");
            Line($"Selection: {Selection}");
            Rows("Price", Price);
            Line($"Total with tax: {Total} {Currency}".TrimEnd());
            Rows("Offered, and not in the price unless it says so", Offered);
            Rows("Payment", Steps);
            return text.ToString();
        }
    }

    /// <summary>SHA-256 of its text, in hexadecimal digits.</summary>
    [JsonIgnore]
    public string Hash => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(Text)));
}
