using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>Goods: needs are pooled by material and colour, bought once for the job, and what was bought is shared by need.</summary>
internal sealed class MaterialCosts : KindCosts
{
    private readonly OrderedDictionary<(Guid, string), (Material Material, string Colour, Sum Need)> pools = [];

    /// <inheritdoc/>
    public override Sum SumOf(CompiledItem.Part part)
    {
        var key = (part.Entry.Id, part.Colour);
        if (!pools.TryGetValue(key, out var pool))
            pools.Add(key, pool = ((Material)part.Entry, part.Colour, new()));
        return pool.Need;
    }

    /// <inheritdoc/>
    public override void End(CostsDraft costs, Trace trace) =>
        costs.Buying = Buying.Of([.. pools.Values.Select(p => (p.Material, p.Colour, p.Need.Total))], trace);

    /// <inheritdoc/>
    public override void Share(LineShares lines)
    {
        var needs = lines.Costs.Buying.ToDictionary(
            b => (b.Material.Id, b.Colour),
            _ => (At: new List<int>(), Need: new List<Val>(), Once: new List<CompiledItem>())
        );
        foreach (var (line, part, amount) in lines.Of(ComponentKind.Material))
        {
            var (at, need, _) = needs[(part.Entry.Id, part.Colour)];
            at.Add(line);
            need.Add(amount);
        }
        // Needs that come once for a work item stand after those of the lines.
        foreach (var (item, part, amount) in lines.Once(ComponentKind.Material))
        {
            var (_, need, once) = needs[(part.Entry.Id, part.Colour)];
            once.Add(item);
            need.Add(amount);
        }
        for (var b = 0; b < lines.Costs.Buying.Length; b++)
        {
            var buy = lines.Costs.Buying[b];
            var (at, need, once) = needs[(buy.Material.Id, buy.Colour)];
            if (need.Count == 0)
                continue;
            var shares = Shared(buy, b + 1, need, lines);
            for (var i = 0; i < at.Count; i++)
                lines.Add(at[i], CostClass.Material, shares[i]);
            for (var i = 0; i < once.Count; i++)
                lines.AddByHours(once[i], CostClass.Material, shares[at.Count + i]);
        }
    }

    /// <summary>What packs cost is whole cents, and so are its parts. What the need costs is not: each line bears its own, as exact as the sum.</summary>
    private static Val[] Shared(Purchase buy, int number, List<Val> need, LineShares lines)
    {
        var cost = buy.Cost(lines.GoodsAt);
        if (lines.GoodsAt == MaterialCost.Need)
        {
            var all = Sum.Of(need);
            return [.. need.Select(one => all.V == 0 ? cost / need.Count : cost * one / all)];
        }
        var colour = buy.Colour.Length == 0 ? "" : ", " + buy.Colour;
        return Shares.Of(
            cost.Money(),
            [.. need],
            lines.Trace.On ? $"need of {buy.Material.Name}{colour} (purchase {number})" : "",
            lines.Trace
        );
    }
}
