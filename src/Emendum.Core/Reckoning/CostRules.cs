using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Core.Reckoning;

/// <summary>At what things count as cost: goods as bought or as needed, with the tax that is paid on what is bought and without the tax that comes back (estimating model §7, Tax).</summary>
public sealed class CostRules
{
    private readonly PricingTerms terms;
    private readonly Trace trace;
    private readonly bool taxed;

    private CostRules(PricingTerms terms, int places, Trace trace) =>
        (this.terms, Places, this.trace, taxed) = (
            terms,
            places,
            trace,
            terms.Taxes.Any(t => t.Way != TaxWay.Charged && !t.On.IsEmpty && t.Rate != 0)
        );

    /// <summary>The rules of a job.</summary>
    public static CostRules Of(Job job, Trace trace) =>
        new(job.Pricing, Currency.Places(job.Info.Currency) ?? 2, trace);

    /// <summary>Places of the job's currency.</summary>
    public int Places { get; }

    /// <summary>Whether goods count as bought or as needed.</summary>
    public MaterialCost By => terms.MaterialCost;

    /// <summary>At what an hour of a role counts; null for what it costs.</summary>
    public Func<RoleCost, Val>? Hour { get; init; }

    /// <summary>The same, with hours counted at something else.</summary>
    public CostRules WithHours(Func<RoleCost, Val> hour) => new(terms, Places, trace) { Hour = hour };

    /// <summary>Whether tax that is charged does not fall on goods: they are exempt, or were bought with tax that does not come back.</summary>
    public bool IsFree(Purchase bought) =>
        !bought.Material.Taxed || (bought.Material.PriceIncludesTax && !terms.Taxes.Any(Comes));

    private static bool Comes(Tax tax) => tax is { Way: TaxWay.Reclaimed } && tax.On.Contains(TaxOn.Material);

    /// <summary>What goods count for.</summary>
    public Val Goods(Purchase bought)
    {
        var cost = bought.Cost(By);
        if (!taxed || !bought.Material.Taxed)
            return cost;
        if (bought.Material.PriceIncludesTax)
        {
            var back = Rates(terms.Taxes.Where(Comes));
            return back.V == 0 ? cost : Rounded(cost * 100m / (100m + back));
        }
        return WithTax(cost, CostClass.Material);
    }

    /// <summary>What another class of cost counts for.</summary>
    public Val Other(CostClass of, Val cost) => taxed ? WithTax(cost, of) : cost;

    private Val WithTax(Val cost, CostClass of)
    {
        var paid = Rates(terms.Taxes.Where(t => t.Way == TaxWay.Paid && t.On.Contains(Tax.Of(of))));
        if (paid.V == 0)
            return cost;
        var tax = cost * paid / 100m;
        return cost + (of == CostClass.Material ? Rounded(tax) : tax);
    }

    /// <summary>What packs cost is whole in the currency, and so is the tax in it; what the need costs is not.</summary>
    private Val Rounded(Val money) => By == MaterialCost.Purchase ? money.Money(Places) : money;

    private Val Rates(IEnumerable<Tax> taxes)
    {
        Val sum = 0m;
        foreach (var tax in taxes)
            sum = sum.V == 0 ? Rate(tax) : sum + Rate(tax);
        return sum;
    }

    private Val Rate(Tax tax) => trace.Term(tax.Rate, "%", tax.Name, "taxes");
}
