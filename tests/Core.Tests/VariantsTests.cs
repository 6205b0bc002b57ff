using System.Text;
using System.Text.Json;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Variants: whole versions of an estimate side by side, hand-reckoned, and what holds of any.</summary>
public class VariantsTests
{
    private static readonly int Count = Properties.Times(300, 10_000);

    private static (Guid Base, Guid Other) Two(PricedJob job)
    {
        var (first, other) = (Sample.NewId(), Sample.NewId());
        job.Do(new AddVariant(other, "Better", first, "Plain"));
        return (first, other);
    }

    private static decimal?[] Prices(Job job) =>
        [.. PricedVariant.Of(Sample.Reckon(job)).Select(v => v.Estimate?.Price.BeforeTax.V)];

    [Fact]
    public void A_variant_is_the_job_until_it_is_changed_and_then_the_others_stay()
    {
        var job = new PricedJob();
        var (walls, doors) = (job.Work(labour: 100), job.Work(labour: 50));
        var (plain, better) = Two(job);
        // Equal to the job, it has its price.
        Assert.Equal([150m, 150m], Prices(job.Job));
        job.Do(new TakeVariant(plain, better));
        Assert.Equal([150m, 150m], Prices(job.Job));
        // In the better one the doors are left out and labour has 40 % on it: 140.
        job.Do(new SetPiece(PieceKind.Work, doors, PieceState.In, PieceState.Out));
        job.Do(new SetPricing("labourMarkup", "0", "40"));
        Assert.Equal([150m, 140m], Prices(job.Job));
        // A third is as the job stands now; the plain one has the doors, for 150.
        var third = Sample.NewId();
        job.Do(new AddVariant(third, "Third", Sample.NewId(), ""));
        Assert.Equal([150m, 140m, 140m], Prices(job.Job));
        // Its walls go by their own least charge: 300. The others are as they were.
        job.Do(new TakeVariant(better, third));
        job.Set(walls, "least", 300m);
        Assert.Equal([150m, 140m, 300m], Prices(job.Job));
        job.Do(new TakeVariant(third, plain));
        Assert.Equal((150m, 0m), (job.Price.BeforeTax.V, job.Job.Pricing.LabourMarkup));
        Assert.Equal([150m, 140m, 300m], Prices(job.Job));
    }

    [Fact]
    public void Taking_one_and_another_back_restores_the_bytes_and_so_does_undoing_it()
    {
        var job = new PricedJob();
        job.Work(labour: 100);
        var (plain, better) = Two(job);
        job.Do(new TakeVariant(plain, better));
        job.Do(new SetPricing("profit", "0", "25"));
        job.Work(labour: 70, section: "More");
        var before = JobFile.Write(job.Job);
        var (taken, changes) = Commands.Apply(job.Job, new TakeVariant(better, plain), _ => null);
        Assert.Equal(100m, Sample.Reckon(taken).Price.BeforeTax.V);
        Assert.Single(taken.Work);
        Assert.Equal(before, JobFile.Write(ChangeSet.Apply(taken, ChangeSet.Reversed(changes))));
        Assert.Equal(before, JobFile.Write(taken.Do(new TakeVariant(plain, better))));
        Assert.Equal(before, JobFile.Write(JobFile.Read(before)));
    }

    [Fact]
    public void Work_of_one_variant_is_not_in_another_and_places_are_in_all()
    {
        var job = new PricedJob();
        var walls = job.Work(labour: 100);
        var room = job.Job.Places[0].Id;
        var (plain, better) = Two(job);
        job.Do(new TakeVariant(plain, better));
        job.Do(new RemoveWork(walls));
        var more = job.Work(labour: 30, at: [room]);
        Assert.Equal([100m, 30m], Prices(job.Job));
        // A room measured anew is measured anew in both: twice the floor.
        job.Do(new RemeasurePlace(room, job.Job.Place(room)!.Line, "R 10 x 20 x 8"));
        Assert.Equal([200m, 60m], Prices(job.Job));
        // A room that is gone is gone in both.
        job.Do(new RemovePlaces([room]));
        Assert.Equal([0m, 0m], Prices(job.Job));
        job.Do(new TakeVariant(better, plain));
        Assert.Equal([walls], job.Job.Work.Select(w => w.Id));
        Assert.Equal([more], Variants.Of(job.Job, better).Work.Select(w => w.Id));
    }

    [Fact]
    public void What_differs_stands_by_work_with_words_the_largest_difference_first()
    {
        var job = new PricedJob();
        var (small, large) = (job.Work(labour: 10), job.Work(labour: 500));
        var (plain, better) = Two(job);
        job.Do(new TakeVariant(plain, better));
        job.Set(small, "least", 25m);
        job.Do(new SetPiece(PieceKind.Work, large, PieceState.In, PieceState.Out));
        var theirs = Variants.Of(job.Job, plain);
        var two = SecondEstimate.Of(job.Estimate, theirs, Trace.Silent, "");
        Assert.Equal((25m, 510m, 485m), (two.Price.Ours.V, two.Price.Theirs.V, two.Price.More.V));
        Assert.Equal([large, small], two.Work.Select(w => w.Item.Id));
        Assert.Equal([500m, -15m], two.Work.Select(w => w.Price.More.V));
        Assert.Equal("1 cell", PricedVariant.WhatDiffers(job.Job, theirs, large));
        Assert.Equal("least charge", PricedVariant.WhatDiffers(job.Job, theirs, small));
    }

    [Fact]
    public void A_variant_that_is_removed_leaves_nothing_and_the_last_two_end_together()
    {
        var job = new PricedJob();
        job.Work(labour: 100);
        var plainBytes = JobFile.Write(job.Job);
        var (plain, better) = Two(job);
        job.Do(new TakeVariant(plain, better));
        job.Do(new SetPricing("profit", "0", "25"));
        job.Do(new TakeVariant(better, plain));
        Assert.NotEmpty(job.Job.Differs);
        job.Do(new RemoveVariant(better));
        Assert.Equal(plainBytes, JobFile.Write(job.Job));
    }

    [Fact]
    public void What_cannot_be_is_refused()
    {
        var job = new PricedJob();
        job.Work(labour: 100);
        var (plain, better) = Two(job);
        Assert.Throws<RefusedException>(() => job.Job.Do(new RemoveVariant(plain)));
        Assert.Throws<ConflictException>(() => job.Job.Do(new TakeVariant(better, plain)));
        Assert.Throws<RefusedException>(() => job.Job.Do(new TakeVariant(plain, Sample.NewId())));
        Assert.Throws<RefusedException>(() => job.Job.Do(new RenameVariant(better, "Better", "plain")));
        Assert.Throws<RefusedException>(() => job.Job.Do(new AddVariant(Sample.NewId(), " ", plain, "")));
        for (var n = 3; n <= Variants.Most; n++)
            job.Do(new AddVariant(Sample.NewId(), $"Number {n}", plain, ""));
        Assert.Throws<RefusedException>(() => job.Job.Do(new AddVariant(Sample.NewId(), "One more", plain, "")));
    }

    [Theory]
    [InlineData("places/01940000-0000-7000-8000-000000000001", "null")]
    [InlineData("work", "null")]
    [InlineData("pricing", "{}")]
    [InlineData("pricing", "3")]
    [InlineData("work/01940000-0000-7000-8000-0000000000ff", "{\"id\":1}")]
    [InlineData("cells/x/y", "null")]
    public void A_file_in_which_a_variant_holds_what_it_cannot_is_refused(string path, string value)
    {
        var job = new PricedJob();
        job.Work(labour: 100);
        var (_, better) = Two(job);
        var text = Encoding.UTF8.GetString(JobFile.Write(job.Job));
        var wrong = text.Replace(
            "\"variants\": [",
            $"\"differs\": [{{\"variant\": \"{better}\", \"path\": \"{path}\", \"value\": {value}}}], \"variants\": [",
            StringComparison.Ordinal
        );
        Assert.NotEqual(text, wrong);
        Assert.Throws<RefusedException>(() => JobFile.Read(Encoding.UTF8.GetBytes(wrong)));
    }

    [Fact]
    [Trait("Category", "Long")]
    public void Side_by_side_it_has_the_price_that_it_has_when_it_is_taken_and_coming_back_changes_nothing()
    {
        var looked = 0;
        for (var seed = 4_000_000; seed < 4_000_000 + Count; seed++)
        {
            var random = new Random(seed);
            try
            {
                looked += Holds(seed, random, RandomPricing.Job(random));
            }
            catch (RefusedException)
            {
                // A job that cannot be priced as its terms say.
            }
        }
        Assert.InRange(looked, Count, Count * 6);
    }

    private static int Holds(int seed, Random random, Job job)
    {
        Guid[] ids = [.. Enumerable.Range(0, random.Next(2, 4)).Select(_ => Sample.NewId())];
        foreach (var (id, n) in ids.Skip(1).Select((id, n) => (id, n)))
            job = job.Do(new AddVariant(id, $"Variant {n}", ids[0], "First"));
        Assert.True(Prices(job).Distinct().Count() == 1, $"{seed}: equal to the job, it has its price");
        var looked = 0;
        for (var edit = 0; edit < 6; edit++)
        {
            job = Edited(job, random);
            if (random.Next(2) == 0)
                continue;
            var now = job.Variants.Single(v => v.Taken).Id;
            var to = ids.Where(i => i != now).ElementAt(random.Next(ids.Length - 1));
            var (before, beside) = (JobFile.Write(job), Prices(job));
            var taken = job.Do(new TakeVariant(now, to));
            Assert.True(beside.SequenceEqual(Prices(taken)), $"{seed}: taking one moves no price");
            Assert.True(
                before.AsSpan().SequenceEqual(JobFile.Write(taken.Do(new TakeVariant(to, now)))),
                $"{seed}: there and back"
            );
            Assert.True(before.AsSpan().SequenceEqual(JobFile.Write(JobFile.Read(before))), $"{seed}: file");
            (job, looked) = (taken, looked + 1);
        }
        return looked;
    }

    /// <summary>An edit that the price does not refuse.</summary>
    private static Job Edited(Job job, Random random)
    {
        var (work, place) = (job.Work[random.Next(job.Work.Length)].Id, job.Places[random.Next(job.Places.Length)].Id);
        Command command = random.Next(4) switch
        {
            0 => new FillCells(
                [work],
                [place],
                job.Seen([work], [place]),
                random.Next(2) == 0 ? null : CellState.Included
            ),
            1 => new SetPricing(
                "overhead",
                ChangeSet.Get(job, "pricing/overhead"),
                JsonSerializer.SerializeToNode((decimal)random.Next(30), Json.CoreJson.Options)
            ),
            2 => new SetWork(
                work,
                "colour",
                ChangeSet.Get(job, $"work/{work}/colour"),
                JsonSerializer.SerializeToNode($"Colour {random.Next(9)}", Json.CoreJson.Options)
            ),
            _ => new SetWork(
                work,
                "least",
                ChangeSet.Get(job, $"work/{work}/least"),
                JsonSerializer.SerializeToNode((decimal)random.Next(400), Json.CoreJson.Options)
            ),
        };
        try
        {
            return job.DoPriced(command);
        }
        catch (RefusedException)
        {
            return job;
        }
    }
}
