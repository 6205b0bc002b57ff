using System.Globalization;
using Emendum.Core.Proposals;
using MimeKit;
using MimeKit.Text;

namespace Emendum.Documents;

/// <summary>A mail as a file that any mail program opens (RFC 5322, MIME).</summary>
public static class MailFile
{
    /// <summary>Its bytes, the same each time.</summary>
    /// <param name="id">Id of the mail.</param>
    /// <param name="at">When it was written (UTC).</param>
    /// <param name="senderName">Name of the firm.</param>
    /// <param name="sender">Address of the firm.</param>
    /// <param name="message">To whom, and what it says.</param>
    /// <param name="attached">What goes with it: file name, media type, and content.</param>
    public static byte[] Write(
        Guid id,
        DateTime at,
        string senderName,
        string sender,
        Message message,
        IReadOnlyList<(string Name, string Type, Stream Content)> attached
    )
    {
        var from = new MailboxAddress(senderName, sender);
        using var mail = new MimeMessage
        {
            Date = new DateTimeOffset(DateTime.SpecifyKind(at, DateTimeKind.Utc)),
            Subject = message.Subject,
            // The part after the sign says who made the id: the firm's own domain.
            MessageId = $"{id:N}@{from.Domain}",
        };
        mail.From.Add(from);
        foreach (var recipient in message.To)
            (recipient.Copy ? mail.Cc : mail.To).Add(new MailboxAddress("", recipient.Address));
        using var words = new TextPart(TextFormat.Plain) { Text = message.Words };
        using var whole = new Multipart("mixed")
        {
            // A boundary made of the id: the same mail has the same bytes.
            Boundary = string.Create(CultureInfo.InvariantCulture, $"emendum-{id:N}"),
        };
        whole.Add(words);
        foreach (var (name, type, content) in attached)
            whole.Add(
                new MimePart(ContentType.Parse(type))
                {
                    Content = new MimeContent(content),
                    ContentDisposition = new(ContentDisposition.Attachment) { FileName = name },
                    ContentTransferEncoding = ContentEncoding.Base64,
                    FileName = name,
                }
            );
        mail.Body = whole;
        using var bytes = new MemoryStream();
        var format = FormatOptions.Default.Clone();
        format.NewLineFormat = NewLineFormat.Dos;
        mail.WriteTo(format, bytes);
        return bytes.ToArray();
    }
}
