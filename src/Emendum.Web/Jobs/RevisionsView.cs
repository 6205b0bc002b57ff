using Emendum.Core.Delivery;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Outside;

namespace Emendum.Web.Jobs;

/// <summary>Something that happened, as a history says it.</summary>
/// <param name="Did">What: <c>sent</c>.</param>
/// <param name="Words">The reason, or how it came.</param>
/// <param name="At">When, in the firm's zone.</param>
/// <param name="By">By whom.</param>
/// <param name="Mails">The mails that were written with it.</param>
/// <param name="Photo">Hash of a photo or scan that belongs to it; empty for none.</param>
public sealed record FactView(
    Guid Id,
    string Did,
    string Words,
    string At,
    string By,
    IReadOnlyList<MailOfFact> Mails,
    string Photo
);

/// <summary>A mail that was written with a fact.</summary>
/// <param name="Id">Its id in the outbox.</param>
/// <param name="Address">To whom.</param>
public sealed record MailOfFact(Guid Id, string Address);

/// <summary>A customer's link as the firm lists it; what opens it, nobody here knows.</summary>
/// <param name="Id">Its id.</param>
/// <param name="For">Whom it was made for.</param>
/// <param name="Signs">Whether they may sign.</param>
/// <param name="Made">When it was made, in the firm's zone.</param>
/// <param name="State">How it stands.</param>
/// <param name="Says">That in words: <c>seen Mon 30 Nov 2026, 8:30</c>, <c>not opened yet</c>.</param>
public sealed record LinkView(Guid Id, string For, bool Signs, string Made, LinkState State, string Says);

/// <summary>A question with its answers.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Revision">The revision that it is about.</param>
/// <param name="Called">As that one is called: <c>Revision A</c>, <c>Change order 1</c>.</param>
/// <param name="By">Who asked.</param>
/// <param name="At">When, in the firm's zone.</param>
/// <param name="Words">The question.</param>
/// <param name="Answers">What was answered.</param>
public sealed record AskedView(
    Guid Id,
    Guid Revision,
    string Called,
    string By,
    string At,
    string Words,
    IReadOnlyList<FactView> Answers
);

/// <summary>All questions about a job's proposal, the latest first.</summary>
/// <param name="Open">How many wait for an answer.</param>
/// <param name="Questions">They.</param>
public sealed record QuestionsView(int Open, IReadOnlyList<AskedView> Questions)
{
    /// <summary>Those of a proposal and of change orders.</summary>
    public static QuestionsView Of(IReadOnlyCollection<ProposalLife> lives, FirmDay day)
    {
        var moment = day.Moments();
        var answers = lives.SelectMany(l => l.Facts).Where(f => f.About is not null).ToLookup(f => f.About!.Value);
        var asked = lives
            .SelectMany(life => life.Facts.Where(f => f.Kind == FactKind.Asked).Select(f => (Life: life, Fact: f)))
            .Reverse()
            .OrderByDescending(q => q.Fact.At);
        return new(
            lives.Sum(l => l.Unanswered.Count()),
            [
                .. asked.Select(q => new AskedView(
                    q.Fact.Id,
                    q.Fact.Revision,
                    q.Life.Revision(q.Fact.Revision).Called,
                    q.Fact.By,
                    moment(q.Fact.At),
                    q.Fact.Words,
                    [
                        .. answers[q.Fact.Id]
                            .Select(a => new FactView(a.Id, "answered", a.Words, moment(a.At), a.By, [], "")),
                    ]
                )),
            ]
        );
    }
}

/// <summary>The proposal of another job that an estimate went out with.</summary>
/// <param name="Job">That job.</param>
/// <param name="Name">Its number and name.</param>
/// <param name="Letters">Letters of its revision.</param>
public sealed record LeadView(Guid Job, string Name, string Letters);

/// <summary>A revision as the station lists it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Letters">Its letters; of a change order its number.</param>
/// <param name="IsChange">Whether it is a change order, in a chain of its own.</param>
/// <param name="State">How it stands.</param>
/// <param name="StateWords">That in words.</param>
/// <param name="HoldsUntil">Last day of its prices, as the firm has it by now; empty for none.</param>
/// <param name="PrintedUntil">The same as its document says it.</param>
/// <param name="BeforeTax">Its price before tax.</param>
/// <param name="Total">What the customer pays.</param>
/// <param name="Lead">The proposal of another job that it went out with; null where it went out by itself.</param>
/// <param name="Further">The further estimates that went out with it, each with its total.</param>
/// <param name="All">What the customer pays for all of them, with tax; empty where there are no further ones.</param>
/// <param name="History">What happened, the latest last.</param>
/// <param name="Links">The customer's links to it.</param>
/// <param name="Selection">Version of what the customer chose; 0 for nothing.</param>
/// <param name="Agreed">Whether it was agreed, and stands.</param>
/// <param name="Signed">The names under what was agreed; empty where nothing was signed.</param>
/// <param name="Schedule">Whether it gave the customer's schedule back, priced.</param>
/// <param name="May">What the firm can record of it now.</param>
public sealed record RevisionView(
    Guid Id,
    string Letters,
    bool IsChange,
    RevisionState State,
    string StateWords,
    string HoldsUntil,
    string PrintedUntil,
    string BeforeTax,
    string Total,
    LeadView? Lead,
    IReadOnlyList<string> Further,
    string All,
    IReadOnlyList<FactView> History,
    IReadOnlyList<LinkView> Links,
    int Selection,
    bool Agreed,
    IReadOnlyList<SignedBy> Signed,
    bool Schedule,
    IReadOnlyList<FactKind> May
);

/// <summary>What the customer chose of a revision.</summary>
/// <param name="Names">What was chosen otherwise than it was sent.</param>
/// <param name="Total">What the customer pays with it, with tax.</param>
/// <param name="TakesOver">What takes it into the job as it stands, in order; empty where all of it stands there.</param>
/// <param name="Gone">What is not in the job any more.</param>
public sealed record ChosenView(
    IReadOnlyList<string> Names,
    string Total,
    IReadOnlyList<Command> TakesOver,
    IReadOnlyList<string> Gone
);

/// <summary>How a proposal stands, for whoever shows it beside something else.</summary>
/// <param name="Words">In a few words: <c>Rev A seen</c>, or <c>draft</c>.</param>
/// <param name="Next">Letters of the revision that would be sent next.</param>
/// <param name="WasSent">Whether one was sent.</param>
/// <param name="Questions">Questions that wait for an answer.</param>
public sealed record StandsView(string Words, string Next, bool WasSent, int Questions)
{
    /// <summary>It, on a day.</summary>
    public static StandsView Of(ProposalLife life, DateOnly today) =>
        life.Revisions is [.., var latest]
            ? new(
                $"Rev {latest.Letters} {life.StateOf(latest.Id, today).Words()}",
                life.Next,
                true,
                life.Unanswered.Count()
            )
            : new("draft", life.Next, false, 0);
}

/// <summary>The revisions of a job, the latest first.</summary>
/// <param name="Next">Letters of the one that would be sent next.</param>
/// <param name="Closed">Why none can be sent any more; empty where one can.</param>
/// <param name="BeforeTax">Price before tax of the job as it stands.</param>
/// <param name="Differs">Whether the job would read or cost otherwise than the latest that was sent; true where none was.</param>
/// <param name="Outside">Whether people outside can open a page: links can be made.</param>
/// <param name="Scheduled">What waits to go out; null for nothing.</param>
/// <param name="Dropped">Why what was last to go out did not; empty where nothing has to be told.</param>
/// <param name="Further">The further estimates that the proposal names, as they stand.</param>
/// <param name="Revisions">Those that were sent.</param>
public sealed record RevisionsView(
    string Next,
    string Closed,
    string BeforeTax,
    bool Differs,
    bool Outside,
    ScheduledView? Scheduled,
    string Dropped,
    IReadOnlyList<FurtherJob> Further,
    IReadOnlyList<RevisionView> Revisions
);

/// <summary>A revision that waits to go out.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Letters">Its letters.</param>
/// <param name="Goes">When it goes, in the firm's zone.</param>
public sealed record ScheduledView(Guid Id, string Letters, string Goes);

/// <summary>Tells of the revisions of jobs.</summary>
public sealed class Told(
    RevisionStore revisions,
    JobStore jobs,
    OpenJobs open,
    ScheduledStore scheduled,
    MailStore mailStore,
    LinkStore linkStore,
    FirmDay day,
    OutsideAddress outside,
    Signings signings,
    TimeProvider time
)
{
    /// <summary>Those of a job.</summary>
    public RevisionsView Of(Estimate estimate)
    {
        var job = estimate.Job.Id;
        var (life, rows) = (revisions.Life(job), revisions.Of(job));
        var (today, moment, mails, links) = (day.Today, day.Moments(), mailStore.Of(job), linkStore.Of(job));
        var (now, further) = (time.GetUtcNow().UtcDateTime, revisions.FurtherOf(job));
        LinkView Listed(Link link) => Told.Listed(link, life, moment, now);
        return new(
            life.Next,
            life.Acceptance is { } yes
                ? $"Revision {life.Revision(yes.Revision).Letters} is accepted: what is wanted next is a change order."
                : "",
            Money(estimate.Price.BeforeTax.V, estimate.MoneyPlaces),
            rows.Count == 0
                || rows[0].Figures.Total != estimate.Price.Total.V
                || !Same(rows[0].Figures, RevisionFigures.Of(estimate)),
            outside.IsThere,
            life.Waiting is { } waits ? new(waits.Id, waits.Letters, moment(waits.Goes)) : null,
            scheduled.Dropped(job),
            FurtherEstimates.Seen(estimate.Job, open),
            [
                .. rows.Select(r =>
                    Row(
                        r,
                        life,
                        r.Start.Lead is { } lead
                            ? new LeadView(lead.Job, jobs.NameOf(lead.Job), LedLetters(life, r.Start.Id))
                            : null,
                        [.. further[r.Start.Id]],
                        today,
                        moment,
                        mails,
                        [.. links[r.Start.Id].Select(Listed)],
                        revisions.Selected(r.Start.Id).Version,
                        signings.Standing(life, r.Start.Id)
                    )
                ),
            ]
        );
    }

    /// <summary>The change orders of a job as revisions, the latest first.</summary>
    /// <param name="job">The job.</param>
    /// <param name="changes">They.</param>
    public IReadOnlyList<RevisionView> Changes(Guid job, IEnumerable<SentChange> changes)
    {
        var (today, moment, mails, links) = (day.Today, day.Moments(), mailStore.Of(job), linkStore.Of(job));
        var now = time.GetUtcNow().UtcDateTime;
        return
        [
            .. changes
                .Reverse()
                .Select(c =>
                    Row(
                        revisions.Row(job, c.Order.Revision)!,
                        c.Life,
                        null,
                        [],
                        today,
                        moment,
                        mails,
                        [.. links[c.Order.Revision].Select(link => Listed(link, c.Life, moment, now))],
                        0,
                        signings.Standing(c.Life, c.Order.Revision)
                    )
                ),
        ];
    }

    private static LinkView Listed(Link link, ProposalLife life, Func<DateTime, string> moment, DateTime now) =>
        new(link.Id, link.For, link.Signs, moment(link.Made), link.StateAt(now), Says(link, life, moment, now));

    private static string LedLetters(ProposalLife life, Guid revision)
    {
        var (led, id) = life.Led(revision);
        return led.Revision(id).Letters;
    }

    /// <summary>How a link stands, in words. Of who has a copy nobody learns whether they looked (L19).</summary>
    private static string Says(Link link, ProposalLife life, Func<DateTime, string> moment, DateTime now) =>
        link.StateAt(now) switch
        {
            LinkState.Revoked => $"revoked {moment(link.Revoked!.Value)}",
            LinkState.Ended => $"ended {moment(link.Ends)}",
            _ when !link.Signs => $"until {moment(link.Ends)}",
            _ => life.Facts.LastOrDefault(f => f.Link == link.Id && f.Kind == FactKind.Seen) is { } seen
                ? $"last seen {moment(seen.At)}"
                : "not opened yet",
        };

    private static bool Same(RevisionFigures a, RevisionFigures b) =>
        a.Lines.SequenceEqual(b.Lines) && a.Steps.SequenceEqual(b.Steps);

    private static RevisionView Row(
        RevisionRow row,
        ProposalLife life,
        LeadView? lead,
        IReadOnlyList<(string Name, RevisionFigures Figures)> further,
        DateOnly today,
        Func<DateTime, string> moment,
        ILookup<Guid, (Guid Id, string Address)> mails,
        IReadOnlyList<LinkView> links,
        int selection,
        Acceptance? agreed
    )
    {
        var (start, figures) = row;
        var state = life.StateOf(start.Id, today);
        return new(
            start.Id,
            start.Letters,
            start.IsChange,
            state,
            state.Words(),
            Said(life.HoldsUntil(start.Id)),
            Said(start.ValidUntil),
            Money(figures.BeforeTax, figures.Places),
            Money(figures.Total, figures.Places),
            lead,
            [.. further.Select(f => $"{f.Name}, {Money(f.Figures.Total, f.Figures.Places)}")],
            further.Count == 0 ? "" : Money(figures.Total + further.Sum(f => f.Figures.Total), figures.Places),
            [
                .. life.Of(start.Id)
                    .Select(f => new FactView(
                        f.Id,
                        Did(f),
                        // Whose doing it was, where it was not the firm's.
                        f.By == JobEndpoints.Owner
                            ? f.Words
                            : string.Join(", ", new[] { f.By, f.Words }.Where(w => w.Length > 0)),
                        moment(f.At),
                        f.By,
                        [.. mails[f.Id].Select(m => new MailOfFact(m.Id, m.Address))],
                        f.Photo ?? ""
                    )),
            ],
            links,
            selection,
            agreed is not null,
            [.. agreed?.Under(moment) ?? []],
            figures.Schedule.Length > 0,
            [.. RevisionEndpoints.OfTheFirm.Where(kind => life.May(kind, start.Id, today))]
        );
    }

    private static string Did(Fact fact) =>
        fact.Kind switch
        {
            FactKind.Sent => "sent",
            FactKind.SentAgain => "sent again",
            FactKind.Seen => "seen",
            FactKind.Asked => "asked",
            FactKind.Answered => "answered",
            FactKind.Chosen => "chose",
            FactKind.Accepted => "accepted",
            FactKind.YesRecorded => $"a yes of {Day(fact)}",
            FactKind.Declined => "declined",
            FactKind.NoRecorded => "a no",
            FactKind.PutOnHold => "put on hold",
            FactKind.TakenOffHold => "taken off hold",
            FactKind.Extended => $"holds until {Day(fact)}",
            FactKind.Reopened => fact.Day is null ? "opened again" : $"opened again, holds until {Day(fact)}",
            FactKind.Withdrawn => "withdrawn",
            FactKind.Annulled => "acceptance annulled",
            _ => "link revoked",
        };

    private static string Day(Fact fact) => Said(fact.Day);

    private static string Said(DateOnly? day) => day is { } of ? PaperLanguage.English.Day(of) : "";

    private static string Money(decimal amount, int places) => Shown.Money(amount, places);
}

/// <summary>A row of what differs.</summary>
/// <param name="Label">What it is.</param>
/// <param name="Note">How it differs.</param>
/// <param name="Before">In the earlier; empty where it is not in it.</param>
/// <param name="After">In the later; empty where it is not in it.</param>
/// <param name="By">The difference, signed.</param>
public sealed record DiffersRow(string Label, string Note, string Before, string After, string By);

/// <summary>Rows of one kind with their sum.</summary>
public sealed record DiffersGroup(string Kind, string Sum, IReadOnlyList<DiffersRow> Rows);

/// <summary>A step of the picture from one price to the other: where it begins and how wide it is, percent of the picture.</summary>
public sealed record DiffersStep(string Label, string Amount, decimal From, decimal Width, bool Less);

/// <summary>Two revisions side by side.</summary>
/// <param name="Earlier">Letters of the earlier.</param>
/// <param name="Later">Letters of the later.</param>
/// <param name="Groups">Added, dropped, repriced.</param>
/// <param name="Reworded">Words that differ.</param>
/// <param name="Same">Lines that are the same.</param>
/// <param name="Steps">From the one price to the other.</param>
/// <param name="By">The difference before tax in words: <c>1,520.00 less</c>.</param>
/// <param name="Hours">Hours before and after.</param>
/// <param name="Margin">Margin before and after, percent.</param>
/// <param name="Total">What the customer pays before and after.</param>
public sealed record ComparedView(
    string Earlier,
    string Later,
    IReadOnlyList<DiffersGroup> Groups,
    IReadOnlyList<Reworded> Reworded,
    int Same,
    IReadOnlyList<DiffersStep> Steps,
    string By,
    IReadOnlyList<string> Hours,
    IReadOnlyList<string> Margin,
    IReadOnlyList<string> Total
)
{
    /// <summary>It, in the numbers that are shown.</summary>
    public static ComparedView Of(
        string a,
        RevisionFigures before,
        string b,
        RevisionFigures after,
        RevisionsCompared of
    )
    {
        string Money(decimal? amount) => amount is { } m ? Shown.Money(m, after.Places) : "";
        DiffersGroup Group(string kind, IReadOnlyList<RevisionDifference> rows) =>
            new(
                kind,
                Shown.Moved(rows.Sum(r => r.By), after.Places),
                [
                    .. rows.Select(r => new DiffersRow(
                        r.Label,
                        r.Note,
                        Money(r.Before),
                        Money(r.After),
                        Shown.Moved(r.By, after.Places)
                    )),
                ]
            );
        DiffersGroup[] groups =
        [
            Group("added", of.Added),
            Group("dropped", of.Dropped),
            Group("repriced", of.Repriced),
        ];
        var by = after.BeforeTax - before.BeforeTax;
        return new(
            a,
            b,
            [.. groups.Where(g => g.Rows.Count > 0)],
            of.Reworded,
            of.Same,
            Picture(a, before, b, after, of),
            by == 0 ? "the same price" : $"{Money(decimal.Abs(by))} {(by < 0 ? "less" : "more")}",
            [Shown.Tenths(before.Hours), Shown.Tenths(after.Hours)],
            [Percent(before.Margin), Percent(after.Margin)],
            [Money(before.Total), Money(after.Total)]
        );
    }

    private static string Percent(decimal? percent) => percent is { } p ? Shown.Tenths(p) : "–";

    /// <summary>Steps from the one price to the other. What both have in common is cut short, so that the steps can be seen.</summary>
    private static DiffersStep[] Picture(
        string a,
        RevisionFigures before,
        string b,
        RevisionFigures after,
        RevisionsCompared of
    )
    {
        (string Label, decimal By)[] moves =
        [
            ("Added", of.Added.Sum(d => d.By)),
            ("Dropped", of.Dropped.Sum(d => d.By)),
            ("Repriced", of.Repriced.Sum(d => d.By)),
        ];
        var at = new List<decimal> { before.BeforeTax };
        foreach (var (_, by) in moves)
            at.Add(at[^1] + by);
        var (low, high) = (at.Min(), at.Max());
        var foot = low == high ? low - 1 : low - (high - low) * 0.35m;
        var scale = 100 / (high - foot);
        decimal X(decimal amount) => decimal.Round((amount - foot) * scale, 2);
        string Money(decimal amount) => Shown.Money(amount, after.Places);
        return
        [
            new(a, Money(before.BeforeTax), 0, X(before.BeforeTax), false),
            .. moves
                .Index()
                .Where(m => m.Item.By != 0)
                .Select(m => new DiffersStep(
                    m.Item.Label,
                    Shown.Moved(m.Item.By, after.Places),
                    X(decimal.Min(at[m.Index], at[m.Index + 1])),
                    decimal.Round(decimal.Abs(m.Item.By) * scale, 2),
                    m.Item.By < 0
                )),
            new(b, Money(after.BeforeTax), 0, X(after.BeforeTax), false),
        ];
    }
}
