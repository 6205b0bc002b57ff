using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Emendum.Documents.Tables;
using UglyToad.PdfPig;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>The schedule of accepted jobs: laid out from the work order, moved with what it pushes, several jobs with one crew, told by messages, read by calendar programs (delivery.md, T).</summary>
public sealed class SchedulingTests(RunningServer running) : IClassFixture<RunningServer>
{
    /// <summary>The demo's job that was accepted, and is planned.</summary>
    private static readonly Guid Gallery = new("01930000-0000-7000-8000-000000000994"),
        Pottery = new("01930000-0000-7000-8000-000000000996");

    private const string Wyn = "01930000-0000-7000-8000-000000000801",
        Floor = "01930000-0000-7000-8000-000000000803";

    private static readonly JsonObject Strip = new() { ["from"] = "", ["byCrew"] = false };

    private readonly Server server = running.Server;

    private static string At(Guid job, string rest = "") => $"/api/jobs/{job}/deliver/schedule{rest}";

    private async Task<JsonObject> View(Guid? job = null, string query = "") =>
        (await server.Http.GetFromJsonAsync<JsonObject>(At(job ?? Gallery, query)))!;

    private static JsonObject Task(JsonNode view, string name) =>
        view["tasks"]!.AsArray().Single(t => (string)t!["name"]! == name)!.AsObject();

    /// <summary>Does what was seen before: its changes as a command.</summary>
    private Task<(int Status, JsonObject Body)> Keep(JsonObject preview, Guid? job = null) =>
        server.Do("changeTasks", new JsonObject { ["tasks"] = preview["changes"]!.DeepClone() }, job: job ?? Gallery);

    private async Task<JsonObject> Seen(string what, JsonObject body, Guid? job = null)
    {
        body["strip"] = Strip.DeepClone();
        var (status, preview) = await server.Post(At(job ?? Gallery, $"/{what}"), body);
        Assert.True(status == 200, preview.ToJsonString());
        return preview;
    }

    private Task<JsonObject> Moved(JsonNode task, int by, Guid? job = null) =>
        Seen(
            "move",
            new()
            {
                ["task"] = task["id"]!.DeepClone(),
                ["day"] = "",
                ["by"] = by,
            },
            job
        );

    private async Task<(int Status, JsonObject Body)> Publish(JsonNode version, Guid? id = null) =>
        await server.Post(
            At(Gallery, "/publish"),
            new JsonObject { ["id"] = id ?? Guid.CreateVersion7(), ["version"] = version.DeepClone() }
        );

    [Fact]
    public async Task A_move_says_what_it_pushes_and_whom_it_concerns_is_one_command_and_one_undo()
    {
        var before = await View();
        var floors = Task(before, "Floors");
        var preview = await Moved(floors, 2);
        Assert.Equal((string)floors["id"]!, (string)preview["task"]!);
        // What waits for the floor moves with it, and nothing else; only those two crews have anything to be told.
        Assert.Equal(["Shelves back, hand over"], preview["moves"]!.AsArray().Select(m => (string)m!["called"]!));
        Assert.Equal(["Idris", "The floor layer"], preview["tell"]!.AsArray().Select(t => (string)t!["crew"]!).Order());
        // It was only looked at.
        Assert.Equal(before.ToJsonString(), (await View()).ToJsonString());
        var (status, _) = await Keep(preview);
        Assert.Equal(200, status);
        var after = await View();
        Assert.Equal((string)preview["days"]!, (string)Task(after, "Floors")["days"]!);
        Assert.True((bool)Task(after, "Floors")["isPinned"]!);
        // The same again was made from what stands there no more.
        Assert.Equal(409, (await Keep(preview)).Status);
        Assert.Equal(200, (await server.Reverse("undo", Gallery)).Status);
        Assert.Equal((string)floors["days"]!, (string)Task(await View(), "Floors")["days"]!);
    }

    [Fact]
    public async Task T8_what_has_begun_keeps_its_start_and_links_are_never_broken()
    {
        var view = await View();
        var (status, refused) = await server.Post(
            At(Gallery, "/move"),
            new JsonObject
            {
                ["strip"] = Strip.DeepClone(),
                ["task"] = Task(view, "Ceilings")["id"]!.DeepClone(),
                ["day"] = "",
                ["by"] = 1,
            }
        );
        Assert.Equal((422, "task"), (status, (string)refused["field"]!));
        // Put before what it waits for: it goes to the first moment its link allows, which is said (T4).
        var early = await Moved(Task(view, "Shelves back, hand over"), -5);
        Assert.Contains(
            early["says"]!.AsArray(),
            s => ((string)s!).StartsWith("What it waits for does not let it begin earlier", StringComparison.Ordinal)
        );
    }

    [Fact]
    public async Task T10_only_those_whose_days_differ_are_told_once_by_mail_or_text()
    {
        await TellAll();
        var mailed = (await Mails()).Count;
        var view = await View();
        Assert.Equal((422, "schedule"), await Refused(Publish(view["version"]!)));
        await Keep(await Moved(Task(view, "Floors"), 1));
        var moved = await View();
        // The version that was seen is the one that is told.
        Assert.Equal((422, "version"), await Refused(Publish(view["version"]!)));
        var id = Guid.CreateVersion7();
        var (status, told) = await Publish(moved["version"]!, id);
        Assert.Equal(200, status);
        Assert.Empty(told["tell"]!.AsArray());
        Assert.Equal(200, (await Publish(moved["version"]!, id)).Status);
        var all = await Mails();
        var mails = all[..(all.Count - mailed)];
        Assert.Equal(
            [("+353 1 555 0142", "text"), ("floors@quaylane.example", "mail")],
            mails.Select(m => ((string)m!["to"]!, (string)m["way"]!)).Order()
        );
        var mail = mails.Single(m => (string)m!["way"]! == "mail")!;
        Assert.Contains("Floors, Gallery: ", (string)mail["words"]!, StringComparison.Ordinal);
        Assert.Contains("(was ", (string)mail["words"]!, StringComparison.Ordinal);
        Assert.Empty(mail["attached"]!.AsArray());
        var file = await server.Http.GetStringAsync($"/api/outbox/{(string)mail["id"]!}/file");
        Assert.Contains("Your days at Saltmarsh reading gallery", file, StringComparison.Ordinal);
    }

    /// <summary>What was sent of schedules, the last first.</summary>
    private async Task<List<JsonNode?>> Mails() =>
        [
            .. (await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!.Where(m =>
                (string)m!["view"]! == "schedule"
            ),
        ];

    /// <summary>Everybody knows of everything.</summary>
    private async Task TellAll()
    {
        var view = await View();
        if (view["tell"]!.AsArray().Count > 0)
            Assert.Equal(200, (await Publish(view["version"]!)).Status);
    }

    private static async Task<(int, string)> Refused(Task<(int Status, JsonObject Body)> answer)
    {
        var (status, body) = await answer;
        return (status, (string)body["field"]!);
    }

    [Fact]
    public async Task T7_two_jobs_that_want_one_crew_on_one_day_show_it()
    {
        await server.Accept(Pottery);
        var empty = await View(Pottery);
        Assert.Empty(empty["tasks"]!.AsArray());
        // Walls of the gallery run on Wyn's days: all of the pottery is laid on the same, from the day on which they begin.
        var from = (string)Task(await View(), "Walls")["day"]!;
        JsonObject Lay(string crew) =>
            new()
            {
                ["from"] = from,
                ["crews"] = new JsonArray(
                    [
                        .. empty["sections"]!
                            .AsArray()
                            .Select(s => new JsonObject { ["section"] = s!["name"]!.DeepClone(), ["crew"] = crew }),
                    ]
                ),
            };
        var other = await Seen("lay-out", Lay(Floor), Pottery);
        Assert.DoesNotContain(
            other["clashes"]!.AsArray(),
            c => ((string)c!).Contains("Walls, Gallery", StringComparison.Ordinal)
        );
        var laid = await Seen("lay-out", Lay(Wyn), Pottery);
        Assert.Contains(
            laid["clashes"]!.AsArray(),
            c =>
                ((string)c!).StartsWith("Wyn, ", StringComparison.Ordinal)
                && ((string)c!).Contains("Walls, Gallery (2035 Saltmarsh reading gallery)", StringComparison.Ordinal)
        );
        Assert.Equal(200, (await Keep(laid, Pottery)).Status);
        // Seen from the other job, too; on the crew's line lie both.
        var gallery = await View(query: $"?byCrew=true&from={from}");
        Assert.NotEmpty(gallery["clashes"]!.AsArray());
        var line = gallery["strip"]!["rows"]!.AsArray().Single(r => (string)r!["name"]! == "Wyn")!;
        Assert.Contains(line["pieces"]!.AsArray(), p => (string?)p!["job"] == Pottery.ToString());
        Assert.Contains(line["pieces"]!.AsArray(), p => p!["job"] is null && (bool)p["clashes"]!);
        foreach (var day in new[] { "0001-01-01", "9999-12-31", "soon" })
        {
            var far = Lay(Wyn);
            (far["from"], far["strip"]) = (day, Strip.DeepClone());
            Assert.Equal((422, "from"), await Refused(server.Post(At(Pottery, "/lay-out"), far)));
            using var seen = await server.Http.GetAsync(At(Pottery, $"?from={day}"));
            Assert.Equal(HttpStatusCode.UnprocessableEntity, seen.StatusCode);
        }
        // A section nobody is named for is refused.
        var nobody = Lay(Guid.CreateVersion7().ToString());
        nobody["strip"] = Strip.DeepClone();
        Assert.Equal(422, (await server.Post(At(Pottery, "/lay-out"), nobody)).Status);
    }

    [Fact]
    public async Task A_task_is_typed_over_added_by_hand_and_taken_away()
    {
        var view = await View();
        JsonObject Typed(string name, string hours, string day, JsonArray? links = null) =>
            new()
            {
                ["name"] = name,
                ["at"] = "Stair lobby",
                ["crew"] = Wyn,
                ["hours"] = hours,
                ["day"] = day,
                ["clock"] = "9:30",
                ["isPinned"] = true,
                ["links"] = links ?? [],
            };
        var id = Guid.CreateVersion7();
        var after = new JsonArray(
            new JsonObject
            {
                ["after"] = Task(view, "Shelves back, hand over")["id"]!.DeepClone(),
                ["lead"] = "4",
                ["drying"] = "",
            }
        );
        var added = await Seen("add", new() { ["id"] = id, ["typed"] = Typed("Touch up", "3", "2031-03-03", after) });
        Assert.Equal("Mon 3 Mar, 9:30–12:30", (string)added["days"]!);
        Assert.Equal(200, (await Keep(added)).Status);
        var task = Task(await View(), "Touch up");
        Assert.Equal(
            ("Stair lobby", "4 working h between"),
            ((string)task["at"]!, (string)task["waits"]![0]!["words"]!)
        );
        var set = await Seen(
            "set",
            new()
            {
                ["task"] = id,
                ["typed"] = Typed("Touch up the lobby", "8", "2031-03-03", after.DeepClone().AsArray()),
            }
        );
        Assert.Equal("Mon 3 Mar, 9:30 to Tue 4 Mar, 9:30", (string)set["days"]!);
        await Keep(set);
        foreach (var (field, part) in new[] { ("hours", "x"), ("day", "3 March"), ("clock", "noon"), ("name", " ") })
        {
            var typed = Typed("Touch up", "3", "2031-03-03");
            typed[field] = part;
            var (status, refused) = await server.Post(
                At(Gallery, "/set"),
                new JsonObject
                {
                    ["strip"] = Strip.DeepClone(),
                    ["task"] = id,
                    ["typed"] = typed,
                }
            );
            Assert.Equal((422, field), (status, (string)refused["field"]!));
        }
        await Keep(await Seen("remove", new() { ["task"] = id }));
        Assert.DoesNotContain((await View())["tasks"]!.AsArray(), t => (string)t!["id"]! == id.ToString());
    }

    [Fact]
    public async Task Days_off_say_what_they_move_in_all_jobs_and_a_crew_with_work_stays()
    {
        var day = (string)Task(await View(), "Floors")["day"]!;
        var crews = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/crews"))!;
        var now = crews.DeepClone().AsObject();
        var floor = now["all"]!.AsArray().Single(c => (string)c!["id"]! == Floor)!;
        floor["time"]!["off"] = new JsonArray(
            new JsonObject
            {
                ["from"] = day,
                ["to"] = "",
                ["why"] = "another site",
            }
        );
        var (_, moves) = await server.Post("/api/company/crews/moves", now);
        Assert.Contains(
            moves["moves"]!.AsArray(),
            m => ((string)m!["called"]!).StartsWith("Floors, Gallery (2035", StringComparison.Ordinal)
        );
        using var saved = await server.Http.PutAsJsonAsync(
            "/api/company/crews",
            new JsonObject { ["was"] = crews.DeepClone(), ["now"] = now.DeepClone() }
        );
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        Assert.NotEqual(day, (string)Task(await View(), "Floors")["day"]!);
        // Taken back, it lies where it did: only what was kept is settled.
        using var back = await server.Http.PutAsJsonAsync(
            "/api/company/crews",
            new JsonObject { ["was"] = now.DeepClone(), ["now"] = crews.DeepClone() }
        );
        Assert.Equal(day, (string)Task(await View(), "Floors")["day"]!);
        now = crews;
        var without = now.DeepClone().AsObject();
        without["all"]!.AsArray().Remove(without["all"]!.AsArray().Single(c => (string)c!["id"]! == Floor));
        using var gone = await server.Http.PutAsJsonAsync(
            "/api/company/crews",
            new JsonObject { ["was"] = now.DeepClone(), ["now"] = without }
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, gone.StatusCode);
    }

    [Fact]
    public async Task A_calendar_has_what_was_told_of_a_crew_and_is_closed_when_it_is_revoked()
    {
        var (status, made) = await server.Post(
            $"/api/company/crews/{Floor}/calendar",
            new JsonObject { ["id"] = Guid.CreateVersion7() }
        );
        Assert.Equal(200, status);
        var address = new Uri((string)made["address"]!);
        using var outside = new HttpClient();
        await TellAll();
        var text = await outside.GetStringAsync(address);
        Assert.Equal("text/calendar", (await outside.GetAsync(address)).Content.Headers.ContentType!.MediaType);
        Assert.Contains("SUMMARY:Floors\\, Gallery (Saltmarsh reading gallery)", text, StringComparison.Ordinal);
        Assert.Equal(1, text.Split("BEGIN:VEVENT").Length - 1);
        // What is planned and was not told is not in it; afterwards it is.
        await Keep(await Moved(Task(await View(), "Floors"), 3));
        Assert.Equal(Starts(text), Starts(await outside.GetStringAsync(address)));
        await Publish((await View())["version"]!);
        Assert.NotEqual(Starts(text), Starts(await outside.GetStringAsync(address)));
        await server.Post($"/api/company/crews/{Floor}/calendar/revoke", new JsonObject());
        using var closed = await outside.GetAsync(address);
        Assert.Equal(HttpStatusCode.NotFound, closed.StatusCode);
        using var none = await outside.GetAsync(new Uri(address, "/calendar/AAAAAAAAAAAAAAAAAAAAAA"));
        Assert.Equal(await closed.Content.ReadAsStringAsync(), await none.Content.ReadAsStringAsync());
    }

    private static string Starts(string calendar) =>
        calendar.Split('\n').Single(l => l.StartsWith("DTSTART", StringComparison.Ordinal)).Trim();

    [Fact]
    public async Task A_crew_has_a_work_order_for_its_day_and_its_page_says_the_days_that_were_told()
    {
        var view = await View();
        var day = view["days"]!.AsArray().First(d => (string)d!["crew"]! == Floor)!;
        string Pdf(string crew, string on) => At(Gallery, $"/work-order.pdf?crew={crew}&day={on}");
        using var pdf = PdfDocument.Open(await server.Http.GetByteArrayAsync(Pdf(Floor, (string)day["day"]!)));
        var words = string.Join(' ', pdf.GetPages().SelectMany(p => p.GetWords()).Select(w => w.Text));
        Assert.Contains("The floor layer,", words, StringComparison.Ordinal);
        Assert.Contains("Loop", words, StringComparison.Ordinal);
        Assert.DoesNotContain("Gannet", words, StringComparison.Ordinal);
        using var none = await server.Http.GetAsync(Pdf(Floor, "2020-01-01"));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, none.StatusCode);
        // The crew leads of the demo have links of their own: each reads its own days.
        var links = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver"))!["links"]!;
        var wyn = links.AsArray().Single(l => (string)l!["for"]! == "Wyn")!;
        var page = await server.Http.GetFromJsonAsync<JsonObject>(
            $"/api/jobs/{Gallery}/deliver/links/{(string)wyn["id"]!}/page"
        );
        Assert.Equal(
            ["Ceilings, Gallery", "Walls, Gallery"],
            page!["days"]!.AsArray().Select(d => ((string)d!).Split(':')[0])
        );
    }

    [Fact]
    public async Task The_workbook_has_a_row_for_each_task()
    {
        var bytes = await server.Http.GetByteArrayAsync(At(Gallery, "/schedule.xlsx"));
        var floors = TableFile.Read(bytes, 0).Rows.Single(r => r.Count > 6 && r[1] == "Floors");
        Assert.Equal(("Gallery", "The floor layer"), (floors[0], floors[2]));
        Assert.Contains("Woodwork, Gallery (dries 24 h)", floors[6], StringComparison.Ordinal);
    }

    [Fact]
    public async Task Tasks_of_a_job_stand_on_disk_and_come_with_its_file()
    {
        using var folder = new TemporaryFolder();
        using var own = Server.Start(folder.Path);
        async Task<JsonObject> Seen(Server of) => (await of.Http.GetFromJsonAsync<JsonObject>(At(Gallery)))!;
        var (_, preview) = await own.Post(
            At(Gallery, "/move"),
            new JsonObject
            {
                ["strip"] = Strip.DeepClone(),
                ["task"] = Task(await Seen(own), "Floors")["id"]!.DeepClone(),
                ["day"] = "",
                ["by"] = 2,
            }
        );
        await own.Do("changeTasks", new() { ["tasks"] = preview["changes"]!.DeepClone() }, job: Gallery);
        var before = await Seen(own);
        Assert.Equal((string)preview["days"]!, (string)Task(before, "Floors")["days"]!);
        var file = await own.Http.GetStringAsync($"/api/jobs/{Gallery}/file");
        Assert.Equal(5, JsonNode.Parse(file)!["tasks"]!.AsArray().Count);
        own.Kill();
        using var again = Server.StartIn(folder.Path);
        Assert.Equal(before["tasks"]!.ToJsonString(), (await Seen(again))["tasks"]!.ToJsonString());
    }
}
