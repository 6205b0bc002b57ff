using System.Globalization;
using System.Text.RegularExpressions;

namespace Emendum.Core.Delivery;

/// <summary>How a series of documents is numbered, as the firm writes it: words around <c>{number}</c>, with so many digits at the least (<c>{number:4}</c>), and with <c>{year}</c> where each year begins at 1 (rule N5).</summary>
public static partial class NumberScheme
{
    /// <summary>What a firm starts with.</summary>
    public const string Starting = "{year}-{number:4}";

    /// <summary>Most characters of one.</summary>
    public const int Most = 40;

    [GeneratedRegex(@"\{number(?::(?<digits>[1-9]))?\}")]
    private static partial Regex Number();

    [GeneratedRegex(@"^[\p{L}\p{N} ./_\-]*$")]
    private static partial Regex Plain();

    /// <summary>Refuses what is no scheme.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public static void Check(string scheme, string field = "numbers")
    {
        var rest = Number().Replace(scheme, "").Replace("{year}", "", StringComparison.Ordinal);
        if (
            scheme.Length is 0 or > Most
            || Number().Count(scheme) != 1
            || scheme.Split("{year}").Length > 2
            || !Plain().IsMatch(rest)
            || scheme.Trim() != scheme
        )
            throw RefusedException.Of(
                field,
                $"Write it like {Starting} or INV {{number}}: {{number}} once, {{year}} at most once, and letters, digits and - . / _ around them."
            );
    }

    /// <summary>Whether each year begins at 1.</summary>
    public static bool IsYearly(string scheme) => scheme.Contains("{year}", StringComparison.Ordinal);

    /// <summary>The number of a document; digits grow (9999, 10000).</summary>
    /// <param name="scheme">The scheme.</param>
    /// <param name="year">Year of the day of issue.</param>
    /// <param name="number">Its place in the series, from 1.</param>
    public static string Of(string scheme, int year, int number) =>
        Number()
            .Replace(
                scheme,
                m =>
                    number.ToString(
                        "D" + (m.Groups["digits"].Success ? m.Groups["digits"].Value : "1"),
                        CultureInfo.InvariantCulture
                    )
            )
            .Replace("{year}", year.ToString("D4", CultureInfo.InvariantCulture), StringComparison.Ordinal);
}
