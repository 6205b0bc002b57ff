using System.IO.Compression;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Core;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Work;
using Emendum.Documents.Tables;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Tables in and out through the real server, and files that are traps.</summary>
public sealed class TableTests : IDisposable
{
    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public TableTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private async Task<(int Status, JsonObject Body)> Upload(byte[] content, string purpose = "places")
    {
        var response = await server.Http.PostAsync(
            $"/api/tables/{purpose}",
            new ByteArrayContent(content) { Headers = { ContentType = new("application/octet-stream") } }
        );
        return ((int)response.StatusCode, (await response.Content.ReadFromJsonAsync<JsonObject>())!);
    }

    private async Task<Guid> EmptyJob(string units)
    {
        var id = Guid.CreateVersion7();
        var (status, _) = await server.Post(
            "/api/jobs",
            new JsonObject
            {
                ["id"] = id.ToString(),
                ["name"] = "Copy",
                ["subtitle"] = "",
                ["customer"] = null,
                ["units"] = units,
            }
        );
        Assert.Equal(200, status);
        return id;
    }

    private async Task<JsonObject> Mapped(JsonObject table, Guid job, string what = "places")
    {
        var (status, body) = await server.Post(
            $"/api/jobs/{job}/{what}/read-table",
            new JsonObject
            {
                ["columns"] = table["columns"]!.DeepClone(),
                ["rows"] = table["rows"]!.DeepClone(),
                ["mapping"] = table["mapping"]!.DeepClone(),
            }
        );
        Assert.Equal(200, status);
        return body;
    }

    [Theory]
    [InlineData("csv", "feet")]
    [InlineData("xlsx", "feet")]
    [InlineData("xlsx", "metres")]
    public async Task The_demo_jobs_places_go_out_and_come_in_without_loss(string ending, string units)
    {
        var content = await server.Http.GetByteArrayAsync($"/api/jobs/{Server.Library}/places.{ending}");
        var (_, table) = await Upload(content);
        var job = await EmptyJob(units);
        var rows = await Mapped(table, job);
        Assert.Equal(0, (int)rows["bad"]!);
        var places = rows["rows"]!
            .AsArray()
            .Select(r => new JsonObject
            {
                ["place"] = Guid.CreateVersion7().ToString(),
                ["line"] = (string)r!["line"]!,
                ["group"] = (string)r["group"]!,
                ["finish"] = (string)r["finish"]!,
                ["notes"] = (string)r["notes"]!,
                ["typed"] = r["typed"]!.DeepClone(),
                ["work"] = new JsonArray(),
            });
        Assert.Equal(
            200,
            (
                await server.Do(
                    "addPlaces",
                    new() { ["places"] = new JsonArray([.. places]), ["work"] = new JsonArray() },
                    job: job
                )
            ).Status
        );
        var (original, copy) = (
            JsonNode.Parse(await server.File())!["places"]!.AsArray(),
            JsonNode.Parse(await server.File(job))!["places"]!.AsArray()
        );
        Assert.Equal(original.Select(Bare), copy.Select(Bare));
        // One undo takes the whole table back.
        Assert.Equal(200, (await server.Reverse("undo", job)).Status);
        Assert.Empty(JsonNode.Parse(await server.File(job))!["places"]!.AsArray());
    }

    /// <summary>A place without what a table cannot keep: its id, its rank, and how its lengths were typed.</summary>
    private static string Bare(JsonNode? place)
    {
        var bare = place!.DeepClone().AsObject();
        foreach (var gone in new[] { "id", "rank", "line" })
            bare.Remove(gone);
        void Strip(JsonNode? part)
        {
            if (part is JsonObject thing && thing.ContainsKey("unit"))
                thing.Remove("typed");
            if (part is JsonObject all)
                foreach (var (_, value) in all.ToList())
                    Strip(value);
            if (part is JsonArray list)
                foreach (var value in list)
                    Strip(value);
        }
        Strip(bare);
        return bare.ToJsonString();
    }

    [Fact]
    public async Task Columns_are_guessed_and_a_mapping_is_remembered_and_rows_say_what_is_wrong()
    {
        var text =
            "Where;Room;L;W;H;Stuff\nEast;Ward 1;12'6;10;9;d3x7\nEast;Ward 2;12;10;;\n;;;;;\nEast;Ward 3;12;ten;9;\n"u8.ToArray();
        var (_, table) = await Upload(text);
        Assert.Equal(
            (1, -1, false),
            ((int)table["mapping"]!["name"]!, (int)table["mapping"]!["group"]!, (bool)table["remembered"]!)
        );
        table["mapping"]!["group"] = 0;
        table["mapping"]!["openings"] = 5;
        var rows = await Mapped(table, Server.Library);
        Assert.Equal((1, 2), ((int)rows["good"]!, (int)rows["bad"]!));
        Assert.Equal("a room 12'6\" by 10', 9' high, with 1 door 3' × 7'", (string)rows["rows"]![0]!["words"]!);
        Assert.Equal(2, (int)rows["rows"]![1]!["row"]!);
        Assert.Equal("Ward 2: The height is missing.", (string)rows["rows"]![1]!["wrong"]!);
        Assert.Contains("“t” cannot be read as a width", (string)rows["rows"]![2]!["wrong"]!);
        var again = (await Upload(text)).Body;
        Assert.Equal((0, true), ((int)again["mapping"]!["group"]!, (bool)again["remembered"]!));
    }

    [Fact]
    public async Task A_schedule_comes_in_with_its_headings_and_with_its_thousands()
    {
        var (_, table) = await Upload(
            "Item,Description,Unit,Qty\nA,Walls,,\nA.1,Paint walls,m2,\"1,330.5\"\nA.2,Skirting,m,much\n"u8.ToArray(),
            "schedule"
        );
        var rows = await Mapped(table, Server.Library, "schedule");
        Assert.Equal((2, 1), ((int)rows["good"]!, (int)rows["bad"]!));
        Assert.Equal(("Walls", ""), ((string)rows["rows"]![0]!["wording"]!, (string)rows["rows"]![0]!["unit"]!));
        Assert.Equal("1330.5", (string)rows["rows"]![1]!["quantity"]!);
        Assert.Contains("“much” is not a quantity", (string)rows["rows"]![2]!["wrong"]!);
    }

    private static byte[] Zip(params (string Name, byte[] Content)[] entries)
    {
        using var memory = new MemoryStream();
        using (var archive = new ZipArchive(memory, ZipArchiveMode.Create))
            foreach (var (name, content) in entries)
                using (var entry = archive.CreateEntry(name).Open())
                    entry.Write(content);
        return memory.ToArray();
    }

    [Fact]
    public async Task Files_that_are_no_tables_or_traps_are_refused_with_a_sentence()
    {
        async Task Refused(byte[] content, string says, int status = 422)
        {
            var (got, body) = await Upload(content);
            Assert.Equal(status, got);
            Assert.Contains(says, (string)body["title"]!);
            Assert.DoesNotContain("   at ", body.ToJsonString());
        }
        await Refused([], "empty");
        await Refused(
            [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 0, 0, 0, 13],
            "neither a workbook nor a text file"
        );
        await Refused([0xD0, 0xCF, 0x11, 0xE0, 1, 2, 3], "old or locked kind");
        await Refused(Zip(("../../evil.txt", "x"u8.ToArray())), "not a workbook");
        await Refused("PK\u0003\u0004 not really"u8.ToArray(), "damaged");
        await Refused(
            Zip(("[Content_Types].xml", "<Types/>"u8.ToArray()), ("xl/workbook.xml", "<nonsense"u8.ToArray())),
            "damaged or not of a kind"
        );
        // Fifty megabytes of one letter pack into fifty kilobytes.
        await Refused(
            Zip(
                ("[Content_Types].xml", "<Types/>"u8.ToArray()),
                ("xl/workbook.xml", "<a/>"u8.ToArray()),
                ("xl/worksheets/sheet1.xml", [.. Enumerable.Repeat((byte)'a', 50_000_000)])
            ),
            "far more than its size"
        );
        await Refused(
            Zip(
                [
                    ("[Content_Types].xml", []),
                    ("xl/workbook.xml", []),
                    .. Enumerable.Range(0, 2_100).Select(i => ($"x/{i}", Array.Empty<byte>())),
                ]
            ),
            "too many parts"
        );
        await Refused(
            Encoding.UTF8.GetBytes("a,b\n" + string.Concat(Enumerable.Repeat("1,2\n", 20_001))),
            "at most 20,000 rows"
        );
        await Refused(Encoding.UTF8.GetBytes("a\n" + new string('x', 33_000)), "over 32,000 characters");
        await Refused(new byte[11_000_000], "at most 10 MB", 413);
    }

    [Fact]
    public void Formulas_are_never_written_unescaped_nor_run()
    {
        string[] nasty = ["=1+1", "+cmd", "-2", "@SUM(A1)", "\tx", "'=1", "''=1", "plain", "'plain", "a=b", ""];
        var rows = nasty
            .Select(n => (IReadOnlyList<PlaceTable.Cell>)[PlaceTable.Cell.Of(n), PlaceTable.Cell.Of(-1.5m)])
            .ToList();
        var text = Encoding.UTF8.GetString(CsvText.Write(["a", "b"], rows));
        Assert.DoesNotContain(text.Split("\r\n").Skip(1), line => line.Length > 0 && "=+@".Contains(line[0]));
        foreach (var content in new[] { CsvText.Write(["a", "b"], rows), Workbook.Write("Sheet", ["a", "b"], rows) })
        {
            var table = TableFile.Read(content, 0);
            Assert.Equal(nasty, table.Rows.Select(r => r[0]));
            Assert.All(table.Rows, r => Assert.Equal("-1.5", r[1]));
        }
        using var archive = new ZipArchive(new MemoryStream(Workbook.Write("Sheet", ["a", "b"], rows)));
        using var sheet = new StreamReader(
            archive
                .Entries.Single(e =>
                    e.FullName.Contains("sheet", StringComparison.OrdinalIgnoreCase)
                    && e.FullName.EndsWith(".xml", StringComparison.Ordinal)
                    && e.FullName.Contains("worksheets", StringComparison.Ordinal)
                )
                .Open()
        );
        Assert.DoesNotContain(":f>", sheet.ReadToEnd());
    }

    [Fact]
    public void A_formula_in_a_workbook_gives_what_it_last_showed()
    {
        const string main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main",
            rel = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
        byte[] Xml(string text) => Encoding.UTF8.GetBytes("<?xml version=\"1.0\" encoding=\"UTF-8\"?>" + text);
        var book = Zip(
            (
                "[Content_Types].xml",
                Xml(
                    "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\"><Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/><Override PartName=\"/xl/workbook.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml\"/><Override PartName=\"/xl/worksheets/sheet1.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml\"/></Types>"
                )
            ),
            (
                "_rels/.rels",
                Xml(
                    $"<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship Id=\"r1\" Type=\"{rel}/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>"
                )
            ),
            (
                "xl/workbook.xml",
                Xml(
                    $"<workbook xmlns=\"{main}\" xmlns:r=\"{rel}\"><sheets><sheet name=\"Rooms\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>"
                )
            ),
            (
                "xl/_rels/workbook.xml.rels",
                Xml(
                    $"<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship Id=\"r1\" Type=\"{rel}/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>"
                )
            ),
            (
                "xl/worksheets/sheet1.xml",
                Xml(
                    $"<worksheet xmlns=\"{main}\"><sheetData><row r=\"1\"><c r=\"A1\" t=\"str\"><v>Name</v></c><c r=\"C1\" t=\"inlineStr\"><is><t>Length</t></is></c></row><row r=\"2\"><c r=\"A2\" t=\"str\"><f>CONCAT(\"Ward \",1)</f><v>Ward 1</v></c><c r=\"C2\"><f>6+8.1</f><v>14.100000000000001</v></c></row></sheetData></worksheet>"
                )
            )
        );
        var table = TableFile.Read(book, 0);
        Assert.Equal(["Name", "", "Length"], table.Columns);
        Assert.Equal(["Ward 1", "", "14.1"], table.Rows[0]);
        Assert.Equal("Rooms", table.Sheets[0]);
        Assert.Contains("not in this workbook", Assert.Throws<RefusedException>(() => TableFile.Read(book, 3)).Message);
    }

    [Fact]
    public async Task The_firm_changes_its_settings_and_what_cannot_be_is_refused()
    {
        async Task<(int, JsonObject)> Put(string path, JsonNode body)
        {
            var was = (await server.Http.GetFromJsonAsync<JsonNode>(path))!;
            var response = await server.Http.PutAsJsonAsync(path, new JsonObject { ["was"] = was, ["now"] = body });
            return ((int)response.StatusCode, (await response.Content.ReadFromJsonAsync<JsonObject>())!);
        }
        var company = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company"))!;
        company["deduct"] = "over 2 m2; 1 m2; 1 m";
        company["units"] = "metres";
        Assert.Equal(200, (await Put("/api/company", company.DeepClone())).Item1);
        var job = await EmptyJob("metres");
        Assert.Equal("over 2 m2; 1 m2; 1 m", (string)(await server.Job(job))["deduct"]!);
        company["deduct"] = "over two; 1 m2; 1 m";
        var (status, refused) = await Put("/api/company", company.DeepClone());
        Assert.Equal((422, "deduct"), (status, (string)refused["field"]!));
        Assert.Contains(
            "write its units",
            (string)
                (
                    await Put("/api/company/usual-sizes", new JsonObject { ["sizes"] = new JsonArray("door 3 x 7") })
                ).Item2["title"]!
        );
        Assert.Equal(
            200,
            (await Put("/api/company/usual-sizes", new JsonObject { ["sizes"] = new JsonArray("door 3' x 7'") })).Item1
        );
        var places = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/usual-places"))!;
        Assert.Equal(
            [
                "House",
                "Office",
                "School",
                "Clinic",
                "Shop",
                "Floors of a house",
                "Shopfront",
                "Outside of a house",
                "Lot and its walks",
                "Cleaning round",
                "Grounds",
            ],
            places["lists"]!.AsArray().Select(l => (string)l!["name"]!)
        );
        places["lists"]![0]!["places"]![0]!["work"]!.AsArray().Add(Guid.CreateVersion7().ToString());
        Assert.Contains("not in the Book", (string)(await Put("/api/company/usual-places", places)).Item2["title"]!);
    }

    [Fact]
    public async Task Another_deduction_rule_is_tried_without_being_applied()
    {
        var before = await server.File();
        var tried = (
            await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Server.Library}/deduction?rule=gross")
        )!;
        var net = tried["totals"]!.AsArray().Single(t => (string)t!["label"]! == "Walls, net")!;
        Assert.StartsWith("+", (string)net["moved"]!);
        Assert.Equal(
            (string)tried["totals"]!.AsArray().Single(t => (string)t!["label"]! == "Walls, gross")!["now"]!,
            (string)net["then"]!
        );
        Assert.Equal(before, await server.File());
        Assert.Equal(
            422,
            (int)(await server.Http.GetAsync($"/api/jobs/{Server.Library}/deduction?rule=half")).StatusCode
        );
    }
}
