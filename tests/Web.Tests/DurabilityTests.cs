using System.Text.Json.Nodes;
using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;
using Emendum.Storage;
using Xunit;

namespace Emendum.Web.Tests;

public class DurabilityTests
{
    [Fact]
    public async Task Twenty_mixed_edits_survive_a_restart_and_are_undone_and_redone_to_the_same_bytes()
    {
        using var folder = new TemporaryFolder();
        string start,
            end;
        using (var server = Server.Start(folder.Path))
        {
            start = await server.File();
            foreach (var (type, fields) in MixedEdits(await server.Job()))
                Assert.Equal((200, type), ((await server.Do(type, fields)).Status, type));
            end = await server.File();
            Assert.NotEqual(start, end);
        }
        using (var server = Server.Start(folder.Path))
        {
            Assert.Equal(end, await server.File());
            for (var i = 0; i < 20; i++)
                Assert.Equal(200, (await server.Reverse("undo")).Status);
            Assert.Equal(start, await server.File());
            var (status, problem) = await server.Reverse("undo");
            Assert.Equal((422, "There is nothing to undo."), (status, (string)problem["title"]!));
        }
        using (var server = Server.Start(folder.Path))
        {
            for (var i = 0; i < 20; i++)
                Assert.Equal(200, (await server.Reverse("redo")).Status);
            Assert.Equal(end, await server.File());
        }
    }

    private static IEnumerable<(string, JsonObject)> MixedEdits(JsonObject job)
    {
        string Id(string list, int at) => (string)job[list]![at]!["id"]!;
        string Line(int at) => (string)job["places"]![at]!["line"]!;
        var (room, extra, work) = (
            Guid.CreateVersion7().ToString(),
            Guid.CreateVersion7().ToString(),
            Guid.CreateVersion7().ToString()
        );
        yield return (
            "addPlace",
            new()
            {
                ["place"] = room,
                ["line"] = "Porch 6 x 5 x 8",
                ["group"] = "Ground floor",
                ["after"] = Id("places", 3),
            }
        );
        yield return (
            "addPlace",
            new()
            {
                ["place"] = extra,
                ["line"] = "Loft 20 x 15 x 7 x2",
                ["group"] = "Attic",
                ["after"] = null,
            }
        );
        yield return (
            "remeasurePlace",
            new()
            {
                ["place"] = Id("places", 1),
                ["was"] = Line(1),
                ["line"] = "Reading room 25 x 18 x 9'2; door 3 x 6'8",
            }
        );
        yield return ("removePlaces", new() { ["places"] = new JsonArray(Id("places", 5)) });
        yield return (
            "movePlaces",
            new()
            {
                ["places"] = new JsonArray(new JsonObject { ["place"] = extra, ["was"] = "Attic" }),
                ["group"] = "Roof",
                ["before"] = null,
                ["after"] = null,
            }
        );
        yield return (
            "addWork",
            new()
            {
                ["work"] = work,
                ["entry"] = "01930000-0000-7000-8000-000000000120",
                ["after"] = null,
            }
        );
        yield return (
            "fillCells",
            new()
            {
                ["state"] = "included",
                ["work"] = Ids(work),
                ["places"] = Ids(room, extra),
                ["was"] = "..",
            }
        );
        yield return (
            "fillCells",
            new()
            {
                ["state"] = "excluded",
                ["work"] = Ids(work),
                ["places"] = Ids(room),
                ["was"] = "i",
            }
        );
        yield return (
            "setNote",
            new()
            {
                ["work"] = work,
                ["place"] = room,
                ["was"] = "",
                ["note"] = "left bare",
            }
        );
        yield return (
            "setWork",
            new()
            {
                ["work"] = work,
                ["field"] = "coats",
                ["was"] = 2,
                ["now"] = 3,
            }
        );
        yield return (
            "setWork",
            new()
            {
                ["work"] = work,
                ["field"] = "colour",
                ["was"] = "",
                ["now"] = "Tern",
            }
        );
        yield return (
            "setWork",
            new()
            {
                ["work"] = work,
                ["field"] = "pace",
                ["was"] = null,
                ["now"] = "77 ft² per h",
            }
        );
        yield return (
            "setWork",
            new()
            {
                ["work"] = Id("work", 3),
                ["field"] = "product",
                ["was"] = null,
                ["now"] = "01930000-0000-7000-8000-000000000021",
            }
        );
        yield return ("removeWork", new() { ["work"] = Id("work", 4) });
        yield return ("setDeduction", new() { ["was"] = "net", ["rule"] = "vob" });
        yield return (
            "setPricing",
            new()
            {
                ["field"] = "overhead",
                ["was"] = "14",
                ["now"] = "16.5",
            }
        );
        yield return (
            "setPricing",
            new()
            {
                ["field"] = "basis",
                ["was"] = "markup",
                ["now"] = "targetMargin",
            }
        );
        yield return (
            "setProposal",
            new()
            {
                ["field"] = "detail",
                ["was"] = "place",
                ["now"] = "section",
            }
        );
        yield return (
            "setInfo",
            new()
            {
                ["field"] = "name",
                ["was"] = "Saltmarsh Lending Library",
                ["now"] = "Saltmarsh Library",
            }
        );
        yield return (
            "fillCells",
            new()
            {
                ["state"] = null,
                ["work"] = Ids(work),
                ["places"] = Ids(extra),
                ["was"] = "i",
            }
        );
    }

    private static JsonArray Ids(params string[] ids) => [.. ids.Select(id => (JsonNode)id)];

    [Fact]
    public async Task A_repeated_command_is_done_once_and_another_under_its_id_is_refused()
    {
        using var folder = new TemporaryFolder();
        using var server = Server.Start(folder.Path);
        var (id, place) = (Guid.CreateVersion7(), Guid.CreateVersion7().ToString());
        JsonObject Fields() =>
            new()
            {
                ["place"] = place,
                ["line"] = "Porch 6 x 5 x 8",
                ["group"] = "",
                ["after"] = null,
            };
        var first = await server.Do("addPlace", Fields(), id);
        await server.Do(
            "setInfo",
            new()
            {
                ["field"] = "subtitle",
                ["was"] = "Refit, ground and first floor",
                ["now"] = "Refit",
            }
        );
        var again = await server.Do("addPlace", Fields(), id);
        Assert.Equal((200, 200), (first.Status, again.Status));
        static (long, long, bool, int) Said(JsonObject answer) =>
            (
                (long)answer["moved"]!["from"]!,
                (long)answer["moved"]!["to"]!,
                (bool)answer["repeated"]!,
                answer["moved"]!["places"]!.AsArray().Count
            );
        Assert.Equal((0, 1, false, 1), Said(first.Body));
        // What has changed since the version that its sender holds, the heading too.
        Assert.Equal((0, 2, true, 1), Said(again.Body));
        Assert.Equal("Refit", (string)again.Body["moved"]!["head"]!["info"]!["subtitle"]!);
        var other = Fields();
        other["line"] = "Porch 7 x 5 x 8";
        var refused = await server.Do("addPlace", other, id);
        Assert.Equal(422, refused.Status);
        Assert.Contains("Another command was given under that id", (string)refused.Body["title"]!);
        var job = await server.Job();
        Assert.Equal(2, (long)job["version"]!);
        Assert.Single(job["places"]!.AsArray(), p => (string)p!["name"]! == "Porch");
    }

    [Fact]
    public void Every_connection_is_durable_and_checks_references()
    {
        using var folder = new TemporaryFolder();
        var database = Database.Open(folder.Path);
        for (var i = 0; i < 2; i++)
        {
            using var connection = database.Connect();
            Assert.Equal(
                ["wal", "2", "1"],
                new[] { "journal_mode", "synchronous", "foreign_keys" }.Select(p =>
                    connection.Rows($"PRAGMA {p}", r => r.GetValue(0).ToString()!).Single()
                )
            );
        }
    }
}
