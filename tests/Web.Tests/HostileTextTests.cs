using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Core.Jobs;
using Emendum.Storage;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Control characters, holes in lists, slashes in fields' names: through the real server, at every way in.</summary>
public sealed class HostileTextTests : IDisposable
{
    /// <summary>Vertical tab, nul, escapeand a code that is no character.</summary>
    private const string Bad = "A\u000bB\u0000C\u001bD\uffffEF";

    private readonly TemporaryFolder folder = new();
    private Server server;

    public HostileTextTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    /// <summary>JSON text: half characters cannot go through an encoder, only as escapes.</summary>
    private static string Escaped(string json) =>
        string.Concat(
            json.Select(c => c is < ' ' or '\uffff' || char.IsSurrogate(c) ? $"\\u{(int)c:x4}" : c.ToString())
        );

    private async Task<(int Status, string Body)> Send(HttpMethod method, string path, string json)
    {
        var response = await server.Http.SendAsync(
            new HttpRequestMessage(method, path)
            {
                Content = new StringContent(Escaped(json), Encoding.UTF8, "application/json"),
            }
        );
        return ((int)response.StatusCode, await response.Content.ReadAsStringAsync());
    }

    private Task<(int Status, string Body)> Do(string type, string fields) =>
        Send(
            HttpMethod.Post,
            $"/api/jobs/{Server.Library}/commands",
            $$"""{ "id": "{{Guid.CreateVersion7()}}", "base": 0, "client": "{{Server.Client}}", "command": { "type": "{{type}}", {{fields}} } }"""
        );

    private async Task EverythingGoesOut()
    {
        foreach (
            var path in new[]
            {
                $"/api/jobs/{Server.Library}/places.xlsx",
                $"/api/jobs/{Server.Library}/places.csv",
                $"/api/jobs/{Server.Library}/workings.xlsx",
                $"/api/jobs/{Server.Library}/cost-sheet.xlsx",
                $"/api/jobs/{Server.Library}/cost-sheet.pdf",
                $"/api/jobs/{Server.Library}/proposal.pdf",
                $"/api/jobs/{Server.Library}/file",
                "/api/book/book.xlsx",
                "/api/book/book.csv",
                "/api/book/book.json",
            }
        )
            Assert.Equal((path, 200), (path, (int)(await server.Http.GetAsync(path)).StatusCode));
    }

    [Fact]
    public async Task What_no_document_can_hold_is_taken_out_at_every_way_in()
    {
        var job = await server.Job();
        var company = await server.Http.GetStringAsync("/api/company");
        var (place, work) = (job["places"]![0]!["id"]!, job["work"]![0]!["id"]!);
        foreach (
            var (status, body) in new[]
            {
                await Do(
                    "addPlace",
                    $$""" "place": "{{Guid.CreateVersion7()}}", "line": "{{Bad}} 10 x 10 x 8", "group": "G{{Bad}}", "after": null """
                ),
                await Do(
                    "setPlaces",
                    $$""" "field": "notes", "at": [{ "place": "{{place}}", "was": "", "now": "N{{Bad}}" }] """
                ),
                await Do(
                    "setWork",
                    $$""" "work": "{{work}}", "field": "name", "was": "{{job["work"]![0]!["name"]}}", "now": "W{{Bad}}" """
                ),
                await Do(
                    "setInfo",
                    $$""" "field": "subtitle", "was": "{{job["info"]!["subtitle"]}}", "now": "S{{Bad}}" """
                ),
                await Send(
                    HttpMethod.Put,
                    "/api/company",
                    $$"""{ "was": {{company}}, "now": { "name": "F{{Bad}}", "address": "{{Bad}}", "currency": "USD", "units": "feet", "deduct": "net", "zone": "Etc/UTC" } }"""
                ),
                await Send(
                    HttpMethod.Put,
                    $"/api/customers/{Guid.CreateVersion7()}",
                    $$"""{ "was": null, "now": { "id": "{{Guid.CreateVersion7()}}", "name": "C{{Bad}}", "address": "", "email": "", "phone": "" } }"""
                ),
                await Send(
                    HttpMethod.Post,
                    "/api/book",
                    $$"""{ "id": "{{Guid.CreateVersion7()}}", "kind": "text", "name": "B{{Bad}}" }"""
                ),
            }
        )
            Assert.Equal((200, ""), (status, status == 200 ? "" : body));
        var file = await server.File();
        foreach (var name in new[] { "ABCDEF", "GABCDEF", "NABCDEF", "WABCDEF", "SABCDEF" })
            Assert.Contains($"\"{name}\"", file);
        Assert.Contains("FABCDEF", await server.Http.GetStringAsync("/api/company"));
        Assert.Contains("CABCDEF", await server.Http.GetStringAsync("/api/customers"));
        Assert.Contains("BABCDEF", await server.Http.GetStringAsync("/api/book"));
        await EverythingGoesOut();
        // And it is undone like any other edit.
        for (var i = 0; i < 4; i++)
            Assert.Equal(200, (await server.Reverse("undo")).Status);
        Assert.DoesNotContain("ABCDEF", await server.File());
    }

    [Fact]
    public async Task What_an_older_version_let_in_is_read_without_it_and_goes_out()
    {
        var clean = await server.File();
        server.Dispose();
        using (var connection = Database.Open(folder.Path).Connect())
        {
            var content = connection.Rows(
                "SELECT content FROM job_snapshot WHERE job_id = $id",
                r => Encoding.UTF8.GetString((byte[])r[0]),
                ("$id", Server.Library)
            )[0];
            var hurt = content.Replace(
                "\"name\":\"Reading",
                "\"name\":\"\\u000bRead\\u0000ing",
                StringComparison.Ordinal
            );
            Assert.NotEqual(content, hurt);
            connection.Run(
                "UPDATE job_snapshot SET content = $content WHERE job_id = $id",
                ("$content", Encoding.UTF8.GetBytes(hurt)),
                ("$id", Server.Library)
            );
        }
        server = Server.Start(folder.Path);
        Assert.Equal(clean, await server.File());
        await EverythingGoesOut();
    }

    [Fact]
    public async Task A_slash_in_a_fields_name_gets_round_no_guard()
    {
        var job = await server.Job();
        var (place, work) = (job["places"]![0]!["id"]!, job["work"]![0]!["id"]!);
        var before = await server.File();
        var (now, at) = (
            """ "was": null, "now": "x" """,
            $$""" "at": [{ "place": "{{place}}", "was": null, "now": "x" }] """
        );
        foreach (
            var (type, field, rest) in new[]
            {
                ("setWork", "entry/x", $"\"work\": \"{work}\", {now}"),
                ("setWork", "rank/x", $"\"work\": \"{work}\", {now}"),
                ("setWork", "id/x", $"\"work\": \"{work}\", {now}"),
                ("setInfo", "name/x", now),
                ("setPricing", "overhead/x", now),
                ("setProposal", "title/x", now),
                ("setCells", "state/x", $"\"work\": \"{work}\", {at}"),
                ("setCells", "note/x", $"\"work\": \"{work}\", {at}"),
                ("setCells", "", $"\"work\": \"{work}\", {at}"),
                ("setPlaces", "notes/x", at),
            }
        )
        {
            var (status, body) = await Do(type, $"\"field\": \"{field}\", {rest}");
            Assert.Equal((422, field, body), (status, field, body));
            Assert.Contains("title", body);
        }
        Assert.Equal(before, await server.File());
    }

    [Fact]
    public async Task What_cannot_be_is_the_senders_fault_and_said_in_a_sentence()
    {
        var job = await server.Job();
        var (place, never) = (job["places"]![0]!["id"]!, Guid.CreateVersion7());
        var company = await server.Http.GetStringAsync("/api/company");
        var copies = string.Join(
            ", ",
            Enumerable.Range(0, 2).Select(_ => $$"""{ "from": "{{place}}", "to": "{{Guid.CreateVersion7()}}" }""")
        );
        var cases = new (int Status, string Says, Task<(int, string)> Sent)[]
        {
            (
                400,
                "cannot be read",
                Send(HttpMethod.Post, $"/api/jobs/{Server.Library}/commands", $$"""{ "id": "{{never}}" }""")
            ),
            (400, "cannot be read", Send(HttpMethod.Post, $"/api/jobs/{Server.Library}/commands", "null")),
            (400, "cannot be read", Send(HttpMethod.Post, $"/api/jobs/{Server.Library}/commands", "[]")),
            (400, "hole in the list", Do("addSchedule", """ "rows": [null] """)),
            (400, "hole in the list", Do("clonePlaces", """ "places": [null], "groupWas": null, "group": null """)),
            (
                400,
                "hole in the list",
                Do(
                    "pasteCells",
                    $$""" "work": ["{{never}}"], "places": ["{{never}}"], "was": ".", "texts": [null], "quantities": true """
                )
            ),
            (422, "stands twice", Do("clonePlaces", $$""" "places": [{{copies}}], "groupWas": null, "group": null """)),
            (422, "not a currency", Do("setInfo", $$""" "field": "currency", "was": "USD", "now": "QQQ" """)),
            (422, "not a currency", Do("setInfo", $$""" "field": "currency", "was": "USD", "now": "usd" """)),
            (
                422,
                "not a currency",
                Send(
                    HttpMethod.Put,
                    "/api/company",
                    $$"""{ "was": {{company}}, "now": { "name": "F", "address": "", "currency": "ABC", "units": "feet", "deduct": "net", "zone": "Etc/UTC" } }"""
                )
            ),
            (404, "not", Get($"/api/book/{never}")),
            (
                404,
                "not",
                Send(HttpMethod.Post, $"/api/book/{never}/copy", $$"""{ "id": "{{Guid.CreateVersion7()}}" }""")
            ),
            (404, "not", Send(HttpMethod.Post, $"/api/book/{never}/restore", """{ "version": 1 }""")),
            (404, "not", Send(HttpMethod.Delete, $"/api/book/{never}", "")),
        };
        foreach (var (status, says, sent) in cases)
        {
            var (got, body) = await sent;
            Assert.Equal((status, body), (got, body));
            Assert.Contains(says, body);
            Assert.DoesNotContain("   at ", body);
        }
    }

    private async Task<(int, string)> Get(string path)
    {
        var response = await server.Http.GetAsync(path);
        return ((int)response.StatusCode, await response.Content.ReadAsStringAsync());
    }
}
