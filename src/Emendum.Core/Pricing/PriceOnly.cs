using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>What a price-only item comes to: breaks are tested on its included quantity in the job, edges inclusive (estimating model §3).</summary>
internal static class PriceOnly
{
    /// <summary>Price-only items and allowances of a job, by work item; lines stand by work item.</summary>
    public static ImmutableArray<OwnPrice> Of(Reckoned reckoned, Trace trace)
    {
        var (lines, priced) = (reckoned.Lines, ImmutableArray.CreateBuilder<OwnPrice>());
        for (int from = 0, to; from < lines.Length; from = to)
        {
            for (to = from; to < lines.Length && ReferenceEquals(lines[to].OfItem, lines[from].OfItem); to++)
                if (lines[to].Allowance is { } sum)
                    priced.Add(Allowance(lines[to], sum, trace));
            if (lines[from].OfItem.Entry is PriceOnlyItem entry && Array.Exists(lines[from..to], l => l.Works))
                priced.Add(Of(lines[from].OfItem, entry, lines.AsSpan(from, to - from), reckoned.Job.Units, trace));
        }
        return priced.ToImmutable();
    }

    /// <summary>An allowance is priced at its sum, for each of ×n places, and costs nothing until it is spent.</summary>
    private static OwnPrice Allowance(Line line, decimal sum, Trace trace)
    {
        var (item, place) = (line.OfItem.Item, line.Measures.Place);
        Val price = trace.Typed(sum, "", "allowed for", null, "work", item.Id);
        if (place.Count != 1)
            price *= trace.Typed(place.Count, "", "equal places", null, "places", place.Id);
        return new(
            line.OfItem,
            null,
            line,
            line.Quantity,
            trace.Total(
                price.Money(),
                "",
                trace.On ? $"{item.Name}, {place.Name}: allowance" : "",
                new("priced", item.Id, place.Id, "allowance")
            )
        );
    }

    private static OwnPrice Of(
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
        var quantity = trace.Total(
            trace.Convert(sum.Total, item.UnitIn(system), entry.Unit),
            entry.Unit.Kind == Kind.Count ? "" : entry.Unit.Symbol,
            name + ": quantity sold",
            Path("quantity")
        );
        var price = quantity.V == 0 ? 0m : Price(entry, quantity, trace);
        if (entry.Minimum > 0 && quantity.V != 0)
            price = Val.Max(price, trace.Book(entry.Minimum, "", "least price", entry.Id));
        return new(item, entry, null, quantity, trace.Total(price.Money(), "", name + ": price", Path("price")));
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
                // A later break may be cheaper still than the next.
                if (entry.NeverMoreThanNext)
                    foreach (var next in entry.Breaks.Where(b => b.From > reached))
                        price = Val.Min(price, Number(next.From, "a later break") * One(next.Price, "price there"));
                return price;
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
