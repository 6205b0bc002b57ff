using Emendum.Core.Figures;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Reports;

/// <summary>Cost and price of every line, with their sums by place and by work item: the scope grid in money. Made only for the view that shows it.</summary>
public sealed record LineMoney(
    Spread Lines,
    Dictionary<Guid, Total> PlaceCost,
    Dictionary<Guid, Total> PlacePrice,
    Dictionary<Guid, Total> ItemCost,
    Dictionary<Guid, Total> ItemPrice
)
{
    /// <summary>Shares cost and price to the lines and adds them up.</summary>
    public static LineMoney Of(Estimate estimate, Trace trace)
    {
        var spread = Spread.Of(estimate, trace);
        Dictionary<Guid, Total> By(Val[] values, Func<Line, (Guid Id, string Name)> key, string area, string leaf)
        {
            var sums = new Dictionary<Guid, (Sum Sum, string Name)>();
            for (var n = 0; n < values.Length; n++)
            {
                var (id, name) = key(estimate.Reckoned.Lines[n]);
                if (!sums.TryGetValue(id, out var sum))
                    sums[id] = sum = (new(), name);
                sum.Sum.Add(values[n]);
            }
            return sums.ToDictionary(
                s => s.Key,
                s =>
                    trace.Total(
                        s.Value.Sum.Total,
                        "",
                        trace.On ? $"{s.Value.Name}: {(leaf == "lineCost" ? "cost" : "price")} of its lines" : "",
                        new(area, s.Key, leaf)
                    )
            );
        }
        (Guid, string) Place(Line line) => (line.Measures.Place.Id, line.Measures.Place.Name);
        (Guid, string) Item(Line line) => (line.OfItem.Item.Id, line.OfItem.Item.Name);
        return new(
            spread,
            By(spread.Costs, Place, "places", "lineCost"),
            By(spread.Lines, Place, "places", "linePrice"),
            By(spread.Costs, Item, "work", "lineCost"),
            By(spread.Lines, Item, "work", "linePrice")
        );
    }
}
