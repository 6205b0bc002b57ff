using System.Diagnostics;
using System.IO.Compression;
using System.Net.Http.Json;
using System.Runtime.CompilerServices;
using System.Text.Json.Nodes;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>A data folder that is half there, newer, damaged, or somebody else's: a sentence each, and nothing lost.</summary>
public sealed class DataFolderTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    private string File(string name = "emendum.db") => Path.Combine(folder.Path, name);

    private void Older([CallerFilePath] string here = "")
    {
        using var older = new GZipStream(
            System.IO.File.OpenRead(Path.Combine(Path.GetDirectoryName(here)!, "Older", "version4.db.gz")),
            CompressionMode.Decompress
        );
        using var file = System.IO.File.Create(File());
        older.CopyTo(file);
    }

    /// <summary>Starts the server where it must refuse to, and gives what it says.</summary>
    private string Refused(params string[] arguments)
    {
        using var process = Server.Launch(["--port", "0", "--data", folder.Path, .. arguments]);
        process.WaitForExit();
        var said = process.StandardError.ReadToEnd();
        Assert.Equal(1, process.ExitCode);
        Assert.DoesNotContain("   at ", said);
        return said.Trim();
    }

    private static async Task<int> Jobs(Server server) =>
        (await server.Http.GetFromJsonAsync<JsonArray>("/api/jobs"))!.Count;

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(2)]
    public async Task A_kill_during_the_first_start_leaves_a_whole_folder_or_none(int tables)
    {
        // On a busy machine the start may be over before it is seen to have come so far: then it is tried again.
        for (var tries = 0; tries < 5; tries++)
        {
            foreach (var file in Directory.GetFiles(folder.Path))
                System.IO.File.Delete(file);
            using var process = Server.Launch("--port", "0", "--data", folder.Path);
            // As far as that: the file is there, its tables are, the firm's Book is.
            while (!Reached(tables) && !System.IO.File.Exists(File()) && !process.HasExited)
                Thread.Yield();
            process.Kill();
            process.WaitForExit();
            if (!System.IO.File.Exists(File()))
                break;
        }
        Assert.False(System.IO.File.Exists(File()));
        using var server = Server.StartIn(folder.Path);
        Assert.Equal(7, await Jobs(server));
        Assert.Equal(4, (await server.Http.GetFromJsonAsync<JsonArray>("/api/customers"))!.Count);
        Assert.False(System.IO.File.Exists(File("emendum.db.new")));
    }

    private bool Reached(int tables)
    {
        if (!System.IO.File.Exists(File("emendum.db.new")))
            return false;
        if (tables == 0)
            return true;
        try
        {
            using var connection = new Microsoft.Data.Sqlite.SqliteConnection(
                $"Data Source={File("emendum.db.new")};Mode=ReadOnly;Pooling=False"
            );
            connection.Open();
            var sql =
                tables == 1
                    ? "SELECT count(*) FROM sqlite_master WHERE name = 'job_pin'"
                    : "SELECT count(*) FROM book_entry";
            return connection.Rows(sql, r => r.GetInt32(0))[0] > 0;
        }
        catch (Microsoft.Data.Sqlite.SqliteException)
        {
            return false;
        }
    }

    [Fact]
    public async Task A_folder_left_half_by_an_older_version_is_completed()
    {
        // The Book was committed, and one job; the firm was not.
        var database = Database.Open(folder.Path);
        new BookStore(database).Add(StarterBook.Entries, "the owner", DateTime.UtcNow);
        database.Close();
        using var server = Server.StartIn(folder.Path);
        Assert.Equal(7, await Jobs(server));
    }

    [Fact]
    public void A_database_of_a_newer_version_is_refused_and_not_written()
    {
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
            connection.Run("INSERT INTO migration VALUES (999)");
        database.Close();
        var before = System.IO.File.ReadAllBytes(File());
        Assert.Contains("written by a newer version of Emendum (its tables are of step 999", Refused());
        Assert.Equal(before, System.IO.File.ReadAllBytes(File()));
    }

    [Theory]
    [InlineData("empty", "it is empty (0 bytes)")]
    [InlineData("text", "it is not a database")]
    [InlineData("other", "it is not one of Emendum")]
    [InlineData("cut", "it is damaged")]
    public void A_file_that_is_no_whole_database_is_refused_in_a_sentence_and_left_as_it_is(string how, string says)
    {
        switch (how)
        {
            case "empty":
                System.IO.File.WriteAllBytes(File(), []);
                break;
            case "text":
                System.IO.File.WriteAllText(File(), new string('x', 5000));
                break;
            case "other":
                using (var other = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={File()};Pooling=False"))
                {
                    other.Open();
                    other.Run("CREATE TABLE recipe (name TEXT)");
                }
                break;
            case "cut":
                Older();
                var whole = System.IO.File.ReadAllBytes(File());
                System.IO.File.WriteAllBytes(File(), whole[..(whole.Length / 3)]);
                break;
        }
        var length = new FileInfo(File()).Length;
        Assert.Contains(says, Refused());
        Assert.Equal(length, new FileInfo(File()).Length);
    }

    [Fact]
    public void Before_the_first_migration_a_copy_is_kept_and_a_second_start_leaves_it()
    {
        Older();
        Server.StartIn(folder.Path).Dispose();
        var copy = File("emendum.before-step-4.db");
        var then = System.IO.File.ReadAllBytes(copy);
        using (var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={copy};Pooling=False"))
        {
            connection.Open();
            Assert.Equal(3, connection.Rows("SELECT max(number) FROM migration", r => r.GetInt32(0))[0]);
            Assert.Equal(89, connection.Rows("SELECT count(*) FROM job_log", r => r.GetInt32(0))[0]);
        }
        Server.StartIn(folder.Path).Dispose();
        Assert.Equal(then, System.IO.File.ReadAllBytes(copy));
    }

    [Fact]
    public void A_second_server_on_one_folder_is_refused_and_the_first_named()
    {
        using var first = Server.StartIn(folder.Path);
        var said = Refused();
        Assert.Contains("in use by another Emendum, process ", said);
        Assert.Contains(first.Http.BaseAddress!.ToString(), said);
    }

    [Fact]
    public void The_folder_and_its_files_are_readable_by_their_owner_only_and_a_clean_stop_leaves_nothing_beside_them()
    {
        if (OperatingSystem.IsWindows())
            return;
        var own = Path.Combine(folder.Path, "made");
        using (var process = Server.Launch("--port", "0", "--data", own))
        {
            Assert.Contains("http://", process.StandardOutput.ReadLine());
            foreach (var file in Directory.GetFiles(own))
                if (!file.EndsWith(".lock", StringComparison.Ordinal))
                    Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, System.IO.File.GetUnixFileMode(file));
            Assert.Equal(
                UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute,
                new DirectoryInfo(own).UnixFileMode
            );
            Assert.Equal(0, Process.Start("kill", ["-TERM", $"{process.Id}"]).WaitForExit(60_000) ? 0 : 1);
            process.WaitForExit();
            Assert.Equal(0, process.ExitCode);
        }
        Assert.Equal(
            ["emendum-files.db", "emendum.db", "emendum.lock"],
            Directory.GetFiles(own).Select(f => Path.GetFileName(f)).Order(StringComparer.Ordinal)
        );
    }

    [Theory]
    [InlineData("DELETE FROM job_log WHERE version = 3 AND job_id = $id", "edit 3 is missing")]
    [InlineData("DELETE FROM job_log WHERE job_id = $id AND version > 1 AND version < 9", "edit 2 is missing")]
    [InlineData("UPDATE job_log SET change_set = '[{' WHERE version = 5 AND job_id = $id", "edit 5 cannot be read")]
    [InlineData(
        "UPDATE job_log SET change_set = 'gzip nonsense' WHERE version = 4 AND job_id = $id",
        "edit 4 cannot be read"
    )]
    public async Task A_hurt_log_is_named_its_job_opens_again_when_it_is_whole_and_the_others_open_at_once(
        string hurt,
        string says
    )
    {
        Older();
        Database.Open(folder.Path).Close();
        System.IO.File.Copy(File(), File("whole.db"));
        var database = Database.Open(folder.Path);
        using (var connection = database.Connect())
            Assert.InRange(connection.Run(hurt, ("$id", Server.Library)), 1, 9);
        database.Close();
        using var server = Server.StartIn(folder.Path);
        var refused = await server.Http.GetAsync($"/api/jobs/{Server.Library}");
        Assert.Equal(422, (int)refused.StatusCode);
        Assert.Contains(says, await refused.Content.ReadAsStringAsync());
        foreach (var other in new[] { 996, 997, 998 })
            Assert.True(
                (await server.Http.GetAsync($"/api/jobs/01930000-0000-7000-8000-000000000{other}")).IsSuccessStatusCode
            );
        // Mended while the server runs, it opens.
        using (var connection = database.Connect())
        {
            connection.Run($"ATTACH '{File("whole.db")}' AS whole");
            connection.Run(
                "INSERT OR REPLACE INTO job_log SELECT * FROM whole.job_log WHERE job_id = $id",
                ("$id", Server.Library)
            );
        }
        Assert.True((await server.Http.GetAsync($"/api/jobs/{Server.Library}")).IsSuccessStatusCode);
    }

    [Fact]
    public async Task An_entry_of_an_unknown_kind_is_left_out_and_named()
    {
        Older();
        var database = Database.Open(folder.Path);
        Guid id;
        using (var connection = database.Connect())
        {
            id = connection.Rows("SELECT id FROM book_entry ORDER BY id LIMIT 1", r => r.GetGuid(0))[0];
            connection.Run(
                "UPDATE book_entry SET content = replace(content, '\"kind\":\"', '\"kind\":\"un') WHERE id = $id",
                ("$id", id)
            );
        }
        Assert.Equal([id], new BookStore(database).Unread());
        database.Close();
        using var server = Server.StartIn(folder.Path);
        var entries = (await server.Http.GetFromJsonAsync<JsonObject>("/api/book"))!["entries"]!.AsArray();
        Assert.InRange(entries.Count, 100, 1000);
        Assert.DoesNotContain(entries, e => (string)e!["id"]! == id.ToString());
    }
}
