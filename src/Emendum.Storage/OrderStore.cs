using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Json;
using Emendum.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Purchase orders on disk, with what came of them. The number is given in the transaction that places one (rule N2).</summary>
public sealed class OrderStore(Database database)
{
    private const string Table = "purchase_order";

    /// <summary>The orders of what was accepted, in the order in which they were placed.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    public ImmutableArray<OrderStands> Of(Guid job, Guid acceptance)
    {
        using var connection = database.Connect();
        return Of(connection, job, acceptance);
    }

    private static ImmutableArray<OrderStands> Of(SqliteConnection connection, Guid job, Guid acceptance)
    {
        var came = StockStore.Came(connection, job);
        var facts = connection
            .Rows(
                "SELECT f.id, f.order_id, f.event, f.amount, f.words, f.at, f.by FROM order_fact f JOIN purchase_order o ON o.id = f.order_id WHERE o.job_id = $job AND f.takes_back IS NULL AND NOT EXISTS (SELECT 1 FROM order_fact b WHERE b.takes_back = f.id) ORDER BY f.number",
                r => new OrderFact(
                    r.GetGuid(0),
                    r.GetGuid(1),
                    Enum.Parse<OrderEvent>(r.GetString(2)),
                    decimal.Parse(r.GetString(3), CultureInfo.InvariantCulture),
                    r.GetString(4),
                    JobStore.Moment(r.GetString(5)),
                    r.GetString(6)
                ),
                ("$job", job)
            )
            .ToLookup(f => f.Order);
        return
        [
            .. connection
                .Rows(
                    "SELECT content FROM purchase_order WHERE job_id = $job AND fact_id = $fact ORDER BY number",
                    r => JsonSerializer.Deserialize<PurchaseOrder>(r.GetString(0), CoreJson.Options)!,
                    ("$job", job),
                    ("$fact", acceptance)
                )
                .Select(order => new OrderStands(order, [.. came[order.Id]], [.. facts[order.Id]])),
        ];
    }

    /// <summary>Whether an order rests on an acceptance, in any job: one that was closed before anything came does not.</summary>
    internal static bool RestsOn(SqliteConnection connection, Guid acceptance) =>
        connection
            .Rows(
                "SELECT DISTINCT job_id FROM purchase_order WHERE fact_id = $fact",
                r => r.GetGuid(0),
                ("$fact", acceptance)
            )
            .Exists(job => Of(connection, job, acceptance).Any(o => o.Closed is null || !o.Came.IsEmpty));

    /// <summary>Places an order under the next number of the series. The same id again changes nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="terms">How the firm orders.</param>
    /// <param name="id">Id of the order.</param>
    /// <param name="today">The firm's day.</param>
    /// <param name="make">Makes it of its number and its day.</param>
    /// <param name="paper">Makes its document.</param>
    /// <param name="at">When (UTC).</param>
    /// <param name="by">Who.</param>
    /// <exception cref="RefusedException">It cannot be placed; says why, and no number is used.</exception>
    public void Place(
        Guid job,
        Guid acceptance,
        OrderTerms terms,
        Guid id,
        DateOnly today,
        Func<string, DateOnly, PurchaseOrder> make,
        Func<PurchaseOrder, SentDocument> paper,
        DateTime at,
        string by
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var before = Of(connection, job, acceptance);
        if (before.Any(o => o.Order.Id == id))
            return;
        if (before.Length >= PurchaseOrder.Most)
            throw RefusedException.Of("lines", $"A job has at most {PurchaseOrder.Most} orders.");
        var (year, next, placed) = NumberStore.Next(connection, NumberStore.Orders, terms.Numbers, today);
        var text = NumberScheme.Of(terms.Numbers, placed.Year, next);
        var order = make(text, placed);
        NumberStore.CheckNew(connection, text);
        NumberStore.Put(connection, NumberStore.Orders, year, next + 1, placed);
        connection.Run(
            "INSERT INTO purchase_order (id, job_id, fact_id, text, content, document, at, by) VALUES ($id, $job, $fact, $text, $content, $document, $at, $by)",
            ("$id", id),
            ("$job", job),
            ("$fact", acceptance),
            ("$text", text),
            ("$content", JsonSerializer.Serialize(order, CoreJson.Options)),
            ("$document", IssuedPaper.Kept(paper(order))),
            ("$at", JobStore.Utc(at)),
            ("$by", by)
        );
        writing.Commit();
    }

    /// <summary>Writes what came for an order, all of it or nothing: each line's goods are reserved for the job (rule S4). The same ids again change nothing.</summary>
    /// <param name="goods">What came.</param>
    /// <param name="delivery">What was paid for the delivery; null for nothing.</param>
    /// <param name="today">The firm's day.</param>
    /// <exception cref="RefusedException">It cannot have come; says why.</exception>
    public void Receive(IReadOnlyCollection<StockFact> goods, OrderFact? delivery, DateOnly today)
    {
        using var writing = database.Writes();
        foreach (var fact in goods)
            StockStore.Append(writing.Connection, fact, today);
        if (delivery is not null)
            Append(writing.Connection, delivery);
        writing.Commit();
    }

    /// <summary>Closes an order: no more is waited for. One that is closed stays so.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="fact">That it is closed, and why.</param>
    /// <exception cref="RefusedException">There is nothing to close.</exception>
    public void Close(Guid job, Guid acceptance, OrderFact fact)
    {
        using var writing = database.Writes();
        var order =
            Of(writing.Connection, job, acceptance).FirstOrDefault(o => o.Order.Id == fact.Order)
            ?? throw RefusedException.Of("order", "That order is not of this job.");
        if (order.Closed is null && !order.IsOpen)
            throw RefusedException.Of("reason", $"All of {order.Order.Number} came: nothing is waited for.");
        if (order.Closed is null)
            Append(writing.Connection, fact);
        writing.Commit();
    }

    /// <summary>Says that an order went out, with the mails that bring it. The same id again changes nothing.</summary>
    public void Goes(OrderFact fact, IEnumerable<Mail> mails)
    {
        using var writing = database.Writes();
        if (Append(writing.Connection, fact))
            foreach (var mail in mails)
                MailStore.Write(writing.Connection, mail);
        writing.Commit();
    }

    /// <summary>Takes back that an order was closed, or that a delivery was paid. The same id again changes nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="id">Id of the fact that takes it back.</param>
    /// <param name="which">What is taken back.</param>
    /// <param name="at">When (UTC).</param>
    /// <param name="by">Who.</param>
    /// <exception cref="RefusedException">It is not there any more.</exception>
    public void TakeBack(Guid job, Guid acceptance, Guid id, Guid which, DateTime at, string by)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        if (Has(connection, id))
            return;
        var fact =
            Of(connection, job, acceptance)
                .SelectMany(o => o.Facts)
                .FirstOrDefault(f => f.Id == which && f.Event != OrderEvent.Mailed)
            ?? throw RefusedException.Of("fact", "That is not there any more.");
        Append(connection, fact with { Id = id, At = at, By = by, TakesBack = which });
        writing.Commit();
    }

    private static bool Has(SqliteConnection connection, Guid id) =>
        connection.Rows("SELECT 1 FROM order_fact WHERE id = $id", r => r.GetInt32(0), ("$id", id)).Count > 0;

    private static bool Append(SqliteConnection connection, OrderFact fact)
    {
        if (Has(connection, fact.Id))
            return false;
        connection.Run(
            "INSERT INTO order_fact (id, order_id, event, amount, words, at, by, takes_back) VALUES ($id, $order, $event, $amount, $words, $at, $by, $back)",
            ("$id", fact.Id),
            ("$order", fact.Order),
            ("$event", fact.Event.ToString()),
            ("$amount", Rounding.Text(fact.Amount)),
            ("$words", fact.Words),
            ("$at", JobStore.Utc(fact.At)),
            ("$by", fact.By),
            ("$back", fact.TakesBack)
        );
        return true;
    }

    /// <summary>The document of an order; null where there is none of that id in the job.</summary>
    public SentDocument? Document(Guid job, Guid order)
    {
        using var connection = database.Connect();
        return IssuedPaper.Document(connection, Table, job, order);
    }

    /// <summary>Hash of an order's PDF; null where it was not made yet.</summary>
    public string? Pdf(Guid order)
    {
        using var connection = database.Connect();
        return IssuedPaper.Pdf(connection, Table, "order_id", order);
    }

    /// <summary>Says which file the PDF is; the first that is said stays.</summary>
    public void KeepPdf(Guid order, string hash)
    {
        using var connection = database.Connect();
        IssuedPaper.KeepPdf(connection, Table, order, hash);
    }
}
