using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What holds of alternates of any job under any terms: 300 of them here, 10,000 in ./run-long.</summary>
[Trait("Category", "Long")]
public class AlternatesPropertyTests
{
    private static readonly int Count = Properties.Times(300, 10_000);

    [Fact]
    public void What_is_printed_adds_up_to_what_is_signed_whatever_is_taken_and_taking_is_undone_to_the_byte()
    {
        var looked = 0;
        for (var seed = 3_000_000; seed < 3_000_000 + Count; seed++)
        {
            var random = new Random(seed);
            try
            {
                looked += Holds(seed, random, Offering(RandomPricing.Job(random), random));
            }
            catch (RefusedException)
            {
                // A job that cannot be priced as its terms say, with or without.
            }
        }
        Assert.InRange(looked, Count / 2, Count * 4);
    }

    /// <summary>The job with up to four alternates over work and places taken at random.</summary>
    internal static Job Offering(Job job, Random random)
    {
        for (var n = random.Next(1, 5); n > 0; n--)
        {
            var kind = random.Next(2) == 0 ? AlternateKind.Add : AlternateKind.Deduct;
            ImmutableArray<Guid> work = [.. job.Work.Select(w => w.Id).Where(_ => random.Next(2) == 0)];
            ImmutableArray<Guid> places = [.. job.Places.Select(p => p.Id).Where(_ => random.Next(2) == 0)];
            if (work.IsEmpty || places.IsEmpty)
                continue;
            if (kind == AlternateKind.Add)
                job = job with
                {
                    Cells = job.Cells.SetItems(
                        job.Cells.Where(c =>
                                c.Value is { State: CellState.Included, Alternate: null }
                                && work.Contains(c.Key.Work)
                                && places.Contains(c.Key.Place)
                            )
                            .Select(c => KeyValuePair.Create(c.Key, c.Value with { State = CellState.Alternate }))
                    ),
                };
            try
            {
                job = job.Do(new GroupAlternate(Sample.NewId(), $"Alternate {n}", kind, work, places));
            }
            catch (RefusedException)
            {
                // Nothing of that stands so.
            }
        }
        return job;
    }

    private static int Holds(int seed, Random random, Job job)
    {
        var estimate = Sample.Reckon(job);
        var offered = Alternates.Of(estimate).Where(o => o.Cells.Length > 0).ToArray();
        Guid[] chosen = [.. offered.Select(o => o.Id).Where(_ => random.Next(3) > 0)];
        var together = TakenTogether.Of(estimate, chosen, Trace.Silent);
        var price = together.Estimate.Price;
        var printed =
            together.Base.V
            + together.Taken.Sum(t => t.Price.V)
            + together.Together.V
            + (together.Rounding?.V ?? 0)
            + price.Tax
            + (price.Step("roundingAfterTax")?.Amount.V ?? 0);
        Assert.True(printed == price.Total.V, $"{seed}: printed {printed}, signed {price.Total.V}");
        if (chosen.Length == 0)
            Assert.True(price.Total.V == estimate.Price.Total.V, $"{seed}: nothing taken moves the price");
        var bytes = JobFile.Write(job);
        foreach (var alternate in job.Alternates.Where(a => TakeAlternate.CellsOf(job, a.Id).Length > 0))
        {
            var (taken, changes) = Commands.Apply(
                job,
                new TakeAlternate(alternate.Id, false, true, job.Pricing.FixedPrice),
                _ => null
            );
            Assert.True(
                bytes.AsSpan().SequenceEqual(JobFile.Write(ChangeSet.Apply(taken, ChangeSet.Reversed(changes)))),
                $"{seed}: {alternate.Name} undone"
            );
        }
        return job.Alternates.Length;
    }
}
