using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Emendum.Storage;
using Microsoft.Data.Sqlite;
using UglyToad.PdfPig;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>The door to the outside: a customer's link shows one revision and nothing else, and what is said by it is recorded (L2, L4, L11, L12, L19, L20).</summary>
public sealed class OutsideTests : IDisposable
{
    private static readonly Guid Pottery = new("01930000-0000-7000-8000-000000000996");

    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public OutsideTests() => server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    /// <summary>The job whose revisions are sent.</summary>
    private Guid job = Pottery;

    private string At(string rest = "") => $"/api/jobs/{job}/revisions{rest}";

    private async Task<JsonObject> Revisions() => (await server.Http.GetFromJsonAsync<JsonObject>(At()))!;

    private static JsonObject Message(params (string Address, bool Copy)[] to) =>
        new()
        {
            ["to"] = new JsonArray([.. to.Select(t => new JsonObject { ["address"] = t.Address, ["copy"] = t.Copy })]),
            ["subject"] = "Proposal",
            ["words"] = "Good day.\n\nYour page: {link}",
        };

    private Task<Guid> Send(JsonObject? message = null) => server.SendRevision(job, message);

    private Task<string> Link(Guid revision, string who = "Ida Marrow", bool signs = true) =>
        server.LinkTo(job, revision, who, signs);

    private Task<JsonObject> Page(string link) => Page(server, link);

    /// <summary>The page, with what moves on it among the rest.</summary>
    private static async Task<JsonObject> Page(Server server, string link)
    {
        var page = (await server.Outside.GetFromJsonAsync<JsonObject>(link + "/page"))!;
        foreach (var (name, value) in page["now"]!.AsObject())
            page[name] = value?.DeepClone();
        page.Remove("now");
        return page;
    }

    private Task<(int Status, JsonObject Body)> Says(string link, string what, string words, Guid? id = null) =>
        Server.Post(
            server.Outside,
            $"{link}/{what}",
            new JsonObject { ["id"] = id ?? Guid.CreateVersion7(), ["words"] = words }
        );

    private async Task<string> State() => (string)(await Revisions())["revisions"]![0]!["stateWords"]!;

    private Task<(int Status, JsonObject Body)> Record(
        Guid revision,
        string kind,
        string day = "",
        bool asSent = true,
        string photo = ""
    ) =>
        server.Post(
            At($"/{revision}/facts"),
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["kind"] = kind,
                ["words"] = "because",
                ["day"] = day,
                ["asSent"] = asSent,
                ["photo"] = photo,
            }
        );

    /// <summary>Keeps a file; its hash.</summary>
    private async Task<string> Keep(byte[] content)
    {
        using var body = new ByteArrayContent(content);
        body.Headers.ContentType = new("application/octet-stream");
        using var kept = await server.Http.PostAsync("/api/files", body);
        return (string)(await kept.Content.ReadFromJsonAsync<JsonObject>())!["hash"]!;
    }

    private async Task<List<string>> Did() =>
        [.. (await Revisions())["revisions"]![0]!["history"]!.AsArray().Select(f => (string)f!["did"]!)];

    [Fact]
    public async Task A_mail_brings_each_a_link_of_their_own_which_is_cut_out_once_it_has_gone()
    {
        var revision = await Send(Message(("ida@marrow.example", false), ("wren@marrow.example", true)));
        var outbox = (await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!;
        var links = outbox
            .Select(m => Regex.Match((string)m!["words"]!, @"Your page: http://127\.0\.0\.1:\d+(/p/[\w-]{22})$"))
            .Select(m => m.Groups[1].Value)
            .ToList();
        Assert.Equal(2, links.Distinct().Count());
        Assert.All(links, l => Assert.NotEmpty(l));
        var (copy, signs) = (await Page(links[0]), await Page(links[1]));
        Assert.Equal(
            (("wren@marrow.example", false), ("ida@marrow.example", true)),
            (((string)copy["for"]!, (bool)copy["signs"]!), ((string)signs["for"]!, (bool)signs["signs"]!))
        );
        // It has gone: neither list, file nor database say any more what opens the page, which it still does.
        var id = (Guid)outbox[1]!["id"]!;
        var file = await server.Http.GetStringAsync($"/api/outbox/{id}/file");
        Assert.Contains(links[1], file, StringComparison.Ordinal);
        var (status, _) = await Gone(id);
        Assert.Equal(200, status);
        Assert.DoesNotContain(links[1], await server.Http.GetStringAsync("/api/outbox"), StringComparison.Ordinal);
        file = await server.Http.GetStringAsync($"/api/outbox/{id}/file");
        Assert.DoesNotContain(links[1], file, StringComparison.Ordinal);
        Assert.Contains("cut out here since the mail has gone", file, StringComparison.Ordinal);
        Assert.Equal("ida@marrow.example", (string)(await Page(links[1]))["for"]!);
        // Sent again, it is another link; the older one lives (L20).
        await server.Post(
            At($"/{revision}/mails"),
            new JsonObject { ["fact"] = Guid.CreateVersion7(), ["message"] = Message(("ida@marrow.example", false)) }
        );
        Assert.Equal(3, (await Revisions())["revisions"]![0]!["links"]!.AsArray().Count);
        await Page(links[1]);
        server.Kill();
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
        {
            var token = links[1].Split('/')[^1];
            foreach (var table in new[] { "link", "mail", "proposal_fact", "revision" })
            {
                using var rows = Sql(connection, $"SELECT * FROM {table}").ExecuteReader();
                while (rows.Read())
                    for (var i = 0; i < rows.FieldCount; i++)
                        Assert.DoesNotContain(token, rows[i].ToString()!, StringComparison.Ordinal);
            }
            foreach (
                var change in new[]
                {
                    "UPDATE mail SET words = 'x'",
                    "UPDATE mail SET link = 'x' WHERE gone IS NOT NULL",
                    "UPDATE mail SET gone = NULL WHERE gone IS NOT NULL",
                    "UPDATE link SET signs = 1",
                }
            )
                Assert.Contains(
                    "does not change",
                    Assert.Throws<SqliteException>(() => Sql(connection, change).ExecuteNonQuery()).Message
                );
        }
        database.Close();
    }

    [Fact]
    public async Task A_text_message_brings_a_link_and_nothing_else()
    {
        var revision = await Send();
        var draft = await server.Http.GetFromJsonAsync<JsonObject>(At($"/message?way=text&revision={revision}"));
        Assert.Equal(("", "555 0166"), ((string)draft!["subject"]!, (string)draft["to"]!));
        Assert.Contains("Marrow Street Pottery", (string)draft["words"]!);
        var (status, told) = await server.Post(
            At($"/{revision}/mails"),
            new JsonObject
            {
                ["fact"] = Guid.CreateVersion7(),
                ["message"] = new JsonObject
                {
                    ["to"] = new JsonArray(new JsonObject { ["address"] = "555 0166", ["copy"] = false }),
                    ["subject"] = "",
                    ["words"] = draft["words"]!.DeepClone(),
                    ["way"] = "text",
                },
            }
        );
        Assert.True(status == 200, told.ToJsonString());
        var text = (await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))![0]!;
        Assert.Equal(("text", "", ""), ((string)text["way"]!, (string)text["subject"]!, (string)text["from"]!));
        Assert.Empty(text["attached"]!.AsArray());
        var link = Regex.Match((string)text["words"]!, @"http://[^/]+(/p/[\w-]+)").Groups[1].Value;
        Assert.Equal("A", (string)(await Page(link))["revision"]!);
        Assert.Equal(404, (int)(await server.Http.GetAsync($"/api/outbox/{(Guid)text["id"]!}/file")).StatusCode);
        // The history has no file of it for a mail program, and it has a link of its own that can be revoked.
        var now = (await Revisions())["revisions"]![0]!;
        Assert.Contains(now["history"]!.AsArray(), f => (string)f!["words"]! == "text message to 555 0166");
        Assert.All(now["history"]!.AsArray(), f => Assert.Empty(f!["mails"]!.AsArray()));
        Assert.Contains(now["links"]!.AsArray(), l => (string)l!["for"]! == "555 0166");
    }

    private static SqliteCommand Sql(SqliteConnection connection, string sql)
    {
        var command = connection.CreateCommand();
        command.CommandText = sql;
        return command;
    }

    private async Task<(int, string)> Gone(Guid mail)
    {
        using var response = await server.Http.PostAsync($"/api/outbox/{mail}/gone", null);
        return ((int)response.StatusCode, await response.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task Seen_is_told_by_the_page_of_one_who_may_sign_once_a_visit_and_by_nobody_else()
    {
        var revision = await Send();
        var (link, copy) = (await Link(revision), await Link(revision, "Wren", signs: false));
        // Fetching is not looking, the firm's own look never counts, and a copy makes nothing seen.
        await Page(link);
        await server.Outside.GetStringAsync(link + "/pdf");
        await server.Http.GetStringAsync(At($"/{revision}/page"));
        using (await server.Outside.PostAsync(copy + "/seen", null)) { }
        Assert.Equal("sent", await State());
        foreach (var _ in new[] { 1, 2 })
            using (var seen = await server.Outside.PostAsync(link + "/seen", null))
                Assert.Equal(HttpStatusCode.NoContent, seen.StatusCode);
        Assert.Equal("seen", await State());
        Assert.Single(await Did(), "seen");
        // A copy asks, and neither declines nor makes anything seen by it.
        var (status, answer) = await Says(copy, "decline", "no");
        Assert.Equal((422, "This link is for reading and asking."), (status, (string)answer["title"]!));
        Assert.Equal(200, (await Says(copy, "questions", "How long does it take?")).Status);
        var links = (await Revisions())["revisions"]![0]!["links"]!.AsArray();
        Assert.StartsWith("last seen ", (string)links[0]!["says"]!, StringComparison.Ordinal);
        Assert.StartsWith("until ", (string)links[1]!["says"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_question_is_asked_once_and_its_answer_stands_on_the_page()
    {
        var revision = await Send();
        var (link, other) = (await Link(revision), await Link(revision, "Bo"));
        var id = Guid.CreateVersion7();
        foreach (var _ in new[] { 1, 2 })
            Assert.Equal(200, (await Says(link, "questions", "Do you tie back the plum tree?", id)).Status);
        // The same id by another link is another's.
        Assert.Equal(200, (await Says(other, "questions", "And the vine?", id)).Status);
        Assert.Equal("seen", await State());
        Assert.Equal(422, (await Says(link, "questions", "  ")).Status);
        Assert.Equal(422, (await Says(link, "questions", new string('x', 2001))).Status);
        var asked = (await server.Http.GetFromJsonAsync<JsonObject>(At("/questions")))!;
        Assert.Equal(2, (int)asked["open"]!);
        var first = asked["questions"]![1]!;
        Assert.Equal(
            ("Ida Marrow", "Revision A", "Do you tie back the plum tree?"),
            ((string)first["by"]!, (string)first["called"]!, (string)first["words"]!)
        );
        Assert.Equal(2, (int)(await server.Http.GetFromJsonAsync<JsonObject>(At("/stands")))!["questions"]!);
        JsonObject Answer(Guid question) =>
            new()
            {
                ["id"] = Guid.CreateVersion7(),
                ["question"] = question,
                ["words"] = "Yes, and untie it.",
            };
        var (status, now) = await server.Post(At($"/{revision}/answers"), Answer((Guid)first["id"]!));
        Assert.Equal((200, 1), (status, (int)now["open"]!));
        Assert.Equal(422, (await server.Post(At($"/{revision}/answers"), Answer(Guid.CreateVersion7()))).Status);
        var questions = (await Page(link))["questions"]!.AsArray();
        Assert.Equal([true, false], questions.Select(q => (bool)q!["own"]!));
        Assert.Equal("Yes, and untie it.", (string)Assert.Single(questions[0]!["answers"]!.AsArray())!["words"]!);
        // Whoever else asked is not named to others.
        Assert.DoesNotContain("\"Bo\"", (await Page(link)).ToJsonString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_is_not_open_says_why_takes_no_decision_and_gives_no_way_elsewhere()
    {
        var a = await Send();
        var link = await Link(a);
        Assert.Equal((true, ""), await Stands(link));
        // On hold is the firm's own note (L11).
        await Record(a, "putOnHold");
        Assert.Equal((true, ""), await Stands(link));
        await Record(a, "takenOffHold");
        // Longer than printed: both are said (L3).
        await Record(a, "extended", "2099-01-31");
        var page = await Page(link);
        Assert.Contains("31 January 2099", (string)page["holds"]!, StringComparison.Ordinal);
        Assert.DoesNotContain("2099", page["document"]!["head"]!.ToJsonString(), StringComparison.Ordinal);
        var b = await Send();
        var (open, stands) = await Stands(link);
        Assert.False(open);
        Assert.Matches(@"^Replaced on \d+ \w+ \d{4} by revision B, which has a link of its own\.$", stands);
        Assert.DoesNotContain(b.ToString(), (await Page(link)).ToJsonString(), StringComparison.Ordinal);
        var (status, answer) = await Says(link, "decline", "too late");
        Assert.Equal((422, "Revision A was replaced by B."), (status, (string)answer["title"]!));
        (status, answer) = await Accept(link, Yes(await Page(link)));
        Assert.Equal((422, "Revision A was replaced by B."), (status, (string)answer["title"]!));
        // Its text is the one that was sent, and it can be asked about.
        Assert.Equal("A", (string)(await Page(link))["revision"]!);
        Assert.Equal(200, (await Says(link, "questions", "What has changed?")).Status);
        var ofB = await Link(b);
        await Record(b, "withdrawn");
        Assert.StartsWith("Withdrawn on ", (await Stands(ofB)).Item2, StringComparison.Ordinal);
        Assert.StartsWith("Replaced on ", (await Stands(link)).Item2, StringComparison.Ordinal);
        var c = await Send();
        var ofC = await Link(c);
        var id = Guid.CreateVersion7();
        foreach (var _ in new[] { 1, 2 })
            Assert.Equal(200, (await Says(ofC, "decline", "we sell the house", id)).Status);
        Assert.StartsWith("Declined on ", (await Stands(ofC)).Item2, StringComparison.Ordinal);
        (status, answer) = await Says(ofC, "decline", "again");
        Assert.Equal(422, status);
        Assert.StartsWith("Revision C was declined on ", (string)answer["title"]!, StringComparison.Ordinal);
        Assert.Equal("declined", await State());
        // Opened again, and a yes by word: the page says that it is accepted, and the links live (L20).
        await Record(c, "reopened");
        Assert.Equal((true, ""), await Stands(ofC));
        await Record(c, "yesRecorded", "2026-11-30");
        Assert.Equal((false, "Accepted on 30 November 2026."), await Stands(ofC));
    }

    private async Task<(bool Open, string Stands)> Stands(string link)
    {
        var page = await Page(link);
        return ((bool)page["open"]!, (string)page["stands"]!);
    }

    private static JsonObject Yes(JsonObject page, string name = "Ida Marrow", Guid? id = null) =>
        new()
        {
            ["id"] = id ?? Guid.CreateVersion7(),
            ["revision"] = (string)page["revision"]!,
            ["selection"] = (int)page["statement"]!["selection"]!,
            ["total"] = (string)page["statement"]!["total"]!,
            ["name"] = name,
            ["drawn"] = "10,200 60,40 110,200;300,150",
            ["declares"] = true,
        };

    private Task<(int Status, JsonObject Body)> Accept(string link, JsonObject yes) =>
        Server.Post(server.Outside, link + "/accept", yes);

    private static string Text(byte[] pdf)
    {
        using var read = PdfDocument.Open(pdf);
        return string.Concat(read.GetPages().Select(p => p.Text)).Replace(" ", "", StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_revision_is_signed_once_and_what_was_signed_stays()
    {
        var revision = await Send();
        var (link, other, copy) = (
            await Link(revision),
            await Link(revision, "Bo"),
            await Link(revision, "Wren", signs: false)
        );
        var page = await Page(link);
        var sent = await server.Outside.GetByteArrayAsync(link + "/pdf");
        // What was not seen is not signed (L8), nor what nobody may sign.
        async Task Refused(string at, string field, string says, Action<JsonObject> otherwise)
        {
            var yes = Yes(page);
            otherwise(yes);
            var (status, answer) = await Accept(at, yes);
            Assert.Equal((422, field), (status, (string)answer["field"]!));
            Assert.Contains(says, (string)answer["title"]!, StringComparison.Ordinal);
        }
        var total = (string)page["statement"]!["total"]!;
        await Refused(link, "total", $"You saw 900.00; it comes to {total}", y => y["total"] = "900.00");
        await Refused(link, "total", "You saw", y => y["selection"] = 1);
        await Refused(link, "revision", "You saw revision B; this is revision A", y => y["revision"] = "B");
        await Refused(link, "name", "Write your name", y => y["name"] = " ");
        await Refused(link, "drawn", "cannot be read", y => y["drawn"] = "<svg>");
        await Refused(link, "declares", "Say that you may sign", y => y["declares"] = false);
        await Refused(copy, "link", "for reading and asking", _ => { });
        Assert.Equal("sent", await State());
        Assert.Equal(404, (int)(await server.Outside.GetAsync(link + "/signed")).StatusCode);
        // Two at once, and the first once more: one acceptance; the other reads who it was (L7).
        var first = Yes(page);
        var answers = await Task.WhenAll(Accept(link, first), Accept(other, Yes(page, "Bo Marrow")));
        Assert.Equal([200, 422], answers.Select(a => a.Status).Order());
        var (won, lost) = answers[0].Status == 200 ? ("Ida Marrow", answers[1]) : ("Bo Marrow", answers[0]);
        Assert.Contains("was accepted on", (string)lost.Body["title"]!, StringComparison.Ordinal);
        Assert.EndsWith($"by {won}.", (string)lost.Body["title"]!, StringComparison.Ordinal);
        if (won == "Ida Marrow")
            Assert.Equal(200, (await Accept(link, first)).Status);
        Assert.Equal("accepted", await State());
        Assert.Single(await Did(), "accepted");
        // The statement that was signed is the one that was read; what was sent stays as it is.
        var after = await Page(other);
        Assert.Equal((string)page["statementHash"]!, (string)after["statementHash"]!);
        Assert.Equal(won, (string)Assert.Single(after["names"]!.AsArray())!["name"]!);
        var signed = await server.Outside.GetByteArrayAsync(link + "/signed");
        Assert.Equal(signed, await server.Outside.GetByteArrayAsync(other + "/signed"));
        Assert.Equal(sent, await server.Outside.GetByteArrayAsync(link + "/pdf"));
        var text = Text(signed);
        foreach (
            var said in new[]
            {
                "Acceptedandsigned",
                won.Replace(" ", "") + ",forMarrowStreetPottery",
                (string)page["statementHash"]!,
                Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(sent)),
                ((string)page["statement"]!["sentence"]!).Replace(" ", ""),
            }
        )
            Assert.Contains(said, text, StringComparison.Ordinal);
        // The firm signs too (L16): another PDF, the same statement; the same id changes nothing.
        var id = Guid.CreateVersion7();
        foreach (var _ in new[] { 1, 2 })
        {
            var (status, answer) = await server.Post(
                At($"/{revision}/signatures"),
                new JsonObject
                {
                    ["id"] = id,
                    ["byFirm"] = true,
                    ["name"] = "Nora Pell",
                    ["drawn"] = "",
                }
            );
            Assert.Equal((200, 2), (status, answer["revisions"]![0]!["signed"]!.AsArray().Count));
        }
        var both = await server.Http.GetByteArrayAsync(At($"/{revision}/signed"));
        Assert.Contains("NoraPell,forLarkspur&PellFinishing", Text(both), StringComparison.Ordinal);
        Assert.NotEqual(signed, both);
        // Nothing is sent any more (L6), and what was agreed is there after a restart.
        Assert.Contains("accepted", (string)(await Revisions())["closed"]!, StringComparison.Ordinal);
        server.Kill();
        using var later = Server.StartWithOutside(folder.Path);
        Assert.Equal(both, await later.Outside.GetByteArrayAsync(link + "/signed"));
        later.Kill();
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
            foreach (
                var change in new[]
                {
                    "UPDATE acceptance SET statement = '{}'",
                    "DELETE FROM acceptance",
                    "UPDATE signature SET name = 'x'",
                    "DELETE FROM signature",
                    "UPDATE signed_pdf SET pdf = 'x'",
                }
            )
                Assert.Contains(
                    "does not change",
                    Assert.Throws<SqliteException>(() => Sql(connection, change).ExecuteNonQuery()).Message
                );
        database.Close();
    }

    [Fact]
    public async Task A_yes_in_person_by_mistake_is_annulled_and_the_customer_can_sign_after_all()
    {
        var a = await Send();
        var link = await Link(a);
        var page = await Page(link);
        var (status, answer) = await server.Post(At($"/{a}/accept"), Yes(page, "Somebody Else"));
        Assert.Equal((200, "Somebody Else"), (status, (string)answer["names"]![0]!["name"]!));
        Assert.Contains(
            "in person",
            (string)(await Revisions())["revisions"]![0]!["history"]!.AsArray().Last()!["words"]!
        );
        // Accept, then B: B stays a draft (L7).
        var (refused, says) = await server.Post(
            At(),
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["fact"] = Guid.CreateVersion7(),
                ["base"] = (long)(await server.Job(job))["version"]!,
                ["how"] = "by hand",
                ["despite"] = "x",
                ["day"] = "",
                ["time"] = "",
                ["message"] = null,
            }
        );
        Assert.Equal(422, refused);
        Assert.Contains("was accepted on", (string)says["title"]!, StringComparison.Ordinal);
        Assert.Equal(200, (await Record(a, "annulled")).Status);
        Assert.Equal((true, 0), ((bool)(await Page(link))["open"]!, (await Page(link))["names"]!.AsArray().Count));
        Assert.Equal(404, (int)(await server.Outside.GetAsync(link + "/signed")).StatusCode);
        Assert.Equal(200, (await Accept(link, Yes(page))).Status);
        Assert.Equal("Ida Marrow", (string)(await Page(link))["names"]![0]!["name"]!);
        Assert.Equal(404, (await server.Post(At($"/{Guid.CreateVersion7()}/accept"), Yes(page))).Status);
    }

    private Task<(int Status, JsonObject Body)> Choose(
        string link,
        JsonObject page,
        JsonNode? choice,
        JsonNode of,
        bool taken = true,
        Guid? id = null
    ) =>
        Server.Post(
            server.Outside,
            link + "/choose",
            new JsonObject
            {
                ["id"] = id ?? Guid.CreateVersion7(),
                ["version"] = page["offer"]!["version"]!.DeepClone(),
                ["choice"] = choice?.DeepClone(),
                ["of"] = of.DeepClone(),
                ["taken"] = taken,
            }
        );

    private static string Total(JsonObject page) => (string)page["statement"]!["total"]!;

    [Fact]
    public async Task Choices_are_one_selection_for_all_links_and_what_is_signed_is_what_was_seen()
    {
        job = Server.Library;
        var revision = await Send();
        var (link, other, copy) = (
            await Link(revision),
            await Link(revision, "Bo"),
            await Link(revision, "Wren", signs: false)
        );
        var page = await Page(link);
        var sent = Total(page);
        Assert.Equal(0, (int)page["offer"]!["version"]!);
        var choice = page["offer"]!["choices"]!
            .AsArray()
            .First(c => c!["options"]!.AsArray().Any(o => !(bool)o!["chosen"]! && (string)o["conflict"]! == ""))!;
        var option = choice["options"]!.AsArray().First(o => !(bool)o!["chosen"]! && (string)o["conflict"]! == "")!;
        // A copy chooses nothing; what is not offered is not chosen.
        Assert.Equal(422, (await Choose(copy, page, choice["id"], option["id"]!)).Status);
        Assert.Equal(422, (await Choose(link, page, choice["id"], Guid.CreateVersion7())).Status);
        Assert.Equal(422, (await Choose(link, page, null, Guid.CreateVersion7())).Status);
        Assert.Equal("sent", await State());
        // Chosen once, however often it is sent; seen by all.
        var id = Guid.CreateVersion7();
        var (status, chosen) = await Choose(link, page, choice["id"], option["id"]!, id: id);
        Assert.True(status == 200, chosen.ToJsonString());
        var (again, same) = await Choose(link, page, choice["id"], option["id"]!, id: id);
        Assert.Equal((200, 1), (again, (int)same["offer"]!["version"]!));
        Assert.Equal(422, (await Choose(other, page, choice["id"], option["id"]!)).Status);
        Assert.NotEqual(sent, Total(chosen));
        var theirs = await Page(other);
        Assert.Equal((1, Total(chosen)), ((int)theirs["offer"]!["version"]!, Total(theirs)));
        Assert.Contains((string)option["name"]!, (string)theirs["statement"]!["sentence"]!, StringComparison.Ordinal);
        Assert.Equal("seen", await State());
        Assert.Single(await Did(), "chose");
        // The partner adds something: who has not seen that does not sign (L8), with both totals said.
        var alternate = theirs["offer"]!["alternates"]![0]!;
        var (_, both) = await Choose(other, theirs, null, alternate["id"]!);
        Assert.NotEqual(Total(chosen), Total(both));
        var yes = Yes(chosen);
        yes["selection"] = 1;
        (status, var answer) = await Accept(link, yes);
        Assert.Equal(
            (422, $"You saw {Total(chosen)}; it comes to {Total(both)}. Look at it, and sign again."),
            (status, (string)answer["title"]!)
        );
        yes = Yes(both);
        yes["selection"] = 2;
        (status, answer) = await Accept(link, yes);
        Assert.True(status == 200, answer.ToJsonString());
        Assert.Equal(Total(both), Total(answer));
        Assert.Null(answer["offer"]);
        // After it nothing is chosen any more; what was agreed has each with its price, and the PDF says so.
        Assert.Equal(422, (await Choose(other, both, null, alternate["id"]!, taken: false)).Status);
        var rows = answer["statement"]!["price"]!.AsArray().Select(r => (string)r!["label"]!).ToList();
        Assert.Contains($"{(string)choice["name"]!}: {(string)option["name"]!}", rows);
        Assert.Contains((string)alternate["name"]!, rows);
        var text = Text(await server.Outside.GetByteArrayAsync(link + "/signed"));
        Assert.Contains(((string)option["name"]!).Replace(" ", ""), text, StringComparison.Ordinal);
        Assert.Contains(Total(both), text, StringComparison.Ordinal);
        var fact = (await Revisions())["revisions"]![0]!;
        Assert.Equal("accepted", (string)fact["stateWords"]!);
        server.Kill();
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
        {
            Assert.Contains(
                "does not change",
                Assert
                    .Throws<SqliteException>(() =>
                        Sql(connection, "UPDATE selection SET version = 9").ExecuteNonQuery()
                    )
                    .Message
            );
            using var total = Sql(
                    connection,
                    $"SELECT total FROM proposal_fact WHERE kind = 'Accepted' AND job_id = '{job}'"
                )
                .ExecuteReader();
            Assert.True(total.Read());
            Assert.Equal(Total(both).Replace(",", ""), total.GetString(0));
        }
        database.Close();
    }

    [Fact]
    public async Task A_customer_chooses_at_the_firm_s_own_screen_and_takes_what_is_only_to_be_had_together()
    {
        job = Server.Library;
        var file = JsonNode.Parse(await server.File(job))!;
        JsonNode[] choices = [.. file["choices"]!.AsArray().Where(c => !(bool)c!["locked"]!).Select(c => c!)];
        static JsonNode Other(JsonNode choice) =>
            choice["options"]!.AsArray().First(o => (string)o!["id"]! != (string)choice["taken"]!)!;
        var (wanted, needed) = (Other(choices[0]), Other(choices[^1]));
        var (set, refused) = await server.Do(
            "setOption",
            new JsonObject
            {
                ["choice"] = choices[0]["id"]!.DeepClone(),
                ["option"] = wanted["id"]!.DeepClone(),
                ["field"] = "needs",
                ["was"] = wanted["needs"]?.DeepClone() ?? new JsonArray(),
                ["now"] = new JsonArray(needed["id"]!.DeepClone()),
            },
            job: job
        );
        Assert.True(set == 200, refused.ToJsonString());
        var revision = await Send();
        var link = await Link(revision);
        var page = await Page(link);
        Task<(int Status, JsonObject Body)> ChooseHere(bool together, int version) =>
            server.Post(
                At($"/{revision}/choose"),
                new JsonObject
                {
                    ["id"] = Guid.CreateVersion7(),
                    ["version"] = version,
                    ["choice"] = choices[0]["id"]!.DeepClone(),
                    ["of"] = wanted["id"]!.DeepClone(),
                    ["taken"] = true,
                    ["together"] = together,
                }
            );
        var (status, answer) = await ChooseHere(together: false, 0);
        Assert.Equal((422, "choose"), (status, (string)answer["field"]!));
        (status, answer) = await ChooseHere(together: true, 0);
        Assert.True(status == 200, answer.ToJsonString());
        Assert.Equal(
            [(string)wanted["name"]!, (string)needed["name"]!],
            answer["statement"]!["taken"]!.AsArray().Select(t => (string)t!)
        );
        // It is one selection for all, and what was not seen is not written over.
        Assert.Equal(Total(answer), Total(await Page(link)));
        Assert.NotEqual(Total(page), Total(answer));
        Assert.Equal(422, (await ChooseHere(together: true, 0)).Status);
        var chosen = (await Revisions())["revisions"]![0]!["history"]!.AsArray();
        Assert.Single(chosen, f => (string)f!["words"]! == "the customer, in person, at the firm's screen");
        var found = await server.Http.GetFromJsonAsync<JsonArray>(
            At(
                $"/{revision}/options?choice={(Guid)choices[0]["id"]!}&find={Uri.EscapeDataString((string)wanted["name"]!)}"
            )
        );
        Assert.Contains(found!, o => (bool)o!["chosen"]!);
    }

    [Fact]
    public async Task A_yes_on_paper_says_what_it_was_said_to_and_keeps_its_photo()
    {
        job = Server.Library;
        var revision = await Send();
        var link = await Link(revision);
        var page = await Page(link);
        var sent = Total(page);
        var (_, chosen) = await Choose(link, page, null, page["offer"]!["alternates"]![0]!["id"]!);
        // A photo that is not here, and a file that is none, are refused beside their field; nothing is recorded.
        var (status, answer) = await Record(revision, "yesRecorded", "2020-02-02", photo: new string('0', 64));
        Assert.Equal((422, "photo"), (status, (string)answer["field"]!));
        var note = await Keep("Yes, on paper."u8.ToArray());
        (status, answer) = await Record(revision, "yesRecorded", "2020-02-02", photo: note);
        Assert.Equal((422, "photo"), (status, (string)answer["field"]!));
        Assert.Equal("seen", await State());
        // The paper is a scan, and says yes to what was chosen.
        var scan = await server.Http.GetByteArrayAsync(At($"/{revision}/pdf"));
        var photo = await Keep(scan);
        (status, answer) = await Record(revision, "yesRecorded", "2020-02-02", asSent: false, photo: photo);
        Assert.True(status == 200, answer.ToJsonString());
        var row = answer["revisions"]![0]!;
        Assert.Equal("accepted", (string)row["state"]!);
        Assert.True((bool)row["agreed"]!);
        Assert.Empty(row["signed"]!.AsArray());
        Assert.Equal(photo, (string)row["history"]!.AsArray()[^1]!["photo"]!);
        // The customer reads what was agreed and how the firm came by it; nothing more is chosen.
        page = await Page(link);
        Assert.Equal((Total(chosen), true), (Total(page), (bool)page["agreed"]!));
        Assert.NotEqual(sent, Total(page));
        Assert.EndsWith(
            "recorded a yes that bears the date 2 February 2020: because",
            (string)page["recorded"]!,
            StringComparison.Ordinal
        );
        Assert.Null(page["offer"]);
        var text = Text(await server.Outside.GetByteArrayAsync(link + "/signed"));
        Assert.Contains("recordedayesthatbearsthedate2February2020", text, StringComparison.Ordinal);
        Assert.Contains(Total(chosen), text, StringComparison.Ordinal);
        Assert.DoesNotContain("Imaysign", text, StringComparison.Ordinal);
        // Annulled, and recorded to what was sent, whatever was chosen.
        await Record(revision, "annulled");
        Assert.False((bool)(await Page(link))["agreed"]!);
        (status, _) = await Record(revision, "yesRecorded", "2020-02-03", asSent: true);
        Assert.Equal((200, sent), (status, Total(await Page(link))));
    }

    [Fact]
    public async Task Where_live_pricing_has_stopped_the_revision_as_sent_can_be_signed_whatever_was_chosen_before()
    {
        job = Server.Library;
        var revision = await Send();
        var link = await Link(revision);
        var page = await Page(link);
        var sent = Total(page);
        var alternate = page["offer"]!["alternates"]![0]!;
        var (_, chosen) = await Choose(link, page, null, alternate["id"]!);
        Assert.NotEqual(sent, Total(chosen));
        server.Kill();
        // As if the rules had changed: the frozen job comes to another total than was sent.
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
        {
            Sql(connection, "DROP TRIGGER revision_stays").ExecuteNonQuery();
            using var file = Sql(connection, $"SELECT job FROM revision WHERE job_id = '{job}'").ExecuteReader();
            file.Read();
            using var zip = new System.IO.Compression.GZipStream(
                new MemoryStream((byte[])file[0]),
                System.IO.Compression.CompressionMode.Decompress
            );
            var frozen = JsonNode.Parse(zip)!;
            frozen["pricing"]!["overhead"] = "15";
            using var packed = new MemoryStream();
            using (
                var gzip = new System.IO.Compression.GZipStream(packed, System.IO.Compression.CompressionLevel.Fastest)
            )
                gzip.Write(System.Text.Encoding.UTF8.GetBytes(frozen.ToJsonString()));
            var update = Sql(connection, $"UPDATE revision SET job = $job WHERE job_id = '{job}'");
            update.Parameters.AddWithValue("$job", packed.ToArray());
            Assert.Equal(1, update.ExecuteNonQuery());
        }
        database.Close();
        using var later = Server.StartWithOutside(folder.Path);
        page = await Page(later, link);
        Assert.Contains("It can be accepted as it was sent", (string)page["offer"]!["stopped"]!);
        Assert.Equal((sent, 0), (Total(page), (int)page["statement"]!["selection"]!));
        var (status, _) = await Server.Post(
            later.Outside,
            link + "/choose",
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["version"] = 1,
                ["choice"] = null,
                ["of"] = alternate["id"]!.DeepClone(),
                ["taken"] = false,
            }
        );
        Assert.Equal(422, status);
        (status, var signed) = await Server.Post(later.Outside, link + "/accept", Yes(page));
        Assert.True(status == 200, signed.ToJsonString());
        Assert.Equal(sent, Total(signed));
    }

    [Fact]
    public async Task Unknown_and_revoked_links_have_the_same_answer_and_an_ended_one_says_so()
    {
        var revision = await Send();
        var (link, ended) = (await Link(revision), await Link(revision, "Bo"));
        var unknown = "/p/" + new string('x', 22);
        var revoked = (Guid)(await Revisions())["revisions"]![0]!["links"]![0]!["id"]!;
        async Task<int> Revoke() =>
            (
                await server.Post(
                    At($"/{revision}/links/{revoked}/revoke"),
                    new JsonObject { ["fact"] = Guid.CreateVersion7() }
                )
            ).Status;
        Assert.Equal((200, 422), (await Revoke(), await Revoke()));
        foreach (var what in new[] { "/page", "/pdf", "/mark", "" })
            Assert.Equal(await Whole(unknown + what), await Whole(link + what));
        Assert.Equal(404, (await Says(link, "questions", "Hello?")).Status);
        Assert.Contains("link revoked", await Did());
        server.Kill();
        // A year later: the link is as old as that.
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
        {
            Sql(connection, "DROP TRIGGER link_stays").ExecuteNonQuery();
            Sql(connection, "UPDATE link SET made = '2025-11-29T00:00:00.000Z' WHERE made_for = 'Bo'")
                .ExecuteNonQuery();
        }
        database.Close();
        using var later = Server.StartWithOutside(folder.Path);
        using var response = await later.Outside.GetAsync(ended + "/page");
        Assert.Equal(HttpStatusCode.Gone, response.StatusCode);
        Assert.Contains("has ended", await response.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    /// <summary>An answer whole: its status, its headers but for the time, its bytes.</summary>
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
    public async Task Nothing_of_the_program_inside_can_be_reached_from_outside()
    {
        var description = (await server.Http.GetFromJsonAsync<JsonObject>("/api/openapi.json"))!;
        var walked = 0;
        foreach (var (path, methods) in description["paths"]!.AsObject())
        foreach (var (method, _) in methods!.AsObject())
        {
            var filled = Regex.Replace(path, @"\{\w+\}", Pottery.ToString());
            using var request = new HttpRequestMessage(new HttpMethod(method.ToUpperInvariant()), filled);
            using var response = await server.Outside.SendAsync(request);
            Assert.True(response.StatusCode == HttpStatusCode.NotFound, $"{method} {path}: {response.StatusCode}");
            walked++;
        }
        Assert.True(walked > 100, $"{walked} operations");
        foreach (var path in new[] { "/", "/index.html", "/api/live", "/api/openapi.json", "/jobs", "/outside/../" })
            using (var response = await server.Outside.GetAsync(path))
                Assert.Equal(HttpStatusCode.NotFound, response.StatusCode);
        // And no page of a customer by the door inside.
        var link = await Link(await Send());
        using var inside = await server.Http.GetAsync(link + "/page");
        Assert.Equal(HttpStatusCode.NotFound, inside.StatusCode);
    }

    [Theory]
    [InlineData("01930000-0000-7000-8000-000000000996", "Marrow Street Pottery", "Limewash")]
    [InlineData("01930000-0000-7000-8000-000000000999", "Saltmarsh Lending Library Trust", "Loop, moss")]
    public async Task What_leaves_the_house_is_what_the_customer_may_see(string of, string own, string reads)
    {
        job = Guid.Parse(of);
        // Everything that the firm knows and the customer does not: words of its own about work and places, hidden blocks, costs and margins, suppliers, other customers.
        var file = JsonNode.Parse(await server.File(job))!.AsObject();
        var secrets = new List<string>
        {
            "marrow-street.example",
            "saltmarsh-library.example",
            "555 01",
            "larkspur-pell.example",
        };
        foreach (var customer in (await server.Http.GetFromJsonAsync<JsonArray>("/api/customers"))!)
            if ((string)customer!["name"]! != own)
                secrets.AddRange([(string)customer["name"]!, (string)customer["email"]!]);
        foreach (var entry in file["book"]!.AsArray())
            if ((string?)entry!["supplier"] is { Length: > 0 } supplier)
                secrets.Add(supplier);
        var id = await Send();
        var link = await Link(id);

        var reckoned = await server.Job(job);
        foreach (var figure in new[] { "cost", "hours", "profit", "margin" })
            if ((string?)reckoned["tally"]?[figure]?["shown"] is { Length: > 3 } shown)
                secrets.Add(shown);
        Assert.True(secrets.Count > 8, string.Join(", ", secrets));
        await Says(link, "questions", "When?");
        var sent = new List<string>();
        foreach (
            var path in new[]
            {
                "",
                "/page",
                "/pdf",
                "/mark",
                "/nothing",
                "/shown/a",
                "/options?find=o&choice=" + Guid.Empty,
            }
        )
            sent.Add(await Whole(link + path));
        sent.Add((await Says(link, "questions", "And how long?")).Body.ToJsonString());
        var before = await Page(link);
        foreach (var choice in before["offer"]!["choices"]!.AsArray())
        {
            sent.Add(await Whole($"{link}/options?find=o&choice={choice!["id"]}"));
            sent.Add(
                (await Choose(link, await Page(link), choice["id"], choice["options"]![1]!["id"]!)).Body.ToJsonString()
            );
        }
        sent.Add((await Accept(link, Yes(await Page(link)))).Body.ToJsonString());
        sent.Add(await Whole(link + "/signed"));
        sent.Add((await Says(link, "decline", "No.")).Body.ToJsonString());
        foreach (var answer in sent)
        foreach (var secret in secrets)
            Assert.False(
                answer.Contains(secret, StringComparison.OrdinalIgnoreCase),
                $"“{secret}” stands in {answer[..Math.Min(200, answer.Length)]}"
            );
        var page = sent[1];
        foreach (var name in new[] { "\"cost", "margin", "supplier", "note\"", "hidden\":true", "figure\":\"", "why" })
            Assert.DoesNotContain(name, page, StringComparison.OrdinalIgnoreCase);
        Assert.Contains(reads, page, StringComparison.Ordinal);
        Assert.Contains("nosniff", page, StringComparison.Ordinal);
        Assert.Contains("no-referrer", page, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Who_asks_too_much_waits_and_others_do_not_notice()
    {
        server.Kill();
        using var slow = Server.StartWithOutside(folder.Path, "--public-rate", "20", "--public-proxy", "127.0.0.1");
        async Task<HttpStatusCode> Ask(string who)
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, "/p/nothing/page");
            request.Headers.Add("X-Forwarded-For", who);
            using var response = await slow.Outside.SendAsync(request);
            return response.StatusCode;
        }
        for (var i = 0; i < 20; i++)
            Assert.Equal(HttpStatusCode.NotFound, await Ask("192.0.2.1"));
        // What comes back within ten seconds is let in again: at most four of these twenty.
        var refused = 0;
        for (var i = 0; i < 20; i++)
            refused += await Ask("192.0.2.1") == HttpStatusCode.TooManyRequests ? 1 : 0;
        Assert.InRange(refused, 16, 20);
        Assert.Equal(HttpStatusCode.NotFound, await Ask("192.0.2.2"));
        // One household has a network of 64 bits.
        for (var i = 0; i < 20; i++)
            await Ask($"2001:db8::{i + 1:x}");
        Assert.Equal(HttpStatusCode.TooManyRequests, await Ask("2001:db8::ffff"));
        Assert.Equal(HttpStatusCode.NotFound, await Ask("2001:db8:1::1"));
    }

    [Fact]
    public async Task Mail_of_the_version_before_goes_to_one_address_each()
    {
        var message = Message(("ida@marrow.example", false), ("wren@marrow.example", true));
        message["words"] = "Good day.";
        await Send(message);
        server.Kill();
        var file = Path.Combine(folder.Path, Database.FileName);
        using (var connection = new SqliteConnection($"Data Source={file};Pooling=False;Foreign Keys=False"))
        {
            connection.Open();
            var assembly = typeof(Database).Assembly;
            using var before = new StreamReader(
                assembly.GetManifestResourceStream(
                    assembly
                        .GetManifestResourceNames()
                        .Single(n => n.EndsWith("010-mail.sql", StringComparison.Ordinal))
                )!
            );
            Sql(
                    connection,
                    $$"""
                    CREATE TABLE kept AS SELECT fact_id, job_id, revision_id, at, sender_name, sender, attached, attached_hash FROM mail LIMIT 1;
                    DROP TABLE mail;
                    ALTER TABLE customer DROP COLUMN country;
                    ALTER TABLE customer DROP COLUMN tax_number;
                    DROP TABLE crew_calendar;
                    DROP TABLE schedule_published;
                    DROP TABLE job_tasks;
                    DROP TABLE reminder_fact_pdf;
                    DROP TABLE reminder_fact;
                    DROP TABLE release_fact_pdf;
                    DROP TABLE release_fact;
                    DROP TABLE completion_fact;
                    DROP TABLE snag_mended;
                    DROP TABLE change_order;
                    DROP TABLE snag;
                    DROP TABLE billing_terms;
                    DROP TABLE stock_fact;
                    DROP TABLE order_fact;
                    DROP TABLE purchase_order_pdf;
                    DROP TABLE purchase_order;
                    DROP TABLE payment_fact;
                    DROP TABLE bank_entry;
                    DROP TABLE invoice_pdf;
                    DROP TABLE invoice;
                    DROP TABLE number_moved;
                    DROP TABLE number_series;
                    DROP TABLE rate_reached;
                    DROP TABLE hours_fact;
                    DROP TABLE visit_fact;
                    DROP TABLE done_fact;
                    DROP TABLE crew_link_revoked;
                    DROP TABLE crew_link;
                    DROP TABLE work_order;
                    ALTER TABLE book_entry DROP COLUMN why;
                    DROP TABLE scheduled;
                    DROP TABLE selection;
                    DROP TABLE signed_pdf;
                    DROP TABLE signature;
                    DROP TABLE acceptance;
                    DROP TABLE link;
                    DROP INDEX revision_by_lead;
                    DROP INDEX revision_life;
                    ALTER TABLE revision DROP COLUMN lead_id;
                    ALTER TABLE revision DROP COLUMN lead_job_id;
                    DROP INDEX proposal_fact_link;
                    ALTER TABLE proposal_fact DROP COLUMN link_id;
                    ALTER TABLE proposal_fact DROP COLUMN about_id;
                    ALTER TABLE proposal_fact DROP COLUMN copy;
                    ALTER TABLE proposal_fact DROP COLUMN photo;
                    {{before.ReadToEnd()}}
                    INSERT INTO mail (id, job_id, revision_id, at, sender_name, sender, message, attached, attached_hash)
                    SELECT fact_id, job_id, revision_id, at, sender_name, sender,
                        '{"to":[{"address":"ida@marrow.example","copy":false},{"address":"wren@marrow.example","copy":true}],"subject":"Proposal","words":"Good day."}',
                        attached, attached_hash FROM kept;
                    DROP TABLE kept;
                    DELETE FROM migration WHERE number >= 11;
                    """
                )
                .ExecuteNonQuery();
        }
        using var later = Server.Start(folder.Path);
        var outbox = (await later.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!;
        Assert.Equal(
            [("wren@marrow.example", true), ("ida@marrow.example", false)],
            outbox.Select(m => ((string)m!["to"]!, (bool)m["copy"]!))
        );
        Assert.All(
            outbox,
            m =>
                Assert.Equal(
                    ("Proposal", "Good day.", false),
                    ((string)m!["subject"]!, (string)m["words"]!, (bool)m["hasLink"]!)
                )
        );
        var sent = (await later.Http.GetFromJsonAsync<JsonObject>(At()))!["revisions"]![0]!["history"]![0]!;
        Assert.Equal(2, sent["mails"]!.AsArray().Count);
        foreach (var mail in sent["mails"]!.AsArray())
            Assert.NotEmpty(await later.Http.GetByteArrayAsync($"/api/outbox/{(Guid)mail!["id"]!}/file"));
    }
}
