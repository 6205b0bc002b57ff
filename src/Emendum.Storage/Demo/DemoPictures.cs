using System.Security.Cryptography;
using Emendum.Core.Jobs;

namespace Emendum.Storage.Demo;

/// <summary>The drawn pictures of the demo.</summary>
public static class DemoPictures
{
    private static readonly Dictionary<string, byte[]> Read = new[] { "court", "gravel", "bricks" }.ToDictionary(
        name => name,
        name =>
        {
            using var file = typeof(DemoPictures).Assembly.GetManifestResourceStream(
                $"Emendum.Storage.Demo.Pictures.{name}.jpg"
            )!;
            var content = new byte[file.Length];
            file.ReadExactly(content);
            return content;
        }
    );

    /// <summary>The contents of all of them.</summary>
    public static IEnumerable<byte[]> All => Read.Values;

    /// <summary>The glasshouse court.</summary>
    internal static BlockFile Court => Picture("court", "From the door. Drawn, not to scale", 1280, 800);

    /// <summary>Gravel bound with resin.</summary>
    internal static BlockFile Gravel => Picture("gravel", "Gravel of the paths, close to: 2 to 5 mm, honey", 800, 600);

    /// <summary>Brick paving.</summary>
    internal static BlockFile Bricks => Picture("bricks", "Bricks of the terrace, laid in herringbone", 800, 600);

    private static BlockFile Picture(string name, string caption, int width, int height) =>
        new(Convert.ToHexStringLower(SHA256.HashData(Read[name])), caption, width, height);
}
