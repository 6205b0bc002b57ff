using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>
/// What the customer pays when alternates are taken together: their prices as they are printed, what being reckoned together makes of them (a pail that two share, a least charge that stands), the job's rounding, and
/// tax once on the whole. It adds up to what is signed for.
/// </summary>
/// <param name="Base">The price before tax as it stands, before the job's rounding.</param>
/// <param name="Taken">Those that are taken, at their printed prices.</param>
/// <param name="Together">What being reckoned together changes.</param>
/// <param name="Rounding">The job's rounding, before or after tax, of the whole.</param>
/// <param name="Estimate">The job with all of them.</param>
public sealed record TakenTogether(
    Total Base,
    ImmutableArray<PricedAlternate> Taken,
    Total Together,
    Total? Rounding,
    Estimate Estimate
)
{
    /// <summary>Takes some of what is offered and not taken yet.</summary>
    /// <param name="estimate">The job as it stands; made with <paramref name="trace"/> where that records.</param>
    /// <param name="chosen">Ids of what is taken.</param>
    /// <param name="trace">Records how, or is silent.</param>
    /// <exception cref="RefusedException">It cannot be priced, or is not offered.</exception>
    public static TakenTogether Of(Estimate estimate, IReadOnlyCollection<Guid> chosen, Trace trace)
    {
        var all = Alternates.Of(estimate).Where(o => !o.Taken && o.Cells.Length > 0).ToArray();
        if (chosen.Any(id => Array.TrueForAll(all, o => o.Id != id)))
            throw RefusedException.Of("taken", "One of these is not offered any more.");
        var pricing = new Alternates.Pricing(estimate, trace);
        ImmutableArray<PricedAlternate> taken = [.. all.Where(o => chosen.Contains(o.Id)).Select(pricing.Price)];
        var printed = Sum.Of(taken.Select(t => t.Price.Value));
        var job = taken.Aggregate(estimate.Job, (so, t) => t.Offered.In(so, true));
        // A fixed price covers what is in the job; what is taken is added to it, or taken off.
        if (job.Pricing.Basis == PriceBasis.Fixed)
            job = job with { Pricing = TakeAlternate.Fixed(estimate.Job, FixedWith(estimate.Job, printed.V)) };
        var within = trace.Within(Within(taken.Select(t => t.Offered.Id)));
        var after = trace.On
            ? Estimate.Of(job, within)
            : estimate.If(job, [.. taken.SelectMany(t => t.Offered.Cells.Select(c => c.Key))]);
        var (before, then) = (BeforeRounding(estimate), BeforeRounding(after));
        return new(
            within.Total(before, "", "Price before tax and rounding, as it stands", new("sum", "base")),
            taken,
            within.Total(then - before - printed, "", "Taken together", new("sum", "together")),
            after.Price.Step("rounding")?.Amount,
            after
        );
    }

    /// <summary>Start of the paths of what some come to together.</summary>
    public static string Within(IEnumerable<Guid> taken) => $"together/{string.Join('+', taken)}/";

    /// <summary>The fixed price of a job with something more, or less.</summary>
    public static decimal FixedWith(Job job, decimal printed) => job.Pricing.FixedPrice + printed;

    private static Val BeforeRounding(Estimate estimate) =>
        estimate.Price.Step("rounding") is { } step
            ? estimate.Price.BeforeTax - step.Amount
            : estimate.Price.BeforeTax.Value;
}
