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

    /// <summary>Whether some number of one scheme could read like one of another, whatever the case of its letters (rule N5). A year is any four digits, a number any digits from its least on.</summary>
    public static bool CouldMeet(string one, string other)
    {
        var (a, b) = (Signs(one), Signs(other));
        var seen = new HashSet<(int, int)>();
        var open = new Stack<(int, int)>([(0, 0)]);
        while (open.TryPop(out var at))
        {
            if (!seen.Add(at))
                continue;
            var (i, j) = at;
            if (i == a.Count && j == b.Count)
                return true;
            // What may come as often as it likes may also not come any more.
            if (i < a.Count && a[i].Often)
                open.Push((i + 1, j));
            if (j < b.Count && b[j].Often)
                open.Push((i, j + 1));
            if (i < a.Count && j < b.Count && Alike(a[i].Sign, b[j].Sign))
                open.Push((a[i].Often ? i : i + 1, b[j].Often ? j : j + 1));
        }
        return false;
    }

    /// <summary>Stands for any digit.</summary>
    private const char Digit = '#';

    private static bool Alike(char a, char b) =>
        a == b || (a == Digit && char.IsAsciiDigit(b)) || (b == Digit && char.IsAsciiDigit(a));

    /// <summary>A scheme sign by sign: letters, digits, and the digits that may follow as often as they like.</summary>
    private static List<(char Sign, bool Often)> Signs(string scheme)
    {
        var plain = scheme.Replace("{year}", new string(Digit, 4), StringComparison.Ordinal);
        var match = Number().Match(plain);
        var least = match.Groups["digits"].Success ? match.Groups["digits"].Value[0] - '0' : 1;
        var signs = new List<(char, bool)>();
        signs.AddRange(plain[..match.Index].Select(c => (char.ToLowerInvariant(c), false)));
        signs.AddRange(Enumerable.Repeat((Digit, false), least));
        signs.Add((Digit, true));
        signs.AddRange(plain[(match.Index + match.Length)..].Select(c => (char.ToLowerInvariant(c), false)));
        return signs;
    }
}
