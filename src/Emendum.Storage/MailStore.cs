using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core.Json;
using Emendum.Core.Proposals;
using Microsoft.Data.Sqlite;

namespace Emendum.Storage;

/// <summary>A mail to one address, or a text message to one telephone.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Fact">The fact of the proposal that it was written with; null where it brings something else.</param>
/// <param name="Job">The job.</param>
/// <param name="Revision">The revision that it brings; null where it brings something else.</param>
/// <param name="At">When it was written (UTC).</param>
/// <param name="SenderName">Name of the firm.</param>
/// <param name="Sender">Address of the firm; empty for a text message.</param>
/// <param name="To">To whom.</param>
/// <param name="Subject">One line.</param>
/// <param name="Words">Plain text; where the link stands in them it is said by its name.</param>
/// <param name="Attached">File name of the PDF that goes with it; empty for none, as of a text message.</param>
/// <param name="AttachedHash">Its hash.</param>
public sealed record Mail(
    Guid Id,
    Guid? Fact,
    Guid Job,
    Guid? Revision,
    DateTime At,
    string SenderName,
    string Sender,
    Recipient To,
    string Subject,
    string Words,
    string Attached,
    string AttachedHash
)
{
    /// <summary>The order that it brings to a supplier; null where it brings something else.</summary>
    public Guid? Order { get; init; }

    /// <summary>The invoice that it brings, or reminds of; null where it brings something else.</summary>
    public Guid? Invoice { get; init; }

    /// <summary>The schedule of which it brings days to a crew; null where it brings something else.</summary>
    public Guid? Schedule { get; init; }

    /// <summary>How it goes.</summary>
    public MessageWay Way { get; init; }

    /// <summary>Files of the proposal that go with it beside the PDF.</summary>
    public ImmutableArray<AttachedFile> More { get; init; } = [];

    /// <summary>The link that it brings; null for none.</summary>
    public Guid? LinkId { get; init; }

    /// <summary>That link's address; null where there is none, or where it was cut out because the mail has gone.</summary>
    public string? Link { get; init; }

    /// <summary>When it went (UTC); null where it stands here still.</summary>
    public DateTime? Gone { get; init; }

    /// <summary>What stands in the place of a link that was cut out.</summary>
    public const string CutOut = "(a link of their own, cut out here since the mail has gone)";

    /// <summary>Its words as they go out, or as they are kept when it has gone.</summary>
    public string Whole => LinkId is null ? Words : Message.WithLink(Words, Link ?? CutOut);
}

/// <summary>A mail as a list has it.</summary>
/// <param name="Mail">The mail.</param>
/// <param name="JobName">Name of its job, as it is by now.</param>
/// <param name="Brings">Letters of the revision that it brings, number of the order or the invoice, or what else.</param>
public sealed record MailRow(Mail Mail, string JobName, string Brings);

/// <summary>Mail on disk. It is written by what it belongs to, <see cref="RevisionStore"/>, <see cref="OrderStore"/>, <see cref="InvoiceStore"/> or <see cref="ScheduleStore"/>.</summary>
public sealed class MailStore(Database database)
{
    /// <summary>How a text message is told from a mail.</summary>
    private const string Text = "text";

    /// <summary>Most that are listed.</summary>
    public const int MostListed = 100;

    /// <summary>The latest, the last written first.</summary>
    public List<MailRow> Latest() => Rows($"true ORDER BY m.number DESC LIMIT {MostListed}");

    /// <summary>Those of a job that have a file for a mail program, by the fact that they were written with.</summary>
    public ILookup<Guid, (Guid Id, string Address)> Of(Guid job)
    {
        using var connection = database.Connect();
        return connection
            .Rows(
                "SELECT fact_id, id, address FROM mail WHERE job_id = $job AND fact_id IS NOT NULL AND way <> $text ORDER BY number",
                r => (Fact: r.GetGuid(0), Mail: (r.GetGuid(1), r.GetString(2))),
                ("$job", job),
                ("$text", Text)
            )
            .ToLookup(m => m.Fact, m => m.Mail);
    }

    /// <summary>Mail that the firm's mail server is to take and has not taken yet, the first written first.</summary>
    public IEnumerable<Mail> Waiting() =>
        Rows(
                $"m.way <> $text AND m.gone IS NULL AND m.to_server = 1 ORDER BY m.number LIMIT {MostListed}",
                ("$text", Text)
            )
            .Select(row => row.Mail);

    /// <summary>A mail; null where there is none of that id.</summary>
    public Mail? Find(Guid id) => Rows("m.id = $id", ("$id", id)).FirstOrDefault()?.Mail;

    /// <summary>Says that a mail has gone: its link is cut out. What has gone before stays as it is.</summary>
    public void Goes(Guid id, DateTime at)
    {
        using var connection = database.Connect();
        connection.Run(
            "UPDATE mail SET gone = $at, link = NULL WHERE id = $id AND gone IS NULL",
            ("$id", id),
            ("$at", JobStore.Utc(at))
        );
    }

    private List<MailRow> Rows(string which, params ReadOnlySpan<(string, object?)> parameters)
    {
        using var connection = database.Connect();
        return connection.Rows(
            $"SELECT m.id, m.fact_id, m.job_id, m.revision_id, m.at, m.sender_name, m.sender, m.address, m.copy, m.subject, m.words, m.attached, m.attached_hash, m.link_id, m.link, m.gone, j.name, r.number, m.way, m.more, m.order_id, coalesce(o.text, i.text), m.invoice_id, m.schedule_id FROM mail m JOIN job j ON j.id = m.job_id LEFT JOIN revision r ON r.id = m.revision_id LEFT JOIN purchase_order o ON o.id = m.order_id LEFT JOIN invoice i ON i.id = m.invoice_id WHERE {which}",
            r => new MailRow(
                new(
                    r.GetGuid(0),
                    r.IsDBNull(1) ? null : r.GetGuid(1),
                    r.GetGuid(2),
                    r.IsDBNull(3) ? null : r.GetGuid(3),
                    JobStore.Moment(r.GetString(4)),
                    r.GetString(5),
                    r.GetString(6),
                    new(r.GetString(7), r.GetInt32(8) != 0),
                    r.GetString(9),
                    r.GetString(10),
                    r.GetString(11),
                    r.GetString(12)
                )
                {
                    Order = r.IsDBNull(20) ? null : r.GetGuid(20),
                    Invoice = r.IsDBNull(22) ? null : r.GetGuid(22),
                    Schedule = r.IsDBNull(23) ? null : r.GetGuid(23),
                    LinkId = r.IsDBNull(13) ? null : r.GetGuid(13),
                    Way = r.GetString(18) == Text ? MessageWay.Text : MessageWay.Mail,
                    More = JsonSerializer.Deserialize<ImmutableArray<AttachedFile>>(r.GetString(19), CoreJson.Options),
                    Link = r.IsDBNull(14) ? null : r.GetString(14),
                    Gone = r.IsDBNull(15) ? null : JobStore.Moment(r.GetString(15)),
                },
                r.GetString(16),
                !r.IsDBNull(23) ? "days of the schedule"
                    : r.IsDBNull(17) ? r.GetString(21)
                    : r.GetInt32(17) is < 0 and var change ? RevisionStart.CalledOf(change)
                    : RevisionStart.LettersOf(r.GetInt32(17))
            ),
            parameters
        );
    }

    /// <summary>Whether there is one of that id.</summary>
    internal static bool Has(SqliteConnection connection, Guid id) =>
        connection.Rows("SELECT 1 FROM mail WHERE id = $id", r => r.GetInt32(0), ("$id", id)).Count > 0;

    /// <summary>Writes one in the transaction of its fact.</summary>
    internal static void Write(SqliteConnection connection, Mail mail) =>
        connection.Run(
            "INSERT INTO mail (id, fact_id, job_id, revision_id, order_id, invoice_id, schedule_id, at, sender_name, sender, address, copy, subject, words, link_id, link, attached, attached_hash, way, more, to_server) VALUES ($id, $fact, $job, $revision, $order, $invoice, $schedule, $at, $name, $sender, $address, $copy, $subject, $words, $linkId, $link, $attached, $hash, $way, $more, coalesce((SELECT content ->> '$.on' FROM setting WHERE name = $server), 0))",
            ("$id", mail.Id),
            ("$fact", mail.Fact),
            ("$job", mail.Job),
            ("$revision", mail.Revision),
            ("$order", mail.Order),
            ("$invoice", mail.Invoice),
            ("$schedule", mail.Schedule),
            ("$at", JobStore.Utc(mail.At)),
            ("$name", mail.SenderName),
            ("$sender", mail.Sender),
            ("$address", mail.To.Address),
            ("$copy", mail.To.Copy ? 1 : 0),
            ("$subject", mail.Subject),
            ("$words", mail.Words),
            ("$linkId", mail.LinkId),
            ("$link", mail.Link),
            ("$attached", mail.Attached),
            ("$hash", mail.AttachedHash),
            ("$way", mail.Way == MessageWay.Text ? Text : "mail"),
            ("$more", JsonSerializer.Serialize(mail.More, CoreJson.Options)),
            ("$server", MailServer.Setting)
        );
}
