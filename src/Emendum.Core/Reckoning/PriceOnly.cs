using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Reckoning;

/// <summary>What a price-only item comes to: breaks are tested on its included quantity in the job, edges inclusive (estimating model §3).</summary>
internal static class PriceOnly
{
    /// <summary>Prices the item.</summary>
    public static PricedLine Of(
        CompiledItem item,
        PriceOnlyItem entry,
        ReadOnlySpan<Line> lines,
        UnitSystem system,
        Trace trace
    )
    {
        var sum = new Sum();
        foreach (var line in lines)
            if (line.Ours)
                sum.Add(line.Quantity);
        FigurePath Path(string leaf) => new("priced", item.Item.Id, leaf);
        var name = trace.On ? item.Item.Name : "";
        var quantity = trace.Make(
            trace.Convert(sum.Total, item.Measure.UnitIn(system), entry.Unit),
            entry.Unit.Kind == Kind.Count ? "" : entry.Unit.Symbol,
            name + ": quantity sold",
            Path("quantity")
        );
        var price = quantity.V == 0 ? 0m : Price(entry, quantity, trace);
        if (entry.Minimum > 0 && quantity.V != 0)
            price = Val.Max(price, trace.Book(entry.Minimum, "", "least price", entry.Id));
        return new(item, entry, null, quantity, trace.Make(price.Money(), "", name + ": price", Path("price")));
    }

    private static Val Price(PriceOnlyItem entry, Val quantity, Trace trace)
    {
        var unit = "per " + entry.Unit;
        Val One(decimal price, string label) => trace.Book(price, unit, label, entry.Id);
        Val Number(decimal value, string label) => trace.Book(value, "", label, entry.Id);
        var reached = Rounding.ForCompare(quantity.V);
        switch (entry.BreakKind)
        {
            case BreakKind.Whole:
                TableRow[] rows = [new(0, entry.Price), .. entry.Breaks.Select(b => new TableRow(b.From, b.Price))];
                var gives = rows.Last(r => r.From <= reached).Gives;
                var price =
                    quantity
                    * new Val(
                        gives,
                        trace.On
                            ? new Table(quantity.HowOrConstant, rows, unit, "unit price", $"book/{entry.Id}")
                            : null
                    );
                return entry.NeverMoreThanNext && entry.Breaks.FirstOrDefault(b => b.From > reached) is { } next
                    ? Val.Min(price, Number(next.From, "next break") * One(next.Price, "price there"))
                    : price;
            case BreakKind.Slices:
                var total = new Sum();
                var (from, at) = (0m, entry.Price);
                foreach (var step in entry.Breaks.Where(b => b.From < reached))
                {
                    total.Add((Number(step.From, "up to") - Number(from, "from")) * One(at, "price of the slice"));
                    (from, at) = (step.From, step.Price);
                }
                total.Add((quantity - Number(from, "from")) * One(at, "price of the slice"));
                return total.Total;
            case BreakKind.Packages:
                // A package holds up to its count; past the last, each further one is charged.
                if (entry.Breaks.FirstOrDefault(b => reached <= b.From) is { } package)
                {
                    TableRow[] packages =
                    [
                        new(0, entry.Breaks[0].Price),
                        .. entry.Breaks.Zip(
                            entry.Breaks.Skip(1),
                            (a, b) => new TableRow(a.From + 0.000000001m, b.Price)
                        ),
                    ];
                    return new(
                        package.Price,
                        trace.On ? new Table(quantity.HowOrConstant, packages, "", "package", $"book/{entry.Id}") : null
                    );
                }
                var last = entry.Breaks[^1];
                return Number(last.Price, $"up to {Rounding.Text(last.From)}")
                    + (quantity - Number(last.From, "in the package")).Ceil() * One(entry.Price, "each further");
            default:
                return quantity * One(entry.Price, "unit price");
        }
    }
}
