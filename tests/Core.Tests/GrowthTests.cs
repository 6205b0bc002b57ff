using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Twice the work costs twice as much and no more, where once it cost four times: what is looked up for a line must not be looked for among all lines. Counted in bytes; what only costs steps is
/// held against sizes in the bench.</summary>
public sealed class GrowthTests
{
    /// <summary>So many rooms, each opening into the next, and in each everything that has a charge; every second line is an allowance.</summary>
    private static Job Of(int places)
    {
        var job = Sample
            .Empty()
            .Do(
                new AddPlaces(
                    [
                        .. Enumerable
                            .Range(0, places)
                            .Select(i => new NewPlace(
                                Sample.NewId(),
                                $"Room {i}: 10 x 10 x 8; pass-through 3 x 7",
                                "",
                                "",
                                "",
                                [],
                                []
                            )),
                    ],
                    []
                )
            );
        job = job with
        {
            Places =
            [
                .. job.Places.Select(
                    (p, i) =>
                        i == places - 1
                            ? p
                            : p with
                            {
                                Openings = [.. p.Openings.Select(o => o with { Into = job.Places[i + 1].Id })],
                            }
                ),
            ],
        };
        foreach (
            var entry in StarterBook
                .Entries.OfType<Assembly>()
                .Where(a => a.Components.Any(c => c.Kind == ComponentKind.Charge))
                .Take(3)
        )
            job = job.Do(new AddWork(Sample.NewId(), entry.Id, null));
        var cells = ImmutableDictionary.CreateBuilder<CellKey, Cell>();
        foreach (var work in job.Work)
        foreach (var place in job.Places)
            cells[new(work.Id, place.Id)] = new(CellState.Included, "")
            {
                Allowance = cells.Count % 2 == 0 ? 100m : null,
            };
        return job with { Cells = cells.ToImmutable() };
    }

    private static long Bytes(Action action)
    {
        action();
        var before = GC.GetAllocatedBytesForCurrentThread();
        action();
        return GC.GetAllocatedBytesForCurrentThread() - before;
    }

    [Fact]
    public void Reckoning_pricing_and_explaining_grow_with_the_job_and_no_faster()
    {
        var (small, large) = (Of(60), Of(240));
        Assert.Equal((3, 180, 720), (small.Work.Length, small.Cells.Count, large.Cells.Count));
        Assert.True(Sample.Reckon(large).Price.BeforeTax.V > 36_000);
        foreach (
            var (what, reckon) in new (string, Action<Job>)[]
            {
                ("silent", job => Estimate.Of(job, Trace.Silent)),
                ("recorded", job => Reported.Record(job)),
                ("one edit", job => OneEdit(job)),
            }
        )
        {
            var (few, many) = (Bytes(() => reckon(small)), Bytes(() => reckon(large)));
            Assert.True(many < 4.6 * few, $"{what}: {few:N0} bytes for 60 places, {many:N0} for 240.");
        }
    }

    private static void OneEdit(Job job)
    {
        var (work, place) = (job.Work[0].Id, job.Places[^1].Id);
        var before = Estimate.Of(job, Trace.Silent);
        before.If(job.Fill(work, [place], CellState.Excluded), [new(work, place)]);
    }

    [Fact]
    public void Opening_a_job_reads_of_its_older_edits_what_was_done_and_not_what_it_changed()
    {
        var folder = Directory.CreateTempSubdirectory("emendum-growth-");
        try
        {
            var store = new JobStore(Database.Open(folder.FullName));
            var glance = JobGlance.Of(Sample.Reckon(Of(1)));
            // Each edit says some 6 kB: what stood in the notes before, and what stands there now.
            long Opened(int edits)
            {
                var job = Of(1) with { Id = Sample.NewId() };
                var place = job.Places[0].Id;
                store.Create(job, glance, DateTime.UnixEpoch);
                var log = new List<(Job, LogEntry)>();
                for (var i = 1; i <= edits; i++)
                {
                    var now = JsonValue.Create(new string((char)('a' + i % 26), 3000));
                    var set = new SetPlaces("notes", [new(place, ChangeSet.Get(job, $"places/{place}/notes"), now)]);
                    (job, var changes) = Commands.Apply(job, set, _ => null);
                    log.Add((job, new(i, Sample.NewId(), null, "setPlaces", new("Nora", default), "", null, changes)));
                }
                store.Commit(log, glance);
                return Bytes(() => Assert.Equal(edits, store.Open(job.Id)!.Version));
            }
            var (few, many) = (
                Opened(JobStore.EntriesBetweenSnapshots + 1),
                Opened(5 * JobStore.EntriesBetweenSnapshots + 1)
            );
            var each = (many - few) / (4.0 * JobStore.EntriesBetweenSnapshots);
            Assert.InRange(each, 1, 1000);
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            folder.Delete(recursive: true);
        }
    }
}
