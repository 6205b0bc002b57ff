using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Storage;
using Emendum.Web.Outside;

namespace Emendum.Web.Jobs;

/// <summary>Sends a revision that went out before once more, by mail.</summary>
/// <param name="Fact">Id of the fact, and of the mail.</param>
/// <param name="Message">The mail.</param>
public sealed record SendAgain(Guid Fact, Message Message);

/// <summary>The name of a message of the firm.</summary>
public sealed record MessageName(Guid Id, string Name);

/// <summary>A message with its figures filled in, to be written on.</summary>
/// <param name="From">From which address mail comes; empty where the firm has not said.</param>
/// <param name="To">The customer's address, or number; empty where there is none.</param>
/// <param name="Text">Which of the firm's messages it is.</param>
/// <param name="Texts">All of them.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="Words">Its words.</param>
/// <param name="Missing">Figures by name that come to nothing here.</param>
/// <param name="WithLink">Whether a link to the customer's page goes with it.</param>
/// <param name="ToServer">Whether the firm has a mail server that takes mail by itself.</param>
public sealed record MessageDraft(
    string From,
    string To,
    Guid Text,
    IReadOnlyList<MessageName> Texts,
    string Subject,
    string Words,
    IReadOnlyList<string> Missing,
    bool WithLink,
    bool ToServer
);

/// <summary>Revisions go out by mail: what the firm's messages say, and a mail with a link to each recipient.</summary>
public static class RevisionMails
{
    /// <summary>Maps what is asked of them.</summary>
    public static void MapRevisionMails(this IEndpointRouteBuilder jobs)
    {
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/mails", Again);
        jobs.MapGet("/{id:guid}/revisions/message", Drafted);
    }

    /// <summary>A message as it goes out: every figure that it says by name is filled in.</summary>
    /// <exception cref="RefusedException">It cannot go out; names the field.</exception>
    internal static Message Filled(
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

    /// <summary>Refuses words that say where a link stands when there can be none, and a text message, which brings nothing else.</summary>
    internal static void CheckLink(Message asked, OutsideAddress outside)
    {
        if (!outside.IsThere && asked.Way == MessageWay.Text)
            throw RefusedException.Of(
                "words",
                "A text message brings a link, and there can be none: the program was started without --public."
            );
        if (!outside.IsThere && Message.NamesLink(asked.Words))
            throw RefusedException.Of(
                "words",
                "There is no link that could stand there: the program was started without --public. Take it out of the words."
            );
    }

    /// <summary>Subject of the mail that brings a change order.</summary>
    internal static string ChangeSubject(int number, string title, string job) =>
        $"Change order {number}: {(title.Length > 0 ? title + ", " : "")}{job}";

    /// <summary>Words of the mail that brings a change order.</summary>
    internal static string ChangeWords(string firm, bool withLink) =>
        $"Good day,\n\nattached is a change to what we agreed: what it adds or takes off, and what that comes to. {(withLink ? $"You can read it, ask about it and sign it here:\n\n{{{Core.Proposals.Message.LinkName}}}" : "Please sign it and send it back.")}\n\n{firm}";

    /// <summary>Refuses words of a change order that say figures by name: it has none.</summary>
    internal static void CheckNames(Message message)
    {
        if (
            FigureNames
                .In(message.Subject)
                .Concat(FigureNames.In(message.Words).Where(n => n.Name != Core.Proposals.Message.LinkName))
                .FirstOrDefault() is
            { Name: { } name }
        )
            throw RefusedException.Of("words", $"“{{{name}}}” comes to nothing in a change order: write it otherwise.");
    }

    /// <summary>A mail to each recipient, each with a link of its own where people outside can open one (L19).</summary>
    /// <param name="message">To whom, and what it says.</param>
    /// <param name="fact">The fact that they are written with.</param>
    /// <param name="revision">The revision that they bring.</param>
    /// <param name="sender">Address of the firm.</param>
    /// <param name="now">UTC.</param>
    /// <param name="outside">Where links lead.</param>
    internal static Brought Bringing(
        Message message,
        Guid fact,
        Revision revision,
        string sender,
        DateTime now,
        OutsideAddress outside
    )
    {
        var (links, mails) = (new List<NewLink>(), new List<Mail>());
        var byText = message.Way == MessageWay.Text;
        foreach (var to in message.To)
        {
            var mail = new Mail(
                Guid.CreateVersion7(),
                fact,
                revision.Job,
                revision.Start.Id,
                now,
                revision.Document.Document.Head.Firm,
                sender,
                to,
                message.Subject,
                message.Words,
                byText ? "" : RevisionEndpoints.NameOf(revision),
                byText ? "" : revision.Pdf
            )
            {
                Way = message.Way,
                More = byText
                    ? []
                    :
                    [
                        .. revision.Document.Document.Elements.OfType<Attached>().SelectMany(a => a.Files),
                        .. revision.Figures.Schedule is { Length: > 0 } schedule
                            ? new[] { new AttachedFile(schedule, RevisionEndpoints.ScheduleNameOf(revision)) }
                            : [],
                    ],
            };
            if (outside.IsThere)
            {
                var (made, address) = NewLinkTo(revision.Start.Id, to.Address, !to.Copy, mail.At, outside);
                links.Add(made);
                mail = mail with { LinkId = made.Link.Id, Link = address };
            }
            mails.Add(mail);
        }
        return new([.. links], [.. mails]);
    }

    /// <summary>A new link, and where it leads.</summary>
    internal static (NewLink Made, string Address) NewLinkTo(
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

    /// <summary>The firm's e-mail address; empty for a text message.</summary>
    /// <exception cref="RefusedException">It has not said one.</exception>
    internal static string Sender(Message message, SettingStore settings) =>
        message.Way == MessageWay.Text ? ""
        : settings.Get(MessageTexts.Setting, MessageTexts.Starting).From is { Length: > 0 } from ? from
        : throw RefusedException.Of("from", "The firm has no e-mail address yet: Office, Messages.");

    /// <summary>What a message of the firm says of a job as it stands, or of a revision as it was sent.</summary>
    private static MessageDraft Drafted(
        Guid id,
        Guid? text,
        Guid? revision,
        string? day,
        string? way,
        OpenJobs open,
        RevisionStore revisions,
        CustomerStore customers,
        SettingStore settings,
        OutsideAddress outside
    )
    {
        var texts = settings.Get(MessageTexts.Setting, MessageTexts.Starting);
        if (revision is { } of && RevisionEndpoints.Row(revisions, id, of).Start.IsChange)
            return DraftedChange(RevisionEndpoints.Found(revisions, id, of), way, open, customers, settings, outside);
        var chosen =
            texts.All.FirstOrDefault(m => m.Id == (text ?? texts.Usual))
            ?? throw new NotThereException("That message is not in the Office any more.");
        var now = open.Get(id).Estimate;
        // What goes out later says the days that count from then.
        if (Core.Quantities.Day.Read(day ?? "", out var goes))
            now = RevisionEndpoints.Dated(now, goes);
        var customer = customers.Find(now.Job.Info.Customer);
        var (estimate, party, brand, letters) = revision is { } sent
            ? AsSent(RevisionEndpoints.Found(revisions, id, sent))
            : (now, customers.Party(now.Job.Info.Customer), settings.Brand(), revisions.Life(id).Next);
        var byText = string.Equals(way, nameof(MessageWay.Text), StringComparison.OrdinalIgnoreCase);
        var (subject, words, missing) = Proposal.Filled(
            estimate,
            party,
            brand,
            letters,
            byText ? "" : chosen.Subject,
            byText ? texts.Text : chosen.Words
        );
        return new(
            texts.From,
            (byText ? customer?.Phone : customer?.Email) ?? "",
            chosen.Id,
            [.. texts.All.Select(m => new MessageName(m.Id, m.Name))],
            subject,
            words,
            [.. missing, .. !outside.IsThere && Message.NamesLink(words) ? [Message.LinkName] : (string[])[]],
            outside.IsThere,
            settings.Get(MailServer.Setting, MailServer.Starting).On
        );
    }

    /// <summary>What a message says that brings a change order once more.</summary>
    private static MessageDraft DraftedChange(
        Revision sent,
        string? way,
        OpenJobs open,
        CustomerStore customers,
        SettingStore settings,
        OutsideAddress outside
    )
    {
        var (texts, head) = (settings.Get(MessageTexts.Setting, MessageTexts.Starting), sent.Document.Document.Head);
        var customer = customers.Find(open.Get(sent.Job).Estimate.Job.Info.Customer);
        var byText = string.Equals(way, nameof(MessageWay.Text), StringComparison.OrdinalIgnoreCase);
        return new(
            texts.From,
            (byText ? customer?.Phone : customer?.Email) ?? "",
            Guid.Empty,
            [new(Guid.Empty, "A change order")],
            byText ? "" : $"{head.Title}, {head.Subtitle}",
            byText ? $"{head.Firm}: {head.Title}" : ChangeWords(head.Firm, outside.IsThere),
            [],
            outside.IsThere,
            settings.Get(MailServer.Setting, MailServer.Starting).On
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
        var found = RevisionEndpoints.Found(revisions, id, revision);
        var message = again.Message;
        message.Check();
        CheckLink(message, outside);
        if (found.Start.IsChange)
            CheckNames(message);
        // What says no figure needs none reckoned, and goes out whatever the rules have become.
        else if (
            FigureNames
                .In(message.Subject)
                .Concat(FigureNames.In(message.Words).Where(n => n.Name != Message.LinkName))
                .Any()
        )
        {
            var (estimate, party, brand, letters) = AsSent(found);
            message = Filled(message, estimate, party, brand, letters, outside);
        }
        var now = time.GetUtcNow().UtcDateTime;
        revisions.Record(
            id,
            new(again.Fact, revision, FactKind.SentAgain, now, JobEndpoints.Owner, message.Went()),
            day.Today,
            Bringing(message, again.Fact, found, Sender(message, settings), now, outside)
        );
        return told.Of(open.Get(id).Estimate);
    }
}
