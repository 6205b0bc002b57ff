using System.Collections.Immutable;
using System.IO.Compression;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Work;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>A row of the list of jobs.</summary>
public sealed record JobRow(
    Guid Id,
    string Number,
    string Name,
    string Customer,
    string Created,
    string Changed,
    string Summary
);

/// <summary>One entry of a job's log.</summary>
/// <param name="Version">The job's version after it.</param>
/// <param name="Command">Id of the command.</param>
/// <param name="Name">What the command is called; <c>undo</c> and <c>redo</c> reverse another entry.</param>
/// <param name="Person">Who.</param>
/// <param name="At">When, UTC.</param>
/// <param name="Reverses">The version it takes back.</param>
/// <param name="Changes">What it changed.</param>
/// <param name="Answer">The answer that was given.</param>
public sealed record LogEntry(
    long Version,
    Guid Command,
    string Name,
    string Person,
    string At,
    long? Reverses,
    ImmutableArray<Change> Changes,
    string Answer
);

/// <summary>Jobs on disk: a snapshot and the change sets after it (architecture decision 5).</summary>
public sealed class JobStore(Database database)
{
    /// <summary>Log entries after which a new snapshot is written, so that opening stays quick.</summary>
    public const int EntriesBetweenSnapshots = 400;

    /// <summary>All jobs, newest change first.</summary>
    public List<JobRow> List()
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT id, number, name, customer, created, changed, summary FROM job ORDER BY changed DESC, id",
            r => new JobRow(
                r.GetGuid(0),
                r.GetString(1),
                r.GetString(2),
                r.GetString(3),
                r.GetString(4),
                r.GetString(5),
                r.GetString(6)
            )
        );
    }

    /// <summary>Whether the job is there.</summary>
    public bool Has(Guid id)
    {
        using var connection = database.Connect();
        return connection.Rows("SELECT 1 FROM job WHERE id = $id", _ => true, ("$id", id)).Count > 0;
    }

    /// <summary>Keeps a new job.</summary>
    public void Create(Job job, string summary, DateTime now)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        connection.Run(
            "INSERT INTO job VALUES ($id, $number, $name, $customer, (SELECT id FROM customer WHERE id = $customerId), $at, $at, $summary)",
            ("$id", job.Id),
            ("$number", job.Info.Number),
            ("$name", job.Info.Name),
            ("$customer", job.Info.Customer),
            ("$customerId", job.Info.CustomerId),
            ("$at", Utc(now)),
            ("$summary", summary)
        );
        Snapshot(connection, job, 0);
        foreach (var entry in job.Book.Keys)
            Pin(connection, job.Id, entry.ToString());
        transaction.Commit();
    }

    /// <summary>The job as it stands, with its whole log; null when it is not there.</summary>
    public (Job Job, List<LogEntry> Log)? Open(Guid id)
    {
        using var connection = database.Connect();
        var snapshots = connection.Rows(
            "SELECT version, content FROM job_snapshot WHERE job_id = $id ORDER BY version DESC LIMIT 1",
            r => (Version: r.GetInt64(0), Content: (byte[])r[1]),
            ("$id", id)
        );
        if (snapshots.Count == 0)
            return null;
        var upgrade = new JobUpgrade.Log();
        var log = connection.Rows(
            "SELECT version, command_id, name, person, at, reverses, change_set, answer, schema FROM job_log WHERE job_id = $id ORDER BY version",
            r => new LogEntry(
                r.GetInt64(0),
                r.GetGuid(1),
                r.GetString(2),
                r.GetString(3),
                r.GetString(4),
                r.IsDBNull(5) ? null : r.GetInt64(5),
                Whole(r.GetInt64(0), () => upgrade.Changes(Changes(r.GetString(6)), r.GetInt32(8))),
                r.GetString(7)
            ),
            ("$id", id)
        );
        for (var i = 0; i < log.Count; i++)
            if (log[i].Version != i + 1)
                throw Hurt(i + 1, "is missing");
        if (snapshots[0].Version > log.Count)
            throw Hurt(snapshots[0].Version, "is missing");
        var job = upgrade.Completed(JobFile.Read(snapshots[0].Content));
        foreach (var entry in log.Where(e => e.Version > snapshots[0].Version))
            job = Whole(entry.Version, () => ChangeSet.Apply(job, entry.Changes));
        return (job, log);
    }

    /// <summary>Does something with an entry of the log, and says which it is where that cannot be done.</summary>
    private static T Whole<T>(long version, Func<T> read)
    {
        try
        {
            return read();
        }
        catch (Exception wrong)
            when (wrong
                    is JsonException
                        or FormatException
                        or InvalidOperationException
                        or NotSupportedException
                        or ArgumentException
                        or IOException
                        or InvalidDataException
                        or RefusedException
            )
        {
            throw Hurt(version, "cannot be read");
        }
    }

    private static RefusedException Hurt(long version, string how) =>
        RefusedException.Of(
            "job",
            $"The log of this job is damaged: edit {version} {how}. The other jobs are not touched by that; this one can be had back from a backup (emendum restore FILE)."
        );

    /// <summary>Puts one edit on disk: its log entry and what the list shows. Returns when it is durable.</summary>
    public void Commit(Job job, LogEntry entry, string summary)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        connection.Run(
            "INSERT INTO job_log VALUES ($job, $version, $command, $name, $person, $at, $reverses, $changes, $answer, $schema)",
            ("$job", job.Id),
            ("$version", entry.Version),
            ("$command", entry.Command),
            ("$name", entry.Name),
            ("$person", entry.Person),
            ("$at", entry.At),
            ("$reverses", entry.Reverses),
            ("$changes", Written(entry.Changes)),
            ("$answer", entry.Answer),
            ("$schema", JobFile.CurrentVersion)
        );
        connection.Run(
            "UPDATE job SET name = $name, customer = $customer, changed = $at, summary = $summary WHERE id = $job",
            ("$name", job.Info.Name),
            ("$customer", job.Info.Customer),
            ("$at", entry.At),
            ("$summary", summary),
            ("$job", job.Id)
        );
        foreach (
            var change in entry.Changes.Where(c =>
                c.After is not null && c.Path.StartsWith("book/", StringComparison.Ordinal)
            )
        )
            Pin(connection, job.Id, change.Path[5..]);
        if (entry.Version % EntriesBetweenSnapshots == 0)
            Snapshot(connection, job, entry.Version);
        transaction.Commit();
    }

    /// <summary>Change sets longer than this many bytes are kept compressed: a fill of a whole grid says the same of every cell.</summary>
    private const int MostPlain = 50_000;

    /// <summary>Start of a compressed change set: gzip in base64.</summary>
    private const string Packed = "gzip ";

    private static string Written(ImmutableArray<Change> changes)
    {
        var json = JsonSerializer.SerializeToUtf8Bytes(changes, CoreJson.Options);
        if (json.Length <= MostPlain)
            return System.Text.Encoding.UTF8.GetString(json);
        using var packed = new MemoryStream();
        using (var zip = new GZipStream(packed, CompressionLevel.Fastest))
            zip.Write(json);
        return Packed + Convert.ToBase64String(packed.ToArray());
    }

    private static ImmutableArray<Change> Changes(string stored)
    {
        if (!stored.StartsWith(Packed, StringComparison.Ordinal))
            return JsonSerializer.Deserialize<ImmutableArray<Change>>(stored, CoreJson.Options);
        using var zip = new GZipStream(
            new MemoryStream(Convert.FromBase64String(stored[Packed.Length..])),
            CompressionMode.Decompress
        );
        return JsonSerializer.Deserialize<ImmutableArray<Change>>(zip, CoreJson.Options);
    }

    /// <summary>A time as it is stored.</summary>
    public static string Utc(DateTime time) =>
        time.ToUniversalTime()
            .ToString("yyyy-MM-dd'T'HH:mm:ss.fff'Z'", System.Globalization.CultureInfo.InvariantCulture);

    private static void Pin(SqliteConnection connection, Guid job, string entry) =>
        connection.Run("INSERT OR IGNORE INTO job_pin VALUES ($job, $entry)", ("$job", job), ("$entry", entry));

    private static void Snapshot(SqliteConnection connection, Job job, long version) =>
        connection.Run(
            "INSERT INTO job_snapshot VALUES ($job, $version, $schema, $content)",
            ("$job", job.Id),
            ("$version", version),
            ("$schema", JobFile.CurrentVersion),
            ("$content", JobFile.Write(job, indented: false))
        );
}
