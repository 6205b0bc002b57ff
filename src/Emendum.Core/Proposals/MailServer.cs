namespace Emendum.Core.Proposals;

/// <summary>How what is said to a mail server is kept private.</summary>
public enum MailSecurity
{
    /// <summary>Encrypted from the first word (RFC 8314: usually port 465).</summary>
    Tls,

    /// <summary>Encrypted after the greeting, or not at all spoken to (RFC 3207: usually port 587).</summary>
    StartTls,

    /// <summary>Not encrypted: for a server on this machine alone.</summary>
    None,
}

/// <summary>The server that takes the firm's mail (SMTP). Its password is kept apart.</summary>
/// <param name="On">Whether mail goes there by itself; otherwise it waits in the outbox for a person.</param>
/// <param name="Host">Its name; empty where the firm has said none.</param>
/// <param name="Port">Its port.</param>
/// <param name="Security">How what is said is kept private.</param>
/// <param name="User">The name to sign in with; empty for none.</param>
public sealed record MailServer(bool On, string Host, int Port, MailSecurity Security, string User)
{
    /// <summary>Name of the firm's setting.</summary>
    public const string Setting = "mailServer";

    /// <summary>What a firm starts with: none.</summary>
    public static readonly MailServer Starting = new(false, "", 465, MailSecurity.Tls, "");

    private const int MostOfUser = 254;

    /// <summary>Whether a text names a machine: by its number, or by a whole name, whose last part begins with a letter.</summary>
    private static bool IsHost(string text) =>
        Uri.CheckHostName(text) switch
        {
            UriHostNameType.IPv4 or UriHostNameType.IPv6 => true,
            UriHostNameType.Dns => text == "localhost"
                || (
                    text.Contains('.', StringComparison.Ordinal)
                    && char.IsAsciiLetter(text.Split('.')[^1].FirstOrDefault())
                ),
            _ => false,
        };

    /// <summary>Refuses what cannot be one.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check()
    {
        if (On && Host.Length == 0)
            throw RefusedException.Of("host", "Say first which server takes your mail.");
        if (Host.Length > 0 && !IsHost(Host))
            throw RefusedException.Of("host", "That is no name of a server. Write it like mail.example.com.");
        if (Port is < 1 or > 65535)
            throw RefusedException.Of("port", "A port is a number from 1 to 65535.");
        if (Security == MailSecurity.None && Host is not ("" or "localhost" or "127.0.0.1" or "::1"))
            throw RefusedException.Of(
                "security",
                "Without encryption only a server on this machine is spoken to: everybody on the way could read your password and your mail."
            );
        if (User.Length > MostOfUser || User.Any(char.IsControl))
            throw RefusedException.Of(
                "user",
                $"A name to sign in with is one line of at most {MostOfUser} characters."
            );
    }
}
