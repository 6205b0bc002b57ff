using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Emendum.Web.StandIns;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>The supplier's catalogue, a stand-in of a few thousand made-up goods: searched and taken over; and what the firm sets for its new jobs.</summary>
public sealed class CatalogueTests : IDisposable
{
    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public CatalogueTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private async Task<JsonObject> Find(string words, string category = "") =>
        (
            await server.Http.GetFromJsonAsync<JsonObject>(
                $"/api/book/catalogue?words={Uri.EscapeDataString(words)}&category={Uri.EscapeDataString(category)}"
            )
        )!;

    [Fact]
    public void Every_article_has_a_code_and_a_name_of_its_own_and_a_price()
    {
        var goods = new StandInSupplierCatalogue().Goods;
        Assert.InRange(goods.Count, 2000, 10_000);
        Assert.Equal(goods.Count, goods.Select(g => g.Code).Distinct().Count());
        Assert.Equal(goods.Count, goods.Select(g => g.Name).Distinct().Count());
        Assert.All(goods, g => Assert.All(g.Packs, p => Assert.True(p is { Price: > 0, Size: > 0 }, g.Name)));
        // The same each time it is made: prices follow from names and from nothing else.
        Assert.Equal(goods[777].Packs, new StandInSupplierCatalogue().Goods[777].Packs);
    }

    [Fact]
    public async Task Goods_are_found_put_in_the_Book_once_and_say_what_is_still_to_be_filled_in()
    {
        var found = await Find("wall tile gloss", "Wall tiles");
        Assert.True((bool)found["isStandIn"]!);
        Assert.Equal(8 * 16, (int)found["found"]!);
        var tile = found["goods"]![0]!;
        var stain = (await Find("shingle stain solid moss"))["goods"]!.AsArray().Single()!;
        Assert.Equal("coverage not said", (string)stain["coverage"]!);
        var price = ((string)stain["packs"]!).Split(' ')[^1];
        Assert.Contains((await Find(price))["goods"]!.AsArray(), g => (string)g!["code"]! == (string)stain["code"]!);

        var take = new JsonObject
        {
            ["codes"] = new JsonArray((string)tile["code"]!, (string)stain["code"]!),
            ["work"] = true,
        };
        var (status, taken) = await server.Post("/api/book/catalogue/take", take);
        Assert.Equal(200, status);
        // Two goods and a rate of each; the tile's rate needs role and pace, the stain its coverage too.
        Assert.Equal((4, 3), (taken["added"]!.AsArray().Count, (int)taken["unfinished"]!));
        var rows = (
            await server.Http.GetFromJsonAsync<JsonObject>(
                $"/api/book?words={Uri.EscapeDataString((string)stain["name"]!)}&kind=&trade=&archived=false"
            )
        )!["entries"]!
            .AsArray()
            .ToDictionary(e => (string)e!["kind"]!, e => (string)e!["says"]!);
        Assert.Equal("needs its coverage", rows["material"]);
        Assert.Equal("needs a role and a pace", rows["rate"]);
        // A second time there is nothing to add.
        Assert.Empty((await server.Post("/api/book/catalogue/take", take)).Body["added"]!.AsArray());
        Assert.NotNull((await Find((string)stain["name"]!))["goods"]![0]!["have"]);
    }

    [Fact]
    public async Task What_the_supplier_does_not_have_and_too_much_at_once_is_refused()
    {
        var (unknown, says) = await server.Post(
            "/api/book/catalogue/take",
            new JsonObject { ["codes"] = new JsonArray("none"), ["work"] = false }
        );
        Assert.Equal(
            (422, "Some of these goods are not in the catalogue any more."),
            (unknown, (string)says["title"]!)
        );
        var many = new JsonArray([.. Enumerable.Range(0, 101).Select(n => JsonValue.Create($"x{n}"))]);
        Assert.Equal(
            422,
            (
                await server.Post("/api/book/catalogue/take", new JsonObject { ["codes"] = many, ["work"] = false })
            ).Status
        );
    }

    [Fact]
    public async Task A_new_job_has_the_crew_that_the_firm_has_set_and_the_list_says_what_it_comes_to()
    {
        var was = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/crew"))!;
        async Task<int> Set(int size, string hours)
        {
            var now = was.DeepClone().AsObject();
            (now["size"], now["hoursPerDay"]) = (size, hours);
            var body = new JsonObject { ["was"] = was.DeepClone(), ["now"] = now };
            return (int)(await server.Http.PutAsJsonAsync("/api/company/crew", body)).StatusCode;
        }
        Assert.Equal(422, await Set(0, "8"));
        Assert.Equal(422, await Set(2, "25"));
        Assert.Equal(200, await Set(2, "7.5"));
        var id = Guid.CreateVersion7();
        var made = await server.Post(
            "/api/jobs",
            new JsonObject
            {
                ["id"] = id.ToString(),
                ["name"] = "Crewed",
                ["subtitle"] = "",
                ["customer"] = null,
                ["units"] = "feet",
            }
        );
        Assert.Equal(200, made.Status);
        var crew = (await server.Job(id))["crew"]!;
        Assert.Equal((2, "7.5"), ((int)crew["size"]!, (string)crew["hoursPerDay"]!));

        JsonNode Row(JsonArray list, Guid job) => list.Single(j => (string)j!["id"]! == job.ToString())!;
        var list = (await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!;
        Assert.Equal((0, "0.0"), ((int)Row(list, id)["places"]!, (string)Row(list, id)["hours"]!["shown"]!));
        // The list says what the tally of the job says, also after an edit.
        await server.Do(
            "addPlace",
            new()
            {
                ["place"] = Guid.CreateVersion7().ToString(),
                ["line"] = "Hall 12 x 10 x 8",
                ["group"] = "",
                ["after"] = null,
            }
        );
        var library = Row((await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!, Server.Library);
        var tally = (await server.Job())["tally"]!;
        Assert.Equal((int)tally["places"]!, (int)library["places"]!);
        Assert.Equal((string)tally["beforeTax"]!["shown"]!, (string)library["price"]!["shown"]!);
        Assert.Equal((string)tally["hours"]!["shown"]!, (string)library["hours"]!["shown"]!);
    }
}
