using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Delivery;

/// <summary>A visit of the contract year, on the day on which its rhythm lays it.</summary>
/// <param name="Id">Its id; also that of its task in the schedule.</param>
/// <param name="Day">The day.</param>
public sealed record OrderedVisit(Guid Id, DateOnly Day);

/// <summary>Work of one rhythm in the contract year: what is done at each time, and when. It knows no price.</summary>
/// <param name="Id">The rhythm; of an event its band.</param>
/// <param name="Name">What it is called.</param>
/// <param name="Hours">Labour hours allowed each time, with set-up and travel where it has a visit of its own.</param>
/// <param name="Work">The work items that are done.</param>
/// <param name="Days">Its visits, in order; none of an event, whose days nobody knows.</param>
public sealed record OrderedVisits(
    Guid Id,
    string Name,
    decimal Hours,
    ImmutableArray<Guid> Work,
    ImmutableArray<OrderedVisit> Days
)
{
    /// <summary>How often a season is expected to bring it; null where it is no event.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public int? Expected { get; init; }

    /// <summary>The rhythm on whose visits it is done; null where it has visits of its own.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? On { get; init; }

    /// <summary>Whether something that happens brings it: snow, a storm.</summary>
    [JsonIgnore]
    public bool IsEvent => Expected is not null;

    /// <summary>How often the year has it; of an event, how often it is expected.</summary>
    [JsonIgnore]
    public int Times => Expected ?? Days.Length;

    /// <summary>The one piece of work that all hours of a visit are for; null where there are several, or set-up and travel are among them: such hours teach no rate (H4).</summary>
    /// <param name="order">The order that it is of.</param>
    public Guid? OnlyWork(WorkOrder order) =>
        Work is [var only] && Math.Abs(order.Lines.Where(l => l.Work == only).Sum(l => l.Hours) - Hours) < 0.0001m
            ? only
            : null;

    /// <summary>Those of an estimate that was agreed; none where nothing comes back.</summary>
    public static ImmutableArray<OrderedVisits> Of(Estimate agreed)
    {
        var occurrences = agreed.Price.Occurrences.Where(o => o.Occurrence.Rhythm is not null).ToList();
        if (occurrences.Count == 0)
            return [];
        var (job, days) = (agreed.Job, RoundDays.Of(agreed.Job));
        var rhythms = occurrences.Select(o => o.Occurrence.Rhythm!.Id).ToHashSet();
        return [.. occurrences.Select(o => Of(o.Occurrence))];

        OrderedVisits Of(Occurrence of)
        {
            var rhythm = of.Rhythm!;
            return new(
                of.Id,
                of.Name,
                Rounding.Kept(of.Reckoned.Costs.Hours.V),
                [
                    .. of
                        .Reckoned.Lines.Where(l => !l.IsNothing && l.Supply != Supply.Customer)
                        .Select(l => l.OfItem.Item.Id)
                        .Distinct(),
                ],
                of.Band is null
                    ?
                    [
                        .. days.Of(rhythm)
                            .Order()
                            .Select((day, n) => new OrderedVisit(DerivedId.Of($"{job.Id}/visit/{rhythm.Id}/{n}"), day)),
                    ]
                    : []
            )
            {
                Expected = of.Band?.Expected,
                On =
                    !RhythmTimes.HasVisit(job, rhythm)
                    && RoundDays.Visited(job, rhythm) is { } host
                    && rhythms.Contains(host.Id)
                        ? host.Id
                        : null,
            };
        }
    }
}
