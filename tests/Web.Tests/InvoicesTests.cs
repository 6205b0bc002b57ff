using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Emendum.Storage;
using Microsoft.Data.Sqlite;
using UglyToad.PdfPig;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Invoices of an accepted job: issued once, numbered without a gap, paid, credited, and never changed (delivery.md, M and N).</summary>
public sealed class InvoicesTests : IDisposable
{
    /// <summary>The demo's job that was accepted.</summary>
    private static readonly Guid Gallery = new("01930000-0000-7000-8000-000000000994");

    private const string At = "/api/jobs/01930000-0000-7000-8000-000000000994/deliver/invoices";

    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public InvoicesTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private async Task<JsonObject> View() => (await server.Http.GetFromJsonAsync<JsonObject>(At))!;

    private static JsonObject Wanted(string by, int? step = null, string value = "") =>
        new()
        {
            ["by"] = by,
            ["step"] = step,
            ["value"] = value,
        };

    private async Task<string> TotalOf(JsonObject wanted)
    {
        var (status, draft) = await server.Post($"{At}/draft", wanted.DeepClone());
        Assert.True(status == 200, draft.ToJsonString());
        return (string)draft["total"]!;
    }

    private async Task<(int Status, JsonObject Body)> Issue(
        JsonObject wanted,
        string? total = null,
        Guid? id = null,
        string reason = "",
        string supplied = ""
    ) =>
        await server.Post(
            At,
            new JsonObject
            {
                ["id"] = id ?? Guid.CreateVersion7(),
                ["total"] = total ?? await TotalOf(wanted),
                ["wanted"] = wanted,
                ["supplied"] = supplied,
                ["reason"] = reason,
            }
        );

    private static JsonObject Row(JsonNode view, int at = 0) => view["invoices"]![at]!.AsObject();

    private static JsonObject Payment(string amount, string day, Guid? id = null) =>
        new()
        {
            ["id"] = id ?? Guid.CreateVersion7(),
            ["day"] = day,
            ["amount"] = amount,
            ["how"] = "bank",
        };

    private static decimal Money(JsonNode? text) =>
        decimal.Parse(
            (string)text!,
            System.Globalization.NumberStyles.Number,
            System.Globalization.CultureInfo.InvariantCulture
        );

    [Fact]
    public async Task Work_that_is_ticked_is_billed_at_what_its_lines_are_worth_and_once()
    {
        // The gallery is half delivered: what its crews have ticked.
        var wanted = Wanted("done");
        var (status, view) = await Issue(wanted);
        Assert.True(status == 200, view.ToJsonString());
        var row = Row(view);
        Assert.Matches(@"^Work done to date, line by line: \d+(\.\d)? % of the contract sum$", (string)row["label"]!);
        var (sum, net) = (Money(view["sums"]![0]!["amount"]), Money(row["net"]));
        Assert.InRange(net, 1, sum - 1);
        using var pdf = PdfDocument.Open(await server.Http.GetByteArrayAsync($"{At}/{(string)row["id"]!}/pdf"));
        Assert.Contains(
            "Valuationstatement",
            string.Concat(pdf.GetPages().Select(p => p.Text)).Replace(" ", "", StringComparison.Ordinal),
            StringComparison.Ordinal
        );
        // Nothing more was ticked: there is nothing to bill.
        var (again, refused) = await server.Post($"{At}/draft", wanted);
        Assert.Equal((422, "value"), (again, (string)refused["field"]!));
    }

    [Fact]
    public async Task An_invoice_is_issued_once_at_the_total_that_was_seen()
    {
        var wanted = Wanted("percent", value: "40");
        var total = await TotalOf(wanted);
        var (status, refused) = await Issue((JsonObject)wanted.DeepClone(), "1.00");
        Assert.Equal((422, "total"), (status, (string)refused["field"]!));
        Assert.Contains($"You saw 1.00; it comes to {total}", (string)refused["title"]!, StringComparison.Ordinal);
        var id = Guid.CreateVersion7();
        for (var n = 0; n < 2; n++)
            Assert.Equal(200, (await Issue((JsonObject)wanted.DeepClone(), total, id)).Status);
        var view = await View();
        var row = Assert.Single(view["invoices"]!.AsArray())!;
        var year = ((string)view["today"]!)[..4];
        Assert.Equal(
            ($"{year}-0001", total, total, "open"),
            ((string)row["number"]!, (string)row["total"]!, (string)row["open"]!, (string)row["says"]!)
        );
        // Forty percent of the contract sum, to the cent.
        var sums = view["sums"]!.AsArray().ToDictionary(s => (string)s!["label"]!, s => Money(s!["amount"]));
        Assert.Equal(decimal.Round(sums["Contract sum"] * 0.4m, 2, MidpointRounding.AwayFromZero), sums["Billed"]);
        Assert.Equal(sums["Contract sum"], sums["Billed"] + sums["Not billed yet"]);
        (status, refused) = await Issue(Wanted("percent", value: "x"), "1.00");
        Assert.Equal((422, "value"), (status, (string)refused["field"]!));
        (status, refused) = await Issue(
            Wanted("amount", value: "10"),
            await TotalOf(Wanted("amount", value: "10")),
            supplied: "soon"
        );
        Assert.Equal((422, "supplied"), (status, (string)refused["field"]!));
        // Billed ahead of the contract sum it asks for a reason (M21).
        var ahead = Wanted("amount", value: $"{sums["Not billed yet"] + 100:0.00}");
        (status, refused) = await Issue((JsonObject)ahead.DeepClone());
        Assert.Equal((422, "reason"), (status, (string)refused["field"]!));
        Assert.Equal(200, (await Issue((JsonObject)ahead.DeepClone(), reason: "the customer asked for it")).Status);
        Assert.Equal("100.00", (string)(await View())["ahead"]!);
    }

    [Fact]
    public async Task The_paper_is_frozen_with_the_number_and_says_what_stands_in_it()
    {
        Assert.Equal(200, (await Issue(Wanted("percent", value: "40"))).Status);
        var row = Row(await View());
        var path = $"{At}/{(Guid)row["id"]!}/pdf";
        var pdf = await server.Http.GetByteArrayAsync(path);
        Assert.Equal(pdf, await server.Http.GetByteArrayAsync(path));
        using (var document = PdfDocument.Open(pdf))
        {
            var text = Regex.Replace(string.Concat(document.GetPages().Select(p => p.Text)), @"\s", "");
            foreach (
                var said in new[] { $"Invoice {row["number"]}", (string)row["total"]!, "Contract sum", "Please pay by" }
            )
                Assert.Contains(said.Replace(" ", "", StringComparison.Ordinal), text, StringComparison.Ordinal);
        }
        // The firm's words and look change; what was issued does not.
        var terms = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/invoices"))!;
        var now = (JsonObject)terms.DeepClone();
        (now["words"], now["dueDays"]) = ("Pay to the bank of Port Ennis", 7);
        using (
            var kept = await server.Http.PutAsJsonAsync(
                "/api/company/invoices",
                new JsonObject { ["was"] = terms, ["now"] = now }
            )
        )
            Assert.Equal(HttpStatusCode.OK, kept.StatusCode);
        Assert.Equal(pdf, await server.Http.GetByteArrayAsync(path));
        Assert.Equal((string)row["due"]!, (string)Row(await View())["due"]!);
        using var none = await server.Http.GetAsync($"{At}/{Guid.CreateVersion7()}/pdf");
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);
    }

    [Fact]
    public async Task Fifty_at_once_and_a_kill_leave_no_gap_and_no_number_twice()
    {
        var total = await TotalOf(Wanted("amount", value: "1"));
        var answers = await Task.WhenAll(
            // What 1.00 before tax comes to moves with what is open in each category: who saw another total is refused, and uses no number.
            Enumerable.Range(0, 50).Select(_ => Issue(Wanted("amount", value: "1"), total, reason: "at once"))
        );
        Assert.All(answers, a => Assert.Contains(a.Status, new[] { 200, 422 }));
        var before = answers.Count(a => a.Status == 200);
        Assert.True(before > 0);
        var killed = Enumerable
            .Range(0, 20)
            .Select(async _ =>
            {
                try
                {
                    return (await Issue(Wanted("amount", value: "1"), total, reason: "at once")).Status;
                }
                catch (HttpRequestException)
                {
                    return 0;
                }
            })
            .ToList();
        await Task.WhenAny(killed);
        server.Kill();
        var answered = (await Task.WhenAll(killed)).Count(s => s == 200);
        using var later = Server.Start(folder.Path);
        var view = (await later.Http.GetFromJsonAsync<JsonObject>(At))!;
        var numbers = view["invoices"]!
            .AsArray()
            .Select(i => (string)i!["number"]!)
            .Order(StringComparer.Ordinal)
            .ToList();
        var year = ((string)view["today"]!)[..4];
        // What was answered is there; what was not answered may be. All numbers from the first on, each once.
        Assert.True(numbers.Count >= before + answered, $"{numbers.Count} of {before} + {answered}");
        Assert.Equal(Enumerable.Range(1, numbers.Count).Select(n => $"{year}-{n:D4}"), numbers);
        // And each has its PDF.
        foreach (var invoice in view["invoices"]!.AsArray().Take(3))
            Assert.NotEmpty(await later.Http.GetByteArrayAsync($"{At}/{(Guid)invoice!["id"]!}/pdf"));
    }

    [Fact]
    public async Task A_payment_in_parts_and_a_credit_note_which_gives_back()
    {
        Assert.Equal(200, (await Issue(Wanted("rest"))).Status);
        var view = await View();
        var (row, today) = (Row(view), (string)view["today"]!);
        var (id, total) = ((Guid)row["id"]!, Money(row["total"]));
        var payment = Payment("1,000.00", today);
        for (var n = 0; n < 2; n++)
            Assert.Equal(200, (await server.Post($"{At}/{id}/payments", payment.DeepClone())).Status);
        row = Row(await View());
        Assert.Equal((total - 1000, "paid in part"), (Money(row["open"]), (string)row["says"]!));
        var (status, refused) = await server.Post($"{At}/{id}/payments", Payment("-1000.01", today));
        Assert.Equal((422, "amount"), (status, (string)refused["field"]!));
        (status, refused) = await server.Post($"{At}/{id}/payments", Payment("1", "2999-01-01"));
        Assert.Equal((422, "day"), (status, (string)refused["field"]!));
        var came = (Guid)row["payments"]![0]!["id"]!;
        async Task<int> Back() =>
            (
                await server.Post($"{At}/payments/{came}/take-back", new JsonObject { ["id"] = Guid.CreateVersion7() })
            ).Status;
        Assert.Equal((200, 422), (await Back(), await Back()));
        Assert.Equal(total, Money(Row(await View())["open"]));
        Assert.Equal(200, (await server.Post($"{At}/{id}/payments", Payment($"{total:0.00}", today))).Status);
        Assert.Equal("paid", (string)Row(await View())["says"]!);
        // Credited, it is to be given back, and all is open again.
        var credit = new JsonObject { ["id"] = Guid.CreateVersion7(), ["reason"] = "" };
        Assert.Equal(422, (await server.Post($"{At}/{id}/credit", credit.DeepClone())).Status);
        credit["reason"] = "billed to the wrong trust";
        for (var n = 0; n < 2; n++)
            Assert.Equal(200, (await server.Post($"{At}/{id}/credit", credit.DeepClone())).Status);
        view = await View();
        Assert.Equal(2, view["invoices"]!.AsArray().Count);
        var note = Row(view);
        Assert.EndsWith("-0002", (string)note["number"]!, StringComparison.Ordinal);
        Assert.Equal(-total, Money(((string)note["total"]!).Replace('−', '-')));
        Assert.Equal("credited by " + (string)note["number"]!, (string)Row(view, 1)["says"]!);
        var sums = view["sums"]!.AsArray().ToDictionary(s => (string)s!["label"]!, s => Money(s!["amount"]));
        Assert.Equal((0m, total), (sums["Billed"], sums["To be given back"]));
        Assert.Equal(200, (await Issue(Wanted("rest"))).Status);
        // A part, in the invoice's own categories: what is left says so, and more is refused.
        view = await View();
        row = Row(view);
        var left = row["left"]!.AsArray().Select(l => (string)l!["amount"]!).ToList();
        JsonObject Part(params string[] amounts) =>
            new()
            {
                ["id"] = Guid.CreateVersion7(),
                ["reason"] = "less was done",
                ["amounts"] = new JsonArray([.. amounts.Select(a => (JsonNode)a)]),
            };
        var again = $"{At}/{(Guid)row["id"]!}/credit";
        (status, refused) = await server.Post(again, Part("99999999"));
        Assert.Equal((422, "amount"), (status, (string)refused["field"]!));
        (status, refused) = await server.Post(again, Part("x"));
        Assert.Equal((422, "amount"), (status, (string)refused["field"]!));
        Assert.Equal(200, (await server.Post(again, Part([.. left.Select((_, i) => i == 0 ? "10.00" : "")]))).Status);
        view = await View();
        Assert.False((bool)Row(view, 1)["mayCredit"]!);
        Assert.Equal(Money(left[0]) - 10, Money(Row(view, 1)["left"]![0]!["amount"]));
        Assert.StartsWith("Credits a part of ", (string)Row(view)["label"]!, StringComparison.Ordinal);
        Assert.Equal(422, (await server.Post(again, Part())).Status);
    }

    [Fact]
    public async Task A_series_is_moved_on_by_a_person_forward_with_a_reason_and_a_year_begins_at_one()
    {
        async Task<JsonObject> Numbers() => (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/numbers"))!;
        Task<(int Status, JsonObject Body)> Move(int next, string reason, Guid? id = null) =>
            server.Post(
                "/api/company/numbers/move",
                new JsonObject
                {
                    ["id"] = id ?? Guid.CreateVersion7(),
                    ["next"] = next,
                    ["reason"] = reason,
                }
            );
        // Next 5 moved to 9: 5 to 8 are a gap that a person made (N4).
        Assert.Equal(200, (await Move(5, "four were written by hand")).Status);
        var id = Guid.CreateVersion7();
        for (var n = 0; n < 2; n++)
            Assert.Equal(200, (await Move(9, "the old program went on to 8", id)).Status);
        foreach (var (next, reason) in new[] { (9, "again"), (3, "back"), (20, " ") })
            Assert.Equal(422, (await Move(next, reason)).Status);
        var numbers = await Numbers();
        var year = ((string)numbers["next"]!)[..4];
        Assert.Equal(($"{year}-0009", 9), ((string)numbers["next"]!, (int)numbers["nextNumber"]!));
        Assert.Equal(
            [$"{year}-0005 to {year}-0008", $"{year}-0001 to {year}-0004"],
            numbers["gaps"]!.AsArray().Select(g => (string)g!["skipped"]!)
        );
        Assert.Equal(200, (await Issue(Wanted("amount", value: "10"))).Status);
        Assert.Equal($"{year}-0009", (string)Row(await View())["number"]!);
        // Written otherwise it is a series of its own years; a number that was given out is not given again, whatever the case of its letters.
        async Task Scheme(string scheme, HttpStatusCode expects)
        {
            var was = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/invoices"))!;
            var now = (JsonObject)was.DeepClone();
            now["numbers"] = scheme;
            using var kept = await server.Http.PutAsJsonAsync(
                "/api/company/invoices",
                new JsonObject { ["was"] = was, ["now"] = now }
            );
            Assert.Equal(expects, kept.StatusCode);
        }
        await Scheme("INV", HttpStatusCode.UnprocessableEntity);
        await Scheme("inv {number}", HttpStatusCode.OK);
        Assert.Equal(200, (await Issue(Wanted("amount", value: "10"))).Status);
        Assert.Equal("inv 1", (string)Row(await View())["number"]!);
        server.Kill();
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
        {
            // Last year's numbers: the new year begins at 1, and nothing is dated before the last of the series.
            connection.Run("UPDATE number_series SET year = year - 1 WHERE year > 0");
            foreach (var table in new[] { "invoice", "number_moved" })
            {
                Assert.Throws<SqliteException>(() => connection.Run($"UPDATE {table} SET by = 'x'"));
                Assert.Throws<SqliteException>(() => connection.Run($"DELETE FROM {table}"));
            }
        }
        database.Close();
        using var later = Server.Start(folder.Path);
        var terms = (await later.Http.GetFromJsonAsync<JsonObject>("/api/company/invoices"))!;
        var yearly = (JsonObject)terms.DeepClone();
        yearly["numbers"] = "{year}/{number}";
        using var set = await later.Http.PutAsJsonAsync(
            "/api/company/invoices",
            new JsonObject { ["was"] = terms, ["now"] = yearly }
        );
        Assert.Equal(
            $"{year}/1",
            (string)(await later.Http.GetFromJsonAsync<JsonObject>("/api/company/numbers"))!["next"]!
        );
    }

    [Fact]
    public async Task An_acceptance_on_which_an_invoice_rests_cannot_be_annulled()
    {
        Assert.Equal(200, (await Issue(Wanted("amount", value: "10"))).Status);
        var revisions = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/revisions"))!;
        var (status, refused) = await server.Post(
            $"/api/jobs/{Gallery}/revisions/{(Guid)revisions["revisions"]![0]!["id"]!}/facts",
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["kind"] = "annulled",
                ["words"] = "by mistake",
                ["day"] = "",
                ["asSent"] = true,
                ["photo"] = "",
            }
        );
        Assert.Equal(422, status);
        Assert.Contains("An invoice rests on this acceptance", (string)refused["title"]!, StringComparison.Ordinal);
        // Nothing is billed of what was not accepted.
        var (early, said) = await server.Post(
            "/api/jobs/01930000-0000-7000-8000-000000000996/deliver/invoices/draft",
            Wanted("rest")
        );
        Assert.Equal((422, "job"), (early, (string)said["field"]!));
    }
}
