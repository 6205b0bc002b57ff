using System.Collections.Immutable;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Work that waits for work, in long rows and rings: refused or reckoned, on a small stack.</summary>
public class WaitTests
{
    /// <summary>A job whose pieces of work each wait for the one before; with <paramref name="ring"/> the first for the last.</summary>
    private static Job Row(int length, bool ring = false)
    {
        var role = Sample.Role();
        var rate = Sample.Rate(Measure.FloorArea, role, null, "100 ft² per h");
        var (job, work, place) = Sample.With("R 10 x 10 x 8", [role, rate], rate.Id);
        var first = job.Item(work)!;
        var ids = Enumerable.Range(0, length).Select(_ => Sample.NewId()).ToArray();
        var items = ids.Select(
            (id, i) =>
                first with
                {
                    Id = id,
                    Rank = $"m{i:D6}",
                    Name = $"Work {i + 1}",
                    WaitsFor =
                        i > 0 ? [ids[i - 1]]
                        : ring ? [ids[^1]]
                        : [],
                }
        );
        return job with
        {
            Work = [.. items],
            Cells = ids.ToImmutableDictionary(id => new CellKey(id, place), _ => new Cell(CellState.Included, "")),
        };
    }

    /// <summary>Runs on a stack that a few hundred nested calls would fill.</summary>
    private static T OnSmallStack<T>(Func<T> run)
    {
        T? result = default;
        Exception? wrong = null;
        var thread = new Thread(
            () =>
            {
                try
                {
                    result = run();
                }
                catch (Exception caught)
                {
                    wrong = caught;
                }
            },
            256 * 1024
        );
        thread.Start();
        thread.Join();
        return wrong is null ? result! : throw new InvalidOperationException(wrong.Message, wrong);
    }

    [Fact]
    public void A_file_of_more_work_than_a_job_takes_is_refused_in_a_sentence()
    {
        var wrong = Assert.Throws<RefusedException>(() => JobFile.Read(JobFile.Write(Row(JobRules.MostWork + 1))));
        Assert.Equal("A job takes at most 2,000 pieces of work.", wrong.Refusal.Message);
    }

    [Fact]
    public void The_longest_row_of_waits_is_read_checked_and_reckoned_without_recursion()
    {
        var days = OnSmallStack(() =>
            Sample.Reckon(JobFile.Read(JobFile.Write(Row(JobRules.MostWork)))).Reckoned.Costs.Duration.Days.V
        );
        // 2,000 times 100 ft² at 100 ft²/h by three people, eight hours a day: 83.33 days.
        Assert.Equal(84m, days);
    }

    [Fact]
    public void A_ring_of_all_work_is_refused_and_only_its_beginning_is_named()
    {
        var wrong = OnSmallStack(() =>
            Assert.Throws<RefusedException>(() => JobRules.Check(Row(JobRules.MostWork, ring: true)))
        );
        Assert.StartsWith("Work waits for itself: Work 1 → Work 2000 → Work 1999 → ", wrong.Refusal.Message);
        Assert.EndsWith("→ … → Work 1.", wrong.Refusal.Message);
        Assert.Equal("waitsFor", wrong.Refusal.Field);
    }

    [Fact]
    public void A_ring_made_by_one_edit_is_named_from_the_work_that_was_edited()
    {
        var job = Row(3);
        var wrong = Assert.Throws<RefusedException>(() =>
            job.Do(
                new SetWork(
                    job.Work[0].Id,
                    "waitsFor",
                    ChangeSet.Get(job, $"work/{job.Work[0].Id}/waitsFor"),
                    System.Text.Json.JsonSerializer.SerializeToNode(
                        ImmutableArray.Create(job.Work[2].Id),
                        CoreJson.Options
                    )
                )
            )
        );
        Assert.Equal("Work waits for itself: Work 1 → Work 3 → Work 2 → Work 1.", wrong.Refusal.Message);
    }

    [Fact]
    public void A_grid_larger_than_a_job_takes_is_refused()
    {
        var job = Row(201);
        var place = job.Places[0];
        var many = job with
        {
            Places =
            [
                .. Enumerable
                    .Range(0, JobRules.MostPlaces)
                    .Select(i =>
                        place with
                        {
                            Id = i == 0 ? place.Id : Sample.NewId(),
                            Name = $"R{i}",
                            Rank = $"m{i:D6}",
                        }
                    ),
            ],
        };
        var wrong = Assert.Throws<RefusedException>(() => JobRules.Check(many));
        Assert.Contains("a grid of more than 1,000,000 cells", wrong.Refusal.Message);
    }
}
