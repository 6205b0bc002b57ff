using System.Collections.Concurrent;
using System.Net.Sockets;
using Emendum.Core.Proposals;
using Emendum.Storage;
using MailKit.Net.Smtp;
using MailKit.Security;
using Microsoft.Data.Sqlite;
using MimeKit;

namespace Emendum.Web.Mails;

/// <summary>Why a mail stands in the outbox still.</summary>
/// <param name="Says">What the server said, or why it could not be reached.</param>
/// <param name="Again">When it is tried again (UTC); null where only a person tries again.</param>
/// <param name="Tries">How often it was tried.</param>
public sealed record Trouble(string Says, DateTime? Again, int Tries);

/// <summary>
/// Takes mail from the outbox to the firm's mail server, where it has one. A mail is marked as gone when the server has taken it; if this machine stops between the two, it goes twice, with the same message id, rather than not at
/// all. What a server refuses for good waits for a person; what did not work just now is tried again, less and less often.
/// </summary>
public sealed class Postman(
    MailStore mails,
    OutgoingMail outgoing,
    SettingStore settings,
    MailPassword password,
    TimeProvider time,
    ILogger<Postman> log
) : BackgroundService
{
    /// <summary>How often it looks.</summary>
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(3);

    /// <summary>How long a server may think about one step.</summary>
    private const int PatienceMilliseconds = 30_000;

    private static readonly TimeSpan[] Pauses =
    [
        TimeSpan.FromMinutes(1),
        TimeSpan.FromMinutes(5),
        TimeSpan.FromMinutes(15),
        TimeSpan.FromHours(1),
    ];

    private readonly ConcurrentDictionary<Guid, Trouble> troubles = [];
    private readonly SemaphoreSlim one = new(1);

    private DateTime Now => time.GetUtcNow().UtcDateTime;

    /// <summary>The firm's mail server.</summary>
    public MailServer Server => settings.Get(MailServer.Setting, MailServer.Starting);

    /// <summary>Why a mail stands here still; null where it was not tried, or has gone.</summary>
    public Trouble? TroubleOf(Guid mail) => troubles.GetValueOrDefault(mail);

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every, time);
        while (await timer.WaitForNextTickAsync(stoppingToken))
            try
            {
                if (Server.On)
                    foreach (var mail in mails.Waiting().Where(IsDue))
                        await Take(mail, stoppingToken);
            }
            catch (SqliteException wrong)
            {
                log.LogError("Mail waits: {Reason}", wrong.Message);
            }
    }

    private bool IsDue(Mail mail) => TroubleOf(mail.Id) is not { } trouble || trouble.Again <= Now;

    /// <summary>Takes a mail to the server now, whoever asks.</summary>
    /// <returns>Why it did not go; null where it went.</returns>
    public async Task<Trouble?> Take(Mail mail, CancellationToken stop)
    {
        await one.WaitAsync(stop);
        try
        {
            if (mails.Find(mail.Id) is not { Gone: null } waiting)
                return null;
            using var content = new MemoryStream(await outgoing.Of(waiting));
            using var message = await MimeMessage.LoadAsync(content, stop);
            if (await Send(message, stop) is { } wrong)
            {
                var tries = (TroubleOf(mail.Id)?.Tries ?? 0) + 1;
                var pause = Pauses[Math.Min(tries, Pauses.Length) - 1];
                return troubles[mail.Id] = new(wrong.Says, wrong.ForGood ? null : Now + pause, tries);
            }
            mails.Goes(mail.Id, Now);
            troubles.TryRemove(mail.Id, out _);
            return null;
        }
        finally
        {
            one.Release();
        }
    }

    /// <summary>Sends a message of no job to the firm itself, to see whether the server takes it.</summary>
    /// <returns>Why not; null where it does.</returns>
    public async Task<string?> Try(string firm, string address, CancellationToken stop)
    {
        var own = new MailboxAddress(firm, address);
        using var message = new MimeMessage
        {
            Subject = "Mail from Emendum",
            Body = new TextPart("plain") { Text = "Your mail server takes what this program sends." },
        };
        message.From.Add(own);
        message.To.Add(own);
        return (await Send(message, stop))?.Says;
    }

    /// <returns>Why it did not go, and whether asking again would be of no use; null where it went.</returns>
    private async Task<(string Says, bool ForGood)?> Send(MimeMessage message, CancellationToken stop)
    {
        var server = Server;
        using var smtp = new SmtpClient { Timeout = PatienceMilliseconds };
        try
        {
            await smtp.ConnectAsync(
                server.Host,
                server.Port,
                server.Security switch
                {
                    MailSecurity.Tls => SecureSocketOptions.SslOnConnect,
                    MailSecurity.StartTls => SecureSocketOptions.StartTls,
                    _ => SecureSocketOptions.None,
                },
                stop
            );
            if (server.User.Length > 0)
                await smtp.AuthenticateAsync(server.User, password.Read() ?? "", stop);
            await smtp.SendAsync(message, stop);
            await smtp.DisconnectAsync(true, stop);
            return null;
        }
        catch (SmtpCommandException refused)
        {
            return ($"the server said: {refused.Message}", (int)refused.StatusCode >= 500);
        }
        catch (AuthenticationException refused)
        {
            return ($"the server did not take name and password: {refused.Message}", true);
        }
        catch (SslHandshakeException)
        {
            return ("the server's certificate is not trusted, or it does not encrypt on this port", true);
        }
        catch (Exception wrong)
            when (wrong
                    is SocketException
                        or IOException
                        or TimeoutException
                        or MailKit.ProtocolException
                        or NotSupportedException
                        or MailKit.ServiceNotConnectedException
            )
        {
            return ($"the server could not be spoken to: {wrong.Message}", wrong is NotSupportedException);
        }
    }
}
