using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>Goods that were ordered, kept or used for a job and that it does not need any more once a change is accepted.</summary>
/// <param name="Key">By which stock counts them (<see cref="GoodsKey.Text"/>).</param>
/// <param name="Kept">They, at what they cost us.</param>
public sealed record LeftGoods(string Key, KeptGoods Kept)
{
    /// <summary>Those of a change.</summary>
    /// <param name="then">What the job would take with it.</param>
    /// <param name="now">How its goods stand.</param>
    public static ImmutableArray<LeftGoods> Of(ImmutableArray<AgreedGoods> then, JobGoods now)
    {
        var needed = then.GroupBy(g => g.Key).ToDictionary(g => g.Key, g => g.Sum(x => x.Need));
        return
        [
            .. now
                .Goods.Select(g => (Goods: g, Left: LeftOf(g, needed.GetValueOrDefault(g.Agreed.Key))))
                .Where(x => x.Left > 0)
                .Select(x => new LeftGoods(
                    x.Goods.Agreed.Key.Text,
                    new(
                        x.Goods.Agreed.Key.Named(x.Goods.Agreed.Name),
                        $"{Shown.Amount(x.Left, x.Goods.Agreed.Unit)} {x.Goods.Agreed.Unit}".TrimEnd(),
                        Rounding.Kept(CostOf(x.Goods, now.Job) * x.Left)
                    )
                )),
        ];
    }

    /// <summary>What is there beyond the need after the change, and was needed before it: what was bought too much anyway is not the change's.</summary>
    private static decimal LeftOf(GoodsStand goods, decimal needed)
    {
        var there = goods.Used + goods.Reserved + goods.OnOrder;
        return Rounding.Kept(Math.Min(there, Math.Max(goods.Agreed.Need, needed)) - needed);
    }

    /// <summary>What one of it costs us: what was paid, and what is on order as it was ordered.</summary>
    private static decimal CostOf(GoodsStand goods, Guid job)
    {
        var there = goods.Used + goods.Reserved + goods.OnOrder;
        return there == 0 ? 0 : (goods.Stock.CostOf(job) + goods.KeptCost + goods.OnOrderCost) / there;
    }
}
