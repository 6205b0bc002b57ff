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
using Emendum.Web.Outside;

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

/// <summary>Makes a customer's link to a revision by hand.</summary>
/// <param name="Fact">Id of the fact.</param>
/// <param name="For">Whom it is for.</param>
/// <param name="Signs">Whether they may sign; otherwise they have a copy.</param>
public sealed record MakeLink(Guid Fact, string For, bool Signs);

/// <summary>A link that was made.</summary>
/// <param name="Address">Where it leads. Nobody is told it again.</param>
public sealed record LinkMade(string Address);

/// <summary>Revokes a link.</summary>
/// <param name="Fact">Id of the fact.</param>
public sealed record RevokeLink(Guid Fact);

/// <summary>A further name under what was agreed.</summary>
/// <param name="Id">Id of the signature.</param>
/// <param name="ByFirm">Whether it is the firm's; otherwise the customer's.</param>
/// <param name="Name">The name in full.</param>
/// <param name="Drawn">It as it was drawn; empty where it was typed.</param>
public sealed record SignToo(Guid Id, bool ByFirm, string Name, string Drawn);

/// <summary>Answers a question.</summary>
/// <param name="Id">Id of the answer.</param>
/// <param name="Question">The question.</param>
/// <param name="Words">The answer.</param>
public sealed record AnswerQuestion(Guid Id, Guid Question, string Words);

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
/// <param name="WithLink">Whether a link to the customer's page goes with it.</param>
public sealed record MessageDraft(
    string From,
    string To,
    Guid Text,
    IReadOnlyList<MessageName> Texts,
    string Subject,
    string Words,
    IReadOnlyList<string> Missing,
    bool WithLink
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
        jobs.MapGet("/{id:guid}/revisions", (Guid id, OpenJobs open, Told told) => told.Of(open.Get(id).Estimate));
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
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/links", MakeLink);
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/links/{link:guid}/revoke", Revoke);
        jobs.MapGet(
            "/{id:guid}/revisions/questions",
            (Guid id, RevisionStore revisions, FirmDay day) => QuestionsView.Of(revisions.Life(id), day)
        );
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/answers", Answer);
        // The firm looks at the page as the customer has it; that never counts as seen (L19).
        jobs.MapGet(
            "/{id:guid}/revisions/{revision:guid}/page",
            (Guid id, Guid revision, RevisionStore revisions, FirmDay day, Signings signings) =>
                CustomerPage.Of(Frozen(signings, id, revision), revisions.Life(id), null, day, signings)
        );
        jobs.MapGet("/{id:guid}/revisions/{revision:guid}/chosen", Chosen);
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/accept", AcceptInPerson);
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/signatures", SignsToo);
        jobs.MapGet("/{id:guid}/revisions/{revision:guid}/signed", Signed).Produces<byte[]>(200, "application/pdf");
    }

    private static Frozen Frozen(Signings signings, Guid job, Guid id) =>
        signings.Frozen(job, id) ?? throw new NotThereException("That revision is not in this job.");

    private static Revision Found(RevisionStore revisions, Guid job, Guid id) =>
        revisions.Find(job, id) ?? throw new NotThereException("That revision is not in this job.");

    /// <summary>File name of its PDF.</summary>
    internal static string NameOf(Revision revision) => NameOf(revision.Document.Document, revision.Start.Letters);

    private static string NameOf(Document document, string letters) => $"{document.Head.Title}, revision {letters}.pdf";

    private static async Task<RevisionsView> Send(
        Guid id,
        SendRevision send,
        OpenJobs open,
        RevisionStore revisions,
        Told told,
        CustomerStore customers,
        SettingStore settings,
        FileStore files,
        FirmDay day,
        OutsideAddress outside,
        TimeProvider time
    )
    {
        // One look at the job: its version and what it is belong together.
        var (version, estimate, _, _) = open.Get(id).Now;
        var life = revisions.Life(id);
        if (life.Facts.Any(f => f.Id == send.Fact))
            return told.Of(estimate);
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
        var message = send.Message is { } asked ? Filled(asked, estimate, party, brand, life.Next, outside) : null;
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
                ? Brought.Nothing
                : Bringing(
                    message,
                    new(
                        Guid.Empty,
                        send.Fact,
                        id,
                        send.Id,
                        now,
                        job.Info.Firm,
                        sender,
                        message.To[0],
                        message.Subject,
                        message.Words,
                        NameOf(document, life.Next),
                        file.Hash
                    ),
                    outside
                )
        );
        return told.Of(estimate);
    }

    /// <summary>A message as it goes out: every figure that it says by name is filled in.</summary>
    /// <exception cref="RefusedException">It cannot go out; names the field.</exception>
    private static Message Filled(
        Message asked,
        Estimate estimate,
        Party party,
        Brand brand,
        string letters,
        OutsideAddress outside
    )
    {
        asked.Check();
        FigureNames.Check(asked.Subject, "subject");
        CheckLink(asked, outside);
        FigureNames.Check(asked.Words, "words", Message.LinkName);
        var (subject, words, missing) = Proposal.Filled(estimate, party, brand, letters, asked.Subject, asked.Words);
        if (missing.Count > 0)
            throw RefusedException.Of("words", $"“{{{missing[0]}}}” comes to nothing in this job: write it otherwise.");
        var message = asked with { Subject = subject, Words = words };
        message.Check();
        return message;
    }

    /// <summary>Refuses words that say where a link stands when there can be none.</summary>
    private static void CheckLink(Message asked, OutsideAddress outside)
    {
        if (!outside.IsThere && FigureNames.In(asked.Words).Any(n => n.Name == Message.LinkName))
            throw RefusedException.Of(
                "words",
                "There is no link that could stand there: the program was started without --public. Take it out of the words."
            );
    }

    /// <summary>A mail to each recipient, each with a link of its own where people outside can open one (L19).</summary>
    /// <param name="message">To whom.</param>
    /// <param name="mail">What the mails have in common.</param>
    /// <param name="outside">Where links lead.</param>
    private static Brought Bringing(Message message, Mail mail, OutsideAddress outside)
    {
        var (links, mails) = (new List<NewLink>(), new List<Mail>());
        foreach (var to in message.To)
        {
            var one = mail with { Id = Guid.CreateVersion7(), To = to };
            if (outside.IsThere)
            {
                var (made, address) = NewLinkTo(mail.Revision, to.Address, !to.Copy, mail.At, outside);
                links.Add(made);
                one = one with { LinkId = made.Link.Id, Link = address };
            }
            mails.Add(one);
        }
        return new([.. links], [.. mails]);
    }

    private static (NewLink Made, string Address) NewLinkTo(
        Guid revision,
        string who,
        bool signs,
        DateTime now,
        OutsideAddress outside
    )
    {
        var token = Token.New();
        return (
            new(new(Guid.CreateVersion7(), revision, who, signs, now, null), Token.HashOf(token)),
            outside.Of(token)
        );
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
        SettingStore settings,
        OutsideAddress outside
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
            [
                .. missing,
                .. FigureNames.In(words).Any(n => n.Name == Message.LinkName && !outside.IsThere)
                    ? [Message.LinkName]
                    : (string[])[],
            ],
            outside.IsThere
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
        Told told,
        SettingStore settings,
        FirmDay day,
        OutsideAddress outside,
        TimeProvider time
    )
    {
        var found = Found(revisions, id, revision);
        var message = again.Message;
        message.Check();
        CheckLink(message, outside);
        // What says no figure needs none reckoned, and goes out whatever the rules have become.
        if (
            FigureNames
                .In(message.Subject)
                .Concat(FigureNames.In(message.Words).Where(n => n.Name != Message.LinkName))
                .Any()
        )
        {
            var (estimate, party, brand, letters) = AsSent(found);
            message = Filled(message, estimate, party, brand, letters, outside);
        }
        var (now, firm) = (time.GetUtcNow().UtcDateTime, found.Document.Document.Head.Firm);
        revisions.Record(
            id,
            new(again.Fact, revision, FactKind.SentAgain, now, JobEndpoints.Owner, message.Went()),
            day.Today,
            Bringing(
                message,
                new(
                    Guid.Empty,
                    again.Fact,
                    id,
                    revision,
                    now,
                    firm,
                    Sender(settings),
                    message.To[0],
                    message.Subject,
                    message.Words,
                    NameOf(found),
                    found.Pdf
                ),
                outside
            )
        );
        return told.Of(open.Get(id).Estimate);
    }

    private static RevisionsView Record(
        Guid id,
        Guid revision,
        RecordFact record,
        OpenJobs open,
        RevisionStore revisions,
        Told told,
        FirmDay day,
        TimeProvider time
    )
    {
        if (!OfTheFirm.Contains(record.Kind))
            throw RefusedException.Of("kind", "That is not for the firm to record.");
        CheckWords(record.Words);
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
        return told.Of(open.Get(id).Estimate);
    }

    private static void CheckWords(string words)
    {
        if (words.Length > 2000)
            throw RefusedException.Of("words", "At most 2,000 characters.");
    }

    /// <summary>Makes a link by hand; its address is said in this answer and never again.</summary>
    private static LinkMade MakeLink(
        Guid id,
        Guid revision,
        MakeLink make,
        RevisionStore revisions,
        FirmDay day,
        OutsideAddress outside,
        TimeProvider time
    )
    {
        var who = make.For.Trim();
        Link.CheckFor(who);
        if (revisions.Row(id, revision) is null)
            throw new NotThereException("That revision is not in this job.");
        var now = time.GetUtcNow().UtcDateTime;
        var (made, address) = NewLinkTo(revision, who, make.Signs, now, outside);
        var was = revisions.Life(id).Facts.Length;
        var life = revisions.Record(
            id,
            new(
                make.Fact,
                revision,
                FactKind.SentAgain,
                now,
                JobEndpoints.Owner,
                $"a link for {who}, {(make.Signs ? "to read, ask and sign" : "to read and ask")}"
            ),
            day.Today,
            new([made], [])
        );
        return life.Facts.Length > was
            ? new(address)
            : throw RefusedException.Of(
                "for",
                "That link was made before, and its address is said only once. Make another one."
            );
    }

    private static RevisionsView Revoke(
        Guid id,
        Guid revision,
        Guid link,
        RevokeLink revoke,
        OpenJobs open,
        RevisionStore revisions,
        LinkStore links,
        Told told,
        FirmDay day,
        TimeProvider time
    )
    {
        var found =
            links.Of(id)[revision].FirstOrDefault(l => l.Id == link) ?? throw new NotThereException(
                "That link is not in this job."
            );
        revisions.Record(
            id,
            new(
                revoke.Fact,
                revision,
                FactKind.LinkRevoked,
                time.GetUtcNow().UtcDateTime,
                JobEndpoints.Owner,
                found.For
            )
            {
                Link = link,
            },
            day.Today
        );
        return told.Of(open.Get(id).Estimate);
    }

    /// <summary>What the customer chose, and what takes it into the job as it stands (L9).</summary>
    private static ChosenView Chosen(Guid id, Guid revision, OpenJobs open, Signings signings)
    {
        var (frozen, selection) = (Frozen(signings, id, revision), signings.Selected(revision));
        var statement = frozen.With(selection, out _).Statement;
        var takes = TakeOver.Of(open.Get(id).Estimate, selection, JobFile.Read(frozen.Revision.JobFile, out Party? _));
        return new(statement.Taken, statement.Total, takes.Commands, takes.Gone);
    }

    /// <summary>The customer signs at the firm's own tablet.</summary>
    private static PageNow AcceptInPerson(
        Guid id,
        Guid revision,
        AcceptRevision accept,
        FirmDay day,
        Signings signings,
        Live live
    )
    {
        var frozen = Frozen(signings, id, revision);
        var life = signings.Accept(id, frozen, accept, accept.Id, null);
        live.Happened(id);
        return PageNow.Of(frozen, life, null, day, signings);
    }

    /// <summary>The firm signs too (L16), or somebody else of the customer's side (L21).</summary>
    private static RevisionsView SignsToo(
        Guid id,
        Guid revision,
        SignToo sign,
        OpenJobs open,
        RevisionStore revisions,
        Signings signings,
        Told told
    )
    {
        if (revisions.Row(id, revision) is null)
            throw new NotThereException("That revision is not in this job.");
        signings.Sign(revisions.Life(id), revision, sign.Id, sign.ByFirm, sign.Name, sign.Drawn);
        return told.Of(open.Get(id).Estimate);
    }

    private static async Task<IResult> Signed(
        Guid id,
        Guid revision,
        RevisionStore revisions,
        Signings signings,
        FileStore files
    )
    {
        var found = Found(revisions, id, revision);
        var signed =
            signings.Standing(revisions.Life(id), revision) ?? throw new NotThereException("Nothing was signed there.");
        return Results.Stream(
            files.Read(await signings.Pdf(found, signed)),
            "application/pdf",
            "Signed, " + NameOf(found)
        );
    }

    private static QuestionsView Answer(
        Guid id,
        Guid revision,
        AnswerQuestion answer,
        RevisionStore revisions,
        FirmDay day,
        TimeProvider time
    )
    {
        CheckWords(answer.Words);
        if (revisions.Row(id, revision) is null)
            throw new NotThereException("That revision is not in this job.");
        var life = revisions.Record(
            id,
            new(
                answer.Id,
                revision,
                FactKind.Answered,
                time.GetUtcNow().UtcDateTime,
                JobEndpoints.Owner,
                answer.Words.Trim()
            )
            {
                About = answer.Question,
            },
            day.Today
        );
        return QuestionsView.Of(life, day);
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
