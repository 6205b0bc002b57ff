using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>The visits of a round through the real server: said, moved, billed by the month, by the office and by a crew's link.</summary>
public sealed class RoundsTests : IDisposable
{
    private static readonly Guid Round = new("01930000-0000-7000-8000-000000000995");
    private static readonly Guid Gallery = new("01930000-0000-7000-8000-000000000994");

    private readonly TemporaryFolder folder = new();
    private Server server;

    public RoundsTests() => server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private static string Path => $"/api/jobs/{Round}/deliver";

    private async Task<JsonObject> Get(string what) => (await server.Http.GetFromJsonAsync<JsonObject>(Path + what))!;

    /// <summary>The demo's round in its third month, as if nobody had said anything of it yet.</summary>
    private async Task<JsonObject> Begun()
    {
        foreach (var written in (JsonArray)(await Get(""))["hours"]!)
        {
            var (status, answer) = await server.Post(
                $"{Path}/hours/{written!["id"]}/take-back",
                new JsonObject { ["id"] = Guid.CreateVersion7() }
            );
            Assert.True(status == 200, answer.ToJsonString());
        }
        var view = await Get("/visits");
        return await Said(Say("open", Visits(view).OfType<JsonNode>().Where(v => (string)v["said"]! != "open")));
    }

    private static JsonArray Visits(JsonObject view) => (JsonArray)view["visits"]!;

    private static IEnumerable<JsonNode> Past(JsonObject view) =>
        Visits(view).OfType<JsonNode>().Where(v => (bool)v["isLate"]!);

    private static JsonObject Say(
        string said,
        IEnumerable<JsonNode> visits,
        string words = "",
        JsonArray? hours = null
    ) =>
        new()
        {
            ["id"] = Guid.CreateVersion7(),
            ["visits"] = new JsonArray(
                [
                    .. visits.Select(v => new JsonObject
                    {
                        ["visit"] = v["id"]!.DeepClone(),
                        ["kind"] = v["kind"]!.DeepClone(),
                    }),
                ]
            ),
            ["said"] = said,
            ["day"] = "",
            ["words"] = words,
            ["hours"] = hours ?? [],
        };

    private async Task<JsonObject> Said(JsonObject say)
    {
        var (status, answer) = await server.Post(Path + "/visits", say);
        Assert.True(status == 200, answer.ToJsonString());
        return answer;
    }

    private async Task<string> Refused(string path, JsonObject body, string field)
    {
        var (status, answer) = await server.Post(path, body);
        Assert.Equal((422, field), (status, (string?)answer["field"]));
        return (string)answer["title"]!;
    }

    private static JsonObject Wanted(string by, int? step) =>
        new()
        {
            ["by"] = by,
            ["step"] = step,
            ["value"] = "",
        };

    private async Task<JsonObject> Issue(string by, int? step)
    {
        var (drawn, draft) = await server.Post(Path + "/invoices/draft", Wanted(by, step));
        Assert.True(drawn == 200, draft.ToJsonString());
        var (status, answer) = await server.Post(
            Path + "/invoices",
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["wanted"] = Wanted(by, step),
                ["total"] = draft["total"]!.DeepClone(),
                ["supplied"] = "",
                ["reason"] = "",
            }
        );
        Assert.True(status == 200, answer.ToJsonString());
        return answer;
    }

    private static string Sum(JsonObject invoices, string label) =>
        (string)((JsonArray)invoices["sums"]!).Single(r => (string)r!["label"]! == label)!["amount"]!;

    [Fact]
    public async Task Visits_are_laid_out_said_once_and_stand_after_a_kill()
    {
        var view = await Begun();
        Assert.Equal(44, Visits(view).Count);
        Assert.Equal(12, ((JsonArray)view["months"]!).Count);
        var past = Past(view).ToList();
        Assert.NotEmpty(past);
        var first = past.First(v => (string)v["name"]! == "Fortnightly");
        var say = Say(
            "done",
            [first],
            "",
            [
                new JsonObject { ["person"] = "Wyn", ["hours"] = "3.5 h" },
                new JsonObject { ["person"] = "Idris", ["hours"] = "3" },
            ]
        );
        await Said(say);
        // The same again is the same.
        view = await Said(say);
        var done = Visits(view).Single(v => (string)v!["id"]! == (string)first["id"]!)!;
        Assert.Equal(("done", "6.5 h"), ((string)done["said"]!, (string)done["used"]!));
        // Two people are two entries of hours of that day; set-up and travel are in them, so that they are no one work's.
        var station = await Get("");
        Assert.Equal(2, ((JsonArray)station["hours"]!).Count);
        Assert.All((JsonArray)station["hours"]!, h => Assert.Equal("visit: Fortnightly", (string)h!["on"]!));
        await Refused(Path + "/visits", Say("leftOut", past.Take(1)), "words");
        await Refused(
            Path + "/visits",
            Say("done", past.Take(2), "", [new JsonObject { ["person"] = "Wyn", ["hours"] = "1" }]),
            "hours"
        );
        var to = Visits(view).Last(v => (string)v!["said"]! == "open")!;
        var early = Say("done", [to]);
        early["day"] = (string)to["day"]!;
        await Refused(Path + "/visits", early, "day");
        await Refused(
            Path + "/visits",
            Say("done", [new JsonObject { ["id"] = Guid.CreateVersion7(), ["kind"] = to["kind"]!.DeepClone() }]),
            "visit"
        );
        // Hours of 25 h are refused, and nothing is said of the visit then.
        var other = past.First(v => (string)v["id"]! != (string)first["id"]!);
        await Refused(
            Path + "/visits",
            Say("done", [other], "", [new JsonObject { ["person"] = "Wyn", ["hours"] = "25" }]),
            "hours"
        );
        server.Kill();
        server = Server.StartIn(folder.Path);
        var after = Visits(await Get("/visits"));
        Assert.Equal("done", (string)after.Single(v => (string)v!["id"]! == (string)first["id"]!)!["said"]!);
        Assert.Equal("open", (string)after.Single(v => (string)v!["id"]! == (string)other["id"]!)!["said"]!);
    }

    [Fact]
    public async Task Months_bill_the_year_and_what_closes_it_brings_what_was_done()
    {
        var view = await Begun();
        var invoices = await Get("/invoices");
        Assert.True((bool)invoices["byMonth"]!);
        Assert.Equal(12, ((JsonArray)invoices["steps"]!).Count);
        var contract = decimal.Parse(Sum(invoices, "Contract sum"), null);
        await Refused(
            Path + "/invoices/draft",
            Wanted("percent", null) is var percent && (percent["value"] = "40") is not null ? percent : [],
            "by"
        );
        await Refused(Path + "/invoices/draft", Wanted("rest", null), "by");
        invoices = await Issue("month", 0);
        Assert.Contains(
            "Month 1 of the contract year",
            (string)invoices["invoices"]![0]!["label"]!,
            StringComparison.Ordinal
        );
        Assert.Equal((string)invoices["steps"]![0]!["net"]!, Sum(invoices, "Billed"));
        await Refused(Path + "/invoices/draft", Wanted("month", 0), "step");
        // What is past was done, the rest is left out: the round ends early.
        view = await Said(Say("done", Past(view)));
        var open = Visits(view).OfType<JsonNode>().Where(v => (string)v["said"]! == "open").ToList();
        view = await Said(Say("leftOut", open, "the clinic moves"));
        var kinds = (JsonArray)view["kinds"]!;
        var left = kinds.Sum(k =>
            Each(k!)
            * (Visits(view).Count(v => (string)v!["kind"]! == (string)k!["id"]! && (string)v["said"]! == "leftOut"))
        );
        invoices = await Get("/invoices");
        Assert.Equal(contract - left, decimal.Parse(Sum(invoices, "Contract sum"), null));
        // Without what was billed already, supplies and what is done once among it: all that is open closes the year.
        invoices = await Issue("rest", null);
        Assert.Equal("0.00", Sum(invoices, "Not billed yet"));
        Assert.Equal(contract - left, decimal.Parse(Sum(invoices, "Billed"), null));
        var pdf = await server.Http.GetAsync($"{Path}/invoices/{invoices["invoices"]![0]!["id"]}/pdf");
        Assert.Equal(200, (int)pdf.StatusCode);
    }

    private static decimal Each(JsonNode kind) => decimal.Parse(((string)kind["each"]!).Split(' ')[0], null);

    [Fact]
    public async Task A_visit_is_moved_in_the_schedule_and_one_that_is_left_out_is_on_nobodys_day()
    {
        var view = await Begun();
        var strip = new JsonObject { ["from"] = "", ["byCrew"] = false };
        var empty = (await server.Http.GetFromJsonAsync<JsonObject>($"{Path}/schedule?from=&byCrew=false"))!;
        var crew = (string)((JsonArray)empty["crews"]!)[0]!["id"]!;
        var (status, laid) = await server.Post(
            Path + "/schedule/lay-out",
            new JsonObject
            {
                ["strip"] = strip.DeepClone(),
                ["from"] = view["today"]!.DeepClone(),
                ["crews"] = new JsonArray(
                    [
                        .. ((JsonArray)empty["sections"]!).Select(s => new JsonObject
                        {
                            ["section"] = s!["name"]!.DeepClone(),
                            ["crew"] = crew,
                        }),
                    ]
                ),
            }
        );
        Assert.True(status == 200, laid.ToJsonString());
        await Keep(laid);
        var next = Visits(view).First(v => !(bool)v!["isLate"]! && (string)v["name"]! == "Twice a year")!;
        var to = DateOnly.Parse((string)next["day"]!, null).AddDays(1);
        while (to.DayOfWeek is DayOfWeek.Saturday or DayOfWeek.Sunday)
            to = to.AddDays(1);
        var (moved, preview) = await server.Post(
            Path + "/schedule/move",
            new JsonObject
            {
                ["strip"] = strip.DeepClone(),
                ["task"] = next["id"]!.DeepClone(),
                ["day"] = to.ToString("yyyy-MM-dd", null),
                ["by"] = 0,
            }
        );
        Assert.True(moved == 200, preview.ToJsonString());
        await Keep(preview);
        view = await Get("/visits");
        Assert.True((bool)view["isPlanned"]!);
        var row = Visits(view).Single(v => (string)v!["id"]! == (string)next["id"]!)!;
        Assert.Equal(
            (to.ToString("yyyy-MM-dd", null), (string)next["words"]!),
            ((string)row["day"]!, (string)row["moved"]!)
        );
        var tasks = (JsonArray)
            (await server.Http.GetFromJsonAsync<JsonObject>($"{Path}/schedule?from=&byCrew=false"))!["tasks"]!;
        Assert.Contains(tasks, t => (string)t!["id"]! == (string)next["id"]!);
        await Said(Say("leftOut", [row], "the clinic is closed"));
        tasks = (JsonArray)
            (await server.Http.GetFromJsonAsync<JsonObject>($"{Path}/schedule?from=&byCrew=false"))!["tasks"]!;
        Assert.DoesNotContain(tasks, t => (string)t!["id"]! == (string)next["id"]!);
        // Said to be open again, it stands where it was put.
        view = await Said(Say("open", [row]));
        Assert.Equal(
            to.ToString("yyyy-MM-dd", null),
            (string)Visits(view).Single(v => (string)v!["id"]! == (string)next["id"]!)!["day"]!
        );

        async Task Keep(JsonObject preview)
        {
            var (kept, answer) = await server.Do(
                "changeTasks",
                new JsonObject { ["tasks"] = preview["changes"]!.DeepClone() },
                job: Round,
                version: (long)preview["version"]!
            );
            Assert.True(kept == 200, answer.ToJsonString());
        }
    }

    [Fact]
    public async Task A_crew_says_what_was_done_by_its_link_sees_no_price_and_does_not_decide_what_is_billed()
    {
        var view = await Begun();
        async Task<string> Link(params string[] sections)
        {
            var (status, made) = await server.Post(
                Path + "/links",
                new JsonObject
                {
                    ["id"] = Guid.CreateVersion7(),
                    ["for"] = "Wyn",
                    ["sections"] = new JsonArray([.. sections.Select(s => (JsonNode)s)]),
                }
            );
            Assert.True(status == 200, made.ToJsonString());
            return new Uri((string)made["address"]!).AbsolutePath;
        }
        var link = await Link();
        var text = await server.Outside.GetStringAsync(link + "/page");
        var page = JsonNode.Parse(text)!.AsObject();
        // No amount that the office sees of the visits is in any byte of it.
        foreach (var kind in (JsonArray)view["kinds"]!)
            Assert.DoesNotContain(((string)kind!["each"]!).Split(' ')[0], text, StringComparison.Ordinal);
        var late = Past(page).First(v => (string)v["name"]! == "Fortnightly");
        var (done, after) = await Server.Post(
            server.Outside,
            link + "/visits",
            Say("done", [late], "", [new JsonObject { ["person"] = "Wyn", ["hours"] = "6" }])
        );
        Assert.True(done == 200, after.ToJsonString());
        var office = Visits(await Get("/visits")).Single(v => (string)v!["id"]! == (string)late["id"]!)!;
        Assert.Contains("Wyn", (string)office["stands"]!, StringComparison.Ordinal);
        Assert.Equal("6.0 h", (string)office["used"]!);
        var other = Past(page).First(v => (string)v["id"]! != (string)late["id"]!);
        var (theirs, refused) = await Server.Post(
            server.Outside,
            link + "/visits",
            Say("leftOutByThem", [other], "gate locked")
        );
        Assert.Equal((422, "said"), (theirs, (string?)refused["field"]));
        var (left, _) = await Server.Post(server.Outside, link + "/visits", Say("leftOut", [other], "gate locked"));
        Assert.Equal(200, left);
        // Of other sections a link knows nothing.
        var glass = JsonNode.Parse(await server.Outside.GetStringAsync(await Link("Glass") + "/page"))!.AsObject();
        Assert.All(Visits(glass), v => Assert.Equal("Twice a year", (string)v!["name"]!));
        var (known, answer) = await Server.Post(server.Outside, await Link("Glass") + "/visits", Say("open", [late]));
        Assert.Equal((422, "visit"), (known, (string?)answer["field"]));
    }

    [Fact]
    public async Task A_job_that_does_not_come_back_has_no_visits()
    {
        var response = await server.Http.GetAsync($"/api/jobs/{Gallery}/deliver/visits");
        Assert.Equal("null", (await response.Content.ReadAsStringAsync()) is { Length: > 0 } text ? text : "null");
        var (status, answer) = await server.Post(
            $"/api/jobs/{Gallery}/deliver/visits",
            Say("done", [new JsonObject { ["id"] = Guid.CreateVersion7(), ["kind"] = Guid.CreateVersion7() }])
        );
        Assert.Equal((422, "visit"), (status, (string?)answer["field"]));
    }
}
