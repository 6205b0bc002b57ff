namespace Emendum.Core.Quantities;

/// <summary>Names of files: SHA-256 of their content, 64 hexadecimal digits in lower case.</summary>
public static class ContentHash
{
    /// <summary>Whether a text has the shape of one.</summary>
    public static bool Is(string text) => text.Length == 64 && text.All(char.IsAsciiHexDigitLower);
}
