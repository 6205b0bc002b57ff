using System.Text.RegularExpressions;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>
/// What a line could mean besides what it is taken for: a count can be meant for a height (<c>Front office 3 x 4 x6</c>), or a height for a count where
/// the name says windows (<c>Front office window 3 x 4 x6</c>). It is read back with the doubt, and the other line is offered (estimating model §2).
/// </summary>
/// <param name="Says">What it was taken for.</param>
/// <param name="Instead">The line that means the other thing.</param>
public sealed partial record TapeDoubt(string Says, Remedy Instead)
{
    /// <summary>Two sizes, and perhaps a plain number after a third x.</summary>
    [GeneratedRegex(
        @"^(?<two>[^xX×]+?(?<apart>\s*)[xX×][^xX×]+?)(?:(?<gap>\s*)[xX×](?<blank>\s*)(?<number>\d{1,4}))?\s*$",
        RegexOptions.ExplicitCapture,
        matchTimeoutMilliseconds: 1000
    )]
    private static partial Regex Sizes();

    /// <summary>Whether sizes after the name of an opening are those of one: two, or two and a count close to its x.</summary>
    internal static bool IsOpening(string sizes) =>
        Sizes().Match(sizes) is { Success: true } match
        && (!match.Groups["number"].Success || match.Groups["blank"].Length == 0);

    /// <summary>The word for an opening that a name ends with, and where the sizes begin; null where it ends with none.</summary>
    internal static (string Word, int From)? NamedOpening(string line, int stop)
    {
        for (var at = stop - 1; at > 0; at--)
            if (
                char.IsAsciiDigit(line[at])
                && line[..at].TrimEnd() is var name
                && name.Length < at
                && TapeDraft.OpeningNames.FirstOrDefault(word => EndsWith(name, word)) is { } word
            )
                return (word, at);
        return null;
    }

    private static bool EndsWith(string name, string word) =>
        name.EndsWith(word, StringComparison.OrdinalIgnoreCase)
        && (name.Length == word.Length || char.IsWhiteSpace(name[^(word.Length + 1)]));

    /// <summary>The doubt about a line that was read, if there is one.</summary>
    public static TapeDoubt? Of(string line, TapeReading reading, UnitSystem system)
    {
        var stop = line.IndexOf(';') is var end and >= 0 ? end : line.Length;
        var named = NamedOpening(line, stop);
        // A colon ends the name: what follows it is what it says.
        if (named is { } sure && line[..sure.From].Contains(':'))
            return null;
        var from = named?.From ?? SizesFrom(line, reading.Name);
        var match = Sizes().Match(line[from..stop]);
        if (!match.Groups["number"].Success)
            return null;
        var (two, number, rest) = (match.Groups["two"].Value.TrimStart(), match.Groups["number"].Value, line[stop..]);
        return reading.Shape switch
        {
            ItemSet { TakesOpenings: true } => Offered(
                $"The {number} is taken for a count.",
                $"{reading.Name}, a room {number} high",
                $"{reading.Name}: {two} x {number}{rest}",
                system
            ),
            Room when named is not null || LooksLikeACount(match) => Offered(
                $"The {number} is taken for the height.",
                $"{number} {named?.Word.TrimEnd('s') ?? "window"}s of that size, without their room",
                $"{reading.Name}: {named?.Word.TrimEnd('s') ?? "window"} {two} x{number}{rest}",
                system
            ),
            _ => null,
        };
    }

    /// <summary>A number close to its x, where the x before it stands between blanks.</summary>
    private static bool LooksLikeACount(Match match) =>
        match.Groups["apart"].Length > 0 && match.Groups["gap"].Length > 0 && match.Groups["blank"].Length == 0;

    private static int SizesFrom(string line, string name) =>
        line.IndexOf(name, StringComparison.Ordinal) is var at and >= 0
            ? at + name.Length + (line.AsSpan(at + name.Length).StartsWith(":") ? 1 : 0)
            : 0;

    /// <summary>The other line, where it can be read at all.</summary>
    private static TapeDoubt? Offered(string says, string words, string line, UnitSystem system) =>
        line.Length <= TapeLine.LongestLine && TapeLine.Read(line, system).Reading is not null
            ? new(says, new(words, line))
            : null;
}
