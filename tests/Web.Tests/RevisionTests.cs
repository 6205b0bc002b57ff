using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json.Nodes;
using Emendum.Storage;
using Microsoft.Data.Sqlite;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>What was sent stays as it was, whatever the job becomes; what happened to it is appended and never changed.</summary>
public sealed class RevisionTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    private static string At(string rest = "") => $"/api/jobs/{Server.Library}/revisions{rest}";

    private static async Task<(int Status, JsonObject Answer)> Send(
        Server server,
        Guid id,
        Guid fact,
        long? at = null,
        string despite = ""
    ) =>
        await server.Post(
            At(),
            new JsonObject
            {
                ["id"] = id,
                ["fact"] = fact,
                ["base"] = at ?? (long)(await server.Job())["version"]!,
                ["how"] = "by hand",
                ["despite"] = despite,
                ["day"] = "",
                ["time"] = "",
                ["message"] = null,
            }
        );

    private static Task<(int Status, JsonObject Answer)> Record(
        Server server,
        Guid revision,
        string kind,
        string words = "because",
        string day = "",
        Guid? id = null
    ) =>
        server.Post(
            At($"/{revision}/facts"),
            new JsonObject
            {
                ["id"] = id ?? Guid.CreateVersion7(),
                ["kind"] = kind,
                ["words"] = words,
                ["day"] = day,
                ["asSent"] = true,
                ["photo"] = "",
            }
        );

    private static async Task Term(Server server, string field, string was, string now) =>
        Assert.Equal(
            200,
            (
                await server.Do(
                    "setPricing",
                    new JsonObject
                    {
                        ["field"] = field,
                        ["was"] = was,
                        ["now"] = now,
                    }
                )
            ).Status
        );

    private static void Run(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        command.ExecuteNonQuery();
    }

    private static string State(JsonObject answer, int at = 0) => (string)answer["revisions"]![at]!["stateWords"]!;

    [Fact]
    public async Task A_revision_keeps_its_bytes_whatever_the_job_becomes_and_after_a_restart()
    {
        var (id, fact) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        byte[] pdf;
        string document;
        using (var server = Server.Start(folder.Path))
        {
            var (status, answer) = await Send(server, id, fact);
            Assert.Equal(200, status);
            Assert.Equal(("sent", "B"), (State(answer), (string)answer["next"]!));
            var stands = (await server.Http.GetFromJsonAsync<JsonObject>(At("/stands")))!;
            Assert.Equal(("Rev A sent", true), ((string)stands["words"]!, (bool)stands["wasSent"]!));
            Assert.False((bool)answer["differs"]!);
            pdf = await server.Http.GetByteArrayAsync(At($"/{id}/pdf"));
            document = await server.Http.GetStringAsync(At($"/{id}"));
            Assert.Contains("Proposal 2041, revision A", document);
            // The same once more is answered, and sends nothing.
            (status, answer) = await Send(server, id, fact);
            Assert.Equal(200, status);
            Assert.Single(answer["revisions"]!.AsArray());
            // What differs is told, and sums; what was sent does not move.
            await Term(server, "overhead", "14", "15");
            answer = (await server.Http.GetFromJsonAsync<JsonObject>(At()))!;
            Assert.True((bool)answer["differs"]!);
            var compared = (await server.Http.GetFromJsonAsync<JsonObject>(At($"/compared?from={id}")))!;
            Assert.Equal(("A", "B"), ((string)compared["earlier"]!, (string)compared["later"]!));
            Assert.EndsWith("more", (string)compared["by"]!, StringComparison.Ordinal);
            Assert.Equal("repriced", (string)Assert.Single(compared["groups"]!.AsArray())!["kind"]!);
        }
        using (var server = Server.Start(folder.Path))
        {
            Assert.Equal(pdf, await server.Http.GetByteArrayAsync(At($"/{id}/pdf")));
            Assert.Equal(document, await server.Http.GetStringAsync(At($"/{id}")));
            var answer = (await server.Http.GetFromJsonAsync<JsonObject>(At()))!;
            Assert.Equal("sent", State(answer));
        }
        // Kept by its hash, and among the files that a backup takes.
        var files = FileStore.Open(folder.Path);
        Assert.Contains(files.Named(), f => f.Hash == Convert.ToHexStringLower(SHA256.HashData(pdf)));
        files.Close();
        using var connection = Database.Open(folder.Path).Connect();
        foreach (
            var sql in new[]
            {
                "UPDATE proposal_fact SET words = 'x'",
                "DELETE FROM proposal_fact",
                "UPDATE revision SET number = 7",
            }
        )
            Assert.Contains("does not change", Assert.Throws<SqliteException>(() => Run(connection, sql)).Message);
    }

    [Fact]
    public async Task What_its_sender_has_not_seen_is_not_sent_and_nothing_goes_out_with_a_hole_unexplained()
    {
        using var server = Server.Start(folder.Path);
        var (status, answer) = await Send(server, Guid.CreateVersion7(), Guid.CreateVersion7(), at: -1);
        Assert.Equal((422, "base"), (status, (string)answer["field"]!));
        await Term(server, "floorMargin", "40", "90");
        (status, answer) = await Send(server, Guid.CreateVersion7(), Guid.CreateVersion7());
        Assert.Equal((422, "despite"), (status, (string)answer["field"]!));
        Assert.Empty((await server.Http.GetFromJsonAsync<JsonObject>(At()))!["revisions"]!.AsArray());
        (status, answer) = await Send(
            server,
            Guid.CreateVersion7(),
            Guid.CreateVersion7(),
            despite: "they are our oldest customer"
        );
        Assert.Equal(200, status);
        Assert.Contains(
            "unfinished: they are our oldest customer",
            (string)answer["revisions"]![0]!["history"]![0]!["words"]!
        );
    }

    [Fact]
    public async Task Facts_are_recorded_once_refused_with_their_reason_and_lead_to_the_states_of_the_table()
    {
        using var server = Server.Start(folder.Path);
        var (a, b) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        await Send(server, a, Guid.CreateVersion7());
        var hold = Guid.CreateVersion7();
        Assert.Equal("on hold", State((await Record(server, a, "putOnHold", id: hold)).Answer));
        Assert.Equal(
            2,
            (await Record(server, a, "putOnHold", id: hold)).Answer["revisions"]![0]!["history"]!.AsArray().Count
        );
        Assert.Equal("sent", State((await Record(server, a, "takenOffHold")).Answer));
        var (status, answer) = await Record(server, a, "takenOffHold");
        Assert.Equal((422, "Revision A is sent."), (status, (string)answer["title"]!));
        (status, answer) = await Record(server, a, "withdrawn", "");
        Assert.Equal((422, "words"), (status, (string)answer["field"]!));
        // What the customer does is not for the firm to say.
        (status, _) = await Record(server, a, "accepted");
        Assert.Equal(422, status);
        await Send(server, b, Guid.CreateVersion7());
        answer = (await server.Http.GetFromJsonAsync<JsonObject>(At()))!;
        Assert.Equal(("sent", "superseded"), (State(answer), State(answer, 1)));
        (_, answer) = await Record(server, b, "yesRecorded", "signed letter", "2020-02-02");
        Assert.Equal(("accepted", "superseded"), (State(answer), State(answer, 1)));
        Assert.Contains("change order", (string)answer["closed"]!);
        (status, answer) = await Send(server, Guid.CreateVersion7(), Guid.CreateVersion7());
        Assert.Equal(422, status);
        Assert.Contains("was accepted", (string)answer["title"]!);
        Assert.Equal("sent", State((await Record(server, b, "annulled", "it was for another job")).Answer));
    }

    [Fact]
    public async Task Of_several_sent_at_once_one_is_A_and_the_others_are_told()
    {
        using var server = Server.Start(folder.Path);
        var version = (long)(await server.Job())["version"]!;
        var sent = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => Send(server, Guid.CreateVersion7(), Guid.CreateVersion7(), at: version))
        );
        var taken = sent.Count(s => s.Status == 200);
        var answer = (await server.Http.GetFromJsonAsync<JsonObject>(At()))!;
        Assert.Equal(taken, answer["revisions"]!.AsArray().Count);
        Assert.InRange(taken, 1, 6);
        Assert.All(
            sent.Where(s => s.Status != 200),
            s => Assert.Contains("was sent meanwhile", (string)s.Answer["title"]!)
        );
        // Two that record a yes and a no at once: one of them stands.
        var first = (Guid)answer["revisions"]![0]!["id"]!;
        var both = await Task.WhenAll(
            Record(server, first, "yesRecorded", "by telephone", "2020-02-02"),
            Record(server, first, "withdrawn", "a mistake in it")
        );
        answer = (await server.Http.GetFromJsonAsync<JsonObject>(At()))!;
        Assert.Contains(State(answer), new[] { "accepted", "superseded" });
        if (State(answer) == "accepted" && both[1].Status != 200)
            Assert.Contains("was accepted", (string)both[1].Answer["title"]!);
    }
}
