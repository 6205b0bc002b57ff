using System.Globalization;
using System.Text.Json;
using Emendum.Core.Json;
using Emendum.Core.Proposals;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>A mail.</summary>
/// <param name="Id">Id of the fact that it belongs to.</param>
/// <param name="Job">The job.</param>
/// <param name="Revision">The revision that it brings.</param>
/// <param name="At">When it was written (UTC).</param>
/// <param name="SenderName">Name of the firm.</param>
/// <param name="Sender">Address of the firm.</param>
/// <param name="Message">To whom, and what it says.</param>
/// <param name="Attached">File name of the PDF that goes with it.</param>
/// <param name="AttachedHash">Its hash.</param>
public sealed record Mail(
    Guid Id,
    Guid Job,
    Guid Revision,
    DateTime At,
    string SenderName,
    string Sender,
    Message Message,
    string Attached,
    string AttachedHash
);

/// <summary>A mail as a list has it.</summary>
/// <param name="Mail">The mail.</param>
/// <param name="JobName">Name of its job, as it is by now.</param>
/// <param name="Letters">Letters of the revision that it brings.</param>
public sealed record MailRow(Mail Mail, string JobName, string Letters);

/// <summary>Mail on disk. It is written by what it belongs to, <see cref="RevisionStore"/>.</summary>
public sealed class MailStore(Database database)
{
    /// <summary>Most that are listed.</summary>
    public const int MostListed = 100;

    /// <summary>The latest, the last written first.</summary>
    public List<MailRow> Latest() => Rows($"true ORDER BY m.number DESC LIMIT {MostListed}");

    /// <summary>Those of a job, by id.</summary>
    public HashSet<Guid> Of(Guid job)
    {
        using var connection = database.Connect();
        return [.. connection.Rows("SELECT id FROM mail WHERE job_id = $job", r => r.GetGuid(0), ("$job", job))];
    }

    /// <summary>A mail; null where there is none of that id.</summary>
    public Mail? Find(Guid id) => Rows("m.id = $id", ("$id", id)).FirstOrDefault()?.Mail;

    private List<MailRow> Rows(string which, params ReadOnlySpan<(string, object?)> parameters)
    {
        using var connection = database.Connect();
        return connection.Rows(
            $"SELECT m.id, m.job_id, m.revision_id, m.at, m.sender_name, m.sender, m.message, m.attached, m.attached_hash, j.name, r.number FROM mail m JOIN job j ON j.id = m.job_id JOIN revision r ON r.id = m.revision_id WHERE {which}",
            r => new MailRow(
                new(
                    r.GetGuid(0),
                    r.GetGuid(1),
                    r.GetGuid(2),
                    DateTime.Parse(r.GetString(3), CultureInfo.InvariantCulture, DateTimeStyles.RoundtripKind),
                    r.GetString(4),
                    r.GetString(5),
                    JsonSerializer.Deserialize<Message>(r.GetString(6), CoreJson.Options)!,
                    r.GetString(7),
                    r.GetString(8)
                ),
                r.GetString(9),
                RevisionStart.LettersOf(r.GetInt32(10))
            ),
            parameters
        );
    }

    /// <summary>Writes one in the transaction of its fact.</summary>
    internal static void Write(SqliteConnection connection, Mail mail) =>
        connection.Run(
            "INSERT INTO mail (id, job_id, revision_id, at, sender_name, sender, message, attached, attached_hash) VALUES ($id, $job, $revision, $at, $name, $sender, $message, $attached, $hash)",
            ("$id", mail.Id),
            ("$job", mail.Job),
            ("$revision", mail.Revision),
            ("$at", JobStore.Utc(mail.At)),
            ("$name", mail.SenderName),
            ("$sender", mail.Sender),
            ("$message", JsonSerializer.Serialize(mail.Message, CoreJson.Options)),
            ("$attached", mail.Attached),
            ("$hash", mail.AttachedHash)
        );
}
