using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text;
using System.Text.Json.Nodes;
using MimeKit;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>A mail server of the firm's own: what is written goes there by itself, once; what it does not take waits and says why; its password is told to nobody.</summary>
public sealed class MailServerTests : IDisposable
{
    private const string Password = "open-sesame-4711";

    private readonly TemporaryFolder folder = new();
    private readonly FakeMailServer mailServer = new();
    private readonly Server server;

    public MailServerTests() => server = Server.StartWithOutside(folder.Path);

    public void Dispose()
    {
        server.Dispose();
        mailServer.Dispose();
        folder.Dispose();
    }

    /// <summary>Takes mail on this machine as a mail server does (RFC 5321, 3 and 4; RFC 4954 for the password), as far as the tests need it.</summary>
    private sealed class FakeMailServer : IDisposable
    {
        private readonly TcpListener listener = new(IPAddress.Loopback, 0);
        private readonly Lock at = new();
        private readonly List<(string To, string Signed, byte[] Content)> taken = [];

        public FakeMailServer()
        {
            listener.Start();
            _ = Serve();
        }

        public int Port => ((IPEndPoint)listener.LocalEndpoint).Port;

        /// <summary>Answers that it gives to a recipient in place of taking it, each once.</summary>
        public Queue<string> Answers { get; } = [];

        public List<(string To, string Signed, byte[] Content)> Taken
        {
            get
            {
                lock (at)
                    return [.. taken];
            }
        }

        public void Dispose() => listener.Dispose();

        private async Task Serve()
        {
            try
            {
                while (true)
                {
                    using var caller = await listener.AcceptTcpClientAsync();
                    await Talk(caller.GetStream());
                }
            }
            catch (Exception closed) when (closed is ObjectDisposedException or SocketException or IOException)
            {
                // It was closed with the test.
            }
        }

        private async Task Talk(NetworkStream stream)
        {
            // Bytes as they come: a mail is none but ASCII here.
            using var reader = new StreamReader(stream, Encoding.Latin1);
            await using var writer = new StreamWriter(stream, Encoding.Latin1) { NewLine = "\r\n", AutoFlush = true };
            await writer.WriteLineAsync("220 fake ESMTP");
            var (to, signed) = ("", "");
            while (await reader.ReadLineAsync() is { } line)
            {
                var word = line.Split(' ', ':')[0].ToUpperInvariant();
                if (word == "EHLO")
                    await writer.WriteAsync("250-fake\r\n250 AUTH PLAIN\r\n");
                else if (word == "AUTH")
                {
                    signed = Encoding.UTF8.GetString(Convert.FromBase64String(line.Split(' ')[2]));
                    await writer.WriteLineAsync(
                        signed.EndsWith(Password, StringComparison.Ordinal) ? "235 2.7.0 yes" : "535 5.7.8 no such name"
                    );
                }
                else if (word == "RCPT" && Answers.TryDequeue(out var answer))
                    await writer.WriteLineAsync(answer);
                else if (word == "RCPT")
                {
                    to = line.Split('<', '>')[1];
                    await writer.WriteLineAsync("250 yes");
                }
                else if (word == "DATA")
                {
                    await writer.WriteLineAsync("354 go on");
                    var content = new StringBuilder();
                    while (await reader.ReadLineAsync() is { } part and not ".")
                        content.Append(part.StartsWith('.') ? part[1..] : part).Append("\r\n");
                    lock (at)
                        taken.Add((to, signed, Encoding.Latin1.GetBytes(content.ToString())));
                    await writer.WriteLineAsync("250 taken");
                }
                else if (word == "QUIT")
                {
                    await writer.WriteLineAsync("221 bye");
                    return;
                }
                else
                    await writer.WriteLineAsync("250 yes");
            }
        }
    }

    private async Task<(int Status, JsonObject Answer)> SetServer(JsonObject now)
    {
        var was = await server.Http.GetFromJsonAsync<JsonObject>("/api/company/mail-server");
        var response = await server.Http.PutAsJsonAsync(
            "/api/company/mail-server",
            new JsonObject { ["was"] = was, ["now"] = now }
        );
        return ((int)response.StatusCode, (await response.Content.ReadFromJsonAsync<JsonObject>())!);
    }

    private JsonObject Local(bool on = true) =>
        new()
        {
            ["on"] = on,
            ["host"] = "127.0.0.1",
            ["port"] = mailServer.Port,
            ["security"] = "none",
            ["user"] = "larkspur",
        };

    private Task<HttpResponseMessage> SetPassword(string password) =>
        server.Http.PutAsJsonAsync("/api/company/mail-password", new JsonObject { ["password"] = password });

    private static JsonObject Message(params string[] to) =>
        new()
        {
            ["to"] = new JsonArray(
                [.. to.Select((a, i) => (JsonNode)new JsonObject { ["address"] = a, ["copy"] = i > 0 })]
            ),
            ["subject"] = "Proposal",
            ["words"] = "Good day, {link}",
        };

    private async Task<JsonArray> Outbox() => (await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!;

    /// <summary>The outbox as soon as something is true of it.</summary>
    private async Task<JsonArray> Until(Func<JsonArray, bool> isSo)
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(60));
        using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(200));
        do if (await Outbox() is var outbox && isSo(outbox))
            return outbox;
        while (await timer.WaitForNextTickAsync(patience.Token));
        throw new InvalidOperationException();
    }

    [Fact]
    public async Task What_is_written_goes_to_the_server_by_itself_once_and_its_link_is_cut_out_here()
    {
        // What was written before there was a server waits for a person.
        await server.SendRevision(Server.Library, Message("before@marsh.example"));
        await SetPassword(Password);
        Assert.Equal(200, (await SetServer(Local())).Status);
        var pottery = new Guid("01930000-0000-7000-8000-000000000996");
        await server.SendRevision(pottery, Message("ada@marsh.example", "bo@marsh.example"));
        var outbox = await Until(all => all.Count(m => (string)m!["gone"]! != "") == 2);
        Assert.Equal(["ada@marsh.example", "bo@marsh.example"], mailServer.Taken.Select(t => t.To));
        Assert.All(mailServer.Taken, t => Assert.Equal($"\0larkspur\0{Password}", t.Signed));
        var first = await MimeMessage.LoadAsync(new MemoryStream(mailServer.Taken[0].Content));
        Assert.Equal("ada@marsh.example", Assert.Single(first.To.Mailboxes).Address);
        Assert.Matches(@"Good day, http://127\.0\.0\.1:\d+/p/[\w-]{22}", first.TextBody);
        Assert.Equal("application/pdf", Assert.Single(first.Attachments).ContentType.MimeType);
        var copy = await MimeMessage.LoadAsync(new MemoryStream(mailServer.Taken[1].Content));
        Assert.Equal(("bo@marsh.example", 0), (Assert.Single(copy.Cc.Mailboxes).Address, copy.To.Count));
        Assert.Contains("cut out", (string)outbox[0]!["words"]!);
        // The one from before goes when a person says so, and none goes twice.
        var before = outbox.Single(m => (string)m!["to"]! == "before@marsh.example")!;
        Assert.Equal("", (string)before["gone"]!);
        for (var again = 0; again < 2; again++)
            Assert.Equal(
                200,
                (int)(await server.Http.PostAsync($"/api/outbox/{(Guid)before["id"]!}/send", null)).StatusCode
            );
        Assert.Equal(3, mailServer.Taken.Count);
        Assert.Equal("before@marsh.example", mailServer.Taken[2].To);
    }

    [Fact]
    public async Task What_the_server_does_not_take_waits_and_says_why()
    {
        await SetPassword(Password);
        await SetServer(Local());
        mailServer.Answers.Enqueue("550 5.1.1 nobody of that name");
        mailServer.Answers.Enqueue("451 4.3.0 too busy");
        await server.SendRevision(Server.Library, Message("no@marsh.example", "later@marsh.example"));
        var outbox = await Until(all => all.All(m => (string)m!["waits"]! != ""));
        Assert.Empty(mailServer.Taken);
        JsonNode Of(string to) => outbox.Single(m => (string)m!["to"]! == to)!;
        Assert.EndsWith("nobody of that name", (string)Of("no@marsh.example")["waits"]!);
        Assert.Matches("too busy; tried again .+", (string)Of("later@marsh.example")["waits"]!);
        // A person tries again at once.
        await server.Http.PostAsync($"/api/outbox/{(Guid)Of("no@marsh.example")["id"]!}/send", null);
        Assert.Equal("no@marsh.example", Assert.Single(mailServer.Taken).To);
        outbox = await Outbox();
        Assert.Equal(
            ("", true),
            ((string)Of("no@marsh.example")["waits"]!, (string)Of("no@marsh.example")["gone"]! != "")
        );
    }

    [Fact]
    public async Task A_server_is_tried_with_a_mail_to_the_firm_and_its_password_is_told_to_nobody()
    {
        async Task<(bool, string)> Try()
        {
            var response = await server.Http.PostAsync("/api/company/mail-server/try", null);
            var tried = (await response.Content.ReadFromJsonAsync<JsonObject>())!;
            return ((bool)tried["went"]!, (string)tried["says"]!);
        }
        Assert.Equal(200, (await SetServer(Local(on: false))).Status);
        await SetPassword("wrong");
        var (went, says) = await Try();
        Assert.Equal((false, true), (went, says.Contains("did not take name and password", StringComparison.Ordinal)));
        await SetPassword(Password);
        Assert.Equal((true, "The server has taken a mail to proposals@larkspur-pell.example."), await Try());
        Assert.Equal("proposals@larkspur-pell.example", Assert.Single(mailServer.Taken).To);
        // It stands open neither in an answer nor on disk.
        Assert.DoesNotContain(Password, await server.Http.GetStringAsync("/api/company/mail-server"));
        Assert.Equal("{\"isThere\":true}", await server.Http.GetStringAsync("/api/company/mail-password"));
        server.Kill();
        foreach (var file in Directory.EnumerateFiles(folder.Path, "*", SearchOption.AllDirectories))
            Assert.True(
                (await File.ReadAllBytesAsync(file)).AsSpan().IndexOf(Encoding.UTF8.GetBytes(Password)) < 0,
                file
            );
        // Where the key is not, as after a restore elsewhere, it is typed once more.
        Directory.Delete(Path.Combine(folder.Path, "keys"), recursive: true);
        using var elsewhere = Server.Start(folder.Path);
        Assert.Equal("{\"isThere\":false}", await elsewhere.Http.GetStringAsync("/api/company/mail-password"));
    }

    [Fact]
    public async Task What_is_no_server_is_refused_beside_its_field()
    {
        foreach (
            var (field, value, says) in new (string, JsonNode, string)[]
            {
                ("host", "", "Say first which server takes your mail."),
                ("host", "not a host", "That is no name of a server."),
                ("host", "1e999", "That is no name of a server."),
                ("port", 0, "A port is a number from 1 to 65535."),
                ("security", "none", "Without encryption only a server on this machine is spoken to"),
                ("user", "a\nb", "A name to sign in with is one line"),
            }
        )
        {
            var now = Local();
            (now["host"], now["security"]) = ("mail.larkspur-pell.example", "tls");
            now[field] = value.DeepClone();
            var (status, answer) = await SetServer(now);
            Assert.Equal((422, field), (status, (string)answer["field"]!));
            Assert.StartsWith(says, (string)answer["title"]!);
        }
    }
}
