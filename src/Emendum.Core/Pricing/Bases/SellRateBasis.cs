using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>Hours · charge rate, of each role an amount; the other classes with their markups. Overhead and contingency are readouts.</summary>
public sealed class SellRateBasis : Basis
{
    /// <inheritdoc/>
    public override PriceBasis Kind => PriceBasis.SellRate;

    /// <inheritdoc/>
    public override string Words(PricingTerms terms) =>
        terms.SellRate is { } rate
            ? $"by charge rate, {Rounding.Text(rate)} an hour"
            : "by the charge rate of each role";

    /// <inheritdoc/>
    protected override Val OnClass(CostClass of, PricingTerms terms, Trace trace) =>
        of == CostClass.Labour ? 0m : terms.MarkupOn(of, trace);

    /// <inheritdoc/>
    internal override Val Weight(Val cost, CostClass of, PricingTerms terms, Trace trace) =>
        of == CostClass.Labour ? cost : Marked(cost, of, terms, trace);

    /// <summary>What an hour of a role is sold at: its own rate, or the job's; premiums that are sold on multiply it for their share of the hours.</summary>
    /// <exception cref="RefusedException">It has none.</exception>
    internal static Val RateOf(RoleCost cost, PricingTerms terms, Trace trace)
    {
        var role = cost.Role;
        var rate =
            role.SellRate is { } own ? trace.Book(own, "per h", role.Name + ", charge rate", role.Id)
            : terms.SellRate is { } job ? trace.Term(job, "per h", "charge rate of the job", "sellRate")
            : throw RefusedException.Of(
                "sellRate",
                $"{role.Name} has no charge rate, and the job has none for roles without. Type one."
            );
        var soldOn = role.Premiums.Where(p => p.SoldOn).ToArray();
        return soldOn.Length == 0 ? rate : rate * LabourCosts.Lift(role, soldOn, trace) / 100m;
    }

    /// <inheritdoc/>
    internal override Built Build(PriceDraft draft, Pool pool)
    {
        var classes = Classes(draft, pool);
        var sold = new Sum();
        foreach (var (role, hours) in pool.Hours)
            if (hours.V != 0)
                sold.Add(
                    pool.Money(
                        draft,
                        hours * RateOf(role, pool.Terms, draft.Trace),
                        role.Role.Name + ", sold",
                        $"sold/{role.Role.Id}"
                    )
                );
        var marked = new ByClass<Val>(of => of == CostClass.Labour ? sold.Total : classes[of].Marked);
        var price = pool.Money(draft, Sum.Of(marked.Select(m => m.Of)), "Price of what costs", "ofCosts");
        return Left(
            draft,
            pool,
            classes,
            price,
            TaxShares.Reckoned(draft, pool, price, marked),
            "what charge rate and markups leave"
        );
    }
}
