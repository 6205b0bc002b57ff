using System.Security.Cryptography;
using System.Text;

namespace Emendum.Core.Quantities;

/// <summary>Ids made from what something says, the same everywhere, so that files and logs of older versions are brought up to date alike.</summary>
public static class DerivedId
{
    /// <summary>The first 16 bytes of the SHA-256 of <paramref name="text"/>, as an id of version 8 (RFC 9562).</summary>
    public static Guid Of(string text)
    {
        Span<byte> hash = stackalloc byte[32];
        SHA256.HashData(Encoding.UTF8.GetBytes(text), hash);
        hash[6] = (byte)((hash[6] & 0x0F) | 0x80);
        hash[8] = (byte)((hash[8] & 0x3F) | 0x80);
        return new Guid(hash[..16], bigEndian: true);
    }
}
