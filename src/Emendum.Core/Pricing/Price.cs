using System.Collections.Immutable;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>Everything that is charged: costs by class, and what has a price without a cost.</summary>
public sealed record Charged(
    ImmutableArray<RoleLine> Roles,
    ImmutableArray<BuyLine> Buying,
    ImmutableArray<EquipmentLine> Equipment,
    ImmutableArray<SubcontractLine> Subcontracts,
    IReadOnlyList<ChargeLine> Charges,
    IReadOnlyList<PricedLine> Priced
);

/// <summary>One class of direct cost: its cost, the markup on it, and both together.</summary>
public sealed record ClassPrice(string Name, string Label, Val Cost, Val Markup, Val Marked);

/// <summary>
/// From cost to what the customer pays (estimating model §7). Money is rounded to the cent where an amount is made that stands in the build-up, so
/// that what is shown adds up (docs/decisions/001-cents.md). Amounts carry no currency: a job has one.
/// </summary>
public sealed class Price
{
    /// <summary>Labour, materials, equipment, subcontracts, fixed charges.</summary>
    public required ImmutableArray<ClassPrice> Classes { get; init; }

    /// <summary>Σ class costs.</summary>
    public required Val Direct { get; init; }

    /// <summary>Under markup a step of the price, otherwise a readout.</summary>
    public required Val Overhead { get; init; }

    /// <summary>As <see cref="Overhead"/>.</summary>
    public required Val Contingency { get; init; }

    /// <summary>Under markup the profit markup; under target margin what is left after overhead and contingency.</summary>
    public required Val Profit { get; init; }

    /// <summary>Price-only items and allowances, at their own prices; no percentage of the job falls on them.</summary>
    public required Val PriceOnly { get; init; }

    /// <summary>What the costs come to with everything on them: the price before tax less price-only items.</summary>
    public required Val OfCosts { get; init; }

    /// <summary>Price before tax.</summary>
    public required Val BeforeTax { get; init; }

    /// <summary>What the tax falls on.</summary>
    public required Val Taxable { get; init; }

    /// <summary>Tax.</summary>
    public required Val Tax { get; init; }

    /// <summary>What the customer pays.</summary>
    public required Val Total { get; init; }

    /// <summary>Price before tax less direct cost.</summary>
    public required Val GrossProfit { get; init; }

    /// <summary>Percent of the price; null when there is no price.</summary>
    public required Val? Margin { get; init; }

    /// <summary>Percent of the cost; null when there is no cost.</summary>
    public required Val? Markup { get; init; }

    /// <summary>Price before tax per floor area; null when there is none.</summary>
    public required Val? PerFloor { get; init; }

    /// <summary>Price before tax per labour hour; null when there are none.</summary>
    public required Val? PerHour { get; init; }

    /// <summary>The price that would reach the company's target margin.</summary>
    public required Val AtGoal { get; init; }

    /// <summary>Prices a job.</summary>
    public static Price Of(PricingTerms terms, Charged charged, Val hours, Val floorArea, Trace trace)
    {
        Val Money(Val value, string label, string leaf) => trace.Make(value.Money(), "", label, new("price", leaf));
        Val Percent(decimal value, string label, string field) => trace.Term(value, "%", label, field);
        Val Total(IEnumerable<Val> values)
        {
            var sum = new Sum();
            foreach (var value in values)
                sum.Add(value);
            return sum.Total;
        }
        var markupBasis = terms.Basis == PriceBasis.Markup;
        ClassPrice Class(string name, string label, Val cost, decimal markup)
        {
            var rounded = Money(cost, label, name);
            var added = Money(
                markupBasis ? rounded * Percent(markup, "markup on " + name, name + "Markup") / 100m : 0m,
                $"Markup on {name}",
                name + "Markup"
            );
            return new(name, label, rounded, added, Money(rounded + added, $"{label} with markup", name + "Marked"));
        }

        ImmutableArray<ClassPrice> classes =
        [
            Class("labour", "Labour", Total(charged.Roles.Select(r => r.Cost)), terms.LabourMarkup),
            Class(
                "material",
                "Materials",
                Total(charged.Buying.Select(b => b.Cost(terms.MaterialCost))),
                terms.MaterialMarkup
            ),
            Class("equipment", "Equipment", Total(charged.Equipment.Select(e => e.Cost)), terms.EquipmentMarkup),
            Class(
                "subcontract",
                "Subcontracts",
                Total(charged.Subcontracts.Select(s => s.Cost)),
                terms.SubcontractMarkup
            ),
            Class("fixed", "Fixed charges", Total(charged.Charges.Select(c => c.Cost)), terms.FixedMarkup),
        ];
        var direct = Money(Total(classes.Select(c => c.Cost)), "Direct cost", "direct");
        var basis = markupBasis ? Money(Total(classes.Select(c => c.Marked)), "Cost with markups", "marked") : direct;
        var overhead = Money(basis * Percent(terms.Overhead, "overhead", "overhead") / 100m, "Overhead", "overhead");
        var contingency = Money(
            (basis + overhead) * Percent(terms.Contingency, "contingency", "contingency") / 100m,
            "Contingency",
            "contingency"
        );
        var priceOnly = Money(
            Total(charged.Priced.Select(p => p.Price)),
            "Price-only items and allowances",
            "priceOnly"
        );
        Val ofCosts,
            profit;
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
        var taxable = Money(TaxablePart(terms, charged, classes, ofCosts, trace), "Taxed", "taxable");
        var tax = Money(taxable * Percent(terms.TaxRate, terms.TaxName, "taxRate") / 100m, "Tax", "tax");
        var gross = Money(beforeTax - direct, "Gross profit", "grossProfit");
        Val Readout(Val value, string unit, string label, string leaf) =>
            trace.Make(value, unit, label, new("price", leaf));
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
                floorArea.V == 0
                    ? null
                    : Readout(beforeTax / floorArea, "per area", "Price per floor area", "perFloor"),
            PerHour = hours.V == 0 ? null : Readout(beforeTax / hours, "per h", "Price per labour hour", "perHour"),
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
        Charged charged,
        ImmutableArray<ClassPrice> classes,
        Val ofCosts,
        Trace trace
    )
    {
        if (terms.TaxOn == TaxOn.Nothing)
            return 0m;
        var taxed = ofCosts;
        if (terms.TaxOn == TaxOn.Materials)
        {
            taxed = Spread.Share(ofCosts, [.. classes.Select(c => c.Marked)], "price by class", trace)[1];
            var (free, all) = (new Sum(), new Sum());
            foreach (var line in charged.Buying)
            {
                all.Add(line.Cost(terms.MaterialCost));
                if (!line.Material.Taxed || line.Material.PriceIncludesTax)
                    free.Add(line.Cost(terms.MaterialCost));
            }
            if (free.Total.V != 0)
                taxed = taxed * (all.Total - free.Total) / all.Total;
        }
        foreach (var line in charged.Priced)
            if (line.Entry?.Taxable != false)
                taxed += line.Price;
        return taxed;
    }
}
