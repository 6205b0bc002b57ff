using System.IO.Compression;

namespace Emendum.Storage;

/// <summary>Content that is kept compressed (gzip).</summary>
internal static class Packed
{
    /// <summary>It, compressed.</summary>
    public static byte[] Of(byte[] content, CompressionLevel level = CompressionLevel.Optimal)
    {
        using var packed = new MemoryStream();
        using (var zip = new GZipStream(packed, level))
            zip.Write(content);
        return packed.ToArray();
    }

    /// <summary>The content again.</summary>
    public static byte[] Read(byte[] packed)
    {
        using var zip = new GZipStream(new MemoryStream(packed), CompressionMode.Decompress);
        using var content = new MemoryStream();
        zip.CopyTo(content);
        return content.ToArray();
    }
}
