using System.Security.Cryptography;
using Emendum.Core;
using Emendum.Storage;
using Microsoft.AspNetCore.DataProtection;

namespace Emendum.Web.Mails;

/// <summary>
/// The password of the firm's mail server. It is kept encrypted with a key that stands beside the database in the data folder and in no backup: who has a backup has no password, and after a restore elsewhere it is typed
/// once more. It is told to nobody, only to the server.
/// </summary>
public sealed class MailPassword(SettingStore settings, IDataProtectionProvider protection)
{
    private const string Setting = "mailPassword";
    private const int Most = 500;

    private sealed record Kept(string Content);

    private IDataProtector Protector => protection.CreateProtector("mail server");

    /// <summary>Whether there is one that can be read.</summary>
    public bool IsThere => Read() is { Length: > 0 };

    /// <summary>Keeps another; empty for none.</summary>
    /// <exception cref="RefusedException">It is too long.</exception>
    public void Keep(string password)
    {
        if (password.Length > Most)
            throw RefusedException.Of("password", $"At most {Most} characters.");
        settings.Put(Setting, new Kept(password.Length == 0 ? "" : Protector.Protect(password)));
    }

    /// <summary>It; null where there is none, or where its key is not here.</summary>
    internal string? Read()
    {
        if (settings.Get<Kept>(Setting) is not { Content: { Length: > 0 } content })
            return null;
        try
        {
            return Protector.Unprotect(content);
        }
        catch (CryptographicException)
        {
            return null;
        }
    }
}
