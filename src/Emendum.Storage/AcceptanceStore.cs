using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Json;
using Emendum.Core.Proposals;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>What was agreed, on disk. It is written by the fact that it belongs to, <see cref="RevisionStore"/>; names are added here.</summary>
public sealed class AcceptanceStore(Database database)
{
    /// <summary>An acceptance; null where there is none of that fact.</summary>
    public Acceptance? Find(Guid fact)
    {
        using var connection = database.Connect();
        return Find(connection, fact);
    }

    private static Acceptance? Find(SqliteConnection connection, Guid fact) =>
        connection
            .Rows(
                "SELECT revision_id, statement FROM acceptance WHERE fact_id = $fact",
                r => new Acceptance(
                    fact,
                    r.GetGuid(0),
                    JsonSerializer.Deserialize<Statement>(r.GetString(1), CoreJson.Options)!,
                    [
                        .. connection.Rows(
                            "SELECT id, by_firm, name, drawn, at FROM signature WHERE fact_id = $fact ORDER BY number",
                            n => new Signed(
                                n.GetGuid(0),
                                n.GetInt32(1) != 0,
                                n.GetString(2),
                                n.GetString(3),
                                JobStore.Moment(n.GetString(4))
                            ),
                            ("$fact", fact)
                        ),
                    ]
                ),
                ("$fact", fact)
            )
            .FirstOrDefault();

    /// <summary>Adds a name (L16, L21): it changes nothing in what was agreed. The same id again changes nothing.</summary>
    /// <exception cref="RefusedException">There are as many as there can be.</exception>
    public Acceptance Sign(Guid fact, Signed name)
    {
        name.Check();
        using var writing = database.Writes();
        var connection = writing.Connection;
        var there = Find(connection, fact)!;
        if (there.Names.Any(n => n.Id == name.Id))
            return there;
        if (there.Names.Length >= Signed.Most)
            throw RefusedException.Of("name", $"At most {Signed.Most} names stand under it.");
        Write(connection, fact, name);
        writing.Commit();
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
