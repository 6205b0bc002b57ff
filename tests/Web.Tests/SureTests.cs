using System.Net;
using System.Net.Http.Headers;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>How sure a job is, and what a second estimator says of it, as it is asked for over HTTP.</summary>
public sealed class SureTests(RunningServer running) : IClassFixture<RunningServer>
{
    private readonly Server server = running.Server;

    private async Task<(HttpStatusCode Status, JsonObject Body)> Get(string path)
    {
        using var answer = await server.Http.GetAsync($"/api/jobs/{Server.Library}/{path}");
        return (answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsObject());
    }

    [Fact]
    public async Task The_same_question_has_the_same_answer_and_its_figures_their_workings()
    {
        var (_, sure) = await Get("price/sure?draws=500");
        Assert.Equal(sure.ToJsonString(), (await Get("price/sure?draws=500")).Body.ToJsonString());
        var at90 = sure["tenths"]![1]!["at90"]!;
        var (_, workings) = await Get("workings?figure=" + Uri.EscapeDataString((string)at90["path"]!));
        var figure = workings["figures"]![(string)at90["path"]!]!;
        Assert.Equal((string)at90["value"]!, (string)figure["value"]!);
        Assert.Contains("450th smallest of 500 outcomes", (string)figure["sentence"]!);
    }

    [Theory]
    [InlineData("price/sure?draws=99", "draws")]
    [InlineData("price/sure?draws=10001", "draws")]
    [InlineData("price/second?slower=much", "slower")]
    [InlineData("price/second?slower=401", "slower")]
    [InlineData("price/second?harder=6", "harder")]
    [InlineData("price/second?book=yesterday", "book")]
    [InlineData("price/second?book=2999-01-01", "book")]
    [InlineData("price/second?book=0123456789abcdef0123456789abcdef0123456789abcdef0123456789abcdef", "book")]
    public async Task What_cannot_be_asked_is_refused_with_its_field(string path, string field)
    {
        var (status, body) = await Get(path);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, status);
        Assert.Equal(field, (string)body["field"]!);
    }

    [Fact]
    public async Task Another_firms_Book_is_held_against_the_job_and_explained()
    {
        // Every wage is doubled; the file is theirs, and no entry of ours changes.
        BookEntry[] theirs =
        [
            .. StarterBook.Entries.Select(e => e is LabourRole role ? role with { Wage = role.Wage * 2 } : e),
        ];
        using var content = new ByteArrayContent(BookFile.Write(theirs));
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        using var sent = await server.Http.PostAsync("/api/files", content);
        var hash = (string)JsonNode.Parse(await sent.Content.ReadAsStringAsync())!["hash"]!;
        var before = await server.File();
        var (status, second) = await Get($"price/second?book={hash}");
        Assert.Equal(HttpStatusCode.OK, status);
        var more = second["price"]!["more"]!;
        Assert.StartsWith("+", (string)more["shown"]!);
        Assert.Equal(before, await server.File());
        var (_, workings) = await Get("workings?figure=" + Uri.EscapeDataString((string)more["path"]!));
        Assert.Equal((string)more["value"]!, (string)workings["figures"]![(string)more["path"]!]!["value"]!);
        // The largest difference stands first.
        decimal[] differences =
        [
            .. second["work"]!
                .AsArray()
                .Select(w =>
                    Math.Abs(
                        decimal.Parse(
                            (string)w!["price"]!["more"]!["value"]!,
                            System.Globalization.CultureInfo.InvariantCulture
                        )
                    )
                ),
        ];
        Assert.Equal(differences.OrderDescending(), differences);
        Assert.True(differences.Length > 5);
    }

    [Fact]
    public void The_Book_of_an_earlier_moment_is_what_had_been_saved_by_then()
    {
        using var other = new TemporaryFolder();
        var store = new BookStore(Database.Open(other.Path));
        var role = StarterBook.Entries.OfType<LabourRole>().First();
        DateTime Day(int day) => new(2026, 3, day, 12, 0, 0, DateTimeKind.Utc);
        store.Add([role], "Nora", Day(1));
        store.Add([role with { Version = role.Version + 1, Wage = 99 }], "Nora", Day(10));
        store.Delete(role.Id, "Nora", Day(20));
        decimal[] On(int day) => [.. store.AsOf(Day(day)).OfType<LabourRole>().Select(r => r.Wage)];
        Assert.Empty(store.AsOf(Day(1).AddSeconds(-1)));
        Assert.Equal([role.Wage], On(9));
        Assert.Equal([99m], On(10));
        Assert.Equal([99m], On(19));
        Assert.Empty(On(20));
    }
}
