using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;

namespace Emendum.Web.Outside;

/// <summary>What opens a link: 128 random bits. They are known to whoever has the link; here only their hash is kept, and neither is written to a log (architecture decision 32).</summary>
public static class Token
{
    private const int Bytes = 16;

    /// <summary>A new one, as 22 characters of a path.</summary>
    public static string New() => Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(Bytes));

    /// <summary>SHA-256 of one, in hexadecimal digits. Bits that nobody can guess need no salt.</summary>
    public static string HashOf(string token) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(token)));
}
