using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using UglyToad.PdfPig;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Change orders of an accepted job: what differs, sent, signed, and what follows it (delivery.md, M13 to M18, L18, L23).</summary>
public sealed class ChangesTests : IDisposable
{
    private static readonly Guid Gallery = new("01930000-0000-7000-8000-000000000994");
    private const string At = "/api/jobs/01930000-0000-7000-8000-000000000994";

    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public ChangesTests() => server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private static decimal Money(JsonNode? text) =>
        decimal.Parse(((string)text!).Replace('−', '-'), NumberStyles.Any, CultureInfo.InvariantCulture);

    private async Task<JsonObject> View(string what = "changes") =>
        (await server.Http.GetFromJsonAsync<JsonObject>($"{At}/deliver/{what}"))!;

    private async Task<JsonObject> Order() => (await server.Http.GetFromJsonAsync<JsonObject>($"{At}/deliver"))!;

    private static List<JsonObject> Lines(JsonNode order) =>
        [.. order["order"]!["lines"]!.AsArray().Select(l => l!.AsObject())];

    private static JsonObject Wanted(JsonNode view, params string[] goods) =>
        new()
        {
            ["title"] = "As said on site",
            ["pieces"] = new JsonArray(
                [.. view["differs"]!.AsArray().Where(p => (string)p!["sent"]! == "").Select(p => p!["id"]!.DeepClone())]
            ),
            ["goods"] = new JsonArray([.. goods.Select(g => (JsonNode)g)]),
            ["belowLeast"] = false,
            ["todaysBook"] = false,
            ["withStep"] = null,
        };

    private async Task<JsonObject> Draft(JsonObject wanted)
    {
        var (status, draft) = await server.Post($"{At}/deliver/changes/draft", wanted.DeepClone());
        Assert.True(status == 200, draft.ToJsonString());
        return draft;
    }

    private static JsonObject Sending(JsonObject wanted, JsonNode total, Guid? id = null) =>
        new()
        {
            ["id"] = id ?? Guid.CreateVersion7(),
            ["fact"] = Guid.CreateVersion7(),
            ["wanted"] = wanted.DeepClone(),
            ["total"] = total.DeepClone(),
            ["words"] = "As we said.",
            ["until"] = "",
            ["how"] = "handed over",
            ["message"] = null,
        };

    private async Task<Guid> Send(JsonObject? wanted = null)
    {
        wanted ??= Wanted(await View());
        var id = Guid.CreateVersion7();
        var (status, view) = await server.Post(
            $"{At}/deliver/changes",
            Sending(wanted, (await Draft(wanted))["total"]!, id)
        );
        Assert.True(status == 200, view.ToJsonString());
        return id;
    }

    private async Task<(int Status, JsonObject Body)> Record(Guid revision, string kind, string words = "by word") =>
        await server.Post(
            $"{At}/revisions/{revision}/facts",
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["kind"] = kind,
                ["words"] = words,
                ["day"] = kind == "yesRecorded" ? (await Order())["today"]!.DeepClone() : "",
                ["asSent"] = true,
                ["photo"] = "",
            }
        );

    private async Task Yes(Guid revision)
    {
        var (status, answer) = await Record(revision, "yesRecorded");
        Assert.True(status == 200, answer.ToJsonString());
    }

    /// <summary>Takes a line of the order that nobody has begun out of the estimate; which it was.</summary>
    private async Task<JsonObject> Excluded()
    {
        var line = Lines(await Order()).First(l => (bool)l["ticks"]! && !(bool)l["done"]! && !(bool)l["begun"]!);
        var (status, answer) = await server.Do(
            "fillCells",
            new JsonObject
            {
                ["work"] = new JsonArray(line["work"]!.DeepClone()),
                ["places"] = new JsonArray(line["place"]!.DeepClone()),
                ["was"] = "i",
                ["state"] = "excluded",
            },
            job: Gallery
        );
        Assert.True(status == 200, answer.ToJsonString());
        return line;
    }

    /// <summary>Measures one more place and includes a piece of work there.</summary>
    private async Task<Guid> Added()
    {
        var place = Guid.CreateVersion7();
        var (status, answer) = await server.Do(
            "addPlace",
            new JsonObject
            {
                ["place"] = place,
                ["line"] = "Porch 10 x 8 x 8",
                ["group"] = "",
                ["after"] = null,
            },
            job: Gallery
        );
        Assert.True(status == 200, answer.ToJsonString());
        var paint = Lines(await Order()).First(l => (string)l["section"]! == "Walls");
        (status, answer) = await server.Do(
            "fillCells",
            new JsonObject
            {
                ["work"] = new JsonArray(paint["work"]!.DeepClone()),
                ["places"] = new JsonArray(place),
                ["was"] = ".",
                ["state"] = "included",
            },
            job: Gallery
        );
        Assert.True(status == 200, answer.ToJsonString());
        return place;
    }

    private static decimal Sum(JsonNode view, string label) =>
        Money(view["sums"]!.AsArray().Single(r => (string)r!["label"]! == label)!["amount"]);

    [Fact]
    public async Task What_differs_is_said_priced_sent_and_in_contract_order_and_invoices_only_when_it_is_accepted()
    {
        var before = await View();
        Assert.Empty(before["differs"]!.AsArray());
        var contract = Sum(before, "Contract sum");
        var line = await Excluded();
        var place = await Added();
        var differs = await View();
        Assert.Equal(["added", "dropped"], differs["differs"]!.AsArray().Select(p => (string)p!["kind"]!).Order());
        var draft = await Draft(Wanted(differs));
        // Its lines add up to it, and the contract sum moves by that.
        Assert.Equal(Money(draft["net"]), draft["lines"]!.AsArray().Sum(l => Money(l!["amount"])));
        Assert.Equal(contract, Money(draft["before"]));
        Assert.Equal(contract + Money(draft["net"]), Money(draft["after"]));
        Assert.Equal(Money(draft["total"]), Money(draft["net"]) + Money(draft["tax"]));

        var order = (await Order())["order"]!.ToJsonString();
        var id = await Send();
        var sent = await View();
        var change = Assert.Single(sent["changes"]!.AsArray())!;
        Assert.Equal(
            ("1", "sent", true),
            ((string)change["letters"]!, (string)change["state"]!, (bool)change["isChange"]!)
        );
        // It waits: nothing of it is offered a second time, and nothing has moved.
        Assert.All(sent["differs"]!.AsArray(), p => Assert.Equal("1", (string)p!["sent"]!));
        Assert.Equal(contract, Sum(sent, "Contract sum"));
        Assert.Equal(order, (await Order())["order"]!.ToJsonString());

        await Yes(id);
        var after = await View();
        Assert.Empty(after["differs"]!.AsArray());
        Assert.Equal(contract + Money(draft["net"]), Sum(after, "Contract sum"));
        var lines = Lines(await Order());
        Assert.DoesNotContain(
            lines,
            l =>
                l["work"]!.ToString() == line["work"]!.ToString() && l["place"]!.ToString() == line["place"]!.ToString()
        );
        Assert.Contains(lines, l => (Guid)l["place"]! == place);
        Assert.Equal(Sum(after, "Contract sum"), Sum(await View("invoices"), "Contract sum"));
        // What is bought follows: a view that was asked for before is asked for anew.
        Assert.NotNull((await View("buying"))["goods"]);
        // And no crew reads a price of it.
        Assert.DoesNotContain(
            Money(draft["net"]).ToString(CultureInfo.InvariantCulture),
            (await Order())["order"]!.ToJsonString()
        );
        // Killed and started again it is the same.
        server.Kill();
        using var later = Server.StartIn(folder.Path);
        Assert.Equal(
            after["sums"]!.ToJsonString(),
            (await later.Http.GetFromJsonAsync<JsonObject>($"{At}/deliver/changes"))!["sums"]!.ToJsonString()
        );
    }

    [Fact]
    public async Task It_is_signed_on_its_own_page_for_what_it_says_and_the_contracts_page_stays_as_it_was()
    {
        await Added();
        var id = await Send();
        var link = await server.LinkTo(Gallery, id, "Maud Gray", signs: true);
        var page = (await server.Outside.GetFromJsonAsync<JsonObject>(link + "/page"))!;
        var now = page["now"]!;
        Assert.True((bool)now["open"]!);
        Assert.Contains("Change order 1", (string)now["statement"]!["sentence"]!);
        Assert.StartsWith(
            "Change order 1: As said on site",
            (string)page["document"]!["head"]!["title"]!,
            StringComparison.Ordinal
        );
        JsonObject Accept(string total) =>
            new()
            {
                ["id"] = Guid.CreateVersion7(),
                ["revision"] = "1",
                ["selection"] = 0,
                ["total"] = total,
                ["name"] = "Maud Gray",
                ["drawn"] = "",
                ["declares"] = true,
            };
        var (other, _) = await Server.Post(server.Outside, link + "/accept", Accept("1.00"));
        Assert.Equal(422, other);
        var (status, signed) = await Server.Post(
            server.Outside,
            link + "/accept",
            Accept((string)now["statement"]!["total"]!)
        );
        Assert.True(status == 200, signed.ToJsonString());
        Assert.True((bool)signed["agreed"]!);
        using var pdf = PdfDocument.Open(await server.Outside.GetByteArrayAsync(link + "/signed"));
        var text = string.Concat(pdf.GetPages().Select(p => p.Text)).Replace(" ", "", StringComparison.Ordinal);
        Assert.Contains("Changeorder1", text, StringComparison.Ordinal);
        Assert.Contains("MaudGray", text, StringComparison.Ordinal);
        // The proposal's own life is another: one revision, accepted.
        var revisions = (await server.Http.GetFromJsonAsync<JsonObject>($"{At}/revisions"))!;
        Assert.All(revisions["revisions"]!.AsArray(), r => Assert.False((bool)r!["isChange"]!));
        Assert.Equal("accepted", (string)revisions["revisions"]![0]!["state"]!);
    }

    [Fact]
    public async Task What_is_accepted_is_offered_to_the_schedule_once_and_taken_over_by_one_command()
    {
        Assert.Empty((await View("schedule"))["changed"]!.AsArray());
        await Added();
        var id = await Send();
        Assert.Empty((await View("schedule"))["changed"]!.AsArray());
        await Yes(id);
        var stands = await View("schedule");
        Assert.NotEmpty(stands["changed"]!.AsArray());
        var strip = new JsonObject { ["from"] = "", ["byCrew"] = false };
        var (status, preview) = await server.Post(
            $"{At}/deliver/schedule/follow",
            new JsonObject { ["strip"] = strip.DeepClone() }
        );
        Assert.True(status == 200, preview.ToJsonString());
        Assert.Equal(stands["changed"]!.ToJsonString(), preview["says"]!.ToJsonString());
        var (done, answer) = await server.Do(
            "changeTasks",
            new JsonObject { ["tasks"] = preview["changes"]!.DeepClone() },
            job: Gallery
        );
        Assert.True(done == 200, answer.ToJsonString());
        Assert.Empty((await View("schedule"))["changed"]!.AsArray());
        var (again, refused) = await server.Post($"{At}/deliver/schedule/follow", new JsonObject { ["strip"] = strip });
        Assert.Equal((422, "task"), (again, (string)refused["field"]!));
    }

    [Fact]
    public async Task Two_that_touch_the_same_line_cannot_both_be_accepted_and_each_keeps_its_number()
    {
        await Added();
        var first = await Send();
        // The first is given up: what it held can go into another.
        var (status, _) = await Record(first, "withdrawn", "they want it otherwise");
        Assert.Equal(200, status);
        var second = await Send();
        Assert.Equal(["2", "1"], (await View())["changes"]!.AsArray().Select(c => (string)c!["letters"]!));
        await Yes(second);
        // A yes to the first that comes late is refused by the name of the other.
        var (late, refused) = await Record(first, "yesRecorded", "it came in the post");
        Assert.Equal(422, late);
        Assert.Contains("change order 2", (string)refused["title"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_was_worked_on_since_cannot_be_dropped_as_it_was_priced()
    {
        var line = await Excluded();
        var id = await Send();
        var (marked, _) = await server.Post(
            $"{At}/deliver/done",
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["lines"] = new JsonArray(
                    new JsonObject { ["work"] = line["work"]!.DeepClone(), ["place"] = line["place"]!.DeepClone() }
                ),
                ["percent"] = "100",
            }
        );
        Assert.Equal(200, marked);
        var (status, refused) = await Record(id, "yesRecorded");
        Assert.Equal(422, status);
        Assert.Contains("worked on", (string)refused["title"]!, StringComparison.Ordinal);
        // Made anew it credits nothing: all of it is done.
        await Record(id, "withdrawn", "it is done");
        var draft = await Draft(Wanted(await View()));
        Assert.Equal(0m, Money(draft["net"]));
    }

    [Fact]
    public async Task What_was_seen_is_what_is_sent_once_and_a_contract_that_moved_meanwhile_refuses_it()
    {
        await Added();
        var wanted = Wanted(await View());
        var total = (await Draft(wanted))["total"]!;
        var (wrong, refused) = await server.Post($"{At}/deliver/changes", Sending(wanted, "+1.00"));
        Assert.Equal((422, "total"), (wrong, (string)refused["field"]!));
        var sending = Sending(wanted, total);
        for (var n = 0; n < 2; n++)
            Assert.Equal(200, (await server.Post($"{At}/deliver/changes", sending.DeepClone())).Status);
        Assert.Single((await View())["changes"]!.AsArray());
        // A piece that is not there any more, no title, a day that is past.
        wanted["pieces"] = new JsonArray("x/y");
        Assert.Equal(
            "lines",
            (string)(await server.Post($"{At}/deliver/changes/draft", wanted.DeepClone())).Body["field"]!
        );
        var untitled = Sending(Wanted(await View()), total);
        untitled["wanted"]!["title"] = " ";
        var (status, says) = await server.Post($"{At}/deliver/changes", untitled);
        Assert.Equal(422, status);
        Assert.Contains((string)says["field"]!, new[] { "title", "lines" });
    }

    [Fact]
    public async Task An_acceptance_on_which_something_rests_is_not_annulled_and_one_that_is_puts_all_back()
    {
        var before = (await Order())["order"]!.ToJsonString();
        var contract = Sum(await View(), "Contract sum");
        await Added();
        var id = await Send();
        await Yes(id);
        // The contract itself rests under it.
        var accepted = (await server.Http.GetFromJsonAsync<JsonObject>($"{At}/revisions"))!["revisions"]![0]!;
        Assert.Equal(422, (await Record((Guid)accepted["id"]!, "annulled", "a mistake")).Status);
        var (status, answer) = await Record(id, "annulled", "recorded by mistake");
        Assert.True(status == 200, answer.ToJsonString());
        Assert.Equal(contract, Sum(await View(), "Contract sum"));
        Assert.Equal(before, (await Order())["order"]!.ToJsonString());
        // Accepted once more, and billed: it stays.
        await Yes(id);
        var wanted = new JsonObject
        {
            ["by"] = "change",
            ["step"] = 1,
            ["value"] = "",
        };
        var (_, draft) = await server.Post($"{At}/deliver/invoices/draft", wanted.DeepClone());
        var (issued, view) = await server.Post(
            $"{At}/deliver/invoices",
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["wanted"] = wanted.DeepClone(),
                ["total"] = draft["total"]!.DeepClone(),
                ["supplied"] = "",
                ["reason"] = "",
            }
        );
        Assert.True(issued == 200, view.ToJsonString());
        Assert.StartsWith(
            "Change order 1: As said on site",
            (string)view["invoices"]![0]!["label"]!,
            StringComparison.Ordinal
        );
        Assert.Empty(view["changes"]!.AsArray());
        var (late, refused) = await Record(id, "annulled", "a mistake");
        Assert.Equal(422, late);
        Assert.Contains("An invoice", (string)refused["title"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_question_about_one_stands_among_the_jobs_and_a_mail_brings_it_with_a_link()
    {
        await Added();
        var id = await Send();
        var link = await server.LinkTo(Gallery, id, "Maud Gray", signs: true);
        var (asked, _) = await Server.Post(
            server.Outside,
            link + "/questions",
            new JsonObject { ["id"] = Guid.CreateVersion7(), ["words"] = "With the step?" }
        );
        Assert.Equal(200, asked);
        var questions = (await server.Http.GetFromJsonAsync<JsonObject>($"{At}/revisions/questions"))!;
        Assert.Equal("Change order 1", (string)questions["questions"]![0]!["called"]!);
        Assert.Equal("seen", (string)(await View())["changes"]![0]!["state"]!);
        var message = (await server.Http.GetFromJsonAsync<JsonObject>($"{At}/revisions/message?revision={id}"))!;
        Assert.Contains("Change order 1", (string)message["subject"]!, StringComparison.Ordinal);
        Assert.Contains("{link}", (string)message["words"]!, StringComparison.Ordinal);
        var (status, answer) = await server.Post(
            $"{At}/revisions/{id}/mails",
            new JsonObject
            {
                ["fact"] = Guid.CreateVersion7(),
                ["message"] = new JsonObject
                {
                    ["to"] = new JsonArray(new JsonObject { ["address"] = "maud@gray.example", ["copy"] = false }),
                    ["subject"] = message["subject"]!.DeepClone(),
                    ["words"] = message["words"]!.DeepClone(),
                    ["way"] = "mail",
                },
            }
        );
        Assert.True(status == 200, answer.ToJsonString());
        var outbox = (await server.Http.GetFromJsonAsync<JsonNode>("/api/outbox"))!;
        Assert.Contains("Change order 1", outbox.ToJsonString(), StringComparison.Ordinal);
    }
}
