using System.Collections.Immutable;

namespace Emendum.Core.Delivery;

/// <summary>What has happened on site: how much of each line is done, and the hours that were worked. Read from facts alone.</summary>
/// <param name="Order">The work order they are about.</param>
/// <param name="Done">What was said to be done, in the order in which it was committed.</param>
/// <param name="Hours">Hours, in the order in which they were committed.</param>
public sealed record SiteLog(WorkOrder Order, ImmutableArray<DoneFact> Done, ImmutableArray<HoursFact> Hours)
{
    /// <summary>Most facts of one kind in a job.</summary>
    public const int Most = 20_000;

    /// <summary>How far back hours can be written.</summary>
    private const int MostDaysBack = 366;

    // Made when first asked for; a log with other facts makes its own.
    private (ImmutableArray<DoneFact> Of, Dictionary<(Guid, Guid), DoneFact> Made)? last;

    private Dictionary<(Guid, Guid), DoneFact> Last
    {
        get
        {
            if (last is { } kept && kept.Of == Done)
                return kept.Made;
            var found = new Dictionary<(Guid, Guid), DoneFact>();
            foreach (var fact in Done)
                found[(fact.Work, fact.Place)] = fact;
            last = (Done, found);
            return found;
        }
    }

    /// <summary>What was said of visits of a round, in the order in which it was committed.</summary>
    public ImmutableArray<VisitFact> Visits { get; init; } = [];

    /// <summary>The last word about each visit.</summary>
    public IReadOnlyDictionary<Guid, VisitFact> LastOfVisits
    {
        get
        {
            var found = new Dictionary<Guid, VisitFact>();
            foreach (var fact in Visits)
                found[fact.Visit] = fact;
            return found;
        }
    }

    /// <summary>The last word about a line; null where nobody has said anything.</summary>
    public DoneFact? LastOf(OrderedLine line) => Last.GetValueOrDefault((line.Work, line.Place));

    /// <summary>How much of a line is done, percent; of what comes back, how many of its times.</summary>
    public decimal PercentOf(OrderedLine line) =>
        line.IsOnce ? LastOf(line)?.Percent ?? 0
        : line.Times == 0 ? 0
        : Math.Min(TimesDone(line) * 100m / line.Times, 100);

    /// <summary>How often a line is done: a part of once, or as many visits as were done.</summary>
    public decimal TimesDone(OrderedLine line) =>
        line.IsOnce ? PercentOf(line) / 100m : VisitsDone.GetValueOrDefault(line.Work);

    // Made when first asked for; a log with other facts makes its own.
    private (ImmutableArray<VisitFact> Of, WorkOrder Order, Dictionary<Guid, int> Made)? done;

    /// <summary>How many visits were done on which a work item is done.</summary>
    private Dictionary<Guid, int> VisitsDone
    {
        get
        {
            if (done is { } kept && kept.Of == Visits && ReferenceEquals(kept.Order, Order))
                return kept.Made;
            var byKind = LastOfVisits
                .Values.Where(f => f.Said == VisitSaid.Done)
                .GroupBy(f => f.Kind)
                .ToDictionary(g => g.Key, g => g.Count());
            var found = new Dictionary<Guid, int>();
            foreach (var kind in Order.Visits)
            foreach (var work in kind.Work)
                found[work] = found.GetValueOrDefault(work) + byKind.GetValueOrDefault(kind.Id);
            done = (Visits, Order, found);
            return found;
        }
    }

    /// <summary>Hours that stand: what was taken back is not among them, and neither is what took it back.</summary>
    public IEnumerable<HoursFact> Standing
    {
        get
        {
            var gone = Hours.Where(h => h.TakesBack is not null).Select(h => h.TakesBack!.Value).ToHashSet();
            return Hours.Where(h => h.TakesBack is null && !gone.Contains(h.Id));
        }
    }

    /// <summary>Hours allowed for what is done: of each line that is done once its part, of what comes once for a work item the part of its hours' lines that are done, and of set-up and travel the part of all work.</summary>
    public decimal AllowedSoFar
    {
        get
        {
            var work = Order.Lines.Sum(l => l.Hours * TimesDone(l)) + Order.Once.Sum(OnceSoFar);
            var all = Order.Hours - Order.SetUp;
            return all == 0 ? 0 : work + Order.SetUp * work / all;
        }
    }

    /// <summary>How much of the job is done by its hours, percent; null where it has none.</summary>
    public decimal? Percent => Order.Hours == 0 ? null : AllowedSoFar / Order.Hours * 100m;

    /// <summary>Hours allowed for what is done of labour that comes once for a work item: as much as of its lines; without lines' hours as much as of the lines.</summary>
    internal decimal OnceSoFar(OrderedOnce once) => once.Hours * PartOf(once.Work);

    /// <summary>How much of a work item is done, 0 to 1: by the hours of its lines, and where they have none by their number.</summary>
    internal decimal PartOf(Guid work)
    {
        var (done, all, lines, percent) = (0m, 0m, 0, 0m);
        foreach (var line in Order.Lines)
        {
            if (line.Work != work)
                continue;
            done += line.Hours * TimesDone(line) * 100m;
            all += line.AllHours;
            lines++;
            percent += PercentOf(line);
        }
        return all > 0 ? done / all / 100m
            : lines > 0 ? percent / lines / 100m
            : 0;
    }

    /// <summary>Whether all is done that is done once and for all, and of each visit of a contract year it is known what has become of it: then the job teaches the Book (rule H2).</summary>
    public bool IsFinished =>
        (Order.Lines.Any(l => l.IsOnce) || Order.Visits.Any(v => !v.IsEvent))
        && Order.Lines.All(l => !l.IsOnce || PercentOf(l) == 100)
        && LastOfVisits is var said
        && Order.Visits.All(v => v.Days.All(d => said.GetValueOrDefault(d.Id) is { Said: not VisitSaid.Open }));

    /// <summary>Refuses what cannot be said of the order.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(DoneFact fact)
    {
        fact.Check();
        var line =
            Order.Line(fact.Work, fact.Place) ?? throw RefusedException.Of("work", "That is not in this work order.");
        if (!line.IsOnce)
            throw RefusedException.Of("percent", "Work that comes back is not done once and for all.");
        if (Done.Length >= Most)
            throw RefusedException.Of("percent", $"A job keeps at most {Most:N0} ticks.");
    }

    /// <summary>Refuses what cannot be said of a visit.</summary>
    /// <param name="fact">What is said.</param>
    /// <param name="today">The firm's day.</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(VisitFact fact, DateOnly today)
    {
        var kind =
            Order.Visits.FirstOrDefault(v => v.Id == fact.Kind)
            ?? throw RefusedException.Of("visit", "That is no visit of this work order.");
        var said = LastOfVisits;
        var last = said.GetValueOrDefault(fact.Visit);
        if (kind.IsEvent ? last is not null && last.Kind != kind.Id : kind.Days.All(d => d.Id != fact.Visit))
            throw RefusedException.Of("visit", "That is no visit of this work order.");
        if (fact.Visit == Guid.Empty)
            throw RefusedException.Of("visit", "It needs an id.");
        if (fact.Words.Length > VisitFact.MostWords)
            throw RefusedException.Of("words", $"At most {VisitFact.MostWords} characters.");
        switch (fact.Said)
        {
            case VisitSaid.Done when fact.Day > today:
                throw RefusedException.Of("day", "That day is still to come.");
            case VisitSaid.Done when fact.Day < today.AddDays(-MostDaysBack):
                throw RefusedException.Of("day", "A visit can be written for a year back.");
            case VisitSaid.LeftOut or VisitSaid.LeftOutByThem when kind.IsEvent:
                throw RefusedException.Of("said", "What an event brings is done, or it has not come.");
            case VisitSaid.LeftOut or VisitSaid.LeftOutByThem when string.IsNullOrWhiteSpace(fact.Words):
                throw RefusedException.Of("words", "Say why it is left out.");
            case VisitSaid.Open when last is null or { Said: VisitSaid.Open }:
                throw RefusedException.Of("said", "Nothing was said of that visit.");
        }
        if (Visits.Length >= Most)
            throw RefusedException.Of("visit", $"A job keeps at most {Most:N0} words about visits.");
        if (kind.IsEvent && last is null && said.Values.Count(f => f.Kind == kind.Id) >= RoundVisits.MostEvents)
            throw RefusedException.Of("visit", $"At most {RoundVisits.MostEvents:N0} of an event.");
    }

    /// <summary>Refuses hours that cannot be written: about work that is not in the order, on a day to come, or more than a day has.</summary>
    /// <param name="fact">The hours.</param>
    /// <param name="today">The firm's day.</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(HoursFact fact, DateOnly today)
    {
        fact.Check();
        if (fact.Work is { } work && !Order.Has(work))
            throw RefusedException.Of("work", "That work is not in this work order.");
        if (fact is { Work: { } of, Place: { } at } && Order.Line(of, at) is null)
            throw RefusedException.Of("place", "That work is not done there.");
        if (fact.Day > today)
            throw RefusedException.Of("day", "That day is still to come.");
        if (fact.Day < today.AddDays(-MostDaysBack))
            throw RefusedException.Of("day", "Hours can be written for a year back.");
        var that = Standing.Where(h => h.Day == fact.Day && Same(h.Person, fact.Person)).Sum(h => h.Hours);
        if (that + fact.Hours > 24)
            throw RefusedException.Of(
                "hours",
                $"{fact.Person} has {Quantities.Shown.Typed(that)} h on that day already; more than 24 do not go into one."
            );
        if (Hours.Length >= Most)
            throw RefusedException.Of("hours", $"A job keeps at most {Most:N0} entries of hours.");
    }

    /// <summary>What takes hours back.</summary>
    /// <param name="id">Id of the fact.</param>
    /// <param name="which">The hours.</param>
    /// <param name="at">When (UTC).</param>
    /// <param name="by">Who.</param>
    /// <param name="link">The crew's link by which it comes; null from the office. By a link only what came by it can be taken back.</param>
    /// <exception cref="RefusedException">They are not there, or not any more.</exception>
    public HoursFact TakeBack(Guid id, Guid which, DateTime at, string by, Guid? link)
    {
        var fact =
            Standing.FirstOrDefault(h => h.Id == which && (link is null || h.Link == link))
            ?? throw RefusedException.Of("hours", "Those hours are not there any more.");
        return fact with { Id = id, Hours = -fact.Hours, At = at, By = by, Link = link, TakesBack = which };
    }

    /// <summary>Whether two names are the same person's: capitals and spaces apart.</summary>
    internal static bool Same(string a, string b) =>
        string.Equals(a.Trim(), b.Trim(), StringComparison.OrdinalIgnoreCase);
}
