using System.Collections.Immutable;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Delivery;

/// <summary>An order of a job with what came of it.</summary>
/// <param name="Order">As it was placed.</param>
/// <param name="Came">Goods that came for it and stand, in the order in which that was written.</param>
/// <param name="Facts">What else happened with it.</param>
public sealed record OrderStands(PurchaseOrder Order, ImmutableArray<StockFact> Came, ImmutableArray<OrderFact> Facts)
{
    /// <summary>That no more is waited for; null while something is.</summary>
    public OrderFact? Closed => Facts.FirstOrDefault(f => f.Event == OrderEvent.Closed);

    /// <summary>What came of a line, in the unit of use.</summary>
    public decimal CameOf(int line) => Came.Where(c => c.Line == line).Sum(c => c.Quantity);

    /// <summary>What is still on order of a line, in the unit of use: nothing of what was closed short (rule S4).</summary>
    public decimal OnOrderOf(int line) =>
        Closed is not null ? 0 : Math.Max(0, Order.Lines[line].Quantity - CameOf(line));

    /// <summary>Whether all of it came, or more.</summary>
    public bool IsComplete => Enumerable.Range(0, Order.Lines.Length).All(i => CameOf(i) >= Order.Lines[i].Quantity);

    /// <summary>Whether goods are still waited for.</summary>
    public bool IsOpen => Closed is null && !IsComplete;

    /// <summary>What the goods that are still on order of a line cost, as they were ordered.</summary>
    public decimal OnOrderCostOf(int line) =>
        OnOrderOf(line) is > 0 and var rest ? Order.Lines[line].Amount * rest / Order.Lines[line].Quantity : 0;

    /// <summary>What was paid for its goods.</summary>
    public decimal PaidForGoods => Came.Sum(c => c.Paid ?? 0);

    /// <summary>What was paid for its deliveries.</summary>
    public decimal PaidForDelivery => Facts.Where(f => f.Event == OrderEvent.Delivery).Sum(f => f.Amount);

    /// <summary>What its delivery is still to cost: as ordered, until one was paid or no more comes.</summary>
    public decimal DeliveryToCome => IsOpen && Facts.All(f => f.Event != OrderEvent.Delivery) ? Order.Delivery : 0;
}

/// <summary>Goods of a job against what is in stock and on order.</summary>
/// <param name="Agreed">What was agreed; with a need of 0 where nothing was.</param>
/// <param name="Stock">What is in stock, for all jobs.</param>
/// <param name="Used">What this job has used, less what it gave back.</param>
/// <param name="Reserved">What is kept for it.</param>
/// <param name="OnOrder">What is on order for it.</param>
/// <param name="OnOrderCost">What that costs as ordered.</param>
public sealed record GoodsStand(
    AgreedGoods Agreed,
    StockItem Stock,
    decimal Used,
    decimal Reserved,
    decimal OnOrder,
    decimal OnOrderCost
)
{
    /// <summary>What is still to buy, in the unit of use, before packs: need less used, less reserved, less on order for this job (rule S2).</summary>
    public decimal Rest => Math.Max(0, Rounding.Kept(Agreed.Need - Used - Reserved - OnOrder));

    /// <summary>What packs must cover: a least order counts for what is ordered now.</summary>
    public decimal Required => Rest == 0 ? 0 : Math.Max(Rest, Agreed.Minimum);

    /// <summary>Kept for other jobs.</summary>
    public decimal Elsewhere => Stock.Reserved - Reserved;

    /// <summary>What is kept for it is worth, at what was paid.</summary>
    public decimal KeptCost => Reserved * (Stock.Average ?? 0);

    /// <summary>Whether nobody has ordered, kept or used any of it.</summary>
    public bool IsUntouched => Used == 0 && Reserved == 0 && OnOrder == 0;

    /// <summary>What it will count for in the job's cost, without deliveries. Where goods count by need, what is left of packs goes back into stock and does not.</summary>
    /// <param name="job">The job.</param>
    /// <param name="byNeed">Whether they count by need.</param>
    public decimal Running(Guid job, bool byNeed)
    {
        var all = Used + Reserved + OnOrder + ToBuy.Counts.Select((n, i) => n * Agreed.Packs[i].Size).Sum();
        var cost = WillCost(job);
        var counts =
            byNeed && Agreed.NeedCounted > 0 && all > Agreed.NeedCounted ? cost * Agreed.NeedCounted / all : cost;
        return counts * Agreed.CountsFor;
    }

    /// <summary>What it counts for where nothing more is bought: what was used, and what is kept for the job still; as estimated where nobody has written anything of it.</summary>
    /// <param name="job">The job.</param>
    public decimal Ended(Guid job) => IsUntouched ? Agreed.Counted : (Stock.CostOf(job) + KeptCost) * Agreed.CountsFor;

    private PackChoice? chosen;

    /// <summary>The packs for that, chosen anew.</summary>
    public PackChoice ToBuy => chosen ??= CheapestPacks.Cover(Required, Agreed.Packs);

    /// <summary>What they cost.</summary>
    public decimal ToBuyCost => ToBuy.Counts.Select((n, i) => n * Agreed.Packs[i].Price).Sum();

    /// <summary>What it has cost this job, what is kept for it, what is on order and what is to buy: what it will cost in all, if nothing is left.</summary>
    /// <param name="job">The job.</param>
    public decimal WillCost(Guid job) => Stock.CostOf(job) + KeptCost + OnOrderCost + ToBuyCost;
}

/// <summary>What a job needs against stock and orders.</summary>
/// <param name="Job">The job.</param>
/// <param name="Goods">Goods that were agreed, in their order, then others that were ordered or used.</param>
/// <param name="Orders">Its orders, in the order in which they were placed.</param>
public sealed record JobGoods(Guid Job, ImmutableArray<GoodsStand> Goods, ImmutableArray<OrderStands> Orders)
{
    /// <summary>How it stands.</summary>
    /// <param name="job">The job.</param>
    /// <param name="agreed">What was agreed.</param>
    /// <param name="orders">Its orders.</param>
    /// <param name="stock">Everything in stock that the job takes, or has to do with.</param>
    public static JobGoods Of(
        Guid job,
        ImmutableArray<AgreedGoods> agreed,
        ImmutableArray<OrderStands> orders,
        IEnumerable<StockItem> stock
    )
    {
        var items = stock.ToDictionary(s => s.Goods);
        var lines = orders
            .SelectMany(o => o.Order.Lines.Select((line, i) => (Order: o, Line: line, At: i)))
            .ToLookup(x => x.Line.Goods);
        StockItem Item(GoodsKey key) => items.GetValueOrDefault(key) ?? StockItem.Of(key, []);
        GoodsStand Stand(AgreedGoods goods)
        {
            var (item, ordered) = (Item(goods.Key), lines[goods.Key]);
            return new(
                goods,
                item,
                item.UsedBy(job),
                item.ReservedFor(job),
                ordered.Sum(x => x.Order.OnOrderOf(x.At)),
                Rounding.Figure(ordered.Sum(x => x.Order.OnOrderCostOf(x.At)))
            );
        }
        // One row for each kind of goods, also where the estimate has two that differ in capitals alone.
        var asked = agreed
            .GroupBy(g => g.Key)
            .Select(g =>
                g.First() with
                {
                    Need = g.Sum(x => x.Need),
                    Cost = g.Sum(x => x.Cost),
                    DeliveryCost = g.Sum(x => x.DeliveryCost),
                    NeedCounted = g.Sum(x => x.NeedCounted),
                    Counted = g.Sum(x => x.Counted),
                    CountedAsPriced = g.Sum(x => x.CountedAsPriced),
                    Buys = string.Join(" + ", g.Select(x => x.Buys)),
                    Lines = [.. g.SelectMany(x => x.Lines)],
                }
            )
            .ToList();
        var known = asked.Select(g => g.Key).ToHashSet();
        var others = lines
            .Where(g => !known.Contains(g.Key))
            .Select(g => Unplanned(g.Key, g.First().Line.Name, g.First().Order.Order.Supplier.Name))
            .Concat(
                items
                    .Values.Where(i => !known.Contains(i.Goods) && !lines.Contains(i.Goods))
                    .Where(i => i.UsedBy(job) != 0 || i.ReservedFor(job) != 0)
                    .Select(i => Unplanned(i.Goods, i.Name, ""))
            );
        return new(job, [.. asked.Concat(others).Select(Stand)], orders);
    }

    private static AgreedGoods Unplanned(GoodsKey key, string name, string supplier) =>
        new(key.Material, name, key.Colour, key.Unit, 0, 0, [], supplier, "", 0, "", 0, 0);

    /// <summary>What goods and their deliveries were to cost.</summary>
    public decimal Estimated => Goods.Sum(g => g.Agreed.Cost + g.Agreed.DeliveryCost);

    /// <summary>What the goods that were used have cost, with what was paid for deliveries.</summary>
    public decimal UsedCost => Goods.Sum(g => g.Stock.CostOf(Job)) + PaidForDelivery;

    /// <summary>What was paid for deliveries.</summary>
    public decimal PaidForDelivery => Orders.Sum(o => o.PaidForDelivery);

    /// <summary>What deliveries of open orders still cost.</summary>
    public decimal DeliveryOnOrder => Orders.Sum(o => o.DeliveryToCome);

    /// <summary>What deliveries of what is to buy cost, one for each supplier.</summary>
    public decimal DeliveryToBuy =>
        Goods
            .Where(g => g.Rest > 0)
            .GroupBy(g => g.Agreed.Supplier.Length == 0 ? g.Agreed.Key.Text : g.Agreed.Supplier)
            .Sum(g => g.Max(x => x.Agreed.Delivery));

    /// <summary>What deliveries still cost.</summary>
    public decimal DeliveryToCome => DeliveryOnOrder + DeliveryToBuy;

    /// <summary>What goods and deliveries will cost in all, if nothing of it is left.</summary>
    public decimal WillCost => Goods.Sum(g => g.WillCost(Job)) + PaidForDelivery + DeliveryToCome;

    /// <summary>What goods will cost beyond what counted for them in the estimate, deliveries included.</summary>
    /// <param name="byNeed">Whether goods count by need.</param>
    public decimal RunningMore(bool byNeed) =>
        Goods.Sum(g => g.Running(Job, byNeed) - g.Agreed.Counted)
        + (PaidForDelivery + DeliveryToCome) * DeliveryCountsFor;

    /// <summary>What goods have cost beyond that, where nothing more is bought.</summary>
    public decimal EndedMore => Goods.Sum(g => g.Ended(Job) - g.Agreed.Counted) + PaidForDelivery * DeliveryCountsFor;

    /// <summary>What one of money for deliveries counts for: as those that were estimated.</summary>
    private decimal DeliveryCountsFor =>
        Goods.Sum(g => g.Agreed.DeliveryCost) is > 0 and var all
            ? Goods.Sum(g => g.Agreed.DeliveryCost * g.Agreed.CountsFor) / all
            : 1;

    /// <summary>How many suppliers have something to sell for it yet, each an order to place.</summary>
    public int ToPlace => Goods.Where(g => g.Rest > 0).Select(g => g.Agreed.Supplier).Distinct().Count();
}
