using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Json;
using Emendum.Core.Proposals;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>What was agreed, on disk. It is written by the fact that it belongs to, <see cref="RevisionStore"/>; names are added here.</summary>
public sealed class AcceptanceStore(Database database)
{
    /// <summary>The acceptances of a job's revisions, by their facts; annulled ones are among them.</summary>
    public Dictionary<Guid, Acceptance> Of(Guid job)
    {
        using var connection = database.Connect();
        return Rows(connection, "job_id = $id", job).ToDictionary(a => a.Fact);
    }

    /// <summary>An acceptance; null where there is none of that fact.</summary>
    public Acceptance? Find(Guid fact)
    {
        using var connection = database.Connect();
        return Rows(connection, "fact_id = $id", fact).FirstOrDefault();
    }

    private static List<Acceptance> Rows(SqliteConnection connection, string which, Guid id)
    {
        var names = connection
            .Rows(
                $"SELECT fact_id, id, by_firm, name, drawn, at FROM signature WHERE fact_id IN (SELECT fact_id FROM acceptance WHERE {which}) ORDER BY number",
                r =>
                    (
                        Fact: r.GetGuid(0),
                        Name: new Signed(
                            r.GetGuid(1),
                            r.GetInt32(2) != 0,
                            r.GetString(3),
                            r.GetString(4),
                            JobStore.Moment(r.GetString(5))
                        )
                    ),
                ("$id", id)
            )
            .ToLookup(n => n.Fact, n => n.Name);
        return connection.Rows(
            $"SELECT fact_id, revision_id, statement FROM acceptance WHERE {which}",
            r => new Acceptance(
                r.GetGuid(0),
                r.GetGuid(1),
                JsonSerializer.Deserialize<Statement>(r.GetString(2), CoreJson.Options)!,
                [.. names[r.GetGuid(0)]]
            ),
            ("$id", id)
        );
    }

    /// <summary>Adds a name (L16, L21): it changes nothing in what was agreed. The same id again changes nothing.</summary>
    /// <exception cref="RefusedException">There are as many as there can be.</exception>
    public Acceptance Sign(Guid fact, Signed name)
    {
        name.Check();
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        var there = Rows(connection, "fact_id = $id", fact).Single();
        if (there.Names.Any(n => n.Id == name.Id))
            return there;
        if (there.Names.Length >= Signed.Most)
            throw RefusedException.Of("name", $"At most {Signed.Most} names stand under it.");
        Write(connection, fact, name);
        transaction.Commit();
        return there with { Names = there.Names.Add(name) };
    }

    /// <summary>Hash of the signed PDF with so many names; null where it was not made yet.</summary>
    public string? Pdf(Guid fact, int names)
    {
        using var connection = database.Connect();
        return connection
            .Rows(
                "SELECT pdf FROM signed_pdf WHERE fact_id = $fact AND names = $names",
                r => r.GetString(0),
                ("$fact", fact),
                ("$names", names)
            )
            .FirstOrDefault();
    }

    /// <summary>Says which file the signed PDF is; the first that is said stays.</summary>
    public void KeepPdf(Guid fact, int names, string hash)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT INTO signed_pdf VALUES ($fact, $names, $hash) ON CONFLICT DO NOTHING",
            ("$fact", fact),
            ("$names", names),
            ("$hash", hash)
        );
    }

    /// <summary>Writes one in the transaction of its fact.</summary>
    internal static void Write(SqliteConnection connection, Guid job, Acceptance acceptance)
    {
        connection.Run(
            "INSERT INTO acceptance (fact_id, job_id, revision_id, statement, statement_hash) VALUES ($fact, $job, $revision, $statement, $hash)",
            ("$fact", acceptance.Fact),
            ("$job", job),
            ("$revision", acceptance.Revision),
            ("$statement", JsonSerializer.Serialize(acceptance.Statement, CoreJson.Options)),
            ("$hash", acceptance.Statement.Hash)
        );
        foreach (var name in acceptance.Names)
            Write(connection, acceptance.Fact, name);
    }

    private static void Write(SqliteConnection connection, Guid fact, Signed name) =>
        connection.Run(
            "INSERT INTO signature (id, fact_id, by_firm, name, drawn, at) VALUES ($id, $fact, $firm, $name, $drawn, $at)",
            ("$id", name.Id),
            ("$fact", fact),
            ("$firm", name.ByFirm ? 1 : 0),
            ("$name", name.Name),
            ("$drawn", name.Drawn),
            ("$at", JobStore.Utc(name.At))
        );
}
