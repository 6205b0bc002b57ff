using System.Collections.Concurrent;
using System.IO.Compression;
using System.Net.Http.Json;
using System.Runtime.CompilerServices;
using System.Text.Json.Nodes;
using Emendum.Storage;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>kill -9 at any moment: nothing that was answered is lost, and nothing is half there.</summary>
[Trait(Scale.Category, Scale.Long)]
public sealed class KillTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    /// <summary>One editor: what was answered stands or not, and of what was on its way when the server went either may be.</summary>
    private sealed class Editor(int number)
    {
        public Guid Client { get; } = Guid.CreateVersion7();
        private readonly Dictionary<string, bool> stands = [];
        private readonly List<string> undoable = [];
        private (string Name, bool Stands)? onItsWay;
        private int made;

        public int Answered { get; private set; }

        /// <summary>Adds places and now and then takes the last back, until the server is gone.</summary>
        public async Task Edit(Server server, Guid job, Action answered)
        {
            while (true)
            {
                var undo = undoable.Count > 0 && made % 4 == 3;
                var name = undo ? undoable[^1] : $"Editor {number} room {made}";
                onItsWay = (name, !undo);
                made++;
                int status;
                try
                {
                    (status, _) = undo
                        ? await server.Reverse("undo", job, Client)
                        : await server.Do(
                            "addPlace",
                            new()
                            {
                                ["place"] = Guid.CreateVersion7().ToString(),
                                ["line"] = $"{name}: 10 x 10 x 8",
                                ["group"] = "Kills",
                                ["after"] = null,
                            },
                            job: job,
                            client: Client
                        );
                }
                catch (Exception gone) when (gone is HttpRequestException or IOException or InvalidOperationException)
                {
                    return;
                }
                Assert.Equal(200, status);
                stands[name] = !undo;
                onItsWay = null;
                Answered++;
                if (undo)
                    undoable.RemoveAt(undoable.Count - 1);
                else
                    undoable.Add(name);
                answered();
            }
        }

        /// <summary>Holds what is there against what was answered, and learns what became of the edit that was on its way.</summary>
        public void Check(IReadOnlySet<string> there)
        {
            if (onItsWay is { } open)
            {
                var now = there.Contains(open.Name);
                var done = now == open.Stands;
                stands[open.Name] = now;
                if (done && open.Stands)
                    undoable.Add(open.Name);
                else if (done)
                    undoable.Remove(open.Name);
                onItsWay = null;
            }
            foreach (var (name, stood) in stands)
                Assert.True(stood == there.Contains(name), $"{name} {(stood ? "is lost" : "is back")}.");
            Assert.Subset(
                stands.Keys.ToHashSet(),
                there.Where(n => n.StartsWith($"Editor {number} ", StringComparison.Ordinal)).ToHashSet()
            );
        }
    }

    [Fact]
    public async Task Kills_with_eight_editors_over_three_jobs_lose_no_answered_edit_and_leave_none_half_there()
    {
        var random = new Random(20261125);
        Guid[] jobs = [];
        Editor[] editors = [.. Enumerable.Range(0, 8).Select(n => new Editor(n))];
        var rounds = Scale.Of(6, 200);
        for (var round = 0; round <= rounds; round++)
        {
            using var server = Server.StartIn(folder.Path);
            if (jobs.Length == 0)
                jobs =
                [
                    .. (await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!
                        .Take(3)
                        .Select(j => Guid.Parse((string)j!["id"]!)),
                ];
            for (var j = 0; j < jobs.Length; j++)
            {
                var job = await server.Job(jobs[j]);
                var names = job["places"]!.AsArray().Select(p => (string)p!["name"]!).ToList();
                foreach (var editor in editors.Where((_, n) => n % 3 == j))
                    editor.Check(names.ToHashSet());
                Assert.Equal(names.Count, names.Distinct().Count());
                Assert.Equal((int)job["tally"]!["places"]!, job["places"]!.AsArray().Sum(p => (int)p!["count"]!));
            }
            if (round == rounds)
                break;
            // The clock starts with the round's first answer, so that edits stream when the kill comes, however slow the machine is.
            var begun = new TaskCompletionSource();
            var all = editors.Select((e, n) => e.Edit(server, jobs[n % 3], () => begun.TrySetResult())).ToArray();
            await begun.Task;
            await Task.Delay(random.Next(0, 400));
            server.Kill();
            await Task.WhenAll(all);
        }
        Assert.True(editors.Sum(e => e.Answered) >= rounds * 2, $"{editors.Sum(e => e.Answered)} edits were answered.");
        Assert.All(editors, e => Assert.True(e.Answered > 0));
        foreach (var job in jobs)
            new JobStore(Database.OpenCopy(Path.Combine(folder.Path, Database.FileName))).Prove(job);
    }

    /// <summary>Starts the server and kills it after so long, or when it has started.</summary>
    private void KilledAfter(int milliseconds)
    {
        using var process = Server.Launch("--port", "0", "--data", folder.Path);
        process.WaitForExit(milliseconds);
        if (!process.HasExited)
            process.Kill();
        process.WaitForExit();
    }

    [Fact]
    public async Task Kills_during_the_first_start_leave_a_whole_folder_or_none()
    {
        var (kills, random) = (Scale.Of(1, 30), new Random(1));
        for (var i = 0; i < kills; i++)
        {
            foreach (var file in Directory.GetFiles(folder.Path))
                File.Delete(file);
            KilledAfter(random.Next(50, 1500));
            using var server = Server.StartIn(folder.Path);
            Assert.Equal(7, (await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!.Count);
            Assert.Equal(4, (await server.Http.GetFromJsonAsync<JsonArray>("/api/customers"))!.Count);
            Assert.NotNull(await server.Http.GetFromJsonAsync<JsonObject>("/api/company"));
        }
    }

    [Fact]
    public async Task Kills_during_a_migration_leave_the_old_tables_or_the_new_and_a_whole_copy()
    {
        var (kills, random) = (Scale.Of(2, 30), new Random(2));
        for (var i = 0; i < kills; i++)
        {
            foreach (var file in Directory.GetFiles(folder.Path))
                File.Delete(file);
            using (var older = Older())
            using (var file = File.Create(Path.Combine(folder.Path, Database.FileName)))
                await older.CopyToAsync(file);
            KilledAfter(random.Next(50, 900));
            using var server = Server.StartIn(folder.Path);
            var jobs = (await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!;
            Assert.Equal(5, jobs.Count);
            foreach (var job in jobs)
                Assert.NotEmpty((await server.Job(Guid.Parse((string)job!["id"]!)))["places"]!.AsArray());
            // The copy from before is whole.
            Assert.Equal(5, Backup.Verify(Path.Combine(folder.Path, "emendum.before-step-4.db")).Jobs);
        }
    }

    private static GZipStream Older([CallerFilePath] string here = "") =>
        new(
            File.OpenRead(Path.Combine(Path.GetDirectoryName(here)!, "..", "Older", "version4.db.gz")),
            CompressionMode.Decompress
        );

    [Fact]
    public async Task A_file_damaged_anywhere_is_said_or_harms_nothing()
    {
        using (Server.StartIn(folder.Path)) { }
        var file = Path.Combine(folder.Path, Database.FileName);
        // What the killed server left in its write-ahead file is brought in first.
        Database.Open(folder.Path).Close();
        var whole = await File.ReadAllBytesAsync(file);
        var (times, random, said) = (Scale.Of(6, 80), new Random(3), new ConcurrentDictionary<int, int>());
        for (var i = 0; i < times; i++)
        {
            foreach (var beside in Directory.GetFiles(folder.Path))
                File.Delete(beside);
            var damaged = whole.ToArray();
            for (var n = random.Next(1, 40); n > 0; n--)
                damaged[random.Next(damaged.Length)] ^= (byte)random.Next(1, 256);
            if (i % 5 == 4)
                Array.Resize(ref damaged, random.Next(1, damaged.Length));
            await File.WriteAllBytesAsync(file, damaged);
            using var process = Server.Launch("--port", "0", "--data", folder.Path);
            var line = await process.StandardOutput.ReadLineAsync();
            if (line is null)
            {
                await process.WaitForExitAsync();
                var error = await process.StandardError.ReadToEndAsync();
                Assert.DoesNotContain("   at ", error);
                Assert.Equal(1, process.ExitCode);
                said.AddOrUpdate(0, 1, (_, n) => n + 1);
                continue;
            }
            try
            {
                using var http = new HttpClient
                {
                    BaseAddress = new(line[line.IndexOf("http://", StringComparison.Ordinal)..].Split(' ')[0]),
                };
                foreach (
                    var path in new[]
                    {
                        "/api/jobs",
                        "/api/customers",
                        "/api/book",
                        "/api/company",
                        $"/api/jobs/{Server.Library}",
                    }
                )
                {
                    using var response = await http.GetAsync(path);
                    said.AddOrUpdate((int)response.StatusCode, 1, (_, n) => n + 1);
                    var body = await response.Content.ReadAsStringAsync();
                    if (response.IsSuccessStatusCode)
                        continue;
                    Assert.DoesNotContain("   at ", body);
                    // Where its very id was hit, there is no such job.
                    if (response.StatusCode == System.Net.HttpStatusCode.NotFound && path.Contains("/jobs/"))
                        continue;
                    if (
                        ((string)JsonNode.Parse(body)!["title"]!).Contains(
                            "damaged",
                            StringComparison.OrdinalIgnoreCase
                        )
                    )
                        continue;
                    process.Kill();
                    Assert.Fail($"{path}, damage {i}: {body}\n{await process.StandardOutput.ReadToEndAsync()}");
                }
            }
            finally
            {
                process.Kill();
                await process.WaitForExitAsync();
            }
        }
        Assert.True(said.ContainsKey(200), "No damage was harmless.");
        Assert.True(said.Keys.Any(k => k != 200), "No damage was seen.");
    }
}
