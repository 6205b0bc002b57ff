using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>What has happened on site, on disk. Each fact is checked against all that are there in the transaction that appends it.</summary>
public sealed class SiteStore(Database database)
{
    /// <summary>What has happened on the site of a job.</summary>
    /// <param name="job">The job.</param>
    /// <param name="order">Its work order.</param>
    public SiteLog Log(Guid job, WorkOrder order)
    {
        using var connection = database.Connect();
        return Log(connection, job, order);
    }

    private static SiteLog Log(SqliteConnection connection, Guid job, WorkOrder order) =>
        new(
            order,
            [
                .. connection.Rows(
                    "SELECT id, work_id, place_id, percent, at, by, link_id FROM done_fact WHERE job_id = $job ORDER BY number",
                    r => new DoneFact(
                        r.GetGuid(0),
                        r.GetGuid(1),
                        r.GetGuid(2),
                        Number(r.GetString(3)),
                        JobStore.Moment(r.GetString(4)),
                        r.GetString(5)
                    )
                    {
                        Link = r.IsDBNull(6) ? null : r.GetGuid(6),
                    },
                    ("$job", job)
                ),
            ],
            [
                .. connection.Rows(
                    "SELECT id, worked_for, work_id, place_id, person, day, hours, words, at, by, link_id, takes_back, visit_id FROM hours_fact WHERE job_id = $job ORDER BY number",
                    r => new HoursFact(
                        r.GetGuid(0),
                        Enum.Parse<HoursFor>(r.GetString(1)),
                        r.IsDBNull(2) ? null : r.GetGuid(2),
                        r.IsDBNull(3) ? null : r.GetGuid(3),
                        r.GetString(4),
                        Day.Of(r.GetString(5)),
                        Number(r.GetString(6)),
                        r.GetString(7),
                        JobStore.Moment(r.GetString(8)),
                        r.GetString(9)
                    )
                    {
                        Link = r.IsDBNull(10) ? null : r.GetGuid(10),
                        TakesBack = r.IsDBNull(11) ? null : r.GetGuid(11),
                        Visit = r.IsDBNull(12) ? null : r.GetGuid(12),
                    },
                    ("$job", job)
                ),
            ]
        )
        {
            Visits = [.. Visits(connection, job)],
        };

    private static List<VisitFact> Visits(SqliteConnection connection, Guid job) =>
        connection.Rows(
            "SELECT id, visit_id, kind_id, said, day, words, at, by, link_id FROM visit_fact WHERE job_id = $job ORDER BY number",
            r => new VisitFact(
                r.GetGuid(0),
                r.GetGuid(1),
                r.GetGuid(2),
                Enum.Parse<VisitSaid>(r.GetString(3)),
                Day.Of(r.GetString(4)),
                r.GetString(5),
                JobStore.Moment(r.GetString(6)),
                r.GetString(7)
            )
            {
                Link = r.IsDBNull(8) ? null : r.GetGuid(8),
            },
            ("$job", job)
        );

    /// <summary>Visits that are left out, of all jobs: by the last word about each.</summary>
    public HashSet<Guid> LeftOut()
    {
        using var connection = database.Connect();
        return
        [
            .. connection.Rows(
                "SELECT visit_id FROM visit_fact WHERE number IN (SELECT max(number) FROM visit_fact GROUP BY job_id, visit_id) AND said IN ('LeftOut', 'LeftOutByThem')",
                r => r.GetGuid(0)
            ),
        ];
    }

    /// <summary>Says what has become of visits, with the hours that were worked on them: all of it or none. The same ids again change nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="order">Its work order.</param>
    /// <param name="facts">What is said.</param>
    /// <param name="hours">Hours of it.</param>
    /// <param name="today">The firm's day.</param>
    /// <param name="about">Sections that whoever says it knows of; none for all.</param>
    /// <exception cref="RefusedException">It cannot be said; says why.</exception>
    public SiteLog Record(
        Guid job,
        WorkOrder order,
        IReadOnlyCollection<VisitFact> facts,
        IReadOnlyCollection<HoursFact> hours,
        DateOnly today,
        ImmutableArray<string> about = default
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var (log, known) = (Log(connection, job, order), order.About(about));
        var there = log.Visits.Select(v => v.Id).Concat(log.Hours.Select(h => h.Id)).ToHashSet();
        foreach (var fact in facts.Where(f => !there.Contains(f.Id)))
        {
            (log with { Order = known }).Check(fact, today);
            CheckLink(connection, job, fact.Link);
            connection.Run(
                "INSERT INTO visit_fact (id, job_id, visit_id, kind_id, said, day, words, at, by, link_id) VALUES ($id, $job, $visit, $kind, $said, $day, $words, $at, $by, $link)",
                ("$id", fact.Id),
                ("$job", job),
                ("$visit", fact.Visit),
                ("$kind", fact.Kind),
                ("$said", fact.Said.ToString()),
                ("$day", Day.Written(fact.Day)),
                ("$words", fact.Words),
                ("$at", JobStore.Utc(fact.At)),
                ("$by", fact.By),
                ("$link", fact.Link)
            );
            log = log with { Visits = log.Visits.Add(fact) };
        }
        foreach (var fact in hours.Where(f => !there.Contains(f.Id)))
        {
            (log with { Order = known }).Check(fact, today);
            log = Insert(connection, job, log, fact);
        }
        Teach(connection, job, log);
        writing.Commit();
        return log;
    }

    /// <summary>How much of each line of a job is done by the last word about it, percent.</summary>
    internal static Func<CellKey, decimal> DoneOf(SqliteConnection connection, Guid job)
    {
        var done = new Dictionary<CellKey, decimal>();
        foreach (
            var (line, percent) in connection.Rows(
                "SELECT work_id, place_id, percent FROM done_fact WHERE job_id = $job ORDER BY number",
                r => (new CellKey(r.GetGuid(0), r.GetGuid(1)), Number(r.GetString(2))),
                ("$job", job)
            )
        )
            done[line] = percent;
        return line => done.GetValueOrDefault(line);
    }

    private static decimal Number(string text) => decimal.Parse(text, CultureInfo.InvariantCulture);

    /// <summary>Says how much of lines is done, all of them or none. The same ids again change nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="order">Its work order.</param>
    /// <param name="facts">What is said.</param>
    /// <param name="about">Sections that whoever says it knows of; none for all.</param>
    /// <exception cref="RefusedException">It cannot be said; says why.</exception>
    public SiteLog Record(
        Guid job,
        WorkOrder order,
        IReadOnlyCollection<DoneFact> facts,
        ImmutableArray<string> about = default
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var log = Log(connection, job, order);
        var (there, known) = (log.Done.Select(d => d.Id).ToHashSet(), log with { Order = order.About(about) });
        foreach (var fact in facts.Where(f => !there.Contains(f.Id)))
        {
            known.Check(fact);
            CheckLink(connection, job, fact.Link);
            connection.Run(
                "INSERT INTO done_fact (id, job_id, work_id, place_id, percent, at, by, link_id) VALUES ($id, $job, $work, $place, $percent, $at, $by, $link)",
                ("$id", fact.Id),
                ("$job", job),
                ("$work", fact.Work),
                ("$place", fact.Place),
                ("$percent", Rounding.Text(fact.Percent)),
                ("$at", JobStore.Utc(fact.At)),
                ("$by", fact.By),
                ("$link", fact.Link)
            );
        }
        var then = log with { Done = [.. log.Done, .. facts.Where(f => !there.Contains(f.Id))] };
        Teach(connection, job, then);
        writing.Commit();
        return then;
    }

    /// <summary>Writes hours. The same id again changes nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="order">Its work order.</param>
    /// <param name="fact">The hours.</param>
    /// <param name="today">The firm's day.</param>
    /// <param name="about">Sections that whoever writes knows of; none for all.</param>
    /// <exception cref="RefusedException">They cannot be written; says why.</exception>
    public SiteLog Record(
        Guid job,
        WorkOrder order,
        HoursFact fact,
        DateOnly today,
        ImmutableArray<string> about = default
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var log = Log(connection, job, order);
        if (log.Hours.Any(h => h.Id == fact.Id))
            return log;
        (log with { Order = order.About(about) }).Check(fact, today);
        return Append(writing, job, log, fact);
    }

    /// <summary>Takes hours back that were written wrong. The same id again changes nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="order">Its work order.</param>
    /// <param name="id">Id of the fact.</param>
    /// <param name="which">The hours.</param>
    /// <param name="at">When (UTC).</param>
    /// <param name="by">Who.</param>
    /// <param name="link">The crew's link by which it comes; null from the office.</param>
    /// <exception cref="RefusedException">They are not there any more.</exception>
    public SiteLog TakeBack(Guid job, WorkOrder order, Guid id, Guid which, DateTime at, string by, Guid? link)
    {
        using var writing = database.Writes();
        var log = Log(writing.Connection, job, order);
        return log.Hours.Any(h => h.Id == id) ? log : Append(writing, job, log, log.TakeBack(id, which, at, by, link));
    }

    private static SiteLog Append(Writing writing, Guid job, SiteLog log, HoursFact fact)
    {
        var then = Insert(writing.Connection, job, log, fact);
        Teach(writing.Connection, job, then);
        writing.Commit();
        return then;
    }

    private static SiteLog Insert(SqliteConnection connection, Guid job, SiteLog log, HoursFact fact)
    {
        CheckLink(connection, job, fact.Link);
        connection.Run(
            "INSERT INTO hours_fact (id, job_id, worked_for, work_id, place_id, person, day, hours, words, at, by, link_id, takes_back, visit_id) VALUES ($id, $job, $for, $work, $place, $person, $day, $hours, $words, $at, $by, $link, $back, $visit)",
            ("$id", fact.Id),
            ("$job", job),
            ("$for", fact.For.ToString()),
            ("$work", fact.Work),
            ("$place", fact.Place),
            ("$person", fact.Person),
            ("$day", Day.Written(fact.Day)),
            ("$hours", Rounding.Text(fact.Hours)),
            ("$words", fact.Words),
            ("$at", JobStore.Utc(fact.At)),
            ("$by", fact.By),
            ("$link", fact.Link),
            ("$back", fact.TakesBack),
            ("$visit", fact.Visit)
        );
        return log with { Hours = log.Hours.Add(fact) };
    }

    /// <summary>A link that was revoked while its page stood open does nothing more.</summary>
    private static void CheckLink(SqliteConnection connection, Guid job, Guid? link)
    {
        if (link is { } by && WorkOrderStore.OpenLink(connection, job, by) is null)
            throw RefusedException.Of("link", "That link was revoked.");
    }

    /// <summary>Keeps what a finished job teaches, so that the last five are found without reading them; made from the facts, and again with each of them.</summary>
    private static void Teach(SqliteConnection connection, Guid job, SiteLog log)
    {
        connection.Run("DELETE FROM rate_reached WHERE job_id = $job", ("$job", job));
        if (!log.IsFinished)
            return;
        foreach (var reached in HoursUsed.Of(log).Reached)
            connection.Run(
                "INSERT INTO rate_reached (job_id, entry_id, coats, unit, weighted, hours, last_day, basis) VALUES ($job, $entry, $coats, $unit, $weighted, $hours, $day, $basis)",
                ("$job", job),
                ("$entry", reached.Key.Entry),
                ("$coats", reached.Key.Coats),
                ("$unit", reached.Key.Unit),
                ("$weighted", Rounding.Text(reached.Weighted)),
                ("$hours", Rounding.Text(reached.Hours)),
                ("$day", Day.Written(reached.LastDay)),
                ("$basis", reached.Basis)
            );
    }

    /// <summary>What finished jobs reached by one entry with so many coats.</summary>
    public List<ReachedInJob> Reached(Guid entry, int coats)
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT job_id, job.number, unit, weighted, hours, last_day, basis FROM rate_reached JOIN job ON job.id = job_id WHERE entry_id = $entry AND coats = $coats",
            r => new ReachedInJob(
                r.GetGuid(0),
                r.GetString(1),
                new(
                    new(entry, coats, r.GetString(2)),
                    Number(r.GetString(3)),
                    Number(r.GetString(4)),
                    Day.Of(r.GetString(5))
                )
                {
                    Basis = r.GetString(6),
                }
            ),
            ("$entry", entry),
            ("$coats", coats)
        );
    }
}
