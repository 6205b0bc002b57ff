using System.Collections.Immutable;
using CsCheck;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Packs of awkward sizes and large needs: exact within a bound on work, and said how near where not.</summary>
public class PacksTests
{
    private static ImmutableArray<Pack> Packs(params (decimal Size, decimal Price)[] packs) =>
        [.. packs.Select((p, i) => new Pack($"p{i}", p.Size, p.Price))];

    private static decimal Cost(PackChoice choice, ImmutableArray<Pack> packs) =>
        choice.Counts.Zip(packs).Sum(p => p.First * p.Second.Price);

    private static decimal Size(PackChoice choice, ImmutableArray<Pack> packs) =>
        choice.Counts.Zip(packs).Sum(p => p.First * p.Second.Size);

    [Theory]
    [InlineData("500")]
    [InlineData("1000")]
    [InlineData("987654.321")]
    public void Weights_in_pounds_at_one_price_per_kilogram_come_as_near_to_the_need_as_any_packs_do(string text)
    {
        // 2, 5, 10, 25 and 50 lb in kg, 4.00 per kg: the least money is the least weight.
        var packs = Packs((0.907m, 3.628m), (2.268m, 9.072m), (4.536m, 18.144m), (11.34m, 45.36m), (22.68m, 90.72m));
        var need = decimal.Parse(text, System.Globalization.CultureInfo.InvariantCulture);
        var choice = CheapestPacks.Cover(need, packs);
        Assert.Equal(0, choice.Above);
        Assert.InRange(choice.Steps, 1, 2 * CheapestPacks.MostSteps);
        // All packs but the first are whole numbers of 2.268 kg: so n of 0.907 kg and m of 2.268 kg reach it.
        var least = decimal.MaxValue;
        for (var n = 0; n < 2268; n++)
            least = decimal.Min(
                least,
                0.907m * n + 2.268m * decimal.Ceiling(decimal.Max(0, need - 0.907m * n) / 2.268m)
            );
        Assert.Equal(least, Size(choice, packs));
        Assert.Equal(4 * least, Cost(choice, packs));
    }

    [Fact]
    public void Twelve_awkward_packs_for_a_need_of_a_hundred_thousand_take_a_bounded_number_of_steps()
    {
        var packs = Packs(
            (0.453592m, 2.11m),
            (0.907185m, 3.97m),
            (2.267962m, 9.83m),
            (3.785412m, 15.97m),
            (4.535924m, 19.01m),
            (9.071847m, 37.49m),
            (11.339809m, 46.57m),
            (18.927059m, 77.31m),
            (22.679619m, 92.03m),
            (25.000001m, 101.71m),
            (45.359237m, 183.89m),
            (208.197648m, 846.13m)
        );
        var choice = CheapestPacks.Cover(100_000m, packs);
        Assert.InRange(choice.Steps, 1, 30 * CheapestPacks.MostSteps);
        Assert.True(Size(choice, packs) >= 100_000m);
        // The cheapest per unit is the 45.36 kg or 208.20 kg pack: nothing can be cheaper than the need at that price.
        var least = 100_000m * packs.Min(p => p.Price / p.Size);
        Assert.InRange(Cost(choice, packs), least, least * 1.001m);
        Assert.True(Cost(choice, packs) - choice.Above >= least - 0.000001m);
        Assert.True(choice.Above > 0);
    }

    [Fact]
    public void What_is_said_to_be_above_the_cheapest_is_never_too_little() =>
        Gen.Select(Gen.Int[1, 4000], Gen.Select(Gen.Int[1, 97], Gen.Int[1, 500]).Array[2, 5])
            .Always(
                (need, raw) =>
                {
                    // The same packs by themselves, and in a grain so fine that only an estimate is within the bound.
                    var exact = Packs([.. raw.Select(p => ((decimal)p.Item1, (decimal)p.Item2))]);
                    var fine = Packs(
                        [.. raw.Select(p => (p.Item1 * 0.999999m, (decimal)p.Item2)), (0.000001m * 7, 999_999m)]
                    );
                    var (a, b) = (CheapestPacks.Cover(need, exact), CheapestPacks.Cover(need * 0.999999m, fine));
                    var (cost, near) = (Cost(a, exact), Cost(b, fine));
                    return a.Above == 0 && Size(b, fine) >= need * 0.999999m && near >= cost && near - b.Above <= cost;
                },
                times: 25
            );

    [Fact]
    public void Ties_go_to_less_left_over_then_fewer_packs_then_the_order_of_the_list()
    {
        // 1 + 3 and 2 + 2 are both two packs for 4: the earlier pack in the list decides.
        Assert.Equal([1m, 0m, 1m], CheapestPacks.Cover(4, Packs((1, 1), (2, 2), (3, 3))).Counts);
        Assert.Equal([2m, 0m, 0m], CheapestPacks.Cover(4, Packs((2, 2), (1, 1), (3, 3))).Counts);
        // The same money: 5 for a need of 4 loses to 4.
        Assert.Equal([0m, 1m], CheapestPacks.Cover(4, Packs((5, 10), (4, 10))).Counts);
        // Two packs of one size and price: the first.
        Assert.Equal([2m, 0m], CheapestPacks.Cover(4, Packs((2, 3), (2, 3))).Counts);
        Assert.Equal([0m, 2m], CheapestPacks.Cover(4, Packs((2, 4), (2, 3))).Counts);
        Assert.Equal([0m, 1m], CheapestPacks.Cover(3, Packs((1, 0.5m), (3, 0))).Counts);
    }

    [Fact]
    public void Both_ways_of_looking_find_the_same_packs() =>
        Gen.Select(Gen.Int[400, 3000], Gen.Select(Gen.Int[1, 40], Gen.Int[1, 60]).Array[2, 4])
            .Always(
                (need, raw) =>
                {
                    var packs = Packs([.. raw.Select(p => ((decimal)p.Item1, (decimal)p.Item2))]);
                    var choice = CheapestPacks.Cover(need, packs);
                    // Plain dynamic programming over amounts: cost, covered, packs.
                    var most = need + 41;
                    var best = new (decimal Cost, int Packs)?[most];
                    best[0] = (0, 0);
                    for (var amount = 1; amount < most; amount++)
                        foreach (var pack in packs)
                            if (
                                amount >= pack.Size
                                && best[amount - (int)pack.Size] is { } from
                                && (
                                    best[amount] is not { } now
                                    || (from.Cost + pack.Price, from.Packs + 1).CompareTo((now.Cost, now.Packs)) < 0
                                )
                            )
                                best[amount] = (from.Cost + pack.Price, from.Packs + 1);
                    var least = Enumerable
                        .Range(need, 41)
                        .Where(a => best[a] is not null)
                        .Select(a => (best[a]!.Value.Cost, (decimal)a, (decimal)best[a]!.Value.Packs))
                        .Min();
                    return (Cost(choice, packs), Size(choice, packs), choice.Counts.Sum()) == least;
                },
                times: 4000
            );
}
