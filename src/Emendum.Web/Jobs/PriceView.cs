using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Storage;

namespace Emendum.Web.Jobs;

/// <summary>A step from cost to price.</summary>
/// <param name="Key">Its name in paths.</param>
/// <param name="Label">Its name.</param>
/// <param name="Note">What it rests on.</param>
/// <param name="Amount">Its amount.</param>
/// <param name="Kind"><c>cost</c>, <c>added</c>, <c>profit</c>, <c>tax</c>, <c>within</c> or <c>sum</c>.</param>
/// <param name="From">Where its bar begins, percent of the width, one place.</param>
/// <param name="Width">How wide its bar is, percent of the width.</param>
public sealed record StepView(
    string Key,
    string Label,
    string Note,
    FigureView Amount,
    string Kind,
    decimal From,
    decimal Width
);

/// <summary>Something raised to its least charge.</summary>
public sealed record ShortfallView(string What, string Was, string Least, FigureView By);

/// <summary>A figure with a name.</summary>
public sealed record ReadoutView(string Label, FigureView Figure);

/// <summary>Whether the price is below the floor, and the reason that is kept for it.</summary>
public sealed record GuardView(bool BelowFloor, string Reason);

/// <summary>The price for each unit of an area.</summary>
/// <param name="Measure">The area.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Per">What the price for each unit of it is called.</param>
/// <param name="Figure">Money.</param>
public sealed record PerAreaView(Measure Measure, string Label, string Per, FigureView Figure);

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

/// <summary>What is mixed on the spot, and its parts.</summary>
public sealed record MixedView(string Name, string Colour, FigureView Quantity, IReadOnlyList<MixedPartView> Parts)
{
    public static MixedView Of(Mixed mixed) =>
        new(
            mixed.Material.Name,
            mixed.Colour,
            FigureView.Fine(mixed.Quantity),
            [.. mixed.Parts.Select(p => new MixedPartView(p.Name, p.Material is null, FigureView.Fine(p.Amount)))]
        );
}

/// <summary>One part of what is mixed; a free one is not bought.</summary>
public sealed record MixedPartView(string Name, bool Free, FigureView Amount);

/// <summary>Hours, days or visits of equipment, an amount of a subcontract, a charge, a price-only item: what it is counted by, and its money.</summary>
public sealed record EquipmentView(string Name, FigureView? Hours, FigureView Cost);

/// <summary>A set-up and travel that the job can have.</summary>
public sealed record SetUpChoice(Guid Id, string Name);

/// <summary>An occurrence of a round, whose price is looked at by itself.</summary>
public sealed record OccurrenceName(Guid Id, string Name);

/// <summary>What the Price station shows.</summary>
/// <param name="Occurrences">Of a round, what comes back and what is done once; then the price is that of the first year.</param>
/// <param name="OfCustomer">Why no tax is charged to the customer, as their own row says it; the job may say something else.</param>
public sealed record PriceView(
    IReadOnlyList<StepView> Steps,
    IReadOnlyList<ShortfallView> Shortfalls,
    IReadOnlyList<TypableView> Typable,
    GuardView Guard,
    IReadOnlyList<ReadoutView> Readouts,
    FigureView AtFloor,
    FigureView AtGoal,
    IReadOnlyList<PerAreaView> PerArea,
    IReadOnlyList<RoleView> Roles,
    IReadOnlyList<BuyView> Buying,
    IReadOnlyList<MixedView> Mixed,
    IReadOnlyList<EquipmentView> Equipment,
    IReadOnlyList<EquipmentView> Others,
    IReadOnlyList<ReadoutView> Time,
    IReadOnlyList<SetUpChoice> SetUps,
    Exemption? OfCustomer,
    IReadOnlyList<OccurrenceName> Occurrences
)
{
    /// <summary>Made from a reckoned job.</summary>
    public static PriceView Of(Estimate estimate, Shelf shelf, CustomerStore customers)
    {
        var (price, places) = (estimate.Price, estimate.MoneyPlaces);
        var steps = new List<StepView>();
        var full = decimal.Max(price.Total.V, decimal.Max(price.Direct.V, price.OfCosts.V + price.PriceOnly.V));
        var at = 0m;
        void Step(PriceStep step)
        {
            decimal Part(decimal money) => full == 0 ? 0 : decimal.Round(money * 100 / full, 2);
            var sum = step.Kind == StepKind.Sum;
            var amount = step.Amount.V;
            var kind = step.Kind.ToString().ToLowerInvariant();
            var within = step.Kind == StepKind.Within;
            var from =
                sum ? 0
                : within ? at - amount
                : decimal.Min(at, at + amount);
            var width = sum ? amount : decimal.Abs(amount);
            // What is nothing is not drawn, but for a tax from which the customer is exempt: it says so.
            var exempt =
                step.Kind == StepKind.Tax && estimate.Job.Pricing is { Exemption: not null, Taxes.IsEmpty: false };
            if (sum || amount != 0 || exempt)
                steps.Add(
                    new(
                        step.Key,
                        step.Label,
                        step.Note,
                        FigureView.Money(step.Amount, places: places),
                        kind,
                        Part(decimal.Max(0, from)),
                        Part(decimal.Max(0, width))
                    )
                );
            if (!sum && !within)
                at += amount;
        }
        foreach (var step in price.Steps)
            Step(step);

        var of = price.Readouts;
        var readouts = new List<ReadoutView>();
        if (of.Cost.V != price.Direct.V)
            readouts.Add(new("Cost with allowances and fees", FigureView.Money(of.Cost, places: places)));
        if (of.Markup is { } k)
            readouts.Add(new("Markup, on the cost", FigureView.Percent(k)));
        return new(
            steps,
            [
                .. price.Draft.Shortfalls.Select(f => new ShortfallView(
                    f.What,
                    price.Draft.Words(f.Was.V),
                    price.Draft.Words(f.Least.V),
                    FigureView.Money(f.By, places: places)
                )),
            ],
            PriceEndpoints.Typable(estimate, null),
            new(
                of.Margin?.V < estimate.Job.Pricing.FloorMargin,
                estimate.Job.SetAside.GetValueOrDefault(TypePrice.BelowFloor, "")
            ),
            readouts,
            FigureView.Money(of.AtFloor, places: places),
            FigureView.Money(of.AtGoal, places: places),
            [
                .. PricePerArea
                    .Of(estimate, Trace.Silent)
                    .Select(a => new PerAreaView(
                        a.Measure,
                        a.Measure.Label(estimate.Job.Units),
                        $"Per {a.Unit} of {a.Measure.Label(estimate.Job.Units).ToLowerInvariant()}",
                        FigureView.Money(a.Per, places: places)
                    )),
            ],
            [
                .. estimate.Reckoned.Costs.Roles.Select(r => new RoleView(
                    r.Role.Name,
                    FigureView.Hours(r.Hours),
                    FigureView.Money(r.LoadedCost, "per h", places),
                    FigureView.Money(r.Cost, places: places)
                )),
            ],
            [
                .. estimate.Reckoned.Costs.Buying.Select(b =>
                {
                    return new BuyView(
                        b.Material.Name,
                        b.Colour,
                        FigureView.Fine(b.Need),
                        b.PacksInWords,
                        FigureView.Fine(b.Bought),
                        FigureView.Fine(b.Leftover),
                        FigureView.Money(b.BoughtCost, places: places),
                        FigureView.Money(b.NeedCost, places: places),
                        b.Delivery is { } delivery ? FigureView.Money(delivery, places: places) : null
                    );
                }),
            ],
            [.. estimate.Reckoned.Costs.Mixed.Select(MixedView.Of)],
            [
                .. estimate.Reckoned.Costs.Equipment.Select(e => new EquipmentView(
                    e.Equipment.Name,
                    e.Equipment.Per == EquipmentPer.Hour ? FigureView.Hours(e.Hours) : FigureView.Fine(e.Units),
                    FigureView.Money(e.Cost, places: places)
                )),
            ],
            [
                .. estimate.Reckoned.Costs.Subcontracts.Select(s => new EquipmentView(
                    s.Subcontract.Name,
                    FigureView.Fine(s.Amount),
                    FigureView.Money(s.Cost, places: places)
                )),
                .. estimate.Reckoned.Costs.Quotes.Select(q => new EquipmentView(
                    $"{q.Quote.From}, quote for {estimate.Job.Section(q.Quote.Section)?.Name}",
                    null,
                    FigureView.Money(q.Cost, places: places)
                )),
                .. estimate.Reckoned.Costs.Charges.Select(c =>
                    c.Item is null
                        ? new EquipmentView(c.Name, FigureView.Fine(c.Amount), FigureView.Money(c.Cost, places: places))
                        : new EquipmentView(
                            $"{c.Name}, {c.Item.Item.Name}",
                            FigureView.Fine(c.Amount),
                            FigureView.Money(c.Cost, places: places)
                        )
                ),
                .. estimate
                    .Priced.Where(p => p.Line is not null)
                    .Select(p => new EquipmentView(
                        $"{p.Item.Item.Name}, {p.Line!.Measures.Place.Name}, allowance",
                        null,
                        FigureView.Money(p.Price, places: places)
                    )),
                .. estimate
                    .Priced.Where(p => p.Sold is not null)
                    .Select(p => new EquipmentView(
                        $"{p.Item.Item.Name}, {(p.Kind == OwnPriceKind.PriceOnly ? "price-only" : "by unit price")}",
                        FigureView.Fine(
                            p.Price.Path[..p.Price.Path.LastIndexOf("priced/", StringComparison.Ordinal)]
                                + $"priced/{p.Item.Item.Id}/quantity",
                            p.Quantity,
                            p.Sold!.Unit.Kind == Kind.Count ? "" : p.Sold.Unit.Symbol
                        ),
                        FigureView.Money(p.Price, places: places)
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
                        estimate.Job.Crew.SetUp is { } own && estimate.Job.Book.GetValueOrDefault(own) is { } pinned
                            ? [new SetUpChoice(pinned.Id, pinned.Name)]
                            : []
                    )
                    .DistinctBy(c => c.Id),
            ],
            customers.Find(estimate.Job.Info.Customer)?.Exemption,
            [.. price.Occurrences.Select(o => new OccurrenceName(o.Occurrence.Id, o.Occurrence.Name))]
        );
    }
}
