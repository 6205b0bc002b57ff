using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Proposals;

/// <summary>
/// Reads the words of a block. Plain text with a closed set of marks: an empty line parts paragraphs; a line that begins with <c># </c> is a heading, one that begins with <c>- </c> an item of a list;
/// <c>*strong*</c> and <c>_slanted_</c> within a line; figures by name in braces. What is no whole mark is a letter like any other, and nothing is ever HTML.
/// </summary>
public static class Marks
{
    /// <summary>The words as elements.</summary>
    /// <param name="words">What was typed.</param>
    /// <param name="figure">What a figure comes to by its name; null where there is none of that name.</param>
    public static IEnumerable<Element> Read(string words, Func<string, Span?> figure)
    {
        var (paragraph, items) = (new List<string>(), ImmutableArray.CreateBuilder<Bullet>());
        foreach (var line in words.ReplaceLineEndings("\n").Split('\n').Append("").Select(l => l.Trim()))
        {
            var (isItem, isHeading) = (
                line.StartsWith("- ", StringComparison.Ordinal),
                line.StartsWith("# ", StringComparison.Ordinal)
            );
            if (paragraph.Count > 0 && (line.Length == 0 || isItem || isHeading))
            {
                yield return new Paragraph(Spans(string.Join(' ', paragraph), figure));
                paragraph.Clear();
            }
            if (items.Count > 0 && !isItem)
            {
                yield return new Bullets(items.ToImmutable());
                items.Clear();
            }
            if (isItem)
                items.Add(new(Spans(line[2..].Trim(), figure)));
            else if (isHeading)
                yield return new Heading(2, Span.Plain(Spans(line[2..].Trim(), figure)));
            else if (line.Length > 0)
                paragraph.Add(line);
        }
    }

    /// <summary>A line as spans.</summary>
    public static ImmutableArray<Span> Spans(string line, Func<string, Span?> figure)
    {
        var spans = ImmutableArray.CreateBuilder<Span>();
        var (from, at) = (0, 0);
        void Plain(int to)
        {
            if (to > from)
                spans.AddRange(Figures(line[from..to], Stress.Plain, figure));
        }
        while (at < line.Length)
        {
            var stress =
                line[at] == '*' ? Stress.Strong
                : line[at] == '_' ? Stress.Slanted
                : Stress.Plain;
            if (stress == Stress.Plain || Closing(line, at) is not { } end)
            {
                at++;
                continue;
            }
            Plain(at);
            spans.AddRange(Figures(line[(at + 1)..end], stress, figure));
            from = at = end + 1;
        }
        Plain(line.Length);
        return spans.ToImmutable();
    }

    /// <summary>Where a mark that opens here closes; null where it is none: 3 * 4 and snake_case are letters.</summary>
    private static int? Closing(string line, int at)
    {
        bool IsWord(int i) => i >= 0 && i < line.Length && char.IsLetterOrDigit(line[i]);
        if (IsWord(at - 1) || at + 1 >= line.Length || char.IsWhiteSpace(line[at + 1]))
            return null;
        for (var end = line.IndexOf(line[at], at + 2); end > 0; end = line.IndexOf(line[at], end + 1))
            if (!char.IsWhiteSpace(line[end - 1]) && !IsWord(end + 1))
                return end;
        return null;
    }

    private static IEnumerable<Span> Figures(string text, Stress stress, Func<string, Span?> figure)
    {
        var from = 0;
        foreach (var (at, length, name) in FigureNames.In(text))
        {
            if (figure(name) is not { } said)
                continue;
            if (at > from)
                yield return new(text[from..at], stress);
            yield return said with
            {
                Stress = stress,
                Name = name,
            };
            from = at + length;
        }
        if (from < text.Length)
            yield return new(text[from..], stress);
    }
}
