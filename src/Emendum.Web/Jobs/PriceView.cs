using Emendum.Core.Book;
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
    public static PriceView Of(Reckoning reckoning, Shelf shelf)
    {
        var (price, terms) = (reckoning.Price, reckoning.Job.Pricing);
        var steps = new List<StepView>();
        var full = decimal.Max(price.Total.V, price.Direct.V);
        var at = 0m;
        static string P(decimal percent) => Rounding.Text(percent) + " %";
        void Step(string label, string note, string path, Val amount, string kind)
        {
            decimal Part(decimal money) => full == 0 ? 0 : decimal.Round(money * 100 / full, 2);
            var from = kind == "sum" ? 0 : decimal.Min(at, at + amount.V);
            steps.Add(
                new(
                    label,
                    note,
                    FigureView.Money(path, amount),
                    kind,
                    Part(from),
                    Part(kind == "sum" ? amount.V : decimal.Abs(amount.V))
                )
            );
            if (kind != "sum")
                at += amount.V;
        }
        string[] notes =
        [
            $"{FigureView.Hours("", reckoning.Hours).Shown} h, {reckoning.Roles.Length} roles, loaded",
            $"{(terms.MaterialCost == MaterialCost.Purchase ? "as bought" : "by need")}, {reckoning.Buying.Length} items",
            "while the crew works, by the day and visit",
            "from other firms",
            "charges and the way to the site",
        ];
        // Subcontracts and fixed charges only where there are any.
        for (var i = 0; i < price.Classes.Length; i++)
            if (i < 3 || price.Classes[i].Cost.V != 0)
                Step(price.Classes[i].Label, notes[i], "price/" + price.Classes[i].Name, price.Classes[i].Cost, "cost");
        var markup = terms.Basis == PriceBasis.Markup;
        if (markup)
        {
            decimal[] percents =
            [
                terms.LabourMarkup,
                terms.MaterialMarkup,
                terms.EquipmentMarkup,
                terms.SubcontractMarkup,
                terms.FixedMarkup,
            ];
            for (var i = 0; i < price.Classes.Length; i++)
                if (percents[i] != 0 && (i < 3 || price.Classes[i].Cost.V != 0))
                    Step(
                        "Markup on " + price.Classes[i].Label.ToLowerInvariant(),
                        P(percents[i]),
                        $"price/{price.Classes[i].Name}Markup",
                        price.Classes[i].Markup,
                        "added"
                    );
        }
        Step(
            "Overhead",
            P(terms.Overhead) + (markup ? " of cost with markups" : " of cost"),
            "price/overhead",
            price.Overhead,
            "added"
        );
        Step("Contingency", P(terms.Contingency) + ", after overhead", "price/contingency", price.Contingency, "added");
        Step(
            markup ? "Profit" : "Left as profit",
            markup ? P(terms.Profit) + " on all above" : "what the margin leaves",
            "price/profit",
            price.Profit,
            "profit"
        );
        if (price.PriceOnly.V != 0)
            Step("Price-only items", "at their own prices", "price/priceOnly", price.PriceOnly, "added");
        Step(
            "Price before tax",
            markup ? "by markup" : $"by a target margin of {P(terms.TargetMargin)}",
            "price/beforeTax",
            price.BeforeTax,
            "sum"
        );
        Step(
            terms.TaxName.Length == 0 ? "Tax" : terms.TaxName,
            terms.TaxOn switch
            {
                TaxOn.Nothing => "not charged",
                TaxOn.Materials => $"{P(terms.TaxRate)} on materials, {FigureView.Money("", price.Taxable).Shown}",
                _ => P(terms.TaxRate) + " on the price",
            },
            "price/tax",
            price.Tax,
            "tax"
        );
        Step("Customer pays", "", "price/total", price.Total, "sum");

        var readouts = new List<ReadoutView>
        {
            new("Gross profit", FigureView.Money("price/grossProfit", price.GrossProfit)),
        };
        if (price.Margin is { } m)
            readouts.Add(new("Margin, of the price", FigureView.Percent("price/margin", m)));
        if (price.Markup is { } k)
            readouts.Add(new("Markup, on the cost", FigureView.Percent("price/markup", k)));
        if (price.PerFloor is { } f)
            readouts.Add(
                new(
                    "Per floor area",
                    FigureView.Money(
                        "price/perFloor",
                        f,
                        "per " + Line.SymbolOf(Core.Places.Measure.FloorArea, reckoning.Job.Units)
                    )
                )
            );
        if (price.PerHour is { } h)
            readouts.Add(new("Per labour hour", FigureView.Money("price/perHour", h, "per h")));
        return new(
            steps,
            readouts,
            FigureView.Money("price/atGoal", price.AtGoal),
            P(terms.GoalMargin),
            [
                .. reckoning.Roles.Select(r => new RoleView(
                    r.Role.Name,
                    FigureView.Hours($"roles/{r.Role.Id}/hours", r.Hours),
                    FigureView.Money($"roles/{r.Role.Id}/loadedCost", r.LoadedCost, "per h"),
                    FigureView.Money($"roles/{r.Role.Id}/cost", r.Cost)
                )),
            ],
            [
                .. reckoning.Buying.Select(b =>
                {
                    string Path(string leaf) => $"buy{b.Key}/{b.Material.Id}/{leaf}";
                    var unit = b.Material.Unit.Symbol;
                    return new BuyView(
                        b.Material.Name,
                        b.Colour,
                        FigureView.Fine(Path("need"), b.Need, unit),
                        Books.BookViews.PacksInWords(b),
                        FigureView.Fine(Path("bought"), b.Bought, unit),
                        FigureView.Fine(Path("leftover"), b.Leftover, unit),
                        FigureView.Money(Path("boughtCost"), b.BoughtCost),
                        FigureView.Money(Path("needCost"), b.NeedCost),
                        b.Delivery.V == 0 ? null : FigureView.Money(Path("delivery"), b.Delivery)
                    );
                }),
            ],
            [
                .. reckoning.Equipment.Select(e => new EquipmentView(
                    e.Equipment.Name,
                    e.Equipment.Per == EquipmentPer.Hour
                        ? FigureView.Hours($"equipment/{e.Equipment.Id}/hours", e.Hours)
                        : FigureView.Fine(
                            $"equipment/{e.Equipment.Id}/units",
                            e.Units,
                            e.Equipment.Per == EquipmentPer.Day ? "days" : "visits"
                        ),
                    FigureView.Money($"equipment/{e.Equipment.Id}/cost", e.Cost)
                )),
            ],
            [
                .. reckoning.Subcontracts.Select(s => new EquipmentView(
                    s.Subcontract.Name,
                    FigureView.Fine(
                        $"subcontract/{s.Subcontract.Id}/amount",
                        s.Amount,
                        s.Subcontract.LumpSum ? "" : s.Subcontract.Unit.Symbol
                    ),
                    FigureView.Money($"subcontract/{s.Subcontract.Id}/cost", s.Cost)
                )),
                .. reckoning.Charges.Select(c =>
                    c.Item is null
                        ? new EquipmentView(
                            c.Name,
                            FigureView.Fine($"setUp/{terms.SetUp}/distance", c.Amount, ""),
                            FigureView.Money($"setUp/{terms.SetUp}/cost", c.Cost)
                        )
                        : new EquipmentView(
                            $"{c.Name}, {c.Item.Item.Name}",
                            FigureView.Fine($"charges/{c.Item.Item.Id}/{c.Part!.Id}/amount", c.Amount, ""),
                            FigureView.Money($"charges/{c.Item.Item.Id}/{c.Part.Id}/cost", c.Cost)
                        )
                ),
                .. reckoning
                    .Priced.Where(p => p.Line is not null)
                    .Select(p => new EquipmentView(
                        $"{p.Item.Item.Name}, {p.Line!.Measures.Place.Name}, allowance",
                        null,
                        FigureView.Money($"priced/{p.Item.Item.Id}/{p.Line.Measures.Place.Id}/allowance", p.Price)
                    )),
                .. reckoning
                    .Priced.Where(p => p.Entry is not null)
                    .Select(p => new EquipmentView(
                        $"{p.Item.Item.Name}, price-only",
                        FigureView.Fine(
                            $"priced/{p.Item.Item.Id}/quantity",
                            p.Quantity,
                            p.Entry!.Unit.Kind == Kind.Count ? "" : p.Entry.Unit.Symbol
                        ),
                        FigureView.Money($"priced/{p.Item.Item.Id}/price", p.Price)
                    )),
            ],
            [
                new("Duration", FigureView.Fine("totals/duration", reckoning.Duration.Days, "days")),
                new("Return visits", FigureView.Fine("totals/returnVisits", reckoning.Duration.ReturnVisits, "")),
            ],
            [
                .. shelf
                    .Index.Find(new("", "setUp", "", false))
                    .Select(e => new SetUpChoice(e.Id, e.Name))
                    .Concat(
                        terms.SetUp is { } own && reckoning.Job.Book.GetValueOrDefault(own) is { } pinned
                            ? [new SetUpChoice(pinned.Id, pinned.Name)]
                            : []
                    )
                    .DistinctBy(c => c.Id),
            ]
        );
    }
}
