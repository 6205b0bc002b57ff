using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Emendum.Core;
using Emendum.Documents.Tables;
using Emendum.Storage;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>What is too large is refused while it is read: bytes read and memory taken are counted, not time.</summary>
public sealed class UploadTests
{
    /// <summary>A body of so many zeros that counts how many were taken.</summary>
    private sealed class Zeros(long length) : Stream
    {
        public long Taken { get; private set; }

        public override int Read(byte[] buffer, int offset, int count)
        {
            var read = (int)Math.Min(count, length - Taken);
            buffer.AsSpan(offset, read).Clear();
            Taken += read;
            return read;
        }

        // At once and on the same thread, so that what a reader takes can be counted.
        public override ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default)
        {
            var read = (int)Math.Min(buffer.Length, length - Taken);
            buffer.Span[..read].Clear();
            Taken += read;
            return ValueTask.FromResult(read);
        }

        public override bool CanRead => true;
        public override bool CanSeek => false;
        public override bool CanWrite => false;
        public override long Length => throw new NotSupportedException();
        public override long Position
        {
            get => throw new NotSupportedException();
            set => throw new NotSupportedException();
        }

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }

    private sealed class Sent(long length, bool said) : HttpContent
    {
        protected override Task SerializeToStreamAsync(Stream stream, TransportContext? context) =>
            new Zeros(length).CopyToAsync(stream);

        protected override bool TryComputeLength(out long computed)
        {
            computed = length;
            return said;
        }
    }

    private static long Allocated(Action run)
    {
        var before = GC.GetAllocatedBytesForCurrentThread();
        run();
        return GC.GetAllocatedBytesForCurrentThread() - before;
    }

    private static string Refused(byte[] table) =>
        Assert.Throws<RefusedException>(() => TableFile.Read(table, 0)).Refusal.Message;

    [Fact]
    public void A_text_of_one_endless_row_is_refused_for_little_memory()
    {
        var commas = Encoding.ASCII.GetBytes(string.Concat(Enumerable.Repeat("1,", 4_900_000)));
        var words = Encoding.ASCII.GetBytes(new string('x', 9_800_000));
        var quoted = Encoding.ASCII.GetBytes("\"" + string.Concat(Enumerable.Repeat("a\n", 4_900_000)));
        var says = new List<string>();
        foreach (var table in new[] { commas, words, quoted })
        {
            var taken = Allocated(() => says.Add(Refused(table)));
            Assert.True(taken < 6_000_000, $"{taken} bytes to say: {says[^1]}");
        }
        Assert.Equal("A table has at most 200 columns.", says[0]);
        Assert.Contains("over 32,000 characters", says[1]);
        Assert.Contains("over 32,000 characters", says[2]);
    }

    [Fact]
    public void Marks_for_inches_do_not_make_rows_run_together()
    {
        var line = "Room,12'6\",5\" pipe,\"said \"\"here\"\", and\nthere\"\r\n";
        var table = TableFile.Read(
            Encoding.UTF8.GetBytes("a,b,c,d\n" + string.Concat(Enumerable.Repeat(line, 15_000))),
            0
        );
        Assert.Equal(15_000, table.Rows.Count);
        Assert.Equal(["Room", "12'6\"", "5\" pipe", "said \"here\", and\nthere"], table.Rows[14_999]);
    }

    [Fact]
    public void A_workbook_row_of_a_million_cells_is_refused_for_little_memory()
    {
        using var file = new MemoryStream();
        using (var archive = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
        {
            void Part(string name, Action<StreamWriter> write)
            {
                using var writer = new StreamWriter(archive.CreateEntry(name).Open());
                write(writer);
            }
            const string Main = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
            const string Office = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";
            const string Package = "http://schemas.openxmlformats.org/package/2006";
            Part(
                "[Content_Types].xml",
                w =>
                    w.Write(
                        $"<Types xmlns=\"{Package}/content-types\"><Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
                            + "<Override PartName=\"/xl/workbook.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml\"/>"
                            + "<Override PartName=\"/xl/worksheets/sheet1.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml\"/></Types>"
                    )
            );
            Part(
                "_rels/.rels",
                w =>
                    w.Write(
                        $"<Relationships xmlns=\"{Package}/relationships\"><Relationship Id=\"r1\" Type=\"{Office}/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>"
                    )
            );
            Part(
                "xl/workbook.xml",
                w =>
                    w.Write(
                        $"<workbook xmlns=\"{Main}\" xmlns:r=\"{Office}\"><sheets><sheet name=\"S\" sheetId=\"1\" r:id=\"r1\"/></sheets></workbook>"
                    )
            );
            Part(
                "xl/_rels/workbook.xml.rels",
                w =>
                    w.Write(
                        $"<Relationships xmlns=\"{Package}/relationships\"><Relationship Id=\"r1\" Type=\"{Office}/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>"
                    )
            );
            var random = new Random(1);
            Part(
                "xl/worksheets/sheet1.xml",
                w =>
                {
                    w.Write($"<worksheet xmlns=\"{Main}\"><sheetData><row>");
                    for (var i = 0; i < 1_000_000; i++)
                        w.Write($"<c><v>{random.Next(100_000)}</v></c>");
                    w.Write("</row></sheetData></worksheet>");
                }
            );
        }
        var (table, said) = (file.ToArray(), "");
        Assert.InRange(Allocated(() => said = Refused(table)), 1, 6_000_000);
        Assert.Equal("A table has at most 200 columns.", said);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void A_body_that_is_too_large_is_not_handed_on_and_costs_no_memory(bool said)
    {
        var handed = 0L;
        var bodies = new Bodies(async context =>
        {
            var buffer = new byte[80_000];
            for (int read; (read = await context.Request.Body.ReadAsync(buffer)) > 0; )
                handed += read;
        });
        var sent = new Zeros(100_000_000);
        var context = new DefaultHttpContext
        {
            RequestServices = new ServiceCollection().AddLogging().AddProblemDetails().BuildServiceProvider(),
        };
        (context.Request.Body, context.Request.ContentLength) = (sent, said ? 100_000_000 : null);
        context.Response.Body = new MemoryStream();
        // This thread's memory: other tests run beside it.
        var answered = Task.CompletedTask;
        var taken = Allocated(() => answered = bodies.InvokeAsync(context));
        Assert.True(answered.IsCompletedSuccessfully);
        Assert.InRange(taken, 1, 1_000_000);
        Assert.Equal(413, context.Response.StatusCode);
        Assert.InRange(handed, 0, Bodies.Most);
        // What was on its way has run out, so that the answer is seen.
        Assert.Equal(100_000_000, sent.Taken);
    }

    [Fact]
    public async Task A_hundred_megabytes_sent_to_any_operation_are_answered_in_a_sentence()
    {
        using var folder = new TemporaryFolder();
        using var server = Server.Start(folder.Path);
        var description = JsonNode.Parse(await server.Http.GetStringAsync("/api/openapi.json"))!;
        var tried = 0;
        foreach (var (path, operations) in description["paths"]!.AsObject())
        {
            foreach (var (method, operation) in operations!.AsObject())
            {
                if (method is not ("post" or "put") || operation!["requestBody"] is null)
                    continue;
                var address = path.Replace("{purpose}", "places", StringComparison.Ordinal);
                address = System.Text.RegularExpressions.Regex.Replace(address, @"\{\w+\}", Server.Library.ToString());
                var said = tried++ % 5 != 0;
                var request = new HttpRequestMessage(HttpMethod.Parse(method), address)
                {
                    // Files may be larger than anything else.
                    Content = new Sent(path == "/api/files" ? FileStore.MostBytes + 10_000_000 : 100_000_000, said),
                };
                // As the operation takes it; what comes as something else finds none.
                request.Content.Headers.ContentType = new(
                    operation["requestBody"]!["content"]!.AsObject().Select(c => c.Key).First()
                );
                var response = await server.Http.SendAsync(request);
                // Where no length is said, JSON may be seen to be none before it is seen to be too large.
                var says = await response.Content.ReadAsStringAsync();
                if (!said && (int)response.StatusCode == 400)
                    Assert.Contains("cannot be read", says);
                else
                    Assert.True(says.Contains("too large: at most"), $"{method} {path}, {said}: {says}");
                Assert.True((int)response.StatusCode == 413 || !said, $"{method} {path}: {response.StatusCode}");
            }
        }
        Assert.InRange(tried, 20, 200);
    }
}
