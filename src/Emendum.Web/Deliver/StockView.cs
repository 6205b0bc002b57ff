using Emendum.Core.Delivery;
using Emendum.Core.Quantities;

namespace Emendum.Web.Deliver;

/// <summary>Goods that moved.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Day">When, in words.</param>
/// <param name="What">How much of what, and how.</param>
/// <param name="Detail">For what, why, by whom.</param>
/// <param name="MayTakeBack">Whether it can be taken back: it stands, and is none that takes one back.</param>
public sealed record MoveRow(Guid Id, string Day, string What, string Detail, bool MayTakeBack)
{
    /// <summary>Most that are listed.</summary>
    private const int Most = 500;

    /// <summary>What moved, the latest first.</summary>
    /// <param name="facts">The facts.</param>
    /// <param name="day">The firm's days.</param>
    /// <param name="item">The goods where all facts are about them; null otherwise.</param>
    /// <param name="about">What one is about: its job, or its work; empty for nothing.</param>
    internal static IReadOnlyList<MoveRow> Of(
        IReadOnlyList<StockFact> facts,
        FirmDay day,
        StockItem? item,
        Func<StockFact, string> about
    )
    {
        var gone = facts.Select(f => f.TakesBack).OfType<Guid>().ToHashSet();
        var moment = day.Moments();
        return
        [
            .. facts
                .Reverse()
                .Take(Most)
                .Select(f => new MoveRow(
                    f.Id,
                    InvoicesView.InWords(f.Day),
                    (f.TakesBack is null ? "" : "taken back: ") + InWords(f, item),
                    string.Join(
                        " · ",
                        new[]
                        {
                            about(f),
                            f.Paid is { } paid ? $"paid {Shown.Money(paid)}" : "",
                            f.Words,
                            $"{moment(f.At)} by {f.By}",
                        }.Where(s => s.Length > 0)
                    ),
                    f.TakesBack is null && !gone.Contains(f.Id)
                )),
        ];
    }

    private static string InWords(StockFact fact, StockItem? item)
    {
        var much = $"{Shown.Typed(fact.Quantity)} {fact.Goods.Unit}".TrimEnd();
        var name = fact.Goods.Named(fact.Name);
        var of = item is null ? $" {name}" : "";
        return fact.Move switch
        {
            StockMove.Received => $"{much}{of} came",
            StockMove.Used => $"{much}{of} used",
            StockMove.PutBack => $"{much}{of} put back",
            StockMove.Reserved => $"{much}{of} reserved",
            StockMove.Released => $"{much}{of} released",
            _ => item?.DifferenceOf(fact.Id) switch
            {
                null => $"{much}{of} counted",
                0 => $"{much} counted, as known",
                > 0 and var more => $"{much} counted, {Shown.Typed(more)} more than known",
                var less => $"{much} counted, {Shown.Typed(-less.Value)} less than known",
            },
        };
    }
}

/// <summary>Goods in stock.</summary>
/// <param name="Goods">Which.</param>
/// <param name="Name">What they are called, in their colour.</param>
/// <param name="OnHand">What is there.</param>
/// <param name="IsShort">Whether more was taken than was known.</param>
/// <param name="Reserved">For whom something is kept.</param>
/// <param name="Free">What is kept for nobody.</param>
/// <param name="Average">What a unit is worth; empty where nothing was paid.</param>
/// <param name="Value">What all is worth.</param>
/// <param name="Typed">What is there, to be typed over.</param>
public sealed record StockRow(
    GoodsKey Goods,
    string Name,
    string OnHand,
    bool IsShort,
    IReadOnlyList<string> Reserved,
    string Free,
    string Average,
    string Value,
    string Typed
);

/// <summary>The stock list.</summary>
/// <param name="Rows">By name.</param>
/// <param name="Value">What all is worth.</param>
/// <param name="Today">The firm's day, like 2027-01-31.</param>
public sealed record StockView(IReadOnlyList<StockRow> Rows, string Value, string Today)
{
    internal static StockView Of(IReadOnlyList<StockItem> items, FirmDay day, Func<Guid, string> nameOf)
    {
        var names = new Dictionary<Guid, string>();
        string Name(Guid job) => names.TryGetValue(job, out var name) ? name : names[job] = nameOf(job);
        static string Much(decimal quantity, string unit) => $"{Shown.Fine(quantity)} {unit}".TrimEnd();
        return new(
            [
                .. items
                    .OrderBy(i => i.Name, StringComparer.OrdinalIgnoreCase)
                    .ThenBy(i => i.Goods.Text, StringComparer.Ordinal)
                    .Select(i => new StockRow(
                        i.Goods,
                        i.Goods.Named(i.Name),
                        Much(i.OnHand, i.Goods.Unit),
                        i.OnHand < 0,
                        [
                            .. i
                                .Reservations.GroupBy(r => r.Job)
                                .Select(g => $"{Much(g.Sum(r => r.Quantity), i.Goods.Unit)} for {Name(g.Key)}"),
                        ],
                        Much(i.Free, i.Goods.Unit),
                        i.Average is { } average ? Shown.Money(average) : "",
                        Shown.Money(i.Value),
                        Rounding.Text(Math.Max(0, i.OnHand))
                    )),
            ],
            Shown.Money(items.Sum(i => i.Value)),
            day.Written
        );
    }
}
