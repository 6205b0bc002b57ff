using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>The price before tax shared to lines, and added up by section and place. Made only for the view that shows it (architecture decision 10).</summary>
public sealed class Spread
{
    private Spread(Val[] lines) => Lines = lines;

    /// <summary>Price of each line of <see cref="Reckoning.Reckoning.Lines"/>; they sum to the price before tax.</summary>
    public Val[] Lines { get; }

    /// <summary>Shares an amount of whole cents by weight, by largest remainder.</summary>
    public static Val[] Share(Val total, Val[] weights, string name, Trace trace)
    {
        var parts = Split.ByLargestRemainder(total.V, [.. weights.Select(w => w.V)]);
        var set = trace.On ? new ShareSet(name, total.HowOrConstant, [.. weights.Select(w => w.HowOrConstant)]) : null;
        return [.. parts.Select((part, i) => new Val(part, set is null ? null : new Share(set, i)))];
    }

    /// <summary>Shares by each line's direct cost with its class's markup; percentages of the whole fall on all alike.</summary>
    public static Spread Of(Reckoning.Reckoning reckoning, Trace trace)
    {
        var terms = reckoning.Job.Pricing;
        var marked = terms.Basis == PriceBasis.Markup;
        Val With(Val cost, decimal markup, string name) => marked && markup != 0 ? cost * (100m + trace.Term(markup, "%", "markup on " + name, name + "Markup")) / 100m : cost;
        var loaded = reckoning.Roles.ToDictionary(r => r.Role.Id, r => r.LoadedCost);
        var bought = reckoning.Buying.ToDictionary(b => (b.Material.Id, b.Colour));
        var weights = new Val[reckoning.Lines.Length];
        for (var n = 0; n < weights.Length; n++)
        {
            var line = reckoning.Lines[n];
            var sum = new Sum();
            for (var i = 0; i < line.Amounts.Length; i++)
            {
                var part = line.Item.Parts[i];
                var amount = line.Amounts[i];
                switch (part.Entry)
                {
                    case LabourRole role:
                        sum.Add(With(amount * loaded[role.Id], terms.LabourMarkup, "labour"));
                        break;
                    case Material material:
                        var buy = bought[(material.Id, line.Item.Item.Colour)];
                        if (buy.Need.V != 0) sum.Add(With(amount * (terms.MaterialCost == MaterialCost.Purchase ? buy.BoughtCost : buy.NeedCost) / buy.Need, terms.MaterialMarkup, "material"));
                        break;
                    case Equipment equipment:
                        sum.Add(With(amount * trace.Book(equipment.CostPerHour, "per h", equipment.Name, equipment.Id), terms.EquipmentMarkup, "equipment"));
                        break;
                }
            }
            weights[n] = trace.Make(sum.Total, "", trace.On ? Name(line) + ": cost with markup" : "", Path(line, "weight"));
        }
        var shares = Share(reckoning.Price.BeforeTax, weights, "price by line", trace);
        return new([.. shares.Select((share, n) => trace.Make(share, "", trace.On ? Name(reckoning.Lines[n]) + ": price" : "", Path(reckoning.Lines[n], "price")))]);
    }

    private static string Name(Line line) => $"{line.Item.Item.Name}, {line.Measures.Place.Name}";

    private static FigurePath Path(Line line, string leaf) => new("lines", line.Item.Item.Id, line.Measures.Place.Id, leaf);

    /// <summary>Sum of the lines for which <paramref name="within"/> holds, as a figure.</summary>
    public Val Sum(Reckoning.Reckoning reckoning, Func<Line, bool> within, string label, FigurePath path, Trace trace)
    {
        var sum = new Sum();
        for (var i = 0; i < Lines.Length; i++)
            if (within(reckoning.Lines[i])) sum.Add(Lines[i]);
        return trace.Make(sum.Total, "", label, path);
    }
}
