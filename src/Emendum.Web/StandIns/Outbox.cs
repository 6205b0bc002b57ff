using Emendum.Core;
using Emendum.Core.Proposals;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Emendum.Web.Mails;

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
/// <param name="Brings">Letters of the revision that it brings, number of the order or the invoice, or what else.</param>
/// <param name="View">The view of Deliver that it comes from; empty where it brings a proposal.</param>
/// <param name="Gone">When it went, in the firm's zone; empty where it stands here still.</param>
/// <param name="HasLink">Whether it brings a link.</param>
/// <param name="Way">How it goes.</param>
/// <param name="Waits">Why the firm's mail server has not taken it yet, where that was tried; empty otherwise.</param>
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
    string Brings,
    string View,
    string Gone,
    bool HasLink,
    MessageWay Way,
    string Waits
);

/// <summary>
/// Stand-in for a mail server and for whoever carries text messages (architecture decision 21): what would go out stands here to be read, and a mail to be taken along as a file that any mail program opens. Nothing leaves
/// this machine, unless the firm has a mail server (<see cref="Postman"/>): then mail goes there, and stands here until it has.
/// </summary>
public static class Outbox
{
    /// <summary>Maps what is asked of it.</summary>
    public static void MapOutbox(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/outbox", List);
        app.MapPost("/api/outbox/{id:guid}/gone", Goes);
        app.MapPost("/api/outbox/{id:guid}/send", Send);
        app.MapGet("/api/outbox/{id:guid}/file", File).Produces<byte[]>(200, "message/rfc822");
    }

    private static IEnumerable<MailView> List(MailStore mails, FirmDay day, Postman postman)
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
                [.. new[] { row.Mail.Attached }.Where(name => name.Length > 0), .. row.Mail.More.Select(f => f.Name)],
                row.Mail.Job,
                row.JobName,
                row.Brings,
                row.Mail.Order is not null ? "buying"
                    : row.Mail.Invoice is not null ? "invoices"
                    : row.Mail.Schedule is not null ? "schedule"
                    : "",
                row.Mail.Gone is { } gone ? moment(gone) : "",
                row.Mail.LinkId is not null,
                row.Mail.Way,
                postman.TroubleOf(row.Mail.Id) is { } trouble
                    ? $"{trouble.Says}{(trouble.Again is { } again ? $"; tried again {moment(again)}" : "")}"
                    : ""
            ));
    }

    /// <summary>Somebody has taken a mail along and sent it: the link in it is kept no longer.</summary>
    private static IEnumerable<MailView> Goes(Guid id, MailStore mails, FirmDay day, Postman postman, TimeProvider time)
    {
        if (mails.Find(id) is null)
            throw new NotThereException("That mail is not here.");
        mails.Goes(id, time.GetUtcNow().UtcDateTime);
        return List(mails, day, postman);
    }

    /// <summary>Takes a mail to the firm's mail server now.</summary>
    private static async Task<IEnumerable<MailView>> Send(
        Guid id,
        MailStore mails,
        FirmDay day,
        Postman postman,
        CancellationToken stop
    )
    {
        var mail = mails.Find(id) ?? throw new NotThereException("That mail is not here.");
        if (mail.Way == MessageWay.Text || !postman.Server.On)
            throw RefusedException.Of("mail", "There is no mail server that could take it: Office, Messages.");
        await postman.Take(mail, stop);
        return List(mails, day, postman);
    }

    private static async Task<IResult> File(Guid id, MailStore mails, OutgoingMail outgoing)
    {
        var mail = mails.Find(id) ?? throw new NotThereException("That mail is not here.");
        return Results.File(await outgoing.Of(mail), "message/rfc822", $"{mail.Subject}.eml");
    }
}
