using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Documents.Tables;
using MimeKit;
using UglyToad.PdfPig;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Buying for accepted jobs: need against stock and orders, orders placed and received, stock that jobs share (delivery.md, S and N).</summary>
public sealed class BuyingTests : IDisposable
{
    /// <summary>The demo's job that was accepted: paint came and is used, carpet tile came in part.</summary>
    private static readonly Guid Gallery = new("01930000-0000-7000-8000-000000000994"),
        Pottery = new("01930000-0000-7000-8000-000000000996");

    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public BuyingTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private static string At(Guid job, string rest = "") => $"/api/jobs/{job}/deliver/buying{rest}";

    private async Task<JsonObject> View(Guid? job = null) =>
        (await server.Http.GetFromJsonAsync<JsonObject>(At(job ?? Gallery)))!;

    private async Task<JsonObject> Stock() => (await server.Http.GetFromJsonAsync<JsonObject>("/api/stock"))!;

    private static JsonObject Goods(JsonNode view, string name) =>
        view["goods"]!.AsArray().First(g => ((string)g!["name"]!).Contains(name, StringComparison.Ordinal))!.AsObject();

    /// <summary>Suppliers of the demo's two orders: their numbers depend on the day of the year.</summary>
    private const string Paint = "Ennis Paint Counter",
        Tiles = "Ropewalk Trade Supply";

    /// <summary>The first order from a supplier.</summary>
    private static JsonObject Order(JsonNode view, string supplier) =>
        view["orders"]!.AsArray().Last(o => (string)o!["supplier"]! == supplier)!.AsObject();

    private static JsonObject Wanted(JsonNode goods, string count, string price = "", int pack = 0) =>
        new()
        {
            ["supplier"] = "Ropewalk Trade Supply",
            ["delivery"] = "",
            ["lines"] = new JsonArray(
                new JsonObject
                {
                    ["goods"] = goods["goods"]!.DeepClone(),
                    ["pack"] = pack,
                    ["count"] = count,
                    ["price"] = price,
                }
            ),
        };

    private async Task<(int Status, JsonObject Body)> Place(
        JsonObject wanted,
        string total,
        Guid? id = null,
        Guid? job = null,
        string by = ""
    ) =>
        await server.Post(
            At(job ?? Gallery, "/orders"),
            new JsonObject
            {
                ["id"] = id ?? Guid.CreateVersion7(),
                ["wanted"] = wanted.DeepClone(),
                ["total"] = total,
                ["deliverTo"] = "the back gate",
                ["by"] = by,
                ["words"] = "",
            }
        );

    private static JsonObject Move(
        string move,
        JsonNode goods,
        string quantity,
        JsonNode today,
        string words = "",
        string paid = "",
        Guid? id = null
    ) =>
        new()
        {
            ["id"] = id ?? Guid.CreateVersion7(),
            ["move"] = move,
            ["goods"] = goods["goods"]!.DeepClone(),
            ["quantity"] = quantity,
            ["day"] = today.DeepClone(),
            ["paid"] = paid,
            ["words"] = words,
            ["work"] = null,
            ["place"] = null,
        };

    private async Task<JsonObject> Moved(Guid job, JsonObject move)
    {
        var (status, body) = await server.Post(At(job, "/moves"), move);
        Assert.True(status == 200, body.ToJsonString());
        return body;
    }

    private async Task<JsonObject> Counted(JsonObject move)
    {
        var (status, body) = await server.Post("/api/stock/moves", move);
        Assert.True(status == 200, body.ToJsonString());
        return body;
    }

    private async Task<string> ContractSum() =>
        (string)
            (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver/invoices"))!["sums"]![0]![
                "amount"
            ]!;

    private static decimal Money(JsonNode? text) =>
        decimal.Parse(((string)text!).Replace('−', '-'), NumberStyles.Any, CultureInfo.InvariantCulture);

    [Fact]
    public async Task What_is_needed_is_read_against_stock_and_orders()
    {
        var view = await View();
        var (tile, paint) = (Goods(view, "Loop, moss"), Goods(view, "Harbour eggshell"));
        Assert.Equal(
            ("594.88 ft²", "300 ft²", "295 ft²", ""),
            ((string)tile["need"]!, (string)tile["reserved"]!, (string)tile["onOrder"]!, (string)tile["toBuy"]!)
        );
        Assert.Equal(
            ("6.5 gal", "1.5 gal", "2.5 gal free"),
            ((string)paint["used"]!, (string)paint["reserved"]!, (string)paint["stock"]!)
        );
        // Estimated 359.00: a pail and three cans. Eleven gallons came to 120 + 215 + 147, each unit at 482 ÷ 10.5.
        Assert.Equal(("359.00", "367.24"), ((string)paint["estimated"]!, (string)paint["willCost"]!));
        Assert.Equal(Math.Round(8 * 482m / 10.5m, 2), Money(paint["willCost"]));
        Assert.Empty(view["toOrder"]!.AsArray());
        Assert.Equal("late 2 days", (string)Order(view, Tiles)["says"]!);
    }

    [Fact]
    public async Task An_order_is_placed_once_at_the_total_that_was_seen_and_the_contract_sum_does_not_move()
    {
        var (sum, view) = (await ContractSum(), await View());
        var (wanted, id) = (Wanted(Goods(view, "Loop, moss"), "12.5", "4.444"), Guid.CreateVersion7());
        var (_, draft) = await server.Post(At(Gallery, "/orders/draft"), wanted.DeepClone());
        // 12.5 × 4.444 = 55.55.
        Assert.Equal("55.55", (string)draft["total"]!);
        Assert.Contains("12.5 ft² more than is still needed", (string)draft["says"]![0]!, StringComparison.Ordinal);

        var (status, refused) = await Place(wanted, "55.54", id);
        Assert.Equal((422, "total"), (status, (string)refused["field"]!));
        (status, var placed) = await Place(wanted, "55.55", id);
        Assert.True(status == 200, placed.ToJsonString());
        var order = placed["orders"]![0]!;
        Assert.Equal(
            ("55.55", "on order", true),
            ((string)order["total"]!, (string)order["says"]!, (bool)order["isOpen"]!)
        );
        Assert.Equal("307.5 ft²", (string)Goods(placed, "Loop, moss")["onOrder"]!);
        (_, placed) = await Place(wanted, "55.55", id);
        Assert.Equal(3, placed["orders"]!.AsArray().Count);
        Assert.Equal(sum, await ContractSum());

        foreach (
            var (wrong, field) in new[]
            {
                (Wanted(Goods(view, "Loop, moss"), "-1"), "count"),
                (Wanted(Goods(view, "Loop, moss"), "much"), "count"),
                (Wanted(Goods(view, "Loop, moss"), "1", "-2"), "price"),
                (Wanted(Goods(view, "Loop, moss"), ""), "lines"),
                (Wanted(Goods(view, "Loop, moss"), "1", pack: 7), "lines"),
            }
        )
        {
            (status, refused) = await Place(wrong, "1");
            Assert.Equal((422, field), (status, (string)refused["field"]!));
        }
        var nobody = Wanted(Goods(view, "Loop, moss"), "1", "4");
        nobody["supplier"] = " ";
        (status, refused) = await Place(nobody, "4.00");
        Assert.Equal((422, "supplier"), (status, (string)refused["field"]!));
        (status, refused) = await Place(Wanted(Goods(view, "Loop, moss"), "1", "4"), "4.00", by: "2020-01-01");
        Assert.Equal((422, "wanted"), (status, (string)refused["field"]!));
    }

    [Fact]
    public async Task What_comes_in_parts_is_kept_for_the_job_and_an_order_closed_short_is_to_buy_again()
    {
        var view = await View();
        var order = Order(view, Tiles);
        var at = At(Gallery, $"/orders/{(Guid)order["id"]!}");
        JsonObject Came(string count, string paid = "", string delivery = "") =>
            new()
            {
                ["id"] = Guid.CreateVersion7(),
                ["day"] = view["today"]!.DeepClone(),
                ["delivery"] = delivery,
                ["lines"] = new JsonArray(
                    new JsonObject
                    {
                        ["line"] = 0,
                        ["count"] = count,
                        ["paid"] = paid,
                    }
                ),
            };
        var ninety = Came("90", "400", "38.50");
        var (status, body) = await server.Post($"{at}/receive", ninety);
        Assert.True(status == 200, body.ToJsonString());
        // The same again is done once.
        (_, body) = await server.Post($"{at}/receive", ninety.DeepClone());
        var tile = Goods(body, "Loop, moss");
        Assert.Equal(("390 ft²", "205 ft²"), ((string)tile["reserved"]!, (string)tile["onOrder"]!));
        // 300 at 4.35 and 90 for 400.00, the rest on order at 4.35: 1,305 + 400 + 891.75.
        Assert.Equal(2596.75m, Money(tile["willCost"]));
        Assert.Contains("390 of 595 came", (string)Order(body, Tiles)["lines"]![0]!["came"]!, StringComparison.Ordinal);
        Assert.Equal("2,331.50", (string)Order(body, Tiles)["paid"]!);

        JsonObject Close(string reason) => new() { ["id"] = Guid.CreateVersion7(), ["reason"] = reason };
        Assert.Equal(422, (await server.Post($"{at}/close", Close(" "))).Status);
        (_, body) = await server.Post($"{at}/close", Close("the mill has no more"));
        tile = Goods(body, "Loop, moss");
        Assert.Equal(("", "204.88 ft²"), ((string)tile["onOrder"]!, (string)tile["toBuy"]!));
        Assert.StartsWith("205 × ft²", (string)tile["packs"]!, StringComparison.Ordinal);
        Assert.Equal(422, (await server.Post($"{at}/receive", Came("1"))).Status);

        // Taken back, it is on order again, and all of it and more may come.
        var closed = Order(body, Tiles)["happened"]!.AsArray().Last()!;
        (_, body) = await server.Post(
            At(Gallery, $"/order-facts/{(Guid)closed["id"]!}/take-back"),
            new JsonObject { ["id"] = Guid.CreateVersion7() }
        );
        Assert.Equal("205 ft²", (string)Goods(body, "Loop, moss")["onOrder"]!);
        (_, body) = await server.Post($"{at}/receive", Came("210"));
        var whole = Order(body, Tiles);
        Assert.Equal(("all came", false), ((string)whole["says"]!, (bool)whole["isOpen"]!));
        Assert.Equal("600 came, 5 more than ordered", (string)whole["lines"]![0]!["came"]!);
        Assert.Equal("600 ft²", (string)Goods(body, "Loop, moss")["reserved"]!);
        Assert.Equal(422, (await server.Post($"{at}/close", Close("done"))).Status);
    }

    [Fact]
    public async Task Two_jobs_that_reserve_at_once_get_no_more_than_is_there()
    {
        await server.Accept(Pottery);
        var (view, today) = (await View(), (await View())["today"]!);
        var paint = Goods(view, "Harbour eggshell");
        // 4 gal are there, 1.5 of it kept for the gallery: count 6.5, so that 5 are free.
        await Counted(Move("counted", paint, "6.5", today));
        var answers = await Task.WhenAll(
            server.Post(At(Gallery, "/moves"), Move("reserved", paint, "4", today)),
            server.Post(At(Pottery, "/moves"), Move("reserved", paint, "4", today))
        );
        Assert.Equal([200, 422], answers.Select(a => a.Status).Order());
        var second = answers.First(a => a.Status == 422).Body;
        Assert.Equal(("quantity", "Only 1 gal is free."), ((string)second["field"]!, (string)second["title"]!));
        var row = (await Stock())["rows"]!
            .AsArray()
            .First(r => ((string)r!["name"]!).StartsWith("Harbour eggshell", StringComparison.Ordinal))!;
        Assert.Equal(("6.5 gal", "1 gal"), ((string)row["onHand"]!, (string)row["free"]!));
    }

    [Fact]
    public async Task More_than_is_there_is_taken_only_with_a_reason_and_those_who_lose_it_are_told()
    {
        await server.Accept(Pottery);
        var today = (await View())["today"]!;
        var paint = Goods(await View(), "Harbour eggshell");
        // 2.5 gal are free; the gallery keeps 1.5.
        var (status, refused) = await server.Post(At(Pottery, "/moves"), Move("used", paint, "3", today));
        Assert.Equal((422, "words"), (status, (string)refused["field"]!));
        Assert.Equal("Only 2.5 gal is there for this job: say why more is taken.", (string)refused["title"]!);
        var used = Guid.CreateVersion7();
        var pottery = await Moved(Pottery, Move("used", paint, "3", today, "the notice boards dry out", id: used));
        Assert.Equal("3 gal", (string)Goods(pottery, "Harbour eggshell")["used"]!);
        var gallery = await View();
        Assert.Equal("1 gal", (string)Goods(gallery, "Harbour eggshell")["reserved"]!);
        var told = (string)gallery["told"]![0]!;
        Assert.StartsWith(
            "0.5 gal Harbour eggshell, Gannet white is no longer kept for this job",
            told,
            StringComparison.Ordinal
        );
        Assert.Contains("the notice boards dry out", told, StringComparison.Ordinal);
        // It is missing again, and is to buy.
        Assert.Equal("0.43 gal", (string)Goods(gallery, "Harbour eggshell")["toBuy"]!);
        Assert.Equal("Ennis Paint Counter", (string)gallery["toOrder"]![0]!["name"]!);

        // A move of another job is not taken back from here; from its own it is, and nothing is told any more.
        var back = new JsonObject { ["id"] = Guid.CreateVersion7() };
        Assert.Equal(422, (await server.Post(At(Gallery, $"/moves/{used}/take-back"), back.DeepClone())).Status);
        Assert.Equal(200, (await server.Post(At(Pottery, $"/moves/{used}/take-back"), back)).Status);
        gallery = await View();
        Assert.Empty(gallery["told"]!.AsArray());
        Assert.Equal("1.5 gal", (string)Goods(gallery, "Harbour eggshell")["reserved"]!);
    }

    [Fact]
    public async Task A_count_sets_what_is_there_and_its_history_says_by_how_much_it_differed()
    {
        var today = (await View())["today"]!;
        var paint = Goods(await View(), "Harbour eggshell");
        var key = paint["goods"]!;
        await Counted(Move("counted", paint, "1", today, "spilled"));
        var gallery = await View();
        Assert.Equal("1 gal", (string)Goods(gallery, "Harbour eggshell")["reserved"]!);
        Assert.Contains("less was there when it was counted", (string)gallery["told"]![0]!, StringComparison.Ordinal);
        var path =
            $"/api/stock/moves?material={(string)key["material"]!}&colour={Uri.EscapeDataString((string)key["colour"]!)}&unit={Uri.EscapeDataString((string)key["unit"]!)}";
        var history = (await server.Http.GetFromJsonAsync<JsonArray>(path))!;
        Assert.Equal("1 gal counted, 3 less than known", (string)history[0]!["what"]!);
        Assert.Contains("spilled", (string)history[0]!["detail"]!, StringComparison.Ordinal);
        // A receipt that has been used since does not go back.
        var came = history.First(h => ((string)h!["what"]!).StartsWith("5 gal came", StringComparison.Ordinal))!;
        var (status, refused) = await server.Post(
            $"/api/stock/moves/{(Guid)came["id"]!}/take-back",
            new JsonObject { ["id"] = Guid.CreateVersion7() }
        );
        Assert.Equal(422, status);
        Assert.Contains("rests on it", (string)refused["title"]!, StringComparison.Ordinal);

        foreach (var (move, field) in new[] { ("used", "move"), ("reserved", "move") })
        {
            (status, refused) = await server.Post("/api/stock/moves", Move(move, paint, "1", today));
            Assert.Equal((422, field), (status, (string)refused["field"]!));
        }
        (status, refused) = await server.Post(At(Gallery, "/moves"), Move("counted", paint, "1", today));
        Assert.Equal((422, "move"), (status, (string)refused["field"]!));
        var unknown = Move("received", paint, "1", today, paid: "5");
        unknown["goods"]!["material"] = Guid.CreateVersion7();
        (status, refused) = await server.Post("/api/stock/moves", unknown);
        Assert.Equal((422, "goods"), (status, (string)refused["field"]!));
    }

    [Fact]
    public async Task Goods_of_the_Book_that_nobody_planned_come_are_used_and_put_back()
    {
        var choices = (await server.Http.GetFromJsonAsync<JsonArray>("/api/stock/goods"))!;
        var view = await View();
        var known = view["goods"]!.AsArray().Select(g => (string)g!["goods"]!["material"]!).ToHashSet();
        var other = choices.First(c => !known.Contains((string)c!["goods"]!["material"]!))!;
        var today = view["today"]!;
        await Moved(Gallery, Move("received", other, "4", today, paid: "50"));
        await Moved(Gallery, Move("used", other, "3", today));
        var after = await Moved(Gallery, Move("putBack", other, "1", today));
        var row = Goods(after, (string)other["name"]!);
        Assert.Equal(
            ("", "2", "1", "0.00"),
            ((string)row["need"]!, Number(row["used"]), Number(row["reserved"]), (string)row["estimated"]!)
        );
        // Two that are used bear 25.00, one is kept at 12.50, and what came back is anybody's.
        Assert.Equal("37.50", (string)row["willCost"]!);
        static string Number(JsonNode? text) => ((string)text!).Split(' ')[0];
    }

    [Fact]
    public async Task An_order_is_a_PDF_a_table_and_a_mail_in_the_outbox()
    {
        var order = Order(await View(), Paint);
        var (id, number) = ((Guid)order["id"]!, (string)order["number"]!);
        var at = At(Gallery, $"/orders/{id}");
        var pdf = await server.Http.GetByteArrayAsync($"{at}/pdf");
        using (var paper = PdfDocument.Open(pdf))
        {
            var text = string.Join(" ", paper.GetPages().Select(p => p.Text));
            Assert.Contains(number, text, StringComparison.Ordinal);
            Assert.Contains("Ennis Paint Counter", text, StringComparison.Ordinal);
            Assert.Contains("LP-118", text, StringComparison.Ordinal);
            Assert.Contains("1 gal can", text, StringComparison.Ordinal);
            Assert.Contains("685.90", text, StringComparison.Ordinal);
        }
        Assert.Equal(pdf, await server.Http.GetByteArrayAsync($"{at}/pdf"));
        var table = CsvText.Read(await server.Http.GetByteArrayAsync($"{at}/csv"));
        Assert.Equal(5, table.Rows.Count);
        Assert.Equal(685.90m - 15, table.Rows.Sum(r => decimal.Parse(r[9], CultureInfo.InvariantCulture)));

        var draft = (await server.Http.GetFromJsonAsync<JsonObject>($"{at}/message"))!;
        Assert.Equal("orders@paintcounter.example", (string)draft["to"]!);
        JsonObject Mail(string to) =>
            new()
            {
                ["id"] = Guid.CreateVersion7(),
                ["message"] = new JsonObject
                {
                    ["to"] = new JsonArray(new JsonObject { ["address"] = to, ["copy"] = false }),
                    ["subject"] = draft["subject"]!.DeepClone(),
                    ["words"] = draft["words"]!.DeepClone(),
                    ["way"] = "mail",
                },
            };
        var (status, refused) = await server.Post($"{at}/mails", Mail("nobody"));
        Assert.Equal((422, "to"), (status, (string)refused["field"]!));
        var mail = Mail((string)draft["to"]!);
        (status, var view) = await server.Post($"{at}/mails", mail);
        Assert.True(status == 200, view.ToJsonString());
        // The same again is one mail.
        Assert.Equal(200, (await server.Post($"{at}/mails", mail.DeepClone())).Status);
        Assert.Contains(
            "mail to orders@paintcounter.example",
            (string)Order(view, Paint)["happened"]!.AsArray().Last()!["words"]!,
            StringComparison.Ordinal
        );
        var sent = Assert.Single((await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!)!;
        Assert.Equal((number, "buying"), ((string)sent["brings"]!, (string)sent["view"]!));
        using var file = new MemoryStream(await server.Http.GetByteArrayAsync($"/api/outbox/{(Guid)sent["id"]!}/file"));
        var message = await MimeMessage.LoadAsync(file);
        var attached = Assert.Single(message.Attachments.OfType<MimePart>());
        using var content = new MemoryStream();
        await attached.Content!.DecodeToAsync(content);
        Assert.Equal(pdf, content.ToArray());
    }

    [Fact]
    public async Task Thirty_orders_at_once_leave_no_gap_and_no_number_twice()
    {
        var goods = Goods(await View(), "Loop, moss");
        var answers = await Task.WhenAll(Enumerable.Range(0, 30).Select(_ => Place(Wanted(goods, "1", "4"), "4.00")));
        Assert.All(answers, a => Assert.Equal(200, a.Status));
        // One that is refused uses none.
        Assert.Equal(422, (await Place(Wanted(goods, "1", "4"), "5.00")).Status);
        var (_, last) = await Place(Wanted(goods, "1", "4"), "4.00");
        var numbers = last["orders"]!.AsArray().Select(o => (string)o!["number"]!).ToList();
        Assert.Equal(33, numbers.Count);
        // Each year begins at 1; the demo's own orders were placed days ago.
        foreach (var year in numbers.GroupBy(n => n[..7]))
            Assert.Equal(
                Enumerable.Range(1, year.Count()).Select(n => $"{year.Key}-{n:D3}"),
                year.Order(StringComparer.Ordinal)
            );
    }

    [Fact]
    public async Task An_acceptance_on_which_an_order_rests_cannot_be_annulled()
    {
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
        Assert.Contains("An order to a supplier rests on", (string)refused["title"]!, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Orders_have_a_series_of_their_own_that_no_invoice_could_meet()
    {
        var terms = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/orders"))!;
        async Task<(int, string)> Set(string numbers)
        {
            var now = (JsonObject)terms.DeepClone();
            now["numbers"] = numbers;
            using var response = await server.Http.PutAsJsonAsync(
                "/api/company/orders",
                new JsonObject { ["was"] = terms.DeepClone(), ["now"] = now }
            );
            return ((int)response.StatusCode, await response.Content.ReadAsStringAsync());
        }
        var (status, body) = await Set("{year}-{number}");
        Assert.Equal(422, status);
        Assert.Contains("number of an invoice", body, StringComparison.Ordinal);
        var move = new JsonObject
        {
            ["id"] = Guid.CreateVersion7(),
            ["next"] = 9,
            ["reason"] = "the old order book ends at 8",
            ["orders"] = true,
        };
        Assert.Equal(200, (await server.Post("/api/company/numbers/move", move)).Status);
        var invoices = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/numbers"))!;
        var orders = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/numbers?orders=true"))!;
        Assert.Equal((1, 9), ((int)invoices["nextNumber"]!, (int)orders["nextNumber"]!));
        Assert.EndsWith("-008", (string)orders["gaps"]![0]!["skipped"]!, StringComparison.Ordinal);
        Assert.Empty(invoices["gaps"]!.AsArray());
        // Not twice the same supplier, and an address is one.
        var twice = (JsonObject)terms.DeepClone();
        twice["suppliers"]!.AsArray().Add(terms["suppliers"]![0]!.DeepClone());
        using var response = await server.Http.PutAsJsonAsync(
            "/api/company/orders",
            new JsonObject { ["was"] = terms, ["now"] = twice }
        );
        Assert.Equal(HttpStatusCode.UnprocessableEntity, response.StatusCode);
    }

    [Fact]
    public async Task Nothing_is_bought_before_the_yes_and_the_stock_goes_out_as_a_table()
    {
        Assert.Null(await server.Http.GetFromJsonAsync<JsonObject>(At(Pottery)));
        var today = (await View())["today"]!;
        var paint = Goods(await View(), "Harbour eggshell");
        var (status, refused) = await server.Post(At(Pottery, "/moves"), Move("used", paint, "1", today, "why"));
        Assert.Equal((422, "job"), (status, (string)refused["field"]!));
        var stands = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver/stands"))!;
        Assert.EndsWith("2 of 2 orders placed", (string)stands["words"]!, StringComparison.Ordinal);
        var table = CsvText.Read(await server.Http.GetByteArrayAsync("/api/stock/stock.csv"));
        Assert.Equal((await Stock())["rows"]!.AsArray().Count, table.Rows.Count);
        Assert.Equal(
            Money((await Stock())["value"]),
            // What is rounded for reading is never added: the table has more places.
            Math.Round(table.Rows.Sum(r => decimal.Parse(r[7], CultureInfo.InvariantCulture)), 2)
        );
    }
}
