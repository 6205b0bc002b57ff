using Emendum.Core;
using Emendum.Core.Proposals;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Mails;

/// <summary>A mail as it goes out, with what is attached to it.</summary>
public sealed class OutgoingMail(FileStore files, Pictures pictures)
{
    /// <summary>Its bytes (RFC 5322): the same for a person's mail program and for the firm's mail server.</summary>
    /// <exception cref="NotThereException">It is a text message, or its PDF is not here any more.</exception>
    public async Task<byte[]> Of(Mail mail)
    {
        if (mail.Way == MessageWay.Text)
            throw new NotThereException("A text message has no file.");
        var attached = new List<(string Name, string Type, Stream Content)>();
        if (mail.Attached.Length > 0)
        {
            var pdf = files.Find(mail.AttachedHash) ?? throw new NotThereException("Its PDF is not here any more.");
            attached.Add((mail.Attached, pdf.Type, files.Read(pdf)));
        }
        foreach (var more in mail.More)
            if (await pictures.Leaving(more) is var (file, name))
                attached.Add((name, file.Type, files.Read(file)));
        return MailFile.Write(
            mail.Id,
            mail.At,
            mail.SenderName,
            mail.Sender,
            new([mail.To], mail.Subject, mail.Whole),
            attached
        );
    }
}
