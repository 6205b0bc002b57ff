using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Tests;

/// <summary>Random small jobs under random terms of every kind.</summary>
internal static class RandomPricing
{
    private static T Any<T>(Random random, params T[] of) => of[random.Next(of.Length)];

    private static decimal Money(Random random, int most) => random.Next(1, most * 100) / 100m;

    /// <summary>A job of one to eight pieces of work in up to three sections.</summary>
    public static Job Job(Random random)
    {
        var job = new PricedJob(Terms(random), Any(random, "USD", "USD", "USD", "JPY", "KWD"));
        Guid[] places =
        [
            .. Enumerable
                .Range(0, random.Next(1, 4))
                .Select(_ =>
                    job.Place($"R {random.Next(5, 30)} x {random.Next(5, 30)} x 8{Any(random, "", "", " x3")}")
                ),
        ];
        var roles = new[]
        {
            Sample.Role("A", 21.37m) with
            {
                SellRate = 58,
            },
            Sample.Role("B", 18.5m) with
            {
                SellRate = 47.45m,
            },
        };
        for (var i = random.Next(1, 9); i > 0; i--)
        {
            var section = "S" + random.Next(3);
            Guid[] at = [.. places.Where(_ => random.Next(3) > 0).DefaultIfEmpty(places[0])];
            var work =
                random.Next(6) == 0
                    ? job.Sold(Money(random, 9), section, at, Any(random, 0, 0, 120), random.Next(3) > 0)
                    : job.Work(
                        goods: random.Next(3) > 0 ? Money(random, 300) : 0,
                        charge: random.Next(4) == 0 ? Money(random, 90) : 0,
                        section: section,
                        at: at,
                        role: Any(random, roles),
                        hours: random.Next(1, 900) / 100m,
                        of: m => m with { Taxed = random.Next(5) > 0, PriceIncludesTax = random.Next(7) == 0 },
                        entry: e =>
                            e with
                            {
                                UnitPrice = new(Money(random, 12), Unit.SquareFoot),
                                TaxExempt = random.Next(6) == 0 ? "exempt by its kind" : null,
                                Hidden = random.Next(8) == 0,
                            }
                    );
            if (random.Next(9) == 0)
                job.Set(work, "allowance", Money(random, 400));
            if (random.Next(6) == 0)
                job.Set(work, "least", Money(random, 800));
            if (random.Next(12) == 0)
                job.Set(work, "supply", Any(random, Supply.Customer, Supply.CustomerMaterial));
        }
        foreach (var section in job.Job.Sections.Select(s => s.Name).ToArray())
            if (random.Next(4) == 0)
                job.Section(
                    section,
                    new(Any(random, Enum.GetValues<PriceBasis>()))
                    {
                        FixedPrice = Money(random, 3000),
                        TargetMargin = Any(random, 35m, (decimal?)null),
                        SellRate = Any(random, 61.5m, (decimal?)null),
                    },
                    Any(random, 250m, (decimal?)null)
                );
        return job.Job;
    }

    private static PricingTerms Terms(Random random)
    {
        decimal Percent(int most) => random.Next(0, most * 100) / 100m;
        TaxOn[] Some() => [.. Tax.Everything.Where(_ => random.Next(2) == 0)];
        var taxes = ImmutableArray.CreateBuilder<Tax>();
        for (var i = random.Next(3); i > 0; i--)
            taxes.Add(
                Any(random, 0, 0, 0, 1) == 0
                    ? PricedJob.Tax(Any(random, 7m, 20m, 9.975m, 0m), Some()) with
                    {
                        Way = Any(random, TaxWay.Charged, TaxWay.Reclaimed),
                    }
                    : new(Sample.NewId(), "Paid", 6.25m, [TaxOn.Material], TaxWay.Paid)
            );
        Brackets? brackets =
            random.Next(4) > 0
                ? null
                : Any(
                    random,
                    new Brackets(BracketBy.Price, [new(500, 8), new(4000, -3)], false),
                    new Brackets(BracketBy.Hours, [new(0, 12), new(20, 0)], true),
                    new Brackets(BracketBy.Quantity, [new(0, 15), new(500, 0)], true)
                    {
                        Measure = Measure.FloorArea,
                        Unit = Unit.SquareFoot,
                    }
                );
        return PricingTerms.Starting with
        {
            Basis = Any(
                random,
                PriceBasis.Markup,
                PriceBasis.Markup,
                PriceBasis.Markup,
                PriceBasis.TargetMargin,
                PriceBasis.SellRate,
                PriceBasis.UnitPrice,
                PriceBasis.Fixed
            ),
            UsualBasis = Any(random, PriceBasis.Markup, PriceBasis.TargetMargin, PriceBasis.UnitPrice),
            FixedPrice = Money(random, 9000),
            MaterialCost = Any(random, MaterialCost.Need, MaterialCost.Purchase),
            LabourMarkup = Percent(40),
            MaterialMarkup = Percent(40),
            Overhead = Percent(20),
            Contingency = Percent(6),
            Profit = Percent(30),
            TargetMargin = Percent(60),
            Taxes = taxes.ToImmutable(),
            Brackets = brackets,
            LeastPlace = Any(random, 0, 0, 0, 40),
            LeastLine = Any(random, 0, 0, 0, 95),
            LeastJob = Any(random, 0, 0, 0, 2500),
            Discounts =
            [
                .. new Discount[] { new("Second job", Percent(12), null), new("Flyer", null, Money(random, 60)) }.Where(
                    _ => random.Next(3) == 0
                ),
            ],
            RaiseList = random.Next(4) == 0,
            Adjustment = Any(random, 0, 0, 0, -12, 35),
            Fees =
            [
                .. new Fee[] { new("Card", 2.9m, true), new("Bond", 1.15m, false) }.Where(_ => random.Next(3) == 0),
            ],
            Rounding = Any(
                random,
                null,
                null,
                new PriceRounding(5, true, false),
                new PriceRounding(10, false, false),
                new PriceRounding(1, false, true)
            ),
            ShowContingency = random.Next(3) == 0,
            Exemption = random.Next(8) == 0 ? new(ExemptKind.Exempt, "a school") : null,
        };
    }

    /// <summary>A customer's schedule of a job: headings, rows without a price, rows whose work is everywhere or at one place, and quantities of nothing.</summary>
    public static ImmutableArray<ScheduleItem> Schedule(Random random, Job job)
    {
        var rows = ImmutableArray.CreateBuilder<ScheduleItem>();
        var taken = new HashSet<ScheduleWork>();
        for (var i = random.Next(0, 6); i > 0; i--)
        {
            var row = new ScheduleItem(
                Sample.NewId(),
                $"{rows.Count:D3}",
                $"{rows.Count}",
                "Row",
                "m²",
                random.Next(5) == 0 ? 0 : random.Next(1, 1_000_000) / 1000m,
                ""
            );
            var works = Enumerable
                .Range(0, random.Next(0, 3))
                .Select(_ => new ScheduleWork(
                    Any(random, [.. job.Work]).Id,
                    "",
                    random.Next(2) == 0 ? null : Any(random, [.. job.Places]).Id
                ))
                .Where(taken.Add);
            rows.Add(random.Next(6) == 0 ? row with { Unit = "", Quantity = 0 } : row with { Work = [.. works] });
        }
        return rows.ToImmutable();
    }
}
