using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Json;
using Emendum.Core.Proposals;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>What became of a sending that was set for later.</summary>
public enum ScheduledOutcome
{
    /// <summary>It went out.</summary>
    Went,

    /// <summary>The firm cancelled it.</summary>
    Cancelled,

    /// <summary>It could not go out any more; its words say why.</summary>
    Dropped,
}

/// <summary>What goes out later, whole.</summary>
/// <param name="Revision">The revision, frozen.</param>
/// <param name="Message">The mail that brings it, with its figures filled in.</param>
/// <param name="Sender">Address of the firm.</param>
/// <param name="Words">Why it goes out though something is unfinished; empty where nothing is.</param>
public sealed record ScheduledSending(Revision Revision, Message Message, string Sender, string Words)
{
    /// <summary>The further estimates that go out with it, frozen likewise.</summary>
    public ImmutableArray<Revision> Further { get; init; } = [];
}

/// <summary>A sending that waits, as it was set.</summary>
/// <param name="Of">Which it is, and when it goes.</param>
/// <param name="Job">The job.</param>
/// <param name="Fact">Id of the fact that its sending will be.</param>
/// <param name="By">Who set it.</param>
public sealed record ScheduledRow(Scheduled Of, Guid Job, Guid Fact, string By);

/// <summary>Sendings that were set for later, on disk (L5).</summary>
public sealed class ScheduledStore(Database database)
{
    /// <summary>Keeps one that is to go out, if one could be sent as the proposal stands in this very transaction. The same id again changes nothing.</summary>
    /// <param name="row">It.</param>
    /// <param name="content">All of it.</param>
    /// <param name="made">When it was set (UTC).</param>
    /// <exception cref="RefusedException">It cannot be; says why.</exception>
    public void Set(ScheduledRow row, ScheduledSending content, DateTime made)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        if (Has(connection, row.Of.Id))
            return;
        RevisionStore.Life(connection, row.Job).Scheduling(row.Of);
        connection.Run(
            "INSERT INTO scheduled (id, job_id, fact_id, revision_number, made, by, goes, content) VALUES ($id, $job, $fact, $number, $made, $by, $goes, $content)",
            ("$id", row.Of.Id),
            ("$job", row.Job),
            ("$fact", row.Fact),
            ("$number", row.Of.Number),
            ("$made", JobStore.Utc(made)),
            ("$by", row.By),
            ("$goes", JobStore.Utc(row.Of.Goes)),
            ("$content", Packed.Of(JsonSerializer.SerializeToUtf8Bytes(content, CoreJson.Options)))
        );
        writing.Commit();
    }

    /// <summary>Whether one was set under that id.</summary>
    public bool Has(Guid id)
    {
        using var connection = database.Connect();
        return Has(connection, id);
    }

    private static bool Has(SqliteConnection connection, Guid id) =>
        connection.Rows("SELECT 1 FROM scheduled WHERE id = $id", r => r.GetInt32(0), ("$id", id)).Count > 0;

    /// <summary>What goes out with one that waits; null where it waits no more.</summary>
    public ScheduledSending? Content(Guid id)
    {
        using var connection = database.Connect();
        return connection
            .Rows(
                "SELECT content FROM scheduled WHERE id = $id AND ended IS NULL",
                r => JsonSerializer.Deserialize<ScheduledSending>(Packed.Read((byte[])r[0]), CoreJson.Options)!,
                ("$id", id)
            )
            .FirstOrDefault();
    }

    /// <summary>Those whose time has come, in its order.</summary>
    /// <param name="now">UTC.</param>
    public List<ScheduledRow> Due(DateTime now)
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT id, revision_number, goes, job_id, fact_id, by FROM scheduled WHERE ended IS NULL AND goes <= $now ORDER BY goes, number",
            r => new ScheduledRow(Read(r), r.GetGuid(3), r.GetGuid(4), r.GetString(5)),
            ("$now", JobStore.Utc(now))
        );
    }

    /// <summary>Why the last one of a job did not go out, where nothing was set or sent since; empty otherwise.</summary>
    public string Dropped(Guid job)
    {
        using var connection = database.Connect();
        return connection
                .Rows(
                    """
                    SELECT s.words FROM scheduled s
                    WHERE s.job_id = $job AND s.number = (SELECT max(number) FROM scheduled WHERE job_id = $job) AND s.outcome = 'Dropped'
                        AND NOT EXISTS (SELECT 1 FROM proposal_fact f WHERE f.job_id = $job AND f.kind = 'Sent' AND f.at > s.ended)
                    """,
                    r => r.GetString(0),
                    ("$job", job)
                )
                .FirstOrDefault()
            ?? "";
    }

    /// <summary>Says that one does not go out any more. What has ended stays as it is.</summary>
    /// <param name="job">The job.</param>
    /// <param name="id">Its id.</param>
    /// <param name="outcome">What became of it.</param>
    /// <param name="words">Why.</param>
    /// <param name="at">When (UTC).</param>
    /// <returns>Whether it waited until now.</returns>
    public bool Ends(Guid job, Guid id, ScheduledOutcome outcome, string words, DateTime at)
    {
        using var connection = database.Connect();
        return Ends(connection, job, id, outcome, words, at);
    }

    internal static bool Ends(
        SqliteConnection connection,
        Guid job,
        Guid id,
        ScheduledOutcome outcome,
        string words,
        DateTime at
    ) =>
        connection.Run(
            "UPDATE scheduled SET ended = $at, outcome = $outcome, words = $words, content = NULL WHERE id = $id AND job_id = $job AND ended IS NULL",
            ("$at", JobStore.Utc(at)),
            ("$outcome", outcome.ToString()),
            ("$words", words),
            ("$id", id),
            ("$job", job)
        ) > 0;

    /// <summary>The one of a job that waits; null for none.</summary>
    internal static Scheduled? Waiting(SqliteConnection connection, Guid job) =>
        connection
            .Rows(
                "SELECT id, revision_number, goes FROM scheduled WHERE job_id = $job AND ended IS NULL",
                Read,
                ("$job", job)
            )
            .FirstOrDefault();

    private static Scheduled Read(SqliteDataReader r) =>
        new(r.GetGuid(0), r.GetInt32(1), JobStore.Moment(r.GetString(2)));
}
