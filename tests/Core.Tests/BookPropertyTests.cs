using System.Collections.Immutable;
using CsCheck;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What must hold for any quantity and any entry.</summary>
public class BookPropertyTests
{
    private static readonly Dictionary<Guid, BookEntry> All = StarterBook.Entries.ToDictionary(e => e.Id);

    /// <summary>Work whose amounts follow the quantity without steps.</summary>
    private static readonly Gen<WorkEntry> Stepless = Gen.OneOf(
        StarterBook
            .Entries.OfType<WorkEntry>()
            .Where(e =>
                e is not PriceOnlyItem
                && e.Step is null
                && (e as Assembly)?.Components.All(c => c.Step is null && c.Drops is null) != false
            )
            .Select(Gen.Const)
            .ToArray()
    );

    private static Estimate Try(WorkEntry entry, decimal quantity, int? coats = null) =>
        (
            Trial.Usual(UnitSystem.Feet) with
            {
                Quantities = Trial
                    .Asks(entry, UnitSystem.Feet)
                    .Where(a =>
                        Measures.Find(a.Name) is not null
                        || (entry as Assembly)?.Components.Any(c =>
                            c.DepthAsked?.ToString() == a.Name || c.Drops?.Height.ToString() == a.Name
                        ) != true
                    )
                    .ToImmutableDictionary(a => a.Name, _ => quantity),
                Coats = coats,
            }
        ).Of(entry, All.GetValueOrDefault, Trace.Silent);

    private static bool Near(decimal a, decimal b) => decimal.Abs(a - b) <= 1e-9m * decimal.Max(1, decimal.Abs(b));

    [Fact]
    public void Exact_hours_and_needs_are_linear_in_the_quantity() =>
        Gen.Select(Stepless, Gen.Int[1, 4000], Gen.Int[2, 9])
            .Always(
                (entry, quantity, times) =>
                {
                    var (one, many) = (Try(entry, quantity / 4m), Try(entry, quantity / 4m * times));
                    return Near(many.Reckoned.Lines[0].Hours.V, one.Reckoned.Lines[0].Hours.V * times)
                        && one.Reckoned.Lines[0]
                            .Amounts.Zip(many.Reckoned.Lines[0].Amounts)
                            .All(a => Near(a.Second.V, a.First.V * times));
                },
                times: 400
            );

    [Fact]
    public void Hours_and_needs_never_go_down_with_coats_or_waste() =>
        Gen.Select(
                Gen.OneOf(
                    StarterBook
                        .Entries.OfType<WorkEntry>()
                        .Where(e => e is ProductionRate { Paces.Length: > 1 } or Assembly { Coats: > 1 })
                        .Select(Gen.Const)
                        .ToArray()
                ),
                Gen.Int[1, 500],
                Gen.Int[0, 40]
            )
            .Always(
                (entry, quantity, waste) =>
                {
                    var most = entry is ProductionRate rate ? rate.Paces.Length : 4;
                    for (var coats = 2; coats <= most; coats++)
                    {
                        var (fewer, more) = (Try(entry, quantity, coats - 1), Try(entry, quantity, coats));
                        if (
                            more.Reckoned.Costs.Hours.V < fewer.Reckoned.Costs.Hours.V
                            || more.Reckoned.Costs.Buying.Sum(b => b.Need.V)
                                < fewer.Reckoned.Costs.Buying.Sum(b => b.Need.V)
                        )
                            return false;
                    }
                    if (entry is not Assembly assembly)
                        return true;
                    Assembly Wasting(decimal percent) =>
                        assembly with
                        {
                            Components =
                            [
                                .. assembly.Components.Select(c =>
                                    c.Kind == ComponentKind.Material ? c with { WastePercent = percent } : c
                                ),
                            ],
                        };
                    var (less, waster) = (Try(Wasting(waste), quantity), Try(Wasting(waste + 5), quantity));
                    return waster
                        .Reckoned.Lines[0]
                        .Amounts.Zip(less.Reckoned.Lines[0].Amounts)
                        .All(a => a.First.V >= a.Second.V);
                },
                times: 200
            );

    [Fact]
    public void The_order_of_the_parts_does_not_matter() =>
        Gen.Select(
                Gen.OneOf(StarterBook.Entries.OfType<Assembly>().Select(Gen.Const).ToArray()),
                Gen.Int[1, 900],
                Gen.Int[0, 1_000_000]
            )
            .Always(
                (assembly, quantity, seed) =>
                {
                    var random = new Random(seed);
                    // The first of an either-or group is the usual one, so the order within a group stays.
                    var shuffled = assembly with
                    {
                        Components =
                        [
                            .. assembly.Components.OrderBy(c => c.Group.Length > 0 ? 0.5 : random.NextDouble()),
                        ],
                    };
                    var (a, b) = (Try(assembly, quantity), Try(shuffled, quantity));
                    return a.Reckoned.Lines[0]
                            .Item.Parts.Select((p, i) => (p.Id, a.Reckoned.Lines[0].Amounts[i].V))
                            .OrderBy(x => x.Id)
                            .SequenceEqual(
                                b.Reckoned.Lines[0]
                                    .Item.Parts.Select((p, i) => (p.Id, b.Reckoned.Lines[0].Amounts[i].V))
                                    .OrderBy(x => x.Id)
                            )
                        && a.Price.Direct.V == b.Price.Direct.V;
                },
                times: 300
            );

    [Fact]
    public void Buying_together_is_never_dearer_than_apart() =>
        Gen.Select(Gen.Int[1, 400], Gen.Int[1, 400], Gen.Select(Gen.Int[1, 25], Gen.Int[1, 500]).Array[1, 4])
            .Always(
                (a, b, raw) =>
                {
                    var packs = raw.Select(p => new Pack("p", p.Item1 / 2m, p.Item2)).ToImmutableArray();
                    decimal Cost(decimal need) =>
                        CheapestPacks.Cover(need, packs).Counts.Zip(packs).Sum(p => p.First * p.Second.Price);
                    return Cost((a + b) / 10m) <= Cost(a / 10m) + Cost(b / 10m);
                },
                times: 1000
            );

    [Fact]
    public void What_lines_cost_adds_up_to_what_the_job_costs()
    {
        // Of a round each occurrence by itself.
        foreach (
            var reckoning in DemoJobs
                .Fixed()
                .Select(Sample.Reckon)
                .SelectMany(e => e.Price.Occurrences.IsEmpty ? [e] : e.Price.Occurrences.Select(o => o.Estimate))
        )
        {
            var job = reckoning.Job;
            var byClass = LineCosts.Of(reckoning.Reckoned, Trace.Silent).Lines;
            var travel = reckoning.Reckoned.Costs.Charges.Where(c => c.Item is null).Sum(c => c.Cost.V);
            var setUpHours =
                job.Crew.SetUp is { } id && job.Book[id] is SetUp setUp
                    ? reckoning.Reckoned.Costs.Roles.Where(r => r.Role.Id == setUp.Role).Sum(r => r.Cost.V)
                        - byLabour(setUp.Role)
                    : 0;
            decimal byLabour(Guid role) =>
                reckoning.Reckoned.Lines.Sum(l =>
                    l.Item.Parts.Select((p, i) => p.Entry.Id == role ? l.Amounts[i].V : 0).Sum()
                ) * reckoning.Reckoned.Costs.Roles.Single(r => r.Role.Id == role).LoadedCost.V;
            Assert.InRange(
                byClass.Sum(l => l.Sum(c => c.Of.V)) + travel + setUpHours - reckoning.Price.Direct.V,
                -0.03m,
                0.03m
            );
            if (job.Pricing.MaterialCost == MaterialCost.Need)
                continue;
            // What was bought is shared in whole cents and nothing is left.
            Assert.Equal(
                reckoning.Reckoned.Costs.Buying.Sum(b => Rounding.Money(b.Cost(job.Pricing.MaterialCost).V)),
                byClass.Sum(l => l[CostClass.Material].V)
            );
        }
    }
}
