using System.Buffers.Binary;
using System.Net;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Storage;
using Microsoft.Data.Sqlite;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Files by their content: taken in and handed out piece by piece, told by what is in them, kept while something names them, in every backup.</summary>
public sealed class FilesTests : IDisposable
{
    /// <summary>The smallest picture: one point (PNG).</summary>
    private static readonly byte[] Png = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
    );

    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    private string In(string name) => Path.Combine(folder.Path, name);

    private static string HashOf(byte[] content) => Convert.ToHexStringLower(SHA256.HashData(content));

    private static (string, int?, int?) NoKind(string path) => ("application/octet-stream", null, null);

    /// <summary>CRC-32 as PNG's chunks end with (ISO 3309, from memory).</summary>
    private static uint Crc(ReadOnlySpan<byte> of)
    {
        var crc = uint.MaxValue;
        foreach (var one in of)
        {
            crc ^= one;
            for (var bit = 0; bit < 8; bit++)
                crc = (crc & 1) == 1 ? crc >> 1 ^ 0xEDB88320 : crc >> 1;
        }
        return ~crc;
    }

    private static ByteArrayContent Bytes(byte[] content) =>
        new(content) { Headers = { ContentType = new("application/octet-stream") } };

    private static async Task<JsonObject> Send(Server server, byte[] content)
    {
        var response = await server.Http.PostAsync("/api/files", Bytes(content));
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        return (await response.Content.ReadFromJsonAsync<JsonObject>())!;
    }

    private static List<T> Rows<T>(string file, string sql, Func<SqliteDataReader, T> read)
    {
        using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        connection.Open();
        return connection.Rows(sql, read);
    }

    private static void Run(string file, string sql, params ReadOnlySpan<(string, object?)> parameters)
    {
        using var connection = new SqliteConnection($"Data Source={file};Pooling=False");
        connection.Open();
        connection.Run(sql, parameters);
    }

    /// <summary>The first material of the Book, shown with a picture.</summary>
    private static async Task<(int Status, JsonNode Answer)> ShowPicture(Server server, string hash)
    {
        var list = (await server.Http.GetFromJsonAsync<JsonObject>("/api/book?kind=material"))!;
        var id = (string)list["entries"]![0]!["id"]!;
        var entry = (await server.Http.GetFromJsonAsync<JsonObject>($"/api/book/{id}"))!["entry"]!.DeepClone();
        entry["picture"] = hash;
        var response = await server.Http.PutAsJsonAsync(
            $"/api/book/{id}",
            new JsonObject { ["was"] = (int)entry["version"]!, ["entry"] = entry }
        );
        return ((int)response.StatusCode, (await response.Content.ReadFromJsonAsync<JsonNode>())!);
    }

    [Fact]
    public async Task A_file_comes_back_as_it_was_sent_whole_or_in_part_and_stands_once_in_small_pieces()
    {
        using var server = Server.Start(folder.Path);
        var content = new byte[1_300_000];
        new Random(7).NextBytes(content);
        var kept = await Send(server, content);
        Assert.Equal(HashOf(content), (string)kept["hash"]!);
        Assert.Equal(content.Length, (int)kept["bytes"]!);
        Assert.Equal(HashOf(content), (string)(await Send(server, content))["hash"]!);
        var path = $"/api/files/{kept["hash"]}";
        Assert.Equal(content, await server.Http.GetByteArrayAsync(path));
        using var part = new HttpRequestMessage(HttpMethod.Get, path) { Headers = { Range = new(262_000, 262_299) } };
        var answered = await server.Http.SendAsync(part);
        Assert.Equal(HttpStatusCode.PartialContent, answered.StatusCode);
        Assert.Equal(content[262_000..262_300], await answered.Content.ReadAsByteArrayAsync());
        var pieces = Rows(
            In("emendum-files.db"),
            $"SELECT length(content) FROM piece WHERE hash = '{HashOf(content)}' ORDER BY at",
            r => r.GetInt32(0)
        );
        Assert.Equal([262_144, 262_144, 262_144, 262_144, 251_424], pieces);
        Assert.Empty(Directory.GetFiles(In("uploads")));
        Assert.Equal(404, (int)(await server.Http.GetAsync($"/api/files/{new string('0', 64)}")).StatusCode);
    }

    [Fact]
    public async Task Nothing_sent_is_a_file_of_no_bytes()
    {
        using var server = Server.Start(folder.Path);
        var nothing = await Send(server, []);
        Assert.Empty(await server.Http.GetByteArrayAsync($"/api/files/{nothing["hash"]}"));
    }

    [Theory]
    [InlineData("<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>", "application/octet-stream")]
    [InlineData("<html><script>alert(1)</script></html>", "application/octet-stream")]
    [InlineData("%PDF-1.7", "application/pdf")]
    [InlineData("GIF89a", "application/octet-stream")]
    public async Task Only_pictures_are_shown_in_place_everything_else_is_handed_out_to_be_saved(
        string text,
        string type
    )
    {
        using var server = Server.Start(folder.Path);
        var kept = await Send(server, Encoding.UTF8.GetBytes(text));
        var back = await server.Http.GetAsync($"/api/files/{kept["hash"]}");
        Assert.Equal(type, back.Content.Headers.ContentType!.MediaType);
        Assert.Equal("attachment", back.Content.Headers.ContentDisposition!.DispositionType);
        Assert.Equal("nosniff", back.Headers.GetValues("X-Content-Type-Options").Single());
        Assert.Equal("default-src 'none'; sandbox", back.Headers.GetValues("Content-Security-Policy").Single());
    }

    [Fact]
    public async Task A_picture_says_its_size_and_an_entry_shows_only_a_picture_that_is_here()
    {
        using var server = Server.Start(folder.Path);
        var (status, says) = await ShowPicture(server, HashOf(Png));
        Assert.Equal((422, "picture"), (status, (string)says["field"]!));
        var kept = await Send(server, Png);
        Assert.Equal(("image/png", 1, 1), ((string)kept["type"]!, (int)kept["width"]!, (int)kept["height"]!));
        Assert.Null((await server.Http.GetAsync($"/api/files/{kept["hash"]}")).Content.Headers.ContentDisposition);
        Assert.Equal(200, (await ShowPicture(server, HashOf(Png))).Status);

        var text = await Send(server, Encoding.UTF8.GetBytes("no picture"));
        Assert.Equal(
            "That is not a PNG, JPEG or WebP picture.",
            (string)(await ShowPicture(server, (string)text["hash"]!)).Answer["title"]!
        );

        // A head that promises 30,000 × 30,000 points: read, never decoded.
        var bomb = (byte[])Png.Clone();
        BinaryPrimitives.WriteInt32BigEndian(bomb.AsSpan(16), 30_000);
        BinaryPrimitives.WriteInt32BigEndian(bomb.AsSpan(20), 30_000);
        BinaryPrimitives.WriteUInt32BigEndian(bomb.AsSpan(29), Crc(bomb.AsSpan(12, 17)));
        var large = await Send(server, bomb);
        Assert.Equal(30_000, (int)large["width"]!);
        Assert.Contains(
            "too large: at most 20 MB and 60 million points",
            (string)(await ShowPicture(server, (string)large["hash"]!)).Answer["title"]!
        );
    }

    [Fact]
    public async Task What_nothing_ever_named_goes_after_its_days_and_what_was_named_stays()
    {
        var files = FileStore.Open(folder.Path);
        var (old, now) = (
            new DateTime(2026, 1, 1, 0, 0, 0, DateTimeKind.Utc),
            new DateTime(2026, 3, 1, 0, 0, 0, DateTimeKind.Utc)
        );
        Task<StoredFile> Take(string text, DateTime at) =>
            files.Take(new MemoryStream(Encoding.UTF8.GetBytes(text)), NoKind, at, default);
        var named = await Take("named", old);
        var unnamed = await Take("unnamed", old);
        var again = await Take("sent again", old);
        await Take("sent again", now);
        var young = await Take("young", now);
        files.Name(named.Hash);
        // An upload that was broken off between its pieces and its end.
        Run(In("emendum-files.db"), "INSERT INTO piece VALUES ('half', 0, x'00')");
        Assert.Equal(1, files.Sweep(old.AddDays(30)));
        Assert.Null(files.Find(unnamed.Hash));
        Assert.All([named, again, young], kept => Assert.True(files.IsWhole(kept)));
        Assert.Equal(
            new[] { again.Hash, named.Hash, young.Hash }.Order(StringComparer.Ordinal),
            Rows(In("emendum-files.db"), "SELECT DISTINCT hash FROM piece ORDER BY hash", r => r.GetString(0))
        );
        files.Close();
    }

    [Fact]
    public async Task Pictures_that_stood_in_the_database_are_moved_however_often_that_is_broken_off()
    {
        using (Server.Start(folder.Path)) { }
        var content = new byte[600_000];
        new Random(3).NextBytes(content);
        var hurt = new string('a', 64);
        Run(
            In("emendum.db"),
            "CREATE TABLE book_picture (hash TEXT PRIMARY KEY, type TEXT NOT NULL, content BLOB NOT NULL) STRICT"
        );
        foreach (var (hash, kept) in new[] { (HashOf(Png), Png), (HashOf(content), content), (hurt, content) })
            Run(
                In("emendum.db"),
                "INSERT INTO book_picture VALUES ($hash, 'image/png', $content)",
                ("$hash", hash),
                ("$content", kept)
            );
        // The last try was killed after the first piece.
        Run(
            In("emendum-files.db"),
            "INSERT INTO piece VALUES ($hash, 0, $content)",
            ("$hash", HashOf(content)),
            ("$content", content[..262_144])
        );
        for (var start = 0; start < 2; start++)
            using (var server = Server.Start(folder.Path))
            {
                Assert.Equal(Png, await server.Http.GetByteArrayAsync($"/api/files/{HashOf(Png)}"));
                Assert.Equal(content, await server.Http.GetByteArrayAsync($"/api/files/{HashOf(content)}"));
                Assert.Equal(404, (int)(await server.Http.GetAsync($"/api/files/{hurt}")).StatusCode);
            }
        // What is hurt keeps the table; without it the table goes.
        string[] Tables() =>
            [
                .. Rows(
                    In("emendum.db"),
                    "SELECT name FROM sqlite_master WHERE name = 'book_picture'",
                    r => r.GetString(0)
                ),
            ];
        Assert.Single(Tables());
        Run(In("emendum.db"), "DELETE FROM book_picture WHERE hash = $hash", ("$hash", hurt));
        using (Server.Start(folder.Path)) { }
        Assert.Empty(Tables());
    }

    [Fact]
    public async Task A_backup_takes_each_named_file_once_into_the_pool_beside_it_and_brings_it_back()
    {
        using (var server = Server.Start(In("data")))
        {
            Assert.Equal(200, (await ShowPicture(server, (string)(await Send(server, Png))["hash"]!)).Status);
            await Send(server, Encoding.UTF8.GetBytes("nothing names this"));
        }
        // The folder is somebody's own, and so is what stands in it.
        Directory.CreateDirectory(In("stick/uploads"));
        File.WriteAllText(In("stick/uploads/mine.txt"), "mine");
        foreach (var name in new[] { "stick/one.db", "stick/two.db" })
        {
            var (code, said, error) = DocumentTests.Run(_ => { }, "backup", In(name), "--data", In("data"));
            Assert.Equal((0, ""), (code, error));
            // The picture, and the PDFs of the five proposals that the demo has sent.
            Assert.Contains(", 9 files in emendum-files.db beside it", said);
        }
        Assert.Equal("mine", File.ReadAllText(In("stick/uploads/mine.txt")));
        var taken = Rows(
            In("stick/emendum-files.db"),
            "SELECT hash FROM file WHERE type = 'image/png' OR type = 'application/octet-stream'",
            r => r.GetString(0)
        );
        Assert.Equal([HashOf(Png)], taken);
        Assert.Equal(0, DocumentTests.Run(_ => { }, "restore", In("stick/two.db"), "--data", In("other")).Code);
        using (var server = Server.Start(In("other")))
            Assert.Equal(Png, await server.Http.GetByteArrayAsync($"/api/files/{HashOf(Png)}"));

        // A file in the pool that is hurt is said, and nothing is put back.
        Run(
            In("stick/emendum-files.db"),
            "UPDATE piece SET content = zeroblob(length(content)) WHERE hash = $hash",
            ("$hash", HashOf(Png))
        );
        var (hurt, _, says) = DocumentTests.Run(_ => { }, "verify", In("stick/one.db"));
        Assert.Equal(2, hurt);
        Assert.Contains($"the file {HashOf(Png)} beside it is not whole", says);
    }
}
