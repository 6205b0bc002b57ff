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
public sealed record BuyView(string Name, string Colour, FigureView Need, string Packs, FigureView Bought, FigureView BoughtCost, FigureView NeedCost);

/// <summary>Hours and cost of equipment.</summary>
public sealed record EquipmentView(string Name, FigureView Hours, FigureView Cost);

/// <summary>What the Price station shows.</summary>
public sealed record PriceView(
    IReadOnlyList<StepView> Steps, IReadOnlyList<ReadoutView> Readouts, FigureView AtGoal, string Goal, IReadOnlyList<RoleView> Roles, IReadOnlyList<BuyView> Buying, IReadOnlyList<EquipmentView> Equipment)
{
    /// <summary>Made from a reckoned job.</summary>
    public static PriceView Of(Reckoning reckoning)
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
            steps.Add(new(label, note, FigureView.Money(path, amount), kind, Part(from), Part(kind == "sum" ? amount.V : decimal.Abs(amount.V))));
            if (kind != "sum") at += amount.V;
        }
        string[] notes =
        [
            $"{FigureView.Hours("", reckoning.Hours).Shown} h, {reckoning.Roles.Length} roles, loaded", $"{(terms.MaterialCost == MaterialCost.Purchase ? "as bought" : "by need")}, {reckoning.Buying.Length} items",
            "while the crew works",
        ];
        for (var i = 0; i < price.Classes.Length; i++) Step(price.Classes[i].Label, notes[i], "price/" + price.Classes[i].Name, price.Classes[i].Cost, "cost");
        var markup = terms.Basis == PriceBasis.Markup;
        if (markup)
        {
            decimal[] percents = [terms.LabourMarkup, terms.MaterialMarkup, terms.EquipmentMarkup];
            for (var i = 0; i < price.Classes.Length; i++)
                if (percents[i] != 0) Step("Markup on " + price.Classes[i].Label.ToLowerInvariant(), P(percents[i]), $"price/{price.Classes[i].Name}Markup", price.Classes[i].Markup, "added");
        }
        Step("Overhead", P(terms.Overhead) + (markup ? " of cost with markups" : " of cost"), "price/overhead", price.Overhead, "added");
        Step("Contingency", P(terms.Contingency) + ", after overhead", "price/contingency", price.Contingency, "added");
        Step(markup ? "Profit" : "Left as profit", markup ? P(terms.Profit) + " on all above" : "what the margin leaves", "price/profit", price.Profit, "profit");
        Step("Price before tax", markup ? "by markup" : $"by a target margin of {P(terms.TargetMargin)}", "price/beforeTax", price.BeforeTax, "sum");
        Step(terms.TaxName.Length == 0 ? "Tax" : terms.TaxName, terms.TaxOn switch { TaxOn.Nothing => "not charged", TaxOn.Materials => $"{P(terms.TaxRate)} on materials, {FigureView.Money("", price.Taxable).Shown}", _ => P(terms.TaxRate) + " on the price" }, "price/tax", price.Tax, "tax");
        Step("Customer pays", "", "price/total", price.Total, "sum");

        var readouts = new List<ReadoutView> { new("Gross profit", FigureView.Money("price/grossProfit", price.GrossProfit)) };
        if (price.Margin is { } m) readouts.Add(new("Margin, of the price", FigureView.Percent("price/margin", m)));
        if (price.Markup is { } k) readouts.Add(new("Markup, on the cost", FigureView.Percent("price/markup", k)));
        if (price.PerFloor is { } f) readouts.Add(new("Per floor area", FigureView.Money("price/perFloor", f, "per " + Line.SymbolOf(Core.Places.Measure.FloorArea, reckoning.Job.Units))));
        if (price.PerHour is { } h) readouts.Add(new("Per labour hour", FigureView.Money("price/perHour", h, "per h")));
        return new(
            steps, readouts, FigureView.Money("price/atGoal", price.AtGoal), P(terms.GoalMargin),
            [.. reckoning.Roles.Select(r => new RoleView(r.Role.Name, FigureView.Hours($"roles/{r.Role.Id}/hours", r.Hours), FigureView.Money($"roles/{r.Role.Id}/loadedCost", r.LoadedCost, "per h"), FigureView.Money($"roles/{r.Role.Id}/cost", r.Cost)))],
            [.. reckoning.Buying.Select(b =>
            {
                string Path(string leaf) => $"buy{b.Key}/{b.Material.Id}/{leaf}";
                var unit = b.Material.Unit.Symbol;
                return new BuyView(b.Material.Name, b.Colour, FigureView.Fine(Path("need"), b.Need, unit),
                    string.Join(" + ", b.Packs.Select((n, i) => (n, b.Material.Packs[i].Name)).Where(x => x.n > 0).Select(x => $"{Rounding.Text(x.n)} × {x.Name}")),
                    FigureView.Fine(Path("bought"), b.Bought, unit), FigureView.Money(Path("boughtCost"), b.BoughtCost), FigureView.Money(Path("needCost"), b.NeedCost));
            })],
            [.. reckoning.Equipment.Select(e => new EquipmentView(e.Equipment.Name, FigureView.Hours($"equipment/{e.Equipment.Id}/hours", e.Hours), FigureView.Money($"equipment/{e.Equipment.Id}/cost", e.Cost)))]);
    }
}
