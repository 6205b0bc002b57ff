using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Json;
using Emendum.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Invoices, credit notes and payments on disk. The number is given in the transaction that issues (rule N2): a crash before its end uses none.</summary>
public sealed class InvoiceStore(Database database)
{
    /// <summary>What was billed and paid of what was agreed.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="agreed">What was agreed.</param>
    /// <param name="use">How what is on account is used up.</param>
    public BilledJob Billed(Guid job, Guid acceptance, AgreedContract agreed, AccountUse use)
    {
        using var connection = database.Connect();
        return Billed(connection, job, acceptance, agreed, use);
    }

    private static BilledJob Billed(
        SqliteConnection connection,
        Guid job,
        Guid acceptance,
        AgreedContract agreed,
        AccountUse use
    ) =>
        new(
            agreed,
            use,
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
                    "SELECT payment_fact.id, invoice_id, day, amount, how, payment_fact.at, payment_fact.by, takes_back FROM payment_fact JOIN invoice ON invoice.id = invoice_id WHERE payment_fact.job_id = $job AND fact_id = $fact ORDER BY payment_fact.number",
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
                    },
                    ("$job", job),
                    ("$fact", acceptance)
                ),
            ]
        );

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
        var before = Billed(connection, job, acceptance, agreed, terms.Use);
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

    private const string Table = "invoice";

    /// <summary>The document of an invoice; null where there is none of that id in the job.</summary>
    public SentDocument? Document(Guid job, Guid invoice)
    {
        using var connection = database.Connect();
        return IssuedPaper.Document(connection, Table, job, invoice);
    }

    /// <summary>Hash of an invoice's PDF; null where it was not made yet.</summary>
    public string? Pdf(Guid invoice)
    {
        using var connection = database.Connect();
        return IssuedPaper.Pdf(connection, Table, "invoice_id", invoice);
    }

    /// <summary>Says which file the PDF is; the first that is said stays.</summary>
    public void KeepPdf(Guid invoice, string hash)
    {
        using var connection = database.Connect();
        IssuedPaper.KeepPdf(connection, Table, invoice, hash);
    }

    /// <summary>Writes money that came, or takes back what was written wrong. The same id again changes nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="agreed">What was agreed.</param>
    /// <param name="use">How what is on account is used up.</param>
    /// <param name="id">Id of the payment.</param>
    /// <param name="make">Makes the payment of what stands, or refuses it.</param>
    /// <exception cref="RefusedException">It cannot be written; says why.</exception>
    public BilledJob Pay(
        Guid job,
        Guid acceptance,
        AgreedContract agreed,
        AccountUse use,
        Guid id,
        Func<BilledJob, PaymentFact> make
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var billed = Billed(connection, job, acceptance, agreed, use);
        if (billed.Payments.Any(p => p.Id == id))
            return billed;
        var payment = make(billed);
        connection.Run(
            "INSERT INTO payment_fact (id, job_id, invoice_id, day, amount, how, at, by, takes_back) VALUES ($id, $job, $invoice, $day, $amount, $how, $at, $by, $back)",
            ("$id", id),
            ("$job", job),
            ("$invoice", payment.Invoice),
            ("$day", Day.Written(payment.Day)),
            ("$amount", Rounding.Text(payment.Amount)),
            ("$how", payment.How),
            ("$at", JobStore.Utc(payment.At)),
            ("$by", payment.By),
            ("$back", payment.TakesBack)
        );
        writing.Commit();
        return billed with { Payments = billed.Payments.Add(payment) };
    }
}
