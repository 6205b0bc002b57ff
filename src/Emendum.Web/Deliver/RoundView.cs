using System.Globalization;
using Emendum.Core.Delivery;
using Emendum.Core.Quantities;

namespace Emendum.Web.Deliver;

/// <summary>A visit of a round; no price stands in it.</summary>
/// <param name="Id">The visit.</param>
/// <param name="Kind">Its rhythm, or the band of the event.</param>
/// <param name="Name">What that is called.</param>
/// <param name="Month">In which month of the contract year it lies, from 0.</param>
/// <param name="Day">The day that counts, like 2027-01-31.</param>
/// <param name="Words">That as it is read.</param>
/// <param name="Said">What is said of it.</param>
/// <param name="Stands">How it stands, in words.</param>
/// <param name="IsLate">Whether its day is over and nobody has said anything.</param>
/// <param name="Moved">From which day it was moved, in words; empty where it was not.</param>
/// <param name="Hours">Hours allowed, with unit; empty for none.</param>
/// <param name="Used">Hours written on it, with unit; empty for none.</param>
/// <param name="Reason">Why it is left out, or a note.</param>
public sealed record VisitRow(
    Guid Id,
    Guid Kind,
    string Name,
    int Month,
    string Day,
    string Words,
    VisitSaid Said,
    string Stands,
    bool IsLate,
    string Moved,
    string Hours,
    string Used,
    string Reason
)
{
    /// <summary>A day of a visit as it is read; its year is that of its month.</summary>
    internal static string InWords(DateOnly day) => day.ToString("ddd d MMM", CultureInfo.InvariantCulture);

    /// <summary>Those of a round, in order of their days.</summary>
    /// <param name="visits">The visits.</param>
    /// <param name="log">What was said and worked.</param>
    /// <param name="first">The first day of the contract year.</param>
    /// <param name="today">The firm's day.</param>
    /// <param name="moment">Says moments in the firm's zone.</param>
    internal static IEnumerable<VisitRow> Of(
        IEnumerable<RoundVisit> visits,
        SiteLog log,
        DateOnly first,
        DateOnly today,
        Func<DateTime, string> moment
    )
    {
        var used = log.Standing.Where(h => h.Visit is not null).ToLookup(h => h.Visit!.Value, h => h.Hours);
        return visits.Select(v => new VisitRow(
            v.Id,
            v.Of.Id,
            v.Of.Name,
            MonthOf(v.Day, first),
            Core.Quantities.Day.Written(v.Day),
            InWords(v.Day),
            v.Said,
            StandsOf(v, today, moment),
            v.Said == VisitSaid.Open && v.Day < today,
            v.Day != v.Laid && !v.Of.IsEvent ? InWords(v.Laid) : "",
            OrderLineView.HoursOf(v.Of.Hours),
            OrderLineView.HoursOf(used[v.Id].Sum()),
            v.Last?.Words ?? ""
        ));
    }

    private static string StandsOf(RoundVisit visit, DateOnly today, Func<DateTime, string> moment)
    {
        var who = visit.Last is { } last ? $"{last.By}, {moment(last.At)}" : "";
        return visit.Said switch
        {
            VisitSaid.Done => $"done · {who}",
            VisitSaid.LeftOut => $"left out, not billed · {who}",
            VisitSaid.LeftOutByThem => $"left out at the customer's wish, billed · {who}",
            _ => visit.Day < today ? "nobody has said whether it was done"
            : visit.Day == today ? "today"
            : "to come",
        };
    }

    /// <summary>In which month of the contract year a day lies, from 0; what lies before or after is in the first or last.</summary>
    internal static int MonthOf(DateOnly day, DateOnly first) =>
        Math.Clamp((day.Year - first.Year) * 12 + day.Month - first.Month, 0, AgreedRound.MonthCount - 1);
}

/// <summary>A month of the contract year.</summary>
/// <param name="Month">From 0.</param>
/// <param name="Name">As it is read: <c>Jan 2027</c>.</param>
/// <param name="Visits">How many visits lie in it.</param>
/// <param name="Done">How many of them are done.</param>
/// <param name="LeftOut">How many are left out.</param>
/// <param name="DoneShare">Those of all, percent, as a number: how long its bar is.</param>
/// <param name="LeftOutShare">Those left out of all, percent.</param>
/// <param name="IsNow">Whether today lies in it.</param>
/// <param name="Says">That in a sentence.</param>
public sealed record RoundMonth(
    int Month,
    string Name,
    int Visits,
    int Done,
    int LeftOut,
    decimal DoneShare,
    decimal LeftOutShare,
    bool IsNow,
    string Says
);

/// <summary>Work of one rhythm in the contract year.</summary>
/// <param name="Id">The rhythm, or the band of the event.</param>
/// <param name="Name">What it is called.</param>
/// <param name="IsEvent">Whether something that happens brings it.</param>
/// <param name="Each">Its price, before tax, and the hours allowed.</param>
/// <param name="Says">How many of how many are done, left out and to come.</param>
/// <param name="Billed">What its visits that are billed come to, before tax.</param>
public sealed record RoundKind(Guid Id, string Name, bool IsEvent, string Each, string Says, string Billed);

/// <summary>The contract year of a round.</summary>
/// <param name="Says">How it stands, in a sentence.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Months">Its twelve months.</param>
/// <param name="Kinds">What comes back.</param>
/// <param name="Visits">Its visits, in order of their days.</param>
/// <param name="Due">Visits whose day is over, or is today, of which nobody has said anything: as they are said to be done together.</param>
/// <param name="IsPlanned">Whether they are laid out in the schedule, where they can be moved.</param>
/// <param name="People">Who has worked, for whoever writes hours.</param>
/// <param name="Today">The firm's day, like 2027-01-31.</param>
public sealed record RoundView(
    string Says,
    string Currency,
    IReadOnlyList<RoundMonth> Months,
    IReadOnlyList<RoundKind> Kinds,
    IReadOnlyList<VisitRow> Visits,
    IReadOnlyList<VisitKey> Due,
    bool IsPlanned,
    IReadOnlyList<string> People,
    string Today
)
{
    /// <summary>A month as it is read.</summary>
    internal static string NameOf(DateOnly first, int month, string format = "MMM yyyy") =>
        first.AddMonths(month).ToString(format, CultureInfo.InvariantCulture);

    internal static RoundView Of(RoundYear year, AcceptedWork work, SiteLog log, bool planned, FirmDay day)
    {
        var (first, today, all) = (year.Round.First, day.Today, year.Visits.All);
        var contract = work.Money.Contract;
        var byMonth = all.ToLookup(v => VisitRow.MonthOf(v.Day, first));
        return new(
            Sentence(year),
            contract.Currency,
            [
                .. Enumerable
                    .Range(0, AgreedRound.MonthCount)
                    .Select(m =>
                        Month(m, first, [.. byMonth[m]], first.AddMonths(m) <= today && today < first.AddMonths(m + 1))
                    ),
            ],
            [.. year.Round.Visits.Select(k => Kind(k, year, log.Order, contract.Places))],
            [.. VisitRow.Of(all, log, first, today, day.Moments())],
            [.. all.Where(v => v.Said == VisitSaid.Open && v.Day <= today).Select(v => new VisitKey(v.Id, v.Of.Id))],
            planned,
            [.. log.Standing.Select(h => h.Person).Distinct(StringComparer.OrdinalIgnoreCase).Order().Take(200)],
            day.Written
        );
    }

    private static RoundMonth Month(int month, DateOnly first, List<RoundVisit> visits, bool now)
    {
        var (done, left) = (visits.Count(v => v.Said == VisitSaid.Done), visits.Count(IsLeftOut));
        var name = NameOf(first, month);
        return new(
            month,
            name,
            visits.Count,
            done,
            left,
            Share(done, visits.Count),
            Share(left, visits.Count),
            now,
            visits.Count == 0
                ? $"{name}: no visit"
                : $"{name}: {Counted.Of(visits.Count, "visit")}, {done} done{(left > 0 ? $", {left} left out" : "")}"
        );
    }

    private static decimal Share(int part, int all) => all == 0 ? 0 : decimal.Round(part * 100m / all, 1);

    private static bool IsLeftOut(RoundVisit visit) => visit.Last?.IsLeftOut == true;

    private static RoundKind Kind(AgreedVisits kind, RoundYear year, WorkOrder order, int places)
    {
        var visits = year.Visits.Of(kind.Id).ToList();
        var (done, left) = (visits.Count(v => v.Said == VisitSaid.Done), visits.Count(IsLeftOut));
        var hours = OrderLineView.HoursOf(order.Visits.FirstOrDefault(v => v.Id == kind.Id)?.Hours ?? 0);
        return new(
            kind.Id,
            kind.Name,
            kind.IsEvent,
            $"{Shown.Money(kind.Price.Sum, places)} each{(hours.Length > 0 ? $" · {hours}" : "")}",
            kind.IsEvent
                ? $"came {Times(done)}, {kind.Times} expected{(kind.Cap is { } cap ? $", {cap} billed at the most" : "")}"
                : $"{done} of {kind.Times} done{(left > 0 ? $", {left} left out" : "")}, {visits.Count - done - left} to come",
            Shown.Money(kind.Price.Times(year.Billed(kind)).Sum, places)
        );
    }

    private static string Times(int count) => count == 1 ? "once" : $"{count} times";

    private static string Sentence(RoundYear year)
    {
        var visits = year.Visits.All.Where(v => !v.Of.IsEvent).ToList();
        var (done, left) = (visits.Count(v => v.Said == VisitSaid.Done), visits.Count(IsLeftOut));
        var late = visits.Count(v => v.Said == VisitSaid.Open && v.Day < year.Today);
        IEnumerable<string> said =
        [
            visits.Count == 0 ? "" : $"{done} of {Counted.Of(visits.Count, "visit")} done",
            left > 0 ? $"{left} left out" : "",
            late > 0 ? $"of {late} whose day is over nobody has said anything" : "",
            visits.FirstOrDefault(v => v.Said == VisitSaid.Open && v.Day >= year.Today) is { } next
                ? $"next {VisitRow.InWords(next.Day)}"
                : "",
        ];
        var all = string.Join(" · ", said.Where(s => s.Length > 0));
        return $"{NameOf(year.Round.First, 0)} to {NameOf(year.Round.First, AgreedRound.MonthCount - 1)}{(all.Length > 0 ? $" · {all}" : "")}";
    }
}
