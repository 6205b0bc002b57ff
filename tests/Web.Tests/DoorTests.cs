using System.Text;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Who may ask, and what a browser may do with the answer.</summary>
public sealed class DoorTests : IDisposable
{
    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public DoorTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private async Task<HttpResponseMessage> Send(string path, bool edit, params (string Name, string Value)[] headers)
    {
        var request = new HttpRequestMessage(edit ? HttpMethod.Put : HttpMethod.Get, path);
        var company = await server.Http.GetStringAsync("/api/company");
        if (edit)
            request.Content = new StringContent(
                $$"""{ "was": {{company}}, "now": {{company}} }""",
                Encoding.UTF8,
                "application/json"
            );
        foreach (var (name, value) in headers)
            request.Headers.TryAddWithoutValidation(name, value);
        return await server.Http.SendAsync(request);
    }

    private string Here => server.Http.BaseAddress!.GetLeftPart(UriPartial.Authority);

    [Fact]
    public async Task Only_this_program_s_own_pages_may_ask()
    {
        var port = server.Http.BaseAddress!.Port;
        (string Name, string Value) Site(string value) => ("Sec-Fetch-Site", value);
        var (page, frame, script) = (
            new[] { ("Sec-Fetch-Mode", "navigate"), ("Sec-Fetch-Dest", "document") },
            new[] { ("Sec-Fetch-Mode", "navigate"), ("Sec-Fetch-Dest", "iframe") },
            new[] { ("Sec-Fetch-Mode", "no-cors"), ("Sec-Fetch-Dest", "empty") }
        );
        var cases = new (int Status, string Path, bool Edit, (string, string)[] Headers)[]
        {
            (200, "/api/company", false, []),
            (200, "/api/company", true, []),
            (200, "/api/company", true, [("Origin", Here), Site("same-origin")]),
            (200, "/api/company", false, [Site("same-origin")]),
            (200, "/api/company", false, [Site("none"), .. page]),
            // Another name, another port, another scheme, none that can be told.
            (403, "/api/company", true, [("Origin", "http://elsewhere.example")]),
            (403, "/api/company", true, [("Origin", $"http://127.0.0.1:{port + 1}")]),
            (403, "/api/company", true, [("Origin", $"https://127.0.0.1:{port}")]),
            (403, "/api/company", true, [("Origin", "null")]),
            (403, "/api/company", false, [("Host", "elsewhere.example")]),
            // Without an Origin: what the browser says of where it comes from.
            (403, "/api/company", true, [Site("cross-site")]),
            (403, "/api/company", false, [Site("cross-site"), .. script]),
            (403, "/api/company", false, [Site("same-site"), .. script]),
            (403, "/api/company", false, [Site("cross-site"), .. page]),
            // A link from elsewhere opens a page (there is none in this server: not found), and no frame.
            (404, "/jobs", false, [Site("cross-site"), .. page]),
            (403, "/jobs", false, [Site("cross-site"), .. frame]),
            (403, "/jobs", false, [Site("cross-site"), .. script]),
        };
        foreach (var (status, path, edit, headers) in cases)
        {
            var said = $"{(edit ? "PUT" : "GET")} {path} {string.Join(", ", headers)}";
            Assert.Equal((status, said), ((int)(await Send(path, edit, headers)).StatusCode, said));
        }
    }

    [Fact]
    public async Task Every_answer_says_what_a_browser_may_do_with_it()
    {
        foreach (
            var path in new[] { "/api/company", "/api/nothing", "/jobs", $"/api/jobs/{Server.Library}/proposal.pdf" }
        )
        {
            var response = await Send(path, false);
            string Header(string name) => response.Headers.TryGetValues(name, out var values) ? values.Single() : "";
            Assert.Equal(
                "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' blob: data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
                Header("Content-Security-Policy")
            );
            Assert.Equal("nosniff", Header("X-Content-Type-Options"));
            Assert.Equal("no-referrer", Header("Referrer-Policy"));
            Assert.Equal("no-store", Header("Cache-Control"));
            Assert.Equal("", Header("Server"));
        }
        Assert.Equal(403, (int)(await Send("/api/company", false, ("Host", "x.example"))).StatusCode);
    }
}
