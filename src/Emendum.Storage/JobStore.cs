using System.Collections.Immutable;
using System.IO.Compression;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>A row of the list of jobs; without a glance where nobody has looked at it since an older version kept it.</summary>
public sealed record JobRow(
    Guid Id,
    string Number,
    string Name,
    string Customer,
    string Created,
    string Changed,
    JobGlance? Glance
);

/// <summary>One entry of a job's log.</summary>
/// <param name="Version">The job's version after it.</param>
/// <param name="Command">Id of the command.</param>
/// <param name="Hash">SHA-256 of the command; null for one from before there were any.</param>
/// <param name="Name">What the command is called; <c>undo</c> and <c>redo</c> reverse another entry.</param>
/// <param name="By">Who, and in which window.</param>
/// <param name="At">When, UTC.</param>
/// <param name="Reverses">The version it takes back.</param>
/// <param name="Changes">What it changed.</param>
public sealed record LogEntry(
    long Version,
    Guid Command,
    byte[]? Hash,
    string Name,
    Author By,
    string At,
    long? Reverses,
    ImmutableArray<Change> Changes
);

/// <summary>A job as it was opened: as it stands, how many edits there are, and what can be taken back.</summary>
public sealed record OpenedJob(Job Job, long Version, History History)
{
    /// <summary>The customer, where an older version kept name and address in the job.</summary>
    public Party? Party { get; init; }
}

/// <summary>Jobs on disk: a snapshot and the change sets after it (architecture decision 5).</summary>
public sealed class JobStore(Database database)
{
    /// <summary>Log entries after which a new snapshot is written, so that opening stays quick.</summary>
    public const int EntriesBetweenSnapshots = 400;

    /// <summary>All jobs, newest change first. One whose id cannot be read is left out, and named by <see cref="Unread"/>.</summary>
    public List<JobRow> List() => [.. Rows().Select(r => r.Row).OfType<JobRow>()];

    /// <summary>Names of the jobs that stand in the database and cannot be asked for.</summary>
    public List<string> Unread() => [.. Rows().Where(r => r.Row is null).Select(r => r.Name)];

    /// <summary>The jobs of a customer, the newest change first; one whose id cannot be read is left out.</summary>
    public List<Guid> OfCustomer(Guid customer)
    {
        using var connection = database.Connect();
        return
        [
            .. connection
                .Rows(
                    "SELECT id FROM job WHERE customer_id = $customer ORDER BY changed DESC, id",
                    r => Guid.TryParse(r.GetString(0), out var id) ? id : (Guid?)null,
                    ("$customer", customer)
                )
                .OfType<Guid>(),
        ];
    }

    /// <summary>Number and name of a job.</summary>
    public string NameOf(Guid id)
    {
        using var connection = database.Connect();
        return connection
                .Rows(
                    "SELECT number, name FROM job WHERE id = $id",
                    r => $"{r.GetString(0)} {r.GetString(1)}".Trim(),
                    ("$id", id)
                )
                .FirstOrDefault()
            ?? "";
    }

    private List<(string Name, JobRow? Row)> Rows()
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT j.id, j.number, j.name, coalesce(c.name, ''), j.created, j.changed, j.glance FROM job j LEFT JOIN customer c ON c.id = j.customer_id ORDER BY j.changed DESC, j.id",
            r =>
                (
                    r.GetString(2),
                    Guid.TryParse(r.GetString(0), out var id)
                        ? new JobRow(
                            id,
                            r.GetString(1),
                            r.GetString(2),
                            r.GetString(3),
                            r.GetString(4),
                            r.GetString(5),
                            r.GetString(6) is { Length: > 0 } glance
                                ? JsonSerializer.Deserialize<JobGlance>(glance, CoreJson.Options)
                                : null
                        )
                        : null
                )
        );
    }

    /// <summary>Keeps what the list says of a job of which it said nothing; where an edit has said it meanwhile, that stands.</summary>
    public void Keep(Guid id, JobGlance glance)
    {
        using var connection = database.Connect();
        connection.Run(
            "UPDATE job SET glance = $glance WHERE id = $id AND glance = ''",
            ("$glance", JsonSerializer.Serialize(glance, CoreJson.Options)),
            ("$id", id)
        );
    }

    /// <summary>Whether the job is there.</summary>
    public bool Has(Guid id)
    {
        using var connection = database.Connect();
        return connection.Rows("SELECT 1 FROM job WHERE id = $id", _ => true, ("$id", id)).Count > 0;
    }

    /// <summary>Keeps a new job; false where one with its id is there, of several that come at once all but the first.</summary>
    public bool Create(Job job, JobGlance glance, DateTime now)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var taken = connection.Run(
            "INSERT OR IGNORE INTO job (id, number, name, customer_id, created, changed, glance) VALUES ($id, $number, $name, (SELECT id FROM customer WHERE id = $customer), $at, $at, $glance)",
            ("$id", job.Id),
            ("$number", job.Info.Number),
            ("$name", job.Info.Name),
            ("$customer", job.Info.Customer),
            ("$at", Utc(now)),
            ("$glance", JsonSerializer.Serialize(glance, CoreJson.Options))
        );
        if (taken == 0)
            return false;
        Snapshot(connection, job, 0);
        foreach (var entry in job.Book.Keys)
            Pin(connection, job.Id, entry.ToString());
        ScheduleStore.Keep(connection, job);
        writing.Commit();
        return true;
    }

    /// <summary>The job as it stands; null when it is not there. Of its log, changes are read from the newest snapshot on, and of what lies before only what was done.</summary>
    /// <exception cref="RefusedException">Its log is damaged; says where.</exception>
    public OpenedJob? Open(Guid id)
    {
        using var connection = database.Connect();
        var snapshots = connection.Rows(
            "SELECT version, content FROM job_snapshot WHERE job_id = $id ORDER BY version DESC LIMIT 1",
            r => (Version: r.GetInt64(0), Content: (byte[])r[1]),
            ("$id", id)
        );
        if (snapshots.Count == 0)
            return Has(id)
                ? throw RefusedException.Of("job", $"This job is damaged: it has no content any more. {Others}")
                : null;
        var (history, version) = (History.Empty, 0L);
        foreach (
            var (at, name, by, reverses, changed) in connection.Rows(
                "SELECT version, name, person, client, reverses, change_set <> '[]' FROM job_log WHERE job_id = $id ORDER BY version",
                r =>
                    (
                        r.GetInt64(0),
                        r.GetString(1),
                        // From before windows were told apart: they were all one.
                        new Author(r.GetString(2), r.IsDBNull(3) ? Guid.Empty : r.GetGuid(3)),
                        r.IsDBNull(4) ? (long?)null : r.GetInt64(4),
                        r.GetBoolean(5)
                    ),
                ("$id", id)
            )
        )
        {
            if (at != ++version)
                throw Hurt(version, "is missing");
            history = Whole(at, () => history.With(at, name, by, reverses, changed));
        }
        var (from, content) = snapshots[0];
        if (from > version)
            throw Hurt(version + 1, "is missing");
        var upgrade = new JobUpgrade.Log();
        var after = Entries(connection, id, "version > $from", upgrade, ("$from", from));
        var party = default(Party);
        var job = Content(
            from,
            () =>
                JobFile.Read(content, out party) is var read && read.Id == id
                    ? upgrade.Completed(read)
                    : throw RefusedException.Of("job", "It is that of another job.")
        );
        foreach (var (at, changes) in after)
            job = Whole(at, () => ChangeSet.Apply(job, changes));
        return new(job, version, history) { Party = upgrade.Changed(party) };
    }

    /// <summary>Older versions kept the customer's name and address in each job. They become a customer of the list, where it says something else or nothing yet, and the job gets the id.
    /// Stopped on the way, it goes on at the next start.</summary>
    public void MoveCustomers()
    {
        List<Guid> older;
        using (var connection = database.Connect())
            older = connection.Rows(
                "SELECT id FROM job j WHERE (SELECT schema_version FROM job_snapshot WHERE job_id = j.id ORDER BY version DESC LIMIT 1) < 6",
                r => Guid.TryParse(r.GetString(0), out var id) ? id : default
            );
        foreach (var id in older)
        {
            try
            {
                if (Open(id) is { } opened)
                    MoveCustomer(opened);
            }
            catch (RefusedException)
            {
                // It is damaged, which is said where jobs are opened.
            }
        }
    }

    private void MoveCustomer(OpenedJob opened)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        Guid? customer = opened.Party is { } party ? CustomerStore.IdOf(connection, party) : null;
        var job = opened.Job with { Info = opened.Job.Info with { Customer = customer } };
        Snapshot(connection, job, opened.Version);
        connection.Run(
            "UPDATE job SET customer_id = $customer WHERE id = $job",
            ("$customer", customer),
            ("$job", job.Id)
        );
        writing.Commit();
    }

    /// <summary>Reads a job with every entry of its log; gives their number.</summary>
    /// <exception cref="RefusedException">Something of it is damaged; says where.</exception>
    public int Prove(Guid id)
    {
        Open(id);
        using var connection = database.Connect();
        return Entries(connection, id, "true", new()).Count;
    }

    /// <summary>What takes an entry back, in a job as it stands.</summary>
    public ImmutableArray<Change> Reverse(Job job, long version)
    {
        using var connection = database.Connect();
        var upgrade = new JobUpgrade.Log();
        var entry = Entries(connection, job.Id, "version = $version", upgrade, ("$version", version));
        if (entry.Count == 0)
            throw Hurt(version, "is missing");
        // An entry of an older version names sections that the job may have no more.
        return [.. upgrade.Missing(job), .. ChangeSet.Reversed(entry[0].Changes)];
    }

    private static List<(long Version, ImmutableArray<Change> Changes)> Entries(
        SqliteConnection connection,
        Guid id,
        string which,
        JobUpgrade.Log upgrade,
        params ReadOnlySpan<(string Name, object? Value)> parameters
    ) =>
        connection.Rows(
            $"SELECT version, change_set, schema FROM job_log WHERE job_id = $id AND {which} ORDER BY version",
            r => (r.GetInt64(0), Whole(r.GetInt64(0), () => upgrade.Changes(Changes(r.GetString(1)), r.GetInt32(2)))),
            [("$id", id), .. parameters]
        );

    /// <summary>The entry that a command has made, if it has: its version, and the hash of the command.</summary>
    public (long Version, byte[]? Hash)? Find(Guid job, Guid command)
    {
        using var connection = database.Connect();
        var found = connection.Rows(
            "SELECT version, command_hash FROM job_log WHERE job_id = $job AND command_id = $command",
            r => (r.GetInt64(0), r.IsDBNull(1) ? null : (byte[])r[1]),
            ("$job", job),
            ("$command", command)
        );
        return found.Count == 0 ? null : found[0];
    }

    /// <summary>Who has last changed what stands at a path, and in which window; null where that cannot be told.</summary>
    public Author? LastToChange(Guid job, string path)
    {
        using var connection = database.Connect();
        var found = connection.Rows(
            "SELECT person, client FROM job_log WHERE job_id = $job AND instr(change_set, $path) > 0 ORDER BY version DESC LIMIT 1",
            r => new Author(r.GetString(0), r.IsDBNull(1) ? Guid.Empty : r.GetGuid(1)),
            ("$job", job),
            ("$path", $"\"path\":\"{path}\"")
        );
        return found.Count == 0 ? null : found[0];
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
        RefusedException.Of("job", $"The log of this job is damaged: edit {version} {how}. {Others}");

    private const string Others =
        "The other jobs are not touched by that; this one can be had back from a backup (emendum restore FILE).";

    /// <summary>Reads what a job was at a version, and says so where that cannot be done.</summary>
    private static Job Content(long version, Func<Job> read)
    {
        try
        {
            return read();
        }
        catch (RefusedException wrong)
        {
            throw RefusedException.Of(
                "job",
                $"This job is damaged: what it was at edit {version} cannot be read. {wrong.Refusal.Message} {Others}"
            );
        }
    }

    /// <summary>Puts edits of one job on disk, all or none: their entries in the log, and what the list shows once they are made. Returns when they are durable.</summary>
    /// <param name="edits">At least one, each with the job as it left it.</param>
    /// <param name="glance">What the list says of the job now.</param>
    public void Commit(IReadOnlyList<(Job Job, LogEntry Entry)> edits, JobGlance glance)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        foreach (var (job, entry) in edits)
            Append(connection, job, entry);
        if (edits.Any(e => e.Entry.Changes.Any(c => c.Path.StartsWith("tasks/", StringComparison.Ordinal))))
            ScheduleStore.Keep(connection, edits[^1].Job);
        var (last, at) = (edits[^1].Job, edits[^1].Entry.At);
        connection.Run(
            "UPDATE job SET name = $name, customer_id = (SELECT id FROM customer WHERE id = $customer), changed = $at, glance = $glance WHERE id = $job",
            ("$name", last.Info.Name),
            ("$customer", last.Info.Customer),
            ("$at", at),
            ("$glance", JsonSerializer.Serialize(glance, CoreJson.Options)),
            ("$job", last.Id)
        );
        writing.Commit();
    }

    private static void Append(SqliteConnection connection, Job job, LogEntry entry)
    {
        connection.Run(
            "INSERT INTO job_log (job_id, version, command_id, command_hash, name, person, client, at, reverses, change_set, schema) VALUES ($job, $version, $command, $hash, $name, $person, $client, $at, $reverses, $changes, $schema)",
            ("$job", job.Id),
            ("$version", entry.Version),
            ("$command", entry.Command),
            ("$hash", entry.Hash),
            ("$name", entry.Name),
            ("$person", entry.By.Person),
            ("$client", entry.By.Client),
            ("$at", entry.At),
            ("$reverses", entry.Reverses),
            ("$changes", Written(entry.Changes)),
            ("$schema", JobFile.CurrentVersion)
        );
        foreach (
            var change in entry.Changes.Where(c =>
                c.After is not null && c.Path.StartsWith("book/", StringComparison.Ordinal)
            )
        )
            Pin(connection, job.Id, change.Path[5..]);
        if (entry.Version % EntriesBetweenSnapshots == 0)
            Snapshot(connection, job, entry.Version);
    }

    /// <summary>Change sets longer than this many bytes are kept compressed: a fill of a whole grid says the same of every cell.</summary>
    private const int MostPlain = 50_000;

    /// <summary>Start of a compressed change set: gzip in base64.</summary>
    private const string Zipped = "gzip ";

    private static string Written(ImmutableArray<Change> changes)
    {
        var json = JsonSerializer.SerializeToUtf8Bytes(changes, CoreJson.Options);
        if (json.Length <= MostPlain)
            return System.Text.Encoding.UTF8.GetString(json);
        return Zipped + Convert.ToBase64String(Packed.Of(json, CompressionLevel.Fastest));
    }

    private static ImmutableArray<Change> Changes(string stored)
    {
        return stored.StartsWith(Zipped, StringComparison.Ordinal)
            ? JsonSerializer.Deserialize<ImmutableArray<Change>>(
                Packed.Read(Convert.FromBase64String(stored[Zipped.Length..])),
                CoreJson.Options
            )
            : JsonSerializer.Deserialize<ImmutableArray<Change>>(stored, CoreJson.Options);
    }

    /// <summary>A time as it is stored.</summary>
    public static string Utc(DateTime time) =>
        time.ToUniversalTime()
            .ToString("yyyy-MM-dd'T'HH:mm:ss.fff'Z'", System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>A time (UTC) as it was stored.</summary>
    public static DateTime Moment(string stored) =>
        DateTime.Parse(
            stored,
            System.Globalization.CultureInfo.InvariantCulture,
            System.Globalization.DateTimeStyles.RoundtripKind
        );

    private static void Pin(SqliteConnection connection, Guid job, string entry) =>
        connection.Run("INSERT OR IGNORE INTO job_pin VALUES ($job, $entry)", ("$job", job), ("$entry", entry));

    private static void Snapshot(SqliteConnection connection, Job job, long version) =>
        connection.Run(
            "INSERT OR REPLACE INTO job_snapshot VALUES ($job, $version, $schema, $content)",
            ("$job", job.Id),
            ("$version", version),
            ("$schema", JobFile.CurrentVersion),
            ("$content", JobFile.Write(job, indented: false))
        );
}
