using Emendum.Core.Proposals;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>A link that is new, with the hash of what opens it.</summary>
public sealed record NewLink(Link Link, string TokenHash);

/// <summary>A link that was found, with the job that it belongs to.</summary>
public sealed record FoundLink(Link Link, Guid Job);

/// <summary>The customer's links on disk. They are written by what they belong to, <see cref="RevisionStore"/>.</summary>
public sealed class LinkStore(Database database)
{
    private const string Columns =
        "l.id, l.revision_id, l.made_for, l.signs, l.made, (SELECT at FROM proposal_fact WHERE link_id = l.id AND kind = 'LinkRevoked' LIMIT 1), l.job_id";

    /// <summary>The link that a token opens, by its hash; null where there is none. What is revoked is found like any other, by one look into one index.</summary>
    public FoundLink? Find(string tokenHash) => Rows("l.token_hash = $hash", ("$hash", tokenHash)).FirstOrDefault();

    /// <summary>The links of a job, in the order in which they were made.</summary>
    public ILookup<Guid, Link> Of(Guid job) =>
        Rows("l.job_id = $job ORDER BY l.rowid", ("$job", job)).ToLookup(l => l.Link.Revision, l => l.Link);

    private List<FoundLink> Rows(string which, params ReadOnlySpan<(string, object?)> parameters)
    {
        using var connection = database.Connect();
        return Rows(connection, which, parameters);
    }

    private static List<FoundLink> Rows(
        SqliteConnection connection,
        string which,
        params ReadOnlySpan<(string, object?)> parameters
    ) =>
        connection.Rows(
            $"SELECT {Columns} FROM link l WHERE {which}",
            r => new FoundLink(
                new(
                    r.GetGuid(0),
                    r.GetGuid(1),
                    r.GetString(2),
                    r.GetInt32(3) != 0,
                    JobStore.Moment(r.GetString(4)),
                    r.IsDBNull(5) ? null : JobStore.Moment(r.GetString(5))
                ),
                r.GetGuid(6)
            ),
            parameters
        );

    /// <summary>A link as it stands in a transaction; null where there is none of that id.</summary>
    internal static FoundLink? Find(SqliteConnection connection, Guid id) =>
        Rows(connection, "l.id = $id", ("$id", id)).FirstOrDefault();

    /// <summary>Writes one in the transaction of its fact.</summary>
    /// <exception cref="Core.RefusedException">The revision has as many as it may have.</exception>
    internal static void Write(SqliteConnection connection, Guid job, Guid fact, NewLink made)
    {
        var link = made.Link;
        if (Rows(connection, "l.revision_id = $revision", ("$revision", link.Revision)).Count >= Link.Most)
            throw Core.RefusedException.Of("for", $"A revision has at most {Link.Most} links.");
        connection.Run(
            "INSERT INTO link (id, token_hash, job_id, revision_id, fact_id, made_for, signs, made) VALUES ($id, $hash, $job, $revision, $fact, $for, $signs, $made)",
            ("$id", link.Id),
            ("$hash", made.TokenHash),
            ("$job", job),
            ("$revision", link.Revision),
            ("$fact", fact),
            ("$for", link.For),
            ("$signs", link.Signs ? 1 : 0),
            ("$made", JobStore.Utc(link.Made))
        );
    }
}
