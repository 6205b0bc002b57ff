using System.Net.Http.Headers;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Storage;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Whatever is sent is answered: by what was asked for, or by a sentence. Nothing is our fault, no connection breaks, and what is kept can be read again.</summary>
public sealed class FuzzTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    [Fact]
    [Trait(Scale.Category, Scale.Long)]
    public async Task Every_operation_and_every_command_answers_whatever_it_is_sent()
    {
        var (requests, taken) = (Scale.Of(4000, 40_000), 0);
        var (operations, kinds) = (
            new Dictionary<string, (int Sent, int Taken)>(),
            new Dictionary<string, (int Sent, int Taken)>()
        );
        using (var server = Server.StartWithOutside(folder.Path))
        {
            var fuzz = await Fuzz.Of(server.Http, server.Outside, 20261125, Server.Client);
            async Task Shoot(int n, bool whole = false)
            {
                if (n % 500 == 499)
                    await fuzz.Look();
                var shot = await fuzz.Next(n, whole);
                using var request = new HttpRequestMessage(shot.Method, shot.Path);
                if (shot.Body is not null)
                {
                    request.Content = new ByteArrayContent(shot.Body);
                    request.Content.Headers.ContentType = MediaTypeHeaderValue.Parse(shot.Type);
                }
                HttpResponseMessage response;
                try
                {
                    response = await server.Http.SendAsync(request);
                }
                catch (HttpRequestException broken)
                {
                    throw new InvalidOperationException($"Request {n} broke the connection: {shot}", broken);
                }
                using (response)
                {
                    var status = (int)response.StatusCode;
                    Assert.True(status < 500, $"Request {n} got {status}: {shot}");
                    if (status >= 400)
                        await Sentence(response, n, shot);
                    var ok = status < 400 ? 1 : 0;
                    taken += ok;
                    Count(operations, shot.Operation, ok);
                    if (shot.Kind.Length > 0)
                        Count(kinds, shot.Kind, ok);
                    if (ok == 1 && shot.Kind.Length > 0)
                        await fuzz.Changed(shot.Path);
                }
            }
            for (var n = 0; n < requests; n++)
                await Shoot(n);
            // A kind that was refused by chance each time is sent as it should be: what is not taken then cannot be.
            for (var more = 0; more < 100 && kinds.Values.Any(k => k.Taken == 0); more++)
            {
                // What it is about may have come or gone meanwhile.
                if (more % 20 == 0)
                    await fuzz.Look();
                foreach (var (at, kind) in fuzz.Kinds.Index())
                    if (kinds.GetValueOrDefault(kind).Taken == 0)
                        await Shoot(2 * (at + fuzz.Kinds.Count * (requests + more)), whole: true);
            }
            for (var more = 0; more < 40; more++)
                foreach (var (at, operation) in fuzz.Operations.Index())
                    if (operations.GetValueOrDefault($"{operation.Method} {operation.Path}").Taken == 0)
                        await Shoot(2 * (at + fuzz.Operations.Count * (requests + more)) + 1, whole: true);
            Assert.Equal(fuzz.Operations.Select(o => $"{o.Method} {o.Path}").Order(), operations.Keys.Order());
            Assert.Equal(fuzz.Kinds, kinds.Keys.Order(StringComparer.Ordinal));
        }
        // It has to be let in to be of use: a good part is taken, by most operations and most kinds of command.
        Assert.True(taken > requests / 5, $"{taken} of {requests} were taken.");
        Assert.True(
            operations.Values.Count(o => o.Taken > 0) >= operations.Count * 9 / 10,
            "Never taken: " + string.Join(", ", operations.Where(o => o.Value.Taken == 0).Select(o => o.Key))
        );
        Assert.True(
            kinds.Values.Count(k => k.Taken > 0) >= kinds.Count,
            "Never taken: " + string.Join(", ", kinds.Where(k => k.Value.Taken == 0).Select(k => k.Key))
        );
        // And what came of it is whole, from one end to the other.
        var made = Backup.Make(
            Database.OpenCopy(Path.Combine(folder.Path, Database.FileName)),
            null,
            folder.Path + ".copy",
            DateTime.UtcNow
        );
        File.Delete(folder.Path + ".copy");
        Assert.True(made.Edits > requests / 20, $"{made.Edits} edits were made.");
    }

    private static void Count(Dictionary<string, (int Sent, int Taken)> counts, string name, int taken)
    {
        var was = counts.GetValueOrDefault(name);
        counts[name] = (was.Sent + 1, was.Taken + taken);
    }

    private static async Task Sentence(HttpResponseMessage response, int n, Shot shot)
    {
        var text = await response.Content.ReadAsStringAsync();
        try
        {
            var title = (string?)JsonNode.Parse(text)?["title"];
            Assert.False(string.IsNullOrWhiteSpace(title), $"Request {n} was refused without a word: {shot}\n{text}");
            Assert.DoesNotContain("   at ", text);
            Assert.DoesNotContain("Exception", title);
        }
        catch (JsonException)
        {
            Assert.Fail($"Request {n} ({(int)response.StatusCode}) was refused with “{text}”: {shot}");
        }
    }
}
