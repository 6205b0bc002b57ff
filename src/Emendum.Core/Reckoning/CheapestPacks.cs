using System.Collections.Immutable;
using System.Numerics;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Reckoning;

/// <summary>Packs that cover a need.</summary>
/// <param name="Counts">How many of each pack, in list order.</param>
/// <param name="Above">Money that they may cost above the least possible, at most; zero where they are the cheapest.</param>
/// <param name="Steps">How many comparisons it took to find them: what tests bound instead of time.</param>
public sealed record PackChoice(decimal[] Counts, decimal Above, long Steps);

/// <summary>The packs that cover a need for the least money; ties: less left over, fewer packs, list order (estimating model §5).</summary>
/// <remarks>
/// Sizes are whole numbers of their greatest common divisor, the grain. What all amounts up to the need cost is found by adding packs of one kind after the other; where the
/// need is many grains, only what is left when it is divided by the size of the cheapest pack per unit matters, and the rest is that pack: a walk over these remainders
/// finds the same, as long as what it takes of the other packs does not exceed the need. Where neither fits into <see cref="MostSteps"/> the grain is made coarser: with
/// sizes rounded down the packs still cover the need, with sizes rounded up they cost no more than the least possible; what lies between is said.
/// </remarks>
public static class CheapestPacks
{
    /// <summary>Most comparisons for one grain; up to here the choice is exact.</summary>
    public const long MostSteps = 4_000_000;

    /// <summary>Largest sum that is reckoned with in the walk, well within 128 bits.</summary>
    private const double MostWeight = 1e36;

    /// <summary>How many of each pack, in list order. Nothing is needed: none.</summary>
    public static PackChoice Cover(decimal need, ImmutableArray<Pack> packs)
    {
        var required = Rounding.ForCompare(need);
        if (required <= 0)
            return new(new decimal[packs.Length], 0, 0);
        var goods = Useful(packs);
        if (goods.Length == 1)
            return new(Counted(packs.Length, goods, [(long)Rounding.Ceiling(required / goods[0].Size)]), 0, 1);
        var grain = goods.Aggregate(0m, (divisor, pack) => CommonDivisor(divisor, pack.Size));
        var steps = 0L;
        if (Solve(required, goods, grain, decimal.Floor, decimal.Ceiling, ref steps) is { } exact)
            return new(Counted(packs.Length, goods, exact), 0, steps);
        // The coarser the grain, the less work; there is always one at which it can be done.
        for (var coarse = grain * 4; ; coarse *= 4)
        {
            if (Solve(required, goods, coarse, decimal.Floor, decimal.Ceiling, ref steps) is not { } covering)
                continue;
            var without = Spared(required, goods, covering);
            var least = Solve(required, goods, coarse, decimal.Ceiling, decimal.Floor, ref steps) is { } below
                ? Cost(goods, below)
                : 0m;
            least = decimal.Max(least, required * goods.Min(g => g.Price / g.Size));
            return new(
                Counted(packs.Length, goods, without),
                Rounding.Figure(decimal.Max(0, Cost(goods, without) - least)),
                steps
            );
        }
    }

    /// <summary>A pack that may be taken, with its place in the list.</summary>
    private readonly record struct Good(int At, decimal Size, decimal Price);

    /// <summary>Of packs of one size the cheapest, and of those the first.</summary>
    private static Good[] Useful(ImmutableArray<Pack> packs) =>
        [
            .. packs
                .Select((p, i) => new Good(i, p.Size, p.Price))
                .GroupBy(g => g.Size)
                .Select(same => same.MinBy(g => g.Price))
                .OrderBy(g => g.At),
        ];

    private static decimal[] Counted(int packs, Good[] goods, long[] counts)
    {
        var all = new decimal[packs];
        for (var i = 0; i < goods.Length; i++)
            all[goods[i].At] = counts[i];
        return all;
    }

    private static decimal Cost(Good[] goods, long[] counts) => goods.Select((g, i) => g.Price * counts[i]).Sum();

    /// <summary>The counts without packs that the need can do without, the dearest first.</summary>
    private static long[] Spared(decimal required, Good[] goods, long[] counts)
    {
        var spared = (long[])counts.Clone();
        var over = goods.Select((g, i) => g.Size * counts[i]).Sum() - required;
        foreach (var i in Enumerable.Range(0, goods.Length).OrderByDescending(i => goods[i].Price).ThenBy(i => i))
        {
            var fewer = (long)decimal.Min(spared[i], decimal.Floor(over / goods[i].Size));
            spared[i] -= fewer;
            over -= fewer * goods[i].Size;
        }
        return spared;
    }

    /// <summary>The cheapest counts where sizes and need are whole numbers of a grain; null where that takes too much work.</summary>
    private static long[]? Solve(
        decimal required,
        Good[] goods,
        decimal grain,
        Func<decimal, decimal> size,
        Func<decimal, decimal> need,
        ref long steps
    )
    {
        var covered = need(Rounding.ForCompare(required / grain));
        if (covered > 1e15m || goods.Any(g => g.Price >= 1e9m))
            return null;
        var cent = goods.Aggregate(0m, (divisor, good) => CommonDivisor(divisor, good.Price));
        var sized = goods
            .Select(
                (g, i) =>
                    new Sized(
                        i,
                        (long)size(Rounding.ForCompare(g.Size / grain)),
                        cent == 0 ? 0 : (long)(g.Price / cent)
                    )
            )
            .Where(s => s.Size > 0)
            .ToArray();
        if (sized.Length == 0)
            return null;
        // Whichever is less work; the walk over remainders may find what would take back more of the cheapest pack than there is.
        var walked = covered > 2 * sized.Max(s => s.Size) ? ByRemainders((long)covered, sized, ref steps) : null;
        var counts = walked ?? ByAmounts((long)covered, sized, ref steps);
        if (counts is null)
            return null;
        var all = new long[goods.Length];
        for (var i = 0; i < sized.Length; i++)
            all[sized[i].At] = counts[i];
        return all;
    }

    /// <summary>A pack in whole grains and whole units of money.</summary>
    private readonly record struct Sized(int At, long Size, long Price);

    /// <summary>What every amount up to the need, and a pack beyond, costs at least. One kind of pack is added after the other, the last in the list first,
    /// and taken where it costs no more: so of equal choices the one stands that has more of the earlier packs.</summary>
    private static long[]? ByAmounts(long need, Sized[] packs, ref long steps)
    {
        var most = need + packs.Max(p => p.Size);
        if ((double)most * packs.Length > MostSteps)
            return null;
        // Cost first, then how many packs: one number for both, of 64 bits where that is enough.
        var largest = ((double)packs.Max(p => p.Price) * most + 1) * (most + 1);
        return largest < long.MaxValue / 2 ? ByAmounts<long>(need, most, packs, ref steps)
            : largest < MostWeight ? ByAmounts<Int128>(need, most, packs, ref steps)
            : null;
    }

    private static long[] ByAmounts<T>(long need, long most, Sized[] packs, ref long steps)
        where T : struct, IBinaryInteger<T>, IMinMaxValue<T>
    {
        var (never, weigh) = (T.MaxValue, T.CreateChecked(most + 1));
        var best = new T[most];
        var taken = new bool[packs.Length][];
        Array.Fill(best, never);
        best[0] = T.Zero;
        for (var i = packs.Length - 1; i >= 0; i--)
        {
            var (size, weight) = ((int)packs[i].Size, T.CreateChecked(packs[i].Price) * weigh + T.One);
            var took = taken[i] = new bool[most];
            for (var amount = size; amount < best.Length; amount++)
            {
                var without = best[amount - size];
                if (without == never || without + weight > best[amount])
                    continue;
                best[amount] = without + weight;
                took[amount] = true;
            }
            steps += Math.Max(0, most - size);
        }
        var (at, least) = (-1L, never);
        for (var amount = need; amount < most; amount++)
        {
            // The same money for less is better, even in more packs.
            if (best[amount] == never || (at >= 0 && best[amount] / weigh >= least))
                continue;
            (at, least) = (amount, best[amount] / weigh);
        }
        var counts = new long[packs.Length];
        for (var i = 0; i < packs.Length; i++)
        for (; taken[i][at]; at -= packs[i].Size)
            counts[i]++;
        return counts;
    }

    /// <summary>
    /// The same over the remainders of division by the cheapest pack per unit, of which the rest consists. Every other pack costs so much more than its size would at that
    /// price, and that excess is what is made least; then how many packs it saves; then, among packs behind the cheapest in the list, how little of them is taken.
    /// Null where it takes too much work, or where the others would be more than the need.
    /// </summary>
    private static long[]? ByRemainders(long need, Sized[] packs, ref long steps)
    {
        var main = Enumerable.Range(0, packs.Length).Aggregate((a, b) => Cheaper(packs[b], packs[a]) ? b : a);
        var (modulus, unit) = (packs[main].Size, packs[main].Price);
        if ((double)modulus * packs.Length * 2 > MostSteps)
            return null;
        // Excess always comes first: the numbers of packs that may be saved, or more, never add up to half of what stands for one.
        var saved = 2 * ((double)packs.Max(p => Math.Abs(p.Size - modulus)) * modulus + 1);
        var dearest = packs.Max(p => (double)p.Price * modulus - (double)p.Size * unit);
        var largest = (dearest * modulus + 1) * (saved + 1);
        return largest < long.MaxValue / 2 ? ByRemainders<long>(need, packs, main, (long)saved + 1, ref steps)
            : largest < MostWeight ? ByRemainders<Int128>(need, packs, main, (Int128)saved + 1, ref steps)
            : null;
    }

    private static long[]? ByRemainders<T>(long need, Sized[] packs, int main, T weigh, ref long steps)
        where T : struct, IBinaryInteger<T>, IMinMaxValue<T>
    {
        var (modulus, unit) = (packs[main].Size, packs[main].Price);
        var never = T.MaxValue;
        var best = new T[modulus];
        var amount = new long[modulus];
        var taken = new bool[packs.Length][];
        Array.Fill(best, never);
        best[0] = T.Zero;
        for (var i = packs.Length - 1; i >= 0; i--)
        {
            taken[i] = new bool[modulus];
            if (packs[i].Size % modulus == 0)
                continue;
            Add(packs[i], taken[i], i > main);
            steps += 2 * modulus;
        }
        var (found, least) = (need % modulus, default((Int128 Cost, long Covered)));
        for (var (over, any) = (0L, false); over < modulus; over++)
        {
            var remainder = (need + over) % modulus;
            if (best[remainder] == never)
                continue;
            // Excess, and the whole at the price per unit of the main pack; both times its size.
            var cost = Int128.CreateChecked(ExcessIn(best[remainder], weigh)) + (Int128)(need + over) * unit;
            if (!any || (cost, need + over).CompareTo(least) < 0)
                (found, least, any) = (remainder, (cost, need + over), true);
        }
        var (counts, rest) = (new long[packs.Length], least.Covered);
        for (var i = 0; i < packs.Length; i++)
        for (; taken[i][found]; found = ((found - packs[i].Size) % modulus + modulus) % modulus)
            (counts[i], rest) = (counts[i] + 1, rest - packs[i].Size);
        counts[main] = rest / modulus;
        return rest >= 0 ? counts : null;

        // Packs of one kind go round the remainders in rings; twice round and every remainder has seen the best of its ring.
        void Add(Sized pack, bool[] took, bool behind)
        {
            var (step, size) = (pack.Size % modulus, T.CreateChecked(modulus));
            var excess = T.CreateChecked(pack.Price) * size - T.CreateChecked(pack.Size) * T.CreateChecked(unit);
            var weight = excess * weigh + size - T.CreateChecked(pack.Size);
            var rings = Divisor(step, modulus);
            for (var ring = 0L; ring < rings; ring++)
            {
                var from = ring;
                for (var n = 0L; n < 2 * (modulus / rings); n++)
                {
                    var to = from + step;
                    if (to >= modulus)
                        to -= modulus;
                    if (best[from] != never)
                    {
                        var (with, more) = (best[from] + weight, amount[from] + pack.Size);
                        if (with < best[to] || (with == best[to] && (took[to] || !behind || more < amount[to])))
                            (best[to], amount[to], took[to]) = (with, more, true);
                    }
                    from = to;
                }
            }
        }
    }

    /// <summary>Whether a pack is cheaper per unit than another, or as cheap and larger.</summary>
    private static bool Cheaper(Sized a, Sized b)
    {
        var (here, there) = ((Int128)a.Price * b.Size, (Int128)b.Price * a.Size);
        return here < there || (here == there && a.Size > b.Size);
    }

    /// <summary>The excess in a weight: what goes with it for the numbers of packs lies within half of one to either side.</summary>
    private static T ExcessIn<T>(T weight, T weigh)
        where T : struct, IBinaryInteger<T> => (weight + weigh / (T.One + T.One)) / weigh;

    private static long Divisor(long a, long b)
    {
        while (b != 0)
            (a, b) = (b, a % b);
        return a;
    }

    private static decimal CommonDivisor(decimal a, decimal b)
    {
        while (b != 0)
            (a, b) = (b, a % b);
        return a;
    }
}
