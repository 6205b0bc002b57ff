using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Jobs;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>The Work station over HTTP: fills of whole grids on disk, previews that keep nothing, the ways between job and Book.</summary>
public sealed class WorkApiTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    private static JsonArray Ids(JsonNode? list) =>
        [.. list!.AsArray().Select(x => (JsonNode)x!["id"]!.GetValue<string>())];

    /// <summary>Everything of the library excluded: some four hundred cells in one edit.</summary>
    private static async Task<(string Type, JsonObject Fields)> ExcludeAll(Server server)
    {
        var job = await server.Job();
        var (work, places) = (Ids(job["work"]), Ids(job["places"]));
        var letters = job["cells"]!
            .AsArray()
            .SelectMany(w =>
                w!["cells"]!
                    .AsArray()
                    .Select(c =>
                        (
                            Key: $"{w["work"]}/{c!["place"]}",
                            Letter: c["state"]!.GetValue<string>() == "included" ? 'i' : 'x'
                        )
                    )
            )
            .ToDictionary(c => c.Key, c => c.Letter);
        var was = string.Concat(places.SelectMany(p => work.Select(w => letters.GetValueOrDefault($"{w}/{p}", '.'))));
        return (
            "fillCells",
            new()
            {
                ["work"] = work,
                ["places"] = places,
                ["was"] = was,
                ["state"] = "excluded",
            }
        );
    }

    private static JsonObject With(params (string Name, JsonNode? Value)[] fields)
    {
        var sent = Server.Sent();
        foreach (var (name, value) in fields)
            sent[name] = value;
        return sent;
    }

    [Fact]
    public async Task A_fill_of_the_whole_grid_is_on_disk_and_is_taken_back_after_a_restart()
    {
        string start,
            filled;
        using (var server = Server.Start(folder.Path))
        {
            start = await server.File();
            var (type, fields) = await ExcludeAll(server);
            var (status, answer) = await server.Do(type, fields);
            Assert.Equal((200, true), (status, answer["moved"]!["reload"]!.GetValue<bool>()));
            filled = await server.File();
            Assert.NotEqual(start, filled);
            Assert.Equal("0", (await server.Job())["tally"]!["hours"]!["value"]!.GetValue<string>());
            server.Kill();
        }
        using (var server = Server.Start(folder.Path))
        {
            Assert.Equal(filled, await server.File());
            Assert.Equal(200, (await server.Reverse("undo")).Status);
            Assert.Equal(start, await server.File());
            Assert.Equal(200, (await server.Reverse("redo")).Status);
            Assert.Equal(filled, await server.File());
        }
    }

    [Fact]
    public async Task A_preview_says_what_would_move_and_keeps_nothing()
    {
        using var server = Server.Start(folder.Path);
        var before = await server.File();
        var (type, fields) = await ExcludeAll(server);
        fields["type"] = type;
        var (status, preview) = await server.Post($"/api/jobs/{Server.Library}/preview", fields);
        Assert.Equal(200, status);
        var labour = preview["totals"]!.AsArray().Single(t => t!["label"]!.GetValue<string>() == "Labour")!;
        Assert.Equal("0.0", labour["now"]!["shown"]!.GetValue<string>());
        Assert.Equal("−" + labour["was"]!["shown"]!.GetValue<string>(), labour["moves"]!["shown"]!.GetValue<string>());
        Assert.Equal(before, await server.File());
        // Either side of it is explained: the job as it is, and as it would be.
        foreach (var side in new[] { "was", "now" })
        {
            var figure = labour[side]!["path"]!.GetValue<string>();
            var (code, workings) = await server.Post(
                $"/api/jobs/{Server.Library}/preview/workings?figure={Uri.EscapeDataString(figure)}",
                fields.DeepClone()
            );
            Assert.Equal(200, code);
            Assert.Equal("totals/hours", workings["figure"]!.GetValue<string>());
        }
        fields["was"] = "x";
        Assert.Equal(422, (await server.Post($"/api/jobs/{Server.Library}/preview", fields.DeepClone())).Status);
    }

    [Fact]
    public async Task A_block_that_has_changed_since_it_was_seen_is_a_conflict()
    {
        using var server = Server.Start(folder.Path);
        var (type, fields) = await ExcludeAll(server);
        fields["was"] = new string('.', fields["was"]!.GetValue<string>().Length);
        Assert.Equal(409, (await server.Do(type, fields)).Status);
    }

    [Fact]
    public async Task Keeping_in_the_Book_needs_the_version_that_was_seen()
    {
        using var server = Server.Start(folder.Path);
        var job = await server.Job();
        var item = job["work"]!.AsArray().First(w => w!["name"]!.GetValue<string>() == "Cover up")!;
        var (work, entry) = (item["id"]!.GetValue<string>(), item["entry"]!.GetValue<string>());
        Assert.Equal(
            200,
            (
                await server.Do(
                    "setWork",
                    new()
                    {
                        ["work"] = work,
                        ["field"] = "pace",
                        ["was"] = null,
                        ["now"] = "300 ft² per h",
                    }
                )
            ).Status
        );
        var kept = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Server.Library}/work/{work}/kept"))!;
        Assert.Equal("260 ft² per h", Assert.Single(kept["keep"]!.AsArray())!["was"]!.GetValue<string>());
        JsonObject Keep(int was) => With(("was", was), ("work", work));
        Assert.Equal(409, (await server.Post($"/api/jobs/{Server.Library}/book/{entry}/keep", Keep(7))).Status);
        Assert.Equal(
            200,
            (
                await server.Post(
                    $"/api/jobs/{Server.Library}/book/{entry}/keep",
                    Keep(kept["bookVersion"]!.GetValue<int>())
                )
            ).Status
        );
        var now = (await server.Job())["work"]!.AsArray().Single(w => w!["id"]!.GetValue<string>() == work)!;
        Assert.Equal((null, "300 ft² per h"), (now["pace"]?.GetValue<string>(), now["paceShown"]!.GetValue<string>()));
        // Other jobs and other entries of this one are as they were.
        var pinned = (await server.Http.GetFromJsonAsync<JsonArray>($"/api/jobs/{Server.Library}/book"))!;
        Assert.All(pinned, p => Assert.Empty(p!["differences"]!.AsArray()));
    }

    [Fact]
    public async Task An_entry_changed_in_a_job_is_refused_beside_its_field()
    {
        using var server = Server.Start(folder.Path);
        var pinned = (await server.Http.GetFromJsonAsync<JsonArray>($"/api/jobs/{Server.Library}/book"))!;
        var id = pinned.First(p => p!["kind"]!.GetValue<string>() == "material")!["id"]!.GetValue<string>();
        var was = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Server.Library}/book/{id}"))!["entry"]!;
        async Task<(int, string?)> Put(Action<JsonNode> change)
        {
            var now = was.DeepClone();
            change(now);
            var answer = await server.Http.PutAsJsonAsync(
                $"/api/jobs/{Server.Library}/book/{id}",
                With(("was", was.DeepClone()), ("entry", now))
            );
            return (
                (int)answer.StatusCode,
                (await answer.Content.ReadFromJsonAsync<JsonObject>())!["field"]?.GetValue<string>()
            );
        }
        Assert.Equal((422, "packs[0].price"), await Put(e => e["packs"]![0]!["price"] = "-3"));
        Assert.Equal((422, "wastePercent"), await Put(e => e["wastePercent"] = "lots"));
        Assert.Equal((200, null), await Put(e => e["wastePercent"] = "9"));
        Assert.Equal(409, (await Put(e => e["wastePercent"] = "11")).Item1);
    }
}
