using Emendum.Core.Proposals;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.StandIns;

/// <summary>A mail or a text message as the outbox lists it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="At">When it was written, in the firm's zone.</param>
/// <param name="From">From which address.</param>
/// <param name="To">To whom.</param>
/// <param name="Copy">Whether they get a copy.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="Words">Its words.</param>
/// <param name="Attached">Names of what goes with it; none of a text message.</param>
/// <param name="Job">The job.</param>
/// <param name="JobName">Its name.</param>
/// <param name="Revision">Letters of the revision that it brings.</param>
/// <param name="Gone">When it went, in the firm's zone; empty where it stands here still.</param>
/// <param name="HasLink">Whether it brings a link.</param>
/// <param name="Way">How it goes.</param>
public sealed record MailView(
    Guid Id,
    string At,
    string From,
    string To,
    bool Copy,
    string Subject,
    string Words,
    IReadOnlyList<string> Attached,
    Guid Job,
    string JobName,
    string Revision,
    string Gone,
    bool HasLink,
    MessageWay Way
);

/// <summary>
/// Stand-in for a mail server and for whoever carries text messages (architecture decision 21): what would go out stands here to be read, and a mail to be taken along as a file that any mail program opens. Nothing leaves
/// this machine.
/// </summary>
public static class Outbox
{
    /// <summary>Maps what is asked of it.</summary>
    public static void MapOutbox(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/outbox", List);
        app.MapPost("/api/outbox/{id:guid}/gone", Goes);
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
                row.Mail.To.Address,
                row.Mail.To.Copy,
                row.Mail.Subject,
                row.Mail.Whole,
                row.Mail.Way == MessageWay.Text ? [] : [row.Mail.Attached, .. row.Mail.More.Select(f => f.Name)],
                row.Mail.Job,
                row.JobName,
                row.Letters,
                row.Mail.Gone is { } gone ? moment(gone) : "",
                row.Mail.LinkId is not null,
                row.Mail.Way
            ));
    }

    /// <summary>Somebody has taken a mail along and sent it: the link in it is kept no longer.</summary>
    private static IEnumerable<MailView> Goes(Guid id, MailStore mails, FirmDay day, TimeProvider time)
    {
        if (mails.Find(id) is null)
            throw new NotThereException("That mail is not here.");
        mails.Goes(id, time.GetUtcNow().UtcDateTime);
        return List(mails, day);
    }

    private static async Task<IResult> File(Guid id, MailStore mails, FileStore files, Pictures pictures)
    {
        var mail = mails.Find(id) ?? throw new NotThereException("That mail is not here.");
        if (mail.Way == MessageWay.Text)
            throw new NotThereException("A text message has no file.");
        var pdf = files.Find(mail.AttachedHash) ?? throw new NotThereException("Its PDF is not here any more.");
        var attached = new List<(string Name, string Type, Stream Content)>
        {
            (mail.Attached, pdf.Type, files.Read(pdf)),
        };
        foreach (var more in mail.More)
            if (await pictures.Leaving(more) is var (file, name))
                attached.Add((name, file.Type, files.Read(file)));
        return Results.File(
            MailFile.Write(
                mail.Id,
                mail.At,
                mail.SenderName,
                mail.Sender,
                new([mail.To], mail.Subject, mail.Whole),
                attached
            ),
            "message/rfc822",
            $"{mail.Subject}.eml"
        );
    }
}
