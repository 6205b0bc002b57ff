using System.Buffers;

namespace Emendum.Core;

/// <summary>Text as people write it. Control characters that no document can hold (XML 1.0 §2.2), but tab and line ends, and halves of characters are taken out at every way in.</summary>
public static class PlainText
{
    private static readonly SearchValues<char> Suspect = SearchValues.Create(
        [
            .. Enumerable
                .Range(0, 0x20)
                .Concat(Enumerable.Range(0x7F, 0x21))
                .Select(c => (char)c)
                .Where(c => c is not ('\t' or '\n' or '\r')),
            .. Enumerable.Range(0xD800, 0x800).Select(c => (char)c),
            '\uFFFE',
            '\uFFFF',
        ]
    );

    /// <summary>Whether there is nothing in it to take out.</summary>
    public static bool IsPlain(ReadOnlySpan<char> text)
    {
        for (var at = 0; at < text.Length; at++)
        {
            var next = text[at..].IndexOfAny(Suspect);
            if (next < 0)
                return true;
            at += next;
            // Two halves in their order are one character.
            if (!char.IsHighSurrogate(text[at]) || at + 1 == text.Length || !char.IsLowSurrogate(text[at + 1]))
                return false;
            at++;
        }
        return true;
    }

    /// <summary>The text without them; the same text where there are none.</summary>
    public static string Clean(string text)
    {
        if (IsPlain(text))
            return text;
        var kept = new System.Text.StringBuilder(text.Length);
        for (var at = 0; at < text.Length; at++)
        {
            if (char.IsHighSurrogate(text[at]) && at + 1 < text.Length && char.IsLowSurrogate(text[at + 1]))
                kept.Append(text[at]).Append(text[++at]);
            else if (!Suspect.Contains(text[at]))
                kept.Append(text[at]);
        }
        return kept.ToString();
    }
}
