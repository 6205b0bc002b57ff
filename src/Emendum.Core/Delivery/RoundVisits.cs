using System.Collections.Immutable;
using Emendum.Core.Jobs;

namespace Emendum.Core.Delivery;

/// <summary>A visit with what has become of it.</summary>
/// <param name="Of">The work of its rhythm.</param>
/// <param name="Id">Its id.</param>
/// <param name="Laid">The day on which its rhythm lays it; of an event the day on which it was done.</param>
/// <param name="Day">The day that counts: on which it was done, or else for which it is planned.</param>
/// <param name="Last">The last word about it; null where nobody has said anything.</param>
public sealed record RoundVisit(OrderedVisits Of, Guid Id, DateOnly Laid, DateOnly Day, VisitFact? Last)
{
    /// <summary>What is said of it.</summary>
    public VisitSaid Said => Last?.Said ?? VisitSaid.Open;

    /// <summary>Whether it is billed: done, or left out at the customer's wish within the notice (M30).</summary>
    public bool IsBilled => Said is VisitSaid.Done or VisitSaid.LeftOutByThem;
}

/// <summary>The visits of a contract year, in order of their days: read from what was ordered, planned and said.</summary>
/// <param name="All">All of them.</param>
public sealed record RoundVisits(ImmutableArray<RoundVisit> All)
{
    /// <summary>Most events of a year.</summary>
    public const int MostEvents = 1000;

    /// <summary>Visits of which nobody has said whether they were done.</summary>
    public int Open => All.Count(v => v.Said == VisitSaid.Open);

    /// <summary>Those of a rhythm, or of the band of an event.</summary>
    public IEnumerable<RoundVisit> Of(Guid kind) => All.Where(v => v.Of.Id == kind);

    /// <summary>The visits of a job.</summary>
    /// <param name="log">Its order, and what was said.</param>
    /// <param name="planned">The days on which tasks of the schedule begin, by visit; those that are not in it stand on the day that their rhythm lays.</param>
    public static RoundVisits Of(SiteLog log, IReadOnlyDictionary<Guid, DateOnly> planned)
    {
        var last = log.LastOfVisits;
        var all = new List<RoundVisit>();
        foreach (var kind in log.Order.Visits)
        {
            foreach (var visit in kind.Days)
            {
                var said = last.GetValueOrDefault(visit.Id);
                var plan = planned.GetValueOrDefault(visit.Id, visit.Day);
                all.Add(new(kind, visit.Id, visit.Day, said is { Said: VisitSaid.Done } ? said.Day : plan, said));
            }
            if (kind.IsEvent)
                all.AddRange(
                    last.Values.Where(f => f.Kind == kind.Id && f.Said != VisitSaid.Open)
                        .Select(f => new RoundVisit(kind, f.Visit, f.Day, f.Day, f))
                );
        }
        return new([.. all.OrderBy(v => v.Day).ThenBy(v => log.Order.Visits.IndexOf(v.Of)).ThenBy(v => v.Id)]);
    }

    /// <summary>The days for which visits are planned in the schedule, by visit.</summary>
    public static IReadOnlyDictionary<Guid, DateOnly> Planned(IEnumerable<PlannedTask> tasks) =>
        tasks.Where(t => t.Visit is not null).ToDictionary(t => t.Id, t => DateOnly.FromDateTime(t.Start));
}
