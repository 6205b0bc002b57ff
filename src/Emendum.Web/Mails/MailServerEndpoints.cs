using Emendum.Core;
using Emendum.Core.Proposals;
using Emendum.Storage;

namespace Emendum.Web.Mails;

/// <summary>The password of the mail server, as it is typed.</summary>
public sealed record TypedPassword(string Password);

/// <summary>Whether there is a password of the mail server; it is told to nobody.</summary>
public sealed record HasPassword(bool IsThere);

/// <summary>What came of asking the mail server to take a mail to the firm itself.</summary>
/// <param name="Went">Whether it took it.</param>
/// <param name="Says">What is to be said of that.</param>
public sealed record MailTried(bool Went, string Says);

/// <summary>What is asked of the firm's mail server beside the setting itself.</summary>
public static class MailServerEndpoints
{
    /// <summary>Maps it.</summary>
    public static void MapMailServer(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/company/mail-password", (MailPassword password) => new HasPassword(password.IsThere));
        app.MapPut(
            "/api/company/mail-password",
            (TypedPassword typed, MailPassword password) =>
            {
                password.Keep(typed.Password);
                return new HasPassword(password.IsThere);
            }
        );
        app.MapPost("/api/company/mail-server/try", Try);
    }

    private static async Task<MailTried> Try(
        Postman postman,
        SettingStore settings,
        CompanyStore companies,
        CancellationToken stop
    )
    {
        var from = settings.Get(MessageTexts.Setting, MessageTexts.Starting).From;
        if (from.Length == 0)
            throw RefusedException.Of("from", "The firm has no e-mail address yet: Office, Messages.");
        if (postman.Server.Host.Length == 0)
            throw RefusedException.Of("host", "Say first which server takes your mail.");
        return await postman.Try(companies.Get()!.Name, from, stop) is { } wrong
            ? new(false, $"It did not go: {wrong}")
            : new(true, $"The server has taken a mail to {from}.");
    }
}
