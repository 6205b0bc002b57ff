using SkiaSharp;

namespace Emendum.Documents;

/// <summary>What a file is, as its content says; its name and what its sender says of it count for nothing. A picture's size is read from its head, without decoding it.</summary>
/// <param name="Type">Media type; <c>application/octet-stream</c> where it is none that we show.</param>
/// <param name="Width">Of a picture as it stands upright, points.</param>
/// <param name="Height">Of a picture, likewise.</param>
public sealed record FileKind(string Type, int? Width, int? Height)
{
    /// <summary>Whether browsers may show it in its place: PNG, JPEG, WebP.</summary>
    public static bool IsPicture(string type) => type.StartsWith("image/", StringComparison.Ordinal);

    /// <summary>Looks into a file on disk.</summary>
    public static FileKind Of(string path)
    {
        Span<byte> head = stackalloc byte[12];
        using (var file = File.OpenRead(path))
            head = head[..file.ReadAtLeast(head, head.Length, throwOnEndOfStream: false)];
        var type = TypeOf(head);
        if (!IsPicture(type))
            return new(type, null, null);
        using var picture = SKCodec.Create(path);
        if (picture is null)
            return new("application/octet-stream", null, null);
        var (width, height) = (picture.Info.Width, picture.Info.Height);
        // From here on width and height change places (EXIF, orientation 5 to 8).
        return picture.EncodedOrigin >= SKEncodedOrigin.LeftTop ? new(type, height, width) : new(type, width, height);
    }

    private static string TypeOf(ReadOnlySpan<byte> head) =>
        head is [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, ..] ? "image/png"
        : head is [0xFF, 0xD8, 0xFF, ..] ? "image/jpeg"
        : head.StartsWith("RIFF"u8) && head[8..].StartsWith("WEBP"u8) ? "image/webp"
        : head.StartsWith("%PDF-"u8) ? "application/pdf"
        : "application/octet-stream";
}
