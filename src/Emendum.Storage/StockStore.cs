using System.Collections.Concurrent;
using System.Globalization;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Goods that moved, on disk. Each fact is checked against all that are there about the same goods, in the transaction that appends it (rule S3).</summary>
public sealed class StockStore(Database database)
{
    private const string Columns =
        "id, material_id, colour, unit, name, move, quantity, job_id, day, words, paid, order_id, line, work_id, place_id, at, by, takes_back";

    // What the facts of an item came to, by the last of them: a fact is appended, and never changed.
    private readonly ConcurrentDictionary<string, (long Last, StockItem Item)> known = [];

    private static List<StockFact> Rows(
        SqliteConnection connection,
        string which,
        params ReadOnlySpan<(string, object?)> parameters
    ) =>
        connection.Rows(
            $"SELECT {Columns} FROM stock_fact WHERE {which}",
            r => new StockFact(
                r.GetGuid(0),
                Enum.Parse<StockMove>(r.GetString(5)),
                new(r.GetGuid(1), r.GetString(2), r.GetString(3)),
                r.GetString(4),
                decimal.Parse(r.GetString(6), CultureInfo.InvariantCulture),
                r.IsDBNull(7) ? null : r.GetGuid(7),
                Day.Of(r.GetString(8)),
                r.GetString(9),
                JobStore.Moment(r.GetString(15)),
                r.GetString(16)
            )
            {
                Paid = r.IsDBNull(10) ? null : decimal.Parse(r.GetString(10), CultureInfo.InvariantCulture),
                Order = r.IsDBNull(11) ? null : r.GetGuid(11),
                Line = r.IsDBNull(12) ? null : r.GetInt32(12),
                Work = r.IsDBNull(13) ? null : r.GetGuid(13),
                Place = r.IsDBNull(14) ? null : r.GetGuid(14),
                TakesBack = r.IsDBNull(17) ? null : r.GetGuid(17),
            },
            parameters
        );

    private static List<StockFact> Facts(SqliteConnection connection, string item) =>
        Rows(connection, "item = $item ORDER BY number", ("$item", item));

    /// <summary>All facts about some goods, in the order in which they were committed.</summary>
    public IReadOnlyList<StockFact> Facts(GoodsKey goods)
    {
        using var connection = database.Connect();
        return Facts(connection, goods.Text);
    }

    /// <summary>All facts about a job, in the order in which they were committed.</summary>
    public IReadOnlyList<StockFact> Facts(Guid job)
    {
        using var connection = database.Connect();
        return Rows(connection, "job_id = $job ORDER BY number", ("$job", job));
    }

    /// <summary>Facts that came for the orders of a job, those that stand.</summary>
    internal static ILookup<Guid, StockFact> Came(SqliteConnection connection, Guid job) =>
        Rows(
                connection,
                "job_id = $job AND order_id IS NOT NULL AND takes_back IS NULL AND id NOT IN (SELECT takes_back FROM stock_fact WHERE job_id = $job AND takes_back IS NOT NULL) ORDER BY number",
                ("$job", job)
            )
            .ToLookup(f => f.Order!.Value);

    /// <summary>Everything that was ever in stock.</summary>
    public IReadOnlyList<StockItem> All()
    {
        using var connection = database.Connect();
        return Items(connection, "true");
    }

    /// <summary>Everything in stock that a job takes, or has to do with.</summary>
    /// <param name="job">The job.</param>
    /// <param name="goods">What it takes.</param>
    public IReadOnlyList<StockItem> Of(Guid job, IEnumerable<GoodsKey> goods)
    {
        using var connection = database.Connect();
        return Items(
            connection,
            "item IN (SELECT item FROM stock_fact WHERE job_id = $job) OR item IN (SELECT value FROM json_each($items))",
            ("$job", job),
            ("$items", System.Text.Json.JsonSerializer.Serialize(goods.Select(g => g.Text)))
        );
    }

    private List<StockItem> Items(
        SqliteConnection connection,
        string which,
        params ReadOnlySpan<(string, object?)> parameters
    ) =>
        [
            .. connection
                .Rows(
                    $"SELECT item, max(number) FROM stock_fact WHERE {which} GROUP BY item ORDER BY item",
                    r => (Item: r.GetString(0), Last: r.GetInt64(1)),
                    parameters
                )
                .Select(x => Item(connection, x.Item, x.Last)),
        ];

    private StockItem Item(SqliteConnection connection, string item, long last)
    {
        if (known.TryGetValue(item, out var before) && before.Last == last)
            return before.Item;
        var facts = Facts(connection, item);
        var made = StockItem.Of(facts[0].Goods, facts);
        known[item] = (last, made);
        return made;
    }

    /// <summary>Writes that goods moved. The same id again changes nothing.</summary>
    /// <returns>What is in stock with it.</returns>
    /// <exception cref="RefusedException">It cannot be; says why.</exception>
    public StockItem Record(StockFact fact, DateOnly today)
    {
        using var writing = database.Writes();
        var item = Append(writing.Connection, fact, today);
        writing.Commit();
        return item;
    }

    /// <summary>Appends a fact if it can be, in a transaction; the same id again changes nothing.</summary>
    internal static StockItem Append(SqliteConnection connection, StockFact fact, DateOnly today)
    {
        if (Rows(connection, "id = $id", ("$id", fact.Id)).FirstOrDefault() is { } done)
            return StockItem.Of(done.Goods, Facts(connection, done.Goods.Text));
        fact.Check(today);
        return Insert(connection, fact);
    }

    /// <summary>Takes back what was written wrong. The same id again changes nothing.</summary>
    /// <param name="id">Id of the fact that takes it back.</param>
    /// <param name="which">What is taken back.</param>
    /// <param name="job">The job that it has to be about; null for the firm's stock.</param>
    /// <param name="at">When (UTC).</param>
    /// <param name="by">Who.</param>
    /// <exception cref="RefusedException">It is not there, or something rests on it.</exception>
    /// <returns>The job that it was about; null for none.</returns>
    public Guid? TakeBack(Guid id, Guid which, Guid? job, DateTime at, string by)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        if (Rows(connection, "id = $id", ("$id", id)).FirstOrDefault() is { } done)
            return done.Job;
        var fact =
            Rows(connection, "id = $id AND takes_back IS NULL", ("$id", which))
                .FirstOrDefault(f => job is null || f.Job == job)
            ?? throw RefusedException.Of("fact", "That is not there any more.");
        Insert(connection, fact with { Id = id, At = at, By = by, TakesBack = which });
        writing.Commit();
        return fact.Job;
    }

    private static StockItem Insert(SqliteConnection connection, StockFact fact)
    {
        var item = StockItem.With(fact.Goods, Facts(connection, fact.Goods.Text), fact);
        connection.Run(
            $"INSERT INTO stock_fact (item, {Columns}) VALUES ($item, $id, $material, $colour, $unit, $name, $move, $quantity, $job, $day, $words, $paid, $order, $line, $work, $place, $at, $by, $back)",
            ("$item", fact.Goods.Text),
            ("$id", fact.Id),
            ("$material", fact.Goods.Material),
            ("$colour", fact.Goods.Colour),
            ("$unit", fact.Goods.Unit),
            ("$name", fact.Name),
            ("$move", fact.Move.ToString()),
            ("$quantity", Rounding.Text(fact.Quantity)),
            ("$job", fact.Job),
            ("$day", Day.Written(fact.Day)),
            ("$words", fact.Words),
            ("$paid", fact.Paid is { } paid ? Rounding.Text(paid) : null),
            ("$order", fact.Order),
            ("$line", fact.Line),
            ("$work", fact.Work),
            ("$place", fact.Place),
            ("$at", JobStore.Utc(fact.At)),
            ("$by", fact.By),
            ("$back", fact.TakesBack)
        );
        return item;
    }
}
