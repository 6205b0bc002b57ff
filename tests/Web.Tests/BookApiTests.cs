using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>The Book over HTTP: saves, conflicts, versions, deletion, prices, tables; and what is on disk after a kill.</summary>
public sealed class BookApiTests : IDisposable
{
    private const string Eggshell = "01930000-0000-7000-8000-000000000020",
        Paint = "01930000-0000-7000-8000-000000000111";

    private readonly TemporaryFolder folder = new();
    private Server server;

    public BookApiTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private static ByteArrayContent Bytes(byte[] content) =>
        new(content) { Headers = { ContentType = new("application/octet-stream") } };

    private async Task<JsonObject> Entry(string id) =>
        (await server.Http.GetFromJsonAsync<JsonObject>($"/api/book/{id}"))!;

    private async Task<(int Status, JsonObject Body)> Put(string id, JsonObject entry, int was)
    {
        var response = await server.Http.PutAsJsonAsync(
            $"/api/book/{id}",
            new JsonObject { ["was"] = was, ["entry"] = entry.DeepClone() }
        );
        return ((int)response.StatusCode, (await response.Content.ReadFromJsonAsync<JsonObject>())!);
    }

    private async Task<decimal> Price() =>
        decimal.Parse(
            (string)(await server.Job())["tally"]!["beforeTax"]!["value"]!,
            System.Globalization.CultureInfo.InvariantCulture
        );

    [Fact]
    public async Task A_change_is_a_version_on_disk_that_jobs_do_not_feel_with_a_way_back()
    {
        var price = await Price();
        var entry = (await Entry(Eggshell))["entry"]!.AsObject();
        entry["packs"]![0]!["price"] = "99";
        var (status, saved) = await Put(Eggshell, entry, 1);
        Assert.Equal((200, 2), (status, (int)saved["entry"]!["version"]!));
        // Made from version 1 again: somebody was faster.
        entry["packs"]![0]!["price"] = "77";
        Assert.Equal(409, (await Put(Eggshell, entry, 1)).Status);
        server.Kill();
        server = Server.Start(folder.Path);
        Assert.Equal("99", (string)(await Entry(Eggshell))["entry"]!["packs"]![0]!["price"]!);
        Assert.Equal(price, await Price());
        var versions = (await server.Http.GetFromJsonAsync<JsonArray>($"/api/book/{Eggshell}/versions"))!;
        Assert.Equal(
            (2, "the owner", "packs 1: price", "48", "99"),
            (
                (int)versions[0]!["version"]!,
                (string)versions[0]!["person"]!,
                (string)versions[0]!["differences"]![0]!["field"]!,
                (string)versions[0]!["differences"]![0]!["was"]!,
                (string)versions[0]!["differences"]![0]!["now"]!
            )
        );
        Assert.NotEqual("", (string)versions[0]!["at"]!);
        var (_, back) = await server.Post($"/api/book/{Eggshell}/restore", new JsonObject { ["version"] = 1 });
        Assert.Equal((3, "48"), ((int)back["entry"]!["version"]!, (string)back["entry"]!["packs"]![0]!["price"]!));
    }

    [Theory]
    [InlineData("paces", "[{\"coats\":1,\"pace\":\"0 ft² per h\"}]", "paces[0].pace", "more than zero")]
    [InlineData("paces", "[{\"coats\":1,\"pace\":\"3 gal per h\"}]", "paces[0].pace", "does not apply to an area")]
    [InlineData("dryingHours", "\"soon\"", "dryingHours", "Write a number")]
    [InlineData("measure", "\"width\"", "measure", "not a value")]
    [InlineData("role", "\"00000000-0000-0000-0000-000000000000\"", "role", "needs a role")]
    [InlineData("accessories", "[\"" + Paint + "\"]", "accessories", "its own accessory")]
    public async Task What_is_wrong_is_said_of_its_field_and_changes_nothing(
        string field,
        string value,
        string at,
        string says
    )
    {
        var entry = (await Entry(Paint))["entry"]!.AsObject();
        entry[field] = JsonNode.Parse(value);
        var (status, body) = await Put(Paint, entry, 1);
        Assert.Equal((422, at), (status, (string)body["field"]!));
        Assert.Contains(says, (string)body["title"]!);
        Assert.Equal(1, (int)(await Entry(Paint))["entry"]!["version"]!);
    }

    [Fact]
    public async Task What_others_rest_on_cannot_be_changed_under_them_or_deleted_and_what_jobs_use_can()
    {
        var entry = (await Entry(Eggshell))["entry"]!.AsObject();
        (entry["unit"], entry["coverage"], entry["laterCoverage"]) = ("kg", null, null);
        var (status, body) = await Put(Eggshell, entry, 1);
        Assert.Equal(422, status);
        Assert.Contains("Paint", (string)body["title"]!);
        var refused = await server.Http.DeleteAsync($"/api/book/{Eggshell}");
        Assert.Equal(422, (int)refused.StatusCode);
        Assert.Contains("Archive it instead", await refused.Content.ReadAsStringAsync());
        // The rate is used by a job, which keeps its own.
        Assert.Equal("Saltmarsh Lending Library", (string)(await Entry(Paint))["jobs"]![0]!["name"]!);
        var price = await Price();
        Assert.Equal(200, (int)(await server.Http.DeleteAsync($"/api/book/{Paint}")).StatusCode);
        Assert.Equal(404, (int)(await server.Http.GetAsync($"/api/book/{Paint}")).StatusCode);
        server.Kill();
        server = Server.Start(folder.Path);
        Assert.Equal(price, await Price());
        Assert.Equal(404, (int)(await server.Http.GetAsync($"/api/book/{Paint}")).StatusCode);
        Assert.Equal(200, (await server.Post($"/api/book/{Paint}/restore", new JsonObject { ["version"] = 1 })).Status);
        Assert.Equal(2, (int)(await Entry(Paint))["entry"]!["version"]!);
    }

    [Fact]
    public async Task A_feed_proposes_prices_says_which_jobs_would_move_and_is_taken_by_choice()
    {
        var feed = (await server.Http.GetFromJsonAsync<JsonObject>("/api/book/feed"))!;
        Assert.True((bool)feed["isStandIn"]!);
        var eggshell = feed["prices"]!.AsArray().Single(p => (string)p!["id"]! == Eggshell)!;
        Assert.Equal("48.00", (string)eggshell["packs"]![0]!["old"]!);
        var chosen = new JsonObject { ["ids"] = new JsonArray(Eggshell) };
        var moved = await (
            await server.Http.PostAsJsonAsync("/api/book/feed/jobs", chosen)
        ).Content.ReadFromJsonAsync<JsonArray>();
        Assert.Equal(
            [
                "Marrow Street showroom",
                "Quayside Veterinary Clinic",
                "Saltmarsh Lending Library",
                "Saltmarsh reading gallery",
            ],
            moved!.Select(m => (string)m!["name"]!).Order()
        );
        var price = await Price();
        Assert.Equal(1, (int)(await server.Post("/api/book/feed/take", chosen)).Body["changed"]!);
        Assert.Equal(
            (string)eggshell["packs"]![0]!["new"]!,
            decimal.Parse(
                    (string)(await Entry(Eggshell))["entry"]!["packs"]![0]!["price"]!,
                    System.Globalization.CultureInfo.InvariantCulture
                )
                .ToString("0.00", System.Globalization.CultureInfo.InvariantCulture)
        );
        Assert.Equal(price, await Price());
        var after = (await server.Http.GetFromJsonAsync<JsonObject>("/api/book/feed"))!["prices"]!.AsArray();
        Assert.Equal(feed["prices"]!.AsArray().Count - 1, after.Count);
    }

    [Fact]
    public async Task A_table_is_taken_whole_or_without_its_bad_rows_but_never_half()
    {
        JsonObject Table(params string[][] rows) =>
            new()
            {
                ["columns"] = new JsonArray("Kind", "Name", "Wage"),
                ["rows"] = new JsonArray([.. rows.Select(r => new JsonArray([.. r.Select(c => (JsonNode)c)]))]),
                ["mapping"] = new JsonObject
                {
                    ["kind"] = 0,
                    ["name"] = 1,
                    ["wage"] = 2,
                },
            };
        var table = Table(["role", "Painter", "23"], ["role", "Glazier", "24.50"], ["role", "Ghost", "-1"]);
        var (_, read) = await server.Post("/api/book/read-table", table.DeepClone());
        Assert.Equal((1, 1, 1), ((int)read["new"]!, (int)read["changed"]!, (int)read["wrong"]!));
        var refused = await server.Post(
            "/api/book/take-table",
            new JsonObject { ["table"] = table.DeepClone(), ["leaveOut"] = false }
        );
        Assert.Equal(422, refused.Status);
        Assert.Contains("Row 3", (string)refused.Body["title"]!);
        Assert.Equal("22", (string)(await Entry("01930000-0000-7000-8000-000000000001"))["entry"]!["wage"]!);
        var taken = await server.Post(
            "/api/book/take-table",
            new JsonObject { ["table"] = table, ["leaveOut"] = true }
        );
        Assert.Equal((1, 1), ((int)taken.Body["new"]!, (int)taken.Body["changed"]!));
        Assert.Equal("23", (string)(await Entry("01930000-0000-7000-8000-000000000001"))["entry"]!["wage"]!);
    }

    [Fact]
    public async Task The_Book_goes_out_in_three_forms_and_its_own_file_changes_nothing_when_it_comes_back()
    {
        foreach (var form in new[] { "csv", "xlsx" })
        {
            var file = await server.Http.GetByteArrayAsync($"/api/book/book.{form}");
            var uploaded = await server.Http.PostAsync("/api/tables/book", Bytes(file));
            var table = (await uploaded.Content.ReadFromJsonAsync<JsonObject>())!;
            var (_, read) = await server.Post(
                "/api/book/read-table",
                new JsonObject
                {
                    ["columns"] = table["columns"]!.DeepClone(),
                    ["rows"] = table["rows"]!.DeepClone(),
                    ["mapping"] = table["mapping"]!.DeepClone(),
                }
            );
            Assert.Equal((0, 0, 0), ((int)read["new"]!, (int)read["changed"]!, (int)read["wrong"]!));
            Assert.InRange((int)read["same"]!, 120, 1000);
        }
        var json = await server.Http.GetByteArrayAsync("/api/book/book.json");
        var same = await (
            await server.Http.PostAsync("/api/book/read-file", Bytes(json))
        ).Content.ReadFromJsonAsync<JsonObject>();
        Assert.Equal((0, 0, 0), ((int)same!["new"]!, (int)same["changed"]!, (int)same["wrong"]!));
        var broken = await server.Http.PostAsync("/api/book/read-file", Bytes(Encoding.UTF8.GetBytes("{")));
        Assert.Equal(422, (int)broken.StatusCode);
    }

    [Fact]
    public async Task A_trial_shows_figures_with_workings_and_refuses_what_is_no_number_beside_it()
    {
        var body = new JsonObject
        {
            ["quantities"] = new JsonObject { ["netWallArea"] = "900" },
            ["coats"] = 2,
            ["difficulty"] = "",
            ["picks"] = new JsonArray(),
            ["conditions"] = new JsonArray(),
        };
        var (_, tried) = await server.Post($"/api/book/{Paint}/try", body.DeepClone());
        // 900 ft², two coats, 360 then 400 ft²/gal, 1 % waste: 4.7975 gal, one pail.
        var bought = tried["lines"]!.AsArray().Single(l => (string)l!["label"]! == "Harbour eggshell, bought")!;
        Assert.Equal(("5", "1 × 5 gal pail"), ((string)bought["figure"]!["value"]!, (string)bought["note"]!));
        var (_, workings) = await server.Post(
            $"/api/book/{Paint}/try/workings?figure={Uri.EscapeDataString((string)bought["figure"]!["path"]!)}",
            body.DeepClone()
        );
        Assert.Contains("cheapest packs", workings.ToJsonString());
        body["quantities"]!["netWallArea"] = "a lot";
        var (status, refused) = await server.Post($"/api/book/{Paint}/try", body);
        Assert.Equal((422, "netWallArea"), (status, (string)refused["field"]!));
    }
}
