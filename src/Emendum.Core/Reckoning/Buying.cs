using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;

namespace Emendum.Core.Reckoning;

/// <summary>Buying, once per job, material and colour: the cheapest packs that cover need and order rules (estimating model §5).</summary>
internal static class Buying
{
    /// <summary>A purchase for each need, in their order.</summary>
    public static ImmutableArray<Purchase> Of(
        IReadOnlyList<(Material Material, string Colour, Val Need)> needs,
        Trace trace
    )
    {
        var delivered = Delivered(needs);
        var lines = ImmutableArray.CreateBuilder<Purchase>(needs.Count);
        for (var i = 0; i < needs.Count; i++)
            lines.Add(Buy(needs[i].Material, needs[i].Colour, needs[i].Need, delivered.Contains(i), trace));
        return lines.ToImmutable();
    }

    /// <summary>A supplier delivers once in a job: the dearest of its deliveries is charged, at the first need that has it. Goods without a supplier come each on their own.</summary>
    private static HashSet<int> Delivered(IReadOnlyList<(Material Material, string Colour, Val Need)> needs)
    {
        var first = new Dictionary<string, int>();
        var delivered = new HashSet<int>();
        for (var i = 0; i < needs.Count; i++)
        {
            var material = needs[i].Material;
            if (material.Rules.Delivery == 0 || needs[i].Need.V == 0)
                continue;
            if (material.Supplier.Length == 0)
                delivered.Add(i);
            else if (
                !first.TryGetValue(material.Supplier, out var at)
                || needs[at].Material.Rules.Delivery < material.Rules.Delivery
            )
                first[material.Supplier] = i;
        }
        delivered.UnionWith(first.Values);
        return delivered;
    }

    private static Purchase Buy(Material material, string colour, Val amount, bool delivered, Trace trace)
    {
        FigurePath Path(string leaf) => new(FigurePath.InColour("buy", colour), material.Id, leaf);
        var name = trace.On
            ? colour.Length == 0
                ? material.Name
                : $"{material.Name}, {colour}"
            : "";
        var unit = material.Unit.Symbol;
        var need = trace.Total(amount, unit, name + ": needed", Path("need"));
        var (rules, required) = (material.Rules, need.Value);
        if (need.V != 0 && (rules.SparePercent != 0 || rules.Minimum != 0))
        {
            if (rules.SparePercent != 0)
                required =
                    required
                    * (100m + trace.Book(rules.SparePercent, "%", "spare, left with the customer", material.Id))
                    / 100m;
            if (rules.Minimum != 0)
                required = Val.Max(required, trace.Book(rules.Minimum, unit, "least order", material.Id));
            required = trace.Make(required, unit, name + ": to order", Path("required"));
        }
        var choice = CheapestPacks.Cover(required.V, material.Packs);
        var counts = choice.Counts;
        decimal size = 0,
            price = 0;
        for (var i = 0; i < counts.Length; i++)
            (size, price) = (size + counts[i] * material.Packs[i].Size, price + counts[i] * material.Packs[i].Price);
        Val Chosen(decimal value, string gives) =>
            new(
                value,
                trace.On
                    ? new Packs(
                        required.HowOrConstant,
                        [.. counts.Select((n, i) => new PackCount(material.Packs[i].Size, material.Packs[i].Price, n))],
                        gives,
                        choice.Above
                    )
                    : null
            );
        var bought = trace.Total(Chosen(size, "quantity"), unit, name + ": bought", Path("bought"));
        var cost = trace.Total(Chosen(price, "cost"), "", name + ": bought cost", Path("boughtCost"));
        return new(
            material,
            colour,
            need,
            required,
            choice,
            bought,
            trace.Total(bought - need, unit, name + ": left over", Path("leftover")),
            cost,
            trace.Total(bought.V == 0 ? cost : need * cost / bought, "", name + ": cost of the need", Path("needCost")),
            delivered
                ? trace.Total(
                    trace.Book(rules.Delivery, "", "delivery", material.Id),
                    "",
                    name + ": delivery",
                    Path("delivery")
                )
                : null
        );
    }
}
