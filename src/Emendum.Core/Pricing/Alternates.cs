using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>Something offered beside the price: work that stands as an alternate by itself, or all that has one name together.</summary>
/// <param name="Id">Of the alternate with a name, or of the work item.</param>
/// <param name="Named">The alternate with a name; null where it is one piece of work by itself.</param>
/// <param name="Name">As the customer reads it.</param>
/// <param name="Kind">What taking it does.</param>
/// <param name="Taken">Whether it is in the job.</param>
/// <param name="Cells">Its cells, with how they stand.</param>
/// <param name="Work">Its work, in job order.</param>
/// <param name="Places">Names of its places, in job order.</param>
public sealed record Offered(
    Guid Id,
    Jobs.Alternate? Named,
    string Name,
    AlternateKind Kind,
    bool Taken,
    ImmutableArray<KeyValuePair<CellKey, Cell>> Cells,
    ImmutableArray<CompiledItem> Work,
    ImmutableArray<string> Places
)
{
    /// <summary>The job with it taken, or not taken.</summary>
    public Job In(Job job, bool taken)
    {
        var cells = job.Cells.ToBuilder();
        foreach (var (key, cell) in Cells)
            cells[key] =
                Named is not null ? TakeAlternate.Moved(Named, cell, taken)
                : taken ? Piece.Moved(cell, PieceState.In)
                : cell;
        return job with { Cells = cells.ToImmutable() };
    }
}

/// <summary>An alternate with its price before tax: what it adds, or below zero what it takes off.</summary>
public sealed record PricedAlternate(Offered Offered, Total Price, Total Hours, Total GrossProfit)
{
    /// <summary>Where its price is explained.</summary>
    public string Path =>
        Alternates.Within(Offered.Id) + (Offered.Kind == AlternateKind.Add ? "price/beforeTax" : "deduct/price");

    /// <summary>Whether taking it would do the opposite of what it is offered for: a deduct that raises the price.</summary>
    public bool Contrary => Offered.Kind == AlternateKind.Deduct && Price.V > 0;
}

/// <summary>
/// Alternates (estimating model §8). One that adds is priced as a section of its own, with its own packs and percentages; travel is the job's and not its. One that deducts is the job's price without it less the price
/// with it, bought and raised to least charges anew. Both before tax and before the job's rounding.
/// </summary>
public static class Alternates
{
    /// <summary>Start of the paths of an alternate's figures.</summary>
    public static string Within(Guid id) => $"alternates/{id}/";

    /// <summary>A job as what is offered beside its price is priced: what looks at the job's price as a whole (brackets, its least charge, discounts in money, what was typed or rounded) stays
    /// with that, and a fixed price covers none of it.</summary>
    private static Job AsPiece(Job job) =>
        job with
        {
            // Supplies are the year's, whatever is done in it.
            Round = job.Round with
            {
                Supplies = [],
            },
            Pricing = WithoutWhole(job.Pricing) with
            {
                Brackets = null,
                LeastJob = 0,
                Discounts = [.. job.Pricing.Discounts.Where(d => d.Percent is not null)],
                Adjustment = 0,
            },
            Sections =
            [
                .. job.Sections.Select(s =>
                    s with
                    {
                        Least = null,
                        Pricing = s.Pricing?.Basis == PriceBasis.Fixed ? null : s.Pricing,
                    }
                ),
            ],
        };

    /// <summary>The terms without rounding, and with the usual basis instead of a fixed price: as pieces of a price are worth.</summary>
    internal static PricingTerms WithoutWhole(PricingTerms terms) =>
        terms with
        {
            Rounding = null,
            Typed = null,
            Basis = terms.Basis == PriceBasis.Fixed ? terms.UsualBasis : terms.Basis,
        };

    /// <summary>Some work of a job priced as a section of its own: with its own packs and percentages, and without travel, which is the job's.</summary>
    /// <param name="estimate">The job; places have the measures that they have in it.</param>
    /// <param name="cells">What is done.</param>
    /// <param name="work">Its work, in job order.</param>
    /// <param name="trace">Records how, or is silent.</param>
    /// <exception cref="RefusedException">It cannot be priced.</exception>
    public static Estimate Alone(
        Estimate estimate,
        ImmutableDictionary<CellKey, Cell> cells,
        ImmutableArray<WorkItem> work,
        Trace trace
    )
    {
        var job = estimate.Job;
        return Estimate.Of(
            AsPiece(job) with
            {
                Cells = cells.ToImmutableDictionary(c => c.Key, c => c.Value with { State = CellState.Included }),
                Work = [.. work.Select(w => w with { WaitsFor = [] })],
                Crew = job.Crew with { SetUp = null },
            },
            estimate.Reckoned.Measures,
            trace
        );
    }

    /// <summary>All that is offered in a job, taken or not: work by itself in job order, then alternates with a name.</summary>
    public static ImmutableArray<Offered> Of(Estimate estimate)
    {
        var job = estimate.Job;
        var alone = job
            .Cells.Where(c => c.Value is { State: CellState.Alternate, Alternate: null })
            .ToLookup(c => c.Key.Work);
        var named = job.Alternates.IsEmpty
            ? null
            : job.Cells.Where(c => c.Value.Alternate is not null).ToLookup(c => c.Value.Alternate!.Value);
        Offered One(
            Guid id,
            Jobs.Alternate? of,
            string name,
            AlternateKind kind,
            IEnumerable<KeyValuePair<CellKey, Cell>> all
        )
        {
            ImmutableArray<KeyValuePair<CellKey, Cell>> cells =
            [
                .. all.OrderBy(c => c.Key.Work).ThenBy(c => c.Key.Place),
            ];
            var (work, places) = (
                cells.Select(c => c.Key.Work).ToHashSet(),
                cells.Select(c => c.Key.Place).ToHashSet()
            );
            return new(
                id,
                of,
                name,
                kind,
                of is not null && TakeAlternate.IsTaken(of, cells),
                cells,
                [.. estimate.Reckoned.Items.Where(i => work.Contains(i.Item.Id))],
                [.. job.Places.Where(p => places.Contains(p.Id)).Select(p => p.Name)]
            );
        }
        return
        [
            .. job
                .Work.Where(w => alone.Contains(w.Id))
                .Select(w => One(w.Id, null, job.Titled(w), AlternateKind.Add, alone[w.Id])),
            .. job.Alternates.Select(a => One(a.Id, a, a.Name, a.Kind, named![a.Id])),
        ];
    }

    /// <summary>Those that are not taken and hold some work, priced. Made only for the view that shows them.</summary>
    public static ImmutableArray<PricedAlternate> Priced(Estimate estimate, Trace trace)
    {
        var pricing = new Pricing(estimate, trace);
        return [.. Of(estimate).Where(o => !o.Taken && o.Cells.Length > 0).Select(pricing.Price)];
    }

    /// <summary>Prices alternates of one estimate.</summary>
    public sealed class Pricing(Estimate estimate, Trace trace)
    {
        private Estimate? now;

        /// <summary>The estimate that deducts are told by: before the job's rounding; under a fixed price, by the usual basis.</summary>
        private Estimate Now => now ??= Worth.Base(estimate);

        /// <summary>The price of one.</summary>
        /// <exception cref="RefusedException">It cannot be priced.</exception>
        public PricedAlternate Price(Offered offered) =>
            offered.Kind == AlternateKind.Add ? Added(offered) : Deducted(offered);

        private PricedAlternate Added(Offered offered)
        {
            var alone = Alone(
                estimate,
                offered.Cells.ToImmutableDictionary(),
                [.. offered.Work.Select(w => w.Item)],
                trace.Within(Within(offered.Id))
            );
            return new(offered, alone.Price.BeforeTax, alone.Reckoned.Costs.Hours, alone.Price.Readouts.GrossProfit);
        }

        private PricedAlternate Deducted(Offered offered)
        {
            var within = trace.Within(Within(offered.Id));
            Estimate As(bool taken, string leaf)
            {
                var as_ = offered.In(Now.Job, taken);
                return trace.On ? Estimate.Of(as_, within.Within(within.Prefix + leaf))
                    : taken == offered.Taken ? Now
                    : Now.If(as_, [.. offered.Cells.Select(c => c.Key)]);
            }
            var (with, without) = (As(false, "with/"), As(true, "without/"));
            Total Less(Func<Estimate, Val> of, string unit, string label, string leaf) =>
                within.Total(of(without) - of(with), unit, $"{label} without it less with it", new("deduct", leaf));
            return new(
                offered,
                Less(e => e.Price.BeforeTax, "", "Price", "price"),
                Less(e => e.Reckoned.Costs.Hours, "h", "Hours", "hours"),
                Less(e => e.Price.Readouts.GrossProfit, "", "Gross profit", "grossProfit")
            );
        }
    }
}
