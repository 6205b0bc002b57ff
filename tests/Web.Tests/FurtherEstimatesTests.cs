using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using UglyToad.PdfPig;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Several estimates of one customer in one proposal (L22): each with its own total and one sum, accepted together by one signature, each a revision of its own job whose life is led with the proposal.</summary>
public sealed class FurtherEstimatesTests : IDisposable
{
    private static readonly Guid Pottery = new("01930000-0000-7000-8000-000000000996"),
        Showroom = new("01930000-0000-7000-8000-000000000993");

    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public FurtherEstimatesTests() => server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private async Task<JsonObject> Revisions(Guid job) =>
        (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job}/revisions"))!;

    private async Task<JsonNode> Latest(Guid job) => (await Revisions(job))["revisions"]![0]!;

    private async Task<string> State(Guid job) => (string)(await Latest(job))["stateWords"]!;

    private static decimal Read(JsonNode? shown) =>
        decimal.Parse(((string)shown!).Replace(",", "", StringComparison.Ordinal), CultureInfo.InvariantCulture);

    private async Task<decimal> Total(Guid job) => Read((await server.Job(job))["tally"]!["total"]!["shown"]);

    private async Task Names(params Guid[] further)
    {
        var (status, answer) = await server.Do(
            "addBlock",
            new JsonObject
            {
                ["block"] = new JsonObject
                {
                    ["id"] = Guid.CreateVersion7(),
                    ["kind"] = "estimates",
                    ["rank"] = "",
                    ["estimates"] = new JsonArray([.. further.Select(f => (JsonNode)f)]),
                },
                ["after"] = null,
            },
            job: Pottery
        );
        Assert.True(status == 200, answer.ToJsonString());
        // The showroom's prices of the demo have ended; by itself it could not be sent.
        (status, _) = await server.Do(
            "setProposal",
            new JsonObject
            {
                ["field"] = "validDays",
                ["was"] = (await server.Job(Showroom))["proposal"]!["validDays"]!.DeepClone(),
                ["now"] = 3650,
            },
            job: Showroom
        );
        Assert.Equal(200, status);
    }

    private async Task<(int Status, JsonObject Answer)> Send(
        Guid job,
        Guid revision,
        JsonArray further,
        string day = ""
    ) =>
        await server.Post(
            $"/api/jobs/{job}/revisions",
            new JsonObject
            {
                ["id"] = revision,
                ["fact"] = Guid.CreateVersion7(),
                ["base"] = (long)(await server.Job(job))["version"]!,
                ["how"] = day.Length > 0 ? "" : "by hand",
                ["despite"] = "as it is",
                ["day"] = day,
                ["time"] = day.Length > 0 ? "8:00" : "",
                ["message"] =
                    day.Length > 0
                        ? new JsonObject
                        {
                            ["to"] = new JsonArray(
                                new JsonObject { ["address"] = "ida@marrow.example", ["copy"] = false }
                            ),
                            ["subject"] = "Both",
                            ["words"] = "Good day.",
                        }
                        : null,
                ["further"] = further,
            }
        );

    /// <summary>What somebody has seen who looks at the further estimates now.</summary>
    private async Task<JsonArray> Seen() =>
        new(
            [
                .. (await Revisions(Pottery))["further"]!
                    .AsArray()
                    .Select(f => new JsonObject
                    {
                        ["job"] = f!["id"]!.DeepClone(),
                        ["version"] = f["version"]!.DeepClone(),
                    }),
            ]
        );

    private async Task<Guid> SendBoth()
    {
        var id = Guid.CreateVersion7();
        var (status, answer) = await Send(Pottery, id, await Seen());
        return status == 200 ? id : throw new InvalidOperationException(answer.ToJsonString());
    }

    private Task<(int Status, JsonObject Answer)> Record(Guid job, Guid revision, string kind, string day = "") =>
        server.Post(
            $"/api/jobs/{job}/revisions/{revision}/facts",
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["kind"] = kind,
                ["words"] = "because",
                ["day"] = day,
                ["asSent"] = true,
                ["photo"] = "",
            }
        );

    private static void Refused((int Status, JsonObject Answer) told, string says)
    {
        Assert.Equal(422, told.Status);
        Assert.Contains(says, (string)told.Answer["title"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Two_estimates_are_signed_once_and_each_is_accepted()
    {
        var earlier = (Guid)(await Latest(Showroom))["id"]!;
        await Names(Showroom);
        var (ours, theirs) = (await Total(Pottery), await Total(Showroom));
        var proposal = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Pottery}/proposal"))!;
        var block = proposal["document"]!["blocks"]!.AsArray().Single(b => (string)b!["kind"]! == "estimates")!;
        var sums = block["made"]!.AsArray().Last()!["rows"]!.AsArray();
        Assert.Equal(ours + theirs, Read(sums.Last()!["shown"]));
        Assert.Equal(["part", "part", "subtotal", "tax", "total"], sums.Select(r => (string)r!["kind"]!));
        // Ways to workings would lead to those of another job.
        Assert.DoesNotContain("\"figure\":\"", block.ToJsonString());

        // What has changed since somebody looked does not go out unseen.
        var seen = await Seen();
        await server.Do(
            "setInfo",
            new JsonObject
            {
                ["field"] = "subtitle",
                ["was"] = (string)(await server.Job(Showroom))["info"]!["subtitle"]!,
                ["now"] = "Shelves, walls and a counter",
            },
            job: Showroom
        );
        Refused(await Send(Pottery, Guid.CreateVersion7(), seen), "“Marrow Street showroom” has changed since");
        Refused(await Send(Pottery, Guid.CreateVersion7(), []), "“Marrow Street showroom” has changed since");

        var revision = await SendBoth();
        var (lead, further) = (await Latest(Pottery), await Latest(Showroom));
        Assert.Equal(ours + theirs, Read(lead["all"]));
        Assert.Equal(
            ["2034 Marrow Street showroom", "A"],
            new[] { ((string)lead["further"]![0]!).Split(',')[0], (string)further["lead"]!["letters"]! }
        );
        Assert.Equal(
            ("sent", "B", 0),
            ((string)further["stateWords"]!, (string)further["letters"]!, further["may"]!.AsArray().Count)
        );
        Assert.Equal("sent", (string)further["history"]![0]!["did"]!);
        Assert.Equal(
            "superseded",
            (string)
                (await Revisions(Showroom))["revisions"]!.AsArray().Single(r => (Guid)r!["id"]! == earlier)![
                    "stateWords"
                ]!
        );
        var pdf = await server.Http.GetByteArrayAsync($"/api/jobs/{Pottery}/revisions/{revision}/pdf");
        using (var read = PdfDocument.Open(pdf))
            Assert.Contains(
                "Allestimates,withtax",
                string.Concat(read.GetPages().Select(p => p.Text)).Replace(" ", "", StringComparison.Ordinal)
            );

        // While it is open, the further estimate goes no other way.
        var its = (Guid)further["id"]!;
        Refused(await Send(Showroom, Guid.CreateVersion7(), []), "stands in another proposal that is open");
        Refused(await Record(Showroom, its, "withdrawn"), "went out with another proposal");
        Refused(await Record(Showroom, its, "yesRecorded", "2026-01-01"), "went out with another proposal");
        Refused(
            await Record(Showroom, earlier, "yesRecorded", "2026-01-01"),
            "stands in another proposal that is open"
        );
        await Assert.ThrowsAsync<InvalidOperationException>(() => server.LinkTo(Showroom, its, "Ida", signs: true));

        var link = await server.LinkTo(Pottery, revision, "Ida Marrow", signs: true);
        await server.Outside.PostAsync(link + "/seen", null);
        Assert.Equal("seen", await State(Showroom));
        var page = (await server.Outside.GetFromJsonAsync<JsonObject>(link + "/page"))!;
        var statement = page["now"]!["statement"]!;
        Assert.Equal(ours + theirs, Read(statement["total"]));
        Assert.Equal(ours + theirs, statement["price"]!.AsArray().Sum(r => Read(r!["amount"])));
        Assert.Equal(ours + theirs, statement["steps"]!.AsArray().Sum(r => Read(r!["amount"])));
        Assert.Contains(", together with “Marrow Street showroom”, by ", (string)statement["sentence"]!);

        // Accepting the first alone is not what was seen.
        JsonObject Yes(string total) =>
            new()
            {
                ["id"] = Guid.CreateVersion7(),
                ["revision"] = "A",
                ["selection"] = 0,
                ["total"] = total,
                ["name"] = "Ida Marrow",
                ["drawn"] = "",
                ["declares"] = true,
            };
        var alone = ours.ToString("#,0.00", CultureInfo.InvariantCulture);
        Refused(await Server.Post(server.Outside, link + "/accept", Yes(alone)), $"You saw {alone}");
        var yes = Yes((string)statement["total"]!);
        Assert.Equal(200, (await Server.Post(server.Outside, link + "/accept", yes)).Status);
        Assert.Equal(("accepted", "accepted"), (await State(Pottery), await State(Showroom)));
        var agreed = await Latest(Showroom);
        Assert.True((bool)agreed["agreed"]!);
        Assert.Equal("Ida Marrow", (string)agreed["signed"]![0]!["name"]!);
        Refused(await Send(Showroom, Guid.CreateVersion7(), []), "what is wanted next is a change order");
        // The signed PDF is one, by whichever of the two jobs it is asked for first.
        Assert.Equal(
            await server.Http.GetByteArrayAsync($"/api/jobs/{Showroom}/revisions/{its}/signed"),
            await server.Http.GetByteArrayAsync($"/api/jobs/{Pottery}/revisions/{revision}/signed")
        );

        // By mistake: both stand as before.
        Assert.Equal(200, (await Record(Pottery, revision, "annulled")).Status);
        Assert.Equal(("seen", "seen"), (await State(Pottery), await State(Showroom)));
    }

    [Fact]
    public async Task After_a_no_the_further_estimate_may_go_another_way_and_the_proposal_does_not_come_back()
    {
        await Names(Showroom);
        var revision = await SendBoth();
        Assert.Equal(200, (await Record(Pottery, revision, "noRecorded")).Status);
        Assert.Equal("declined", await State(Showroom));
        // Opened again, and declined once more: until then nothing has happened to either.
        Assert.Equal(200, (await Record(Pottery, revision, "reopened")).Status);
        Assert.Equal("sent", await State(Showroom));
        Assert.Equal(200, (await Record(Pottery, revision, "noRecorded")).Status);
        var alone = Guid.CreateVersion7();
        Assert.Equal(200, (await Send(Showroom, alone, [])).Status);
        Refused(
            await Record(Pottery, revision, "reopened"),
            "“Marrow Street showroom” was sent anew since, as its revision C"
        );
        Assert.Equal(200, (await Record(Showroom, alone, "yesRecorded", "2026-01-01")).Status);
        Refused(
            await Record(Pottery, revision, "yesRecorded", "2026-01-01"),
            "“Marrow Street showroom” was accepted otherwise"
        );
    }

    [Fact]
    public async Task The_next_revision_takes_it_along_or_leaves_it_out()
    {
        await Names(Showroom);
        await SendBoth();
        var second = await SendBoth();
        var both = (await Revisions(Showroom))["revisions"]!.AsArray();
        Assert.Equal(
            ["C sent B", "B superseded A"],
            both.Take(2).Select(r => $"{r!["letters"]} {r["stateWords"]} {r["lead"]!["letters"]}")
        );
        // Withdrawn, it is free.
        Assert.Equal(200, (await Record(Pottery, second, "withdrawn")).Status);
        Assert.Equal("superseded", await State(Showroom));
        Assert.Equal(200, (await Send(Showroom, Guid.CreateVersion7(), [])).Status);
        Assert.Equal("sent", await State(Showroom));
    }

    [Fact]
    public async Task What_is_another_customer_s_or_not_there_is_said_and_does_not_go_out()
    {
        var nobody = Guid.CreateVersion7();
        await Names(Server.Library, nobody);
        var proposal = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Pottery}/proposal"))!;
        var says = proposal["unfinished"]!.AsArray().Select(u => (string)u!["says"]!).ToArray();
        Assert.Contains("An estimate that was to go out with it is not here any more.", says);
        Assert.Contains("“Saltmarsh Lending Library” is another customer's.", says);
        Assert.DoesNotContain("Saltmarsh", proposal["document"]!.ToJsonString());
        Refused(await Send(Pottery, Guid.CreateVersion7(), await Seen()), "is not here any more");
        var block = proposal["document"]!["blocks"]!.AsArray().Single(b => (string)b!["kind"]! == "estimates")!;
        async Task<int> Set(JsonArray was, JsonArray now) =>
            (
                await server.Do(
                    "setBlock",
                    new JsonObject
                    {
                        ["block"] = block["id"]!.DeepClone(),
                        ["field"] = "estimates",
                        ["was"] = was,
                        ["now"] = now,
                    },
                    job: Pottery
                )
            ).Status;
        Assert.Equal(422, await Set(new(Server.Library, nobody), new(Pottery)));
        Assert.Equal(422, await Set(new(Server.Library, nobody), new(Showroom, Showroom)));
        Assert.Equal(200, await Set(new(Server.Library, nobody), new(Server.Library)));
        Refused(await Send(Pottery, Guid.CreateVersion7(), await Seen()), "is another customer's");
        var all = (await server.Http.GetFromJsonAsync<JsonArray>($"/api/jobs/{Pottery}/further"))!;
        Assert.Equal("2034 Marrow Street showroom", (string)Assert.Single(all)!["name"]!);
    }
}
