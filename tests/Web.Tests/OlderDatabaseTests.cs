using System.IO.Compression;
using System.Net.Http.Json;
using System.Runtime.CompilerServices;
using System.Text.Json.Nodes;
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
}
