using SkiaSharp;

namespace Emendum.Documents;

/// <summary>A picture made anew to leave the house (architecture decision 31): upright, no larger than paper and screens need, and without what its file says beside it, such as where it was taken.</summary>
public static class PictureOut
{
    /// <summary>Most points of its longer side: 7 inches at some 230 points an inch.</summary>
    public const int MostPoints = 1600;

    private const int Quality = 84;

    /// <summary>The new file: JPEG, or PNG where the picture is transparent somewhere.</summary>
    /// <param name="content">The picture, as its file has it.</param>
    /// <returns>Its bytes; null where it cannot be read.</returns>
    public static byte[]? Of(byte[] content)
    {
        // Turned as its file says, which the size in its head does not tell.
        using var picture = SKImage.FromEncodedData(content);
        if (picture is null)
            return null;
        var scale = Math.Min(1, MostPoints / (float)Math.Max(picture.Width, picture.Height));
        var size = new SKImageInfo(
            Math.Max(1, (int)MathF.Round(picture.Width * scale)),
            Math.Max(1, (int)MathF.Round(picture.Height * scale)),
            SKColorType.Rgba8888,
            SKAlphaType.Premul,
            SKColorSpace.CreateSrgb()
        );
        using var drawn = new SKBitmap(size);
        using (var canvas = new SKCanvas(drawn))
        {
            canvas.Clear(SKColors.Transparent);
            canvas.DrawImage(
                picture,
                SKRect.Create(size.Width, size.Height),
                new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear)
            );
        }
        var opaque = picture.AlphaType == SKAlphaType.Opaque;
        using var encoded = drawn.Encode(opaque ? SKEncodedImageFormat.Jpeg : SKEncodedImageFormat.Png, Quality);
        return encoded.ToArray();
    }
}
