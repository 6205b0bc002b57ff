using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using Google.OrTools.Sat;
using Xunit;

namespace Emendum.SecondOpinion.Tests;

/// <summary>Packs held against a general-purpose constraint solver (Google OR-Tools, CP-SAT).</summary>
public class PacksTests
{
    [Fact]
    public void A_thousand_random_needs_are_covered_as_cheaply_as_a_constraint_solver_covers_them()
    {
        var random = new Random(20261123);
        for (var n = 0; n < 1000; n++)
        {
            var packs = Enumerable
                .Range(0, random.Next(1, 6))
                .Select(i => new Pack($"p{i}", random.Next(1, 60) / 4m, random.Next(50, 20_000) / 100m))
                .ToImmutableArray();
            var need = random.Next(1, 2_000) / 8m;
            var counts = CheapestPacks.Cover(need, packs).Counts;
            Assert.True(counts.Zip(packs).Sum(p => p.First * p.Second.Size) >= need);
            var cost = counts.Zip(packs).Sum(p => p.First * p.Second.Price);
            // In eighths of the unit and in cents.
            Assert.Equal(
                Solved((int)(need * 8), [.. packs.Select(p => ((int)(p.Size * 8), (int)(p.Price * 100)))]),
                (long)(cost * 100)
            );
        }
    }

    [Fact]
    public void Awkward_packs_are_as_cheap_as_the_solver_finds_them_or_as_near_as_is_said()
    {
        var random = new Random(20261125);
        for (var n = 0; n < 60; n++)
        {
            // Sizes in thousandths without a common divisor, at prices per unit that lie close together; needs of a few units and of hundreds of them.
            var packs = Enumerable
                .Range(0, random.Next(2, 7))
                .Select(i => random.Next(300, 30_000) / 1000m)
                .Select((size, i) => new Pack($"p{i}", size, decimal.Round(size * random.Next(380, 420) / 100m, 2)))
                .ToImmutableArray();
            var need = random.Next(1_000, n % 2 == 0 ? 40_000 : 900_000) / 1000m;
            var choice = CheapestPacks.Cover(need, packs);
            Assert.True(choice.Counts.Zip(packs).Sum(p => p.First * p.Second.Size) >= need);
            var cost = choice.Counts.Zip(packs).Sum(p => p.First * p.Second.Price);
            var least =
                Solved((int)(need * 1000), [.. packs.Select(p => ((int)(p.Size * 1000), (int)(p.Price * 100)))]) / 100m;
            Assert.InRange(cost, least, least + choice.Above);
        }
    }

    private static long Solved(int need, (int Size, int Price)[] packs)
    {
        var model = new CpModel();
        var counts = packs.Select((p, i) => model.NewIntVar(0, need / p.Size + 1, $"n{i}")).ToArray();
        model.Add(LinearExpr.WeightedSum(counts, packs.Select(p => p.Size).ToArray()) >= need);
        model.Minimize(LinearExpr.WeightedSum(counts, packs.Select(p => p.Price).ToArray()));
        var solver = new CpSolver { StringParameters = "num_workers:1" };
        Assert.Equal(CpSolverStatus.Optimal, solver.Solve(model));
        return (long)solver.ObjectiveValue;
    }
}
