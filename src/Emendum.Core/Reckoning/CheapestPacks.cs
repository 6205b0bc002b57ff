using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Quantities;

namespace Emendum.Core.Reckoning;

/// <summary>The packs that cover a need for the least money; ties: less left over, fewer packs, list order (estimating model §5).</summary>
public static class CheapestPacks
{
    /// <summary>How many of each pack, in list order. Nothing is needed: none.</summary>
    /// <remarks>Exact: counts of all packs but the last are enumerated, cheapest per unit first, and branches that cannot beat the best are cut.
    /// A pack that is not the cheapest per unit is never needed more often than one cheapest pack has smallest steps, since so many would hold a
    /// group whose total is a whole number of cheapest packs, at no lower cost.</remarks>
    public static decimal[] Cover(decimal need, ImmutableArray<Pack> packs)
    {
        var required = Rounding.ForCompare(need);
        var counts = new decimal[packs.Length];
        if (required <= 0)
            return counts;
        var order = Enumerable
            .Range(0, packs.Length)
            .OrderBy(i => packs[i].Price / packs[i].Size)
            .ThenByDescending(i => packs[i].Size)
            .ToArray();
        var unitPrice = order.Select(i => packs[i].Price / packs[i].Size).ToArray();
        var most = StepsIn(packs, packs[order[0]].Size) - 1;

        decimal[]? best = null;
        (decimal Cost, decimal Size, decimal Packs) bestKey = default;

        void Try(int depth, decimal covered, decimal cost, decimal packCount)
        {
            var left = required - covered;
            if (left <= 0 || depth == order.Length)
            {
                if (left > 0)
                    return;
                var key = (cost, covered, packCount);
                var compared = best is null ? -1 : key.CompareTo(bestKey);
                if (compared > 0 || (compared == 0 && !Earlier(counts, best!)))
                    return;
                (best, bestKey) = ((decimal[])counts.Clone(), key);
                return;
            }
            var pack = packs[order[depth]];
            var bound = cost + left * unitPrice[depth];
            if (best is not null && Rounding.ForCompare(bound) > bestKey.Cost)
                return;
            var ceiling = Rounding.Ceiling(left / pack.Size);
            if (depth == order.Length - 1)
            {
                counts[order[depth]] = ceiling;
                Try(order.Length, covered + ceiling * pack.Size, cost + ceiling * pack.Price, packCount + ceiling);
            }
            else
            {
                for (var n = depth == 0 ? ceiling : decimal.Min(ceiling, most); n >= 0; n--)
                {
                    counts[order[depth]] = n;
                    var rest = decimal.Max(0, left - n * pack.Size);
                    if (
                        best is not null
                        && Rounding.ForCompare(cost + n * pack.Price + rest * unitPrice[depth + 1]) > bestKey.Cost
                    )
                    {
                        if (rest > 0)
                            break;
                        continue;
                    }
                    Try(depth + 1, covered + n * pack.Size, cost + n * pack.Price, packCount + n);
                }
            }
            counts[order[depth]] = 0;
        }

        Try(0, 0, 0, 0);
        return best!;
    }

    private static bool Earlier(decimal[] a, decimal[] b)
    {
        for (var i = 0; i < a.Length; i++)
            if (a[i] != b[i])
                return a[i] > b[i];
        return false;
    }

    /// <summary>How many common smallest steps of the pack sizes there are in <paramref name="size"/>.</summary>
    private static decimal StepsIn(ImmutableArray<Pack> packs, decimal size)
    {
        var step = 0m;
        foreach (var pack in packs)
            step = CommonDivisor(step, pack.Size);
        return size / step;
    }

    private static decimal CommonDivisor(decimal a, decimal b)
    {
        while (b != 0)
            (a, b) = (b, a % b);
        return a;
    }
}
