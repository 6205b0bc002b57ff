using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net.Http.Json;
using System.Net.WebSockets;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Bench;

/// <summary>Many editors at work on one job, each in a window that shows it and is told of the others' edits.</summary>
internal static class Load
{
    /// <summary>How long the editors work before it counts, s: the server compiles its code as it is first used, and makes the day's backup.</summary>
    private const int WarmUp = 20;

    /// <summary>What came of it.</summary>
    /// <param name="Times">From sending an edit to its answer, ms, in order.</param>
    /// <param name="Errors">Answers that were neither taken nor a conflict.</param>
    /// <param name="Conflicts">Edits refused because somebody else had changed the same.</param>
    /// <param name="Told">Edits of others that arrived in all windows together.</param>
    /// <param name="Seconds">How long it went on.</param>
    internal sealed record Result(double[] Times, int Errors, int Conflicts, long Told, double Seconds)
    {
        /// <summary>In one line.</summary>
        public override string ToString() =>
            $"median {At(0.5):0} ms, p95 {At(0.95):0} ms, p99 {At(0.99):0} ms; {Times.Length / Seconds:0.0} edits a second; {Errors} errors, {Conflicts} conflicts; {Told} edits of others told";

        private double At(double share) => Times[(int)(share * (Times.Length - 1))];
    }

    /// <summary>Lets so many editors work for so long.</summary>
    /// <param name="http">The server.</param>
    /// <param name="job">The job, which must be there; each editor has places of its own.</param>
    /// <param name="editors">How many.</param>
    /// <param name="seconds">How long.</param>
    /// <param name="thought">Between an answer and the next edit, s on average; none: as fast as it goes.</param>
    public static async Task<Result> Run(HttpClient http, Job job, int editors, int seconds, double thought)
    {
        var times = new ConcurrentBag<double>();
        var (errors, conflicts, told) = (0, 0, 0L);
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(WarmUp + seconds));
        var watch = Stopwatch.StartNew();
        async Task Edit(int number)
        {
            var (random, client, version) = (new Random(number), Guid.CreateVersion7(), 0L);
            using var window = await Window(http, job.Id, client, () => Interlocked.Increment(ref told), stop.Token);
            version = (long)
                (await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job.Id}/changes?since=0&client={client}"))![
                    "moved"
                ]!["to"]!;
            var places = job.Places.Where((_, i) => i % editors == number).ToArray();
            var state = new Dictionary<CellKey, bool>();
            while (!stop.IsCancellationRequested)
            {
                if (thought > 0)
                {
                    try
                    {
                        await Task.Delay(TimeSpan.FromSeconds(2 * thought * random.NextDouble()), stop.Token);
                    }
                    catch (OperationCanceledException)
                    {
                        return;
                    }
                }
                var (work, place) = (job.Work[random.Next(job.Work.Length)].Id, places[random.Next(places.Length)].Id);
                var key = new CellKey(work, place);
                var isIn = state.GetValueOrDefault(key, job.Cells[key].State == CellState.Included);
                var began = watch.Elapsed.TotalMilliseconds;
                var response = await http.PostAsJsonAsync(
                    $"/api/jobs/{job.Id}/commands",
                    new JsonObject
                    {
                        ["id"] = Guid.CreateVersion7().ToString(),
                        ["base"] = version,
                        ["client"] = client.ToString(),
                        ["command"] = new JsonObject
                        {
                            ["type"] = "fillCells",
                            ["state"] = isIn ? "excluded" : "included",
                            ["work"] = new JsonArray(work.ToString()),
                            ["places"] = new JsonArray(place.ToString()),
                            ["was"] = isIn ? "i" : "x",
                        },
                    }
                );
                var answer = await response.Content.ReadFromJsonAsync<JsonObject>();
                if (began > WarmUp * 1000)
                    times.Add(watch.Elapsed.TotalMilliseconds - began);
                if (response.IsSuccessStatusCode)
                {
                    state[key] = !isIn;
                    version = (long)answer!["moved"]!["to"]!;
                }
                else if ((int)response.StatusCode == 409)
                    Interlocked.Increment(ref conflicts);
                else
                    Interlocked.Increment(ref errors);
            }
        }
        await Task.WhenAll(Enumerable.Range(0, editors).Select(Edit));
        return new([.. times.Order()], errors, conflicts, Interlocked.Read(ref told), seconds);
    }

    /// <summary>A window's line: it shows the job, and reads what it is told.</summary>
    private static async Task<ClientWebSocket> Window(
        HttpClient http,
        Guid job,
        Guid client,
        Action told,
        CancellationToken stop
    )
    {
        var line = new ClientWebSocket();
        var address = new UriBuilder(http.BaseAddress!) { Scheme = "ws", Path = "/api/live" };
        await line.ConnectAsync(address.Uri, CancellationToken.None);
        Task Say(string message) =>
            line.SendAsync(
                Encoding.UTF8.GetBytes(message + '\u001e'),
                WebSocketMessageType.Text,
                true,
                CancellationToken.None
            );
        await Say("""{"protocol":"json","version":1}""");
        await Say($$"""{"type":1,"target":"Watch","arguments":["{{job}}","{{client}}"]}""");
        _ = Task.Run(
            async () =>
            {
                var buffer = new byte[64 * 1024];
                var told1 = "\"target\":\"moved\""u8.ToArray();
                try
                {
                    while (!stop.IsCancellationRequested)
                    {
                        var got = await line.ReceiveAsync(buffer, stop);
                        if (buffer.AsSpan(0, got.Count).IndexOf(told1) >= 0)
                            told();
                    }
                }
                catch (Exception gone) when (gone is OperationCanceledException or WebSocketException)
                {
                    // The end of the run.
                }
            },
            CancellationToken.None
        );
        return line;
    }
}
