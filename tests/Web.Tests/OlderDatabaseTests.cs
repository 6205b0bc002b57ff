using System.IO.Compression;
using System.Net.Http.Json;
using System.Runtime.CompilerServices;
using System.Text.Json.Nodes;
using Emendum.Storage;
using Microsoft.Data.Sqlite;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>A database as an older version left it, with edits of every kind that the version before the first reshaping of the log could make, and what that version showed
/// after each of them was taken back.</summary>
public sealed class OlderDatabaseTests
{
    private static Stream Older(string name, [CallerFilePath] string here = "") =>
        new GZipStream(
            File.OpenRead(Path.Combine(Path.GetDirectoryName(here)!, "Older", name + ".gz")),
            CompressionMode.Decompress
        );

    [Fact]
    public async Task A_database_of_version_4_opens_with_every_edit_and_every_undo()
    {
        using var folder = new TemporaryFolder();
        using (var older = Older("version4.db"))
        using (var file = File.Create(Path.Combine(folder.Path, "emendum.db")))
            await older.CopyToAsync(file);
        using var server = Server.Start(folder.Path);
        var expected = JsonNode.Parse(Older("version4.json"))!.AsObject();
        Assert.Equal(5, expected.Count);
        var undone = 0;
        foreach (var (id, then) in expected)
        {
            foreach (var state in then!["states"]!.AsArray())
            {
                var job = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{id}?client={Server.Client}"))!;
                string Shown(string figure) => (string)job["tally"]![figure]!["shown"]!;
                string[] Names(string list, Func<JsonNode, string> name) =>
                    [.. job[list]!.AsArray().Select(x => name(x!)).Order(StringComparer.Ordinal)];
                string[] Then(string list) =>
                    [.. state![list]!.AsArray().Select(x => (string)x!).Order(StringComparer.Ordinal)];
                Assert.Equal(
                    (Of("hours"), Of("cost"), Of("price"), Of("total")),
                    (Shown("hours"), Shown("cost"), Shown("beforeTax"), Shown("total"))
                );
                Assert.Equal(Then("places"), Names("places", p => (string)p["name"]!));
                Assert.Equal(Then("work"), Names("work", w => $"{w["section"]}: {w["name"]}"));
                // The window that it was made in is long closed.
                Assert.Null((string?)job["undo"]!["undo"]);
                var left = job["undo"]!["leftBehind"];
                // What a redo had put back was called “redo” by that version; now it is called what it is.
                if ((string?)state!["undo"] == "redo")
                    Assert.Equal("fillCells", (string?)left!["did"]);
                else
                    Assert.Equal((string?)state["undo"], (string?)left?["did"]);
                Assert.Equal((long)state["version"]!, (long)job["version"]!);
                if (left is null)
                    continue;
                var (status, _) = await server.Reverse("undo", Guid.Parse(id), leftBehind: (long)left["version"]!);
                Assert.Equal(200, status);
                undone++;
                string Of(string figure) => (string)state![figure]!;
            }
        }
        Assert.Equal(71, undone);
    }

    [Fact]
    public async Task Customers_that_older_jobs_named_stand_in_the_list_and_nowhere_else()
    {
        using var folder = new TemporaryFolder();
        var database = Path.Combine(folder.Path, "emendum.db");
        using (var older = Older("version4.db"))
        using (var file = File.Create(database))
            await older.CopyToAsync(file);
        var expected = JsonNode.Parse(Older("version4.json"))!.AsObject();
        // One was called otherwise in its job than in the list, the last edit in its log.
        var renamed = expected.First(j => ((string)j.Value!["customer"]!).Length > 0).Key;
        var was = (string)expected[renamed]!["customer"]!;
        using (var connection = new SqliteConnection($"Data Source={database};Pooling=False"))
        {
            connection.Open();
            var version = connection.Rows(
                "SELECT max(version) FROM job_log WHERE job_id = $job",
                r => r.GetInt64(0),
                ("$job", renamed)
            )[0];
            connection.Run(
                "INSERT INTO job_log (job_id, version, command_id, name, person, at, change_set, answer) VALUES ($job, $version, $command, 'setInfo', 'the owner', '2026-11-24T10:00:00.000Z', $changes, '')",
                ("$job", renamed),
                ("$version", version + 1),
                ("$command", Guid.CreateVersion7()),
                ("$changes", $$"""[{"path":"info/customer","before":"{{was}}","after":"The trustees"}]""")
            );
        }
        for (var start = 0; start < 2; start++)
            using (var server = Server.Start(folder.Path))
            {
                var customers = (await server.Http.GetFromJsonAsync<JsonArray>("/api/customers"))!;
                foreach (var row in (await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!)
                {
                    var id = (string)row!["id"]!;
                    var name = id == renamed ? "The trustees" : (string)expected[id]!["customer"]!;
                    Assert.Equal(name, (string)row["customer"]!);
                    // That version kept a sentence; what the list says now was looked up.
                    Assert.NotNull(row["price"]);
                    var job = await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{id}?client={Server.Client}");
                    if (name.Length > 0)
                        Assert.Equal(
                            name,
                            (string)
                                customers.Single(c => (string)c!["id"]! == (string)job!["info"]!["customer"]!)!["name"]!
                        );
                    var proposal = await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{id}/proposal");
                    var letterhead = proposal!["document"]!["head"]!;
                    Assert.Equal(name, (string)letterhead["customer"]!);
                }
                Assert.Equal(was, (string)customers.Single(c => (string)c!["name"]! == was)!["name"]!);
                // The renaming was an edit of the job; taking it back changes nothing of it any more.
                if (start == 0)
                    continue;
                var (status, _) = await server.Reverse(
                    "undo",
                    Guid.Parse(renamed),
                    leftBehind: (long)
                        (
                            await server.Http.GetFromJsonAsync<JsonObject>(
                                $"/api/jobs/{renamed}?client={Server.Client}"
                            )
                        )!["version"]!
                );
                Assert.Equal(200, status);
            }
    }
}
