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
    /// <summary>Refuses what cannot be compared.</summary>
    /// <exception cref="RefusedException">Text too long, a quantity below zero, or a source of another kind than the unit.</exception>
    public void Check(Job job)
    {
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

    /// <summary>Kind of what it is compared with; null when that is gone.</summary>
    public Kind? KindOf(Job job) =>
        Source.Split('/', 3) switch
        {
            ["measure", var name, ..] => Measures.Find(name)?.Kind(),
            ["work", var id] => Guid.TryParse(id, out var work) && job.Item(work) is { } item
                ? CompiledItem.Of(item, job.Book).Measure.Kind()
                : null,
            _ => null,
        };
}
