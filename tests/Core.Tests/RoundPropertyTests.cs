using System.Text.Json;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What holds of the year of any job under any terms: 300 of them here, 10,000 in ./run-long.</summary>
[Trait("Category", "Long")]
public class RoundPropertyTests
{
    private static readonly int Count = Properties.Times(300, 10_000);

    [Fact]
    public void Months_sum_to_the_year_lines_to_the_price_and_a_year_to_its_occurrences()
    {
        var looked = 0;
        for (var seed = 5_000_000; seed < 5_000_000 + Count; seed++)
        {
            var random = new Random(seed);
            try
            {
                Holds(seed, Round(RandomPricing.Job(random), random));
                looked++;
            }
            catch (RefusedException)
            {
                // A job that cannot be priced as its terms say.
            }
        }
        Assert.InRange(looked, Count / 2, Count);
    }

    private static T Any<T>(Random random, params T[] of) => of[random.Next(of.Length)];

    /// <summary>The job with one to four rhythms of any kind, work that goes by them at random, and terms of a round.</summary>
    internal static Job Round(Job job, Random random)
    {
        for (var n = random.Next(1, 5); n > 0; n--)
        {
            var kind = Any(random, RhythmKind.Times, RhythmKind.Times, RhythmKind.WorkingDays, RhythmKind.Event);
            var rhythm = new Rhythm(
                Sample.NewId(),
                "",
                $"Rhythm {n}",
                kind,
                Any(random, 1, 2, 3, 4, 7, 12, 26, 28, 52, 104, 365)
            )
            {
                OwnVisit = random.Next(2) == 0,
                Months = [.. Any<int[]>(random, [], [], [4, 5, 6, 7, 8, 9, 10], [1, 2, 12], [6])],
                Bands =
                    kind != RhythmKind.Event
                        ? []
                        :
                        [
                            new(Sample.NewId(), "a", 1, random.Next(9), null),
                            new(Sample.NewId(), "b", 1.75m, random.Next(5), 9),
                        ],
                Instead =
                    kind != RhythmKind.Event && random.Next(3) == 0 && job.Rhythms.Any(r => r.Kind != RhythmKind.Event)
                        ? job.Rhythms.First(r => r.Kind != RhythmKind.Event).Id
                        : null,
            };
            try
            {
                job = job.Do(new AddRhythm(rhythm, n == 1 || random.Next(3) == 0));
            }
            catch (RefusedException)
            {
                // More would be done instead of another than that comes.
            }
        }
        foreach (var work in job.Work)
            if (random.Next(2) == 0)
                job = job.Do(
                    new SetWork(
                        work.Id,
                        "rhythm",
                        null,
                        Any(random, [Rhythm.Once, .. job.Rhythms.Select(r => r.Id)]).ToString()
                    )
                );
        void Set<T>(string field, T now) =>
            job = job.Do(
                new SetRound(
                    field,
                    ChangeSet.Get(job, "round/" + field),
                    JsonSerializer.SerializeToNode(now, Json.CoreJson.Options)
                )
            );
        Set("billing", Any(random, Enum.GetValues<RoundBilling>()));
        Set("start", $"2027-{random.Next(1, 13):00}-{random.Next(1, 29):00}");
        Set("rise", Any(random, 0m, 2.5m, -1m));
        Set("years", random.Next(1, 6));
        if (random.Next(2) == 0)
            Set(
                "supplies",
                Enumerable
                    .Range(0, random.Next(1, 4))
                    .Select(i => new YearSupply(
                        Sample.NewId(),
                        $"Supply {i}",
                        random.Next(50),
                        random.Next(5000) / 100m,
                        [.. Enumerable.Range(1, 12).Where(_ => random.Next(4) == 0)]
                    ))
                    .ToArray()
            );
        return job;
    }

    private static void Holds(int seed, Job job)
    {
        var estimate = Sample.Reckon(job);
        var price = estimate.Price;
        var year = Year.Of(estimate, Trace.Silent);
        if (price.Occurrences.IsEmpty)
        {
            Assert.Null(year);
            return;
        }
        void Same(decimal a, decimal b, string what) => Assert.True(a == b, $"{seed}, {what}: {a} and {b}");
        foreach (var one in year!.Occurrences.Where(o => o.Of.Occurrence.Band is null))
            Same(one.Of.Occurrence.Times.V, one.Visits.Sum(), "visits of " + one.Of.Occurrence.Name);
        Same(price.BeforeTax.V, year.Months.Sum(m => m.Billed.V), "billed");
        Same(price.Readouts.Cost.V, year.Months.Sum(m => m.Cost.V), "cost");
        Same(price.Readouts.GrossProfit.V, year.Months[^1].SoFar.V, "profit");
        Same(
            price.BeforeTax.V,
            price.Occurrences.Sum(o => o.Occurrence.Times.V * o.Price.V)
                + (price.Step("supplies")?.Amount.V ?? 0)
                + price.Steps.Where(s => s.IsDiscount || s.Key is "raised" or "adjustment").Sum(s => s.Amount.V),
            "occurrences"
        );
        var spread = Spread.Of(estimate, Trace.Silent);
        Same(price.BeforeTax.V, spread.Lines.Sum(l => l.V) + spread.NoLines.V + spread.Contingency.V, "lines");
        Same(price.BeforeTax.V, spread.Shown.Sum(l => l.V) + spread.Other.V + spread.Contingency.V, "shown lines");
        Same(price.BeforeTax.V, price.Portions.Sum(p => p.Amount.V), "parts");
        // Where only the price, or a term of the year, is another, what was reckoned stands: the same as if all were made anew.
        var other = job with
        {
            Pricing = job.Pricing with { Profit = job.Pricing.Profit + 1, LeastJob = 77 },
        };
        Same(Sample.Reckon(other).Price.Total.V, estimate.If(other).Price.Total.V, "with other terms");
        var without = job.Cells.Keys.OrderBy(k => k.Work).ThenBy(k => k.Place).First();
        var less = job with { Cells = job.Cells.Remove(without) };
        Same(Sample.Reckon(less).Price.Total.V, estimate.If(less, [without]).Price.Total.V, "without a cell");
        Assert.Equal(JobFile.Write(job), JobFile.Write(JobFile.Read(JobFile.Write(job))));
    }
}
