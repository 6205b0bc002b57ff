using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>A small disk of its own that fills up and is then mounted for reading only. It needs the right to mount, so that it is in <c>./run-long</c> alone.</summary>
[Trait(Scale.Category, Scale.LongOnly)]
public sealed class DiskTests : IDisposable
{
    private readonly TemporaryFolder folder = new();
    private readonly string disk;

    public DiskTests()
    {
        disk = Directory.CreateDirectory(Path.Combine(folder.Path, "disk")).FullName;
        Run("mount", "-t", "tmpfs", "-o", "size=16m", "none", disk);
    }

    public void Dispose()
    {
        Run("umount", "-l", disk);
        folder.Dispose();
    }

    private static void Run(string program, params string[] arguments)
    {
        using var process = Process.Start(program, arguments);
        process.WaitForExit();
        Assert.Equal(0, process.ExitCode);
    }

    private static Task<(int Status, JsonObject Body)> Add(Server server, int n) =>
        server.Do(
            "addPlaces",
            new()
            {
                ["work"] = new JsonArray(),
                ["places"] = new JsonArray(
                    [
                        .. Enumerable
                            .Range(0, 40)
                            .Select(i =>
                                (JsonNode)
                                    new JsonObject
                                    {
                                        ["place"] = Guid.CreateVersion7().ToString(),
                                        ["line"] = $"Room {n} {i}: 10 x 10 x 8",
                                        ["group"] = "",
                                        ["finish"] = "",
                                        ["notes"] = new string('n', 900),
                                        ["typed"] = new JsonArray(),
                                        ["work"] = new JsonArray(),
                                    }
                            ),
                    ]
                ),
            }
        );

    [Fact]
    public async Task A_full_disk_and_one_that_is_read_only_are_said_and_nothing_that_was_answered_is_lost()
    {
        var data = Path.Combine(disk, "data");
        var answered = 0;
        using (var server = Server.StartIn(data))
        {
            var places = (await server.Job())["places"]!.AsArray().Count;
            // Filled from outside to the last half megabyte, then by edits.
            var ballast = Path.Combine(disk, "ballast");
            await File.WriteAllBytesAsync(
                ballast,
                new byte[Math.Max(0, new DriveInfo(disk).AvailableFreeSpace - 500_000)]
            );
            (int Status, JsonObject Body) full;
            while (true)
            {
                full = await Add(server, answered);
                if (full.Status != 200)
                    break;
                answered++;
                Assert.InRange(answered, 0, 1000);
            }
            Assert.Equal(507, full.Status);
            Assert.Contains(
                "The disk is full. Free some space, then try again",
                (string)full.Body["title"]!,
                StringComparison.OrdinalIgnoreCase
            );
            Assert.True(answered > 0);
            // It goes on showing what there is, and takes edits again when there is room.
            Assert.Equal(places + 40 * answered, (await server.Job())["places"]!.AsArray().Count);
            Assert.Equal(507, (await Add(server, answered)).Status);
            File.Delete(ballast);
            Assert.Equal(200, (await Add(server, answered)).Status);
            answered++;
            // A disk cannot be mounted for reading only while somebody has a file on it open for writing.
            server.Kill();
            Run("mount", "-o", "remount,ro", disk);
            using (var process = Server.Launch("--port", "0", "--data", data))
            {
                await process.WaitForExitAsync();
                var error = await process.StandardError.ReadToEndAsync();
                Assert.Equal(1, process.ExitCode);
                Assert.Contains(
                    "cannot be written",
                    Assert.Single(error.Split('\n', StringSplitOptions.RemoveEmptyEntries))
                );
            }
            Run("mount", "-o", "remount,rw", disk);
            using var again = Server.StartIn(data);
            Assert.Equal(places + 40 * answered, (await again.Job())["places"]!.AsArray().Count);
            Assert.Equal(200, (await Add(again, answered)).Status);
        }
    }

    [Fact]
    public async Task A_first_start_on_a_disk_that_is_too_small_is_said_and_leaves_no_database()
    {
        await File.WriteAllBytesAsync(Path.Combine(disk, "ballast"), new byte[15_800_000]);
        var data = Path.Combine(disk, "data");
        using var process = Server.Launch("--port", "0", "--data", data);
        await process.WaitForExitAsync();
        var error = await process.StandardError.ReadToEndAsync();
        Assert.Equal(1, process.ExitCode);
        Assert.Contains("the disk is full", Assert.Single(error.Split('\n', StringSplitOptions.RemoveEmptyEntries)));
        Assert.False(File.Exists(Path.Combine(data, "emendum.db")));
        File.Delete(Path.Combine(disk, "ballast"));
        using var server = Server.StartIn(data);
        Assert.Equal(7, (await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!.Count);
    }
}
