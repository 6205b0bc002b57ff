using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>What a work item offers beside the price, where its cells are alternates.</summary>
/// <param name="Item">The work item.</param>
/// <param name="Places">Names of the places, in job order.</param>
/// <param name="Price">Price before tax, if it were added.</param>
public sealed record Alternate(CompiledItem Item, ImmutableArray<string> Places, Val Price);

/// <summary>Alternates: each work item's are priced as a section of their own, with their own packs and percentages; travel is the job's and not theirs (estimating model §8).</summary>
public static class Alternates
{
    /// <summary>Start of the paths of a work item's figures as an alternate.</summary>
    public static string Within(Guid work) => $"alternates/{work}/";

    /// <summary>A job as what is offered beside its price is priced: what looks at the job's price as a whole (brackets, its least charge, discounts in money, what was typed or rounded) stays
    /// with that, and a fixed price covers none of it.</summary>
    private static Job AsPiece(Job job) =>
        job with
        {
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

    /// <summary>The alternates of a job in job order. Made only for the view that shows them.</summary>
    public static ImmutableArray<Alternate> Of(Estimate estimate, Trace trace)
    {
        var job = estimate.Job;
        var byItem = job.Cells.Where(c => c.Value.State == CellState.Alternate).ToLookup(c => c.Key.Work);
        return
        [
            .. estimate
                .Reckoned.Items.Where(i => byItem.Contains(i.Item.Id))
                .Select(item =>
                {
                    var cells = byItem[item.Item.Id]
                        .ToImmutableDictionary(c => c.Key, c => c.Value with { State = CellState.Included });
                    var alone = Estimate.Of(
                        AsPiece(job) with
                        {
                            Cells = cells,
                            Work = [item.Item with { WaitsFor = [] }],
                            Crew = job.Crew with { SetUp = null },
                        },
                        estimate.Reckoned.Measures,
                        trace.Within(Within(item.Item.Id))
                    );
                    return new Alternate(
                        item,
                        [.. alone.Reckoned.Lines.Select(l => l.Measures.Place.Name)],
                        alone.Price.BeforeTax
                    );
                }),
        ];
    }
}
