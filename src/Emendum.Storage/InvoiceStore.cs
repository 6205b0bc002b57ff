using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Json;
using Emendum.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Where a series stands.</summary>
/// <param name="Year">The year it is of; 0 where its years are one series.</param>
/// <param name="Next">The next number.</param>
/// <param name="LastDay">Day of the last that was issued; null for none.</param>
public sealed record SeriesNow(int Year, int Next, DateOnly? LastDay);

/// <summary>A series that a person moved on (rule N4).</summary>
/// <param name="Year">The year; 0 where its years are one series.</param>
/// <param name="Was">What was next.</param>
/// <param name="Now">What is next since.</param>
/// <param name="Reason">Why.</param>
/// <param name="At">When (UTC).</param>
/// <param name="By">Who.</param>
public sealed record SeriesMoved(int Year, int Was, int Now, string Reason, DateTime At, string By);

/// <summary>Invoices, credit notes and payments on disk. The number is given in the transaction that issues (rule N2): a crash before its end uses none.</summary>
public sealed class InvoiceStore(Database database)
{
    /// <summary>Name of the series that invoices and credit notes share (rule N1).</summary>
    private const string Series = "invoice";

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
        var (year, next, issued) = Next(connection, terms, today);
        var text = NumberScheme.Of(terms.Numbers, issued.Year, next);
        var invoice = make(before, text, issued);
        if (
            connection
                .Rows("SELECT 1 FROM invoice WHERE lower(text) = lower($text)", r => r.GetInt32(0), ("$text", text))
                .Count > 0
        )
            throw RefusedException.Of(
                "numbers",
                $"The number {text} was given out before. Move the series on, or change how it is written, in the Office."
            );
        Put(connection, year, next + 1, issued);
        connection.Run(
            "INSERT INTO invoice (id, job_id, fact_id, text, content, document, at, by) VALUES ($id, $job, $fact, $text, $content, $document, $at, $by)",
            ("$id", id),
            ("$job", job),
            ("$fact", acceptance),
            ("$text", text),
            ("$content", JsonSerializer.Serialize(invoice, CoreJson.Options)),
            ("$document", Packed.Of(JsonSerializer.SerializeToUtf8Bytes(paper(invoice, before), CoreJson.Options))),
            ("$at", JobStore.Utc(at)),
            ("$by", by)
        );
        writing.Commit();
        return before with { Invoices = before.Invoices.Add(invoice) };
    }

    /// <summary>The next number and the day of issue: today, and never before the last of the series (N3).</summary>
    private static (int Year, int Next, DateOnly Issued) Next(
        SqliteConnection connection,
        InvoiceTerms terms,
        DateOnly today
    )
    {
        var all = Rows(connection);
        var last = all.Max(s => s.LastDay);
        var issued = last > today ? last.Value : today;
        var year = NumberScheme.IsYearly(terms.Numbers) ? issued.Year : 0;
        return (year, all.FirstOrDefault(s => s.Year == year)?.Next ?? 1, issued);
    }

    private static List<SeriesNow> Rows(SqliteConnection connection) =>
        connection.Rows(
            "SELECT year, next, last_day FROM number_series WHERE name = $name",
            r => new SeriesNow(
                r.GetInt32(0),
                r.GetInt32(1),
                r.GetString(2) is { Length: > 0 } day ? Day.Of(day) : null
            ),
            ("$name", Series)
        );

    private static void Put(SqliteConnection connection, int year, int next, DateOnly? day) =>
        connection.Run(
            "INSERT INTO number_series VALUES ($name, $year, $next, $day) ON CONFLICT (name, year) DO UPDATE SET next = excluded.next, last_day = excluded.last_day",
            ("$name", Series),
            ("$year", year),
            ("$next", next),
            ("$day", day is { } of ? Day.Written(of) : "")
        );

    /// <summary>Where the series of this day stands.</summary>
    public SeriesNow Stands(InvoiceTerms terms, DateOnly today)
    {
        using var connection = database.Connect();
        var (year, next, _) = Next(connection, terms, today);
        return new(year, next, Rows(connection).FirstOrDefault(s => s.Year == year)?.LastDay);
    }

    /// <summary>What persons have moved on, the latest first: what was skipped is a gap that a person made (N4).</summary>
    public List<SeriesMoved> Moved()
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT year, was, now, reason, at, by FROM number_moved WHERE name = $name ORDER BY number DESC",
            r => new SeriesMoved(
                r.GetInt32(0),
                r.GetInt32(1),
                r.GetInt32(2),
                r.GetString(3),
                JobStore.Moment(r.GetString(4)),
                r.GetString(5)
            ),
            ("$name", Series)
        );
    }

    /// <summary>Moves the series of this day on, forward alone (N4). The same id again changes nothing.</summary>
    /// <exception cref="RefusedException">Backward, without a reason, or too far.</exception>
    public void Move(InvoiceTerms terms, DateOnly today, Guid id, int to, string reason, DateTime at, string by)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        if (connection.Rows("SELECT 1 FROM number_moved WHERE id = $id", r => r.GetInt32(0), ("$id", id)).Count > 0)
            return;
        var (year, next, _) = Next(connection, terms, today);
        if (to <= next)
            throw RefusedException.Of("next", $"The next is {next}: a series is moved only forward.");
        if (to > 999_999_999)
            throw RefusedException.Of("next", "At most 999,999,999.");
        if (reason.Trim().Length is 0 or > 500)
            throw RefusedException.Of("reason", "Say why, in at most 500 characters: what is skipped is a gap.");
        Put(connection, year, to, Rows(connection).FirstOrDefault(s => s.Year == year)?.LastDay);
        connection.Run(
            "INSERT INTO number_moved (id, name, year, was, now, reason, at, by) VALUES ($id, $name, $year, $was, $now, $reason, $at, $by)",
            ("$id", id),
            ("$name", Series),
            ("$year", year),
            ("$was", next),
            ("$now", to),
            ("$reason", reason.Trim()),
            ("$at", JobStore.Utc(at)),
            ("$by", by)
        );
        writing.Commit();
    }

    /// <summary>The document of an invoice; null where there is none of that id in the job.</summary>
    public SentDocument? Document(Guid job, Guid invoice)
    {
        using var connection = database.Connect();
        return connection
            .Rows(
                "SELECT document FROM invoice WHERE id = $id AND job_id = $job",
                r => JsonSerializer.Deserialize<SentDocument>(Packed.Read((byte[])r[0]), CoreJson.Options)!,
                ("$id", invoice),
                ("$job", job)
            )
            .FirstOrDefault();
    }

    /// <summary>Hash of an invoice's PDF; null where it was not made yet.</summary>
    public string? Pdf(Guid invoice)
    {
        using var connection = database.Connect();
        return connection
            .Rows("SELECT pdf FROM invoice_pdf WHERE invoice_id = $id", r => r.GetString(0), ("$id", invoice))
            .FirstOrDefault();
    }

    /// <summary>Says which file the PDF is; the first that is said stays.</summary>
    public void KeepPdf(Guid invoice, string hash)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO invoice_pdf VALUES ($id, $hash) ON CONFLICT DO NOTHING",
            ("$id", invoice),
            ("$hash", hash)
        );
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
