using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json.Nodes;
using MimeKit;
using Xunit;

namespace Emendum.Web.Tests;

/// <summary>Mail with a proposal: written with the fact that it belongs to, read back by a library of mail.</summary>
public sealed class MailTests : IDisposable
{
    private readonly TemporaryFolder folder = new();

    public void Dispose() => folder.Dispose();

    private static string At(string rest = "") => $"/api/jobs/{Server.Library}/revisions{rest}";

    private static JsonObject Message(
        string to,
        string? copy = null,
        string subject = "Proposal",
        string words = "Good day."
    )
    {
        var people = new JsonArray(new JsonObject { ["address"] = to, ["copy"] = false });
        if (copy is not null)
            people.Add(new JsonObject { ["address"] = copy, ["copy"] = true });
        return new()
        {
            ["to"] = people,
            ["subject"] = subject,
            ["words"] = words,
        };
    }

    private static async Task<(int Status, JsonObject Answer)> Send(
        Server server,
        Guid id,
        Guid fact,
        JsonObject? message
    ) =>
        await server.Post(
            At(),
            new JsonObject
            {
                ["id"] = id,
                ["fact"] = fact,
                ["base"] = (long)(await server.Job())["version"]!,
                ["how"] = "",
                ["despite"] = "",
                ["day"] = "",
                ["time"] = "",
                ["message"] = message?.DeepClone(),
            }
        );

    private static async Task<JsonArray> Outbox(Server server) =>
        (await server.Http.GetFromJsonAsync<JsonArray>("/api/outbox"))!;

    private static async Task<(byte[] Bytes, MimeMessage Read)> File(Server server, Guid mail)
    {
        var bytes = await server.Http.GetByteArrayAsync($"/api/outbox/{mail}/file");
        return (bytes, await MimeMessage.LoadAsync(new MemoryStream(bytes)));
    }

    [Fact]
    public async Task A_revision_goes_out_by_mail_once_with_its_figures_filled_in_and_its_PDF_as_it_was_kept()
    {
        using var server = Server.Start(folder.Path);
        var (id, fact) = (Guid.CreateVersion7(), Guid.CreateVersion7());
        var message = Message(
            "ada@saltmarsh-library.example",
            "bo@saltmarsh-library.example",
            "Proposal {number}, {revision} – für die Bücherei",
            "Good day,\n\nit comes to {total}.\n.\nFrom a line that begins like a mail's own.\n"
        );
        var (status, answer) = await Send(server, id, fact, message);
        Assert.Equal(200, status);
        // The same again is answered, and writes no second mail.
        Assert.Equal(200, (await Send(server, id, fact, message)).Status);
        var sent = answer["revisions"]![0]!["history"]![0]!;
        Assert.Equal(
            "mail to ada@saltmarsh-library.example, copy to bo@saltmarsh-library.example",
            (string)sent["words"]!
        );
        // A mail to each of them.
        var (first, copy) = ((Guid)sent["mails"]![0]!["id"]!, (Guid)sent["mails"]![1]!["id"]!);
        Assert.Equal([copy, first], (await Outbox(server)).Select(m => (Guid)m!["id"]!));
        Assert.All(
            await Outbox(server),
            m =>
                Assert.Equal(
                    ("A", "Proposal 2041, A – für die Bücherei", "", false),
                    ((string)m!["brings"]!, (string)m["subject"]!, (string)m["gone"]!, (bool)m["hasLink"]!)
                )
        );
        var (bytes, mail) = await File(server, first);
        Assert.Equal("proposals@larkspur-pell.example", Assert.Single(mail.From.Mailboxes).Address);
        Assert.Equal("ada@saltmarsh-library.example", Assert.Single(mail.To.Mailboxes).Address);
        Assert.Empty(mail.Cc.Concat(mail.Bcc));
        var toCopy = (await File(server, copy)).Read;
        Assert.Equal("bo@saltmarsh-library.example", Assert.Single(toCopy.Cc.Mailboxes).Address);
        Assert.Empty(toCopy.To);
        Assert.Equal("Proposal 2041, A – für die Bücherei", mail.Subject);
        var total = (string)answer["revisions"]![0]!["total"]!;
        Assert.Equal(
            $"Good day,\n\nit comes to {total}.\n.\nFrom a line that begins like a mail's own.\n",
            mail.TextBody!.ReplaceLineEndings("\n")
        );
        var paper = Assert.IsType<MimePart>(Assert.Single(mail.Attachments));
        Assert.Equal("application/pdf", paper.ContentType.MimeType);
        Assert.EndsWith(", revision A.pdf", paper.FileName!, StringComparison.Ordinal);
        using var content = new MemoryStream();
        await paper.Content!.DecodeToAsync(content);
        Assert.Equal(await server.Http.GetByteArrayAsync(At($"/{id}/pdf")), content.ToArray());
        // The same mail has the same bytes each time, and no line is longer than a mail's may be (RFC 5322, 2.1.1).
        Assert.Equal(SHA256.HashData(bytes), SHA256.HashData((await File(server, first)).Bytes));
        Assert.All(System.Text.Encoding.ASCII.GetString(bytes).Split("\r\n"), line => Assert.True(line.Length <= 998));
        Assert.DoesNotContain(bytes, b => b > 127);
    }

    [Fact]
    public async Task It_goes_out_again_as_it_was_whatever_the_job_has_become()
    {
        using var server = Server.Start(folder.Path);
        var (id, first, second) = (Guid.CreateVersion7(), Guid.CreateVersion7(), Guid.CreateVersion7());
        var answer = (await Send(server, id, first, Message("ada@a.example"))).Answer;
        var total = (string)answer["revisions"]![0]!["total"]!;
        await server.Do(
            "setPricing",
            new JsonObject
            {
                ["field"] = "overhead",
                ["was"] = "14",
                ["now"] = "20",
            }
        );
        var again = new JsonObject
        {
            ["fact"] = second,
            ["message"] = Message("ada@a.example", words: "Still {total}, revision {revision}."),
        };
        foreach (var _ in new[] { 1, 2 })
        {
            (var status, answer) = await server.Post(At($"/{id}/mails"), again.DeepClone());
            Assert.Equal(200, status);
        }
        Assert.Equal(2, answer["revisions"]![0]!["history"]!.AsArray().Count);
        var ids = answer["revisions"]![0]!["history"]!.AsArray().Select(f => (Guid)f!["mails"]![0]!["id"]!).ToList();
        Assert.Equal([ids[1], ids[0]], (await Outbox(server)).Select(m => (Guid)m!["id"]!));
        Assert.Equal($"Still {total}, revision A.", (await File(server, ids[1])).Read.TextBody!.Trim());
        var draft = (await server.Http.GetFromJsonAsync<JsonObject>(At($"/message?revision={id}")))!;
        Assert.Contains(total, (string)draft["words"]!);
        draft = (await server.Http.GetFromJsonAsync<JsonObject>(At("/message")))!;
        Assert.DoesNotContain(total, (string)draft["words"]!);
        Assert.Equal("office@saltmarsh-library.example", (string)draft["to"]!);
    }

    [Fact]
    public async Task What_cannot_go_out_is_refused_beside_its_field_and_leaves_neither_revision_nor_mail()
    {
        using var server = Server.Start(folder.Path);
        async Task Refused(JsonObject message, string field, string says)
        {
            var (status, answer) = await Send(server, Guid.CreateVersion7(), Guid.CreateVersion7(), message);
            Assert.Equal((422, field), (status, (string)answer["field"]!));
            Assert.Contains(says, (string)answer["title"]!, StringComparison.Ordinal);
        }
        await Refused(Message("ada"), "to", "is not an e-mail address");
        await Refused(Message("ada@a.example\r\nBcc: bo@a.example"), "to", "is not an e-mail address");
        await Refused(Message("ada@a.example", subject: "Hello\r\nBcc: bo@a.example"), "subject", "one line");
        await Refused(Message("ada@a.example", words: "{totl}"), "words", "There is no figure “totl”");
        await Refused(Message("ada@a.example", words: "{a year}"), "words", "comes to nothing in this job");
        await Refused(Message("ada@a.example", words: "See {link}."), "words", "started without --public");
        var messages = (await server.Http.GetFromJsonAsync<JsonObject>("/api/company/messages"))!;
        var nowhere = messages.DeepClone();
        nowhere["from"] = "";
        var saved = await server.Http.PutAsJsonAsync(
            "/api/company/messages",
            new JsonObject { ["was"] = messages, ["now"] = nowhere }
        );
        Assert.True(saved.IsSuccessStatusCode);
        await Refused(Message("ada@a.example"), "from", "no e-mail address yet");
        Assert.Empty((await server.Http.GetFromJsonAsync<JsonObject>(At()))!["revisions"]!.AsArray());
        Assert.Empty(await Outbox(server));
        Assert.Equal(404, (int)(await server.Http.GetAsync($"/api/outbox/{Guid.CreateVersion7()}/file")).StatusCode);
    }
}
