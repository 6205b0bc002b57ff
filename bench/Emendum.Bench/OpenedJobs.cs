using System.Collections.Immutable;
using System.Diagnostics;
using System.Text.Json.Nodes;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Trace = Emendum.Core.Figures.Trace;

namespace Emendum.Bench;

/// <summary>What it takes to open jobs: one with a long log, and many one after another.</summary>
internal static class OpenedJobs
{
    /// <summary>Opens a job with so many edits behind it from disk, and reckons it: median of five, ms.</summary>
    public static double WithEdits(Job job, int edits)
    {
        var folder = Directory.CreateTempSubdirectory("emendum-bench-").FullName;
        try
        {
            var store = new JobStore(Database.Open(folder));
            var glance = JobGlance.Of(Estimate.Of(job, Trace.Silent));
            store.Create(job, glance, DateTime.UtcNow);
            for (var i = 1; i <= edits; i++)
            {
                var (work, place) = (job.Work[i % job.Work.Length].Id, job.Places[i * 7 % job.Places.Length].Id);
                var now =
                    job.Cells[new(work, place)].State == CellState.Included ? CellState.Excluded : CellState.Included;
                var fill = new FillCells([work], [place], job.Seen([work], [place]), now);
                (job, var changes) = Commands.Apply(job, fill, _ => null);
                store.Commit(
                    [
                        (
                            job,
                            new(
                                i,
                                Guid.CreateVersion7(),
                                null,
                                "fillCells",
                                new("the owner", default),
                                "",
                                null,
                                changes
                            )
                        ),
                    ],
                    glance
                );
            }
            var times = new List<double>();
            for (var run = 0; run < 5; run++)
            {
                GC.Collect();
                var watch = Stopwatch.StartNew();
                Estimate.Of(store.Open(job.Id)!.Job, Trace.Silent);
                times.Add(watch.Elapsed.TotalMilliseconds);
            }
            return times.Order().ElementAt(2);
        }
        finally
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(folder, recursive: true);
        }
    }

    /// <summary>Opens so many jobs of the library's size one after another, and asks each for the workings of its price: most memory that the server held, MB.</summary>
    public static async Task<double> Memory(HttpClient http, Process server, int jobs)
    {
        var library = DemoJobs.Fixed().MaxBy(j => j.Cells.Count)!;
        for (var i = 0; i < jobs; i++)
        {
            var job = library with { Id = Guid.CreateVersion7() };
            using var content = new ByteArrayContent(JobFile.Write(job))
            {
                Headers = { { "content-type", "application/json" } },
            };
            (await http.PostAsync("/api/jobs/import", content)).EnsureSuccessStatusCode();
            (await http.GetAsync($"/api/jobs/{job.Id}")).EnsureSuccessStatusCode();
            (await http.GetAsync($"/api/jobs/{job.Id}/workings?figure=price/total")).EnsureSuccessStatusCode();
        }
        var peak = File.ReadLines($"/proc/{server.Id}/status")
            .First(l => l.StartsWith("VmHWM", StringComparison.Ordinal));
        return double.Parse(
                peak.Split(' ', StringSplitOptions.RemoveEmptyEntries)[^2],
                System.Globalization.CultureInfo.InvariantCulture
            ) / 1024;
    }
}
