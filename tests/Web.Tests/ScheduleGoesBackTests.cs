using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using DocumentFormat.OpenXml.Packaging;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>The customer's own schedule of quantities: brought in with its headings, priced, frozen with a revision, and given back as a workbook by mail and on the customer's page.</summary>
public sealed class ScheduleGoesBackTests : IDisposable
{
    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public ScheduleGoesBackTests() => server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private async Task Done(string type, JsonObject fields)
    {
        var (status, answer) = await server.Do(type, fields);
        Assert.True(status == 200, answer.ToJsonString());
    }

    /// <summary>The work item of the library with that name.</summary>
    private async Task<string> Work(string name) =>
        (string)(await server.Job())["work"]!.AsArray().First(w => (string)w!["name"]! == name)!["id"]!;

    private async Task<Guid> Row(string number, string wording, string unit, string quantity, string? work)
    {
        var id = Guid.CreateVersion7();
        await Done(
            "addSchedule",
            new JsonObject
            {
                ["rows"] = new JsonArray(
                    new JsonObject
                    {
                        ["id"] = id,
                        ["number"] = number,
                        ["wording"] = wording,
                        ["unit"] = unit,
                        ["quantity"] = quantity,
                    }
                ),
            }
        );
        if (work is not null)
            await Done(
                "setScheduleWork",
                new JsonObject
                {
                    ["item"] = id,
                    ["was"] = new JsonArray(),
                    ["now"] = new JsonArray(
                        new JsonObject
                        {
                            ["work"] = await Work(work),
                            ["group"] = "",
                            ["place"] = null,
                        }
                    ),
                }
            );
        return id;
    }

    private static string[] Texts(byte[] workbook)
    {
        using var document = SpreadsheetDocument.Open(new MemoryStream(workbook), false);
        return
        [
            .. document
                .WorkbookPart!.WorksheetParts.Single()
                .Worksheet!.Descendants<DocumentFormat.OpenXml.Spreadsheet.Cell>()
                .Select(c => c.InlineString?.InnerText ?? c.CellValue?.Text ?? ""),
        ];
    }

    [Fact]
    public async Task It_goes_back_with_its_numbers_by_mail_and_page_and_stays_as_it_was_sent()
    {
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await server.Http.GetAsync($"/api/jobs/{Server.Library}/schedule.xlsx")).StatusCode
        );
        var plain = await server.SendRevision(Server.Library);
        var none = await server.LinkTo(Server.Library, plain, "Ida Marrow", signs: true);
        await Row("3", "Floors", "", "0", null);
        await Row("3.1", "Carpet tile to reading rooms", "m²", "180", "Carpet tile");
        await Row("3.2", "Sheet flooring", "m²", "250.5", "Sheet flooring");
        await Done(
            "setProposal",
            new JsonObject
            {
                ["field"] = "detail",
                ["was"] = "place",
                ["now"] = "schedule",
            }
        );
        var view = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Server.Library}/schedule"))!;
        var rows = view["rows"]!.AsArray();
        Assert.Equal((0, true), ((int)view["unpriced"]!, (bool)rows[0]!["heading"]!));
        // 34,313.30 by 180 m², and that by their 180: worked in the picture of this job, 190.63 a unit.
        Assert.Equal("190.63", (string)rows[1]!["unitPrice"]!["shown"]!);
        Assert.Equal("34,313.40", (string)rows[1]!["amount"]!["shown"]!);
        var revision = await server.SendRevision(
            Server.Library,
            new JsonObject
            {
                ["to"] = new JsonArray(new JsonObject { ["address"] = "ida@marrow.example", ["copy"] = false }),
                ["subject"] = "Your schedule",
                ["words"] = "Good day.",
            }
        );
        var sent = await server.Http.GetByteArrayAsync(
            $"/api/jobs/{Server.Library}/revisions/{revision}/schedule.xlsx"
        );
        Assert.Empty(
            new[] { "3", "Floors", "3.1", "Carpet tile to reading rooms", "m²", "180", "190.63" }.Except(Texts(sent))
        );
        // What becomes of the job moves nothing of it.
        await Done("removeSchedule", []);
        Assert.Equal(
            sent,
            await server.Http.GetByteArrayAsync($"/api/jobs/{Server.Library}/revisions/{revision}/schedule.xlsx")
        );
        var outbox = (await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!;
        var mail = await MimeKit.MimeMessage.LoadAsync(
            await server.Http.GetStreamAsync($"/api/outbox/{(Guid)outbox[0]!["id"]!}/file")
        );
        var part = mail.Attachments.Cast<MimeKit.MimePart>().Last();
        Assert.StartsWith("Schedule, ", part.FileName, StringComparison.Ordinal);
        using var content = new MemoryStream();
        await part.Content!.DecodeToAsync(content);
        Assert.Equal(sent, content.ToArray());
        var link = await server.LinkTo(Server.Library, revision, "Ida Marrow", signs: true);
        using var given = await server.Outside.GetAsync(link + "/schedule.xlsx");
        Assert.Equal("attachment", given.Content.Headers.ContentDisposition!.DispositionType);
        Assert.Equal(sent, await given.Content.ReadAsByteArrayAsync());
        var page = JsonNode.Parse(await server.Outside.GetStringAsync(link + "/page"))!;
        Assert.True((bool)page["hasSchedule"]!);
        Assert.Contains("3.1", page.ToJsonString());
        // A revision without one gives none, to the firm and to the customer alike.
        Assert.Equal(HttpStatusCode.NotFound, (await server.Outside.GetAsync(none + "/schedule.xlsx")).StatusCode);
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await server.Http.GetAsync($"/api/jobs/{Server.Library}/revisions/{plain}/schedule.xlsx")).StatusCode
        );
        Assert.DoesNotContain("supplier", Encoding.UTF8.GetString(sent), StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public async Task Headings_of_a_table_come_in_as_headings()
    {
        var (status, read) = await server.Post(
            $"/api/jobs/{Server.Library}/schedule/read-table",
            new JsonObject
            {
                ["columns"] = new JsonArray("No", "Text", "Unit", "Qty"),
                ["rows"] = new JsonArray(
                    new JsonArray("1", "Preparation", "", ""),
                    new JsonArray("1.1", "Sand down", "m2", "12.5"),
                    new JsonArray("", "", "", ""),
                    new JsonArray("1.2", "Fill", "", "3")
                ),
                ["mapping"] = new JsonObject
                {
                    ["number"] = 0,
                    ["wording"] = 1,
                    ["unit"] = 2,
                    ["quantity"] = 3,
                },
            }
        );
        Assert.Equal(200, status);
        Assert.Equal(
            ["1|Preparation||0|", "1.1|Sand down|m2|12.5|", "1.2|Fill||3|The unit is missing."],
            read["rows"]!
                .AsArray()
                .Select(r => $"{r!["number"]}|{r["wording"]}|{r["unit"]}|{r["quantity"]}|{r["wrong"]}")
        );
    }
}
