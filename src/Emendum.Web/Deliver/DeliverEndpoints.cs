using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Emendum.Web.Outside;

namespace Emendum.Web.Deliver;

/// <summary>A line of the order, by work item and place.</summary>
public sealed record LineKey(Guid Work, Guid Place);

/// <summary>Says how much of lines is done.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Lines">The lines.</param>
/// <param name="Percent">Of each; 100 for a tick.</param>
public sealed record MarkDone(Guid Id, ImmutableArray<LineKey> Lines, decimal Percent)
{
    /// <summary>Most lines at a time.</summary>
    public const int Most = 2000;

    /// <summary>The facts of it.</summary>
    /// <exception cref="RefusedException">It is about no line, or too many.</exception>
    internal IReadOnlyList<DoneFact> Facts(DateTime now, string by, Guid? link)
    {
        if (Lines.IsDefaultOrEmpty || Lines.Length > Most)
            throw RefusedException.Of("lines", $"Say which lines, at most {Most:N0} at a time.");
        return
        [
            .. Lines
                .Distinct()
                .Select(l => new DoneFact(
                    DerivedId.Of($"{link}/{Id}/{l.Work}/{l.Place}"),
                    l.Work,
                    l.Place,
                    Percent,
                    now,
                    by
                )
                {
                    Link = link,
                }),
        ];
    }
}

/// <summary>Writes hours.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="For">What for.</param>
/// <param name="Work">The work item; null where they are of no one piece of work.</param>
/// <param name="Place">The place; null for all of it.</param>
/// <param name="Person">Who worked.</param>
/// <param name="Day">On which day, like 2027-01-31.</param>
/// <param name="Hours">How long, as typed.</param>
/// <param name="Words">A note; empty for none.</param>
public sealed record WriteHours(
    Guid Id,
    HoursFor For,
    Guid? Work,
    Guid? Place,
    string Person,
    string Day,
    string Hours,
    string Words
)
{
    /// <summary>The fact of it.</summary>
    /// <exception cref="RefusedException">Day or hours cannot be read.</exception>
    internal HoursFact Fact(DateTime now, string by, Guid? link)
    {
        if (!Core.Quantities.Day.Read(Day, out var day))
            throw RefusedException.Of("day", "Write the day like 2027-01-31.");
        var hours = Typed.Hours(Hours);
        return new(
            link is null ? Id : DerivedId.Of($"{link}/{Id}"),
            For,
            Work,
            Place,
            Person.Trim(),
            day,
            hours,
            Words.Trim(),
            now,
            by
        )
        {
            Link = link,
        };
    }
}

/// <summary>Takes hours back that were written wrong.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
public sealed record TakeHoursBack(Guid Id);

/// <summary>Makes a crew's link.</summary>
/// <param name="Id">Id of the link.</param>
/// <param name="For">Whom it is for.</param>
/// <param name="Sections">Names of the sections it is about; empty for all.</param>
public sealed record MakeCrewLink(Guid Id, string For, ImmutableArray<string> Sections);

/// <summary>The station Deliver.</summary>
/// <param name="Accepted">Whether something was accepted; otherwise there is nothing to deliver yet.</param>
/// <param name="Order">The work order; null where nothing was accepted.</param>
/// <param name="Works">What hours can be written on.</param>
/// <param name="People">Who has worked, for whoever writes more.</param>
/// <param name="Hours">Hours that were written, the latest day first.</param>
/// <param name="Today">The firm's day, like 2027-01-31.</param>
/// <param name="Sections">Names of the sections of the order.</param>
/// <param name="Links">The crews' links.</param>
/// <param name="Outside">Whether somebody outside can open one.</param>
public sealed record DeliverView(
    bool Accepted,
    OrderView? Order,
    IReadOnlyList<WorkToWrite> Works,
    IReadOnlyList<string> People,
    IReadOnlyList<HoursView> Hours,
    string Today,
    IReadOnlyList<string> Sections,
    IReadOnlyList<CrewLinkView> Links,
    bool Outside
);

/// <summary>How delivery stands, for whoever shows it beside something else.</summary>
/// <param name="Words">In a few words: <c>56 % done · 2 of 3 orders placed</c>, or why there is nothing yet.</param>
public sealed record DeliverStands(string Words);

/// <summary>What is asked of the station Deliver, and done there.</summary>
public static class DeliverEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapDeliver(this IEndpointRouteBuilder jobs)
    {
        var deliver = jobs.MapGroup("/{id:guid}/deliver");
        deliver.MapGet("/", (Guid id, Site site) => site.View(id));
        deliver.MapGet("/stands", (Guid id, Site site) => site.Stands(id));
        deliver
            .MapGet(
                "/work-order.pdf",
                (Guid id, bool? bySection, string? section, Site site) =>
                    Pdf(site, id, bySection is true, section is { Length: > 0 } one ? [one] : [])
            )
            .Produces<byte[]>(200, "application/pdf");
        deliver.MapPost("/done", (Guid id, MarkDone mark, Site site) => site.Mark(id, mark));
        deliver.MapPost("/hours", (Guid id, WriteHours write, Site site) => site.Write(id, write));
        deliver.MapPost(
            "/hours/{fact:guid}/take-back",
            (Guid id, Guid fact, TakeHoursBack take, Site site) => site.TakeBack(id, fact, take)
        );
        deliver.MapGet("/hours-used", (Guid id, Site site) => site.HoursUsed(id));
        deliver.MapPost("/keep-rate", (Guid id, KeepRate keep, Site site) => site.Keep(id, keep));
        deliver.MapPost("/links", (Guid id, MakeCrewLink make, Site site) => site.MakeLink(id, make));
        deliver.MapChanges();
        deliver.MapInvoices();
        deliver.MapBuying();
        deliver.MapCompletion();
        deliver.MapSchedule();
        deliver.MapVisits();
        // The office looks at the page as the crew has it; nothing is ticked or written from there.
        deliver.MapGet("/links/{link:guid}/page", (Guid id, Guid link, Site site) => site.CrewPage(id, link));
        deliver.MapPost("/links/{link:guid}/revoke", (Guid id, Guid link, Site site) => site.Revoke(id, link));
    }

    private static IResult Pdf(Site site, Guid job, bool bySection, ImmutableArray<string> sections)
    {
        var work = site.Accepted(job);
        return PdfOf(work, work.Order.About(sections), bySection, site.Day);
    }

    /// <summary>The PDF of an order, or of a part of it; with whose it is, where it is somebody's.</summary>
    internal static IResult PdfOf(AcceptedWork work, WorkOrder order, bool bySection, FirmDay day, string whose = "") =>
        Results.File(
            WorkOrderPdf.Write(
                order,
                new(
                    work.Head.Firm,
                    work.Head.Title,
                    whose.Length > 0
                        ? $"{whose} · {OrderView.ReferenceOf(work, day)}"
                        : OrderView.ReferenceOf(work, day),
                    work.Head.Customer,
                    work.Head.CustomerAddress,
                    Day.Written(OrderView.AcceptedOn(work, day))
                ),
                work.Brand,
                bySection
            ),
            "application/pdf",
            whose.Length > 0 ? $"Work order, {work.Head.Title}, {whose}.pdf" : $"Work order, {work.Head.Title}.pdf"
        );
}

/// <summary>The site of a job, as the office has it.</summary>
public sealed class Site(
    WorkOrders orders,
    WorkOrderStore store,
    SiteStore sites,
    JobStore jobs,
    FirmDay day,
    OutsideAddress outside,
    Buying buying,
    CrewDays days,
    CompletionStore completions,
    Rounds rounds,
    Shelf shelf,
    Live live,
    TimeProvider time
)
{
    private DateTime Now => time.GetUtcNow().UtcDateTime;

    /// <summary>The firm's day.</summary>
    internal FirmDay Day => day;

    /// <summary>What was accepted of a job.</summary>
    /// <exception cref="RefusedException">Nothing was.</exception>
    internal AcceptedWork Accepted(Guid job) =>
        orders.Of(job)
        ?? throw RefusedException.Of("job", "Nothing was accepted yet: the work order comes with the yes.");

    /// <summary>The station.</summary>
    internal DeliverView View(Guid job)
    {
        if (!jobs.Has(job))
            throw new NotThereException("That job is not here.");
        if (orders.Of(job) is not { } work)
            return new(false, null, [], [], [], day.Written, [], [], outside.IsThere);
        return Of(job, work, sites.Log(job, work.Order));
    }

    private DeliverView Of(Guid job, AcceptedWork work, SiteLog log)
    {
        var (moment, now) = (day.Moments(), Now);
        return new(
            true,
            OrderView.Of(work, log, day),
            WorkToWrite.Of(work.Order),
            [.. log.Standing.Select(h => h.Person).Distinct(StringComparer.OrdinalIgnoreCase).Order().Take(200)],
            HoursOf(log, moment),
            day.Written,
            [.. work.Order.Lines.Select(l => l.Section).Distinct()],
            [.. store.Links(job).Select(l => CrewLinkView.Of(l, now, moment))],
            outside.IsThere
        );
    }

    /// <summary>Most hours that are listed at a time.</summary>
    private const int MostListed = 500;

    /// <summary>Hours that stand, the latest day first.</summary>
    internal static IReadOnlyList<HoursView> HoursOf(SiteLog log, Func<DateTime, string> moment) =>
        [
            .. log
                .Standing.Reverse()
                .OrderByDescending(h => h.Day)
                .Take(MostListed)
                .Select(h => HoursView.Of(h, log.Order, moment)),
        ];

    /// <summary>How it stands in a few words.</summary>
    internal DeliverStands Stands(Guid job)
    {
        if (orders.Of(job) is not { } work)
            return new("from the yes on");
        var log = sites.Log(job, work.Order);
        var placed = buying.Stands(job, work);
        return new(
            string.Join(
                " · ",
                new[]
                {
                    OrderView.PercentOf(log) is { Length: > 0 } percent ? $"{percent} done" : "",
                    // The tape has room for two.
                    placed.Length > 0
                        ? placed
                        : $"{Shown.Tenths(log.Standing.Sum(h => h.Hours))} h used",
                }.Where(s => s.Length > 0)
            )
        );
    }

    /// <summary>Says how much of lines is done.</summary>
    internal DeliverView Mark(Guid job, MarkDone mark)
    {
        var work = Accepted(job);
        return Told(job, work, sites.Record(job, work.Order, mark.Facts(Now, JobEndpoints.Owner, null)));
    }

    /// <summary>Writes hours.</summary>
    internal DeliverView Write(Guid job, WriteHours write)
    {
        var work = Accepted(job);
        return Told(job, work, sites.Record(job, work.Order, write.Fact(Now, JobEndpoints.Owner, null), day.Today));
    }

    /// <summary>Takes hours back.</summary>
    internal DeliverView TakeBack(Guid job, Guid fact, TakeHoursBack take)
    {
        var work = Accepted(job);
        return Told(job, work, sites.TakeBack(job, work.Order, take.Id, fact, Now, JobEndpoints.Owner, null));
    }

    /// <summary>Hours used against hours allowed; null while nothing is accepted.</summary>
    internal HoursUsedView? HoursUsed(Guid job) =>
        orders.Of(job) is { } work
            ? HoursUsedView.Of(work, sites.Log(job, work.Order), buying.Goods(job, work), sites, shelf)
            : null;

    /// <summary>Keeps a suggested rate in the Book.</summary>
    internal HoursUsedView? Keep(Guid job, KeepRate keep)
    {
        HoursUsedView.Keep(keep, sites, shelf, JobEndpoints.Owner);
        return HoursUsed(job);
    }

    /// <summary>Makes a crew's link; its address is said in this answer and never again.</summary>
    internal LinkMade MakeLink(Guid job, MakeCrewLink make)
    {
        var sections = make.Sections.IsDefault ? [] : make.Sections;
        var link = new CrewLink(make.Id, make.For.Trim(), sections, Now, null);
        link.Check(Accepted(job).Order);
        var token = Token.New();
        var address = outside.OfCrew(token);
        if (!store.Add(job, new(link, Token.HashOf(token))))
            throw RefusedException.Of(
                "for",
                "That link was made before, and its address is said only once. Make another one."
            );
        live.Happened(job);
        return new(address);
    }

    /// <summary>A crew's page, as the office looks at it.</summary>
    /// <exception cref="NotThereException">The job has no such link.</exception>
    internal CrewPage CrewPage(Guid job, Guid link)
    {
        var work = Accepted(job);
        var of =
            store.Links(job).FirstOrDefault(l => l.Id == link) ?? throw new NotThereException(
                "That link is not of this job."
            );
        return Outside.CrewPage.Of(
            of,
            work,
            sites.Log(job, work.Order),
            day,
            completions.Of(job, work.Yes.Id),
            days.Of(job, of),
            rounds
        );
    }

    /// <summary>Revokes a crew's link.</summary>
    internal DeliverView Revoke(Guid job, Guid link)
    {
        store.Revoke(job, link, Now);
        live.Happened(job);
        return View(job);
    }

    private DeliverView Told(Guid job, AcceptedWork work, SiteLog log)
    {
        live.Happened(job);
        return Of(job, work, log);
    }
}
