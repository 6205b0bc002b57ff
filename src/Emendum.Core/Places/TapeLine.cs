using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>What a tape line says, before it becomes a place of a job.</summary>
/// <param name="Name">The place's name.</param>
/// <param name="Count">How many equal places it stands for.</param>
/// <param name="Shape">What was measured.</param>
/// <param name="Openings">In the order they were typed; where they lead is in <paramref name="Into"/>.</param>
/// <param name="Into">For each opening the name of the place it leads into, or null.</param>
public sealed record TapeReading(
    string Name,
    int Count,
    Shape Shape,
    ImmutableArray<Opening> Openings,
    ImmutableArray<string?> Into
)
{
    /// <summary>The place with this reading; <paramref name="find"/> gives the id of the place an opening leads into.</summary>
    public Place ToPlace(Guid id, string group, string rank, string line, Func<string, Guid>? find = null) =>
        new(
            id,
            Name,
            group,
            rank,
            line,
            Count,
            Shape,
            [.. Openings.Select((o, i) => Into[i] is { } name && find is not null ? o with { Into = find(name) } : o)],
            [],
            "",
            ""
        );
}

/// <summary>
/// Reads one line of tape notation: <c>Study 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2</c>. A name, a size, an optional <c>x2</c> for equal
/// places, then parts after semicolons. Other kinds of place say theirs after the name: <c>walls</c>, <c>corners</c>, <c>face</c>, <c>site</c>, <c>run</c>,
/// <c>stair</c>, <c>items</c>, <c>not measured</c> (docs/guide/measure.md). What cannot be read is refused with its position, never guessed.
/// </summary>
public static class TapeLine
{
    /// <summary>Longest line that is read.</summary>
    public const int LongestLine = 2000;

    /// <summary>Longest name of a place, a band or a counted thing.</summary>
    public const int LongestName = 120;

    /// <summary>Most openings, bands, islands and so on of one place.</summary>
    public const int MostParts = 200;

    /// <summary>Largest count.</summary>
    public const int MostCount = 9999;

    /// <summary>The reading, or why there is none.</summary>
    public static (TapeReading? Reading, Refusal? Refusal) Read(string line, UnitSystem system)
    {
        try
        {
            return (ReadOrThrow(line, system), null);
        }
        catch (RefusedException refused)
        {
            return (null, refused.Refusal);
        }
    }

    /// <summary>The reading.</summary>
    /// <exception cref="RefusedException">What cannot be read, with its position.</exception>
    public static TapeReading ReadOrThrow(string line, UnitSystem system)
    {
        if (line.Length > LongestLine)
            throw Refuse(LongestLine, $"A tape line is at most {LongestLine} characters.");
        try
        {
            var end = line.IndexOf(';');
            var draft = ReadHead(line, end < 0 ? line.Length : end, system);
            while (end >= 0)
            {
                var start = end + 1;
                end = line.IndexOf(';', start);
                var stop = end < 0 ? line.Length : end;
                if (line[start..stop].Trim().Length == 0)
                {
                    if (end < 0)
                        break;
                    throw Refuse(start, "There is nothing between these semicolons.", "door 3 x 6'8");
                }
                while (char.IsWhiteSpace(line[start]))
                    start++;
                draft.ReadPart(new(line, start, stop, system), start);
            }
            var reading = draft.Reading();
            PlaceLimits.Check(
                reading.Shape,
                reading.Openings,
                reading.Count,
                system,
                fixedShape => PlaceLine.Print(reading with { Shape = fixedShape }, system)
            );
            return reading;
        }
        catch (OverflowException)
        {
            throw Refuse(0, "The sizes in this line are too large.");
        }
    }

    private static TapeDraft ReadHead(string line, int stop, UnitSystem system)
    {
        // A colon ends the name, for names that would be taken for a size.
        RefusedException? afterColon = null;
        var colon = stop == 0 ? -1 : line.LastIndexOf(':', stop - 1);
        if (colon >= 0)
        {
            var body = colon + 1;
            while (body < stop && char.IsWhiteSpace(line[body]))
                body++;
            var keyword = KeywordAt(line, body, stop) ?? OpeningAt(line, body, stop);
            try
            {
                return ReadBody(line, line[..colon], body + (keyword?.Length ?? 0), stop, system, keyword);
            }
            catch (RefusedException refused) when (keyword is null && line.AsSpan(0, colon).Trim().Length > 0)
            {
                afterColon = refused;
            }
        }
        RefusedException? furthest = null;
        for (var i = 0; i < stop; i++)
        {
            if ((i > 0 && !char.IsWhiteSpace(line[i - 1])) || KeywordAt(line, i, stop) is not { } keyword)
                continue;
            try
            {
                return ReadBody(line, line[..i], i + keyword.Length, stop, system, keyword);
            }
            catch (RefusedException refused)
            {
                if (furthest is null || refused.Refusal.Position > furthest.Refusal.Position)
                    furthest = refused;
            }
        }
        if (ReadNamedOpening(line, stop, system) is { } opening)
            return opening;
        try
        {
            return ReadBox(line, stop, system, furthest is not null);
        }
        catch (RefusedException refused)
        {
            if (afterColon is not null)
                throw afterColon;
            throw furthest is not null && furthest.Refusal.Position >= refused.Refusal.Position ? furthest : refused;
        }
    }

    private static string? KeywordAt(string line, int at, int stop) =>
        TapeDraft.Keywords.FirstOrDefault(word =>
            StandsAt(word, line, at, stop)
            && (word != TapeDraft.NotMeasured || line[(at + word.Length)..stop].Trim().Length == 0)
        );

    private static string? OpeningAt(string line, int at, int stop) =>
        TapeDraft.OpeningNames.FirstOrDefault(word => at + word.Length < stop && StandsAt(word, line, at, stop));

    private static bool StandsAt(string word, string line, int at, int stop) =>
        at + word.Length <= stop
        && string.Compare(line, at, word, 0, word.Length, StringComparison.OrdinalIgnoreCase) == 0
        && (at + word.Length == stop || !char.IsLetter(line[at + word.Length]));

    /// <summary>
    /// A name that ends with what it is, then two sizes and perhaps a count that stands close to its x: <c>Front office window 3 x 4 x6</c>. With a
    /// third size instead it is a room of that name.
    /// </summary>
    private static TapeDraft? ReadNamedOpening(string line, int stop, UnitSystem system)
    {
        if (TapeDoubt.NamedOpening(line, stop) is not var (word, from) || !TapeDoubt.IsOpening(line[from..stop]))
            return null;
        try
        {
            return ReadBody(line, line[..from], from, stop, system, word);
        }
        catch (RefusedException)
        {
            // As a room it may be read, or is refused for what is missing there.
            return null;
        }
    }

    /// <summary>Reads what stands after a name; the size begins at <paramref name="from"/>.</summary>
    private static TapeDraft ReadBody(
        string line,
        string before,
        int from,
        int stop,
        UnitSystem system,
        string? keyword
    )
    {
        var name = NameOf(before);
        var tape = new TapeScanner(line, from, stop, system);
        return TapeDraft.Of(name, keyword, tape, system, line, stop);
    }

    /// <summary>A room of length × width × height after its name.</summary>
    private static TapeDraft ReadBox(string line, int stop, UnitSystem system, bool firstOnly)
    {
        // A number may belong to the name ("Bay 2 12 x 10 x 8"), but only while no x has come: nothing after one is ever taken for a name.
        RefusedException? unread = null,
            furthest = null;
        var most = 0;
        var starts = Enumerable
            .Range(0, stop)
            .Where(i =>
                (i == 0 || char.IsWhiteSpace(line[i - 1]))
                && (char.IsAsciiDigit(line[i]) || line[i] is '.' or '(' or '-' or '+')
            )
            .ToArray();
        for (var n = 0; n < starts.Length; n++)
        {
            if (n > 0 && firstOnly && furthest is not null)
                break;
            if (n > 0 && HasSign(line.AsSpan(starts[n - 1], starts[n] - starts[n - 1])))
                break;
            var read = 0;
            try
            {
                return TapeDraft.Box(new(line, starts[n], stop, system), () => NameOf(line[..starts[n]]), ref read);
            }
            catch (RefusedException refused)
            {
                if (read == 0)
                    unread ??= refused;
                if (read > most)
                    (furthest, most) = (refused, read);
            }
        }
        throw unread
            ?? furthest
            ?? Refuse(
                line.TrimEnd().Length,
                "Say the room's size after its name: length x width x height.",
                $"{(line.Trim().Length is 0 or > 40 ? "Study" : line.Trim())} 14'6 x 11 x 8"
            );
    }

    /// <summary>Whether a sign that only stands in a size comes here: an x between blanks or after a figure, or a plus or minus between blanks.</summary>
    private static bool HasSign(ReadOnlySpan<char> text)
    {
        for (var i = 0; i < text.Length; i++)
        {
            var blankBefore = i == 0 || char.IsWhiteSpace(text[i - 1]);
            var blankAfter = i == text.Length - 1 || char.IsWhiteSpace(text[i + 1]);
            if (
                text[i] is '×' or '*'
                || (text[i] is 'x' or 'X' && blankAfter && (blankBefore || !char.IsLetter(text[i - 1])))
                || (text[i] is '+' or '-' && blankBefore && blankAfter)
            )
                return true;
        }
        return false;
    }

    private static string NameOf(string text)
    {
        var name = text.Trim();
        if (name.Length == 0)
            throw Refuse(0, "Say the place's name first, then its size.", "Study 14'6 x 11 x 8");
        return name.Length <= LongestName ? name : throw Refuse(0, $"A name is at most {LongestName} characters.");
    }

    internal static RefusedException Refuse(int position, string message, string? suggestion = null) =>
        new(new Refusal("line", message, position, suggestion));
}
