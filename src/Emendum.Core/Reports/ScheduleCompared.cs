using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Reports;

/// <summary>A row of the customer's schedule beside our own takeoff.</summary>
/// <param name="Item">The row.</param>
/// <param name="Ours">Our quantity in the customer's unit; null where nothing is compared.</param>
/// <param name="Difference">Ours less theirs.</param>
/// <param name="Percent">The difference in percent of theirs; null where theirs is zero.</param>
public sealed record ScheduleCompared(ScheduleItem Item, Val? Ours, Val? Difference, Val? Percent)
{
    /// <summary>Percent from which a difference is flagged.</summary>
    public const decimal Tolerance = 1m;

    /// <summary>Whether the two are further apart than the tolerance.</summary>
    public bool Apart =>
        Difference is { } d && (Percent is { } p ? decimal.Abs(Rounding.ForCompare(p.V)) > Tolerance : d.V != 0);

    /// <summary>Every row compared.</summary>
    public static IReadOnlyList<ScheduleCompared> Of(Reckoned reckoned, Trace trace)
    {
        var schedule = reckoned.Job.Schedule;
        if (schedule.IsEmpty)
            return [];
        var rows = new ScheduleRows(reckoned.Job);
        var inRow = reckoned.Lines.ToLookup(l => rows.At(l.Item.Item.Id, l.Measures.Place) ?? -1);
        return [.. schedule.Select((item, row) => Of(item, inRow[row], reckoned, trace))];
    }

    private static ScheduleCompared Of(ScheduleItem item, IEnumerable<Line> priced, Reckoned reckoned, Trace trace)
    {
        var system = reckoned.Job.Units;
        (Val Value, Unit Unit)? found = item.Source.Split('/', 3) switch
        {
            ["measure", var name, .. var group] when Measures.Find(name) is { } measure => (
                MeasureTotals.Sum(reckoned, measure, group is [var g] ? g : null, trace),
                measure.UnitIn(system)
            ),
            ["work", ..] when item.ComparedWork is { } work => Quantity(reckoned, work),
            // Compared with nothing in particular, it is held against the work that is in its price.
            _ when !item.Work.IsEmpty => Quantity(priced, system),
            _ => null,
        };
        if (found is not { } ours || Unit.Find(item.Unit) is not { } unit || unit.Kind != ours.Unit.Kind)
            return new(item, null, null, null);
        var label = trace.On ? $"{item.Number} {item.Wording}".Trim() : "";
        var symbol = unit.Kind == Kind.Count ? "" : unit.Symbol;
        var mine = trace.Make(
            trace.Convert(ours.Value, ours.Unit, unit),
            symbol,
            label + ": ours",
            new("schedule", item.Id, "ours")
        );
        var theirs = trace.Typed(item.Quantity, symbol, "the schedule's quantity", null, "schedule", item.Id);
        var difference = trace.Make(
            mine - theirs,
            symbol,
            label + ": difference",
            new("schedule", item.Id, "difference")
        );
        return new(
            item,
            mine,
            difference,
            item.Quantity == 0
                ? null
                : trace.Make(
                    100m * difference / theirs,
                    "%",
                    label + ": difference",
                    new("schedule", item.Id, "percent")
                )
        );
    }

    private static (Val, Unit)? Quantity(Reckoned reckoned, Guid work) =>
        Array.Find(reckoned.Items, i => i.Item.Id == work) is { } item
            ? (Total(reckoned.Lines.Where(l => ReferenceEquals(l.OfItem, item))), item.UnitIn(reckoned.Job.Units))
            : null;

    /// <summary>Quantity of lines that are all counted alike; null where there is none, or they are not.</summary>
    private static (Val, Unit)? Quantity(IEnumerable<Line> lines, UnitSystem system) =>
        lines.Select(l => l.OfItem.UnitIn(system)).Distinct().ToArray() is [var unit] ? (Total(lines), unit) : null;

    private static Val Total(IEnumerable<Line> lines)
    {
        var sum = new Sum();
        foreach (var line in lines)
            sum.Add(line.Quantity);
        return sum.Total;
    }
}
