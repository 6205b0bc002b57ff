using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Tasks of a job, as another one looks at them.</summary>
/// <param name="Job">The job.</param>
/// <param name="Name">Its number and name.</param>
/// <param name="Tasks">Its tasks.</param>
public sealed record TasksOfJob(Guid Job, string Name, ImmutableArray<PlannedTask> Tasks);

/// <summary>A schedule as it was told to those whom it concerns.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Of the firm: it grows with each.</param>
/// <param name="Job">The job.</param>
/// <param name="Title">What the job is called.</param>
/// <param name="Site">Where it is; empty where nobody says.</param>
/// <param name="Tasks">Its tasks, as they were told.</param>
/// <param name="Told">Who was told, and how, a line each.</param>
/// <param name="At">When (UTC).</param>
/// <param name="By">By whom.</param>
public sealed record PublishedSchedule(
    Guid Id,
    long Number,
    Guid Job,
    string Title,
    string Site,
    ImmutableArray<PublishedTask> Tasks,
    ImmutableArray<string> Told,
    DateTime At,
    string By
);

/// <summary>A private address of a crew's calendar.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Crew">The crew.</param>
/// <param name="Made">When it was made (UTC).</param>
public sealed record CrewCalendar(Guid Id, Guid Crew, DateTime Made)
{
    /// <summary>Most that stand of a crew.</summary>
    public const int Most = 10;
}

/// <summary>Schedules on disk: the tasks of all jobs at a look, what was told, and the crews' calendars.</summary>
public sealed class ScheduleStore(Database database)
{
    /// <summary>Most jobs that are looked at beside one.</summary>
    public const int MostJobs = 300;

    /// <summary>Most schedules of a job that are told.</summary>
    public const int MostOfJob = 1000;

    /// <summary>Tasks of jobs of which something begins after a moment, those that begin last first.</summary>
    /// <param name="since">Local time.</param>
    /// <param name="but">A job that is left out; null for none.</param>
    public List<TasksOfJob> Tasks(DateTime since, Guid? but)
    {
        using var connection = database.Connect();
        return connection.Rows(
            $"SELECT t.job_id, j.number, j.name, t.tasks FROM job_tasks t JOIN job j ON j.id = t.job_id WHERE t.last_start >= $since AND t.job_id IS NOT $but ORDER BY t.last_start DESC, t.job_id LIMIT {MostJobs}",
            r => new TasksOfJob(
                r.GetGuid(0),
                $"{r.GetString(1)} {r.GetString(2)}".Trim(),
                JsonSerializer.Deserialize<ImmutableArray<PlannedTask>>(r.GetString(3), CoreJson.Options)
            ),
            ("$since", Local(since)),
            ("$but", but)
        );
    }

    /// <summary>Tasks of a job as its last edit left them.</summary>
    public ImmutableArray<PlannedTask> TasksOf(Guid job)
    {
        using var connection = database.Connect();
        return connection
            .Rows(
                "SELECT tasks FROM job_tasks WHERE job_id = $job",
                r => JsonSerializer.Deserialize<ImmutableArray<PlannedTask>>(r.GetString(0), CoreJson.Options),
                ("$job", job)
            )
            .FirstOrDefault([]);
    }

    /// <summary>Keeps the tasks of a job beside it, in the transaction of the edit that has changed them.</summary>
    internal static void Keep(SqliteConnection connection, Job job)
    {
        if (job.Tasks.IsEmpty)
            connection.Run("DELETE FROM job_tasks WHERE job_id = $job", ("$job", job.Id));
        else
            connection.Run(
                "INSERT INTO job_tasks VALUES ($job, $last, $tasks) ON CONFLICT (job_id) DO UPDATE SET last_start = excluded.last_start, tasks = excluded.tasks",
                ("$job", job.Id),
                ("$last", Local(job.Tasks.Max(t => t.Start))),
                ("$tasks", JsonSerializer.Serialize(job.Tasks, CoreJson.Options))
            );
    }

    private static string Local(DateTime at) =>
        at.ToString("yyyy-MM-dd'T'HH:mm", System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>What was told of a job, the latest first.</summary>
    public List<PublishedSchedule> Published(Guid job, int most = 20)
    {
        using var connection = database.Connect();
        return Rows(connection, "job_id = $job ORDER BY number DESC LIMIT $most", ("$job", job), ("$most", most));
    }

    /// <summary>The latest that was told of each job, the newest first.</summary>
    public List<PublishedSchedule> Latest()
    {
        using var connection = database.Connect();
        return Rows(
            connection,
            $"number IN (SELECT max(number) FROM schedule_published GROUP BY job_id) ORDER BY number DESC LIMIT {MostJobs}"
        );
    }

    private static List<PublishedSchedule> Rows(
        SqliteConnection connection,
        string which,
        params ReadOnlySpan<(string, object?)> parameters
    ) =>
        connection.Rows(
            $"SELECT id, number, job_id, title, site, tasks, told, at, by FROM schedule_published WHERE {which}",
            r => new PublishedSchedule(
                r.GetGuid(0),
                r.GetInt64(1),
                r.GetGuid(2),
                r.GetString(3),
                r.GetString(4),
                JsonSerializer.Deserialize<ImmutableArray<PublishedTask>>(r.GetString(5), CoreJson.Options),
                JsonSerializer.Deserialize<ImmutableArray<string>>(r.GetString(6), CoreJson.Options),
                JobStore.Moment(r.GetString(7)),
                r.GetString(8)
            ),
            parameters
        );

    /// <summary>Keeps what is told now, with the messages that tell it, of what was told last. The same id again changes nothing.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="job">The job.</param>
    /// <param name="make">Makes it and its messages of what was told last; null for never.</param>
    /// <exception cref="RefusedException">There is nothing to tell; says why.</exception>
    public void Publish(
        Guid id,
        Guid job,
        Func<PublishedSchedule?, (PublishedSchedule Told, IReadOnlyList<Mail> Mails)> make
    )
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        if (Rows(connection, "id = $id", ("$id", id)).Count > 0)
            return;
        if (
            connection.Rows(
                "SELECT count(*) FROM schedule_published WHERE job_id = $job",
                r => r.GetInt64(0),
                ("$job", job)
            )[0] >= MostOfJob
        )
            throw RefusedException.Of("schedule", $"A schedule is told at most {MostOfJob:N0} times.");
        var last = Rows(connection, "job_id = $job ORDER BY number DESC LIMIT 1", ("$job", job)).FirstOrDefault();
        var (told, mails) = make(last);
        connection.Run(
            "INSERT INTO schedule_published (id, job_id, title, site, tasks, told, at, by) VALUES ($id, $job, $title, $site, $tasks, $told, $at, $by)",
            ("$id", id),
            ("$job", job),
            ("$title", told.Title),
            ("$site", told.Site),
            ("$tasks", JsonSerializer.Serialize(told.Tasks, CoreJson.Options)),
            ("$told", JsonSerializer.Serialize(told.Told, CoreJson.Options)),
            ("$at", JobStore.Utc(told.At)),
            ("$by", told.By)
        );
        foreach (var mail in mails)
            MailStore.Write(connection, mail);
        writing.Commit();
    }

    /// <summary>Addresses of calendars that stand, in the order in which they were made.</summary>
    public List<CrewCalendar> Calendars()
    {
        using var connection = database.Connect();
        return Calendars(connection, "revoked IS NULL ORDER BY rowid");
    }

    /// <summary>The calendar that a token opens, by its hash; null where there is none, or it was revoked.</summary>
    public CrewCalendar? FindCalendar(string tokenHash)
    {
        using var connection = database.Connect();
        return Calendars(connection, "token_hash = $hash AND revoked IS NULL", ("$hash", tokenHash)).FirstOrDefault();
    }

    private static List<CrewCalendar> Calendars(
        SqliteConnection connection,
        string which,
        params ReadOnlySpan<(string, object?)> parameters
    ) =>
        connection.Rows(
            $"SELECT id, crew_id, made FROM crew_calendar WHERE {which}",
            r => new CrewCalendar(r.GetGuid(0), r.GetGuid(1), JobStore.Moment(r.GetString(2))),
            parameters
        );

    /// <summary>Keeps the address of a calendar.</summary>
    /// <returns>Whether it is new.</returns>
    /// <exception cref="RefusedException">The crew has as many as it may have.</exception>
    public bool AddCalendar(CrewCalendar made, string tokenHash)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        if (
            connection.Rows("SELECT 1 FROM crew_calendar WHERE id = $id", r => r.GetInt32(0), ("$id", made.Id)).Count
            > 0
        )
            return false;
        if (
            Calendars(connection, "crew_id = $crew AND revoked IS NULL", ("$crew", made.Crew)).Count
            >= CrewCalendar.Most
        )
            throw RefusedException.Of("crew", $"A crew has at most {CrewCalendar.Most} addresses of its calendar.");
        connection.Run(
            "INSERT INTO crew_calendar (id, crew_id, token_hash, made) VALUES ($id, $crew, $hash, $made)",
            ("$id", made.Id),
            ("$crew", made.Crew),
            ("$hash", tokenHash),
            ("$made", JobStore.Utc(made.Made))
        );
        writing.Commit();
        return true;
    }

    /// <summary>Revokes the addresses of a crew's calendar.</summary>
    public void RevokeCalendars(Guid crew, DateTime at)
    {
        using var connection = database.Connect();
        connection.Run(
            "UPDATE crew_calendar SET revoked = $at WHERE crew_id = $crew AND revoked IS NULL",
            ("$at", JobStore.Utc(at)),
            ("$crew", crew)
        );
    }
}
