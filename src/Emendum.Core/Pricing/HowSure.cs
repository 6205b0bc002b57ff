using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>Where what is said of a piece of work stands.</summary>
public enum DoubtOf
{
    /// <summary>With the work itself.</summary>
    Work,

    /// <summary>With its section.</summary>
    Section,

    /// <summary>With the job.</summary>
    Job,
}

/// <summary>A figure as it is reckoned, at the least and at the most.</summary>
public sealed record Between(Total Reckoned, Total Least, Total Most)
{
    /// <summary>What lies between.</summary>
    internal Val Wide => Most - Least;
}

/// <summary>Work that may come out otherwise than it is reckoned.</summary>
/// <param name="Item">The work item.</param>
/// <param name="Doubt">How far.</param>
/// <param name="Says">Where that is said.</param>
/// <param name="Hours">Its labour hours.</param>
/// <param name="Pace">How much of it is done in an hour: at the least where it takes the most hours; null where nothing is counted or no hours are spent.</param>
/// <param name="ByHours">What of its cost goes with the hours: labour and machines.</param>
/// <param name="Bought">What of its cost is bought: goods and subcontracts.</param>
public sealed record UncertainWork(
    CompiledItem Item,
    Doubt Doubt,
    DoubtOf Says,
    Between Hours,
    Between? Pace,
    Between ByHours,
    Between Bought
);

/// <summary>Three outcomes: a tenth of all come out below the first, half below the second, nine tenths below the third.</summary>
public sealed record Tenths(Total At10, Total At50, Total At90);

/// <summary>What of the risk a piece of work carries, percent: its part of the variance of the job's cost.</summary>
public sealed record Risk(UncertainWork Work, Total Percent);

/// <summary>How many outcomes end with a profit from one amount to another.</summary>
public sealed record ProfitBar(decimal From, decimal To, int Count);

/// <summary>
/// How sure an estimate is (estimating model §7): its work drawn many times over between what it takes at the least and at the most, each amount between as likely as the other (a uniform distribution). The
/// price stands; travel, what no work bears, allowances and fees do too, and packs are not bought anew.
/// </summary>
/// <param name="Terms">What was said.</param>
/// <param name="Draws">How many outcomes were drawn.</param>
/// <param name="Work">The work, in job order; work that costs nothing is left out.</param>
/// <param name="Hours">Labour hours.</param>
/// <param name="Cost">Cost, with allowances and fees.</param>
/// <param name="Profit">Gross profit: the price before tax less the cost that is as far from the other end.</param>
/// <param name="BelowFloor">Of a hundred outcomes, how many end with a margin under the floor; null where there is no price.</param>
/// <param name="Risks">What carries the risk, the most first.</param>
/// <param name="Bars">The outcomes by their profit.</param>
public sealed record HowSure(
    Sureness Terms,
    int Draws,
    ImmutableArray<UncertainWork> Work,
    Tenths Hours,
    Tenths Cost,
    Tenths Profit,
    Total? BelowFloor,
    ImmutableArray<Risk> Risks,
    ImmutableArray<ProfitBar> Bars
)
{
    /// <summary>Most draws.</summary>
    public const int MostDraws = 10_000;

    /// <summary>Bars of the picture.</summary>
    private const int BarCount = 36;

    private const string Area = "sure";

    /// <summary>Draws the outcomes of an estimate.</summary>
    /// <param name="estimate">The estimate; made with <paramref name="trace"/> where that records.</param>
    /// <param name="draws">How many outcomes, 100 to <see cref="MostDraws"/>.</param>
    /// <param name="trace">Records how, or is silent.</param>
    /// <param name="stop">Ends it early.</param>
    /// <exception cref="RefusedException">Its numbers are beyond what can be reckoned with.</exception>
    public static HowSure Of(Estimate estimate, int draws, Trace trace, CancellationToken stop = default)
    {
        if (draws is < 100 or > MostDraws)
            throw RefusedException.Of("draws", $"100 to {MostDraws:N0} outcomes are drawn.");
        return Reckoner.Bounded(() => Drawn(estimate, draws, trace, stop));
    }

    private static HowSure Drawn(Estimate estimate, int draws, Trace trace, CancellationToken stop)
    {
        var (terms, price, places) = (estimate.Job.Sureness ?? Sureness.Starting, estimate.Price, estimate.MoneyPlaces);
        var work = Uncertain(estimate, terms, trace);
        Total Figure(Val value, string unit, string label, string leaf) =>
            trace.Total(value, unit, label, new(Area, leaf));
        var shared = trace.Typed(terms.Shared, "%", "goes as the whole job goes", null, Area, estimate.Job.Id);
        var seed = trace.Typed(terms.Seed, "", "seed", null, Area, estimate.Job.Id);
        Outcomes Draw(string name, Val whole, Func<UncertainWork, IEnumerable<Between>> of, Func<int, int, int> stream)
        {
            var sure = whole - Sum.Of(work.SelectMany(of).Select(b => b.Reckoned.Value));
            return Outcomes.Of(
                name,
                Figure(sure, name == "hours" ? "h" : "", $"What of the {name} does not vary", name + "/fixed"),
                [
                    .. work.SelectMany(
                        (w, n) => of(w).Select((b, part) => new Varying(b.Least, b.Most, stream(n, part)))
                    ),
                ],
                2 * work.Length,
                shared,
                seed,
                draws,
                stop
            );
        }
        var hours = Draw("hours", estimate.Reckoned.Costs.Hours, w => [w.Hours], (n, _) => 2 * n);
        var cost = Draw("cost", price.Readouts.Cost, w => [w.ByHours, w.Bought], (n, part) => 2 * n + part);
        Tenths At(string leaf, Func<int, (Val Value, string Unit)> of, string label)
        {
            Total One(int percent)
            {
                var (value, unit) = of(percent);
                return Figure(value, unit, $"{label} at the {percent}th percentile", $"{leaf}/{percent}");
            }
            return new(One(10), One(50), One(90));
        }
        var costs = At("cost", p => (cost.Percentile(p, trace).Money(places), ""), "Cost");
        Total CostAt(int percent) =>
            percent switch
            {
                10 => costs.At10,
                50 => costs.At50,
                _ => costs.At90,
            };
        var floor = trace.Term(estimate.Job.Pricing.FloorMargin, "%", "floor margin", "floorMargin");
        return new(
            terms,
            draws,
            work,
            At("hours", p => (hours.Percentile(p, trace), "h"), "Labour hours"),
            costs,
            At("profit", p => (price.BeforeTax - CostAt(100 - p), ""), "Gross profit"),
            price.BeforeTax.V <= 0
                ? null
                : Figure(
                    cost.Above(
                        Figure(
                            price.BeforeTax * (100m - floor) / 100m,
                            "",
                            "Cost that leaves the floor margin",
                            "cost/atFloor"
                        ),
                        trace
                    )
                        * 100m
                        / draws,
                    "%",
                    "Chance of a margin under the floor",
                    "belowFloor"
                ),
            Carried(work, shared, trace),
            ByProfit(cost, price.BeforeTax.V)
        );
    }

    private static ImmutableArray<UncertainWork> Uncertain(Estimate estimate, Sureness terms, Trace trace)
    {
        var (job, reckoned) = (estimate.Job, estimate.Reckoned);
        var costs = estimate.Price.Draft.LineCosts;
        var lines = Enumerable.Range(0, reckoned.Lines.Length).ToLookup(n => reckoned.Lines[n].OfItem.Item.Id);
        var once = reckoned.Costs.Once.Where(o => o.Part.Kind.IsLabour).ToLookup(o => o.Item.Item.Id);
        var all = ImmutableArray.CreateBuilder<UncertainWork>();
        foreach (var item in reckoned.Items)
        {
            var id = item.Item.Id;
            int[] at = [.. lines[id]];
            if (at.Length == 0)
                continue;
            var (doubt, says, where) = SaidOf(job, item.Item, terms);
            Between Within(Val value, string unit, string label, string leaf, decimal low, decimal high)
            {
                Total One(Val amount, string end) =>
                    trace.Total(
                        amount,
                        unit,
                        trace.On ? $"{item.Item.Name}: {label}{end}" : "",
                        new(Area, id, leaf + end.Replace(", ", "/", StringComparison.Ordinal))
                    );
                var whole = One(value, "");
                Val Percent(decimal percent, string end) =>
                    trace.Typed(percent, "%", $"{label} {end}", null, Area, where);
                return new(
                    whole,
                    One(whole * (100m + Percent(low, "low")) / 100m, ", least"),
                    One(whole * (100m + Percent(high, "high")) / 100m, ", most")
                );
            }
            Val Of(params CostClass[] classes) => Sum.Of(at.SelectMany(n => classes.Select(c => costs.Lines[n][c])));
            var hours = Within(
                Sum.Of([.. at.Select(reckoned.HoursInYear), .. once[id].Select(o => o.Amount)]),
                "h",
                "labour hours",
                "hours",
                doubt.HoursLow,
                doubt.HoursHigh
            );
            var work = new UncertainWork(
                item,
                doubt,
                says,
                hours,
                PaceOf(item, Sum.Of(at.Select(n => reckoned.InYear(n, reckoned.Lines[n].Quantity))), hours, job, trace),
                Within(
                    Of(CostClass.Labour, CostClass.Equipment),
                    "",
                    "labour and machines",
                    "byHours",
                    doubt.HoursLow,
                    doubt.HoursHigh
                ),
                Within(
                    Of(CostClass.Material, CostClass.Subcontract),
                    "",
                    "goods and subcontracts",
                    "bought",
                    doubt.PricesLow,
                    doubt.PricesHigh
                )
            );
            if (work.Hours.Reckoned.V != 0 || work.ByHours.Reckoned.V != 0 || work.Bought.Reckoned.V != 0)
                all.Add(work);
        }
        return all.ToImmutable();
    }

    private static Between? PaceOf(CompiledItem item, Val quantity, Between hours, Job job, Trace trace)
    {
        if (quantity.V == 0 || hours.Least.V == 0)
            return null;
        var symbol = item.SymbolIn(job.Units);
        Total One(Total of, string leaf) =>
            trace.Total(
                quantity / of,
                symbol.Length == 0 ? "per h" : symbol + "/h",
                trace.On ? $"{item.Item.Name}: done in an hour" : "",
                new(Area, item.Item.Id, leaf)
            );
        return new(One(hours.Reckoned, "pace"), One(hours.Most, "pace/least"), One(hours.Least, "pace/most"));
    }

    /// <summary>What is said of work, and where.</summary>
    private static (Doubt Doubt, DoubtOf Says, Guid Where) SaidOf(Job job, WorkItem item, Sureness terms)
    {
        if (item.Doubt is { } own)
            return (own, DoubtOf.Work, item.Id);
        if (job.Section(item.Section)?.Doubt is { } ofSection)
            return (ofSection, DoubtOf.Section, item.Section);
        return (terms.All, DoubtOf.Job, job.Id);
    }

    /// <summary>
    /// Which work carries the risk. With s the share, w the width of each thing that varies and W the sum of all widths, one of width w adds w² · (1 − s²) + s² · w · W to the variance of the
    /// cost (÷ 12): two of them have the correlation s². What a piece of work carries is its part of the sum.
    /// </summary>
    private static ImmutableArray<Risk> Carried(ImmutableArray<UncertainWork> work, Val shared, Trace trace)
    {
        var width = trace.Total(
            Sum.Of(work.SelectMany(w => new[] { w.ByHours.Wide, w.Bought.Wide })),
            "",
            "Sum of all widths",
            new(Area, "risk/width")
        );
        var together = trace.Total(
            shared * shared / 10_000m,
            "",
            "Correlation of two pieces of work",
            new(Area, "risk/correlation")
        );
        Total Carries(UncertainWork w) =>
            trace.Total(
                (w.ByHours.Wide * w.ByHours.Wide + w.Bought.Wide * w.Bought.Wide) * ((Val)1m - together)
                    + (w.ByHours.Wide + w.Bought.Wide) * width * together,
                "",
                trace.On ? $"{w.Item.Item.Name}: what it adds to the variance of the cost, times 12" : "",
                new(Area, w.Item.Item.Id, "risk/variance")
            );
        var parts = work.Select(w => (Work: w, Part: Carries(w))).ToArray();
        var all = trace.Total(
            Sum.Of(parts.Select(p => p.Part.Value)),
            "",
            "Variance of the cost, times 12",
            new(Area, "risk/variance")
        );
        return all.V == 0
            ? []
            :
            [
                .. parts
                    .Select(p => new Risk(
                        p.Work,
                        trace.Total(
                            p.Part * 100m / all,
                            "%",
                            trace.On ? $"{p.Work.Item.Item.Name}: what of the risk it carries" : "",
                            new(Area, p.Work.Item.Item.Id, "risk")
                        )
                    ))
                    .Where(r => r.Percent.V > 0)
                    .OrderByDescending(r => r.Percent.V),
            ];
    }

    private static ImmutableArray<ProfitBar> ByProfit(Outcomes cost, decimal price)
    {
        var (least, most) = (price - cost.Largest, price - cost.Smallest);
        if (least == most)
            return [new(least, most, cost.InOrder.Length)];
        var counts = new int[BarCount];
        foreach (var outcome in cost.InOrder)
            counts[Math.Min(BarCount - 1, (int)decimal.Floor((price - outcome - least) * BarCount / (most - least)))]++;
        decimal Edge(int n) => least + (most - least) * n / BarCount;
        return [.. counts.Select((count, n) => new ProfitBar(Edge(n), Edge(n + 1), count))];
    }
}
