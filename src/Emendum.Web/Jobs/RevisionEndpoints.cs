using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Checks;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Reports;
using Emendum.Documents;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>Sends a revision.</summary>
/// <param name="Id">Its id; the same again is answered by what is there.</param>
/// <param name="Fact">Id of the fact of its sending.</param>
/// <param name="Base">The version of the job that its sender has looked at.</param>
/// <param name="How">How it goes out where it goes by hand; empty where it goes by mail.</param>
/// <param name="Despite">Why it goes out though something is unfinished; empty where nothing is.</param>
/// <param name="Message">The mail that brings it; null where it goes by hand.</param>
public sealed record SendRevision(Guid Id, Guid Fact, long Base, string How, string Despite, Message? Message);

/// <summary>Sends a revision that went out before once more, by mail.</summary>
/// <param name="Fact">Id of the fact, and of the mail.</param>
/// <param name="Message">The mail.</param>
public sealed record SendAgain(Guid Fact, Message Message);

/// <summary>Records something that happened to a revision.</summary>
/// <param name="Id">Id of the fact.</param>
/// <param name="Kind">What happened.</param>
/// <param name="Words">The reason, or how it came.</param>
/// <param name="Day">A day that it says, like 2027-01-31; empty for none.</param>
public sealed record RecordFact(Guid Id, FactKind Kind, string Words, string Day);

/// <summary>The name of a message of the firm.</summary>
public sealed record MessageName(Guid Id, string Name);

/// <summary>A message with its figures filled in, to be written on.</summary>
/// <param name="From">From which address mail comes; empty where the firm has not said.</param>
/// <param name="To">The customer's address; empty where there is none.</param>
/// <param name="Text">Which of the firm's messages it is.</param>
/// <param name="Texts">All of them.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="Words">Its words.</param>
/// <param name="Missing">Figures by name that come to nothing here.</param>
public sealed record MessageDraft(
    string From,
    string To,
    Guid Text,
    IReadOnlyList<MessageName> Texts,
    string Subject,
    string Words,
    IReadOnlyList<string> Missing
);

/// <summary>What is asked of revisions, and done to them.</summary>
public static class RevisionEndpoints
{
    /// <summary>What the firm can record of a revision.</summary>
    internal static readonly ImmutableArray<FactKind> OfTheFirm =
    [
        FactKind.SentAgain,
        FactKind.YesRecorded,
        FactKind.NoRecorded,
        FactKind.PutOnHold,
        FactKind.TakenOffHold,
        FactKind.Extended,
        FactKind.Reopened,
        FactKind.Withdrawn,
        FactKind.Annulled,
    ];

    /// <summary>Maps them.</summary>
    public static void MapRevisions(this IEndpointRouteBuilder jobs)
    {
        jobs.MapGet(
            "/{id:guid}/revisions",
            (Guid id, OpenJobs open, RevisionStore revisions, MailStore mails, FirmDay day) =>
                RevisionsView.Of(open.Get(id).Estimate, revisions, mails, day)
        );
        jobs.MapGet(
            "/{id:guid}/revisions/stands",
            (Guid id, RevisionStore revisions, FirmDay day) => StandsView.Of(revisions.Life(id), day.Today)
        );
        jobs.MapPost("/{id:guid}/revisions", Send);
        jobs.MapGet(
            "/{id:guid}/revisions/compared",
            (
                Guid id,
                Guid from,
                Guid? to,
                OpenJobs open,
                RevisionStore revisions,
                CustomerStore customers,
                SettingStore settings
            ) => Compared(id, from, to, open, revisions, customers, settings)
        );
        jobs.MapGet(
            "/{id:guid}/revisions/{revision:guid}",
            (Guid id, Guid revision, RevisionStore revisions) => Found(revisions, id, revision).Document
        );
        jobs.MapGet(
                "/{id:guid}/revisions/{revision:guid}/pdf",
                (Guid id, Guid revision, RevisionStore revisions, FileStore files) =>
                {
                    var found = Found(revisions, id, revision);
                    var file = files.Find(found.Pdf) ?? throw new NotThereException("That PDF is not here any more.");
                    return Results.Stream(files.Read(file), "application/pdf", NameOf(found));
                }
            )
            .Produces<byte[]>(200, "application/pdf");
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/facts", Record);
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/mails", Again);
        jobs.MapGet("/{id:guid}/revisions/message", Drafted);
    }

    private static Revision Found(RevisionStore revisions, Guid job, Guid id) =>
        revisions.Find(job, id) ?? throw new NotThereException("That revision is not in this job.");

    private static string NameOf(Revision revision) => NameOf(revision.Document.Document, revision.Start.Letters);

    private static string NameOf(Document document, string letters) => $"{document.Head.Title}, revision {letters}.pdf";

    private static async Task<RevisionsView> Send(
        Guid id,
        SendRevision send,
        OpenJobs open,
        RevisionStore revisions,
        MailStore mails,
        CustomerStore customers,
        SettingStore settings,
        FileStore files,
        FirmDay day,
        TimeProvider time
    )
    {
        // One look at the job: its version and what it is belong together.
        var (version, estimate, _, _) = open.Get(id).Now;
        var life = revisions.Life(id);
        if (life.Facts.Any(f => f.Id == send.Fact))
            return RevisionsView.Of(estimate, revisions, mails, day);
        if (version != send.Base)
            throw RefusedException.Of("base", "The job has changed since you looked at it. Look once more, and send.");
        if (send.How.Length > 200 || send.Despite.Length > 500)
            throw RefusedException.Of("how", "At most 200 characters for how it goes out, and 500 for why.");
        var (job, brand) = (estimate.Job, settings.Brand());
        var party = customers.Party(job.Info.Customer);
        var document = Proposal.Of(estimate, party, brand, Trace.Silent, life.Next);
        if (job.PricesHoldUntil < day.Today)
            throw RefusedException.Of("validDays", "The prices hold no longer: set a new date of the proposal first.");
        var holes = BeforeSending.Of(estimate, document, day.Today);
        if (!holes.IsEmpty && string.IsNullOrWhiteSpace(send.Despite))
            throw RefusedException.Of("despite", $"{holes[0].Says} Say why it goes out all the same.");
        var message = send.Message is { } asked ? Filled(asked, estimate, party, brand, life.Next) : null;
        var sender = message is null ? "" : Sender(settings);
        var pdf = ProposalPdf.Write(document, job.Info, brand, ProposalEndpoints.Picture(files, brand.Mark));
        using var content = new MemoryStream(pdf);
        var now = time.GetUtcNow().UtcDateTime;
        var file = await files.Take(content, FileEndpoints.Kind, now, CancellationToken.None);
        files.Name(file.Hash);
        revisions.Send(
            new(
                new(send.Id, life.Revisions.Length + 1, job.PricesHoldUntil),
                id,
                version,
                Rules.Version,
                JobFile.Write(job, party: party == Party.None ? null : party),
                JsonSerializer.SerializeToUtf8Bytes(Reported.Of(job), CoreJson.Options),
                new(document, brand),
                RevisionFigures.Of(estimate),
                file.Hash
            ),
            new(
                send.Fact,
                send.Id,
                FactKind.Sent,
                now,
                JobEndpoints.Owner,
                string.Join(
                    "; ",
                    new[]
                    {
                        message?.Went() ?? send.How.Trim(),
                        holes.IsEmpty ? "" : $"unfinished: {send.Despite.Trim()}",
                    }.Where(w => w.Length > 0)
                )
            )
            {
                Total = estimate.Price.Total.V,
            },
            message is null
                ? null
                : new(
                    send.Fact,
                    id,
                    send.Id,
                    now,
                    job.Info.Firm,
                    sender,
                    message,
                    NameOf(document, life.Next),
                    file.Hash
                )
        );
        return RevisionsView.Of(estimate, revisions, mails, day);
    }

    /// <summary>A message as it goes out: every figure that it says by name is filled in.</summary>
    /// <exception cref="RefusedException">It cannot go out; names the field.</exception>
    private static Message Filled(Message asked, Estimate estimate, Party party, Brand brand, string letters)
    {
        asked.Check();
        FigureNames.Check(asked.Subject, "subject");
        FigureNames.Check(asked.Words, "words");
        var (subject, words, missing) = Proposal.Filled(estimate, party, brand, letters, asked.Subject, asked.Words);
        if (missing.Count > 0)
            throw RefusedException.Of("words", $"“{{{missing[0]}}}” comes to nothing in this job: write it otherwise.");
        var message = asked with { Subject = subject, Words = words };
        message.Check();
        return message;
    }

    /// <summary>The firm's e-mail address.</summary>
    /// <exception cref="RefusedException">It has not said one.</exception>
    private static string Sender(SettingStore settings) =>
        settings.Get(MessageTexts.Setting, MessageTexts.Starting).From is { Length: > 0 } from
            ? from
            : throw RefusedException.Of("from", "The firm has no e-mail address yet: Office, Messages.");

    /// <summary>What a message of the firm says of a job as it stands, or of a revision as it was sent.</summary>
    private static MessageDraft Drafted(
        Guid id,
        Guid? text,
        Guid? revision,
        OpenJobs open,
        RevisionStore revisions,
        CustomerStore customers,
        SettingStore settings
    )
    {
        var texts = settings.Get(MessageTexts.Setting, MessageTexts.Starting);
        var chosen =
            texts.All.FirstOrDefault(m => m.Id == (text ?? texts.Usual))
            ?? throw new NotThereException("That message is not in the Office any more.");
        var now = open.Get(id).Estimate;
        var customer = customers.Find(now.Job.Info.Customer);
        var (estimate, party, brand, letters) = revision is { } sent
            ? AsSent(Found(revisions, id, sent))
            : (now, customers.Party(now.Job.Info.Customer), settings.Brand(), revisions.Life(id).Next);
        var (subject, words, missing) = Proposal.Filled(estimate, party, brand, letters, chosen.Subject, chosen.Words);
        return new(
            texts.From,
            customer?.Email ?? "",
            chosen.Id,
            [.. texts.All.Select(m => new MessageName(m.Id, m.Name))],
            subject,
            words,
            missing
        );
    }

    /// <summary>A revision as it was sent, reckoned once more: its figures by name are those of its document.</summary>
    /// <exception cref="RefusedException">The rules have changed since, and it comes to another total.</exception>
    private static (Estimate, Party, Brand, string Letters) AsSent(Revision sent)
    {
        var estimate = Estimate.Of(JobFile.Read(sent.JobFile, out var party), Trace.Silent);
        if (estimate.Price.Total.V != sent.Figures.Total)
            throw RefusedException.Of(
                "words",
                $"The rules have changed since revision {sent.Start.Letters} was sent: its figures cannot be filled in any more. Write them as its document has them."
            );
        return (estimate, party ?? Party.None, sent.Document.Brand, sent.Start.Letters);
    }

    private static RevisionsView Again(
        Guid id,
        Guid revision,
        SendAgain again,
        OpenJobs open,
        RevisionStore revisions,
        MailStore mails,
        SettingStore settings,
        FirmDay day,
        TimeProvider time
    )
    {
        var found = Found(revisions, id, revision);
        var message = again.Message;
        message.Check();
        // What says no figure needs none reckoned, and goes out whatever the rules have become.
        if (FigureNames.In(message.Subject).Concat(FigureNames.In(message.Words)).Any())
        {
            var (estimate, party, brand, letters) = AsSent(found);
            message = Filled(message, estimate, party, brand, letters);
        }
        var (now, firm) = (time.GetUtcNow().UtcDateTime, found.Document.Document.Head.Firm);
        revisions.Record(
            id,
            new(again.Fact, revision, FactKind.SentAgain, now, JobEndpoints.Owner, message.Went()),
            day.Today,
            new(again.Fact, id, revision, now, firm, Sender(settings), message, NameOf(found), found.Pdf)
        );
        return RevisionsView.Of(open.Get(id).Estimate, revisions, mails, day);
    }

    private static RevisionsView Record(
        Guid id,
        Guid revision,
        RecordFact record,
        OpenJobs open,
        RevisionStore revisions,
        MailStore mails,
        FirmDay day,
        TimeProvider time
    )
    {
        if (!OfTheFirm.Contains(record.Kind))
            throw RefusedException.Of("kind", "That is not for the firm to record.");
        if (record.Words.Length > 2000)
            throw RefusedException.Of("words", "At most 2,000 characters.");
        var says = default(DateOnly?);
        if (record.Day.Trim() is { Length: > 0 } text)
            says = Core.Quantities.Day.Read(text, out var read)
                ? read
                : throw RefusedException.Of("day", "Write a day like 2027-01-31.");
        var row = revisions.Row(id, revision) ?? throw new NotThereException("That revision is not in this job.");
        revisions.Record(
            id,
            new(record.Id, revision, record.Kind, time.GetUtcNow().UtcDateTime, JobEndpoints.Owner, record.Words.Trim())
            {
                Day = says,
                Total = record.Kind == FactKind.YesRecorded ? row.Figures.Total : null,
            },
            day.Today
        );
        return RevisionsView.Of(open.Get(id).Estimate, revisions, mails, day);
    }

    private static ComparedView Compared(
        Guid id,
        Guid from,
        Guid? to,
        OpenJobs open,
        RevisionStore revisions,
        CustomerStore customers,
        SettingStore settings
    )
    {
        var a = Found(revisions, id, from);
        var (letters, figures, document) = ("", default(RevisionFigures)!, default(Document)!);
        if (to is { } later)
        {
            var b = Found(revisions, id, later);
            (letters, figures, document) = (b.Start.Letters, b.Figures, b.Document.Document);
        }
        else
        {
            var estimate = open.Get(id).Estimate;
            letters = revisions.Life(id).Next;
            (figures, document) = (
                RevisionFigures.Of(estimate),
                Proposal.Of(
                    estimate,
                    customers.Party(estimate.Job.Info.Customer),
                    settings.Brand(),
                    Trace.Silent,
                    letters
                )
            );
        }
        return ComparedView.Of(
            a.Start.Letters,
            a.Figures,
            letters,
            figures,
            RevisionsCompared.Of(a.Figures, a.Document.Document, figures, document)
        );
    }
}
