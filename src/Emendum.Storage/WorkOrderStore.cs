using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Json;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>A crew's link that is new, with the hash of what opens it.</summary>
public sealed record NewCrewLink(CrewLink Link, string TokenHash);

/// <summary>A crew's link that was found, with its job.</summary>
public sealed record FoundCrewLink(CrewLink Link, Guid Job);

/// <summary>A work order that is kept, and what was agreed in money.</summary>
public sealed record KeptOrder(WorkOrder Order, AgreedMoney Money);

/// <summary>Work orders and the crews' links to them, on disk.</summary>
public sealed class WorkOrderStore(Database database)
{
    /// <summary>The work order of a job by the fact of its acceptance, with what was agreed in money; null where none was made yet.</summary>
    public KeptOrder? Find(Guid job, Guid acceptance)
    {
        using var connection = database.Connect();
        return connection
            .Rows(
                "SELECT content, money FROM work_order WHERE job_id = $job AND fact_id = $fact",
                r => new KeptOrder(
                    JsonSerializer.Deserialize<WorkOrder>(Packed.Read((byte[])r[0]), CoreJson.Options)!,
                    JsonSerializer.Deserialize<AgreedMoney>(r.GetString(1), CoreJson.Options)!
                ),
                ("$job", job),
                ("$fact", acceptance)
            )
            .FirstOrDefault();
    }

    /// <summary>Keeps one; the first that is kept for an acceptance stays.</summary>
    /// <param name="job">The job.</param>
    /// <param name="acceptance">The fact of its acceptance.</param>
    /// <param name="order">The work order, and what was agreed in money.</param>
    /// <param name="agreed">The job as it was agreed, as a job file.</param>
    /// <param name="rules">The version of the rules by which it was made.</param>
    /// <param name="made">When (UTC).</param>
    public void Keep(Guid job, Guid acceptance, KeptOrder order, byte[] agreed, int rules, DateTime made)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO work_order (fact_id, job_id, rules, made, content, money, job) VALUES ($fact, $job, $rules, $made, $content, $money, $file) ON CONFLICT DO NOTHING",
            ("$fact", acceptance),
            ("$job", job),
            ("$rules", rules),
            ("$made", JobStore.Utc(made)),
            ("$content", Packed.Of(JsonSerializer.SerializeToUtf8Bytes(order.Order, CoreJson.Options))),
            ("$money", JsonSerializer.Serialize(order.Money, CoreJson.Options)),
            ("$file", Packed.Of(agreed))
        );
    }

    private const string LinkColumns =
        "l.id, l.made_for, l.sections, l.made, (SELECT at FROM crew_link_revoked WHERE link_id = l.id), l.job_id";

    /// <summary>The link that a token opens, by its hash; null where there is none. What is revoked is found like any other.</summary>
    public FoundCrewLink? FindLink(string tokenHash)
    {
        using var connection = database.Connect();
        return LinkRows(connection, "l.token_hash = $hash", ("$hash", tokenHash)).FirstOrDefault();
    }

    /// <summary>The links of a job, in the order in which they were made.</summary>
    public ImmutableArray<CrewLink> Links(Guid job)
    {
        using var connection = database.Connect();
        return [.. LinkRows(connection, "l.job_id = $job ORDER BY l.rowid", ("$job", job)).Select(l => l.Link)];
    }

    private static List<FoundCrewLink> LinkRows(
        SqliteConnection connection,
        string which,
        params ReadOnlySpan<(string, object?)> parameters
    ) =>
        connection.Rows(
            $"SELECT {LinkColumns} FROM crew_link l WHERE {which}",
            r => new FoundCrewLink(
                new(
                    r.GetGuid(0),
                    r.GetString(1),
                    JsonSerializer.Deserialize<ImmutableArray<string>>(r.GetString(2), CoreJson.Options),
                    JobStore.Moment(r.GetString(3)),
                    r.IsDBNull(4) ? null : JobStore.Moment(r.GetString(4))
                ),
                r.GetGuid(5)
            ),
            parameters
        );

    /// <summary>A link of a job as it stands in a transaction; null where there is none of that id, or it was revoked.</summary>
    internal static CrewLink? OpenLink(SqliteConnection connection, Guid job, Guid id) =>
        LinkRows(connection, "l.id = $id AND l.job_id = $job", ("$id", id), ("$job", job)).FirstOrDefault()?.Link
            is { Revoked: null } open
            ? open
            : null;

    /// <summary>Keeps a link.</summary>
    /// <returns>Whether it is new; the same id again changes nothing, and what opens it is known to nobody any more.</returns>
    /// <exception cref="RefusedException">The job has as many as it may have.</exception>
    public bool Add(Guid job, NewCrewLink made)
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        var there = LinkRows(connection, "l.job_id = $job", ("$job", job));
        if (there.Exists(l => l.Link.Id == made.Link.Id))
            return false;
        if (there.Count >= CrewLink.Most)
            throw RefusedException.Of("for", $"A job has at most {CrewLink.Most} links of crews.");
        connection.Run(
            "INSERT INTO crew_link (id, token_hash, job_id, made_for, sections, made) VALUES ($id, $hash, $job, $for, $sections, $made)",
            ("$id", made.Link.Id),
            ("$hash", made.TokenHash),
            ("$job", job),
            ("$for", made.Link.For),
            ("$sections", JsonSerializer.Serialize(made.Link.Sections, CoreJson.Options)),
            ("$made", JobStore.Utc(made.Link.Made))
        );
        writing.Commit();
        return true;
    }

    /// <summary>Revokes a link; one that was revoked stays so.</summary>
    public void Revoke(Guid job, Guid link, DateTime at)
    {
        using var writing = database.Writes();
        if (OpenLink(writing.Connection, job, link) is null)
            return;
        writing.Connection.Run(
            "INSERT INTO crew_link_revoked VALUES ($link, $at)",
            ("$link", link),
            ("$at", JobStore.Utc(at))
        );
        writing.Commit();
    }
}
