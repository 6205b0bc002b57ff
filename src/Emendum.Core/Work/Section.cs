using System.Security.Cryptography;
using System.Text;

namespace Emendum.Core.Work;

/// <summary>A heading under which work stands in grid and proposal (architecture decision 26).</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name; empty for work without a heading.</param>
/// <param name="Rank">Sort key among the job's sections. Work stands by section, then by its own rank.</param>
public sealed record Section(Guid Id, string Name, string Rank)
{
    /// <summary>The id of a section that is made from nothing but a name: the same everywhere, so that files and logs of older versions are brought up to date alike, and two people who
    /// begin the same section make one. An id of version 8 (RFC 9562).</summary>
    public static Guid IdOf(string name)
    {
        Span<byte> hash = stackalloc byte[32];
        SHA256.HashData(Encoding.UTF8.GetBytes("section/" + name), hash);
        hash[6] = (byte)((hash[6] & 0x0F) | 0x80);
        hash[8] = (byte)((hash[8] & 0x3F) | 0x80);
        return new Guid(hash[..16], bigEndian: true);
    }
}
