using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>The price before tax shared to lines, and added up by section and place. Made only for the view that shows it (architecture decision 10).</summary>
public sealed class Spread
{
    private Spread(Val[] costs, Val[] lines, Val[] shown) => (Costs, Lines, Shown) = (costs, lines, shown);

    /// <summary>Cost of each line; travel and leftovers of the whole job are no line's.</summary>
    public Val[] Costs { get; }

    /// <summary>Price of each line of <see cref="Reckoning.Reckoning.Lines"/>; they sum to the price before tax.</summary>
    public Val[] Lines { get; }

    /// <summary>The same as a customer sees them: what is hidden, or done by the customer, is nothing, and is spread over the visible lines of its section, else of the job, by price (estimating model §9).</summary>
    public Val[] Shown { get; }

    /// <summary>Shares an amount of whole cents by weight, by largest remainder.</summary>
    public static Val[] Share(Val total, Val[] weights, string name, Trace trace)
    {
        var parts = Split.ByLargestRemainder(total.V, [.. weights.Select(w => w.V)]);
        var set = trace.On
            ? new ShareSet(trace.Prefix + name, total.HowOrConstant, [.. weights.Select(w => w.HowOrConstant)])
            : null;
        return [.. parts.Select((part, i) => new Val(part, set is null ? null : new Share(set, i)))];
    }

    /// <summary>Shares what the costs come to by each line's cost with its class's markup; percentages of the whole fall on all alike. Price-only items keep their own
    /// price, shared to their lines by quantity; an allowance is its line's.</summary>
    public static Spread Of(Reckoning.Reckoning reckoning, Trace trace)
    {
        var (terms, price) = (reckoning.Job.Pricing, reckoning.Price);
        var marked = terms.Basis == PriceBasis.Markup;
        decimal[] markups =
        [
            terms.LabourMarkup,
            terms.MaterialMarkup,
            terms.EquipmentMarkup,
            terms.SubcontractMarkup,
            terms.FixedMarkup,
        ];
        var costs = LineCosts.Of(reckoning, trace).ByClass;
        var (exact, weights) = (new Val[reckoning.Lines.Length], new Val[reckoning.Lines.Length]);
        for (var n = 0; n < weights.Length; n++)
        {
            var line = reckoning.Lines[n];
            var (cost, sum) = (new Sum(), new Sum());
            for (var c = 0; c < markups.Length; c++)
            {
                if (costs[n][c].V == 0)
                    continue;
                cost.Add(costs[n][c]);
                sum.Add(
                    marked && markups[c] != 0
                        ? costs[n][c]
                            * (
                                100m
                                + trace.Term(
                                    markups[c],
                                    "%",
                                    "markup on " + price.Classes[c].Name,
                                    price.Classes[c].Name + "Markup"
                                )
                            )
                            / 100m
                        : costs[n][c]
                );
            }
            exact[n] = trace.Make(cost.Total, "", trace.On ? Name(line) + ": cost" : "", Path(line, "cost"));
            weights[n] = trace.Make(
                sum.Total,
                "",
                trace.On ? Name(line) + ": cost with markup" : "",
                Path(line, "weight")
            );
        }
        var shares = Share(price.OfCosts, weights, "price by line", trace);
        foreach (var priced in reckoning.Priced)
        {
            var at = Enumerable.Range(0, weights.Length).Where(n => priced.Prices(reckoning.Lines[n])).ToArray();
            var own = Share(
                priced.Price,
                [.. at.Select(n => reckoning.Lines[n].Quantity)],
                trace.On
                    ? $"quantity of {priced.Item.Item.Section}: {priced.Item.Item.Name} (price-only {reckoning.Priced.IndexOf(priced) + 1})"
                    : "",
                trace
            );
            for (var i = 0; i < at.Length; i++)
                shares[at[i]] = shares[at[i]].V == 0 ? own[i] : shares[at[i]] + own[i];
        }
        Val[] lines =
        [
            .. shares.Select(
                (share, n) =>
                    trace.Make(
                        share,
                        "",
                        trace.On ? Name(reckoning.Lines[n]) + ": price" : "",
                        Path(reckoning.Lines[n], "price")
                    )
            ),
        ];
        return new(exact, lines, Visible(reckoning, lines, trace));
    }

    private static Val[] Visible(Reckoning.Reckoning reckoning, Val[] lines, Trace trace)
    {
        bool Hidden(int n) => !reckoning.Lines[n].Seen;
        string Section(int n) => reckoning.Lines[n].OfItem.Item.Section;
        var all = Enumerable.Range(0, lines.Length).ToArray();
        var visible = all.Where(n => !Hidden(n)).ToArray();
        if (visible.Length == 0 || visible.Length == lines.Length)
            return lines;
        var shown = lines.ToArray();
        foreach (var hidden in all.Where(Hidden).GroupBy(Section))
        {
            var sum = new Sum();
            foreach (var n in hidden)
                sum.Add(lines[n]);
            var over = visible.Where(n => Section(n) == hidden.Key).ToArray();
            if (over.Length == 0)
                over = visible;
            var more = Share(
                sum.Total,
                [.. over.Select(n => lines[n])],
                trace.On ? "price of the visible lines that bear what is hidden of " + hidden.Key : "",
                trace
            );
            for (var i = 0; i < over.Length; i++)
                shown[over[i]] += more[i];
            foreach (var n in hidden)
                shown[n] = 0m;
        }
        return
        [
            .. shown.Select(
                (value, n) =>
                    Hidden(n)
                        ? value
                        : trace.Make(
                            value,
                            "",
                            trace.On ? Name(reckoning.Lines[n]) + ": price with what is hidden" : "",
                            Path(reckoning.Lines[n], "shown")
                        )
            ),
        ];
    }

    private static string Name(Line line) => $"{line.Item.Item.Name}, {line.Measures.Place.Name}";

    private static FigurePath Path(Line line, string leaf) =>
        new("lines", line.Item.Item.Id, line.Measures.Place.Id, leaf);

    /// <summary>Sum of the lines, as the customer sees them, for which <paramref name="within"/> holds, as a figure.</summary>
    public Val Sum(Reckoning.Reckoning reckoning, Func<Line, bool> within, string label, FigurePath path, Trace trace)
    {
        var sum = new Sum();
        for (var i = 0; i < Lines.Length; i++)
            if (within(reckoning.Lines[i]))
                sum.Add(Shown[i]);
        return trace.Make(sum.Total, "", label, path);
    }
}
