using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Emendum.Core;
using Emendum.Storage;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Backups: whole while the server works, proved, kept for so long, and put back.</summary>
public sealed class BackupTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    private string In(string name) => Path.Combine(folder.Path, name);

    private static (int Code, string Out, string Error) Emendum(params string[] arguments) =>
        DocumentTests.Run(_ => { }, arguments);

    [Fact]
    public async Task A_backup_made_while_edits_run_holds_what_was_answered_before_it_and_is_restored()
    {
        using var server = Server.Start(In("data"));
        async Task Edit() =>
            Assert.Equal(
                200,
                (
                    await server.Do(
                        "addPlace",
                        new()
                        {
                            ["place"] = Guid.CreateVersion7().ToString(),
                            ["line"] = "Store 9 x 7 x 8",
                            ["group"] = "",
                            ["after"] = null,
                        }
                    )
                ).Status
            );
        var places = (await server.Job())["places"]!.AsArray().Count;
        for (var i = 0; i < 5; i++)
            await Edit();
        using var stop = new CancellationTokenSource();
        var editing = Task.Run(async () =>
        {
            while (!stop.IsCancellationRequested)
                await Edit();
        });
        var (code, said, error) = Emendum("backup", In("copy.db"), "--data", In("data"));
        await stop.CancelAsync();
        await editing;
        Assert.Equal((0, ""), (code, error));
        Assert.Contains("is made and read again: 7 jobs with ", said);
        Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, Mode(In("copy.db")));
        // A copy by hand of the one file has none of it: all is in the write-ahead file.
        Assert.Contains("is there already", Emendum("backup", In("copy.db"), "--data", In("data")).Error);
        Assert.Contains("in use by another Emendum", Emendum("restore", In("copy.db"), "--data", In("data")).Error);
        var now = await server.Job();
        server.Kill();
        (code, said, error) = Emendum("restore", In("copy.db"), "--data", In("data"));
        Assert.Equal((0, ""), (code, error));
        Assert.Contains("What stood there is kept as ", said);
        using (var restored = Server.Start(In("data")))
        {
            var then = await restored.Job();
            Assert.InRange((long)then["version"]!, 5, (long)now["version"]!);
            Assert.Equal(places + (long)then["version"]!, then["places"]!.AsArray().Count);
        }
        // What was kept is whole too, with every edit that was answered.
        var kept = Directory.GetFiles(In("data"), "emendum.before-restore-*.db").Single();
        Assert.Contains(
            // One more is the demo's own: the schedule of its gallery.
            $"7 jobs with {(long)now["version"]! + 1} edits",
            Emendum("restore", kept, "--data", In("other")) is (0, _, _)
                ? Emendum("verify", Path.Combine(In("other"), "emendum.db")).Out
                : ""
        );
    }

    [Fact]
    public async Task A_restore_that_was_broken_off_is_said_and_can_be_finished()
    {
        Server.Start(In("data")).Dispose();
        Assert.Equal(0, Emendum("backup", In("copy.db"), "--data", In("data")).Code);
        // As a kill leaves it that comes when what stood there is put aside and nothing is in its place.
        var (database, kept) = (
            Path.Combine(In("data"), "emendum.db"),
            Path.Combine(In("data"), "emendum.before-restore-1.db")
        );
        foreach (var end in new[] { "-wal", "-shm", "" })
            if (File.Exists(database + end))
                File.Move(database + end, kept + end);
        await File.WriteAllTextAsync(database + ".restoring", kept);
        using (var process = Server.Launch("--port", "0", "--data", In("data")))
        {
            await process.WaitForExitAsync();
            Assert.Equal(1, process.ExitCode);
            Assert.Contains(
                $"was broken off. What stood there is kept as {kept}; run emendum restore FILE once more",
                await process.StandardError.ReadToEndAsync()
            );
        }
        Assert.False(File.Exists(database));
        var (code, said, _) = Emendum("restore", In("copy.db"), "--data", In("data"));
        Assert.Equal(0, code);
        Assert.Contains($"What stood there is kept as {kept}", said);
        Assert.False(File.Exists(database + ".restoring"));
        using var server = Server.Start(In("data"));
        Assert.Equal(7, (await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!.Count);
    }

    private static UnixFileMode Mode(string file) =>
        OperatingSystem.IsWindows() ? UnixFileMode.UserRead | UnixFileMode.UserWrite : File.GetUnixFileMode(file);

    [Fact]
    public void What_is_hurt_in_a_copy_is_named_and_not_restored()
    {
        Server.Start(In("data")).Dispose();
        Assert.Equal(0, Emendum("backup", In("copy.db"), "--data", In("data")).Code);
        var whole = File.ReadAllBytes(In("copy.db"));
        Assert.Contains("copy.db is whole: 7 jobs with 1 edit", Emendum("verify", In("copy.db")).Out);
        // A page in the middle, the end, all of it.
        var hurt = whole.ToArray();
        hurt.AsSpan(hurt.Length / 2 / 4096 * 4096, 4096).Fill(0x5A);
        Says(hurt, "is not whole");
        Says(whole[..(whole.Length / 2)], "damaged");
        Says([], "it is empty");
        Says("no database at all, but long enough to be looked at as one"u8.ToArray(), "not a database");
        void Says(byte[] bytes, string says)
        {
            File.WriteAllBytes(In("hurt.db"), bytes);
            foreach (var verb in new[] { "verify", "restore" })
            {
                string[] to = verb == "restore" ? ["--data", In("data")] : [];
                var (code, _, error) = Emendum([verb, In("hurt.db"), .. to]);
                Assert.Equal(2, code);
                Assert.Contains(says, error);
            }
        }
        // A row that is gone, an entry that cannot be read.
        File.WriteAllBytes(In("hurt.db"), whole);
        using (
            var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={In("hurt.db")};Pooling=False")
        )
        {
            connection.Open();
            connection.Run("DELETE FROM job_snapshot WHERE job_id = $id", ("$id", Server.Library));
        }
        Assert.Contains("it has no content any more", Emendum("verify", In("hurt.db")).Error);
        Assert.Contains("There is no file", Emendum("verify", In("nowhere.db")).Error);
        Assert.Contains("cannot be used", Emendum("backup", In("new.db"), "--data", In("nowhere")).Error);
        // Nothing of all that has touched the folder.
        using var server = Server.Start(In("data"));
    }

    [Fact]
    public async Task The_server_makes_a_backup_when_the_last_is_a_day_old_and_only_then()
    {
        string Day(int ago) => DateTime.Now.AddDays(-ago).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
        async Task<string[]> Made()
        {
            using var server = Server.Start(In("data"));
            using var patience = new CancellationTokenSource(TimeSpan.FromMinutes(2));
            while (true)
            {
                patience.Token.ThrowIfCancellationRequested();
                var view = (await server.Http.GetFromJsonAsync<JsonObject>("/api/backups"))!;
                Assert.Equal("", (string)view["wrong"]!);
                var names = view["backups"]!.AsArray().Select(b => (string)b!["name"]!).ToArray();
                if (names.Length > 0 && names[0] == $"emendum-{Day(0)}.db")
                    return names;
                await Task.Yield();
            }
        }
        Assert.Equal([$"emendum-{Day(0)}.db"], await Made());
        var backups = Path.Combine(In("data"), "backups");
        // Yesterday's is not enough, ten of a row are too many.
        File.Move(Path.Combine(backups, $"emendum-{Day(0)}.db"), Path.Combine(backups, $"emendum-{Day(1)}.db"));
        for (var ago = 2; ago <= 60; ago++)
            File.Copy(Path.Combine(backups, $"emendum-{Day(1)}.db"), Path.Combine(backups, $"emendum-{Day(ago)}.db"));
        var kept = await Made();
        Assert.Equal(11, kept.Length);
        Assert.Equal(Enumerable.Range(0, 7).Select(ago => $"emendum-{Day(ago)}.db"), kept.Take(7));
        // Today's is there: nothing is made anew, and it is whole.
        var today = Path.Combine(backups, $"emendum-{Day(0)}.db");
        var written = File.GetLastWriteTimeUtc(today);
        Assert.Equal(kept, await Made());
        Assert.Equal(written, File.GetLastWriteTimeUtc(today));
        Assert.Equal(0, Emendum("verify", today).Code);
    }

    [Fact]
    public void Seven_days_and_four_weeks_are_kept()
    {
        // Wednesday, 25 November 2026, week 48; one a day back to 1 October. Kept: 19 to 25 November; of the days before, the newest of each of four weeks:
        // Wednesday 18 (week 47), and the Sundays 15 (46), 8 (45) and 1 November (44).
        var days = Enumerable.Range(0, 56).Select(ago => new DateOnly(2026, 11, 25).AddDays(-ago)).ToList();
        var kept = days.Except(new BackupPlan(7, 4).Surplus(days))
            .Select(d => d.ToString("MM-dd", CultureInfo.InvariantCulture));
        Assert.Equal(
            ["11-25", "11-24", "11-23", "11-22", "11-21", "11-20", "11-19", "11-18", "11-15", "11-08", "11-01"],
            kept
        );
        Assert.Empty(new BackupPlan(7, 4).Surplus(days.Take(3)));
        Assert.Equal(55, new BackupPlan(1, 0).Surplus(days).Length);
        Assert.Equal("daily", Assert.Throws<RefusedException>(() => new BackupPlan(0, 4).Check()).Refusal.Field);
    }
}
