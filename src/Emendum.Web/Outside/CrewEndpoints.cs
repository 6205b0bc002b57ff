using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Proposals;
using Emendum.Storage;
using Emendum.Web.Deliver;
using Emendum.Web.Jobs;

namespace Emendum.Web.Outside;

/// <summary>A crew's page: its part of the work order, what is done of it, and the hours that came by this link. No price stands in it, and nothing of other jobs.</summary>
/// <param name="Firm">The firm.</param>
/// <param name="Colour">The firm's colour.</param>
/// <param name="For">Whom the link was made for.</param>
/// <param name="About">Names of the sections that it is about; empty for all of the order.</param>
/// <param name="Order">The order.</param>
/// <param name="Works">What hours can be written on.</param>
/// <param name="People">Who has worked, by what came by this link.</param>
/// <param name="Hours">Hours that came by this link, the latest day first.</param>
/// <param name="Snags">What is to be mended at its places, open ones first; what is of no place only where it is about all of the order.</param>
/// <param name="Days">The days of its tasks as they were told last, a line each; none where nothing was.</param>
/// <param name="Visits">Visits of a round that it knows: those of which nobody has said anything, up to two months ahead, and what was said in the last two weeks.</param>
/// <param name="Today">The firm's day, like 2027-01-31.</param>
public sealed record CrewPage(
    string Firm,
    string Colour,
    string For,
    IReadOnlyList<string> About,
    OrderView Order,
    IReadOnlyList<WorkToWrite> Works,
    IReadOnlyList<string> People,
    IReadOnlyList<HoursView> Hours,
    IReadOnlyList<SnagRow> Snags,
    IReadOnlyList<string> Days,
    IReadOnlyList<VisitRow> Visits,
    string Today
)
{
    /// <summary>That of a link.</summary>
    /// <param name="link">The link.</param>
    /// <param name="work">What was accepted.</param>
    /// <param name="whole">What has happened on site, by whomever.</param>
    /// <param name="day">The firm's day.</param>
    /// <param name="completion">What is to be mended.</param>
    /// <param name="days">What was told of its days.</param>
    /// <param name="rounds">Tells the visits of a round.</param>
    public static CrewPage Of(
        CrewLink link,
        AcceptedWork work,
        SiteLog whole,
        FirmDay day,
        Completion completion,
        IReadOnlyList<string> days,
        Rounds rounds
    )
    {
        var log = whole with { Order = work.Order.About(link.Sections) };
        var own = log with { Hours = [.. log.Hours.Where(h => h.Link == link.Id)] };
        return new(
            work.Head.Firm,
            work.Brand.Colour,
            link.For,
            link.Sections,
            OrderView.Of(work, log, day),
            WorkToWrite.Of(log.Order),
            [.. own.Standing.Select(h => h.Person).Prepend(link.For).Distinct(StringComparer.OrdinalIgnoreCase)],
            Site.HoursOf(own, day.Moments()),
            CompletionView.Rows(SnagsOf(link, completion, log.Order), log.Order, day),
            days,
            [.. VisitsOf(work, log, day, rounds)],
            day.Written
        );
    }

    private static IEnumerable<VisitRow> VisitsOf(AcceptedWork work, SiteLog log, FirmDay day, Rounds rounds)
    {
        if (work.Money.Contract.Round is not { First: var first })
            return [];
        var today = day.Today;
        return VisitRow.Of(
            rounds
                .VisitsOf(work.Job, log)
                .All.Where(v =>
                    v.Said == VisitSaid.Open
                        ? v.Day <= today.AddMonths(2)
                        : v.Day >= today.AddDays(-14) && v.Day <= today.AddMonths(2)
                ),
            log,
            first,
            today,
            day.Moments()
        );
    }

    /// <summary>Snags that a link shows.</summary>
    internal static IEnumerable<Snag> SnagsOf(CrewLink link, Completion completion, WorkOrder order)
    {
        var places = order.Lines.Select(l => l.Place).ToHashSet();
        return completion.Snags.Where(s => s.Place is { } place ? places.Contains(place) : link.Sections.IsEmpty);
    }
}

/// <summary>What can be asked by a crew's link, and nothing beside it.</summary>
public static class CrewEndpoints
{
    /// <summary>Where links begin.</summary>
    public const string Path = "/c";

    /// <summary>Maps them.</summary>
    public static void MapCrewsPage(this IEndpointRouteBuilder outside)
    {
        var link = outside.MapGroup(Path + "/{token:length(1,64)}").WithMetadata(new BodyLimit(64_000));
        link.MapGet("/page", (string token, Behind behind) => behind.Page(token));
        link.MapGet("/pdf", (string token, bool? bySection, Behind behind) => behind.Pdf(token, bySection is true));
        link.MapPost("/done", (string token, MarkDone mark, Behind behind) => behind.Mark(token, mark));
        link.MapPost("/hours", (string token, WriteHours write, Behind behind) => behind.Write(token, write));
        link.MapPost(
            "/hours/{fact:guid}/take-back",
            (string token, Guid fact, TakeHoursBack take, Behind behind) => behind.TakeBack(token, fact, take)
        );
        link.MapPost("/visits", (string token, SayOfVisits say, Behind behind) => behind.Say(token, say));
        link.MapPost(
            "/snags/{snag:guid}/mended",
            (string token, Guid snag, MendSnag mend, Behind behind) => behind.Mend(token, snag, mend)
        );
    }

    /// <summary>What stands behind a crew's link: its part of one work order.</summary>
    public sealed class Behind(
        WorkOrders orders,
        WorkOrderStore store,
        SiteStore sites,
        CompletionStore completions,
        CrewDays days,
        Rounds rounds,
        FirmDay day,
        Live live,
        TimeProvider time
    )
    {
        private DateTime Now => time.GetUtcNow().UtcDateTime;

        /// <summary>The link that a token opens, with what it is about.</summary>
        /// <exception cref="NotThereException">It opens nothing, or was revoked: the same answer to both. Or the yes was annulled.</exception>
        /// <exception cref="LinkEndedException">Its year is over.</exception>
        private (CrewLink Link, Guid Job, AcceptedWork Work) Of(string token)
        {
            var found = store.FindLink(Token.HashOf(token));
            var link = found?.Link.StateAt(Now) switch
            {
                LinkState.Open => found,
                LinkState.Ended => throw new LinkEndedException(),
                _ => throw new NotThereException("This link opens nothing. Please ask whoever gave it to you."),
            };
            var work =
                orders.Of(link.Job)
                ?? throw new NotThereException("There is no work order just now. Please ask the office.");
            return (link.Link, link.Job, work);
        }

        /// <summary>The page.</summary>
        public CrewPage Page(string token)
        {
            var (link, job, work) = Of(token);
            return CrewPage.Of(
                link,
                work,
                sites.Log(job, work.Order),
                day,
                completions.Of(job, work.Yes.Id),
                days.Of(job, link),
                rounds
            );
        }

        /// <summary>The order as a PDF.</summary>
        public IResult Pdf(string token, bool bySection)
        {
            var (link, _, work) = Of(token);
            return DeliverEndpoints.PdfOf(work, work.Order.About(link.Sections), bySection, day);
        }

        /// <summary>Says how much of lines is done.</summary>
        /// <exception cref="RefusedException">It cannot be said; says why.</exception>
        public CrewPage Mark(string token, MarkDone mark)
        {
            var (link, job, work) = Of(token);
            var facts = mark.Facts(Now, link.For, link.Id);
            return Told(job, link, work, sites.Record(job, work.Order, facts, link.Sections));
        }

        /// <summary>Writes hours.</summary>
        /// <exception cref="RefusedException">They cannot be written; says why.</exception>
        public CrewPage Write(string token, WriteHours write)
        {
            var (link, job, work) = Of(token);
            var fact = write.Fact(Now, link.For, link.Id);
            return Told(job, link, work, sites.Record(job, work.Order, fact, day.Today, link.Sections));
        }

        /// <summary>Takes hours back that came by this link.</summary>
        /// <exception cref="RefusedException">They are not there any more, or came another way.</exception>
        public CrewPage TakeBack(string token, Guid fact, TakeHoursBack take)
        {
            var (link, job, work) = Of(token);
            var id = Core.Quantities.DerivedId.Of($"{link.Id}/{take.Id}");
            return Told(job, link, work, sites.TakeBack(job, work.Order, id, fact, Now, link.For, link.Id));
        }

        /// <summary>Says that a visit was done, or is left out and why. Whether what is left out is billed, the office says.</summary>
        /// <exception cref="RefusedException">It cannot be said; says why.</exception>
        public CrewPage Say(string token, SayOfVisits say)
        {
            var (link, job, work) = Of(token);
            if (say.Said == VisitSaid.LeftOutByThem)
                throw RefusedException.Of("said", "Whether it is billed, the office says.");
            return Told(job, link, work, rounds.Record(job, work, say, link.For, link));
        }

        /// <summary>Says that a snag was mended, or is open again.</summary>
        /// <exception cref="RefusedException">The link does not show it.</exception>
        public CrewPage Mend(string token, Guid snag, MendSnag mend)
        {
            var (link, job, work) = Of(token);
            var order = work.Order.About(link.Sections);
            if (CrewPage.SnagsOf(link, completions.Of(job, work.Yes.Id), order).All(s => s.Id != snag))
                throw RefusedException.Of("snag", "That snag is not of this work.");
            var id = Core.Quantities.DerivedId.Of($"{link.Id}/{mend.Id}");
            completions.Mend(job, id, snag, mend.Mended, Now, link.For);
            return Told(job, link, work, sites.Log(job, work.Order));
        }

        private CrewPage Told(Guid job, CrewLink link, AcceptedWork work, SiteLog log)
        {
            live.Happened(job);
            return CrewPage.Of(link, work, log, day, completions.Of(job, work.Yes.Id), days.Of(job, link), rounds);
        }
    }
}
