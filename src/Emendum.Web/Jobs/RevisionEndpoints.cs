using System.Collections.Immutable;
using System.Globalization;
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
using Emendum.Documents.Workbooks;
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
/// <param name="Day">Of a mail: the day on which it goes out, like 2027-01-31; empty for now.</param>
/// <param name="Time">The time on that day by the firm's clock, like 8:00; empty for now.</param>
public sealed record SendRevision(
    Guid Id,
    Guid Fact,
    long Base,
    string How,
    string Despite,
    Message? Message,
    string Day,
    string Time
)
{
    /// <summary>The further estimates that its sender has seen, where there are any.</summary>
    public ImmutableArray<FurtherSeen> Further { get; init; } = [];
}

/// <summary>Cancels a revision that waits to go out.</summary>
/// <param name="Id">The revision.</param>
public sealed record CancelSending(Guid Id);

/// <summary>Records something that happened to a revision.</summary>
/// <param name="Id">Id of the fact.</param>
/// <param name="Kind">What happened.</param>
/// <param name="Words">The reason, or how it came.</param>
/// <param name="Day">A day that it says, like 2027-01-31; empty for none.</param>
/// <param name="AsSent">Of a yes: whether it is to the revision as it was sent, whatever was chosen on the page.</param>
/// <param name="Photo">Of a yes on paper: hash of its photo or scan, which is here already; empty for none.</param>
public sealed record RecordFact(Guid Id, FactKind Kind, string Words, string Day, bool AsSent, string Photo);

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
        jobs.MapPost("/{id:guid}/revisions/cancel", Cancel);
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
                (Guid id, Guid revision, bool? inline, RevisionStore revisions, FileStore files) =>
                    Pdf(Found(revisions, id, revision), files, inline is true)
            )
            .Produces<byte[]>(200, "application/pdf");
        jobs.MapGet(
                "/{id:guid}/revisions/{revision:guid}/schedule.xlsx",
                (Guid id, Guid revision, RevisionStore revisions, FileStore files) =>
                    Schedule(Found(revisions, id, revision), files)
            )
            .Produces<byte[]>(200, TableEndpoints.Workbooks);
        jobs.MapPost("/{id:guid}/revisions/{revision:guid}/facts", Record);
        jobs.MapRevisionMails();
        jobs.MapCustomersSide();
    }

    /// <summary>A revision, whole.</summary>
    /// <exception cref="NotThereException">It is not in that job.</exception>
    internal static Revision Found(RevisionStore revisions, Guid job, Guid id) =>
        revisions.Find(job, id) ?? throw NotInJob();

    /// <summary>A revision as lists have it.</summary>
    /// <exception cref="NotThereException">It is not in that job.</exception>
    internal static RevisionRow Row(RevisionStore revisions, Guid job, Guid id) =>
        revisions.Row(job, id) ?? throw NotInJob();

    /// <summary>What is said of a revision that is not there.</summary>
    internal static NotThereException NotInJob() => new("That revision is not in this job.");

    /// <summary>The PDF of a revision as it was sent: to be kept, or to be shown by the browser, which prints it.</summary>
    internal static IResult Pdf(Revision revision, FileStore files, bool inline = false)
    {
        var file = files.Find(revision.Pdf) ?? throw new NotThereException("That PDF is not here any more.");
        return Results.Stream(files.Read(file), "application/pdf", inline ? null : NameOf(revision));
    }

    /// <summary>The customer's schedule as a revision gave it back, priced.</summary>
    /// <exception cref="NotThereException">It did not.</exception>
    internal static IResult Schedule(Revision revision, FileStore files) =>
        files.Find(revision.Figures.Schedule) is { } file
            ? Results.Stream(files.Read(file), file.Type, ScheduleNameOf(revision))
            : throw new NotThereException("There is nothing here.");

    /// <summary>File name of its priced schedule.</summary>
    internal static string ScheduleNameOf(Revision revision) =>
        $"Schedule, {revision.Document.Document.Head.Title}, revision {revision.Start.Letters}.xlsx";

    /// <summary>File name of its PDF.</summary>
    internal static string NameOf(Revision revision) =>
        revision.Start.IsChange
            ? $"{revision.Document.Document.Head.Title.Replace(':', ',')}.pdf"
            : $"{revision.Document.Document.Head.Title}, revision {revision.Start.Letters}.pdf";

    private static async Task<RevisionsView> Send(
        Guid id,
        SendRevision send,
        OpenJobs open,
        RevisionStore revisions,
        ScheduledStore scheduled,
        Told told,
        CustomerStore customers,
        SettingStore settings,
        FileStore files,
        Pictures pictures,
        FirmDay day,
        OutsideAddress outside,
        TimeProvider time
    )
    {
        // One look at the job: its version and what it is belong together.
        var (version, estimate, _, _) = open.Get(id).Now;
        var life = revisions.Life(id);
        if (life.Facts.Any(f => f.Id == send.Fact) || scheduled.Has(send.Id))
            return told.Of(estimate);
        if (version != send.Base)
            throw RefusedException.Of("base", "The job has changed since you looked at it. Look once more, and send.");
        if (send.How.Length > 200 || send.Despite.Length > 500)
            throw RefusedException.Of("how", "At most 200 characters for how it goes out, and 500 for why.");
        var now = time.GetUtcNow().UtcDateTime;
        var goes = Goes(send, day, now);
        // The date of what goes out later, and until when it holds, count from the day on which it goes.
        if (goes is { } later)
            estimate = Dated(estimate, day.Days()(later));
        var (job, brand) = (estimate.Job, settings.Brand());
        var party = customers.Party(job.Info.Customer);
        var further = FurtherEstimates.Sent(job, send.Further, open);
        var document = Proposal.Of(
            estimate,
            party,
            brand,
            Trace.Silent,
            life.Next,
            [.. further.Select(f => f.Estimate)]
        );
        if (job.PricesHoldUntil < day.Today)
            throw RefusedException.Of("validDays", "The prices hold no longer: set a new date of the proposal first.");
        var on = goes is { } then ? day.Days()(then) : day.Today;
        Unfinished[] holes =
        [
            .. BeforeSending.Of(estimate, document, on),
            .. FurtherEstimates.Holes(job, open, party, on),
        ];
        if (holes.Length > 0 && string.IsNullOrWhiteSpace(send.Despite))
            throw RefusedException.Of("despite", $"{holes[0].Says} Say why it goes out all the same.");
        CheckFiles(document, files);
        var message = send.Message is { } asked
            ? RevisionMails.Filled(asked, estimate, party, brand, life.Next, outside)
            : null;
        var sender = message is null ? "" : RevisionMails.Sender(message, settings);
        var revision = await Freeze(
            send.Id,
            life.NextNumber,
            version,
            estimate,
            document,
            party,
            brand,
            files,
            pictures,
            now
        );
        ImmutableArray<Revision> others =
        [
            .. further.Select(f =>
                FrozenWith(revision, revisions.Life(f.Estimate.Job.Id).NextNumber, f.Version, f.Estimate, party, brand)
            ),
        ];
        var despite = holes.Length == 0 ? "" : $"unfinished: {send.Despite.Trim()}";
        if (goes is { } at)
        {
            scheduled.Set(
                new(new(send.Id, revision.Start.Number, at), id, send.Fact, JobEndpoints.Owner),
                new(revision, message!, sender, despite) { Further = others },
                now
            );
            return told.Of(open.Get(id).Estimate);
        }
        revisions.Send(
            revision,
            SentBy(send.Fact, revision, now, JobEndpoints.Owner, message?.Went() ?? send.How.Trim(), despite, others),
            message is null
                ? Brought.Nothing
                : RevisionMails.Bringing(message, send.Fact, revision, sender, now, outside),
            further: others
        );
        return told.Of(estimate);
    }

    /// <summary>Refuses a document with a picture or an attachment that is not here, as it can be of a job that was brought in.</summary>
    private static void CheckFiles(Document document, FileStore files)
    {
        var named = document.Elements.SelectMany(element =>
            element switch
            {
                PictureRow row => row.Pictures.Select(p => (p.File, What: "A picture")),
                Attached attached => attached.Files.Select(f => (f.File, What: $"“{f.Name}”")),
                _ => [],
            }
        );
        if (named.FirstOrDefault(n => files.Find(n.File) is null) is { What: { } what })
            throw RefusedException.Of("files", $"{what} of the proposal is not here: choose it once more.");
    }

    /// <summary>A job as it would be with another date of its proposal.</summary>
    internal static Estimate Dated(Estimate estimate, DateOnly day) =>
        Estimate.Of(estimate.Job with { Info = estimate.Job.Info with { Date = FirmDay.Write(day) } }, Trace.Silent);

    /// <summary>When it goes out (UTC); null for now.</summary>
    /// <exception cref="RefusedException">It is no moment to come, or it does not go by mail.</exception>
    private static DateTime? Goes(SendRevision send, FirmDay day, DateTime now)
    {
        if (send.Day.Trim().Length == 0 && send.Time.Trim().Length == 0)
            return null;
        if (send.Message is null)
            throw RefusedException.Of("day", "Only a message goes out by itself at a later time.");
        if (!Core.Quantities.Day.Read(send.Day.Trim(), out var on))
            throw RefusedException.Of("day", "Write a day like 2027-01-31.");
        if (
            !TimeOnly.TryParseExact(
                send.Time.Trim(),
                ["H:mm", "HH:mm"],
                CultureInfo.InvariantCulture,
                DateTimeStyles.None,
                out var hour
            )
        )
            throw RefusedException.Of("time", "Write a time of the day like 8:00 or 16:30.");
        var goes = day.At(on, hour);
        if (goes <= now)
            throw RefusedException.Of("time", "That is past: say a moment to come.");
        if (goes > now.AddDays(Scheduled.MostDays))
            throw RefusedException.Of("day", $"At most {Scheduled.MostDays} days ahead.");
        return goes;
    }

    /// <summary>Cancels what waits to go out: its letters are free again.</summary>
    private static RevisionsView Cancel(
        Guid id,
        CancelSending cancel,
        OpenJobs open,
        ScheduledStore scheduled,
        Told told,
        TimeProvider time
    )
    {
        // What has ended or gone out already stays as it is, and the answer says how it stands.
        scheduled.Ends(id, cancel.Id, ScheduledOutcome.Cancelled, "", time.GetUtcNow().UtcDateTime);
        return told.Of(open.Get(id).Estimate);
    }

    /// <summary>The fact that a revision went out.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="revision">The revision.</param>
    /// <param name="now">When (UTC).</param>
    /// <param name="by">Whose doing it was.</param>
    /// <param name="how">How it went out.</param>
    /// <param name="despite">Why it did though something is unfinished; empty where nothing is.</param>
    /// <param name="further">The further estimates that went out with it.</param>
    internal static Fact SentBy(
        Guid id,
        Revision revision,
        DateTime now,
        string by,
        string how,
        string despite,
        ImmutableArray<Revision>? further = null
    ) =>
        new(
            id,
            revision.Start.Id,
            FactKind.Sent,
            now,
            by,
            string.Join("; ", new[] { how, despite }.Where(w => w.Length > 0))
        )
        {
            Total = revision.Figures.Total + (further ?? []).Sum(f => f.Figures.Total),
        };

    /// <summary>A job as it stands, frozen as a revision: its PDF is made, and is on disk.</summary>
    /// <param name="id">Id of the revision.</param>
    /// <param name="number">Its number in the job, from 1.</param>
    /// <param name="version">The version of the job.</param>
    /// <param name="estimate">The job, priced.</param>
    /// <param name="document">Its document.</param>
    /// <param name="party">The customer.</param>
    /// <param name="brand">The look.</param>
    /// <param name="files">Takes the PDF.</param>
    /// <param name="pictures">Of the firm's mark and of the document.</param>
    /// <param name="now">When (UTC).</param>
    internal static async Task<Revision> Freeze(
        Guid id,
        int number,
        long version,
        Estimate estimate,
        Document document,
        Party party,
        Brand brand,
        FileStore files,
        Pictures pictures,
        DateTime now
    )
    {
        var job = estimate.Job;
        using var content = new MemoryStream(await ProposalEndpoints.Set(document, job.Info, brand, pictures));
        var pdf = await files.Take(content, FileEndpoints.Kind, now, CancellationToken.None);
        files.Name(pdf.Hash);
        var figures = RevisionFigures.Of(estimate);
        if (PricedSchedule.In(document) is { } table)
        {
            using var priced = new MemoryStream(PricedSchedule.Write(document.Head, table, figures.Places));
            var schedule = await files.Take(
                priced,
                _ => (TableEndpoints.Workbooks, null, null),
                now,
                CancellationToken.None
            );
            files.Name(schedule.Hash);
            figures = figures with { Schedule = schedule.Hash };
        }
        return new(
            new(id, number, job.PricesHoldUntil),
            job.Id,
            version,
            Rules.Version,
            JobFile.Write(job, party: party == Party.None ? null : party),
            JsonSerializer.SerializeToUtf8Bytes(Reported.Of(job), CoreJson.Options),
            new(document, brand),
            figures,
            pdf.Hash
        );
    }

    /// <summary>A further estimate as it stands, frozen with the revision that it goes out with: it holds as long as that, and its paper is that one's.</summary>
    /// <param name="lead">That revision.</param>
    /// <param name="number">The number that it takes in its own job.</param>
    /// <param name="version">The version of its job.</param>
    /// <param name="estimate">Its job, priced.</param>
    /// <param name="party">The customer.</param>
    /// <param name="brand">The look.</param>
    internal static Revision FrozenWith(
        Revision lead,
        int number,
        long version,
        Estimate estimate,
        Party party,
        Brand brand
    )
    {
        var start = new RevisionStart(Guid.CreateVersion7(), number, lead.Start.ValidUntil)
        {
            Lead = new(lead.Job, lead.Start.Id),
        };
        return new(
            start,
            estimate.Job.Id,
            version,
            Rules.Version,
            JobFile.Write(estimate.Job, party: party == Party.None ? null : party),
            JsonSerializer.SerializeToUtf8Bytes(Reported.Of(estimate.Job), CoreJson.Options),
            new(Proposal.Of(estimate, party, brand, Trace.Silent, start.Letters), brand),
            RevisionFigures.Of(estimate),
            lead.Pdf
        );
    }

    private static RevisionsView Record(
        Guid id,
        Guid revision,
        RecordFact record,
        OpenJobs open,
        RevisionStore revisions,
        Told told,
        Signings signings,
        FileStore files,
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
        var fact = new Fact(
            record.Id,
            revision,
            record.Kind,
            time.GetUtcNow().UtcDateTime,
            JobEndpoints.Owner,
            record.Words.Trim()
        )
        {
            Day = says,
        };
        if (record.Kind == FactKind.YesRecorded)
        {
            if (record.Photo.Length > 0)
                files.NamePaper(record.Photo, "photo");
            signings.Record(
                id,
                signings.Frozen(id, revision) ?? throw NotInJob(),
                fact with
                {
                    Photo = record.Photo.Length > 0 ? record.Photo : null,
                },
                record.AsSent
            );
        }
        else
        {
            _ = Row(revisions, id, revision);
            revisions.Record(id, fact, day.Today);
        }
        return told.Of(open.Get(id).Estimate);
    }

    /// <summary>Refuses words that are too many.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    internal static void CheckWords(string words)
    {
        if (words.Length > Fact.MostWords)
            throw RefusedException.Of("words", $"At most {Fact.MostWords:N0} characters.");
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
            // Once one is accepted there is no next; what is compared with it is the job itself.
            var life = revisions.Life(id);
            letters = life.Acceptance is null ? life.Next : "the job";
            (figures, document) = (
                RevisionFigures.Of(estimate),
                Proposal.Of(
                    estimate,
                    customers.Party(estimate.Job.Info.Customer),
                    settings.Brand(),
                    Trace.Silent,
                    letters,
                    FurtherEstimates.Of(estimate.Job, open)
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
