using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>One class of direct cost: its cost, the markup on it, and both together.</summary>
public sealed record ClassPrice(CostClass Class, Total Cost, Total Markup, Total Marked);

/// <summary>
/// From cost to what the customer pays (estimating model §7). Money is rounded to the cent where an amount is made that stands in the build-up, so
/// that what is shown adds up (docs/decisions/001-cents.md). Amounts carry no currency: a job has one.
/// </summary>
public sealed class Price
{
    /// <summary>Labour, materials, equipment, subcontracts, fixed charges.</summary>
    public required ByClass<ClassPrice> Classes { get; init; }

    /// <summary>Σ class costs.</summary>
    public required Total Direct { get; init; }

    /// <summary>Under markup a step of the price, otherwise a readout.</summary>
    public required Total Overhead { get; init; }

    /// <summary>As <see cref="Overhead"/>.</summary>
    public required Total Contingency { get; init; }

    /// <summary>Under markup the profit markup; under target margin what is left after overhead and contingency.</summary>
    public required Total Profit { get; init; }

    /// <summary>Price-only items and allowances, at their own prices; no percentage of the job falls on them.</summary>
    public required Total PriceOnly { get; init; }

    /// <summary>What the costs come to with everything on them: the price before tax less price-only items.</summary>
    public required Val OfCosts { get; init; }

    /// <summary>Price before tax.</summary>
    public required Total BeforeTax { get; init; }

    /// <summary>What the tax falls on.</summary>
    public required Total Taxable { get; init; }

    /// <summary>Tax.</summary>
    public required Total Tax { get; init; }

    /// <summary>What the customer pays.</summary>
    public required Total Total { get; init; }

    /// <summary>Price before tax less direct cost.</summary>
    public required Total GrossProfit { get; init; }

    /// <summary>Percent of the price; null when there is no price.</summary>
    public required Total? Margin { get; init; }

    /// <summary>Percent of the cost; null when there is no cost.</summary>
    public required Total? Markup { get; init; }

    /// <summary>Price before tax per floor area; null when there is none.</summary>
    public required Total? PerFloor { get; init; }

    /// <summary>Price before tax per labour hour; null when there are none.</summary>
    public required Total? PerHour { get; init; }

    /// <summary>The price that would reach the company's target margin.</summary>
    public required Total AtGoal { get; init; }

    /// <summary>Prices a job.</summary>
    public static Price Of(PricingTerms terms, Costs costs, IReadOnlyCollection<PricedLine> priced, Trace trace)
    {
        Total Money(Val value, string label, string leaf) => trace.Total(value.Money(), "", label, new("price", leaf));
        Val Percent(decimal value, string label, string field) => trace.Term(value, "%", label, field);
        var markupBasis = terms.Basis == PriceBasis.Markup;
        var byClass = costs.ByClass(terms.MaterialCost);
        var classes = new ByClass<ClassPrice>(of =>
        {
            var name = of.Name();
            var rounded = Money(byClass[of], of.Label(), name);
            var added = Money(
                markupBasis ? rounded * terms.MarkupOn(of, trace) / 100m : 0m,
                $"Markup on {name}",
                name + "Markup"
            );
            return new(of, rounded, added, Money(rounded + added, $"{of.Label()} with markup", name + "Marked"));
        });
        var direct = Money(Sum.Of(classes.Select(c => c.Of.Cost.Value)), "Direct cost", "direct");
        var basis = markupBasis
            ? Money(Sum.Of(classes.Select(c => c.Of.Marked.Value)), "Cost with markups", "marked")
            : direct;
        var overhead = Money(basis * Percent(terms.Overhead, "overhead", "overhead") / 100m, "Overhead", "overhead");
        var contingency = Money(
            (basis + overhead) * Percent(terms.Contingency, "contingency", "contingency") / 100m,
            "Contingency",
            "contingency"
        );
        var priceOnly = Money(
            Sum.Of(priced.Select(p => p.Price.Value)),
            "Price-only items and allowances",
            "priceOnly"
        );
        Val ofCosts;
        Total profit;
        if (markupBasis)
        {
            var upTo = basis + overhead + contingency;
            profit = Money(upTo * Percent(terms.Profit, "profit", "profit") / 100m, "Profit", "profit");
            ofCosts = upTo + profit;
        }
        else
        {
            ofCosts = Money(
                direct * 100m / (100m - Percent(terms.TargetMargin, "target margin", "targetMargin")),
                "Price of what costs",
                "ofCosts"
            );
            profit = Money(ofCosts - direct - overhead - contingency, "Left after overhead and contingency", "profit");
        }
        if (priceOnly.V != 0 && markupBasis)
            ofCosts = Money(ofCosts, "Price of what costs", "ofCosts");
        var beforeTax = Money(priceOnly.V == 0 ? ofCosts : ofCosts + priceOnly, "Price before tax", "beforeTax");
        var taxable = Money(TaxablePart(terms, costs, priced, classes, ofCosts, trace), "Taxed", "taxable");
        var tax = Money(taxable * Percent(terms.TaxRate, terms.TaxName, "taxRate") / 100m, "Tax", "tax");
        var gross = Money(beforeTax - direct, "Gross profit", "grossProfit");
        Total Readout(Val value, string unit, string label, string leaf) =>
            trace.Total(value, unit, label, new("price", leaf));
        return new()
        {
            Classes = classes,
            Direct = direct,
            Overhead = overhead,
            Contingency = contingency,
            Profit = profit,
            PriceOnly = priceOnly,
            OfCosts = ofCosts,
            BeforeTax = beforeTax,
            Taxable = taxable,
            Tax = tax,
            Total = Money(beforeTax + tax, "Customer pays", "total"),
            GrossProfit = gross,
            Margin = beforeTax.V == 0 ? null : Readout(gross * 100m / beforeTax, "%", "Margin", "margin"),
            Markup = direct.V == 0 ? null : Readout(gross * 100m / direct, "%", "Markup on cost", "markup"),
            PerFloor =
                costs.FloorArea.V == 0
                    ? null
                    : Readout(beforeTax / costs.FloorArea, "per area", "Price per floor area", "perFloor"),
            PerHour =
                costs.Hours.V == 0
                    ? null
                    : Readout(beforeTax / costs.Hours, "per h", "Price per labour hour", "perHour"),
            AtGoal = Money(
                direct * 100m / (100m - Percent(terms.GoalMargin, "target margin of the company", "goalMargin")),
                "Price at the target margin",
                "atGoal"
            ),
        };
    }

    /// <summary>Under tax on materials, their part of the price is shared out in proportion to the classes with their markups, and of it what goods that are taxed cost: not
    /// those untaxed or bought with tax. Price-only items are taxed as each says, allowances always, wherever the job is taxed at all.</summary>
    private static Val TaxablePart(
        PricingTerms terms,
        Costs costs,
        IReadOnlyCollection<PricedLine> priced,
        ByClass<ClassPrice> classes,
        Val ofCosts,
        Trace trace
    )
    {
        if (terms.TaxOn == TaxOn.Nothing)
            return 0m;
        var taxed = ofCosts;
        if (terms.TaxOn == TaxOn.Materials)
        {
            var shares = Shares.Of(ofCosts, [.. classes.Select(c => c.Of.Marked.Value)], "price by class", trace);
            taxed = new ByClass<Val>(of => shares[(int)of])[CostClass.Material];
            var (free, all) = (new Sum(), new Sum());
            foreach (var line in costs.Buying)
            {
                all.Add(line.Cost(terms.MaterialCost));
                if (!line.Material.Taxed || line.Material.PriceIncludesTax)
                    free.Add(line.Cost(terms.MaterialCost));
            }
            if (free.Total.V != 0)
                taxed = taxed * (all.Total - free.Total) / all.Total;
        }
        foreach (var line in priced)
            if (line.Entry?.Taxable != false)
                taxed += line.Price;
        return taxed;
    }
}
