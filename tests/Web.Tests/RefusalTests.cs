using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Core.Jobs;
using Emendum.Storage.Demo;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging.Abstractions;
using Xunit;

namespace Emendum.Web.Tests;

public sealed class RefusalTests : IDisposable
{
    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public RefusalTests() => server = Server.Start(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    private async Task Refused(
        Task<(int Status, JsonObject Body)> request,
        int status,
        string says,
        string? field = null
    )
    {
        var before = await server.File();
        var (got, body) = await request;
        Assert.Equal(status, got);
        Assert.Contains(says, (string)body["title"]!);
        if (field is not null)
            Assert.Equal(field, (string)body["field"]!);
        Assert.DoesNotContain("   at ", body.ToJsonString());
        Assert.Equal(before, await server.File());
    }

    private static JsonObject Place(string line) =>
        new()
        {
            ["place"] = Guid.CreateVersion7().ToString(),
            ["line"] = line,
            ["group"] = "",
            ["after"] = null,
        };

    [Fact]
    public async Task Bad_edits_are_refused_with_field_and_sentence_and_change_nothing()
    {
        await Refused(server.Do("addPlace", Place("Study fourteen by eleven")), 422, "size after its name", "line");
        await Refused(server.Do("addPlace", Place("Study 14 x -11 x 8")), 422, "more than zero", "line");
        await Refused(
            server.Do("addPlace", Place("Study 14 x 11 x 8; door 3 x 9")),
            422,
            "larger than the largest wall",
            "line"
        );
        await Refused(
            server.Do(
                "addWork",
                new()
                {
                    ["work"] = Guid.CreateVersion7().ToString(),
                    ["entry"] = Guid.CreateVersion7().ToString(),
                    ["after"] = null,
                }
            ),
            422,
            "not in the Book",
            "entry"
        );
        var paint = (string)(await server.Job())["work"]![3]!["id"]!;
        await Refused(
            server.Do(
                "setWork",
                new()
                {
                    ["work"] = paint,
                    ["field"] = "pace",
                    ["was"] = null,
                    ["now"] = "0 ft² per h",
                }
            ),
            422,
            "more than zero",
            "pace"
        );
        await Refused(
            server.Do(
                "setPricing",
                new()
                {
                    ["field"] = "overhead",
                    ["was"] = "14",
                    ["now"] = "-1",
                }
            ),
            422,
            "percent",
            "overhead"
        );
        await Refused(
            server.Do(
                "setPricing",
                new()
                {
                    ["field"] = "overhead",
                    ["was"] = "12",
                    ["now"] = "15",
                }
            ),
            409,
            "changed since",
            "overhead"
        );
        await Refused(
            server.Do(
                "setPricing",
                new()
                {
                    ["field"] = "luck",
                    ["was"] = null,
                    ["now"] = "15",
                }
            ),
            422,
            "no field",
            "luck"
        );
        await Refused(server.Do("juggle", new()), 400, "cannot be read");
        await Refused(server.Do("addPlace", new() { ["line"] = 5 }), 400, "cannot be read");
        await Refused(server.Do("addPlace", Place("Study 14 x 11 x 8"), job: Guid.CreateVersion7()), 404, "not here");
    }

    [Fact]
    public async Task A_body_that_breaks_off_anywhere_is_the_senders_fault()
    {
        // Long enough to come in several pieces, and cut at every letter of its last words.
        var whole = new JsonObject
        {
            ["was"] = 1,
            ["entry"] = new JsonObject
            {
                ["kind"] = "text",
                ["body"] = new string('x', 5000),
                ["archived"] = false,
                ["source"] = null,
                ["order"] = true,
            },
        }.ToJsonString();
        for (var cut = 1; cut < 50; cut++)
        {
            using var content = new StringContent(whole[..^cut], System.Text.Encoding.UTF8, "application/json");
            using var response = await server.Http.PutAsync("/api/book/01930000-0000-7000-8000-000000003230", content);
            Assert.Equal(400, (int)response.StatusCode);
        }
    }

    [Fact]
    public async Task What_is_not_there_is_a_problem_document()
    {
        foreach (
            var path in new[]
            {
                $"/api/jobs/{Guid.CreateVersion7()}",
                $"/api/jobs/{Guid.CreateVersion7()}/proposal.pdf",
                $"/api/jobs/{Server.Library}/workings?figure=price/luck",
                "/api/nothing",
            }
        )
        {
            var response = await server.Http.GetAsync(path);
            Assert.Equal(
                (404, "application/problem+json"),
                ((int)response.StatusCode, response.Content.Headers.ContentType!.MediaType)
            );
        }
    }

    private async Task<(int Status, JsonObject Body)> Import(byte[] bytes)
    {
        var response = await server.Http.PostAsync(
            "/api/jobs/import",
            new ByteArrayContent(bytes) { Headers = { { "content-type", "application/json" } } }
        );
        return ((int)response.StatusCode, (await response.Content.ReadFromJsonAsync<JsonObject>())!);
    }

    [Fact]
    public async Task Bad_job_files_are_refused()
    {
        var good = await server.File();
        string With(string path, string value) => good.Replace(path, value, StringComparison.Ordinal);
        await Refused(Import(Encoding.UTF8.GetBytes(good[..(good.Length / 2)])), 422, "breaks off", "file");
        await Refused(Import(new byte[100_000_000]), 413, "too large");
        await Refused(
            Import(Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("[", 10_000)))),
            422,
            "not a job file"
        );
        await Refused(
            Import(Encoding.UTF8.GetBytes(With("\"overhead\": \"14\"", "\"overhead\": \"1e999\""))),
            422,
            "A number is written as text"
        );
        await Refused(
            Import(Encoding.UTF8.GetBytes(With("\"overhead\": \"14\"", "\"overhead\": 1e999"))),
            422,
            "A number is written as text"
        );
        await Refused(Import(Encoding.UTF8.GetBytes(good)), 422, "is here already");
        await Refused(Import([0xff, 0xfe, 0x00]), 422, "not a job file");
    }

    [Fact]
    public async Task A_job_file_is_taken_in_under_its_own_id()
    {
        var other = Guid.CreateVersion7();
        var file = (await server.File()).Replace(Server.Library.ToString(), other.ToString(), StringComparison.Ordinal);
        Assert.Equal(200, (await Import(Encoding.UTF8.GetBytes(file))).Status);
        Assert.Equal(file, await server.File(other));
    }

    [Fact]
    public async Task A_customer_s_exemption_is_kept_and_new_jobs_take_it()
    {
        var (customer, job) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        JsonObject Of(JsonObject? exemption) =>
            new()
            {
                ["id"] = customer.ToString(),
                ["name"] = "Port Ennis Harbour Board",
                ["address"] = "",
                ["email"] = "",
                ["phone"] = "",
                ["exemption"] = exemption,
            };
        JsonObject Free(string reason) => new() { ["kind"] = "exempt", ["reason"] = reason };
        Task<HttpResponseMessage> Put(JsonObject? was, JsonObject now) =>
            server.Http.PutAsJsonAsync($"/api/customers/{customer}", new JsonObject { ["was"] = was, ["now"] = now });
        var bad = await Put(null, Of(Free(" ")));
        Assert.Equal("exemption", (string)(await bad.Content.ReadFromJsonAsync<JsonObject>())!["field"]!);
        Assert.True((await Put(null, Of(Free("certificate 4711")))).IsSuccessStatusCode);
        Assert.True(
            (
                await server.Http.PostAsJsonAsync(
                    "/api/jobs",
                    new JsonObject
                    {
                        ["id"] = job.ToString(),
                        ["name"] = "Harbour office",
                        ["subtitle"] = "",
                        ["customer"] = customer.ToString(),
                        ["units"] = "feet",
                    }
                )
            ).IsSuccessStatusCode
        );
        async Task<JsonNode?> Said(string path, string field) =>
            (await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job}{path}"))![field];
        Assert.Equal("certificate 4711", (string)(await Said("", "pricing"))!["exemption"]!["reason"]!);
        Assert.Equal("exempt", (string)(await Said("/price", "ofCustomer"))!["kind"]!);
        // Taken away, the job keeps what it was priced with.
        Assert.True((await Put(Of(Free("certificate 4711")), Of(null))).IsSuccessStatusCode);
        Assert.Null(await Said("/price", "ofCustomer"));
        Assert.NotNull((await Said("", "pricing"))!["exemption"]);
    }

    [Fact]
    public async Task Customers_are_kept_and_checked()
    {
        var id = Guid.CreateVersion7();
        JsonObject? was = null;
        JsonObject Of(string name, string email) =>
            new()
            {
                ["was"] = was?.DeepClone(),
                ["now"] = new JsonObject
                {
                    ["id"] = id.ToString(),
                    ["name"] = name,
                    // Of several lines, as people write one.
                    ["address"] = "1 Quay\nPort Ennis",
                    ["email"] = email,
                    ["phone"] = "",
                },
            };
        var bad = await server.Http.PutAsJsonAsync($"/api/customers/{id}", Of("Gull House", "nowhere"));
        Assert.Equal("email", (string)(await bad.Content.ReadFromJsonAsync<JsonObject>())!["field"]!);
        Assert.True(
            (
                await server.Http.PutAsJsonAsync($"/api/customers/{id}", Of("Gull House", "a@gull.example"))
            ).IsSuccessStatusCode
        );
        was = Of("Gull House", "a@gull.example")["now"]!.AsObject();
        Assert.True(
            (await server.Http.PutAsJsonAsync($"/api/customers/{id}", Of("Gull Cottage", ""))).IsSuccessStatusCode
        );
        Assert.Equal(
            "Gull Cottage",
            (await server.Http.GetFromJsonAsync<JsonArray>("/api/customers"))!.Single(c =>
                (string)c!["id"]! == id.ToString()
            )!["name"]!.ToString()
        );
        // A job has the id, and shows what the row says; one that is not there is refused.
        JsonObject For(Guid? was, Guid now) =>
            new()
            {
                ["field"] = "customer",
                ["was"] = was?.ToString(),
                ["now"] = now.ToString(),
            };
        var before = (Guid?)(await server.Job())["info"]!["customer"];
        var (refused, says) = await server.Do("setInfo", For(before, Guid.CreateVersion7()));
        Assert.Equal((422, "customer"), (refused, (string)says["field"]!));
        Assert.Equal(200, (await server.Do("setInfo", For(before, id))).Status);
        var file = await server.Http.GetStringAsync($"/api/jobs/{Server.Library}/file");
        Assert.Contains("Gull Cottage", file);
        var proposal = await server.Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Server.Library}/proposal");
        var letterhead = proposal!["document"]!["head"]!;
        Assert.Equal(
            ("Gull Cottage", "1 Quay\nPort Ennis"),
            ((string)letterhead["customer"]!, (string)letterhead["customerAddress"]!)
        );
    }

    [Fact]
    public async Task A_job_that_is_taken_in_brings_its_customer_where_we_have_none_of_that_id()
    {
        async Task<JsonNode> TakenIn(Guid customer, string? name)
        {
            var file = JsonNode.Parse(await server.Http.GetStringAsync($"/api/jobs/{Server.Library}/file"))!.AsObject();
            file["id"] = Guid.CreateVersion7().ToString();
            file["info"]!["customer"] = customer.ToString();
            file.Remove("party");
            if (name is not null)
                file["party"] = new JsonObject
                {
                    ["id"] = customer.ToString(),
                    ["name"] = name,
                    ["address"] = "9 Hill",
                };
            var made = await server.Http.PostAsJsonAsync("/api/jobs/import", file);
            Assert.True(made.IsSuccessStatusCode);
            return (await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!.Single(j =>
                (string)j!["id"]! == (string)file["id"]!
            )!;
        }
        var (ours, new1, unknown) = (StarterBook.Id(902), Guid.CreateVersion7(), Guid.CreateVersion7());
        Assert.Equal(
            "Quayside Veterinary Clinic",
            (string)(await TakenIn(ours, "Called otherwise there"))["customer"]!
        );
        Assert.Equal("Hill Farm", (string)(await TakenIn(new1, "Hill Farm"))["customer"]!);
        Assert.Equal("", (string)(await TakenIn(unknown, null))["customer"]!);
        Assert.Equal(5, (await server.Http.GetFromJsonAsync<JsonArray>("/api/customers"))!.Count);
    }

    [Theory]
    [InlineData(
        13,
        507,
        "Nothing was kept. The database cannot be used: the disk is full. Free some space, then try again."
    )]
    [InlineData(
        8,
        500,
        "it cannot be written. See who owns the data folder, and whether its disk is mounted for reading only"
    )]
    [InlineData(10, 500, "its disk cannot be read or written")]
    [InlineData(11, 500, "it is damaged. Stop Emendum and restore a backup")]
    [InlineData(1, 500, "Something went wrong on our side. Nothing was changed.")]
    public async Task What_the_disk_refuses_is_said_with_what_to_do(int code, int status, string says)
    {
        var context = new DefaultHttpContext
        {
            RequestServices = new ServiceCollection().AddLogging().AddProblemDetails().BuildServiceProvider(),
        };
        context.Response.Body = new MemoryStream();
        await new Refusals(
            _ => throw new Microsoft.Data.Sqlite.SqliteException("SQLite says so", code),
            NullLogger<Refusals>.Instance
        ).InvokeAsync(context);
        context.Response.Body.Position = 0;
        var problem = JsonNode.Parse(await new StreamReader(context.Response.Body).ReadToEndAsync())!;
        Assert.Equal(status, context.Response.StatusCode);
        Assert.Contains(says, (string)problem["title"]!);
        Assert.DoesNotContain("SQLite", problem.ToJsonString());
    }

    [Theory]
    [InlineData("in use by another program", false)]
    [InlineData("cannot be used", true)]
    public async Task A_start_that_cannot_be_says_why_in_one_sentence(string says, bool badFolder)
    {
        var process = Server.Launch(
            "--port",
            server.Http.BaseAddress!.Port.ToString(System.Globalization.CultureInfo.InvariantCulture),
            "--data",
            badFolder ? "/proc/emendum" : folder.Path + "/other"
        );
        var error = await process.StandardError.ReadToEndAsync();
        await process.WaitForExitAsync();
        Assert.Equal(1, process.ExitCode);
        Assert.Contains(says, Assert.Single(error.Split('\n', StringSplitOptions.RemoveEmptyEntries)));
    }
}
