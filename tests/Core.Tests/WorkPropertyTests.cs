using CsCheck;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Reports;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What holds of any run of edits on the Work station.</summary>
public class WorkPropertyTests
{
    private static readonly Job[] Start = [.. DemoJobs.Fixed()];

    private static Job? Try(Job job, Command command)
    {
        try
        {
            return job.DoPriced(command);
        }
        catch (RefusedException)
        {
            // A random choice may not fit the work it falls on; then nothing was changed.
            return null;
        }
    }

    [Fact]
    public void Any_run_of_edits_undone_one_by_one_restores_the_bytes()
    {
        var made = 0;
        Gen.Select(Gen.Int[0, 3], Gen.Int.Array[1, 14])
            .Always(
                (which, seeds) =>
                {
                    var job = Start[which];
                    var states =
                        new Stack<(
                            Job Before,
                            string Bytes,
                            System.Collections.Immutable.ImmutableArray<Change> Changes
                        )>();
                    foreach (var seed in seeds)
                    {
                        var (command, bytes) = (RandomWork.Command(job, new Random(seed)), JobTests.File(job));
                        try
                        {
                            var (after, changes) = Commands.Apply(
                                job,
                                command,
                                id => StarterBook.Entries.FirstOrDefault(e => e.Id == id)
                            );
                            states.Push((job, bytes, changes));
                            job = after;
                            Interlocked.Increment(ref made);
                        }
                        catch (RefusedException)
                        {
                            // Refused, it left nothing behind.
                            Assert.Equal(bytes, JobTests.File(job));
                        }
                    }
                    while (states.TryPop(out var state))
                    {
                        job = ChangeSet.Apply(job, ChangeSet.Reversed(state.Changes));
                        Assert.Equal(state.Bytes, JobTests.File(job));
                    }
                },
                times: 60
            );
        Assert.InRange(made, 150, int.MaxValue);
    }

    [Fact]
    public void Edits_of_different_cells_commute()
    {
        var both = 0;
        Gen.Select(Gen.Int[0, 3], Gen.Int, Gen.Int)
            .Always(
                (which, a, b) =>
                {
                    var job = Start[which];
                    var one = RandomWork.Block(job, new Random(a));
                    var two = RandomWork.Block(job, new Random(b));
                    if (one.Work.Intersect(two.Work).Any() && one.Places.Intersect(two.Places).Any())
                        return;
                    var (first, second) = (
                        RandomWork.OnCells(job, new Random(a), one.Work, one.Places),
                        RandomWork.OnCells(job, new Random(b), two.Work, two.Places)
                    );
                    if (Try(job, first) is not { } afterFirst || Try(job, second) is not { } afterSecond)
                        return;
                    Assert.Equal(JobTests.File(afterFirst.Do(second)), JobTests.File(afterSecond.Do(first)));
                    Interlocked.Increment(ref both);
                },
                times: 250
            );
        Assert.InRange(both, 60, int.MaxValue);
    }

    [Fact]
    public void Reckoning_on_from_the_last_equals_reckoning_all_anew()
    {
        Gen.Select(Gen.Int[0, 3], Gen.Int.Array[1, 12])
            .Always(
                (which, seeds) =>
                {
                    var job = Start[which];
                    var reckoning = Sample.Reckon(job);
                    foreach (var seed in seeds)
                    {
                        // As an open job does it: where only cells changed, only those are reckoned.
                        var before = job;
                        var command = RandomWork.Command(job, new Random(seed));
                        if (Try(job, command) is not { } after)
                            continue;
                        var changes = Commands
                            .Apply(before, command, id => StarterBook.Entries.FirstOrDefault(e => e.Id == id))
                            .Changes;
                        reckoning = changes.IsEmpty
                            ? reckoning
                            : Estimate.Of(job = after, Trace.Silent, reckoning, ChangeSet.OnlyCells(changes));
                    }
                    return JobTests.Dump(reckoning) == JobTests.Dump(Sample.Reckon(JobTests.Read(JobTests.File(job))));
                },
                times: 40
            );
    }

    [Fact]
    public void After_any_run_of_edits_every_figure_is_still_recomputed_from_its_workings()
    {
        Gen.Int.Array[4, 10]
            .Always(
                seeds =>
                {
                    var job = Start[0];
                    foreach (var seed in seeds)
                        job = Try(job, RandomWork.Command(job, new Random(seed))) ?? job;
                    WorkingsTests.Recomputed(Reported.Record(job).Trace);
                },
                times: 16
            );
    }
}
