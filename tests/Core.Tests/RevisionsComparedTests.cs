using System.Text.Json.Nodes;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Two revisions side by side: what differs sums to the difference of their prices.</summary>
public class RevisionsComparedTests
{
    private static RevisionsCompared Compared(Job a, Job b)
    {
        var (before, after) = (Sample.Reckon(a), Sample.Reckon(b));
        var compared = RevisionsCompared.Of(
            RevisionFigures.Of(before),
            Sample.Document(before),
            RevisionFigures.Of(after),
            Sample.Document(after)
        );
        Assert.Equal(
            after.Price.BeforeTax.V - before.Price.BeforeTax.V,
            compared.Added.Concat(compared.Dropped).Concat(compared.Repriced).Sum(d => d.By)
        );
        return compared;
    }

    [Fact]
    public void What_is_the_same_differs_in_nothing()
    {
        var job = Sample.Library();
        var compared = Compared(job, job);
        Assert.Empty(compared.Added.Concat(compared.Dropped).Concat(compared.Repriced));
        Assert.Empty(compared.Reworded);
        Assert.Equal(RevisionFigures.Of(Sample.Reckon(job)).Lines.Length, compared.Same);
    }

    [Fact]
    public void Added_dropped_repriced_and_the_discount_each_stand_with_both_prices()
    {
        var job = new PricedJob();
        var (hall, study) = (job.Place(), job.Place());
        var walls = job.Work(charge: 100, at: [hall, study], section: "Walls");
        var doors = job.Work(charge: 30, at: [hall], section: "Doors");
        var before = job.Job;
        job.Work(charge: 45, at: [study], section: "Floors");
        var after = job
            .Job.Fill(doors, [hall], null)
            .Set(walls, study, "quantity", new TypedQuantity(Quantities.Kind.Area, "150", Quantities.UnitSystem.Feet));
        after = after with { Pricing = after.Pricing with { Discounts = [new("second job", 10, null)] } };
        var compared = Compared(before, after);
        var (names, titled) = (before.Places.Select(p => p.Name).ToArray(), after.Titled(after.Item(walls)!));
        Assert.Equal(new($"{names[1]}: {after.Titled(after.Work[^1])}", "", null, 45m), Assert.Single(compared.Added));
        Assert.Equal(
            new($"{names[0]}: {before.Titled(before.Item(doors)!)}", "", 30m, null),
            Assert.Single(compared.Dropped)
        );
        // Two places of 100 ft²; one of them is 150 now: 250 in all. 10 % of 295 goes off.
        Assert.Equal(
            [new(titled, "200.0 ft² → 250.0 ft²", 200m, 250m), new("Discount", "second job", 0m, -29.5m)],
            compared.Repriced.ToArray()
        );
        Assert.Equal(0, compared.Same - 1);
    }

    [Fact]
    public void Words_that_differ_are_told_word_by_word_and_the_sides_can_be_had_back()
    {
        var job = new PricedJob();
        job.Work(charge: 1);
        Job Letter(string words) =>
            job.Job.Do(new SetBlock(ProposalBlock.First(BlockKind.Letter), "words", null, JsonValue.Create(words)));
        var (a, b) = ("We would do the work in two stretches.", "We would do the work in three long stretches, then.");
        var reworded = Assert.Single(Compared(Letter(a), Letter(b)).Reworded);
        Assert.Equal("Letter", reworded.Title);
        Assert.Equal(a, string.Concat(reworded.Runs.Where(r => r.Change != WordChange.Came).Select(r => r.Text)));
        Assert.Equal(b, string.Concat(reworded.Runs.Where(r => r.Change != WordChange.Went).Select(r => r.Text)));
        Assert.Equal("We would do the work in ", reworded.Runs[0].Text);
        // A block that is gone, or is new, differs as a whole.
        var gone = Assert.Single(Compared(Letter(a), job.Job).Reworded);
        Assert.Equal([new WordRun(WordChange.Went, a)], gone.Runs.ToArray());
        Assert.Equal([new WordRun(WordChange.Came, b)], WordRun.Between("", b).ToArray());
        Assert.Empty(WordRun.Between("", ""));
        // Texts of any length are compared in bounded time: beyond it one replaces the other.
        var long_ = string.Join(' ', Enumerable.Range(0, WordRun.Most + 1));
        Assert.Equal(2, WordRun.Between(long_, long_ + " more").Length);
    }

    [Fact]
    public void Differences_sum_for_jobs_edited_at_random()
    {
        var (looked, demo) = (0, DemoJobs.Fixed().ToArray());
        for (var seed = 0; seed < 60; seed++)
        {
            var random = new Random(7_700 + seed);
            try
            {
                var before = demo[random.Next(demo.Length)];
                var after = before;
                for (var i = 0; i < 6; i++)
                    try
                    {
                        after = after.DoPriced(RandomWork.Command(after, random));
                    }
                    catch (RefusedException)
                    {
                        // A random choice may not fit the work it falls on.
                    }
                Compared(before, after);
                looked++;
            }
            catch (RefusedException)
            {
                // A job that cannot be priced as its terms say.
            }
        }
        Assert.InRange(looked, 40, 60);
    }
}
