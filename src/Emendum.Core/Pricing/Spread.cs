using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>The price before tax shared to lines, and added up by section and place. Made only for the view that shows it (architecture decision 10).</summary>
public sealed class Spread
{
    private Spread(Val[] costs, Val[] lines, Val[] shown) => (Costs, Lines, Shown) = (costs, lines, shown);

    /// <summary>Cost of each line; travel and leftovers of the whole job are no line's.</summary>
    public Val[] Costs { get; }

    /// <summary>Price of each line of <see cref="Reckoned.Lines"/>; they sum to the price before tax.</summary>
    public Val[] Lines { get; }

    /// <summary>The same as a customer sees them: what is hidden, or done by the customer, is nothing, and is spread over the visible lines of its section, else of the job, by price (estimating model §9).</summary>
    public Val[] Shown { get; }

    /// <summary>Shares what the costs come to by each line's cost with its class's markup; percentages of the whole fall on all alike. Price-only items keep their own
    /// price, shared to their lines by quantity; an allowance is its line's.</summary>
    public static Spread Of(Estimate estimate, Trace trace)
    {
        var (terms, price) = (estimate.Job.Pricing, estimate.Price);
        var basis = Basis.Of(terms.Basis);
        var costs = LineCosts.Of(estimate.Reckoned, trace).Lines;
        var (exact, weights) = (new Val[estimate.Reckoned.Lines.Length], new Val[estimate.Reckoned.Lines.Length]);
        for (var n = 0; n < weights.Length; n++)
        {
            var line = estimate.Reckoned.Lines[n];
            var (cost, sum) = (new Sum(), new Sum());
            foreach (var (of, amount) in costs[n])
            {
                if (amount.V == 0)
                    continue;
                cost.Add(amount);
                sum.Add(basis.Weight(amount, of, terms, trace));
            }
            exact[n] = trace.Make(cost.Total, "", trace.On ? Name(line) + ": cost" : "", Path(line, "cost"));
            weights[n] = trace.Make(
                sum.Total,
                "",
                trace.On ? Name(line) + ": cost with markup" : "",
                Path(line, "weight")
            );
        }
        var shares = Shares.Of(price.OfCosts, weights, "price by line", trace);
        var byItem = Enumerable
            .Range(0, weights.Length)
            .ToLookup(n => estimate.Reckoned.Lines[n].OfItem, ReferenceEqualityComparer.Instance);
        var atLine = new Dictionary<Line, int>(ReferenceEqualityComparer.Instance);
        for (var n = 0; n < weights.Length; n++)
            atLine[estimate.Reckoned.Lines[n]] = n;
        for (var p = 0; p < estimate.Priced.Length; p++)
        {
            var priced = estimate.Priced[p];
            int[] at = priced.Line is { } one
                ? [atLine[one]]
                : [.. byItem[priced.Item].Where(n => priced.Prices(estimate.Reckoned.Lines[n]))];
            var own = Shares.Of(
                priced.Price,
                [.. at.Select(n => estimate.Reckoned.Lines[n].Quantity)],
                trace.On ? $"quantity of {estimate.Job.Titled(priced.Item.Item)} (price-only {p + 1})" : "",
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
                        trace.On ? Name(estimate.Reckoned.Lines[n]) + ": price" : "",
                        Path(estimate.Reckoned.Lines[n], "price")
                    )
            ),
        ];
        return new(exact, lines, Visible(estimate, lines, trace));
    }

    private static Val[] Visible(Estimate estimate, Val[] lines, Trace trace)
    {
        // What is nothing is neither hidden nor seen: there is nothing of it to spread, and it bears nothing.
        bool Hidden(int n) => estimate.Reckoned.Lines[n] is { Seen: false, IsNothing: false };
        string Section(int n) => estimate.Job.SectionOf(estimate.Reckoned.Lines[n].OfItem.Item);
        var all = Enumerable.Range(0, lines.Length).ToArray();
        var visible = all.Where(n => estimate.Reckoned.Lines[n].Seen).ToArray();
        if (visible.Length == 0 || !all.Any(Hidden))
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
            var more = Shares.Of(
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
                            trace.On ? Name(estimate.Reckoned.Lines[n]) + ": price with what is hidden" : "",
                            Path(estimate.Reckoned.Lines[n], "shown")
                        )
            ),
        ];
    }

    private static string Name(Line line) => $"{line.Item.Item.Name}, {line.Measures.Place.Name}";

    private static FigurePath Path(Line line, string leaf) =>
        new("lines", line.Item.Item.Id, line.Measures.Place.Id, leaf);

    /// <summary>Sum of the lines, as the customer sees them, for which <paramref name="within"/> holds, as a figure.</summary>
    public Val Sum(Estimate estimate, Func<Line, bool> within, string label, FigurePath path, Trace trace)
    {
        var sum = new Sum();
        for (var i = 0; i < Lines.Length; i++)
            if (within(estimate.Reckoned.Lines[i]))
                sum.Add(Shown[i]);
        return trace.Make(sum.Total, "", label, path);
    }
}
