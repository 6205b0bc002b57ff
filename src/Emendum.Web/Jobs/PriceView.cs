using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Web.Jobs;

/// <summary>A step from cost to price.</summary>
/// <param name="Label">Its name.</param>
/// <param name="Note">What it rests on.</param>
/// <param name="Amount">Its amount.</param>
/// <param name="Kind"><c>cost</c>, <c>added</c>, <c>profit</c> or <c>sum</c>.</param>
/// <param name="From">Where its bar begins, percent of the width, one place.</param>
/// <param name="Width">How wide its bar is, percent of the width.</param>
public sealed record StepView(string Label, string Note, FigureView Amount, string Kind, decimal From, decimal Width);

/// <summary>A figure with a name.</summary>
public sealed record ReadoutView(string Label, FigureView Figure);

/// <summary>Hours and cost of a role.</summary>
public sealed record RoleView(string Name, FigureView Hours, FigureView LoadedCost, FigureView Cost);

/// <summary>What is needed and bought of a material.</summary>
public sealed record BuyView(
    string Name,
    string Colour,
    FigureView Need,
    string Packs,
    FigureView Bought,
    FigureView Leftover,
    FigureView BoughtCost,
    FigureView NeedCost,
    FigureView? Delivery
);

/// <summary>Hours, days or visits of equipment, an amount of a subcontract, a charge, a price-only item: what it is counted by, and its money.</summary>
public sealed record EquipmentView(string Name, FigureView? Hours, FigureView Cost);

/// <summary>A set-up and travel that the job can have.</summary>
public sealed record SetUpChoice(Guid Id, string Name);

/// <summary>What the Price station shows.</summary>
public sealed record PriceView(
    IReadOnlyList<StepView> Steps,
    IReadOnlyList<ReadoutView> Readouts,
    FigureView AtGoal,
    string Goal,
    IReadOnlyList<RoleView> Roles,
    IReadOnlyList<BuyView> Buying,
    IReadOnlyList<EquipmentView> Equipment,
    IReadOnlyList<EquipmentView> Others,
    IReadOnlyList<ReadoutView> Time,
    IReadOnlyList<SetUpChoice> SetUps
)
{
    /// <summary>Made from a reckoned job.</summary>
    public static PriceView Of(Estimate estimate, Shelf shelf)
    {
        var (price, terms) = (estimate.Price, estimate.Job.Pricing);
        var steps = new List<StepView>();
        var full = decimal.Max(price.Total.V, price.Direct.V);
        var at = 0m;
        static string P(decimal percent) => Rounding.Text(percent) + " %";
        void Step(string label, string note, Total amount, string kind)
        {
            decimal Part(decimal money) => full == 0 ? 0 : decimal.Round(money * 100 / full, 2);
            var from = kind == "sum" ? 0 : decimal.Min(at, at + amount.V);
            steps.Add(
                new(
                    label,
                    note,
                    FigureView.Money(amount),
                    kind,
                    Part(from),
                    Part(kind == "sum" ? amount.V : decimal.Abs(amount.V))
                )
            );
            if (kind != "sum")
                at += amount.V;
        }
        var costs = estimate.Reckoned.Costs;
        var notes = new ByClass<string>(of =>
            of switch
            {
                CostClass.Labour => $"{FigureView.Hours(costs.Hours).Shown} h, {costs.Roles.Length} roles, loaded",
                CostClass.Material =>
                    $"{(terms.MaterialCost == MaterialCost.Purchase ? "as bought" : "by need")}, {costs.Buying.Length} items",
                CostClass.Equipment => "while the crew works, by the day and visit",
                CostClass.Subcontract => "from other firms",
                _ => "charges and the way to the site",
            }
        );
        // Subcontracts and fixed charges only where there are any.
        var shown = price
            .Classes.Where(c => c.Class is not (CostClass.Subcontract or CostClass.Fixed) || c.Of.Cost.V != 0)
            .ToArray();
        foreach (var (of, c) in shown)
            Step(of.Label(), notes[of], c.Cost, "cost");
        var markup = terms.Basis == PriceBasis.Markup;
        foreach (var (of, c) in shown.Where(c => markup && terms.Markup(c.Class) != 0))
            Step("Markup on " + of.Label().ToLowerInvariant(), P(terms.Markup(of)), c.Markup, "added");
        Step("Overhead", P(terms.Overhead) + (markup ? " of cost with markups" : " of cost"), price.Overhead, "added");
        Step("Contingency", P(terms.Contingency) + ", after overhead", price.Contingency, "added");
        Step(
            markup ? "Profit" : "Left as profit",
            markup ? P(terms.Profit) + " on all above" : "what the margin leaves",
            price.Profit,
            "profit"
        );
        if (price.PriceOnly.V != 0)
            Step("Price-only items", "at their own prices", price.PriceOnly, "added");
        Step(
            "Price before tax",
            markup ? "by markup" : $"by a target margin of {P(terms.TargetMargin)}",
            price.BeforeTax,
            "sum"
        );
        Step(
            terms.TaxName.Length == 0 ? "Tax" : terms.TaxName,
            terms.TaxOn switch
            {
                TaxOn.Nothing => "not charged",
                TaxOn.Materials => $"{P(terms.TaxRate)} on materials, {FigureView.Money(price.Taxable).Shown}",
                _ => P(terms.TaxRate) + " on the price",
            },
            price.Tax,
            "tax"
        );
        Step("Customer pays", "", price.Total, "sum");

        var readouts = new List<ReadoutView> { new("Gross profit", FigureView.Money(price.GrossProfit)) };
        if (price.Margin is { } m)
            readouts.Add(new("Margin, of the price", FigureView.Percent(m)));
        if (price.Markup is { } k)
            readouts.Add(new("Markup, on the cost", FigureView.Percent(k)));
        if (price.PerFloor is { } f)
            readouts.Add(
                new(
                    "Per floor area",
                    FigureView.Money(f, "per " + Line.SymbolOf(Core.Places.Measure.FloorArea, estimate.Job.Units))
                )
            );
        if (price.PerHour is { } h)
            readouts.Add(new("Per labour hour", FigureView.Money(h, "per h")));
        return new(
            steps,
            readouts,
            FigureView.Money(price.AtGoal),
            P(terms.GoalMargin),
            [
                .. estimate.Reckoned.Costs.Roles.Select(r => new RoleView(
                    r.Role.Name,
                    FigureView.Hours(r.Hours),
                    FigureView.Money(r.LoadedCost, "per h"),
                    FigureView.Money(r.Cost)
                )),
            ],
            [
                .. estimate.Reckoned.Costs.Buying.Select(b =>
                {
                    return new BuyView(
                        b.Material.Name,
                        b.Colour,
                        FigureView.Fine(b.Need),
                        Books.BookViews.PacksInWords(b),
                        FigureView.Fine(b.Bought),
                        FigureView.Fine(b.Leftover),
                        FigureView.Money(b.BoughtCost),
                        FigureView.Money(b.NeedCost),
                        b.Delivery is { } delivery ? FigureView.Money(delivery) : null
                    );
                }),
            ],
            [
                .. estimate.Reckoned.Costs.Equipment.Select(e => new EquipmentView(
                    e.Equipment.Name,
                    e.Equipment.Per == EquipmentPer.Hour ? FigureView.Hours(e.Hours) : FigureView.Fine(e.Units),
                    FigureView.Money(e.Cost)
                )),
            ],
            [
                .. estimate.Reckoned.Costs.Subcontracts.Select(s => new EquipmentView(
                    s.Subcontract.Name,
                    FigureView.Fine(s.Amount),
                    FigureView.Money(s.Cost)
                )),
                .. estimate.Reckoned.Costs.Charges.Select(c =>
                    c.Item is null
                        ? new EquipmentView(c.Name, FigureView.Fine(c.Amount), FigureView.Money(c.Cost))
                        : new EquipmentView(
                            $"{c.Name}, {c.Item.Item.Name}",
                            FigureView.Fine(c.Amount),
                            FigureView.Money(c.Cost)
                        )
                ),
                .. estimate
                    .Priced.Where(p => p.Line is not null)
                    .Select(p => new EquipmentView(
                        $"{p.Item.Item.Name}, {p.Line!.Measures.Place.Name}, allowance",
                        null,
                        FigureView.Money(p.Price)
                    )),
                .. estimate
                    .Priced.Where(p => p.Entry is not null)
                    .Select(p => new EquipmentView(
                        $"{p.Item.Item.Name}, price-only",
                        FigureView.Fine(
                            $"priced/{p.Item.Item.Id}/quantity",
                            p.Quantity,
                            p.Entry!.Unit.Kind == Kind.Count ? "" : p.Entry.Unit.Symbol
                        ),
                        FigureView.Money(p.Price)
                    )),
            ],
            [
                new("Duration", FigureView.Fine(estimate.Reckoned.Costs.Duration.Days)),
                new("Return visits", FigureView.Fine(estimate.Reckoned.Costs.Duration.ReturnVisits)),
            ],
            [
                .. shelf
                    .Index.Find(new("", "setUp", "", false))
                    .Select(e => new SetUpChoice(e.Id, e.Name))
                    .Concat(
                        terms.SetUp is { } own && estimate.Job.Book.GetValueOrDefault(own) is { } pinned
                            ? [new SetUpChoice(pinned.Id, pinned.Name)]
                            : []
                    )
                    .DistinctBy(c => c.Id),
            ]
        );
    }
}
