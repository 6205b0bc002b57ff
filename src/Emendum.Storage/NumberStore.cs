using Emendum.Core;
using Emendum.Core.Delivery;
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

/// <summary>Series of numbers on disk. A number is given in the transaction that issues (rule N2): a crash before its end uses none.</summary>
public sealed class NumberStore(Database database)
{
    /// <summary>The series that invoices and credit notes share (rule N1).</summary>
    public const string Invoices = "invoice";

    /// <summary>The series of purchase orders.</summary>
    public const string Orders = "order";

    /// <summary>The next number and the day of issue: today, and never before the last of the series (N3).</summary>
    internal static (int Year, int Next, DateOnly Issued) Next(
        SqliteConnection connection,
        string series,
        string scheme,
        DateOnly today
    )
    {
        var all = Rows(connection, series);
        var last = all.Max(s => s.LastDay);
        var issued = last > today ? last.Value : today;
        var year = NumberScheme.IsYearly(scheme) ? issued.Year : 0;
        return (year, all.FirstOrDefault(s => s.Year == year)?.Next ?? 1, issued);
    }

    /// <summary>Refuses a text that any document has had, whatever the case of its letters.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    internal static void CheckNew(SqliteConnection connection, string text)
    {
        if (
            connection
                .Rows(
                    "SELECT 1 FROM invoice WHERE lower(text) = lower($text) UNION ALL SELECT 1 FROM purchase_order WHERE lower(text) = lower($text)",
                    r => r.GetInt32(0),
                    ("$text", text)
                )
                .Count > 0
        )
            throw RefusedException.Of(
                "numbers",
                $"The number {text} was given out before. Move the series on, or change how it is written, in the Office."
            );
    }

    private static List<SeriesNow> Rows(SqliteConnection connection, string series) =>
        connection.Rows(
            "SELECT year, next, last_day FROM number_series WHERE name = $name",
            r => new SeriesNow(
                r.GetInt32(0),
                r.GetInt32(1),
                r.GetString(2) is { Length: > 0 } day ? Day.Of(day) : null
            ),
            ("$name", series)
        );

    /// <summary>Says which is the next.</summary>
    internal static void Put(SqliteConnection connection, string series, int year, int next, DateOnly? day) =>
        connection.Run(
            "INSERT INTO number_series VALUES ($name, $year, $next, $day) ON CONFLICT (name, year) DO UPDATE SET next = excluded.next, last_day = excluded.last_day",
            ("$name", series),
            ("$year", year),
            ("$next", next),
            ("$day", day is { } of ? Day.Written(of) : "")
        );

    /// <summary>Where the series of this day stands.</summary>
    /// <param name="series">Its name.</param>
    /// <param name="scheme">How it is written.</param>
    /// <param name="today">The firm's day.</param>
    public SeriesNow Stands(string series, string scheme, DateOnly today)
    {
        using var connection = database.Connect();
        var (year, next, _) = Next(connection, series, scheme, today);
        return new(year, next, Rows(connection, series).FirstOrDefault(s => s.Year == year)?.LastDay);
    }

    /// <summary>What persons have moved on, the latest first: what was skipped is a gap that a person made (N4).</summary>
    public List<SeriesMoved> Moved(string series)
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
            ("$name", series)
        );
    }

    /// <summary>Moves the series of this day on, forward alone (N4). The same id again changes nothing.</summary>
    /// <exception cref="RefusedException">Backward, without a reason, or too far.</exception>
    public void Move(
        string series,
        string scheme,
        DateOnly today,
        Guid id,
        int to,
        string reason,
        DateTime at,
        string by
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        if (connection.Rows("SELECT 1 FROM number_moved WHERE id = $id", r => r.GetInt32(0), ("$id", id)).Count > 0)
            return;
        var (year, next, _) = Next(connection, series, scheme, today);
        if (to <= next)
            throw RefusedException.Of("next", $"The next is {next}: a series is moved only forward.");
        if (to > 999_999_999)
            throw RefusedException.Of("next", "At most 999,999,999.");
        if (reason.Trim().Length is 0 or > 500)
            throw RefusedException.Of("reason", "Say why, in at most 500 characters: what is skipped is a gap.");
        Put(connection, series, year, to, Rows(connection, series).FirstOrDefault(s => s.Year == year)?.LastDay);
        connection.Run(
            "INSERT INTO number_moved (id, name, year, was, now, reason, at, by) VALUES ($id, $name, $year, $was, $now, $reason, $at, $by)",
            ("$id", id),
            ("$name", series),
            ("$year", year),
            ("$was", next),
            ("$now", to),
            ("$reason", reason.Trim()),
            ("$at", JobStore.Utc(at)),
            ("$by", by)
        );
        writing.Commit();
    }
}
