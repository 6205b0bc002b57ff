using System.Globalization;

namespace Emendum.Core.Quantities;

/// <summary>So many of something, in words that fit: <c>1 place</c>, <c>1,200 places</c>.</summary>
public static class Counted
{
    /// <summary>The number and the word for it; <paramref name="many"/> where that is not the word and an s.</summary>
    public static string Of(int count, string one, string? many = null) =>
        $"{count.ToString("#,0", CultureInfo.InvariantCulture)} {(count == 1 ? one : many ?? one + "s")}";

    /// <summary>The first of some names, and how many more there are.</summary>
    public static string Few(IReadOnlyCollection<string> names, int most) =>
        string.Join(", ", names.Take(most)) + (names.Count > most ? $" and {names.Count - most} more" : "");
}
