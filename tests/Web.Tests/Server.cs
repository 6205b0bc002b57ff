using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Jobs;

namespace Emendum.Web.Tests;

/// <summary>The real server in a process of its own, on a free port, with a data folder that outlives it.</summary>
internal sealed class Server : IDisposable
{
    private readonly Process process;

    private Server(Process process, string address)
    {
        this.process = process;
        Http = new HttpClient { BaseAddress = new Uri(address) };
    }

    public static readonly Guid Library = new("01930000-0000-7000-8000-000000000999");

    public HttpClient Http { get; }

    /// <summary>What people outside ask; only where it was started with a door for them.</summary>
    public HttpClient Outside { get; private set; } = null!;

    public static Process Launch(params string[] arguments)
    {
        var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (var argument in (string[])[Path.Combine(AppContext.BaseDirectory, "Emendum.Web.dll"), .. arguments])
            start.ArgumentList.Add(argument);
        return Process.Start(start)!;
    }

    /// <summary>What the first start leaves in a data folder, made once: most tests begin there, and only some look at how it comes about.</summary>
    private static readonly Lazy<string> FirstStarted = new(() =>
    {
        var made = new TemporaryFolder();
        AppDomain.CurrentDomain.ProcessExit += (_, _) => made.Dispose();
        StartIn(made.Path).Dispose();
        return made.Path;
    });

    /// <summary>Starts on a data folder; an empty one gets what the first start would leave there.</summary>
    public static Server Start(string folder)
    {
        FirstStart(folder);
        return StartIn(folder);
    }

    private static void FirstStart(string folder)
    {
        if (Directory.Exists(folder) && !Directory.EnumerateFileSystemEntries(folder).Any())
            foreach (var file in Directory.EnumerateFiles(FirstStarted.Value, "*.db*"))
                System.IO.File.Copy(file, Path.Combine(folder, Path.GetFileName(file)));
    }

    /// <summary>Starts on a data folder as it is.</summary>
    public static Server StartIn(string folder, params string[] more)
    {
        var process = Launch(["--port", "0", "--data", folder, .. more]);
        return new(process, AddressIn(process));
    }

    /// <summary>Starts with a door to the outside.</summary>
    public static Server StartWithOutside(string folder, params string[] more)
    {
        FirstStart(folder);
        var server = StartIn(folder, ["--public", "0", .. more]);
        server.Outside = new HttpClient { BaseAddress = new Uri(AddressIn(server.process)) };
        return server;
    }

    /// <summary>The address in the next line that names one.</summary>
    private static string AddressIn(Process process)
    {
        while (process.StandardOutput.ReadLine() is { } line)
            if (line.Contains("http://", StringComparison.Ordinal))
                return line[line.IndexOf("http://", StringComparison.Ordinal)..].Split(' ')[0];
        throw new InvalidOperationException("The server did not start: " + process.StandardError.ReadToEnd());
    }

    /// <summary>kill -9.</summary>
    public void Kill()
    {
        process.Kill();
        process.WaitForExit();
    }

    public void Dispose()
    {
        Http.Dispose();
        Outside?.Dispose();
        if (!process.HasExited)
            Kill();
        process.Dispose();
    }

    public Task<(int Status, JsonObject Body)> Post(string path, JsonNode body) => Post(Http, path, body);

    public static async Task<(int Status, JsonObject Body)> Post(HttpClient http, string path, JsonNode body)
    {
        var response = await http.PostAsJsonAsync(path, body);
        return ((int)response.StatusCode, (await response.Content.ReadFromJsonAsync<JsonObject>())!);
    }

    /// <summary>The window that tests sit at, also after a restart.</summary>
    public static readonly Guid Client = new("01930000-0000-7000-8000-00000000c001");

    /// <summary>What everything that edits a job comes with.</summary>
    public static JsonObject Sent(Guid? id = null, long version = 0, Guid? client = null) =>
        new()
        {
            ["id"] = (id ?? Guid.CreateVersion7()).ToString(),
            ["base"] = version,
            ["client"] = (client ?? Client).ToString(),
        };

    public Task<(int Status, JsonObject Body)> Do(
        string type,
        JsonObject fields,
        Guid? id = null,
        Guid? job = null,
        long version = 0,
        Guid? client = null
    )
    {
        var sent = Sent(id, version, client);
        fields["type"] = type;
        sent["command"] = fields;
        return Post($"/api/jobs/{job ?? Library}/commands", sent);
    }

    /// <summary>Sends the next revision of a job as it stands, by hand where there is no message; its id.</summary>
    public async Task<Guid> SendRevision(Guid job, JsonObject? message = null)
    {
        var id = Guid.CreateVersion7();
        var (status, answer) = await Post(
            $"/api/jobs/{job}/revisions",
            new JsonObject
            {
                ["id"] = id,
                ["fact"] = Guid.CreateVersion7(),
                ["base"] = (long)(await Job(job))["version"]!,
                ["how"] = message is null ? "by hand" : "",
                ["despite"] = "as it is",
                ["day"] = "",
                ["time"] = "",
                ["message"] = message,
            }
        );
        return status == 200 ? id : throw new InvalidOperationException(answer.ToJsonString());
    }

    /// <summary>Sends a job as it stands, and records a yes by word.</summary>
    public async Task Accept(Guid job)
    {
        var revision = await SendRevision(job);
        var today = (await Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job}/deliver"))!["today"]!;
        var (status, answer) = await Post(
            $"/api/jobs/{job}/revisions/{revision}/facts",
            new JsonObject
            {
                ["id"] = Guid.CreateVersion7(),
                ["kind"] = "yesRecorded",
                ["words"] = "by telephone",
                ["day"] = today.DeepClone(),
                ["asSent"] = true,
                ["photo"] = "",
            }
        );
        if (status != 200)
            throw new InvalidOperationException(answer.ToJsonString());
    }

    /// <summary>Path of a new link to a revision.</summary>
    public async Task<string> LinkTo(Guid job, Guid revision, string who, bool signs)
    {
        var (status, made) = await Post(
            $"/api/jobs/{job}/revisions/{revision}/links",
            new JsonObject
            {
                ["fact"] = Guid.CreateVersion7(),
                ["for"] = who,
                ["signs"] = signs,
            }
        );
        return status == 200
            ? new Uri((string)made["address"]!).AbsolutePath
            : throw new InvalidOperationException(made.ToJsonString());
    }

    public async Task<JsonObject> Job(Guid? job = null) =>
        (await Http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job ?? Library}?client={Client}"))!;

    public Task<string> File(Guid? job = null) => Http.GetStringAsync($"/api/jobs/{job ?? Library}/file");

    /// <summary>Undo or redo; <paramref name="leftBehind"/> names an edit of a window that is closed.</summary>
    public Task<(int Status, JsonObject Body)> Reverse(
        string what,
        Guid? job = null,
        Guid? client = null,
        long? leftBehind = null
    )
    {
        var sent = Sent(client: client);
        if (what == "undo")
            sent["leftBehind"] = leftBehind;
        return Post($"/api/jobs/{job ?? Library}/{what}", sent);
    }
}

/// <summary>One server for all tests of a class, with a door to the outside: for tests that leave nothing behind, or count what they did themselves.</summary>
public sealed class RunningServer : IDisposable
{
    private readonly TemporaryFolder folder = new();

    internal Server Server { get; }

    public RunningServer() => Server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        Server.Dispose();
        folder.Dispose();
    }
}

/// <summary>A folder that is gone after the test.</summary>
internal sealed class TemporaryFolder : IDisposable
{
    public string Path { get; } = Directory.CreateTempSubdirectory("emendum-test-").FullName;

    public void Dispose() => Directory.Delete(Path, recursive: true);
}
