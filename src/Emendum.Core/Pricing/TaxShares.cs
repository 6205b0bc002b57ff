using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Pricing;

/// <summary>Which taxes fall on what. A reckoned price is shared to tax categories first and then to lines; a typed or unit price within its line (pricing, Taxes).</summary>
internal static class TaxShares
{
    /// <summary>Why no tax is charged on what a line is, whatever it costs; null where it is.</summary>
    private static string? Exempt(Line line) => line.OfItem.Entry.TaxExempt;

    /// <summary>Amounts added up by tax category, in the order in which those are met; what is nothing opens none.</summary>
    private sealed class ByTax
    {
        private readonly OrderedDictionary<TaxCategory, Sum> sums = [];

        public void Add(TaxCategory tax, Val amount)
        {
            if (amount.V == 0)
                return;
            if (!sums.TryGetValue(tax, out var sum))
                sums.Add(tax, sum = new());
            sum.Add(amount);
        }

        public int Count => sums.Count;
        public TaxCategory First => sums.GetAt(0).Key;
        public IEnumerable<TaxCategory> Taxes => sums.Keys;
        public Val[] Amounts => [.. sums.Values.Select(s => s.Total)];
    }

    private static string FreeGoods(PriceDraft draft) =>
        draft
            .Costs.Buying.Where(b => draft.Rules.IsFree(b) && b.Material.TaxExempt is not null)
            .Select(b => b.Material.TaxExempt!)
            .FirstOrDefault("goods without tax, or bought with it");

    /// <summary>A reckoned price by tax category, by what its classes of cost come to with what is on them.</summary>
    public static ImmutableArray<Portion> Reckoned(PriceDraft draft, Pool pool, Val price, ByClass<Val> marked)
    {
        var weights = new ByTax();
        foreach (var (of, tax, cost, all) in Pieces(draft, pool))
        {
            var part = marked[of];
            if (part.V == 0)
                continue;
            weights.Add(tax, ReferenceEquals(cost.How, all.How) && cost.V == all.V ? part : part * cost / all);
        }
        if (weights.Count == 0)
            return price.V == 0
                ? []
                : [new(PortionKind.Built, pool.Section?.Id, draft.Categories.Of(TaxOn.Labour), price)];
        if (weights.Count == 1)
            return [new(PortionKind.Built, pool.Section?.Id, weights.First, price)];
        var shares = Shares.Of(
            price,
            weights.Amounts,
            (draft.Trace.On ? pool.Section?.Name + " " : "") + "price by tax category",
            draft.Places,
            draft.Trace
        );
        return [.. weights.Taxes.Select((tax, i) => new Portion(PortionKind.Built, pool.Section?.Id, tax, shares[i]))];
    }

    /// <summary>The costs of a build-up by class and tax category, each with all of its class.</summary>
    private static IEnumerable<(CostClass Of, TaxCategory Tax, Val Cost, Val All)> Pieces(PriceDraft draft, Pool pool)
    {
        var lines = draft.Reckoned.Lines;
        var byLines =
            pool.Section is not null || draft.Pools.Length > 1 || pool.Lines.Any(n => Exempt(lines[n]) is not null);
        foreach (var (of, all) in pool.Costs)
        {
            if (all.V == 0)
                continue;
            var usual = draft.Categories.Of(Tax.Of(of));
            Val left = all;
            foreach (
                var exempt in byLines
                    ? pool.Lines.Where(n => Exempt(lines[n]) is not null).GroupBy(n => Exempt(lines[n])!)
                    : []
            )
            {
                var cost = Sum.Of(exempt.Select(n => draft.LineCosts.Lines[n][of]));
                if (cost.V == 0)
                    continue;
                yield return (of, draft.Categories.Of(Tax.Of(of), exempt.Key), cost, all);
                left -= cost;
            }
            if (of == CostClass.Material)
            {
                var free = Sum.Of(
                    byLines
                        ? pool.Lines.Where(n => Exempt(lines[n]) is null).Select(n => draft.LineCosts.Free[n])
                        : draft.Costs.Buying.Where(draft.Rules.IsFree).Select(draft.Rules.Goods)
                );
                if (free.V != 0)
                {
                    yield return (of, draft.Categories.Of(TaxOn.Material, FreeGoods(draft)), free, all);
                    left -= free;
                }
            }
            if (left.V != 0)
                yield return (of, usual, left, all);
        }
    }

    /// <summary>What each line of a build-up counts for within one tax category.</summary>
    public static LineWeights Lines(PriceDraft draft, Pool pool, TaxCategory category)
    {
        var (by, free) = pool.Weights(draft);
        var lines = draft.Reckoned.Lines;
        var ofFree = free.Any(f => f.V != 0) ? draft.Categories.Of(TaxOn.Material, FreeGoods(draft)) : null;
        var (weights, whole) = (new Val[pool.Lines.Length], new Val[pool.Lines.Length]);
        for (var i = 0; i < weights.Length; i++)
        {
            var exempt = Exempt(lines[pool.Lines[i]]);
            var (sum, all) = (new Sum(), new Sum());
            foreach (var (of, weight) in by[i])
            {
                if (weight.V == 0)
                    continue;
                all.Add(weight);
                if (exempt is null && of == CostClass.Material && free[i].V != 0)
                {
                    if (ReferenceEquals(ofFree, category))
                        sum.Add(free[i]);
                    if (ReferenceEquals(draft.Categories.Of(TaxOn.Material), category))
                        sum.Add(weight - free[i]);
                }
                else if (ReferenceEquals(draft.Categories.Of(Tax.Of(of), exempt), category))
                    sum.Add(weight);
            }
            (weights[i], whole[i]) = (sum.Total, all.Total);
        }
        // What only the job as a whole brings, as the way to the site, falls on all lines alike.
        return new(pool.Lines, weights.Any(w => w.V != 0) ? weights : whole);
    }

    /// <summary>The price of one line by tax category, by its own cost of each class.</summary>
    public static IEnumerable<(TaxCategory Tax, Val Amount)> OfLine(PriceDraft draft, int line, Val price)
    {
        var of = draft.Reckoned.Lines[line];
        var exempt = Exempt(of);
        var sums = new ByTax();
        foreach (var (at, cost) in draft.LineCosts.Lines[line])
        {
            var free = exempt is null && at == CostClass.Material ? draft.LineCosts.Free[line] : 0m;
            if (free.V != 0)
                sums.Add(draft.Categories.Of(TaxOn.Material, FreeGoods(draft)), free);
            sums.Add(draft.Categories.Of(Tax.Of(at), exempt), free.V == 0 ? cost : cost - free);
        }
        if (sums.Count < 2)
            return [(sums.Count == 0 ? draft.Categories.Of(TaxOn.PriceOnly, exempt) : sums.First, price)];
        var shares = Shares.Of(
            price,
            sums.Amounts,
            draft.Trace.On
                ? $"cost by tax category of {of.OfItem.Item.Name}, {of.Measures.Place.Name} (line {line + 1})"
                : "",
            draft.Places,
            draft.Trace
        );
        return [.. sums.Taxes.Select((tax, i) => (tax, shares[i]))];
    }

    /// <summary>Lines with prices of their own, as parts of the price of one kind.</summary>
    public static ImmutableArray<Portion> Own(
        PriceDraft draft,
        PortionKind kind,
        Guid? section,
        IEnumerable<(int Line, TaxCategory Tax, Val Amount)> lines
    ) =>
        [
            .. lines
                .GroupBy(l => l.Tax.Number)
                .Select(tax => new Portion(kind, section, tax.First().Tax, Sum.Of(tax.Select(l => l.Amount)))
                {
                    Lines = new([.. tax.Select(l => l.Line)], [.. tax.Select(l => l.Amount)]),
                }),
        ];
}
