using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Emendum.Storage;
using Microsoft.Data.Sqlite;
using UglyToad.PdfPig;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>What is retained and released, paid early or late, and taken as complete (delivery.md, M10 to M12, M24, M25).</summary>
public sealed class PayingTests : IDisposable
{
    private static readonly Guid Gallery = new("01930000-0000-7000-8000-000000000994");
    private const string At = "/api/jobs/01930000-0000-7000-8000-000000000994/deliver";

    private readonly TemporaryFolder folder = new();
    private Server server;

    public PayingTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private static JsonObject Id() => new() { ["id"] = Guid.CreateVersion7() };

    private async Task<JsonObject> View() => (await server.Http.GetFromJsonAsync<JsonObject>($"{At}/invoices"))!;

    private static decimal Money(JsonNode? text) =>
        decimal.Parse(((string)text!).Replace('−', '-'), NumberStyles.Any, CultureInfo.InvariantCulture);

    private static JsonObject Terms(
        string retention = "",
        string releases = "",
        string early = "",
        string days = "",
        string interest = "",
        string cap = ""
    )
    {
        var agree = Id();
        agree["terms"] = new JsonObject
        {
            ["retention"] = retention,
            ["cap"] = cap,
            ["capPercent"] = "",
            ["releases"] = releases,
            ["earlyPercent"] = early,
            ["earlyDays"] = days,
            ["interest"] = interest,
        };
        return agree;
    }

    private async Task<JsonObject> Agree(JsonObject terms)
    {
        var (status, view) = await server.Post($"{At}/invoices/terms", terms);
        Assert.True(status == 200, view.ToJsonString());
        return view;
    }

    private async Task<(int Status, JsonObject Body)> Issue(string by, string value = "")
    {
        var wanted = new JsonObject
        {
            ["by"] = by,
            ["step"] = null,
            ["value"] = value,
        };
        var (status, draft) = await server.Post($"{At}/invoices/draft", wanted.DeepClone());
        if (status != 200)
            return (status, draft);
        var issue = Id();
        (issue["wanted"], issue["total"]) = (wanted, draft["total"]!.DeepClone());
        (issue["supplied"], issue["reason"]) = ("", "");
        return await server.Post($"{At}/invoices", issue);
    }

    private static JsonObject Row(JsonNode view, int at = 0) => view["invoices"]![at]!.AsObject();

    private async Task<(int Status, JsonObject Body)> Pay(JsonObject row, string amount, string discount, string day)
    {
        var pay = Id();
        (pay["amount"], pay["day"], pay["how"], pay["discount"]) = (amount, day, "bank", discount);
        return await server.Post($"{At}/invoices/{(Guid)row["id"]!}/payments", pay);
    }

    private async Task<(int Status, JsonObject Body)> Complete(string what, params (string, JsonNode?)[] with)
    {
        var body = Id();
        foreach (var (name, value) in with)
            body[name] = value;
        return await server.Post($"{At}/completion/{what}", body);
    }

    private async Task Put(string path, string field, JsonNode now, Func<JsonNode, JsonObject>? of = null)
    {
        var stands = (
            await server.Http.GetFromJsonAsync<JsonNode>(
                path.StartsWith("/api/customers", StringComparison.Ordinal) ? "/api/customers" : path
            )
        )!;
        var was = of is null ? stands.AsObject() : of(stands);
        var then = was.DeepClone().AsObject();
        then[field] = now;
        using var put = await server.Http.PutAsJsonAsync(
            path,
            new JsonObject { ["was"] = was.DeepClone(), ["now"] = then }
        );
        Assert.True(put.IsSuccessStatusCode, await put.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task An_e_invoice_is_made_of_what_is_issued_once_the_office_says_what_it_needs()
    {
        var (_, without) = await Issue("percent", "10");
        Assert.Equal((false, ""), ((bool)Row(without)["eInvoice"]!, (string)Row(without)["eLacks"]!));
        await Put(
            "/api/company/e-invoices",
            "seller",
            new JsonObject
            {
                ["name"] = "Larkspur & Pell Finishing",
                ["street"] = "Quay 2",
                ["city"] = "Port Ennis",
                ["postCode"] = "PE1",
                ["country"] = "IE",
                ["taxNumber"] = "IE1234567T",
            }
        );
        // The customer's country is missing still: it is issued all the same, and says what its e-invoice lacks.
        var (_, lacking) = await Issue("percent", "20");
        Assert.Equal("The customer has no country: Customers.", (string)Row(lacking)["eLacks"]!);
        var job = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}"))!;
        var customer = (string)job["info"]!["customer"]!;
        await Put(
            $"/api/customers/{customer}",
            "country",
            "IE",
            all => all.AsArray().Single(c => (string)c!["id"]! == customer)!.AsObject()
        );
        var (status, made) = await Issue("percent", "30");
        Assert.True(status == 200, made.ToJsonString());
        var row = Row(made);
        Assert.True((bool)row["eInvoice"]!, row.ToJsonString());
        var xml = await server.Http.GetStringAsync($"{At}/invoices/{(string)row["id"]!}/e-invoice.xml");
        Assert.Contains($"<cbc:ID>{(string)row["number"]!}</cbc:ID>", xml, StringComparison.Ordinal);
        var total = ((string)row["total"]!).Replace(",", "", StringComparison.Ordinal);
        Assert.Contains($"{total}</cbc:PayableAmount>", xml, StringComparison.Ordinal);
        Assert.Contains("Larkspur &amp; Pell Finishing", xml, StringComparison.Ordinal);
        // It says what was so when it was issued, whatever is so now.
        await Put($"/api/company/e-invoices", "account", "IE29 AIBK 9311 5212 3456 78");
        Assert.Equal(xml, await server.Http.GetStringAsync($"{At}/invoices/{(string)row["id"]!}/e-invoice.xml"));
        var first = made["invoices"]!.AsArray().Single(i => (string)i!["number"]! == (string)Row(without)["number"]!)!;
        using var none = await server.Http.GetAsync($"{At}/invoices/{(string)first["id"]!}/e-invoice.xml");
        Assert.Equal(System.Net.HttpStatusCode.UnprocessableEntity, none.StatusCode);
    }

    [Fact]
    public async Task Retention_is_kept_back_until_the_note_is_there_and_no_snag_is_open()
    {
        var sum = Money((await View())["sums"]![0]!["amount"]);
        var view = await Agree(Terms("5", "50, 100"));
        Assert.Contains("5 % of the value is retained", (string)view["termsSay"]!, StringComparison.Ordinal);
        Assert.True((bool)view["ownTerms"]!);
        var (status, body) = await Issue("percent", "40");
        Assert.True(status == 200, body.ToJsonString());
        var row = Row(body);
        var held = Math.Round(
            Math.Round(sum * 0.4m, 2, MidpointRounding.AwayFromZero) * 0.05m,
            2,
            MidpointRounding.AwayFromZero
        );
        Assert.Equal(held, Money(row["held"]));
        // Tax is billed in full; what is retained is not asked for yet.
        Assert.Equal(Money(row["total"]) - held, Money(row["open"]));
        var pdf = await server.Http.GetByteArrayAsync($"{At}/invoices/{(Guid)row["id"]!}/pdf");
        using (var paper = PdfDocument.Open(pdf))
        {
            var text = string.Join(" ", paper.GetPages().Select(p => p.Text));
            Assert.Contains("Retained", text, StringComparison.Ordinal);
            Assert.Contains("Payable now", text, StringComparison.Ordinal);
        }

        // The last one waits for the note.
        (status, body) = await Issue("percent", "100");
        Assert.Equal((422, "value"), (status, (string)body["field"]!));
        (status, body) = await Issue("rest");
        Assert.Equal((422, "by"), (status, (string)body["field"]!));
        Assert.Contains("completion note", (string)body["title"]!, StringComparison.Ordinal);

        var place = (string)(await server.Http.GetFromJsonAsync<JsonObject>($"{At}/completion"))!["places"]![0]!["id"]!;
        (status, body) = await Complete("snags", ("text", "a run beside the door"), ("place", place));
        Assert.True(status == 200, body.ToJsonString());
        var snag = (Guid)body["snags"]![0]!["id"]!;
        Assert.Equal(422, (await Complete("snags", ("text", " "), ("place", null))).Status);
        Assert.Equal(422, (await Complete("snags", ("text", "x"), ("place", Guid.CreateVersion7()))).Status);
        var today = (string)body["today"]!;
        Assert.Equal(422, (await Complete("note", ("day", "2099-01-01"), ("name", "Odo Fenn"), ("how", ""))).Status);
        (status, body) = await Complete("note", ("day", today), ("name", "Odo Fenn"), ("how", "signed on paper"));
        Assert.StartsWith("Taken by Odo Fenn", (string)body["note"]!, StringComparison.Ordinal);
        using (var paper = PdfDocument.Open(await server.Http.GetByteArrayAsync($"{At}/completion/note.pdf")))
            Assert.Contains("a run beside the door", paper.GetPage(1).Text, StringComparison.Ordinal);

        // The note opens the last invoice; the open snag holds the release and not the invoice (M12).
        (status, body) = await Issue("rest");
        Assert.True(status == 200, body.ToJsonString());
        var all = Math.Round(sum * 0.05m, 2, MidpointRounding.AwayFromZero);
        Assert.Equal(all, Money(Sum(body, "Retained")));
        Assert.Equal("", (string)body["mayRelease"]!);
        Assert.Contains("1 snag open", (string)body["releaseWaits"]!, StringComparison.Ordinal);
        var early = Id();
        early["amount"] = "1.00";
        Assert.Equal(422, (await server.Post($"{At}/invoices/releases", early)).Status);
        Assert.Equal(200, (await Complete($"snags/{snag}/mended", ("mended", true))).Status);
        body = await View();
        var half = Math.Round(all / 2, 2, MidpointRounding.AwayFromZero);
        Assert.Equal(half, Money(body["mayRelease"]));
        var ask = Id();
        ask["amount"] = "1.00";
        Assert.Equal(422, (await server.Post($"{At}/invoices/releases", ask)).Status);
        ask["amount"] = body["mayRelease"]!.DeepClone();
        (status, body) = await server.Post($"{At}/invoices/releases", ask);
        Assert.True(status == 200, body.ToJsonString());
        // The same again is done once.
        (_, body) = await server.Post($"{At}/invoices/releases", ask.DeepClone());
        var release = Assert.Single(body["releases"]!.AsArray())!;
        Assert.Equal(all - half, Money(body["mayRelease"]));
        Assert.Equal(all - half, Money(Sum(body, "Retained")));
        using (
            var paper = PdfDocument.Open(
                await server.Http.GetByteArrayAsync($"{At}/invoices/releases/{(Guid)release["id"]!}/pdf")
            )
        )
            Assert.Contains(
                "This is no invoice",
                string.Join(" ", paper.GetPages().Select(p => p.Text)),
                StringComparison.Ordinal
            );
        // No number was used for it.
        Assert.EndsWith(
            "0003",
            (string)(await server.Http.GetFromJsonAsync<JsonObject>("/api/company/numbers"))!["next"]!,
            StringComparison.Ordinal
        );
        // What was released is to be paid, and a note on which a release rests is not taken back.
        Assert.Equal(
            Money(Row(body)["total"]) + Money(Row(body, 1)["total"]) - (all - half),
            Money(Row(body)["open"]) + Money(Row(body, 1)["open"])
        );
        Assert.Equal(422, (await Complete("note/take-back")).Status);
    }

    private static JsonNode Sum(JsonNode view, string label) =>
        view["sums"]!.AsArray().First(s => (string)s!["label"]! == label)!["amount"]!;

    [Fact]
    public async Task A_discount_is_for_paying_all_in_time_and_changes_neither_the_contract_sum_nor_what_is_billed()
    {
        await Agree(Terms(early: "2", days: "10"));
        var (_, body) = await Issue("percent", "50");
        var row = Row(body);
        var total = Money(row["total"]);
        var saved = Math.Round(total * 0.02m, 2, MidpointRounding.AwayFromZero);
        Assert.Equal((saved, total - saved), (Money(row["earlyDiscount"]), Money(row["earlyPays"])));
        var today = (string)body["today"]!;
        string Text(decimal of) => of.ToString(CultureInfo.InvariantCulture);
        foreach (
            var (amount, discount) in new[]
            {
                (total - saved - 1, saved),
                (total - saved, saved - 0.01m),
                (total, saved),
            }
        )
        {
            var (wrong, refused) = await Pay(row, Text(amount), Text(discount), today);
            Assert.Equal((422, "discount"), (wrong, (string)refused["field"]!));
        }
        // A day late it stays owed.
        var billed = (Sum(body, "Billed").DeepClone(), Sum(body, "Contract sum").DeepClone());
        var (status, view) = await Pay(row, Text(total - saved), Text(saved), today);
        Assert.True(status == 200, view.ToJsonString());
        Assert.Equal(("paid", ""), ((string)Row(view)["says"]!, (string)Row(view)["open"]!));
        Assert.Equal(saved, Money(Sum(view, "Saved by paying early")));
        Assert.Equal(
            ((string)billed.Item1!, (string)billed.Item2!),
            ((string)Sum(view, "Billed")!, (string)Sum(view, "Contract sum")!)
        );
        // Taken back, all of it is open again.
        var payment = (Guid)Row(view)["payments"]![0]!["id"]!;
        (_, view) = await server.Post($"{At}/invoices/payments/{payment}/take-back", Id());
        Assert.Equal(total, Money(Row(view)["open"]));
        foreach (
            var (terms, field) in new[]
            {
                (Terms(early: "2"), "earlyDays"),
                (Terms("101"), "retention"),
                (Terms("5", "50"), "releases"),
                (Terms(interest: "-1"), "interest"),
                (Terms("x"), "retention"),
            }
        )
        {
            (status, body) = await server.Post($"{At}/invoices/terms", terms);
            Assert.Equal((422, field), (status, (string)body["field"]!));
        }
    }

    [Fact]
    public async Task A_late_invoice_is_reminded_of_with_its_interest_and_goes_by_mail()
    {
        await Agree(Terms(interest: "9"));
        var (_, body) = await Issue("amount", "1000");
        var (id, total) = ((Guid)Row(body)["id"]!, Money(Row(body)["total"]));
        Assert.Equal(422, (await server.Post($"{At}/invoices/{id}/reminders", Id())).Status);
        // Thirty-six days late: the invoice is made older, as no clock of ours can be turned.
        server.Kill();
        using (var connection = Database.Open(folder.Path).Connect())
        {
            using var command = connection.CreateCommand();
            command.CommandText =
                "DROP TRIGGER invoice_stays; UPDATE invoice SET content = json_set(content, '$.issued', date(content ->> '$.issued', '-66 days'), '$.due', date(content ->> '$.due', '-66 days'))";
            command.ExecuteNonQuery();
        }
        server = Server.Start(folder.Path);
        var view = await View();
        Assert.Equal("overdue 36 days", (string)Row(view)["says"]!);
        var (status, reminded) = await server.Post($"{At}/invoices/{id}/reminders", Id());
        Assert.True(status == 200, reminded.ToJsonString());
        var interest = Math.Round(total * 0.09m * 36 / 365, 2, MidpointRounding.AwayFromZero);
        var reminder = Row(reminded)["reminders"]![0]!;
        Assert.Contains(
            $"interest {interest.ToString("#,0.00", CultureInfo.InvariantCulture)}",
            (string)reminder["words"]!,
            StringComparison.Ordinal
        );
        // Interest is on the reminder only.
        Assert.Equal(total, Money(Row(reminded)["open"]));
        using (
            var paper = PdfDocument.Open(
                await server.Http.GetByteArrayAsync($"{At}/invoices/reminders/{(Guid)reminder["id"]!}/pdf")
            )
        )
            Assert.Contains(
                "36 days late",
                string.Join(" ", paper.GetPages().Select(p => p.Text)),
                StringComparison.Ordinal
            );

        var draft = (await server.Http.GetFromJsonAsync<JsonObject>($"{At}/invoices/{id}/message?reminds=true"))!;
        var mail = Id();
        mail["reminder"] = (Guid)reminder["id"]!;
        mail["message"] = new JsonObject
        {
            ["to"] = new JsonArray(new JsonObject { ["address"] = "odo@library.example", ["copy"] = false }),
            ["subject"] = draft["subject"]!.DeepClone(),
            ["words"] = draft["words"]!.DeepClone(),
            ["way"] = "mail",
        };
        Assert.Equal(200, (await server.Post($"{At}/invoices/{id}/mails", mail)).Status);
        Assert.Equal(200, (await server.Post($"{At}/invoices/{id}/mails", mail.DeepClone())).Status);
        var sent = Assert.Single((await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!)!;
        Assert.Equal(("invoices", (string)Row(view)["number"]!), ((string)sent["view"]!, (string)sent["brings"]!));
        Assert.StartsWith("Reminder", (string)sent["attached"]![0]!, StringComparison.Ordinal);
        var stranger = (JsonObject)mail.DeepClone();
        (stranger["id"], stranger["reminder"]) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        Assert.Equal(404, (await server.Post($"{At}/invoices/{id}/mails", stranger)).Status);
    }
}
