using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Several windows and several people on one job, and on what the firm has set: nobody's edit is lost, and nobody takes back another's.</summary>
public sealed class TogetherTests : IDisposable
{
    private static readonly Guid Other = new("01930000-0000-7000-8000-00000000c002");
    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public TogetherTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private static JsonObject Place(string line, Guid? id = null) =>
        new()
        {
            ["place"] = (id ?? Guid.CreateVersion7()).ToString(),
            ["line"] = line,
            ["group"] = "",
            ["after"] = null,
        };

    private static JsonObject Overhead(string was, string now) =>
        new()
        {
            ["field"] = "overhead",
            ["was"] = was,
            ["now"] = now,
        };

    private async Task<JsonObject> Changes(long since, Guid client) =>
        (
            await server.Http.GetFromJsonAsync<JsonObject>(
                $"/api/jobs/{Server.Library}/changes?since={since}&client={client}"
            )
        )!;

    private static string[] Names(JsonNode moved) =>
        [.. moved["places"]!.AsArray().Select(p => (string)p!["name"]!).Order(StringComparer.Ordinal)];

    [Fact]
    public async Task An_answer_says_all_that_has_changed_since_the_version_its_sender_holds()
    {
        await server.Do("addPlace", Place("Porch 6 x 5 x 8"));
        await server.Do("setPricing", Overhead("14", "16"), version: 1);
        var (status, answer) = await server.Do("addPlace", Place("Loft 9 x 9 x 7"), client: Other);
        Assert.Equal(200, status);
        var moved = answer["moved"]!;
        Assert.Equal((0, 3, false), ((long)moved["from"]!, (long)moved["to"]!, (bool)moved["reload"]!));
        Assert.Equal(["Loft", "Porch"], Names(moved));
        Assert.Equal("16", (string)moved["head"]!["pricing"]!["overhead"]!);
        // Who holds the last version but one is told of the last edit alone.
        var one = (await server.Do("addPlace", Place("Cellar 9 x 9 x 7"), version: 3)).Body["moved"]!;
        Assert.Equal(["Cellar"], Names(one));
        Assert.Null(one["head"]);
    }

    [Fact]
    public async Task What_was_missed_can_be_asked_for_things_that_came_and_went_too()
    {
        var before = await server.Job();
        var (porch, gone) = (Guid.CreateVersion7(), (string)before["places"]![0]!["id"]!);
        await server.Do("addPlace", Place("Porch 6 x 5 x 8", porch));
        await server.Do("removePlaces", new() { ["places"] = new JsonArray(porch.ToString()) });
        await server.Do("removePlaces", new() { ["places"] = new JsonArray(gone) });
        var moved = (await Changes(0, Other))["moved"]!;
        Assert.Equal((0, 3), ((long)moved["from"]!, (long)moved["to"]!));
        Assert.Empty(moved["places"]!.AsArray());
        var order = moved["placeOrder"]!.AsArray().Select(p => (string)p!).ToArray();
        Assert.Equal((await server.Job())["places"]!.AsArray().Select(p => (string)p!["id"]!), order);
        Assert.DoesNotContain(gone, order);
        Assert.Contains(moved["goneCells"]!.AsArray(), c => ((string)c!).EndsWith(gone, StringComparison.Ordinal));
        Assert.Equal(
            (await server.Job())["tally"]!["hours"]!["shown"]!.ToString(),
            moved["tally"]!["hours"]!["shown"]!.ToString()
        );
        // Nothing, where nothing was missed; the whole job, where the version is not known.
        Assert.Empty((await Changes(3, Other))["moved"]!["work"]!.AsArray());
        Assert.False((bool)(await Changes(3, Other))["moved"]!["reload"]!);
        Assert.True((bool)(await Changes(9, Other))["moved"]!["reload"]!);
    }

    [Fact]
    public async Task After_a_restart_who_holds_an_older_version_is_asked_to_load_the_job()
    {
        await server.Do("addPlace", Place("Porch 6 x 5 x 8"));
        await server.Do("addPlace", Place("Loft 6 x 5 x 8"));
        server.Kill();
        using var again = Server.Start(folder.Path);
        async Task<bool> Reload(long since) =>
            (bool)
                (
                    await again.Http.GetFromJsonAsync<JsonObject>(
                        $"/api/jobs/{Server.Library}/changes?since={since}&client={Other}"
                    )
                )!["moved"]!["reload"]!;
        Assert.Equal((true, true, false), (await Reload(0), await Reload(1), await Reload(2)));
    }

    [Fact]
    public async Task Undo_goes_by_window_and_takes_back_nothing_of_another()
    {
        await server.Do("addPlace", Place("Porch 6 x 5 x 8"));
        await server.Do("addPlace", Place("Loft 9 x 9 x 7"), client: Other);
        Assert.Equal(200, (await server.Reverse("undo")).Status);
        string[] Places(JsonObject job) => [.. job["places"]!.AsArray().Select(p => (string)p!["name"]!)];
        var now = Places(await server.Job());
        Assert.DoesNotContain("Porch", now);
        Assert.Contains("Loft", now);
        Assert.Equal(200, (await server.Reverse("redo")).Status);
        Assert.Equal(422, (await server.Reverse("redo", client: Other)).Status);
        Assert.Contains("Porch", Places(await server.Job()));
    }

    [Fact]
    public async Task With_nothing_of_its_own_a_window_takes_back_what_a_closed_one_left_only_when_it_names_it()
    {
        await server.Do("addPlace", Place("Porch 6 x 5 x 8"), client: Other);
        var left = (await server.Job())["undo"]!["leftBehind"]!;
        Assert.Equal((1, "addPlace"), ((long)left["version"]!, (string)left["did"]!));
        Assert.Equal(422, (await server.Reverse("undo")).Status);
        Assert.Equal(422, (await server.Reverse("undo", leftBehind: 7)).Status);
        var (status, answer) = await server.Reverse("undo", leftBehind: 1);
        Assert.Equal(200, status);
        Assert.Equal("addPlace", (string)answer["yours"]!["undo"]!["redo"]!);
        Assert.DoesNotContain((await server.Job())["places"]!.AsArray(), p => (string)p!["name"]! == "Porch");
        // It is put back from here, and so it is ours from then on.
        Assert.Equal(200, (await server.Reverse("redo")).Status);
        Assert.Equal("addPlace", (string)(await server.Job())["undo"]!["undo"]!);
    }

    [Fact]
    public async Task What_another_window_has_changed_since_is_not_taken_back()
    {
        await server.Do("setPricing", Overhead("14", "15"));
        await server.Do("setPricing", Overhead("15", "16"), client: Other);
        var (status, refused) = await server.Reverse("undo");
        Assert.Equal(422, status);
        Assert.Contains("the owner, in another window, has changed the same since", (string)refused["title"]!);
    }

    [Fact]
    public async Task Two_who_save_different_fields_lose_nothing_and_of_the_same_field_the_second_is_told()
    {
        var seen = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company"))!;
        async Task<(int Status, JsonObject Body)> Put(string field, string now)
        {
            var changed = seen.DeepClone();
            changed[field] = now;
            var answer = await server.Http.PutAsJsonAsync(
                "/api/company",
                new JsonObject { ["was"] = seen.DeepClone(), ["now"] = changed }
            );
            return ((int)answer.StatusCode, (await answer.Content.ReadFromJsonAsync<JsonObject>())!);
        }
        Assert.Equal(200, (await Put("name", "Pell Finishing")).Status);
        // Seen before the name was changed, and saved after it.
        var (status, both) = await Put("address", "9 Ropewalk");
        Assert.Equal((200, "Pell Finishing", "9 Ropewalk"), (status, (string)both["name"]!, (string)both["address"]!));
        (status, var refused) = await Put("name", "Larkspur");
        Assert.Equal((409, "name", "Pell Finishing"), (status, (string)refused["field"]!, (string)refused["current"]!));
        // The same by both is no conflict.
        Assert.Equal(200, (await Put("name", "Pell Finishing")).Status);
        Assert.Equal(
            (422, "zone"),
            ((await Put("zone", "Port Ennis")) is var zone ? (zone.Status, (string?)zone.Body["field"]) : default)
        );
    }

    [Fact]
    public async Task A_customer_and_a_list_that_were_changed_since_they_were_seen_are_not_overwritten()
    {
        async Task<int> Put(string path, JsonNode? was, JsonNode now) =>
            (int)
                (
                    await server.Http.PutAsJsonAsync(
                        path,
                        new JsonObject { ["was"] = was?.DeepClone(), ["now"] = now.DeepClone() }
                    )
                ).StatusCode;
        var customer = (await server.Http.GetFromJsonAsync<JsonArray>("/api/customers"))![0]!;
        var path = $"/api/customers/{customer["id"]}";
        var (moved, called) = (customer.DeepClone(), customer.DeepClone());
        moved["phone"] = "555 0190";
        called["phone"] = "555 0191";
        Assert.Equal(200, await Put(path, customer, moved));
        Assert.Equal(409, await Put(path, customer, called));
        Assert.Equal(200, await Put(path, moved, called));
        // Made twice under one id: the second is told, unless it is the same.
        Assert.Equal(200, await Put(path, null, called));
        Assert.Equal(409, await Put(path, null, customer));
        var (none, one, two) = (
            (await server.Http.GetFromJsonAsync<JsonNode>("/api/company/usual-sizes"))!,
            new JsonObject { ["sizes"] = new JsonArray("door 3' x 7'") },
            new JsonObject { ["sizes"] = new JsonArray("door 3' x 6'8") }
        );
        Assert.Equal(200, await Put("/api/company/usual-sizes", none, one));
        Assert.Equal(409, await Put("/api/company/usual-sizes", none, two));
        Assert.Equal(200, await Put("/api/company/usual-sizes", one, two));
    }
}
