using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A piece of work with the hours it was allowed, and those it took.</summary>
/// <param name="Work">The work item.</param>
/// <param name="Section">Its section.</param>
/// <param name="Name">Its name.</param>
/// <param name="Quantity">How much there is of it.</param>
/// <param name="QuantityDone">How much of that is done.</param>
/// <param name="Unit">Unit of both; empty for counts.</param>
/// <param name="Allowed">Hours allowed for all of it.</param>
/// <param name="SoFar">Hours allowed for what is done.</param>
/// <param name="Used">Hours used, without mending.</param>
/// <param name="Reached">What its rate is; null where its hours teach nothing.</param>
/// <param name="Says">What of it teaches nothing and why, as a sentence; empty where all of it does.</param>
public sealed record WorkUsed(
    Guid Work,
    string Section,
    string Name,
    decimal Quantity,
    decimal QuantityDone,
    string Unit,
    decimal Allowed,
    decimal SoFar,
    decimal Used,
    Reached? Reached,
    string Says
);

/// <summary>A person with the hours they worked.</summary>
public sealed record PersonUsed(string Person, decimal Hours);

/// <summary>Hours used against hours allowed, while the job runs and when it has ended (delivery.md, Hours used).</summary>
/// <param name="Work">By work item, in the order's order.</param>
/// <param name="People">By person, who worked most first.</param>
/// <param name="SetUp">Hours of set-up and travel.</param>
/// <param name="Snags">Hours of mending: they count in the profit and teach no rate (H5).</param>
/// <param name="Visits">Hours of visits as a whole, set-up and travel with them: they teach no rate (H4).</param>
/// <param name="Elsewhere">Hours that are of no piece of work in the order, and of no visit.</param>
/// <param name="Used">All hours used.</param>
/// <param name="SoFar">Hours allowed for what is done.</param>
/// <param name="Allowed">All hours allowed.</param>
public sealed record HoursUsed(
    ImmutableArray<WorkUsed> Work,
    ImmutableArray<PersonUsed> People,
    decimal SetUp,
    decimal Snags,
    decimal Visits,
    decimal Elsewhere,
    decimal Used,
    decimal SoFar,
    decimal Allowed
)
{
    /// <summary>Hours that the job comes to at this pace: those used ÷ those allowed for what is done × all allowed; null while nothing is done, or no hours were written.</summary>
    public decimal? AtThisPace => SoFar > 0 && Used > 0 ? Used / SoFar * Allowed : null;

    /// <summary>What the job teaches, each rate once.</summary>
    public IEnumerable<Reached> Reached =>
        Work.Select(w => w.Reached)
            .OfType<Reached>()
            .GroupBy(r => r.Key)
            .Select(g => new Reached(g.Key, g.Sum(r => r.Weighted), g.Sum(r => r.Hours), g.Max(r => r.LastDay))
            {
                Basis = g.First().Basis,
            });

    /// <summary>That of a job.</summary>
    public static HoursUsed Of(SiteLog log)
    {
        var (order, standing) = (log.Order, log.Standing.ToList());
        var known = order.Lines.Select(l => l.Work).ToHashSet();
        var ofWork = standing
            .Where(h => h.For == HoursFor.Work && h.Work is { } work && known.Contains(work))
            .ToLookup(h => h.Work!.Value);
        return new(
            [.. order.Lines.GroupBy(l => l.Work).Select(lines => Of([.. lines], [.. ofWork[lines.Key]], log))],
            [
                .. standing
                    .GroupBy(h => h.Person.Trim(), StringComparer.OrdinalIgnoreCase)
                    .Select(g => new PersonUsed(g.First().Person.Trim(), g.Sum(h => h.Hours)))
                    .OrderByDescending(p => p.Hours)
                    .ThenBy(p => p.Person, StringComparer.Ordinal),
            ],
            standing.Where(h => h.For == HoursFor.SetUp).Sum(h => h.Hours),
            standing.Where(h => h.For == HoursFor.Snags).Sum(h => h.Hours),
            standing.Where(h => IsElsewhere(h) && h.Visit is not null).Sum(h => h.Hours),
            standing.Where(h => IsElsewhere(h) && h.Visit is null).Sum(h => h.Hours),
            standing.Sum(h => h.Hours),
            log.AllowedSoFar,
            order.Hours
        );

        bool IsElsewhere(HoursFact fact) =>
            fact.For == HoursFor.Work && !(fact.Work is { } work && known.Contains(work));
    }

    private static WorkUsed Of(OrderedLine[] lines, HoursFact[] hours, SiteLog log)
    {
        var (first, once) = (lines[0], log.Order.Once.Where(o => o.Work == lines[0].Work).ToList());
        var (reached, says) = Reach(lines, hours, log, once.Count > 0);
        return new(
            first.Work,
            first.Section,
            first.Name,
            lines.Sum(l => l.Quantity * l.Times),
            lines.Sum(l => l.Quantity * log.TimesDone(l)),
            first.Unit,
            lines.Sum(l => l.AllHours) + once.Sum(o => o.Hours),
            lines.Sum(l => l.Hours * log.TimesDone(l)) + once.Sum(log.OnceSoFar),
            hours.Sum(h => h.Hours),
            reached,
            says
        );
    }

    /// <summary>What the hours of a work item teach: hours at a place go with that place as far as it is done, hours on all of it with all that is done. What has no hours or is not done is left out, and said (H5).</summary>
    private static (Reached? Reached, string Says) Reach(OrderedLine[] lines, HoursFact[] hours, SiteLog log, bool once)
    {
        if (hours.Length == 0)
            return (null, "");
        if (once || Array.Exists(lines, l => l.Rate is null))
            return (null, "Hours that were typed, or come once, teach no rate.");
        if (lines.Select(KeyOf).Distinct().Count() > 1)
            return (null, "It is done in several ways, and its hours do not say in which.");
        var whole = Array.Exists(hours, h => h.Place is null);
        var at = hours.Where(h => h.Place is not null).ToLookup(h => h.Place!.Value);
        var counted = lines.Where(l => log.PercentOf(l) > 0 && (whole || at.Contains(l.Place))).ToList();
        var weighted = counted.Sum(l => l.Rate!.Weighted * log.TimesDone(l));
        var with = whole ? hours : [.. counted.SelectMany(l => at[l.Place])];
        var idle = lines.Count(l => log.PercentOf(l) > 0) - counted.Count;
        var early = whole ? 0 : at.Count(g => counted.All(l => l.Place != g.Key));
        var says = new List<string>();
        if (idle > 0)
            says.Add($"{Counted.Of(idle, "place")} done without hours");
        if (early > 0)
            says.Add($"{Counted.Of(early, "place")} with hours and nothing done yet");
        var words = says.Count == 0 ? "" : $"Left out of the rate: {string.Join(", ", says)}.";
        return weighted > 0 && with.Length > 0
            ? (
                new(KeyOf(lines[0]), weighted, with.Sum(h => h.Hours), with.Max(h => h.Day))
                {
                    Basis = lines[0].Rate!.Basis,
                },
                words
            )
            : (null, words.Length > 0 ? words : "Nothing of it is marked done yet.");
    }

    private static RateKey KeyOf(OrderedLine line) => new(line.Rate!.Entry, line.Rate.Coats, line.Rate.Unit);
}
