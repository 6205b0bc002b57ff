using System.Text.Json;
using Emendum.Core.Json;
using Emendum.Core.Proposals;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>Documents that were issued under a number, with the PDF that was made of each afterwards: invoices and orders keep theirs alike.</summary>
internal static class IssuedPaper
{
    /// <summary>The document of one; null where the job has none of that id.</summary>
    /// <param name="connection">Where it is read.</param>
    /// <param name="table">The table that holds it.</param>
    /// <param name="job">The job.</param>
    /// <param name="id">Its id.</param>
    public static SentDocument? Document(SqliteConnection connection, string table, Guid job, Guid id) =>
        connection
            .Rows(
                $"SELECT document FROM {table} WHERE id = $id AND job_id = $job",
                r => JsonSerializer.Deserialize<SentDocument>(Packed.Read((byte[])r[0]), CoreJson.Options)!,
                ("$id", id),
                ("$job", job)
            )
            .FirstOrDefault();

    /// <summary>Hash of its PDF; null where it was not made yet.</summary>
    public static string? Pdf(SqliteConnection connection, string table, string column, Guid id) =>
        connection
            .Rows($"SELECT pdf FROM {table}_pdf WHERE {column} = $id", r => r.GetString(0), ("$id", id))
            .FirstOrDefault();

    /// <summary>Says which file the PDF is; the first that is said stays.</summary>
    public static void KeepPdf(SqliteConnection connection, string table, Guid id, string hash) =>
        connection.Run(
            $"INSERT INTO {table}_pdf VALUES ($id, $hash) ON CONFLICT DO NOTHING",
            ("$id", id),
            ("$hash", hash)
        );

    /// <summary>What is kept of a document.</summary>
    public static byte[] Kept(SentDocument document) =>
        Packed.Of(JsonSerializer.SerializeToUtf8Bytes(document, CoreJson.Options));
}
