using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Deliver;

/// <summary>A visit, or an event of a band.</summary>
/// <param name="Visit">The visit; of an event a new id of its own.</param>
/// <param name="Kind">The rhythm, or the band of the event.</param>
public sealed record VisitKey(Guid Visit, Guid Kind);

/// <summary>Who was how long on a visit.</summary>
/// <param name="Person">Who.</param>
/// <param name="Hours">How long, as typed.</param>
public sealed record VisitHours(string Person, string Hours);

/// <summary>Says what has become of visits.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Visits">The visits.</param>
/// <param name="Said">What is said of them.</param>
/// <param name="Day">Of what was done the day, like 2027-01-31; empty for that on which it was planned, or today where that is still to come.</param>
/// <param name="Words">Why they are left out, or a note.</param>
/// <param name="Hours">Who was how long on it; of one visit alone.</param>
public sealed record SayOfVisits(
    Guid Id,
    ImmutableArray<VisitKey> Visits,
    VisitSaid Said,
    string Day,
    string Words,
    ImmutableArray<VisitHours> Hours
)
{
    /// <summary>Most people on a visit.</summary>
    private const int MostPeople = 50;

    /// <summary>The facts of it.</summary>
    /// <param name="all">The visits as they stand.</param>
    /// <param name="order">Their work order.</param>
    /// <param name="today">The firm's day.</param>
    /// <param name="now">When (UTC).</param>
    /// <param name="by">Who says it.</param>
    /// <param name="link">The crew's link by which it comes; null from the office.</param>
    /// <exception cref="RefusedException">Something cannot be read, or is too much.</exception>
    internal (IReadOnlyList<VisitFact> Facts, IReadOnlyList<HoursFact> Hours) Read(
        RoundVisits all,
        WorkOrder order,
        DateOnly today,
        DateTime now,
        string by,
        Guid? link
    )
    {
        if (Visits.IsDefaultOrEmpty || Visits.Length > PlannedTask.Most)
            throw RefusedException.Of("visits", $"Say which visits, at most {PlannedTask.Most:N0} at a time.");
        var hours = Hours.IsDefault ? [] : Hours.Where(h => (h.Person + h.Hours).Trim().Length > 0).ToImmutableArray();
        if (hours.Length > MostPeople || (hours.Length > 0 && (Visits.Length > 1 || Said != VisitSaid.Done)))
            throw RefusedException.Of("hours", $"Hours of at most {MostPeople} people, of one visit that was done.");
        var stands = all.All.ToDictionary(v => v.Id);
        DateOnly DayOf(VisitKey visit) =>
            Day.Trim().Length > 0 && Said == VisitSaid.Done ? Scheduling.DayOf(Day, "day")
            : stands.GetValueOrDefault(visit.Visit) is { } of && (Said != VisitSaid.Done || of.Day <= today) ? of.Day
            : today;
        var facts = Visits
            .Distinct()
            .Select(v => new VisitFact(
                DerivedId.Of($"{link}/{Id}/{v.Visit}"),
                v.Visit,
                v.Kind,
                Said,
                DayOf(v),
                Words.Trim(),
                now,
                by
            )
            {
                Link = link,
            })
            .ToList();
        var kind = order.Visits.FirstOrDefault(k => k.Id == Visits[0].Kind);
        return (
            facts,
            [
                .. hours.Select(
                    (h, n) =>
                        new HoursFact(
                            DerivedId.Of($"{link}/{Id}/hours/{n}"),
                            HoursFor.Work,
                            kind?.OnlyWork(order),
                            null,
                            h.Person.Trim(),
                            facts[0].Day,
                            Typed.Hours(h.Hours),
                            "",
                            now,
                            by
                        )
                        {
                            Link = link,
                            Visit = Visits[0].Visit,
                        }
                ),
            ]
        );
    }
}

/// <summary>The visits of a round: laid out, planned, and what has become of them (delivery.md, M30).</summary>
public sealed class Rounds(
    WorkOrders orders,
    SiteStore sites,
    ScheduleStore schedules,
    FirmDay day,
    Live live,
    TimeProvider time
)
{
    /// <summary>The visits of a job.</summary>
    /// <param name="job">The job.</param>
    /// <param name="log">Its order, and what was said.</param>
    internal RoundVisits VisitsOf(Guid job, SiteLog log) =>
        RoundVisits.Of(log, log.Order.Visits.IsEmpty ? RoundVisits.Planned([]) : Planned(job));

    private IReadOnlyDictionary<Guid, DateOnly> Planned(Guid job) => RoundVisits.Planned(schedules.TasksOf(job));

    /// <summary>What was accepted, with how the contract year of a round stands; null while nothing was.</summary>
    internal AcceptedWork? Of(Guid job) =>
        orders.Of(job) is not { } work ? null
        : work.Money.Contract.Round is not { } round ? work
        : work with
        {
            Money = work.Money with
            {
                Contract = work.Money.Contract with
                {
                    Year = new(round, VisitsOf(job, sites.Log(job, work.Order)), day.Today),
                },
            },
        };

    /// <summary>The view; null while nothing is accepted, or nothing comes back.</summary>
    internal RoundView? View(Guid job)
    {
        if (orders.Of(job) is not { Money.Contract.Round: { } round } work)
            return null;
        var (log, planned) = (sites.Log(job, work.Order), Planned(job));
        return RoundView.Of(new(round, RoundVisits.Of(log, planned), day.Today), work, log, planned.Count > 0, day);
    }

    /// <summary>Says what has become of visits.</summary>
    internal RoundView Say(Guid job, SayOfVisits say)
    {
        var work = orders.Of(job) ?? throw RefusedException.Of("job", "Nothing was accepted yet: there are no visits.");
        Record(job, work, say, JobEndpoints.Owner, null);
        return View(job) ?? throw RefusedException.Of("job", "Nothing of this job comes back.");
    }

    /// <summary>Says it, for whomever.</summary>
    /// <param name="job">The job.</param>
    /// <param name="work">What was accepted.</param>
    /// <param name="say">What is said.</param>
    /// <param name="by">Who says it.</param>
    /// <param name="link">The crew's link by which it comes; null from the office.</param>
    internal SiteLog Record(Guid job, AcceptedWork work, SayOfVisits say, string by, CrewLink? link)
    {
        var log = sites.Log(job, work.Order);
        var (facts, hours) = say.Read(
            VisitsOf(job, log),
            work.Order,
            day.Today,
            time.GetUtcNow().UtcDateTime,
            by,
            link?.Id
        );
        var then = sites.Record(job, work.Order, facts, hours, day.Today, link?.Sections ?? default);
        live.Happened(job);
        return then;
    }
}
