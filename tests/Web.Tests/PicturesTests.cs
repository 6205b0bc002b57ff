using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Documents;
using SkiaSharp;
using UglyToad.PdfPig;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Pictures and attachments of a proposal: brought in as they are, given out upright and without what their files say beside them, and by nobody's link but the revision's.</summary>
public sealed class PicturesTests : IDisposable
{
    private const string Secret = "54.3210N 1.2345W";

    private readonly TemporaryFolder folder = new();
    private readonly Server server;

    public PicturesTests() => server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        folder.Dispose();
    }

    /// <summary>
    /// A photo as a telephone held upright takes it: 40 × 20 points, red at the left and blue at the right, with an EXIF segment that says "turn it a quarter to the right" (orientation 6) and where it was taken.
    /// The layout of that segment: Exif 2.32, 4.5 and 4.6 (from memory).
    /// </summary>
    private static byte[] Photo()
    {
        using var bitmap = new SKBitmap(40, 20);
        for (var x = 0; x < 40; x++)
        for (var y = 0; y < 20; y++)
            bitmap.SetPixel(x, y, x < 20 ? SKColors.Red : SKColors.Blue);
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Jpeg, 95);
        var plain = encoded.ToArray();
        var place = Encoding.ASCII.GetBytes(Secret + "\0");
        byte[] tiff =
        [
            .. "MM\0*"u8,
            .. new byte[] { 0, 0, 0, 8, 0, 2 },
            // ImageDescription, text, its length, and where it stands: after this table of 2 entries.
            .. new byte[] { 1, 0x0E, 0, 2, 0, 0, 0, (byte)place.Length, 0, 0, 0, 38 },
            // Orientation, a number, 6.
            .. new byte[] { 1, 0x12, 0, 3, 0, 0, 0, 1, 0, 6, 0, 0 },
            .. new byte[] { 0, 0, 0, 0 },
            .. place,
        ];
        byte[] segment = [.. "Exif\0\0"u8, .. tiff];
        var length = segment.Length + 2;
        return [.. plain[..2], 0xFF, 0xE1, (byte)(length >> 8), (byte)length, .. segment, .. plain[2..]];
    }

    private async Task<JsonObject> Keep(byte[] content)
    {
        using var body = new ByteArrayContent(content);
        body.Headers.ContentType = new("application/octet-stream");
        using var kept = await server.Http.PostAsync("/api/files", body);
        return (await kept.Content.ReadFromJsonAsync<JsonObject>())!;
    }

    private static JsonObject File(JsonObject kept, string words) =>
        new()
        {
            ["file"] = kept["hash"]!.DeepClone(),
            ["words"] = words,
            ["width"] = kept["width"]?.DeepClone() ?? 0,
            ["height"] = kept["height"]?.DeepClone() ?? 0,
        };

    private async Task<(int Status, JsonObject Answer)> AddBlock(Guid id, string kind, params JsonObject[] files) =>
        await server.Do(
            "addBlock",
            new JsonObject
            {
                ["block"] = new JsonObject
                {
                    ["id"] = id,
                    ["kind"] = kind,
                    ["rank"] = "",
                    ["files"] = new JsonArray([.. files]),
                },
                ["after"] = null,
            }
        );

    private Task<(int Status, JsonObject Answer)> Set(Guid block, string field, JsonNode? was, JsonNode? now) =>
        server.Do(
            "setBlock",
            new JsonObject
            {
                ["block"] = block,
                ["field"] = field,
                ["was"] = was,
                ["now"] = now,
            }
        );

    private static bool Says(byte[] bytes, string words) => bytes.AsSpan().IndexOf(Encoding.ASCII.GetBytes(words)) >= 0;

    [Fact]
    public async Task A_photo_leaves_the_house_upright_and_without_where_it_was_taken()
    {
        var photo = Photo();
        Assert.True(Says(photo, Secret));
        var kept = await Keep(photo);
        Assert.Equal((20, 40), ((int)kept["width"]!, (int)kept["height"]!));
        var (status, _) = await AddBlock(Guid.CreateVersion7(), "pictures", File(kept, "The hall, from the door"));
        Assert.Equal(200, status);
        var hash = (string)kept["hash"]!;
        Assert.Equal(photo, await server.Http.GetByteArrayAsync($"/api/files/{hash}"));
        var leaving = await server.Http.GetByteArrayAsync($"/api/files/{hash}/picture");
        Assert.False(Says(leaving, Secret));
        using (var seen = SKBitmap.Decode(leaving))
        {
            Assert.Equal((20, 40), (seen.Width, seen.Height));
            // A quarter to the right brings the left side up.
            Assert.True(seen.GetPixel(10, 5) is { Red: > 200, Blue: < 60 }, $"{seen.GetPixel(10, 5)}");
            Assert.True(seen.GetPixel(10, 35) is { Blue: > 200, Red: < 60 }, $"{seen.GetPixel(10, 35)}");
        }
        var pdf = await server.Http.GetByteArrayAsync($"/api/jobs/{Server.Library}/proposal.pdf");
        Assert.False(Says(pdf, Secret));
        Assert.Equal(pdf, await server.Http.GetByteArrayAsync($"/api/jobs/{Server.Library}/proposal.pdf"));
        using (var read = PdfDocument.Open(pdf))
        {
            var image = Assert.Single(read.GetPages().SelectMany(p => p.GetImages()));
            // As high as it is wide, twice: it is not pressed into another shape.
            Assert.Equal(2, image.BoundingBox.Height / image.BoundingBox.Width, 2);
            Assert.Contains(
                "Thehall,fromthedoor",
                string.Concat(read.GetPages().Select(p => p.Text)).Replace(" ", "", StringComparison.Ordinal)
            );
        }
        var revision = await server.SendRevision(Server.Library);
        var link = await server.LinkTo(Server.Library, revision, "Ida Marrow", signs: true);
        var page = await server.Outside.GetStringAsync(link + "/page");
        Assert.Contains("The hall, from the door", page);
        Assert.Equal(leaving, await server.Outside.GetByteArrayAsync($"{link}/shown/{hash}"));
        // It is no way to other files: neither to one that is not in the document, nor to the PDF.
        var other = (string)(await Keep([.. photo, 0]))["hash"]!;
        foreach (var path in new[] { $"/shown/{other}", $"/attached/{hash}", "/shown/nothing" })
            Assert.Equal(HttpStatusCode.NotFound, (await server.Outside.GetAsync(link + path)).StatusCode);
    }

    [Fact]
    public async Task What_is_attached_goes_as_it_is_with_the_mail_and_stands_on_the_page_unless_it_is_hidden()
    {
        var (photo, paper) = (await Keep(Photo()), "%PDF-1.4 a paper of the insurer"u8.ToArray());
        var kept = await Keep(paper);
        var (shown, hidden) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var (status, _) = await AddBlock(shown, "attachments", File(kept, "Insurance.pdf"), File(photo, "Hall.png"));
        Assert.Equal(200, status);
        Assert.Equal(200, (await AddBlock(hidden, "pictures", File(photo, "Not for them"))).Status);
        Assert.Equal(200, (await Set(hidden, "hidden", false, true)).Status);
        var revision = await server.SendRevision(
            Server.Library,
            new JsonObject
            {
                ["to"] = new JsonArray(new JsonObject { ["address"] = "ida@marrow.example", ["copy"] = false }),
                ["subject"] = "Proposal",
                ["words"] = "Good day.",
            }
        );
        var outbox = (await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!;
        Assert.Equal(["Insurance.pdf", "Hall.png"], outbox[0]!["attached"]!.AsArray().Select(a => (string)a!).Skip(1));
        var mail = await MimeKit.MimeMessage.LoadAsync(
            await server.Http.GetStreamAsync($"/api/outbox/{(Guid)outbox[0]!["id"]!}/file")
        );
        var parts = mail.Attachments.Cast<MimeKit.MimePart>().ToArray();
        Assert.Equal(["application/pdf", "application/pdf", "image/jpeg"], parts.Select(p => p.ContentType.MimeType));
        Assert.Equal(["Insurance.pdf", "Hall.jpg"], parts.Skip(1).Select(p => p.FileName!));
        using var content = new MemoryStream();
        await parts[1].Content!.DecodeToAsync(content);
        Assert.Equal(paper, content.ToArray());
        using var picture = new MemoryStream();
        await parts[2].Content!.DecodeToAsync(picture);
        Assert.False(Says(picture.ToArray(), Secret));
        var link = await server.LinkTo(Server.Library, revision, "Ida Marrow", signs: true);
        Assert.DoesNotContain("Not for them", await server.Outside.GetStringAsync(link + "/page"));
        using var given = await server.Outside.GetAsync($"{link}/attached/{(string)kept["hash"]!}");
        Assert.Equal("attachment", given.Content.Headers.ContentDisposition!.DispositionType);
        Assert.Equal(paper, await given.Content.ReadAsByteArrayAsync());
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await server.Outside.GetAsync($"{link}/shown/{(string)photo["hash"]!}")).StatusCode
        );
    }

    [Fact]
    public async Task A_block_takes_no_file_that_is_not_here_or_is_not_what_it_is_said_to_be()
    {
        var (photo, paper) = (await Keep(Photo()), await Keep("%PDF-1.4 a paper"u8.ToArray()));
        var text = await Keep("a text"u8.ToArray());
        var twice = File(photo, "");
        var otherwise = File(photo, "");
        otherwise["width"] = 40;
        var unknown = File(photo, "");
        unknown["file"] = new string('a', 64);
        foreach (
            var (kind, files, says) in new (string, JsonObject[], string)[]
            {
                ("pictures", [unknown], "That file is not here. Choose it once more."),
                ("pictures", [otherwise], "That picture is 20 × 40 points."),
                ("pictures", [File(paper, "")], "That is not a PNG, JPEG or WebP picture."),
                ("pictures", [twice, File(photo, "again")], "That file is here already."),
                ("attachments", [File(text, "a.txt")], "That is neither a PDF nor a PNG, JPEG or WebP picture."),
                ("attachments", [File(paper, " ")], "What is attached has a name."),
                ("letter", [File(photo, "")], "“Letter” holds no files."),
            }
        )
        {
            var (status, answer) = await AddBlock(Guid.CreateVersion7(), kind, files);
            Assert.Equal((422, says, "files"), (status, (string)answer["title"]!, (string)answer["field"]!));
        }
        // What is no list at all is refused like any other wrong field.
        var block = Guid.CreateVersion7();
        Assert.Equal(200, (await AddBlock(block, "pictures", File(photo, ""))).Status);
        foreach (var wrong in new[] { "[null]", "{}", "[{\"file\":1}]", "7" })
        {
            var (status, _) = await Set(block, "files", new JsonArray(File(photo, "")), JsonNode.Parse(wrong));
            Assert.Equal(422, status);
        }
    }

    [Fact]
    public void A_large_picture_becomes_no_larger_than_needed_and_what_is_transparent_stays_so()
    {
        using var wide = new SKBitmap(4000, 1000);
        wide.Erase(SKColors.Teal);
        using var png = wide.Encode(SKEncodedImageFormat.Png, 100);
        using (var made = SKBitmap.Decode(PictureOut.Of(png.ToArray())))
            Assert.Equal((PictureOut.MostPoints, PictureOut.MostPoints / 4), (made.Width, made.Height));
        using var clear = new SKBitmap(8, 8);
        clear.Erase(SKColors.Transparent);
        using var through = clear.Encode(SKEncodedImageFormat.Png, 100);
        using (var made = SKBitmap.Decode(PictureOut.Of(through.ToArray())))
            Assert.Equal(0, made.GetPixel(3, 3).Alpha);
        Assert.Null(PictureOut.Of("no picture"u8.ToArray()));
    }
}
