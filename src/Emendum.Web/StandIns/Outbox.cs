using Emendum.Core.Proposals;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.StandIns;

/// <summary>A mail as the outbox lists it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="At">When it was written, in the firm's zone.</param>
/// <param name="From">From which address.</param>
/// <param name="To">To whom.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="Words">Its words.</param>
/// <param name="Attached">Name of what goes with it.</param>
/// <param name="Job">The job.</param>
/// <param name="JobName">Its name.</param>
/// <param name="Revision">Letters of the revision that it brings.</param>
public sealed record MailView(
    Guid Id,
    string At,
    string From,
    IReadOnlyList<Recipient> To,
    string Subject,
    string Words,
    string Attached,
    Guid Job,
    string JobName,
    string Revision
);

/// <summary>
/// Stand-in for a mail server (architecture decision 21): what would go out stands here to be read and to be taken along as a file that any mail program opens. Nothing leaves this machine.
/// </summary>
public static class Outbox
{
    /// <summary>Maps what is asked of it.</summary>
    public static void MapOutbox(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/outbox", List);
        app.MapGet("/api/outbox/{id:guid}/file", File).Produces<byte[]>(200, "message/rfc822");
    }

    private static IEnumerable<MailView> List(MailStore mails, FirmDay day)
    {
        var moment = day.Moments();
        return mails
            .Latest()
            .Select(row => new MailView(
                row.Mail.Id,
                moment(row.Mail.At),
                row.Mail.Sender,
                row.Mail.Message.To,
                row.Mail.Message.Subject,
                row.Mail.Message.Words,
                row.Mail.Attached,
                row.Mail.Job,
                row.JobName,
                row.Letters
            ));
    }

    private static IResult File(Guid id, MailStore mails, FileStore files)
    {
        var mail = mails.Find(id) ?? throw new NotThereException("That mail is not here.");
        var pdf = files.Find(mail.AttachedHash) ?? throw new NotThereException("Its PDF is not here any more.");
        using var content = files.Read(pdf);
        return Results.File(
            MailFile.Write(mail.Id, mail.At, mail.SenderName, mail.Sender, mail.Message, mail.Attached, content),
            "message/rfc822",
            $"{mail.Message.Subject}.eml"
        );
    }
}
