using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Documents;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Bank files: read as ISO 20022 and banks' CSV have them, and taken in by the real server (delivery.md, M26).</summary>
public sealed class BankTests : IDisposable
{
    private static readonly Guid Gallery = new("01930000-0000-7000-8000-000000000994");
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    private static BankStatement Read(string text) => BankFile.Read(Encoding.UTF8.GetBytes(text));

    /// <summary>An entry as camt.053 has it; names of elements from memory of ISO 20022.</summary>
    private static string Entry(
        string amount,
        string words,
        string sign = "CRDT",
        string status = "<Sts>BOOK</Sts>",
        string debtor = "<Dbtr><Nm>Hollin Botanic Trust</Nm></Dbtr>",
        string reference = "R1"
    ) =>
        $"""
            <Ntry>
              <Amt Ccy="USD">{amount}</Amt><CdtDbtInd>{sign}</CdtDbtInd>{status}
              <BookgDt><Dt>2026-12-01</Dt></BookgDt><ValDt><Dt>2026-12-02</Dt></ValDt>
              <AcctSvcrRef>{reference}</AcctSvcrRef>
              <NtryDtls><TxDtls>
                <Refs><EndToEndId>NOTPROVIDED</EndToEndId></Refs>
                <RltdPties>{debtor}<DbtrAcct><Id><IBAN>IE29 AIBK 9311 5212 3456 78</IBAN></Id></DbtrAcct></RltdPties>
                <RmtInf><Ustrd>{words}</Ustrd></RmtInf>
              </TxDtls></NtryDtls>
            </Ntry>
            """;

    private static string Camt(string entries, string version = "001.02") =>
        $"""
            <?xml version="1.0" encoding="UTF-8"?>
            <Document xmlns="urn:iso:std:iso:20022:tech:xsd:camt.053.{version}">
              <BkToCstmrStmt><GrpHdr><MsgId>M</MsgId></GrpHdr>
                <Stmt><Id>S</Id><Acct><Id><IBAN>IE64IRCE92050112345678</IBAN></Id></Acct>{entries}</Stmt>
              </BkToCstmrStmt>
            </Document>
            """;

    [Fact]
    public void A_statement_is_read_in_any_version_and_what_is_no_money_that_came_is_left_aside()
    {
        var read = Read(
            Camt(
                Entry("1250.00", "Invoice 2026-0001")
                    + Entry("80.00", "rent", sign: "DBIT")
                    + Entry("9.00", "x", status: "<Sts>PDNG</Sts>")
            )
        );
        var came = Assert.Single(read.Entries);
        Assert.Equal(
            (
                1250m,
                "USD",
                new DateOnly(2026, 12, 1),
                "Hollin Botanic Trust",
                "IE29AIBK93115212345678",
                "Invoice 2026-0001"
            ),
            (came.Amount, came.Currency, came.Day, came.Payer, came.Account, came.Words)
        );
        Assert.Equal(["1 entry of money that went out", "1 entry not booked, or taken back"], read.LeftAside.ToArray());
        // Later versions have a code for the status and a party in the debtor.
        var later = Read(
            Camt(
                Entry(
                    "1250.00",
                    "Invoice 2026-0001",
                    status: "<Sts><Cd>BOOK</Cd></Sts>",
                    debtor: "<Dbtr><Pty><Nm>Hollin Botanic Trust</Nm></Pty></Dbtr>"
                ),
                "001.08"
            )
        );
        Assert.Equal(came, Assert.Single(later.Entries));
    }

    [Fact]
    public void Payments_that_were_booked_as_one_are_told_apart_and_each_entry_is_itself_in_any_file()
    {
        const string batch = """
            <Ntry><Amt Ccy="USD">300.00</Amt><CdtDbtInd>CRDT</CdtDbtInd><Sts>BOOK</Sts><BookgDt><Dt>2026-12-01</Dt></BookgDt><AcctSvcrRef>B1</AcctSvcrRef>
              <NtryDtls>
                <TxDtls><Amt Ccy="USD">100.00</Amt><RmtInf><Ustrd>2026-0001</Ustrd></RmtInf></TxDtls>
                <TxDtls><Amt Ccy="USD">200.00</Amt><RmtInf><Strd><CdtrRefInf><Ref>2026-0002</Ref></CdtrRefInf></Strd></RmtInf></TxDtls>
              </NtryDtls></Ntry>
            """;
        Assert.Equal(
            [(100m, "2026-0001"), (200m, "2026-0002")],
            Read(Camt(batch)).Entries.Select(e => (e.Amount, e.Words))
        );
        // Two alike in all are two; the same file again has the same ids, and so has a longer one.
        var one = Entry("50.00", "thanks");
        var twice = Read(Camt(one + one)).Entries;
        Assert.Equal(2, twice.Select(e => e.Id).Distinct().Count());
        Assert.Equal(
            twice.Select(e => e.Id),
            Read(Camt(one + one + Entry("7.00", "more", reference: "R2"))).Entries.Take(2).Select(e => e.Id)
        );
    }

    [Theory]
    [InlineData("Date,Description,Amount\n2026-12-01,Invoice 2026-0001,\"1,250.00\"\n2026-12-02,rent,-80.00\n")]
    [InlineData("Buchungstag;Verwendungszweck;Betrag\n01.12.2026;Invoice 2026-0001;1.250,00\n02.12.2026;rent;-80,00\n")]
    [InlineData("Date,Details,Money in,Money out\n13/11/2026,old,,5.00\n01/12/2026,Invoice 2026-0001,1250.00,\n")]
    [InlineData("Posting date,Memo,Credit,Debit\n11/13/2026,old,,5.00\n12/01/2026,Invoice 2026-0001,1250.00,\n")]
    public void Csv_is_read_as_banks_write_it(string text)
    {
        var read = Read(text);
        var came = Assert.Single(read.Entries);
        Assert.Equal((1250m, new DateOnly(2026, 12, 1), "Invoice 2026-0001"), (came.Amount, came.Day, came.Words));
        Assert.Equal(["1 entry of money that went out"], read.LeftAside.ToArray());
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("Name,Town\nIda,Ennis\n", "names the columns")]
    [InlineData("Date,Amount\n03/04/2026,5.00\n04/03/2026,5.00\n", "two ways")]
    [InlineData("Date,Amount\n03/03/2026,5.00\n04/04/2026,5.00\n", "")]
    [InlineData("Date,Amount\n03/04/2026,5.00\n03/05/2026,5.00\n", "two ways")]
    [InlineData("<Document><BkToCstmrStmt>", "damaged")]
    [InlineData("<html><body/></html>", "no statement")]
    [InlineData("<!DOCTYPE d [<!ENTITY a \"aaaa\">]><Document>&a;</Document>", "cannot be read")]
    public void What_is_no_bank_file_is_refused_in_words(string text, string says)
    {
        if (says.Length == 0)
        {
            // Both ways are the same days.
            Assert.Equal(2, Read(text).Entries.Length);
            return;
        }
        Assert.Contains(
            says,
            Assert.Throws<RefusedException>(() => Read(text)).Refusal.Message,
            StringComparison.Ordinal
        );
    }

    /// <summary>Of a day that no test can be too late for.</summary>
    private static string Fresh(string text) =>
        text.Replace("2026-12-01", $"{DateTime.UtcNow.AddDays(-1):yyyy-MM-dd}", StringComparison.Ordinal);

    private static async Task<JsonObject> ReadFile(Server server, string text)
    {
        using var content = new ByteArrayContent(Encoding.UTF8.GetBytes(Fresh(text)));
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var answer = await server.Http.PostAsync("/api/bank/read", content);
        Assert.Equal(200, (int)answer.StatusCode);
        return (await answer.Content.ReadFromJsonAsync<JsonObject>())!;
    }

    private static JsonObject Taken(JsonObject file) =>
        new()
        {
            ["entries"] = new JsonArray(
                [
                    .. ((JsonArray)file["entries"]!).Select(e => new JsonObject
                    {
                        ["line"] = e!["line"]!.DeepClone(),
                        ["customer"] = e["customer"]?.DeepClone(),
                        ["parts"] = e["parts"]!.DeepClone(),
                    }),
                ]
            ),
        };

    private static async Task<string> Issue(Server server, string amount)
    {
        var path = $"/api/jobs/{Gallery}/deliver/invoices";
        JsonObject Wanted() =>
            new()
            {
                ["by"] = "amount",
                ["step"] = null,
                ["value"] = amount,
            };
        var (_, draft) = await server.Post(path + "/draft", Wanted());
        var (status, answer) = await server.Post(
            path,
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["wanted"] = Wanted(),
                ["total"] = draft["total"]!.DeepClone(),
                ["supplied"] = "",
                ["reason"] = "",
            }
        );
        Assert.True(status == 200, answer.ToJsonString());
        return (string)answer["invoices"]![0]!["number"]!;
    }

    [Fact]
    public async Task A_file_pays_what_it_names_once_and_what_is_too_much_waits_for_a_person()
    {
        using var server = Server.Start(folder.Path);
        var (first, second) = (await Issue(server, "100"), await Issue(server, "200"));
        var owed = (JsonArray)(await server.Http.GetFromJsonAsync<JsonObject>("/api/bank"))!["owed"]!;
        Assert.Equal(2, owed.Count);
        string Open(string number) =>
            (string)owed.Single(o => ((string)o!["words"]!).StartsWith(number, StringComparison.Ordinal))!["open"]!;
        var open = decimal.Parse(Open(first), null);
        var text = Camt(Entry($"{open + 50:0.00}", $"our {first}"));
        var file = await ReadFile(server, text);
        var entry = file["entries"]![0]!;
        Assert.Equal(("number", "50.00"), ((string)entry["by"]!, (string)entry["credit"]!));
        // Nothing is kept by reading.
        Assert.Empty((JsonArray)(await server.Http.GetFromJsonAsync<JsonObject>("/api/bank"))!["latest"]!);
        var (status, view) = await server.Post("/api/bank/take", Taken(file));
        Assert.True(status == 200, view.ToJsonString());
        Assert.Equal("50.00", (string)view["credits"]![0]!["credit"]!);
        Assert.Single((JsonArray)view["owed"]!);
        // The same file again: it says so, and taking it in changes nothing.
        var again = await ReadFile(server, text);
        Assert.NotEqual("", (string)again["entries"]![0]!["before"]!);
        var (_, same) = await server.Post("/api/bank/take", Taken(file));
        Assert.Equal(view["credits"]!.ToJsonString(), same["credits"]!.ToJsonString());
        var invoices = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver/invoices"))!;
        var paid = ((JsonArray)invoices["invoices"]!).Single(i => (string)i!["number"]! == first)!;
        Assert.Equal("bank, Hollin Botanic Trust", (string)Assert.Single((JsonArray)paid["payments"]!)!["how"]!);
        // The credit is used by a person, and no more than is left of it.
        var (id, row) = ((string)view["credits"]![0]!["id"]!, view["owed"]![0]!);
        JsonObject Use(string amount, Guid of) =>
            new()
            {
                ["id"] = of,
                ["part"] = new JsonObject
                {
                    ["job"] = row["job"]!.DeepClone(),
                    ["invoice"] = row["invoice"]!.DeepClone(),
                    ["amount"] = amount,
                    ["discount"] = "",
                },
            };
        var (more, refused) = await server.Post($"/api/bank/{id}/use", Use("50.01", Guid.CreateVersion7()));
        Assert.Equal((422, "amount"), (more, (string?)refused["field"]));
        var use = Use("50", Guid.CreateVersion7());
        var (used, after) = await server.Post($"/api/bank/{id}/use", use);
        Assert.True(used == 200, after.ToJsonString());
        var (_, twice) = await server.Post($"/api/bank/{id}/use", use);
        Assert.Empty((JsonArray)twice["credits"]!);
        Assert.Equal(decimal.Parse(Open(second), null) - 50, decimal.Parse((string)twice["owed"]![0]!["open"]!, null));
    }

    [Fact]
    public async Task Of_money_that_names_nothing_a_person_says_where_it_goes_and_its_account_is_known_then()
    {
        using var server = Server.Start(folder.Path);
        var number = await Issue(server, "100");
        await Issue(server, "200");
        var file = await ReadFile(server, Camt(Entry("30.00", "thanks", debtor: "<Dbtr><Nm>M. Odd</Nm></Dbtr>")));
        Assert.Equal("nothing", (string)file["entries"]![0]!["by"]!);
        // Another currency is said, and more than came goes nowhere.
        var foreign = await ReadFile(
            server,
            Camt(Entry("30.00", number).Replace("USD", "EUR", StringComparison.Ordinal))
        );
        Assert.Contains("EUR", (string)foreign["entries"]![0]!["stops"]!, StringComparison.Ordinal);
        var (stopped, why) = await server.Post("/api/bank/take", Taken(foreign));
        Assert.Equal((422, "entries"), (stopped, (string?)why["field"]));
        var owed = file["owed"]![0]!;
        var taken = Taken(file);
        taken["entries"]![0]!["parts"] = new JsonArray(
            new JsonObject
            {
                ["job"] = owed["job"]!.DeepClone(),
                ["invoice"] = owed["invoice"]!.DeepClone(),
                ["amount"] = "31",
                ["discount"] = "",
            }
        );
        var (over, field) = await server.Post("/api/bank/take", taken);
        Assert.Equal((422, "amount"), (over, (string?)field["field"]));
        taken["entries"]![0]!["parts"]![0]!["amount"] = "";
        var (status, view) = await server.Post("/api/bank/take", taken);
        Assert.True(status == 200, view.ToJsonString());
        Assert.Empty((JsonArray)view["credits"]!);
        Assert.Equal(
            decimal.Parse((string)owed["open"]!, null) - 30,
            decimal.Parse(
                (string)
                    ((JsonArray)view["owed"]!).Single(o => (string)o!["invoice"]! == (string)owed["invoice"]!)![
                        "open"
                    ]!,
                null
            )
        );
        // Its customer is that of the invoice: the next from that account goes to what that customer owes.
        var next = await ReadFile(server, Camt(Entry("31.00", "again", debtor: "", reference: "R9")));
        Assert.Equal("payer", (string)next["entries"]![0]!["by"]!);
    }
}
