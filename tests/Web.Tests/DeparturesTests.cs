using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Proposals;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Emendum.Web.Outside;
using Microsoft.Extensions.Logging.Abstractions;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>A revision that goes out later (L5): set by the server, and let go by the same program with a clock of the test's own.</summary>
public sealed class DeparturesTests : IDisposable
{
    private static readonly Guid Pottery = new("01930000-0000-7000-8000-000000000996");

    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public DeparturesTests() => server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private static string At(string rest = "") => $"/api/jobs/{Pottery}/revisions{rest}";

    /// <summary>Three days from today, by the firm's clock.</summary>
    private static DateOnly Then => DateOnly.FromDateTime(DateTime.Now).AddDays(3);

    private static string Written(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private async Task<(int Status, JsonObject Answer)> Set(string day, string time, bool byMail = true) =>
        await server.Post(
            At(),
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["fact"] = Guid.CreateVersion7(),
                ["base"] = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Pottery}"))![
                    "version"
                ]!.DeepClone(),
                ["how"] = byMail ? "" : "by hand",
                ["despite"] = "as it is",
                ["message"] = byMail
                    ? new JsonObject
                    {
                        ["to"] = new JsonArray(new JsonObject { ["address"] = "ida@marrow.example", ["copy"] = false }),
                        ["subject"] = "Your proposal, good until {valid until}",
                        ["words"] = "Good day.\n\nYour page: {link}",
                    }
                    : null,
                ["day"] = day,
                ["time"] = time,
            }
        );

    /// <summary>Stops the server, and lets go what is due at a moment; what the program's own list says then.</summary>
    private ProposalLife Goes(DateOnly day, TimeOnly time)
    {
        server.Kill();
        var (database, files) = (Database.Open(folder.Path), FileStore.Open(folder.Path));
        try
        {
            var clock = new Clock();
            var (firm, revisions) = (new FirmDay(clock, new CompanyStore(database)), new RevisionStore(database));
            clock.Now = firm.At(day, time);
            var outside = new OutsideAddress();
            outside.Set("https://pages.example");
            var departures = new Departures(
                revisions,
                new ScheduledStore(database),
                outside,
                firm,
                clock,
                NullLogger<Departures>.Instance
            );
            departures.Go();
            // What has gone goes once.
            departures.Go();
            return revisions.Life(Pottery);
        }
        finally
        {
            files.Close();
            database.Close();
        }
    }

    private sealed class Clock : TimeProvider
    {
        public DateTime Now { get; set; } = DateTime.UtcNow;

        public override DateTimeOffset GetUtcNow() => new(Now, TimeSpan.Zero);
    }

    [Fact]
    public async Task It_goes_at_its_time_as_it_was_frozen_and_dated_that_day()
    {
        var a = await server.SendRevision(Pottery);
        var (status, told) = await Set(Written(Then), "8:30");
        Assert.True(status == 200, told.ToJsonString());
        Assert.Equal(("B", "C"), ((string)told["scheduled"]!["letters"]!, (string)told["next"]!));
        Assert.EndsWith(", 8:30", (string)told["scheduled"]!["goes"]!, StringComparison.Ordinal);
        Assert.Equal("sent", (string)told["revisions"]![0]!["state"]!);
        Assert.Empty((await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!);
        // None beside it.
        (status, var refused) = await Set("", "");
        Assert.Equal(
            (422, "Revision B waits to go out. Let it go, or cancel it first."),
            (status, (string)refused["title"]!)
        );
        // A minute before, nothing; then all at once.
        var b = (Guid)told["scheduled"]!["id"]!;
        Assert.Single(Goes(Then, new(8, 29)).Revisions);
        var life = Goes(Then, new(8, 30));
        Assert.Equal([a, b], life.Revisions.Select(r => r.Id));
        Assert.Null(life.Waiting);
        Assert.Equal(RevisionState.Superseded, life.StateOf(a, Then));
        Assert.Equal(Then.AddDays(30), life.HoldsUntil(b));
        using var later = Server.StartWithOutside(folder.Path);
        var mail = Assert.Single((await later.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!)!;
        Assert.StartsWith("Your page: https://pages.example/p/", ((string)mail["words"]!).Split('\n')[^1]);
        Assert.Contains(
            Then.AddDays(30).ToString("d MMMM yyyy", CultureInfo.InvariantCulture),
            (string)mail["subject"]!,
            StringComparison.Ordinal
        );
        var document = await later.Http.GetStringAsync(At($"/{b}"));
        Assert.Contains(Then.ToString("d MMMM yyyy", CultureInfo.InvariantCulture), document, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Cancelled_it_gives_its_letter_back()
    {
        var (_, told) = await Set(Written(Then), "8:30");
        var cancel = new JsonObject { ["id"] = told["scheduled"]!["id"]!.DeepClone() };
        for (var twice = 0; twice < 2; twice++)
        {
            var (status, after) = await server.Post(At("/cancel"), (JsonObject)cancel.DeepClone());
            Assert.Equal((200, "A"), (status, (string)after["next"]!));
            Assert.Null(after["scheduled"]);
        }
        Assert.Empty(Goes(Then, new(9, 0)).Revisions);
    }

    [Fact]
    public async Task Where_the_earlier_was_accepted_meanwhile_it_is_dropped_and_the_firm_is_told()
    {
        var a = await server.SendRevision(Pottery);
        await Set(Written(Then), "8:30");
        var link = await server.LinkTo(Pottery, a, "Ida Marrow", true);
        var page = (await server.Outside.GetFromJsonAsync<JsonObject>(link + "/page"))!["now"]!;
        var (status, accepted) = await Server.Post(
            server.Outside,
            link + "/accept",
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["revision"] = "A",
                ["selection"] = 0,
                ["total"] = page["statement"]!["total"]!.DeepClone(),
                ["name"] = "Ida Marrow",
                ["drawn"] = "",
                ["declares"] = true,
            }
        );
        Assert.True(status == 200, accepted.ToJsonString());
        Assert.Single(Goes(Then, new(8, 30)).Revisions);
        using var later = Server.StartWithOutside(folder.Path);
        var told = (await later.Http.GetFromJsonAsync<JsonObject>(At()))!;
        Assert.StartsWith(
            "Revision B did not go out: Revision A was accepted on ",
            (string)told["dropped"]!,
            StringComparison.Ordinal
        );
        Assert.Empty((await later.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!);
    }

    [Fact]
    public async Task On_another_day_it_does_not_go()
    {
        await Set(Written(Then), "23:30");
        Assert.Empty(Goes(Then.AddDays(1), new(0, 1)).Revisions);
        using var later = Server.StartWithOutside(folder.Path);
        Assert.Contains(
            "was not running on the day",
            (string)(await later.Http.GetFromJsonAsync<JsonObject>(At()))!["dropped"]!,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [InlineData("tomorrow", "8:00", true, "day")]
    [InlineData("2099-01-01", "8:00", true, "day")]
    [InlineData("2020-01-01", "8:00", true, "time")]
    [InlineData("2020-01-01", "25:00", true, "time")]
    [InlineData("2020-01-01", "", true, "time")]
    [InlineData("", "8:00", true, "day")]
    [InlineData("2099-01-01", "8:00", false, "day")]
    public async Task What_is_no_moment_to_come_is_refused_beside_its_field(
        string day,
        string time,
        bool byMail,
        string field
    )
    {
        var (status, refused) = await Set(day, time, byMail);
        Assert.Equal((422, field), (status, (string)refused["field"]!));
    }
}
