using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Json;
using Emendum.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>What is issued for paying.</summary>
public enum InvoicePaperKind
{
    /// <summary>An invoice or a credit note.</summary>
    Invoice,

    /// <summary>A request for a part of what was retained.</summary>
    Release,

    /// <summary>A reminder of an invoice.</summary>
    Reminder,
}

/// <summary>Invoices, credit notes and payments on disk. The number is given in the transaction that issues (rule N2): a crash before its end uses none.</summary>
public sealed class InvoiceStore(Database database)
{
    /// <summary>What was billed and paid of what was agreed.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="agreed">What was agreed.</param>
    /// <param name="terms">How the firm bills.</param>
    public BilledJob Billed(Guid job, Guid acceptance, AgreedContract agreed, InvoiceTerms terms)
    {
        using var connection = database.Connect();
        return Billed(connection, job, acceptance, agreed, terms);
    }

    private static BilledJob Billed(
        SqliteConnection connection,
        Guid job,
        Guid acceptance,
        AgreedContract agreed,
        InvoiceTerms terms
    )
    {
        var own = TermsOf(connection, job);
        return new(
            agreed,
            terms.Use,
            [
                .. connection.Rows(
                    "SELECT content FROM invoice WHERE job_id = $job AND fact_id = $fact ORDER BY number",
                    r => JsonSerializer.Deserialize<Invoice>(r.GetString(0), CoreJson.Options)!,
                    ("$job", job),
                    ("$fact", acceptance)
                ),
            ],
            [
                .. connection.Rows(
                    "SELECT payment_fact.id, invoice_id, day, amount, how, payment_fact.at, payment_fact.by, takes_back, discount, entry_id FROM payment_fact JOIN invoice ON invoice.id = invoice_id WHERE payment_fact.job_id = $job AND fact_id = $fact ORDER BY payment_fact.number",
                    r => new PaymentFact(
                        r.GetGuid(0),
                        r.GetGuid(1),
                        Day.Of(r.GetString(2)),
                        decimal.Parse(r.GetString(3), CultureInfo.InvariantCulture),
                        r.GetString(4),
                        JobStore.Moment(r.GetString(5)),
                        r.GetString(6)
                    )
                    {
                        TakesBack = r.IsDBNull(7) ? null : r.GetGuid(7),
                        Discount = decimal.Parse(r.GetString(8), CultureInfo.InvariantCulture),
                        Entry = r.IsDBNull(9) ? null : r.GetString(9),
                    },
                    ("$job", job),
                    ("$fact", acceptance)
                ),
            ]
        )
        {
            Terms = own ?? terms.Usual,
            HasOwnTerms = own is not null,
            Completion = CompletionStore.Of(connection, job, acceptance),
            Releases = [.. Contents<ReleaseFact>(connection, Release, job, acceptance)],
            Reminders = [.. Contents<ReminderFact>(connection, Reminder, job, acceptance)],
        };
    }

    private const string Table = "invoice",
        Release = "release_fact",
        Reminder = "reminder_fact";

    private static List<T> Contents<T>(SqliteConnection connection, string table, Guid job, Guid acceptance) =>
        connection.Rows(
            $"SELECT content FROM {table} WHERE job_id = $job AND fact_id = $fact ORDER BY number",
            r => JsonSerializer.Deserialize<T>(r.GetString(0), CoreJson.Options)!,
            ("$job", job),
            ("$fact", acceptance)
        );

    private static BillingTerms? TermsOf(SqliteConnection connection, Guid job) =>
        connection
            .Rows(
                "SELECT content FROM billing_terms WHERE job_id = $job ORDER BY number DESC LIMIT 1",
                r => JsonSerializer.Deserialize<BillingTerms>(r.GetString(0), CoreJson.Options)!,
                ("$job", job)
            )
            .FirstOrDefault();

    /// <summary>Writes terms that hold for a job from now on. The same id again changes nothing.</summary>
    public void Agree(Guid job, TermsFact fact)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO billing_terms (id, job_id, content, at, by) VALUES ($id, $job, $content, $at, $by) ON CONFLICT (id) DO NOTHING",
            ("$id", fact.Id),
            ("$job", job),
            ("$content", JsonSerializer.Serialize(fact.Terms, CoreJson.Options)),
            ("$at", JobStore.Utc(fact.At)),
            ("$by", fact.By)
        );
    }

    /// <summary>Asks for the next part of what was retained, or reminds of an invoice, with its document in one transaction. The same id again changes nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="agreed">What was agreed.</param>
    /// <param name="terms">How the firm bills.</param>
    /// <param name="id">Id of the fact.</param>
    /// <param name="make">Makes the fact of what stands, or refuses it.</param>
    /// <param name="paper">Makes its document of what stood before.</param>
    /// <exception cref="RefusedException">It cannot be; says why.</exception>
    public BilledJob Ask<T>(
        Guid job,
        Guid acceptance,
        AgreedContract agreed,
        InvoiceTerms terms,
        Guid id,
        Func<BilledJob, T> make,
        Func<T, BilledJob, SentDocument> paper
    )
        where T : notnull
    {
        var table = typeof(T) == typeof(ReleaseFact) ? Release : Reminder;
        using var writing = database.Writes();
        var connection = writing.Connection;
        var before = Billed(connection, job, acceptance, agreed, terms);
        if (connection.Rows($"SELECT 1 FROM {table} WHERE id = $id", r => r.GetInt32(0), ("$id", id)).Count > 0)
            return before;
        var fact = make(before);
        connection.Run(
            $"INSERT INTO {table} (id, job_id, fact_id, content, document) VALUES ($id, $job, $fact, $content, $document)",
            ("$id", id),
            ("$job", job),
            ("$fact", acceptance),
            ("$content", JsonSerializer.Serialize(fact, CoreJson.Options)),
            ("$document", IssuedPaper.Kept(paper(fact, before)))
        );
        writing.Commit();
        return Billed(connection, job, acceptance, agreed, terms);
    }

    /// <summary>Whether an invoice rests on an acceptance, in any job.</summary>
    internal static bool RestsOn(SqliteConnection connection, Guid acceptance) =>
        connection
            .Rows("SELECT 1 FROM invoice WHERE fact_id = $fact LIMIT 1", r => r.GetInt32(0), ("$fact", acceptance))
            .Count > 0;

    /// <summary>Issues an invoice or a credit note under the next number of the series. The same id again is answered by what is there.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="agreed">What was agreed.</param>
    /// <param name="terms">How the firm bills.</param>
    /// <param name="id">Id of the invoice.</param>
    /// <param name="today">The firm's day.</param>
    /// <param name="make">Makes it of what was billed before, its number and its day.</param>
    /// <param name="paper">Makes its document.</param>
    /// <param name="at">When (UTC).</param>
    /// <param name="by">Who.</param>
    /// <exception cref="RefusedException">It cannot be issued; says why, and no number is used.</exception>
    public BilledJob Issue(
        Guid job,
        Guid acceptance,
        AgreedContract agreed,
        InvoiceTerms terms,
        Guid id,
        DateOnly today,
        Func<BilledJob, string, DateOnly, Invoice> make,
        Func<Invoice, BilledJob, SentDocument> paper,
        DateTime at,
        string by
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var before = Billed(connection, job, acceptance, agreed, terms);
        if (before.Invoices.Any(i => i.Id == id))
            return before;
        var (year, next, issued) = NumberStore.Next(connection, NumberStore.Invoices, terms.Numbers, today);
        var text = NumberScheme.Of(terms.Numbers, issued.Year, next);
        var invoice = make(before, text, issued);
        NumberStore.CheckNew(connection, text);
        NumberStore.Put(connection, NumberStore.Invoices, year, next + 1, issued);
        connection.Run(
            "INSERT INTO invoice (id, job_id, fact_id, text, content, document, at, by) VALUES ($id, $job, $fact, $text, $content, $document, $at, $by)",
            ("$id", id),
            ("$job", job),
            ("$fact", acceptance),
            ("$text", text),
            ("$content", JsonSerializer.Serialize(invoice, CoreJson.Options)),
            ("$document", IssuedPaper.Kept(paper(invoice, before))),
            ("$at", JobStore.Utc(at)),
            ("$by", by)
        );
        writing.Commit();
        return before with { Invoices = before.Invoices.Add(invoice) };
    }

    /// <summary>The document of an invoice, a release or a reminder; null where there is none of that id in the job.</summary>
    public SentDocument? Document(Guid job, InvoicePaperKind kind, Guid id)
    {
        using var connection = database.Connect();
        return IssuedPaper.Document(connection, TableOf(kind), job, id);
    }

    /// <summary>Hash of its PDF; null where it was not made yet.</summary>
    public string? Pdf(InvoicePaperKind kind, Guid id)
    {
        using var connection = database.Connect();
        return IssuedPaper.Pdf(
            connection,
            TableOf(kind),
            kind == InvoicePaperKind.Invoice ? "invoice_id" : "paper_id",
            id
        );
    }

    /// <summary>Says which file the PDF is; the first that is said stays.</summary>
    public void KeepPdf(InvoicePaperKind kind, Guid id, string hash)
    {
        using var connection = database.Connect();
        IssuedPaper.KeepPdf(connection, TableOf(kind), id, hash);
    }

    private static string TableOf(InvoicePaperKind kind) =>
        kind switch
        {
            InvoicePaperKind.Release => Release,
            InvoicePaperKind.Reminder => Reminder,
            _ => Table,
        };

    /// <summary>Writes mails that bring an invoice, or remind of it. Those that are there already stay.</summary>
    public void Goes(IReadOnlyList<Mail> mails)
    {
        using var writing = database.Writes();
        foreach (var mail in mails)
            if (MailStore.Has(writing.Connection, mail.Id))
                return;
            else
                MailStore.Write(writing.Connection, mail);
        writing.Commit();
    }

    /// <summary>Of money that came by bank no more goes to invoices than came.</summary>
    private static void CheckLeft(SqliteConnection connection, string entry, decimal amount, int places)
    {
        var left =
            BankStore.Left(connection, entry) ?? throw RefusedException.Of("entry", "That money was never taken in.");
        if (amount > left)
            throw RefusedException.Of("amount", $"{Shown.Money(left, places)} of that money is left.");
    }

    /// <summary>What is owed of all jobs in a currency: invoices of which something is open, the one that is due first first.</summary>
    /// <param name="currency">ISO 4217.</param>
    /// <param name="places">Its places.</param>
    public List<OwedInvoice> Owed(string currency, int places)
    {
        using var connection = database.Connect();
        var contract = new AgreedContract([], 0, false, currency, places, [], false);
        var owed = new List<OwedInvoice>();
        foreach (
            var (job, acceptance, customer, name) in connection.Rows(
                $"SELECT i.job_id, i.fact_id, j.customer_id, coalesce(c.name, '') FROM invoice i JOIN job j ON j.id = i.job_id LEFT JOIN customer c ON c.id = j.customer_id WHERE json_extract(j.glance, '$.currency') = $currency GROUP BY i.job_id, i.fact_id ORDER BY max(i.number) DESC LIMIT {MostJobs}",
                r => (r.GetGuid(0), r.GetGuid(1), r.IsDBNull(2) ? null : (Guid?)r.GetGuid(2), r.GetString(3)),
                ("$currency", currency)
            )
        )
        {
            // What is open is read from what was issued and paid alone; what was agreed plays no part in it.
            var billed = Billed(connection, job, acceptance, contract, InvoiceTerms.Starting);
            owed.AddRange(
                billed
                    .Invoices.Where(i => billed.OpenOf(i) > 0)
                    .Select(i => new OwedInvoice(
                        job,
                        i.Id,
                        customer,
                        name,
                        i.Number,
                        billed.DueOf(i),
                        billed.OpenOf(i),
                        i.EarlyUntil is { } until ? billed.EarlyOf(i, until).Discount : 0,
                        i.EarlyUntil
                    ))
            );
        }
        return [.. owed.OrderBy(o => o.Due).ThenBy(o => o.Number, StringComparer.Ordinal)];
    }

    /// <summary>Most jobs whose invoices are looked at together, those billed last first.</summary>
    private const int MostJobs = 5_000;

    /// <summary>Writes money that came, or takes back what was written wrong. The same id again changes nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="agreed">What was agreed.</param>
    /// <param name="terms">How the firm bills.</param>
    /// <param name="id">Id of the payment.</param>
    /// <param name="make">Makes the payment of what stands, or refuses it.</param>
    /// <exception cref="RefusedException">It cannot be written; says why.</exception>
    public BilledJob Pay(
        Guid job,
        Guid acceptance,
        AgreedContract agreed,
        InvoiceTerms terms,
        Guid id,
        Func<BilledJob, PaymentFact> make
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var billed = Billed(connection, job, acceptance, agreed, terms);
        if (billed.Payments.Any(p => p.Id == id))
            return billed;
        var payment = make(billed);
        if (payment is { Entry: { } entry, TakesBack: null })
            CheckLeft(connection, entry, payment.Amount, agreed.Places);
        connection.Run(
            "INSERT INTO payment_fact (id, job_id, invoice_id, day, amount, how, at, by, takes_back, discount, entry_id) VALUES ($id, $job, $invoice, $day, $amount, $how, $at, $by, $back, $discount, $entry)",
            ("$id", id),
            ("$job", job),
            ("$invoice", payment.Invoice),
            ("$day", Day.Written(payment.Day)),
            ("$amount", Rounding.Text(payment.Amount)),
            ("$how", payment.How),
            ("$at", JobStore.Utc(payment.At)),
            ("$by", payment.By),
            ("$back", payment.TakesBack),
            ("$discount", Rounding.Text(payment.Discount)),
            ("$entry", payment.Entry)
        );
        writing.Commit();
        return billed with { Payments = billed.Payments.Add(payment) };
    }
}
