using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>What of a price stands in rows of its own, and not in its lines.</summary>
public enum Apart
{
    Nothing,
    Discounts,

    /// <summary>Discounts, adjustments, the job's least charge and its rounding.</summary>
    Adjustments,

    /// <summary>The job's least charge and its rounding: what lines are worth in a contract is without them (delivery.md, M13).</summary>
    Whole,
}

/// <summary>The price before tax shared to lines, and added up by section and place. Made only for the view that shows it (architecture decision 10).</summary>
public sealed class Spread
{
    private Spread(Val[] costs, Val[] lines, Val[] shown) => (Costs, Lines, Shown) = (costs, lines, shown);

    /// <summary>Cost of each line; travel and leftovers of the whole job are no line's.</summary>
    public Val[] Costs { get; }

    /// <summary>Price of each line of <see cref="Reckoned.Lines"/>; with contingency that is shown and <see cref="NoLines"/> they sum to the price before tax.</summary>
    public Val[] Lines { get; }

    /// <summary>The same as a customer sees them: what is hidden, or done by the customer, is nothing, and is spread over the visible lines of its section, else of the job, by price (estimating model §9).</summary>
    public Val[] Shown { get; }

    /// <summary>Price of each line by tax category: its number, and the lines' prices.</summary>
    public required IReadOnlyDictionary<int, Val[]> ByTax { get; init; }

    /// <summary>What is in the price and falls on no line, because there is none that could bear it: an adjustment beside allowances alone.</summary>
    public Val NoLines { get; private init; }

    /// <summary>What no visible line bears: hidden work whose tax category no visible line has, and <see cref="NoLines"/>.</summary>
    public Val Other { get; private init; }

    /// <summary>What contingency that is shown on its own takes out of the lines; nothing where it is spread over them.</summary>
    public Val Contingency { get; private init; }

    /// <summary>Shares each part of the price, as it came out, to its lines: what is made from costs by each line's cost as the basis counts it, what has a price of its own by that
    /// price. Where lines were raised to least charges, by what they were raised to.</summary>
    /// <param name="estimate">The job.</param>
    /// <param name="trace">Records how, or is silent.</param>
    /// <param name="apart">What stands in rows of its own: the lines are without it.</param>
    public static Spread Of(Estimate estimate, Trace trace, Apart apart = Apart.Nothing)
    {
        // The draft is made once more where its workings are asked for: what was made silently says nothing.
        var draft =
            ReferenceEquals(estimate.Price.Draft.Trace, trace) || !trace.On
                ? estimate.Price.Draft
                : Price.Of(estimate.Reckoned, estimate.Priced, trace).Draft;
        var lines = estimate.Reckoned.Lines;
        var costs = draft.LineCosts.Lines;
        var exact = new Val[lines.Length];
        for (var n = 0; n < lines.Length; n++)
            exact[n] = trace.Make(
                Figures.Sum.Of(costs[n].Where(c => c.Of.V != 0).Select(c => c.Of)),
                "",
                trace.On ? Name(lines[n]) + ": cost" : "",
                Path(lines[n], "cost")
            );
        if (trace.On)
            Weights(draft);
        // By tax category, because hidden lines are borne within theirs.
        var byTax = new SortedDictionary<int, Val[]>();
        var nobody = new Sum();
        foreach (var portion in draft.Portions)
        {
            var of = LinePrices.WeightsOf(draft, portion);
            var off =
                apart == Apart.Nothing ? 0m
                : apart == Apart.Whole ? Whole(draft, portion).Sum(w => w.Amount)
                : Off(draft, portion, apart);
            var shares = LinePrices.Share(
                draft,
                off.V == 0 ? portion : portion with { Amount = portion.Amount - off },
                of,
                off.V == 0 ? "in the end" : "before " + apart.ToString().ToLowerInvariant()
            );
            if (!byTax.TryGetValue(portion.Tax.Number, out var prices))
                byTax.Add(portion.Tax.Number, prices = new Val[lines.Length]);
            if (of.At.Length == 0)
                nobody.Add(portion.Amount - off);
            for (var i = 0; i < of.At.Length; i++)
                if (shares[i].V != 0)
                    prices[of.At[i]] = prices[of.At[i]].V == 0 ? shares[i] : prices[of.At[i]] + shares[i];
        }
        if (draft.Contingency.V != 0)
            TakeOut(draft, byTax, apart);
        Val Joined(IEnumerable<Val[]> parts, int n) =>
            parts.Where(p => p[n].V != 0).Select(p => p[n]).ToArray() is [var one]
                ? one
                : Figures.Sum.Of(parts.Where(p => p[n].V != 0).Select(p => p[n]));
        Val[] Made(string leaf, string words, Func<int, bool> isMade, IEnumerable<Val[]> parts) =>
            [
                .. Enumerable
                    .Range(0, lines.Length)
                    .Select(n =>
                        isMade(n)
                            ? trace.Make(
                                Joined(parts, n),
                                "",
                                trace.On ? Name(lines[n]) + words : "",
                                Path(lines[n], Leaf(apart) + leaf)
                            )
                            : Joined(parts, n)
                    ),
            ];
        var made = Made("price", ": price", _ => true, byTax.Values);
        var (shown, other) = Visible(draft, byTax, apart);
        return new(
            exact,
            made,
            shown is null ? made : Made("shown", ": price with what is hidden", n => !IsHidden(lines[n]), shown)
        )
        {
            ByTax = byTax,
            Contingency = draft.Contingency,
            NoLines = nobody.Total,
            Other = nobody.Total.V == 0 ? other : other + nobody.Total,
        };
    }

    /// <summary>Whether a step stands in a row of its own.</summary>
    public static bool StandsApart(PriceStep step, Apart apart) =>
        apart switch
        {
            Apart.Discounts => step.IsDiscount,
            Apart.Adjustments => step.IsDiscount || step.Key is "adjustment" or "leastJob" or "rounding",
            _ => false,
        };

    private static string Leaf(Apart apart) =>
        apart switch
        {
            Apart.Discounts => "list/",
            Apart.Adjustments => "bare/",
            Apart.Whole => "contract/",
            _ => "",
        };

    /// <summary>What of a part of the price is the job's as a whole (delivery.md, M13): its rounding; and its least charge, with the share that later discounts and percent costs have of that, as they have of the lines.</summary>
    /// <returns>Each that is there, with its key, in the currency's places.</returns>
    internal static IEnumerable<(string Key, string Label, decimal Amount)> Whole(PriceDraft draft, Portion portion)
    {
        decimal Of(PriceStep step) =>
            step
                .Parts.Where(p =>
                    p.Of == portion.Of && p.Section == portion.Section && ReferenceEquals(p.Tax, portion.Tax)
                )
                .Sum(p => p.Amount.V);
        var rounding = draft.Steps.FirstOrDefault(s => s.Key == "rounding");
        var rounded = rounding is null ? 0 : Of(rounding);
        if (draft.Steps.FirstOrDefault(s => s.Key == "leastJob") is { } least && Of(least) is not 0 and var raised)
        {
            // What it came to when it was raised: what stands there now without all that came after.
            var then =
                portion.Amount.V
                - draft
                    .Steps.SkipWhile(s => s != least)
                    .Skip(1)
                    .Where(s => s.Kind is not (StepKind.Sum or StepKind.Within))
                    .Sum(Of);
            var share = then == 0 ? raised : (portion.Amount.V - rounded) * raised / then;
            yield return (least.Key, least.Label, Rounding.Money(share, draft.Places));
        }
        if (rounded != 0)
            yield return (rounding!.Key, rounding.Label, rounded);
    }

    /// <summary>What steps that stand apart took off a part of the price, below zero, or put on it.</summary>
    private static Val Off(PriceDraft draft, Portion portion, Apart apart) =>
        Figures.Sum.Of(
            draft
                .Steps.Where(s => StandsApart(s, apart))
                .SelectMany(s => s.Parts)
                .Where(p => p.Of == portion.Of && p.Section == portion.Section && ReferenceEquals(p.Tax, portion.Tax))
                .Select(p => p.Amount)
        );

    /// <summary>Takes contingency that is shown on its own out of the lines.</summary>
    private static void TakeOut(PriceDraft draft, SortedDictionary<int, Val[]> byTax, Apart apart)
    {
        var at = byTax
            .SelectMany(tax => tax.Value.Select((price, n) => (tax.Key, n, price)))
            .Where(p => p.price.V != 0)
            .ToArray();
        var taken = Shares.Of(
            draft.Contingency,
            [.. at.Select(p => p.price)],
            "price by line, for contingency" + Before(apart),
            draft.Places,
            draft.Trace
        );
        for (var i = 0; i < at.Length; i++)
            byTax[at[i].Key][at[i].n] -= taken[i];
    }

    /// <summary>Figures of what each line counts for.</summary>
    private static void Weights(PriceDraft draft)
    {
        foreach (var pool in draft.Pools)
        {
            var (by, _) = pool.Weights(draft);
            for (var i = 0; i < by.Length; i++)
            {
                var line = draft.Reckoned.Lines[pool.Lines[i]];
                draft.Trace.Make(
                    Figures.Sum.Of(by[i].Where(c => c.Of.V != 0).Select(c => c.Of)),
                    "",
                    Name(line) + ": cost with markup",
                    Path(line, "weight")
                );
            }
        }
    }

    // The same amounts are split several times where some stand in rows of their own.
    private static string Before(Apart apart) =>
        apart == Apart.Nothing ? "" : ", before " + apart.ToString().ToLowerInvariant();

    // What is nothing is neither hidden nor seen: there is nothing of it to spread, and it bears nothing.
    private static bool IsHidden(Line line) => line is { Seen: false, IsNothing: false };

    /// <summary>The same with hidden lines borne by visible ones of their section, else of the job, of the same tax category; where there is none of that, by nobody. Null where nothing is hidden.</summary>
    private static (IReadOnlyCollection<Val[]>? Shown, Val Other) Visible(
        PriceDraft draft,
        SortedDictionary<int, Val[]> byTax,
        Apart apart
    )
    {
        var lines = draft.Reckoned.Lines;
        string Section(int n) => draft.Reckoned.Job.SectionOf(lines[n].OfItem.Item);
        if (!Array.Exists(lines, l => l.Seen) || !Array.Exists(lines, IsHidden))
            return (null, 0m);
        var shown = new List<Val[]>();
        var other = new Sum();
        foreach (var (tax, prices) in byTax)
        {
            var borne = prices.ToArray();
            shown.Add(borne);
            bool Bears(int n) => lines[n].Seen && prices[n].V > 0;
            var hidden = Enumerable.Range(0, lines.Length).Where(n => IsHidden(lines[n])).GroupBy(Section).ToArray();
            foreach (var section in hidden)
            {
                var sum = Figures.Sum.Of(section.Where(n => prices[n].V != 0).Select(n => prices[n]));
                foreach (var n in section)
                    borne[n] = 0m;
                if (sum.V == 0)
                    continue;
                var over = Enumerable
                    .Range(0, lines.Length)
                    .Where(n => Bears(n) && Section(n) == section.Key)
                    .ToArray();
                if (over.Length == 0)
                    over = [.. Enumerable.Range(0, lines.Length).Where(Bears)];
                if (over.Length == 0)
                {
                    other.Add(sum);
                    continue;
                }
                var more = Shares.Of(
                    sum,
                    [.. over.Select(n => prices[n])],
                    draft.Trace.On
                        ? $"price of the visible lines that bear what is hidden of {section.Key}, tax {tax + 1}{Before(apart)}"
                        : "",
                    draft.Places,
                    draft.Trace
                );
                for (var i = 0; i < over.Length; i++)
                    borne[over[i]] += more[i];
            }
        }
        return (shown, other.Total);
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
