using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Whatever is sent to the door outside is answered, and by a link nothing is reached but its own revision. 2,000 requests here, 20,000 in ./run-long.</summary>
public sealed class OutsideFuzzTests : IDisposable
{
    private static readonly Guid Pottery = new("01930000-0000-7000-8000-000000000996"),
        Clinic = new("01930000-0000-7000-8000-000000000997");

    private static readonly string[] Whats =
    [
        "",
        "/page",
        "/pdf",
        "/signed",
        "/snags/01930000-0000-7000-8000-000000000001/mended",
        "/schedule.xlsx",
        "/visits",
        "/mark",
        "/seen",
        "/questions",
        "/accept",
        "/decline",
        "/choose",
        "/options?find=a&choice=01930000-0000-7000-8000-000000000001",
        "/picture?choice=x&option=y",
        "/shown/0000000000000000000000000000000000000000000000000000000000000000",
        "/attached/..%2f..%2fapi",
        "/../page",
        "/page/..%2f..%2fapi",
        "/%00",
        "/hours",
        "/done",
        "/nothing",
    ];

    private static readonly string[] Hostile =
    [
        "",
        " ",
        "\u0000",
        "<script>alert(1)</script>",
        "'; DROP TABLE link; --",
        "\u202eabc",
        "{total}",
        "../../etc/passwd",
        new('x', 40_000),
    ];

    private readonly TemporaryFolder folder = new();
    private readonly Random random = new(20261130);
    private readonly List<Guid> alternates = [];

    public void Dispose() => folder.Dispose();

    private T One<T>(IList<T> of) => of[random.Next(of.Count)];

    /// <summary>Sends the next revision of a job; a link to it for one who signs, one for a copy.</summary>
    private static async Task<(string Signs, string Copy)> Sent(Server server, Guid job)
    {
        var id = await server.SendRevision(job);
        return (await server.LinkTo(job, id, "Ida", true), await server.LinkTo(job, id, "Ida", false));
    }

    private byte[] Body(string what, JsonObject? page)
    {
        JsonNode body =
            what == "/accept"
                ? new JsonObject
                {
                    ["id"] = Guid.CreateVersion7(),
                    ["revision"] = random.Next(2) == 0 ? (string?)page?["now"]?["revision"] : One(Hostile),
                    ["selection"] = random.Next(-1, 2),
                    ["total"] = random.Next(2) == 0 ? (string?)page?["now"]?["statement"]?["total"] : One(Hostile),
                    ["name"] = One<string>(["Ida", .. Hostile]),
                    ["drawn"] = One<string>(["1,2 3,4", .. Hostile]),
                    ["declares"] = random.Next(2) == 0,
                }
            : what == "/choose"
                ? new JsonObject
                {
                    ["id"] = Guid.CreateVersion7(),
                    ["version"] = random.Next(-1, 3),
                    ["choice"] = random.Next(2) == 0 ? null : One(Hostile),
                    ["of"] = random.Next(2) == 0 ? One(alternates) : Guid.CreateVersion7(),
                    ["taken"] = random.Next(2) == 0,
                }
            : new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["words"] = One<string>(["When do you begin?", .. Hostile]),
            };
        var bytes = Encoding.UTF8.GetBytes(body.ToJsonString());
        if (random.Next(100) < 40)
            for (var i = random.Next(1, 5); i > 0; i--)
                bytes[random.Next(bytes.Length)] = (byte)random.Next(256);
        return random.Next(100) < 5 ? bytes[..random.Next(bytes.Length)] : bytes;
    }

    [Fact]
    [Trait(Scale.Category, Scale.Long)]
    public async Task Every_answer_is_a_sentence_or_the_link_s_own_revision()
    {
        using var server = Server.StartWithOutside(folder.Path, "--public-rate", "1000000");
        var (first, second, other) = (
            await Sent(server, Pottery),
            await Sent(server, Pottery),
            await Sent(server, Clinic)
        );
        var own = new Dictionary<string, (string Letters, string Title)>
        {
            [first.Signs] = ("A", "Marrow Street Pottery"),
            [first.Copy] = ("A", "Marrow Street Pottery"),
            [second.Signs] = ("B", "Marrow Street Pottery"),
            [second.Copy] = ("B", "Marrow Street Pottery"),
            [other.Signs] = ("B", "Quayside Veterinary Clinic"),
            [other.Copy] = ("B", "Quayside Veterinary Clinic"),
        };
        foreach (var sent in new[] { first.Signs, second.Signs, other.Signs })
        {
            var offered = await server.Outside.GetFromJsonAsync<JsonObject>(sent + "/page");
            foreach (var alternate in offered!["now"]!["offer"]!["alternates"]!.AsArray())
                alternates.Add((Guid)alternate!["id"]!);
        }
        string[] links = [.. own.Keys];
        var (pages, taken) = (0, 0);
        var page = await server.Outside.GetFromJsonAsync<JsonObject>(second.Signs + "/page");
        for (var n = 0; n < Scale.Of(2000, 20_000); n++)
        {
            var (link, what) = (One(links), One(Whats));
            var known = random.Next(100) < 80;
            var path = known
                ? link + what
                : One<string>(
                    [
                        "/x",
                        "/p/",
                        "/calendar/x",
                        "/api/jobs",
                        "/p/" + Uri.EscapeDataString(One(Hostile)),
                        link[..^1],
                        link + "x",
                    ]
                ) + what;
            var writes = what is "/seen" or "/questions" or "/accept" or "/decline" or "/choose";
            using var request = new HttpRequestMessage(
                writes && random.Next(100) < 80
                    ? HttpMethod.Post
                    : One<HttpMethod>([HttpMethod.Get, HttpMethod.Get, HttpMethod.Delete]),
                path.Length > 8000 ? path[..8000] : path
            );
            if (request.Method == HttpMethod.Post)
            {
                request.Content = new ByteArrayContent(Body(what, page));
                request.Content.Headers.TryAddWithoutValidation(
                    "Content-Type",
                    One<string>(["application/json", "text/html"])
                );
            }
            using var response = await server.Outside.SendAsync(request);
            var (status, text) = ((int)response.StatusCode, await response.Content.ReadAsStringAsync());
            Assert.True(status < 500, $"{n}: {request.Method} {path[..Math.Min(200, path.Length)]} got {status}");
            Assert.DoesNotContain("   at ", text);
            if (response.Content.Headers.ContentType?.MediaType != "application/json" || status != 200)
                continue;
            // A page: of the link's own revision, whatever was asked.
            Assert.True(known, path);
            var shown = JsonNode.Parse(text)!;
            if (shown is JsonObject)
            {
                Assert.Equal(own[link].Letters, (string)(shown["now"] ?? shown)["revision"]!);
                Assert.Equal(own[link].Title, (string)(shown["now"] ?? shown)["statement"]!["title"]!);
                Assert.Equal(own[link].Title, (string?)shown["document"]?["head"]!["title"] ?? own[link].Title);
            }
            pages++;
            taken += request.Method == HttpMethod.Post ? 1 : 0;
        }
        // Questions and choices have a bound each, and most is spoiled: some have to come through.
        Assert.True(pages > 30 && taken > 5, $"{pages} pages, {taken} taken");
    }
}
