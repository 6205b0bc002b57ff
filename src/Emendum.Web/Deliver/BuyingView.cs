using Emendum.Core.Delivery;
using Emendum.Core.Quantities;

namespace Emendum.Web.Deliver;

/// <summary>A pack of goods that can be ordered, with as many as would be bought.</summary>
/// <param name="Goods">Which goods.</param>
/// <param name="Name">What they are called, in their colour.</param>
/// <param name="Pack">Which pack, from 0.</param>
/// <param name="PackName">Its name.</param>
/// <param name="Count">How many, to be typed over; empty for none.</param>
/// <param name="Price">Of one, to be typed over.</param>
public sealed record PackToOrder(GoodsKey Goods, string Name, int Pack, string PackName, string Count, string Price);

/// <summary>Goods of the Book that can be bought.</summary>
/// <param name="Goods">Which.</param>
/// <param name="Name">What they are called.</param>
/// <param name="Unit">Their unit; <c>pieces</c> where they have none.</param>
/// <param name="Packs">What they are sold in.</param>
public sealed record GoodsChoice(GoodsKey Goods, string Name, string Unit, IReadOnlyList<PackToOrder> Packs)
{
    /// <summary>Most that are offered.</summary>
    internal const int Most = 5_000;

    internal static GoodsChoice Of(AgreedGoods goods) =>
        new(goods.Key, goods.Name, goods.Unit.Length == 0 ? "pieces" : goods.Unit, PacksOf(goods, []));

    /// <summary>Each pack of some goods, with its count.</summary>
    internal static IReadOnlyList<PackToOrder> PacksOf(AgreedGoods goods, decimal[] counts) =>
        [
            .. goods.Packs.Select(
                (pack, i) =>
                    new PackToOrder(
                        goods.Key,
                        goods.Key.Named(goods.Name),
                        i,
                        pack.Name,
                        i < counts.Length && counts[i] > 0 ? Rounding.Text(counts[i]) : "",
                        Rounding.Text(pack.Price)
                    )
            ),
        ];
}

/// <summary>Goods that a job takes.</summary>
/// <param name="Goods">Which.</param>
/// <param name="Name">What they are called, in their colour.</param>
/// <param name="Supplier">Who sells them; empty where nobody has said.</param>
/// <param name="Unit">Their unit; empty for pieces.</param>
/// <param name="Need">What was agreed; empty where nothing was.</param>
/// <param name="Used">What was used, less what came back; empty for nothing.</param>
/// <param name="ForDone">What was estimated for what is done; empty where that is not known.</param>
/// <param name="Reserved">What is kept for the job; empty for nothing.</param>
/// <param name="OnOrder">What is on order for it; empty for nothing.</param>
/// <param name="ToBuy">What is still to buy; empty for nothing.</param>
/// <param name="Packs">In which packs, and what they cost.</param>
/// <param name="Stock">What is in stock: free, and kept for other jobs; empty for nothing.</param>
/// <param name="MayReserve">What could be reserved, to be typed over; empty for nothing.</param>
/// <param name="MayUse">What is kept for it, to be typed over; empty for nothing.</param>
/// <param name="MayPutBack">What could come back, to be typed over; empty for nothing.</param>
/// <param name="Estimated">What they were to cost.</param>
/// <param name="WillCost">What they will cost.</param>
/// <param name="Differs">The second less the first, with its sign; empty where they are the same.</param>
/// <param name="Shares">Used, kept, on order and to buy as percent of what is needed, or of all of it where that is more.</param>
public sealed record GoodsRow(
    GoodsKey Goods,
    string Name,
    string Supplier,
    string Unit,
    string Need,
    string Used,
    string ForDone,
    string Reserved,
    string OnOrder,
    string ToBuy,
    string Packs,
    string Stock,
    string MayReserve,
    string MayUse,
    string MayPutBack,
    string Estimated,
    string WillCost,
    string Differs,
    IReadOnlyList<string> Shares
);

/// <summary>Somebody of whom something is to buy.</summary>
/// <param name="Name">Their name; empty where the Book does not say who sells it.</param>
/// <param name="Lines">What, pack by pack.</param>
/// <param name="Delivery">Money for the delivery, to be typed over; empty for nothing.</param>
/// <param name="Total">What it comes to.</param>
public sealed record ToOrderFrom(string Name, IReadOnlyList<PackToOrder> Lines, string Delivery, string Total);

/// <summary>A line of an order, with what came of it.</summary>
/// <param name="Line">Which, from 0.</param>
/// <param name="Name">Goods and pack.</param>
/// <param name="Ordered">How many packs at which price.</param>
/// <param name="Amount">What they come to.</param>
/// <param name="Came">How it stands: <c>4 of 10 came</c>.</param>
/// <param name="Rest">Packs that have not come, to be typed over; empty for none.</param>
public sealed record PurchaseLine(int Line, string Name, string Ordered, string Amount, string Came, string Rest);

/// <summary>Something that happened, that can be taken back.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Words">What.</param>
/// <param name="MayTakeBack">Whether it can be.</param>
public sealed record OrderHappened(Guid Id, string Words, bool MayTakeBack);

/// <summary>An order of the job.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Its number.</param>
/// <param name="Supplier">From whom.</param>
/// <param name="Placed">When, in words.</param>
/// <param name="Wanted">By when, in words; empty for no day.</param>
/// <param name="Says">How it stands.</param>
/// <param name="IsLate">Whether it is wanted and not all there.</param>
/// <param name="IsOpen">Whether goods are waited for.</param>
/// <param name="IsClosed">Whether it was closed.</param>
/// <param name="Lines">What was ordered.</param>
/// <param name="Total">What it comes to.</param>
/// <param name="Paid">What was paid; empty for nothing yet.</param>
/// <param name="Delivery">What its delivery is still to cost, to be typed over; empty for nothing.</param>
/// <param name="Happened">What happened with it beside goods that came, the first first.</param>
public sealed record PurchaseRow(
    Guid Id,
    string Number,
    string Supplier,
    string Placed,
    string Wanted,
    string Says,
    bool IsLate,
    bool IsOpen,
    bool IsClosed,
    IReadOnlyList<PurchaseLine> Lines,
    string Total,
    string Paid,
    string Delivery,
    IReadOnlyList<OrderHappened> Happened
);

/// <summary>Buying for a job: need against stock and orders.</summary>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Goods">What it takes.</param>
/// <param name="ToOrder">Of whom something is to buy.</param>
/// <param name="Orders">Its orders, the latest first.</param>
/// <param name="Sums">What goods were to cost, and will.</param>
/// <param name="Told">Reservations that were cut, a sentence each, the latest first.</param>
/// <param name="Moves">Goods that moved, the latest first.</param>
/// <param name="Suppliers">Names of suppliers that are known.</param>
/// <param name="DeliverTo">Where goods go, to be typed over.</param>
/// <param name="Today">The firm's day, like 2027-01-31.</param>
public sealed record BuyingView(
    string Currency,
    IReadOnlyList<GoodsRow> Goods,
    IReadOnlyList<ToOrderFrom> ToOrder,
    IReadOnlyList<PurchaseRow> Orders,
    IReadOnlyList<MoneyRow> Sums,
    IReadOnlyList<string> Told,
    IReadOnlyList<MoveRow> Moves,
    IReadOnlyList<string> Suppliers,
    string DeliverTo,
    string Today
)
{
    internal static BuyingView Of(
        AcceptedWork work,
        JobGoods goods,
        IReadOnlyList<StockFact> moves,
        SiteLog log,
        OrderTerms terms,
        FirmDay day,
        Func<Guid, string> nameOf
    )
    {
        var places = work.Money.Contract.Places;
        string Money(decimal amount) => Shown.Money(Rounding.Money(amount, places), places);
        var (estimated, will) = (goods.Estimated, goods.WillCost);
        return new(
            work.Money.Contract.Currency,
            [.. goods.Goods.Select(g => Row(g, goods.Job, places, log))],
            [
                .. goods
                    .Goods.Where(g => g.Rest > 0)
                    .GroupBy(g => g.Agreed.Supplier)
                    .Select(g => From(g.Key, [.. g], places)),
            ],
            [.. goods.Orders.Reverse().Select(o => Row(o, day))],
            [
                new("Goods as estimated", "with deliveries, as the packs are priced", Money(estimated)),
                new("Used so far", "at what was paid, with deliveries", Money(goods.UsedCost)),
                new("Kept for the job", "at what was paid", Money(goods.Goods.Sum(g => g.KeptCost))),
                new(
                    "On order",
                    "as ordered, with deliveries",
                    Money(goods.Goods.Sum(g => g.OnOrderCost) + goods.DeliveryOnOrder)
                ),
                new(
                    "To buy",
                    "at the prices of the estimate, with deliveries",
                    Money(goods.Goods.Sum(g => g.ToBuyCost) + goods.DeliveryToBuy)
                ),
                new("In all, if nothing is left", Differs(estimated, will, places), Money(will)),
            ],
            [
                .. goods
                    .Goods.SelectMany(g =>
                        g.Stock.Cuts.Where(c => c.Job == goods.Job).Select(c => TellOf(c, g, nameOf))
                    )
                    .OrderByDescending(t => t.At)
                    .Select(t => t.Words),
            ],
            MoveRow.Of(moves, day, null, f => WorkOf(f, work.Order)),
            [
                .. terms
                    .Suppliers.Select(s => s.Name)
                    .Concat(goods.Goods.Select(g => g.Agreed.Supplier))
                    .Where(s => s.Length > 0)
                    .Distinct(StringComparer.OrdinalIgnoreCase)
                    .Order(StringComparer.OrdinalIgnoreCase),
            ],
            terms.DeliverTo.Length > 0 ? terms.DeliverTo : work.Head.CustomerAddress,
            day.Written
        );
    }

    /// <summary>On which work goods were used, and where; empty where nobody has said.</summary>
    private static string WorkOf(StockFact fact, WorkOrder order)
    {
        if (fact.Work is not { } work)
            return "";
        var line = order.Lines.FirstOrDefault(l => l.Work == work && (fact.Place is null || l.Place == fact.Place));
        return line is null ? ""
            : fact.Place is null ? line.Name
            : $"{line.Name}, {line.At}";
    }

    /// <summary>By how much it will cost more or less than estimated, in words.</summary>
    private static string Differs(decimal estimated, decimal will, int places)
    {
        var by = Rounding.Money(will, places) - Rounding.Money(estimated, places);
        return by == 0 ? "as estimated" : $"{Shown.Moved(by, places)} against the estimate";
    }

    private static (DateTime At, string Words) TellOf(ReservationCut cut, GoodsStand goods, Func<Guid, string> nameOf)
    {
        var (fact, name) = (cut.By, goods.Agreed.Key.Named(goods.Agreed.Name));
        var much = Much(cut.Quantity, goods.Agreed.Unit);
        var why =
            fact.Move == StockMove.Counted
                ? $"less was there when it was counted on {InvoicesView.InWords(fact.Day)}"
                : $"{nameOf(fact.Job!.Value)} took it on {InvoicesView.InWords(fact.Day)}";
        return (
            fact.At,
            $"{much} {name} is no longer kept for this job: {why}{(fact.Words.Length > 0 ? $" ({fact.Words})" : "")}."
        );
    }

    private static string Much(decimal quantity, string unit) => $"{Shown.Fine(quantity)} {unit}".TrimEnd();

    private static string Some(decimal quantity, string unit) => quantity == 0 ? "" : Much(quantity, unit);

    private static string Typed(decimal quantity) => quantity > 0 ? Rounding.Text(quantity) : "";

    private static GoodsRow Row(GoodsStand goods, Guid job, int places, SiteLog log)
    {
        var (agreed, unit) = (goods.Agreed, goods.Agreed.Unit);
        string Money(decimal amount) => Shown.Money(amount, places);
        var (was, will) = (agreed.Cost, Rounding.Money(goods.WillCost(job), places));
        var packs = string.Join(
            " + ",
            goods
                .ToBuy.Counts.Select((n, i) => (n, i))
                .Where(x => x.n > 0)
                .Select(x => $"{Rounding.Text(x.n)} × {agreed.Packs[x.i].Name}")
        );
        return new(
            agreed.Key,
            agreed.Key.Named(agreed.Name),
            agreed.Supplier,
            unit,
            Some(agreed.Need, unit),
            Some(goods.Used, unit),
            agreed.ForDone(log) is > 0 and var done ? $"{Much(done, unit)} for what is done" : "",
            Some(goods.Reserved, unit),
            Some(goods.OnOrder, unit),
            Some(goods.Rest, unit),
            packs.Length > 0 ? $"{packs}, {Money(goods.ToBuyCost)}" : "",
            string.Join(
                " · ",
                new[]
                {
                    goods.Stock.OnHand < 0 ? $"{Much(-goods.Stock.OnHand, unit)} short" : "",
                    goods.Stock.Free > 0 ? $"{Much(goods.Stock.Free, unit)} free" : "",
                    goods.Elsewhere > 0 ? $"{Much(goods.Elsewhere, unit)} for other jobs" : "",
                }.Where(s => s.Length > 0)
            ),
            Typed(Math.Min(goods.Stock.Free, goods.Rest)),
            Typed(goods.Reserved),
            Typed(goods.Used),
            Money(was),
            Money(will),
            will == was ? "" : Shown.Moved(will - was, places),
            Shares(goods)
        );
    }

    private static IReadOnlyList<string> Shares(GoodsStand goods)
    {
        decimal[] parts = [goods.Used, goods.Reserved, goods.OnOrder, goods.Rest];
        var all = Math.Max(goods.Agreed.Need, parts.Sum());
        return [.. parts.Select(p => Rounding.Text(all <= 0 ? 0 : decimal.Round(p / all * 100m, 2)))];
    }

    private static ToOrderFrom From(string supplier, GoodsStand[] goods, int places)
    {
        var delivery = goods.Max(g => g.Agreed.Delivery);
        return new(
            supplier,
            [.. goods.SelectMany(g => GoodsChoice.PacksOf(g.Agreed, g.ToBuy.Counts))],
            delivery == 0 ? "" : Rounding.Text(delivery),
            Shown.Money(goods.Sum(g => g.ToBuyCost) + delivery, places)
        );
    }

    private static PurchaseRow Row(OrderStands stands, FirmDay day)
    {
        var (order, today, moment) = (stands.Order, day.Today, day.Moments());
        string Money(decimal amount) => Shown.Money(amount, order.Places);
        var paid = stands.PaidForGoods + stands.PaidForDelivery;
        var late = stands.IsOpen && order.Wanted < today;
        return new(
            order.Id,
            order.Number,
            order.Supplier.Name,
            InvoicesView.InWords(order.Placed),
            order.Wanted is { } by ? InvoicesView.InWords(by) : "",
            stands.Closed is { } closed ? $"closed: {closed.Words}"
                : stands.IsComplete ? "all came"
                : late ? $"late {Counted.Of(today.DayNumber - order.Wanted!.Value.DayNumber, "day")}"
                : stands.Came.IsEmpty ? "on order"
                : "came in part",
            late,
            stands.IsOpen,
            stands.Closed is not null,
            [.. order.Lines.Select((line, i) => Line(stands, line, i))],
            Money(order.Total),
            stands.Came.IsEmpty && paid == 0 ? "" : Money(paid),
            Typed(stands.DeliveryToCome),
            [
                .. stands.Facts.Select(f => new OrderHappened(
                    f.Id,
                    f.Event switch
                    {
                        OrderEvent.Closed => $"closed {moment(f.At)}",
                        OrderEvent.Delivery => $"{Money(f.Amount)} paid for delivery, {moment(f.At)}",
                        _ => $"{f.Words}, {moment(f.At)}",
                    },
                    f.Event != OrderEvent.Mailed
                )),
            ]
        );
    }

    private static PurchaseLine Line(OrderStands stands, OrderLine line, int at)
    {
        var places = stands.Order.Places;
        var came = Rounding.ForCompare(stands.CameOf(at) / line.Size);
        return new(
            at,
            $"{line.Goods.Named(line.Name)}, {line.Pack}",
            $"{Shown.Typed(line.Count)} at {(decimal.Round(line.Price, places) == line.Price ? Shown.Money(line.Price, places) : Shown.Typed(line.Price))}",
            Shown.Money(line.Amount, places),
            came == 0 ? ""
                : came > line.Count ? $"{Shown.Fine(came)} came, {Shown.Fine(came - line.Count)} more than ordered"
                : came == line.Count ? "all came"
                : $"{Shown.Fine(came)} of {Shown.Typed(line.Count)} came",
            Typed(Rounding.Kept(stands.OnOrderOf(at) / line.Size))
        );
    }
}

/// <summary>What an order would come to, before it is placed.</summary>
/// <param name="Amounts">What its lines come to, in the order in which they were asked for, without those of nothing.</param>
/// <param name="Total">In all.</param>
/// <param name="Says">What it leaves to buy, or brings beyond the need; a sentence each.</param>
public sealed record PurchaseDraft(IReadOnlyList<MoneyRow> Amounts, string Total, IReadOnlyList<string> Says)
{
    internal static PurchaseDraft Of(PurchaseOrder order, JobGoods goods)
    {
        string Money(decimal amount) => Shown.Money(amount, order.Places);
        return new(
            [
                .. order.Lines.Select(l => new MoneyRow(
                    l.Goods.Named(l.Name),
                    $"{Shown.Typed(l.Count)} × {l.Pack}",
                    Money(l.Amount)
                )),
                .. order.Delivery == 0 ? (MoneyRow[])[] : [new("Delivery", "", Money(order.Delivery))],
            ],
            Money(order.Total),
            [
                .. order
                    .Lines.GroupBy(l => l.Goods)
                    .Select(g =>
                    {
                        var rest = goods.Goods.FirstOrDefault(s => s.Agreed.Key == g.Key)?.Rest ?? 0;
                        var over = g.Sum(l => l.Quantity) - rest;
                        var much = $"{Shown.Fine(Math.Abs(over))} {g.Key.Unit}".TrimEnd();
                        return over < 0 ? $"{g.First().Name}: {much} is left to buy."
                            : over > 0 ? $"{g.First().Name}: {much} more than is still needed."
                            : "";
                    })
                    .Where(s => s.Length > 0),
            ]
        );
    }
}

/// <summary>A mail that would bring an order to its supplier, or an invoice to the customer, to be written on.</summary>
/// <param name="From">From which address; empty where the firm has not said.</param>
/// <param name="To">Their address; empty where none is known.</param>
/// <param name="Subject">Its subject.</param>
/// <param name="Words">Its words.</param>
/// <param name="ToServer">Whether the firm has a mail server that takes mail by itself.</param>
public sealed record PaperMessage(string From, string To, string Subject, string Words, bool ToServer);
