using System.Collections.Immutable;
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
    public override Sum SumOf(CompiledItem.Part part) => SumOf((Material)part.Entry, part.Colour);

    private Sum SumOf(Material material, string colour)
    {
        var key = (material.Id, colour);
        if (!pools.TryGetValue(key, out var pool))
            pools.Add(key, pool = (material, colour, new()));
        return pool.Need;
    }

    /// <summary>How goods are bought for needs; null for by themselves.</summary>
    public Func<IReadOnlyList<(Material, string, Val)>, ImmutableArray<Purchase>>? Buy { get; set; }

    private (ImmutableArray<Mixed> Mixed, IReadOnlyList<(Material, string, Val)> Needs)? needed;

    /// <summary>Goods that are needed, what is mixed on the spot by its parts.</summary>
    public IReadOnlyList<(Material Material, string Colour, Val Need)> Needs(
        IReadOnlyDictionary<Guid, BookEntry> book,
        Trace trace
    ) => (needed ??= Needed(book, trace)).Needs;

    /// <summary>What is mixed on the spot is mixed once for the job, and its parts are needed beside what else needs them.</summary>
    private (ImmutableArray<Mixed>, IReadOnlyList<(Material, string, Val)>) Needed(
        IReadOnlyDictionary<Guid, BookEntry> book,
        Trace trace
    )
    {
        var mixed = ImmutableArray.CreateBuilder<Mixed>();
        foreach (var pool in pools.Values.Where(p => p.Material.Mix is not null).ToArray())
        {
            var of = Mixing.Of(pool.Material, pool.Colour, pool.Need.Total, book, trace);
            mixed.Add(of);
            foreach (var part in of.Parts)
                if (part.Material is { } material)
                    SumOf(material, part.Colour).Add(part.Amount);
        }
        return (
            mixed.ToImmutable(),
            [.. pools.Values.Where(p => p.Material.Mix is null).Select(p => (p.Material, p.Colour, p.Need.Total))]
        );
    }

    /// <inheritdoc/>
    public override void End(CostsDraft costs, Trace trace)
    {
        var needs = Needs(costs.Book, trace);
        costs.Mixed = needed!.Value.Mixed;
        costs.Buying = Buy is null ? Buying.Of(needs, trace) : Buy(needs);
    }

    /// <inheritdoc/>
    public override void Share(LineShares lines)
    {
        var needs = lines.Costs.Buying.ToDictionary(
            b => (b.Material.Id, b.Colour),
            _ => (At: new List<int>(), Need: new List<Val>(), Once: new List<CompiledItem>())
        );
        var mixed = lines.Costs.Mixed.ToDictionary(m => (m.Material.Id, m.Colour));
        foreach (var (line, part, amount) in lines.Of(ComponentKind.Material))
        foreach (var (bought, much) in Bought(part, amount, mixed))
        {
            var (at, need, _) = needs[bought];
            at.Add(line);
            need.Add(much);
        }
        // Needs that come once for a work item stand after those of the lines.
        foreach (var (item, part, amount) in lines.Once(ComponentKind.Material))
        foreach (var (bought, much) in Bought(part, amount, mixed))
        {
            var (_, need, once) = needs[bought];
            once.Add(item);
            need.Add(much);
        }
        for (var b = 0; b < lines.Costs.Buying.Length; b++)
        {
            var buy = lines.Costs.Buying[b];
            var (at, need, once) = needs[(buy.Material.Id, buy.Colour)];
            if (need.Count == 0)
                continue;
            var shares = Shared(buy, b + 1, need, lines);
            for (var i = 0; i < at.Count; i++)
                lines.AddGoods(at[i], shares[i], lines.Rules.IsFree(buy));
            for (var i = 0; i < once.Count; i++)
                lines.AddGoodsByHours(once[i], shares[at.Count + i], lines.Rules.IsFree(buy));
        }
    }

    /// <summary>What is bought for an amount: the goods themselves, or of each part of a mix as much of it as the amount is of all that is mixed.</summary>
    private static IEnumerable<((Guid, string) Bought, Val Much)> Bought(
        CompiledItem.Part part,
        Val amount,
        Dictionary<(Guid, string), Mixed> mixed
    )
    {
        if (!mixed.TryGetValue((part.Entry.Id, part.Colour), out var mix))
            yield return ((part.Entry.Id, part.Colour), amount);
        else
            foreach (var of in mix.Parts)
                if (of.Material is { } material)
                    yield return (
                        (material.Id, of.Colour),
                        mix.Quantity.V == 0 ? 0m : amount * of.Amount / mix.Quantity
                    );
    }

    /// <summary>What packs cost is whole cents, and so are its parts. What the need costs is not: each line bears its own, as exact as the sum.</summary>
    private static Val[] Shared(Purchase buy, int number, List<Val> need, LineShares lines)
    {
        var cost = lines.Rules.Goods(buy);
        if (lines.Rules.By == MaterialCost.Need)
        {
            var all = Sum.Of(need);
            return [.. need.Select(one => all.V == 0 ? cost / need.Count : cost * one / all)];
        }
        var colour = buy.Colour.Length == 0 ? "" : ", " + buy.Colour;
        return Shares.Of(
            cost.Money(lines.Rules.Places),
            [.. need],
            lines.Trace.On ? $"need of {buy.Material.Name}{colour} (purchase {number})" : "",
            lines.Rules.Places,
            lines.Trace
        );
    }
}
