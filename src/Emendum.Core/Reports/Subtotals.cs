using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Reports;

/// <summary>Hours by place and by work item, and each item's quantity: the margins of the scope grid.</summary>
public sealed class Subtotals
{
    private Subtotals(
        Dictionary<Guid, Total> placeHours,
        Dictionary<Guid, Total> itemHours,
        Dictionary<Guid, Total> itemQuantity
    ) => (PlaceHours, ItemHours, ItemQuantity) = (placeHours, itemHours, itemQuantity);

    /// <summary>Labour hours by place; places without work are left out.</summary>
    public Dictionary<Guid, Total> PlaceHours { get; }

    /// <summary>Labour hours by work item; items that are nowhere are left out.</summary>
    public Dictionary<Guid, Total> ItemHours { get; }

    /// <summary>Quantity by work item.</summary>
    public Dictionary<Guid, Total> ItemQuantity { get; }

    /// <summary>Adds up the lines; with <paramref name="places"/> and <paramref name="work"/> only those of them.</summary>
    public static Subtotals Of(
        Reckoned reckoned,
        Trace trace,
        IReadOnlySet<Guid>? places = null,
        IReadOnlySet<Guid>? work = null
    )
    {
        var system = reckoned.Job.Units;
        Dictionary<Guid, Total> By(
            Func<Line, Guid> key,
            Func<Line, Val> value,
            Func<Line, (string Label, string Unit, FigurePath Path)> made,
            IReadOnlySet<Guid>? only,
            IEnumerable<(Guid Key, Val Value)>? more = null
        )
        {
            var sums = new Dictionary<Guid, (Sum Sum, Line First)>();
            foreach (var line in reckoned.Lines)
            {
                if (only?.Contains(key(line)) == false)
                    continue;
                if (!sums.TryGetValue(key(line), out var entry))
                    sums[key(line)] = entry = (new(), line);
                entry.Sum.Add(value(line));
            }
            foreach (var (of, amount) in more ?? [])
                if (sums.TryGetValue(of, out var found))
                    found.Sum.Add(amount);
            return sums.ToDictionary(
                s => s.Key,
                s =>
                {
                    var (label, unit, path) = made(s.Value.First);
                    return trace.Total(s.Value.Sum.Total, unit, label, path);
                }
            );
        }
        return new(
            By(
                l => l.Measures.Place.Id,
                l => l.Hours,
                l => ($"{l.Measures.Place.Name}: labour", "h", new("places", l.Measures.Place.Id, "hours")),
                places
            ),
            By(
                l => l.Item.Item.Id,
                l => l.Hours,
                l => ($"{l.Item.Item.Name}: labour", "h", new("work", l.Item.Item.Id, "hours")),
                work,
                reckoned.EachTime.Where(o => o.Part.Kind.IsLabour).Select(o => (o.Item.Item.Id, o.Amount))
            ),
            By(
                l => l.Item.Item.Id,
                l => l.Quantity,
                l =>
                    ($"{l.Item.Item.Name}: quantity", l.Item.SymbolIn(system), new("work", l.Item.Item.Id, "quantity")),
                work
            )
        );
    }
}
