using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Microsoft.Data.Sqlite;
using UglyToad.PdfPig;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>From the yes on: the work order, the crews' pages, hours, and what they teach the Book.</summary>
public sealed class DeliverTests : IDisposable
{
    private static readonly Guid Pottery = new("01930000-0000-7000-8000-000000000996");

    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public DeliverTests() => server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private static string At(Guid job, string rest = "") => $"/api/jobs/{job}/deliver{rest}";

    private async Task<JsonObject> Deliver(Guid? job = null) =>
        (await server.Http.GetFromJsonAsync<JsonObject>(At(job ?? Pottery)))!;

    private Task Accept(Guid job) => server.Accept(job);

    private static List<JsonObject> Lines(JsonNode page) =>
        [.. page["order"]!["lines"]!.AsArray().Select(l => l!.AsObject())];

    private static JsonObject Mark(JsonObject line, decimal percent, Guid? id = null) =>
        new()
        {
            ["id"] = id ?? Guid.CreateVersion7(),
            ["lines"] = new JsonArray(Key(line)),
            ["percent"] = $"{percent}",
        };

    private static JsonObject Key(JsonObject line) =>
        new() { ["work"] = (string)line["work"]!, ["place"] = (string)line["place"]! };

    private static JsonObject Hours(
        JsonObject? line,
        string hours,
        string day,
        string person = "Idris",
        Guid? id = null,
        string what = "work"
    ) =>
        new()
        {
            ["id"] = id ?? Guid.CreateVersion7(),
            ["for"] = what,
            ["work"] = (string?)line?["work"],
            ["place"] = (string?)line?["place"],
            ["person"] = person,
            ["day"] = day,
            ["hours"] = hours,
            ["words"] = "",
        };

    private async Task<string> CrewLink(Guid job, string who, params string[] sections)
    {
        var (status, made) = await server.Post(
            At(job, "/links"),
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["for"] = who,
                ["sections"] = new JsonArray([.. sections.Select(s => (JsonNode)s)]),
            }
        );
        Assert.True(status == 200, made.ToJsonString());
        return new Uri((string)made["address"]!).AbsolutePath;
    }

    private async Task<JsonObject> Page(string link) =>
        (await server.Outside.GetFromJsonAsync<JsonObject>(link + "/page"))!;

    private Task<(int Status, JsonObject Body)> Says(string link, string what, JsonObject body) =>
        Server.Post(server.Outside, $"{link}/{what}", body);

    [Fact]
    public async Task With_the_yes_the_order_stands_and_edits_of_the_estimate_do_not_reach_it()
    {
        Assert.False((bool)(await Deliver())["accepted"]!);
        var (early, refused) = await server.Post(
            At(Pottery, "/done"),
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["lines"] = new JsonArray(),
                ["percent"] = "100",
            }
        );
        Assert.Equal((422, "job"), (early, (string)refused["field"]!));
        await Accept(Pottery);
        var before = await Deliver();
        Assert.True((bool)before["accepted"]!);
        // Each line stands once in each order of reading.
        foreach (var by in new[] { "byPlace", "bySection" })
            Assert.Equal(
                Enumerable.Range(0, Lines(before).Count),
                before["order"]![by]!.AsArray().SelectMany(g => g!["lines"]!.AsArray()).Select(l => (int)l!).Order()
            );
        var places = (await server.Job(Pottery))["places"]!.AsArray();
        var (status, answer) = await server.Do(
            "removePlaces",
            new JsonObject { ["places"] = new JsonArray((string)places[0]!["id"]!) },
            job: Pottery
        );
        Assert.True(status == 200, answer.ToJsonString());
        Assert.Equal(before["order"]!.ToJsonString(), (await Deliver())["order"]!.ToJsonString());
        // Nor does a start of the program.
        server.Kill();
        using var later = Server.Start(folder.Path);
        var after = (await later.Http.GetFromJsonAsync<JsonObject>(At(Pottery)))!;
        Assert.Equal(before["order"]!.ToJsonString(), after["order"]!.ToJsonString());
    }

    [Fact]
    public async Task What_a_crew_ticks_and_writes_stands_in_the_office_and_is_done_once()
    {
        await Accept(Pottery);
        var link = await CrewLink(Pottery, "Idris");
        var page = await Page(link);
        var today = (string)page["today"]!;
        var line = Lines(page)[0];
        var (mark, write) = (Mark(line, 100), Hours(line, "3.5", today));
        // Sent twice, as after an answer that was lost.
        for (var n = 0; n < 2; n++)
        {
            Assert.Equal(200, (await Says(link, "done", (JsonObject)mark.DeepClone())).Status);
            Assert.Equal(200, (await Says(link, "hours", (JsonObject)write.DeepClone())).Status);
        }
        var office = await Deliver();
        var ticked = Lines(office)
            .Single(l => (string)l["work"]! == (string)line["work"]! && (string)l["place"]! == (string)line["place"]!);
        Assert.True((bool)ticked["done"]!);
        Assert.StartsWith("Idris, ", (string)ticked["said"]!, StringComparison.Ordinal);
        var hours = Assert.Single(office["hours"]!.AsArray())!;
        Assert.Equal(("3.5 h", "Idris"), ((string)hours["hours"]!, (string)hours["person"]!));
        var stands = (await server.Http.GetFromJsonAsync<JsonObject>(At(Pottery, "/stands")))!;
        Assert.Matches(@"^\d+ % done · 3\.5 h used$", (string)stands["words"]!);
        // What was written in the office stands on no crew's page; what a crew wrote it takes back itself, another crew does not.
        Assert.Equal(200, (await server.Post(At(Pottery, "/hours"), Hours(line, "1", today, "Wyn"))).Status);
        Assert.Single((await Page(link))["hours"]!.AsArray());
        var other = await CrewLink(Pottery, "Wyn");
        var back = $"hours/{(Guid)hours["id"]!}/take-back";
        Assert.Equal(422, (await Says(other, back, new JsonObject { ["id"] = Guid.CreateVersion7() })).Status);
        Assert.Equal(200, (await Says(link, back, new JsonObject { ["id"] = Guid.CreateVersion7() })).Status);
        Assert.Empty((await Page(link))["hours"]!.AsArray());
        Assert.Equal("1 h", (string)Assert.Single((await Deliver())["hours"]!.AsArray())!["hours"]!);
        // The same id by another link is another thing: nobody takes what is another's.
        Assert.Equal(200, (await Says(other, "hours", (JsonObject)write.DeepClone())).Status);
        Assert.Equal(2, (await Deliver())["hours"]!.AsArray().Count);
    }

    [Fact]
    public async Task What_is_wrong_is_said_beside_its_field()
    {
        await Accept(Pottery);
        var link = await CrewLink(Pottery, "Idris");
        var page = await Page(link);
        var (line, today) = (Lines(page)[0], (string)page["today"]!);
        async Task Refused(string field, string what, JsonObject body)
        {
            var (status, answer) = await Says(link, what, body);
            Assert.Equal((422, field), (status, (string?)answer["field"]));
        }
        await Refused("hours", "hours", Hours(line, "a day", today));
        await Refused("hours", "hours", Hours(line, "25", today));
        await Refused("day", "hours", Hours(line, "1", "soon"));
        await Refused("day", "hours", Hours(line, "1", "2999-01-01"));
        await Refused("person", "hours", Hours(line, "1", today, " "));
        await Refused("percent", "done", Mark(line, 101));
        var strange = (JsonObject)line.DeepClone();
        strange["place"] = Guid.CreateVersion7().ToString();
        await Refused("work", "done", Mark(strange, 100));
        await Refused("place", "hours", Hours(strange, "1", today));
        Assert.Empty((await Deliver())["hours"]!.AsArray());
    }

    [Fact]
    public async Task A_crew_sees_its_sections_alone_and_can_say_nothing_of_others()
    {
        await Accept(Pottery);
        var sections = (await Deliver())["sections"]!.AsArray().Select(s => (string)s!).ToList();
        Assert.True(sections.Count > 1);
        var link = await CrewLink(Pottery, "the tiler", sections[0]);
        var page = await Page(link);
        Assert.All(Lines(page), l => Assert.Equal(sections[0], (string)l["section"]!));
        var foreign = Lines(await Deliver()).First(l => (string)l["section"]! != sections[0]);
        Assert.Equal(422, (await Says(link, "done", Mark(foreign, 100))).Status);
        Assert.Equal(422, (await Says(link, "hours", Hours(foreign, "1", (string)page["today"]!))).Status);
        var (status, answer) = await server.Post(
            At(Pottery, "/links"),
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["for"] = "x",
                ["sections"] = new JsonArray("No such section"),
            }
        );
        Assert.Equal((422, "sections"), (status, (string)answer["field"]!));
        // The paper of that part says nothing of others either.
        var paper = Text(await server.Outside.GetByteArrayAsync(link + "/pdf"));
        Assert.DoesNotContain(
            Squeezed((string)foreign["name"]! + (string)foreign["at"]!),
            paper,
            StringComparison.Ordinal
        );
        // Snags at its places it sees, and mends; what is of the job as a whole is not for it.
        JsonObject Snag(string text, JsonNode? place) =>
            new()
            {
                ["id"] = Guid.CreateVersion7(),
                ["text"] = text,
                ["place"] = place?.DeepClone(),
            };
        Task<(int Status, JsonObject Body)> Mended(JsonNode snag) =>
            Says(
                link,
                $"snags/{(string)snag["id"]!}/mended",
                new() { ["id"] = Guid.CreateVersion7(), ["mended"] = true }
            );
        await server.Post(At(Pottery, "/completion/snags"), Snag("a run", Lines(page)[0]["place"]));
        var (_, all) = await server.Post(At(Pottery, "/completion/snags"), Snag("the yard", null));
        var snag = Assert.Single((await Page(link))["snags"]!.AsArray())!;
        Assert.Equal("a run", (string)snag["text"]!);
        var (done, now) = await Mended(snag);
        Assert.Equal((200, true), (done, (bool)now["snags"]![0]!["mended"]!));
        Assert.Contains("the tiler", (string)now["snags"]![0]!["said"]!, StringComparison.Ordinal);
        var yard = all["snags"]!.AsArray().Single(s => (string)s!["text"]! == "the yard")!;
        Assert.Equal(422, (await Mended(yard)).Status);
    }

    private static string Squeezed(string text) => Regex.Replace(text, @"\s", "");

    private static string Text(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return Squeezed(string.Concat(document.GetPages().Select(p => p.Text)));
    }

    [Theory]
    [InlineData("01930000-0000-7000-8000-000000000996")]
    [InlineData("01930000-0000-7000-8000-000000000999")]
    public async Task No_byte_of_what_a_crew_gets_is_a_price(string of)
    {
        var job = Guid.Parse(of);
        await Accept(job);
        var link = await CrewLink(job, "Idris");
        var page = await server.Outside.GetStringAsync(link + "/page");
        var line = Lines(JsonNode.Parse(page)!)[0];
        var (_, after) = await Says(link, "done", Mark(line, 50));
        string[] papers =
        [
            Text(await server.Outside.GetByteArrayAsync(link + "/pdf")),
            Text(await server.Outside.GetByteArrayAsync(link + "/pdf?bySection=true")),
        ];
        string[] all = [page, after.ToJsonString(), .. papers];
        // Every amount of money that the office can see of the job, with cents: of the price, its build-up, every cost, every pack.
        var amounts = new HashSet<string>();
        foreach (var path in new[] { "price", "proposal", "revisions" })
            Collect(JsonNode.Parse(await server.Http.GetStringAsync($"/api/jobs/{job}/{path}"))!, amounts);
        Collect(JsonNode.Parse(await server.File(job))!["book"]!, amounts);
        Assert.True(amounts.Count > 40, $"{amounts.Count} amounts");
        foreach (var amount in amounts)
        foreach (var answer in all)
            Assert.False(Regex.IsMatch(answer, $@"(?<![\d.,−-]){Regex.Escape(amount)}(?![\d])"), amount);
        var words = new[] { "price", "cost", "margin", "USD", "wage", "supplier", "discount", "markup" };
        foreach (var answer in all)
        foreach (var word in words)
            Assert.DoesNotContain(word, answer, StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>Numbers with two decimals, as they are shown and as they are kept.</summary>
    private static void Collect(JsonNode node, HashSet<string> amounts)
    {
        switch (node)
        {
            case JsonObject all:
                foreach (var (_, value) in all)
                    if (value is not null)
                        Collect(value, amounts);
                break;
            case JsonArray all:
                foreach (var value in all)
                    if (value is not null)
                        Collect(value, amounts);
                break;
            case JsonValue value when value.TryGetValue<string>(out var text) && Regex.IsMatch(text, @"^[\d,]+\.\d\d$"):
                amounts.Add(text);
                break;
        }
    }

    [Fact]
    public async Task Unknown_and_revoked_links_have_the_same_answer_and_an_ended_one_says_so()
    {
        await Accept(Pottery);
        var (link, old) = (await CrewLink(Pottery, "Idris"), await CrewLink(Pottery, "Bo"));
        var line = Lines(await Page(link))[0];
        var id = (Guid)(await Deliver())["links"]![0]!["id"]!;
        for (var n = 0; n < 2; n++)
            Assert.Equal(200, (await server.Post(At(Pottery, $"/links/{id}/revoke"), new JsonObject())).Status);
        foreach (var what in new[] { "/page", "/pdf" })
            Assert.Equal(await Whole("/c/" + new string('x', 22) + what), await Whole(link + what));
        Assert.Equal(404, (await Says(link, "done", Mark(line, 100))).Status);
        // A customer's link opens no crew's page, and the other way round.
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await server.Outside.GetAsync(link.Replace("/c/", "/p/", StringComparison.Ordinal) + "/page")).StatusCode
        );
        // Nobody inside can open it by its token.
        Assert.Equal(HttpStatusCode.NotFound, (await server.Http.GetAsync(old + "/page")).StatusCode);
        server.Kill();
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
        {
            foreach (
                var sql in new[]
                {
                    "DROP TRIGGER crew_link_stays",
                    "UPDATE crew_link SET made = '2025-11-29T00:00:00.000Z' WHERE made_for = 'Bo' AND job_id = '01930000-0000-7000-8000-000000000996'",
                }
            )
                connection.Run(sql);
            // No token stands in the database.
            var token = old.Split('/')[^1];
            Assert.Equal(
                0,
                connection.Rows(
                    "SELECT count(*) FROM crew_link WHERE instr(token_hash || made_for || sections, $t) > 0",
                    r => r.GetInt32(0),
                    ("$t", token)
                )[0]
            );
        }
        database.Close();
        using var later = Server.StartWithOutside(folder.Path);
        Assert.Equal(HttpStatusCode.Gone, (await later.Outside.GetAsync(old + "/page")).StatusCode);
    }

    private async Task<string> Whole(string path)
    {
        using var response = await server.Outside.GetAsync(path);
        var headers = response
            .Headers.Concat(response.Content.Headers)
            .Where(h => h.Key != "Date")
            .Select(h => $"{h.Key}: {string.Join(",", h.Value)}");
        return $"{response.StatusCode}\n{string.Join('\n', headers)}\n{await response.Content.ReadAsStringAsync()}";
    }

    [Fact]
    public async Task Ticks_and_hours_at_once_are_all_there_after_a_kill()
    {
        await Accept(Pottery);
        var link = await CrewLink(Pottery, "Idris");
        var page = await Page(link);
        var (lines, today) = (Lines(page).Where(l => (bool)l["ticks"]!).ToList(), (string)page["today"]!);
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 40)
                .Select(n =>
                    n % 2 == 0
                        ? Says(link, "done", Mark(lines[n / 2 % lines.Count], 100))
                        : Says(link, "hours", Hours(lines[0], "0.5", today, $"Hand {n}"))
                )
        );
        Assert.All(answers, a => Assert.Equal(200, a.Status));
        server.Kill();
        using var later = Server.Start(folder.Path);
        var after = (await later.Http.GetFromJsonAsync<JsonObject>(At(Pottery)))!;
        Assert.Equal(20, after["hours"]!.AsArray().Count);
        Assert.Equal(Math.Min(20, lines.Count), Lines(after).Count(l => (bool)l["done"]!));
    }

    [Fact]
    public async Task Facts_are_never_changed()
    {
        await Accept(Pottery);
        var link = await CrewLink(Pottery, "Idris");
        var page = await Page(link);
        await Says(link, "done", Mark(Lines(page)[0], 100));
        await Says(link, "hours", Hours(null, "1", (string)page["today"]!));
        server.Kill();
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
            foreach (var table in new[] { "work_order", "done_fact", "hours_fact" })
            {
                Assert.Throws<SqliteException>(() =>
                    connection.Run(
                        $"UPDATE {table} SET job_id = job_id WHERE job_id = '01930000-0000-7000-8000-000000000996'"
                    )
                );
                Assert.Throws<SqliteException>(() =>
                    connection.Run($"DELETE FROM {table} WHERE job_id = '01930000-0000-7000-8000-000000000996'")
                );
            }
        database.Close();
    }

    /// <summary>Finishes a job of one room painted at a pace, in so many hours; ids of work and place.</summary>
    private async Task Finish(int number, decimal hours)
    {
        var job = Guid.CreateVersion7();
        Assert.Equal(
            200,
            (
                await server.Post(
                    "/api/jobs",
                    new JsonObject
                    {
                        ["id"] = job,
                        ["name"] = $"Hall {number}",
                        ["subtitle"] = "",
                        ["customer"] = null,
                        ["units"] = "feet",
                    }
                )
            ).Status
        );
        var (place, work) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await server.Do(
            "addPlace",
            new JsonObject
            {
                ["place"] = place,
                ["line"] = "Hall 20 x 10 x 10",
                ["group"] = "",
                ["after"] = null,
            },
            job: job
        );
        var (status, answer) = await server.Do(
            "addWork",
            new JsonObject
            {
                ["work"] = work,
                ["entry"] = Walls,
                ["after"] = null,
                ["places"] = new JsonArray(place.ToString()),
            },
            job: job
        );
        Assert.True(status == 200, answer.ToJsonString());
        await Accept(job);
        var view = await Deliver(job);
        var line = Assert.Single(Lines(view));
        Assert.Equal(200, (await server.Post(At(job, "/done"), Mark(line, 100))).Status);
        Assert.Equal(
            200,
            (await server.Post(At(job, "/hours"), Hours(line, $"{hours}", (string)view["today"]!))).Status
        );
        last = job;
    }

    private Guid last;

    /// <summary>Painting of walls in the starter Book: 95 ft² per h at two coats.</summary>
    private static readonly Guid Walls = StarterBook
        .Entries.OfType<Core.Book.ProductionRate>()
        .First(r =>
            r.Paces.Any(p => p.Coats == 2 && p.Pace.ToString() == "95 ft² per h")
            && r.Measure == Core.Places.Measure.NetWallArea
        )
        .Id;

    [Fact]
    public async Task Three_finished_jobs_suggest_a_rate_which_a_person_keeps()
    {
        // 600 ft² each: 75, 80 and 60 ft² per h.
        await Finish(1, 8);
        await Finish(2, 7.5m);
        async Task<JsonObject> Used() => (await server.Http.GetFromJsonAsync<JsonObject>(At(last, "/hours-used")))!;
        Assert.Empty((await Used())["questions"]!.AsArray());
        Assert.Contains(
            "2 finished jobs so far",
            (string)(await Used())["work"]![0]!["says"]!,
            StringComparison.Ordinal
        );
        await Finish(3, 10);
        var used = await Used();
        var question = Assert.Single(used["questions"]!.AsArray())!;
        Assert.Equal("75 ft² per h", (string)question["pace"]!);
        Assert.Contains("between 60 and 80", (string)question["spread"]!, StringComparison.Ordinal);
        // All work by all hours: 1,800 ÷ 25.5.
        Assert.Contains("is 70.6", (string)question["spread"]!, StringComparison.Ordinal);
        var keep = new JsonObject
        {
            ["entry"] = (string)question["entry"]!,
            ["coats"] = (int)question["coats"]!,
            ["version"] = (int)question["version"]!,
            ["pace"] = "76 ft² per h",
        };
        var (status, refused) = await server.Post(At(last, "/keep-rate"), (JsonObject)keep.DeepClone());
        Assert.Equal((422, "pace"), (status, (string)refused["field"]!));
        keep["pace"] = (string)question["pace"]!;
        Assert.Equal(200, (await server.Post(At(last, "/keep-rate"), (JsonObject)keep.DeepClone())).Status);
        var versions = (await server.Http.GetFromJsonAsync<JsonArray>($"/api/book/{Walls}/versions"))!;
        Assert.Matches(@"^from the hours of jobs \d+, \d+, \d+$", (string)versions[0]!["why"]!);
        Assert.Contains(
            "75 ft² per h",
            versions[0]!["differences"]!.ToJsonString().Replace("\\u00B2", "²", StringComparison.Ordinal),
            StringComparison.Ordinal
        );
        // Those jobs stay, and there is no question any more; the same again is refused.
        used = await Used();
        Assert.Empty(used["questions"]!.AsArray());
        Assert.Equal(3, used["work"]![0]!["lastFive"]!.AsArray().Count);
        Assert.Equal(422, (await server.Post(At(last, "/keep-rate"), keep)).Status);
        // A job that is not finished any more teaches nothing.
        await server.Post(At(last, "/done"), Mark(Lines(await Deliver(last))[0], 90));
        Assert.Equal(2, (await Used())["work"]![0]!["lastFive"]!.AsArray().Count);
    }
}
