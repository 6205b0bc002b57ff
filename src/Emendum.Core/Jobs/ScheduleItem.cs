using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>A row of the customer's schedule of quantities, to be held against our own takeoff.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Rank">Sort key.</param>
/// <param name="Number">The customer's number for it.</param>
/// <param name="Wording">The customer's words.</param>
/// <param name="Unit">The customer's unit, as written.</param>
/// <param name="Quantity">The customer's quantity in it.</param>
/// <param name="Source">What of ours it is compared with: <c>measure/NAME</c>, <c>measure/NAME/GROUP</c> or <c>work/ID</c>; empty for nothing yet.</param>
public sealed record ScheduleItem(
    Guid Id,
    string Rank,
    string Number,
    string Wording,
    string Unit,
    decimal Quantity,
    string Source
)
{
    /// <summary>Most pieces of work in the price of one row.</summary>
    public const int MostWork = 60;

    /// <summary>The work that is in its price.</summary>
    public ImmutableArray<ScheduleWork> Work { get; init; } = [];

    /// <summary>Whether it is a heading of the schedule: it counts nothing and has no price.</summary>
    [JsonIgnore]
    public bool IsHeading => Unit.Length == 0 && Quantity == 0;

    /// <summary>How it is spoken of: its number, else its words.</summary>
    [JsonIgnore]
    public string Called => Number.Length > 0 ? Number : Wording;

    /// <summary>Refuses what cannot be compared or priced.</summary>
    /// <exception cref="RefusedException">Text too long, a quantity below zero, a source of another kind than the unit, or work in a heading.</exception>
    public void Check(Job job)
    {
        if (Work.Length > MostWork)
            throw RefusedException.Of("work", $"A row has at most {MostWork} pieces of work in its price.");
        if (IsHeading && !Work.IsEmpty)
            throw RefusedException.Of("work", "A heading of the schedule has no price.");
        foreach (var work in Work)
            work.Check();
        if (Number.Length > 60 || Wording.Length > 2000 || Unit.Length > 40)
            throw RefusedException.Of("schedule", "A number is at most 60 characters, a wording 2,000, a unit 40.");
        if (Quantity < 0)
            throw RefusedException.Of("schedule", "A quantity is not below zero.");
        if (Source.Length == 0)
            return;
        var kind = KindOf(job) ?? throw RefusedException.Of("source", "That is not in this job any more.");
        if (Quantities.Unit.Find(Unit) is not { } unit)
            throw RefusedException.Of(
                "source",
                $"“{Unit}” is not a unit known here, so nothing can be compared with it."
            );
        if (unit.Kind != kind)
            throw RefusedException.Of(
                "source",
                $"The schedule counts this in {Unit}; that is a {unit.Kind.ToString().ToLowerInvariant()}, and this is a {kind.ToString().ToLowerInvariant()}."
            );
    }

    /// <summary>The work item with which it is compared; null where it is another thing or nothing.</summary>
    [JsonIgnore]
    public Guid? ComparedWork =>
        Source.Split('/', 2) is ["work", var id] && Guid.TryParse(id, out var work) ? work : null;

    /// <summary>Kind of what it is compared with; null when that is gone.</summary>
    public Kind? KindOf(Job job) =>
        Source.Split('/', 3) switch
        {
            ["measure", var name, ..] => Measures.Find(name)?.Kind(),
            ["work", ..] => ComparedWork is { } work && job.Item(work) is { } item
                ? CompiledItem.Of(item, job.Book).Measure.Kind()
                : null,
            _ => null,
        };
}
