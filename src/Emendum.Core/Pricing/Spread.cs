using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>The price before tax shared to lines, and added up by section and place. Made only for the view that shows it (architecture decision 10).</summary>
public sealed class Spread
{
    private Spread(Val[] lines) => Lines = lines;

    /// <summary>Price of each line of <see cref="Reckoning.Reckoning.Lines"/>; they sum to the price before tax.</summary>
    public Val[] Lines { get; }

    /// <summary>Shares an amount of whole cents by weight, by largest remainder.</summary>
    public static Val[] Share(Val total, Val[] weights, string name, Trace trace)
    {
        var parts = Split.ByLargestRemainder(total.V, [.. weights.Select(w => w.V)]);
        var set = trace.On ? new ShareSet(name, total.HowOrConstant, [.. weights.Select(w => w.HowOrConstant)]) : null;
        return [.. parts.Select((part, i) => new Val(part, set is null ? null : new Share(set, i)))];
    }

    /// <summary>Shares what the costs come to by each line's cost with its class's markup; percentages of the whole fall on all alike. Price-only items keep their own
    /// price, shared to their lines by quantity.</summary>
    public static Spread Of(Reckoning.Reckoning reckoning, Trace trace)
    {
        var (terms, price) = (reckoning.Job.Pricing, reckoning.Price);
        var marked = terms.Basis == PriceBasis.Markup;
        decimal[] markups = [terms.LabourMarkup, terms.MaterialMarkup, terms.EquipmentMarkup, terms.SubcontractMarkup, terms.FixedMarkup];
        var costs = LineCosts.Of(reckoning, trace).ByClass;
        var weights = new Val[reckoning.Lines.Length];
        for (var n = 0; n < weights.Length; n++)
        {
            var line = reckoning.Lines[n];
            var (cost, sum) = (new Sum(), new Sum());
            for (var c = 0; c < markups.Length; c++)
            {
                if (costs[n][c].V == 0) continue;
                cost.Add(costs[n][c]);
                sum.Add(marked && markups[c] != 0 ? costs[n][c] * (100m + trace.Term(markups[c], "%", "markup on " + price.Classes[c].Name, price.Classes[c].Name + "Markup")) / 100m : costs[n][c]);
            }
            trace.Make(cost.Total, "", trace.On ? Name(line) + ": cost" : "", Path(line, "cost"));
            weights[n] = trace.Make(sum.Total, "", trace.On ? Name(line) + ": cost with markup" : "", Path(line, "weight"));
        }
        var shares = Share(price.OfCosts, weights, "price by line", trace);
        foreach (var priced in reckoning.Priced)
        {
            var at = Enumerable.Range(0, weights.Length).Where(n => ReferenceEquals(reckoning.Lines[n].Item, priced.Item) && reckoning.Lines[n].Supply != Work.Supply.Customer).ToArray();
            var own = Share(priced.Price, [.. at.Select(n => reckoning.Lines[n].Quantity)], trace.On ? $"quantity of {priced.Item.Item.Section}: {priced.Item.Item.Name} (price-only {reckoning.Priced.IndexOf(priced) + 1})" : "", trace);
            for (var i = 0; i < at.Length; i++) shares[at[i]] = shares[at[i]].V == 0 ? own[i] : shares[at[i]] + own[i];
        }
        return new([.. shares.Select((share, n) => trace.Make(share, "", trace.On ? Name(reckoning.Lines[n]) + ": price" : "", Path(reckoning.Lines[n], "price")))]);
    }

    private static string Name(Line line) => $"{line.Item.Item.Name}, {line.Measures.Place.Name}";

    private static FigurePath Path(Line line, string leaf) => new("lines", line.Item.Item.Id, line.Measures.Place.Id, leaf);

    /// <summary>Sum of the lines for which <paramref name="within"/> holds, as a figure.</summary>
    public Val Sum(Reckoning.Reckoning reckoning, Func<Line, bool> within, string label, FigurePath path, Trace trace)
    {
        var sum = new Sum();
        for (var i = 0; i < Lines.Length; i++)
            if (within(reckoning.Lines[i])) sum.Add(Lines[i]);
        return trace.Make(sum.Total, "", label, path);
    }
}
