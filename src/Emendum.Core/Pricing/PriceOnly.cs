using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>Why something has a price of its own.</summary>
public enum OwnPriceKind
{
    /// <summary>It is sold at a price, and costs nothing.</summary>
    PriceOnly,

    /// <summary>Its section, or the job, is priced by unit prices.</summary>
    UnitPrice,

    /// <summary>A sum is allowed for it.</summary>
    Allowance,
}

/// <summary>What has a price of its own: a work item with its quantity in the job, or the allowance of one line.</summary>
/// <param name="Kind">Why.</param>
/// <param name="Item">The work item.</param>
/// <param name="Sold">What a unit of it is sold at; null for an allowance.</param>
/// <param name="Line">The line, of an allowance.</param>
/// <param name="Quantity">What it is priced by, in <see cref="Sold"/>'s unit.</param>
/// <param name="Price">Money, of all its lines.</param>
/// <param name="ByLine">The same by line: position, money.</param>
public sealed record OwnPrice(
    OwnPriceKind Kind,
    CompiledItem Item,
    UnitPrice? Sold,
    Line? Line,
    Val Quantity,
    Total Price,
    ImmutableArray<(int Line, Val Price)> ByLine
);

/// <summary>What has a price of its own: breaks are tested on its included quantity in the job, edges inclusive (estimating model §3).</summary>
internal static class PriceOnly
{
    /// <summary>Price-only items, work sold by the unit and allowances of a job, by work item; lines stand by work item.</summary>
    /// <exception cref="RefusedException">Work that goes by unit prices has none.</exception>
    public static ImmutableArray<OwnPrice> Of(Reckoned reckoned, Trace trace)
    {
        var (lines, priced) = (reckoned.Lines, ImmutableArray.CreateBuilder<OwnPrice>());
        var places = CostRules.Of(reckoned.Job, trace).Places;
        for (int from = 0, to; from < lines.Length; from = to)
        {
            for (to = from; to < lines.Length && ReferenceEquals(lines[to].OfItem, lines[from].OfItem); to++)
                if (lines[to].Allowance is { } sum)
                    priced.Add(Allowance(lines[to], to, sum, places, trace));
            var item = lines[from].OfItem;
            var kind =
                item.Entry is PriceOnlyItem ? OwnPriceKind.PriceOnly
                : IsByUnit(reckoned.Job, item) ? OwnPriceKind.UnitPrice
                : (OwnPriceKind?)null;
            if (kind is not { } why || !Array.Exists(lines[from..to], l => l.IsSold))
                continue;
            int[] ours = [.. Enumerable.Range(from, to - from).Where(n => lines[n].Sold)];
            var own = new Own(item, reckoned, priced.Count + 1, places, trace);
            if (own.Of(why, ours) is { } sold)
                priced.Add(sold);
        }
        return priced.ToImmutable();
    }

    /// <summary>Whether work is priced by unit prices, or its share of a fixed price is.</summary>
    private static bool IsByUnit(Job job, CompiledItem item)
    {
        var terms = job.Section(item.Item.Section)?.Pricing is { } own ? job.Pricing.For(own) : job.Pricing;
        return terms.Basis == PriceBasis.UnitPrice
            || (terms.Basis == PriceBasis.Fixed && terms.UsualBasis == PriceBasis.UnitPrice);
    }

    /// <summary>An allowance is priced at its sum, for each of ×n places, and costs nothing until it is spent.</summary>
    private static OwnPrice Allowance(Line line, int at, decimal sum, int places, Trace trace)
    {
        var (item, place) = (line.OfItem.Item, line.Measures.Place);
        Val price = trace.Typed(sum, "", "allowed for", null, "work", item.Id);
        if (place.Count != 1)
            price *= trace.Typed(place.Count, "", "equal places", null, "places", place.Id);
        var total = trace.Total(
            price.Money(places),
            "",
            trace.On ? $"{item.Name}, {place.Name}: allowance" : "",
            new("priced", item.Id, place.Id, "allowance")
        );
        return new(OwnPriceKind.Allowance, line.OfItem, null, line, line.Quantity, total, [(at, total)]);
    }

    /// <summary>One work item that is sold by the unit.</summary>
    private readonly struct Own(CompiledItem item, Reckoned reckoned, int number, int places, Trace trace)
    {
        private FigurePath Path(string leaf) => new("priced", item.Item.Id, leaf);

        public OwnPrice? Of(OwnPriceKind kind, int[] ours)
        {
            var lines = reckoned.Lines;
            var sold = item.Item.UnitPrice ?? item.Entry.Sold;
            int[] own = [.. ours.Where(n => lines[n].Cell.UnitPrice is not null)];
            int[] rest = [.. ours.Except(own)];
            if (sold is null && rest.Length > 0)
            {
                var seen = rest.FirstOrDefault(n => !lines[n].Hidden, -1);
                if (seen >= 0)
                    throw RefusedException.Of(
                        "unitPrice",
                        $"{reckoned.Job.Titled(item.Item)} has no unit price. Type one for it or in the Book, or price {(reckoned.Job.Section(item.Item.Section)?.Pricing is null ? "the job" : "its section")} in another way."
                    );
                rest = [];
            }
            if (own.Length + rest.Length == 0)
                return null;
            var name = trace.On ? item.Item.Name : "";
            var per = sold ?? lines[own[0]].Cell.UnitPrice!;
            var quantity = trace.Total(
                Quantity(own.Length + rest.Length == ours.Length ? ours : [.. own, .. rest], per),
                per.Unit.Kind == Kind.Count ? "" : per.Unit.Symbol,
                name + ": quantity sold",
                Path("quantity")
            );
            var byLine = new List<(int Line, Val Price)>(ours.Length);
            var sum = new Sum();
            if (rest.Length > 0)
            {
                Val price = quantity.V == 0 ? 0m : Price(sold!, item.Item.UnitPrice is not null, quantity);
                if (own.Length > 0 && quantity.V != 0)
                    price = price * Quantity(rest, per) / quantity;
                price = price.Money(places);
                sum.Add(price);
                var titled = trace.On ? reckoned.Job.Titled(item.Item) : "";
                var shares = Shares.Of(
                    price,
                    [.. rest.Select(n => lines[n].Quantity)],
                    trace.On ? $"quantity of {titled} (price-only {number})" : "",
                    places,
                    trace
                );
                byLine.AddRange(rest.Zip(shares));
            }
            foreach (var n in own)
            {
                var here = lines[n].Cell.UnitPrice!;
                var price = (
                    Quantity([n], here)
                    * trace.Typed(here.Price, "per " + here.Unit, "unit price here", null, "work", item.Item.Id)
                ).Money(places);
                sum.Add(price);
                byLine.Add((n, price));
            }
            var total = trace.Total(sum.Total, "", name + ": price", Path("price"));
            return new(
                kind,
                item,
                per,
                null,
                quantity,
                total,
                byLine.Count == 1 ? [(byLine[0].Line, total.Value)] : [.. byLine.OrderBy(l => l.Line)]
            );
        }

        private Val Quantity(int[] at, UnitPrice sold)
        {
            var sum = new Sum();
            foreach (var n in at)
                sum.Add(reckoned.Lines[n].Quantity);
            return trace.Convert(sum.Total, item.UnitIn(reckoned.Job.Units), sold.Unit);
        }

        private Val Price(UnitPrice entry, bool typed, Val quantity)
        {
            var (recording, source, work) = (trace, item.Entry.Id, item.Item.Id);
            var breaks = entry.Breaks ?? [];
            var unit = "per " + entry.Unit;
            Val One(decimal price, string label) =>
                typed
                    ? recording.Typed(price, unit, label, null, "work", work)
                    : recording.Book(price, unit, label, source);
            Val Number(decimal value, string label) => recording.Book(value, "", label, source);
            var reached = Rounding.ForCompare(quantity.V);
            var another = trace.Follows ? $"{item.Item.Name}: another price break is reached." : "";
            if (entry.BreakKind == BreakKind.Slices || entry.NeverMoreThanNext)
                trace.AssumeRow(
                    quantity,
                    breaks.Select(b => b.From),
                    breaks.Where(b => b.From <= reached).Select(b => b.From).DefaultIfEmpty(0).Max(),
                    another
                );
            switch (entry.BreakKind)
            {
                case BreakKind.Whole:
                    TableRow[] rows = [new(0, entry.Price), .. breaks.Select(b => new TableRow(b.From, b.Price))];
                    var gives = rows.Last(r => r.From <= reached).Gives;
                    var price =
                        quantity
                        * new Val(
                            gives,
                            trace.On
                                ? new Table(quantity.HowOrConstant, rows, unit, "unit price", $"book/{source}")
                                : null
                        );
                    // A later break may be cheaper still than the next.
                    if (entry.NeverMoreThanNext)
                        foreach (var next in breaks.Where(b => b.From > reached))
                            price = Val.Min(price, Number(next.From, "a later break") * One(next.Price, "price there"));
                    return price;
                case BreakKind.Slices:
                    var total = new Sum();
                    var (from, at) = (0m, entry.Price);
                    foreach (var step in breaks.Where(b => b.From < reached))
                    {
                        total.Add((Number(step.From, "up to") - Number(from, "from")) * One(at, "price of the slice"));
                        (from, at) = (step.From, step.Price);
                    }
                    total.Add((quantity - Number(from, "from")) * One(at, "price of the slice"));
                    return total.Total;
                case BreakKind.Packages:
                    // A package holds up to its count; past the last, each further one is charged.
                    if (breaks.FirstOrDefault(b => reached <= b.From) is { } package)
                    {
                        trace.Assume(breaks[^1].From, Relation.AtLeast, quantity, another);
                        TableRow[] packages =
                        [
                            new(0, breaks[0].Price),
                            .. breaks.Zip(breaks.Skip(1), (a, b) => new TableRow(a.From + 0.000000001m, b.Price)),
                        ];
                        return new(
                            package.Price,
                            trace.On
                                ? new Table(quantity.HowOrConstant, packages, "", "package", $"book/{source}")
                                : null
                        );
                    }
                    var last = breaks[^1];
                    trace.Assume(quantity, Relation.Above, last.From, another);
                    return Number(last.Price, $"up to {Rounding.Text(last.From)}")
                        + (quantity - Number(last.From, "in the package")).Ceil() * One(entry.Price, "each further");
                default:
                    return quantity * One(entry.Price, "unit price");
            }
        }
    }
}
