using System.Net;
using System.Text.Json.Nodes;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>The year of a round, as it is asked for over HTTP.</summary>
public sealed class YearTests(RunningServer running) : IClassFixture<RunningServer>
{
    private static readonly Guid Round = new("01930000-0000-7000-8000-000000000995");
    private readonly Server server = running.Server;

    private async Task<(HttpStatusCode Status, JsonObject Body)> Get(Guid job, string path)
    {
        using var answer = await server.Http.GetAsync($"/api/jobs/{job}/{path}");
        return (answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsObject());
    }

    private async Task Explained(JsonNode figure)
    {
        var path = (string)figure["path"]!;
        var (status, workings) = await Get(Round, "workings?figure=" + Uri.EscapeDataString(path));
        Assert.True(status == HttpStatusCode.OK, path);
        Assert.Equal((string)figure["value"]!, (string)workings["figures"]![path]!["value"]!);
    }

    /// <summary>Every figure of an answer: an object with a path and a value.</summary>
    private static IEnumerable<JsonNode> Figures(JsonNode? node) =>
        node switch
        {
            JsonObject one when one.ContainsKey("path") && one.ContainsKey("shown") => [one],
            JsonObject one => one.SelectMany(field => Figures(field.Value)),
            JsonArray list => list.SelectMany(Figures),
            _ => [],
        };

    [Fact]
    public async Task Every_figure_of_the_year_its_occurrences_and_other_frequencies_has_its_workings()
    {
        var (_, year) = await Get(Round, "price/year");
        var figures = Figures(year).ToArray();
        Assert.InRange(figures.Length, 70, 200);
        foreach (var figure in figures)
            await Explained(figure);
        var rhythm = (string)year["rhythms"]![0]!["rhythm"]!["id"]!;
        var (_, frequencies) = await Get(Round, $"price/year/{rhythm}/frequencies?times=40");
        Assert.Equal(
            ["Weekly", "40 times a year", "Fortnightly", "Monthly"],
            frequencies["all"]!.AsArray().Select(f => (string)f!["frequency"]!["name"]!)
        );
        foreach (var figure in Figures(frequencies))
            await Explained(figure);
        foreach (var one in year["year"]!["occurrences"]!.AsArray())
        {
            var (_, price) = await Get(Round, $"price?occurrence={one!["id"]}");
            foreach (var step in price["steps"]!.AsArray())
                await Explained(step!["amount"]!);
        }
        var (_, whole) = await Get(Round, "price");
        foreach (var figure in Figures(whole["steps"]).Concat(Figures(whole["buying"])).Concat(Figures(whole["roles"])))
            await Explained(figure);
    }

    [Fact]
    public async Task What_cannot_be_asked_is_refused_with_its_field_and_a_job_done_once_has_no_year()
    {
        var (_, year) = await Get(Round, "price/year");
        var rhythm = (string)year["rhythms"]![0]!["rhythm"]!["id"]!;
        foreach (var times in new[] { "0", "1001", "often" })
        {
            var (status, body) = await Get(Round, $"price/year/{rhythm}/frequencies?times={times}");
            Assert.Equal((HttpStatusCode.UnprocessableEntity, "times"), (status, (string)body["field"]!));
        }
        var (gone, _) = await Get(Round, $"price/year/{Guid.NewGuid()}/frequencies");
        Assert.Equal(HttpStatusCode.UnprocessableEntity, gone);
        var (_, library) = await Get(Server.Library, "price/year");
        Assert.Null(library["year"]);
        Assert.Equal(HttpStatusCode.NotFound, (await Get(Guid.NewGuid(), "price/year")).Status);
    }

    [Theory]
    [InlineData("round", "start", "\"\"", "\"tomorrow\"", "start")]
    [InlineData("round", "years", "3", "11", "years")]
    [InlineData("round", "rise", "\"3\"", "\"101\"", "rise")]
    [InlineData("round", "daysOff", "[]", "[\"2027-12-27\",\"2027-01-01\"]", "daysOff")]
    [InlineData("rhythm", "times", "26", "0", "times")]
    [InlineData("rhythm", "months", "[]", "[13]", "months")]
    [InlineData("rhythm", "name", "\"Fortnightly\"", "\"Monthly\"", "name")]
    public async Task A_term_that_cannot_be_is_refused_beside_its_field(
        string what,
        string field,
        string was,
        string now,
        string refused
    )
    {
        var (_, year) = await Get(Round, "price/year");
        var command = new JsonObject
        {
            ["field"] = field,
            ["was"] =
                field == "start"
                    ? JsonNode.Parse(await server.File(Round))!["round"]!["start"]!.DeepClone()
                    : JsonNode.Parse(was),
            ["now"] = JsonNode.Parse(now),
        };
        if (what == "rhythm")
            command["rhythm"] = year["rhythms"]![0]!["rhythm"]!["id"]!.DeepClone();
        var (status, body) = await server.Do(what == "round" ? "setRound" : "setRhythm", command, job: Round);
        Assert.Equal((422, refused), (status, (string)body["field"]!));
    }
}
