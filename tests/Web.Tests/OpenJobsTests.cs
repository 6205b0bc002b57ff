using System.Net.Http.Json;
using System.Runtime.CompilerServices;
using System.Text.Json.Nodes;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Jobs in memory: each seen at one version, few at a time, and none edited twice or lost on its way out.</summary>
public sealed class OpenJobsTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    private static Job Empty() =>
        Job.Empty(Guid.CreateVersion7(), new("Loft", "", "1", null, "Firm", "", "USD", "2026-01-15"), UnitSystem.Feet);

    private static AddPlace Edit(int n) => new(Guid.CreateVersion7(), $"Room {n} 9 x 7 x 8", "", null);

    [Fact]
    public async Task Whoever_reads_during_edits_sees_each_version_with_its_own_content()
    {
        using var server = Server.Start(folder.Path);
        var start = await server.Job();
        var (first, places) = ((long)start["version"]!, start["places"]!.AsArray().Count);
        using var stop = new CancellationTokenSource();
        var (reads, seen) = (0, new HashSet<long>());
        var readers = Enumerable
            .Range(0, 3)
            .Select(_ =>
                Task.Run(async () =>
                {
                    while (!stop.IsCancellationRequested)
                    {
                        var job = await server.Job();
                        var edits = (long)job["version"]! - first;
                        Assert.Equal(places + edits, job["places"]!.AsArray().Count);
                        Assert.Equal((int)job["tally"]!["places"]!, Count(job));
                        Assert.Equal(edits == 0 ? null : "addPlace", (string?)job["undo"]!["undo"]);
                        Interlocked.Increment(ref reads);
                        lock (seen)
                            seen.Add(edits);
                    }
                })
            )
            .ToArray();
        for (var i = 0; i < 60; i++)
            Assert.Equal(
                200,
                (
                    await server.Do(
                        "addPlace",
                        new()
                        {
                            ["place"] = Guid.CreateVersion7().ToString(),
                            ["line"] = $"Store {i} 9 x 7 x 8",
                            ["group"] = "",
                            ["after"] = null,
                        }
                    )
                ).Status
            );
        await stop.CancelAsync();
        await Task.WhenAll(readers);
        Assert.InRange(reads, 10, int.MaxValue);
        Assert.InRange(seen.Count, 3, 61);
        static int Count(JsonObject job) => job["places"]!.AsArray().Sum(p => (int)p!["count"]!);
    }

    [Fact]
    public void Jobs_that_were_not_used_lately_leave_memory_and_their_workings_before_them()
    {
        var open = new OpenJobs(new JobStore(Database.Open(folder.Path)), TimeProvider.System, new());
        var ids = Enumerable.Range(0, 2 * OpenJobs.Most).Select(_ => Made(open)).ToArray();
        var (jobs, workings) = (new List<WeakReference>(), new List<WeakReference>());
        foreach (var id in ids)
            Ask(open, id, jobs, workings);
        GC.Collect();
        Assert.InRange(jobs.Count(j => j.IsAlive), OpenJobs.Most / 2, OpenJobs.Most);
        Assert.InRange(workings.Count(w => w.IsAlive), 1, OpenJobs.MostRecorded + 1);
        // The first is read again, and is what it was.
        Assert.Equal(0, open.Get(ids[0]).Now.Version);
    }

    private static Guid Made(OpenJobs open)
    {
        var job = Empty();
        open.Create(job);
        return job.Id;
    }

    [MethodImpl(MethodImplOptions.NoInlining)]
    private static void Ask(OpenJobs open, Guid id, List<WeakReference> jobs, List<WeakReference> workings)
    {
        var job = open.Get(id);
        jobs.Add(new(job));
        workings.Add(new(job.Recorded()));
    }

    [Fact]
    public async Task Edits_of_jobs_that_come_and_go_are_each_done_once()
    {
        var store = new JobStore(Database.Open(folder.Path));
        var open = new OpenJobs(store, TimeProvider.System, new());
        var ids = Enumerable.Range(0, OpenJobs.Most + 20).Select(_ => Made(open)).ToArray();
        using var stop = new CancellationTokenSource();
        var others = Task.Run(() =>
        {
            for (var i = 0; !stop.IsCancellationRequested; i++)
                open.Get(ids[4 + i % (ids.Length - 4)]);
        });
        await Task.WhenAll(
            Enumerable
                .Range(0, 4)
                .Select(n =>
                    Task.Run(async () =>
                    {
                        for (var i = 0; i < 40; i++)
                            await open.Do(
                                ids[n],
                                job =>
                                    job.Do(
                                        new SentRedo(Guid.CreateVersion7(), 0, Server.Client),
                                        Edit(i),
                                        "the owner",
                                        _ => null
                                    )
                            );
                    })
                )
        );
        await stop.CancelAsync();
        await others;
        foreach (var id in ids[..4])
        {
            var opened = store.Open(id)!;
            Assert.Equal((40L, 40), (opened.Version, opened.Job.Places.Length));
        }
    }

    [Fact]
    public async Task Of_imports_of_one_file_at_once_one_is_taken_and_the_rest_are_refused_in_words()
    {
        using var server = Server.Start(folder.Path);
        var file = JobFile.Write(Empty());
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(_ =>
                {
                    var content = new ByteArrayContent(file);
                    content.Headers.ContentType = new("application/json");
                    return server.Http.PostAsync("/api/jobs/import", content);
                })
        );
        Assert.Single(answers, a => a.IsSuccessStatusCode);
        foreach (var refused in answers.Where(a => !a.IsSuccessStatusCode))
            Assert.Contains(
                "A job with that id is here already.",
                (string)(await refused.Content.ReadFromJsonAsync<JsonObject>())!["title"]!
            );
    }
}
