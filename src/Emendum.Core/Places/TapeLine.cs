using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>What a tape line says, before it becomes a place of a job.</summary>
public sealed record TapeReading(string Name, int Count, Length Long, Length Wide, Length High, ImmutableArray<Opening> Openings)
{
    /// <summary>The place with this reading.</summary>
    public Place ToPlace(Guid id, string group, string rank, string line) =>
        new(id, Name, group, rank, "room", line, Count, Long, Wide, High, Openings);

    /// <summary>The reading in plain words, in parts; parts at odd places are to be stressed.</summary>
    public IReadOnlyList<string> ReadBack(UnitSystem system)
    {
        var parts = new List<string> { "", Count == 1 ? "a room" : $"{Count} equal rooms", $" {Long.Read(system)} by {Wide.Read(system)}, {High.Read(system)} high" };
        for (var i = 0; i < Openings.Length; i++)
        {
            var opening = Openings[i];
            var words = RoomMeasures.Words(opening.Kind);
            parts[^1] += i == 0 ? ", with " : i == Openings.Length - 1 ? " and " : ", ";
            parts.Add($"{opening.Count} {words}{(opening.Count == 1 ? "" : "s")}");
            parts.Add($" {opening.Width.Read(system)} × {opening.Height.Read(system)}{(opening.Depth is { } d ? $", {d.Read(system)} deep" : "")}{(opening.Sill ? ", with a sill" : "")}");
        }
        return parts;
    }
}

/// <summary>
/// Reads one line of tape notation: <c>Study 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2</c>. A name, length × width × height, an optional
/// <c>x2</c> for equal rooms, then openings after semicolons, each width × height with an optional count, <c>deep 4"</c> and <c>sill</c>.
/// What cannot be read is refused with its position, never guessed.
/// </summary>
public static class TapeLine
{
    /// <summary>Longest line that is read.</summary>
    public const int LongestLine = 2000;

    private const int MostOpenings = 200, MostCount = 9999, LongestName = 120;

    private static readonly (string Word, OpeningKind Kind)[] OpeningWords =
    [
        ("pass-throughs", OpeningKind.PassThrough), ("pass-through", OpeningKind.PassThrough), ("windows", OpeningKind.Window), ("window", OpeningKind.Window),
        ("doors", OpeningKind.Door), ("door", OpeningKind.Door),
    ];

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
        if (line.Length > LongestLine) throw Refuse(LongestLine, $"A tape line is at most {LongestLine} characters.");
        var end = line.IndexOf(';');
        var room = ReadRoom(line, end < 0 ? line.Length : end, system);
        var openings = ImmutableArray.CreateBuilder<Opening>();
        while (end >= 0)
        {
            var start = end + 1;
            end = line.IndexOf(';', start);
            var stop = end < 0 ? line.Length : end;
            if (line[start..stop].Trim().Length == 0)
            {
                if (end < 0) break;
                throw Refuse(start, "There is nothing between these semicolons.", "door 3 x 6'8");
            }
            if (openings.Count == MostOpenings) throw Refuse(start, $"A room takes at most {MostOpenings} kinds of opening.");
            openings.Add(ReadOpening(line, start, stop, system));
        }
        var reading = room with { Openings = openings.ToImmutable() };
        RoomLimits.Check(reading, system);
        return reading;
    }

    private static TapeReading ReadRoom(string line, int stop, UnitSystem system)
    {
        // A number may belong to the name ("Bay 2 12 x 10 x 8"), but only while no x has come: nothing after one is ever taken for a name.
        RefusedException? unread = null, furthest = null;
        var most = 0;
        var starts = Enumerable.Range(0, stop).Where(i => (i == 0 || char.IsWhiteSpace(line[i - 1])) && (char.IsAsciiDigit(line[i]) || line[i] is '.' or '(' or '-' or '+')).ToArray();
        for (var n = 0; n < starts.Length; n++)
        {
            if (n > 0 && HasSign(line.AsSpan(starts[n - 1], starts[n] - starts[n - 1]))) break;
            var read = 0;
            try
            {
                return Sized(line, starts[n], stop, system, ref read);
            }
            catch (RefusedException refused)
            {
                if (read == 0) unread ??= refused;
                if (read > most) (furthest, most) = (refused, read);
            }
        }
        throw unread ?? furthest ?? Refuse(line.TrimEnd().Length, "Say the room's size after its name: length x width x height.", $"{(line.Trim().Length is 0 or > 40 ? "Study" : line.Trim())} 14'6 x 11 x 8");
    }

    /// <summary>Whether a sign that only stands in a size comes here: an x between blanks or after a figure, or a plus or minus between blanks.</summary>
    private static bool HasSign(ReadOnlySpan<char> text)
    {
        for (var i = 0; i < text.Length; i++)
        {
            var blankBefore = i == 0 || char.IsWhiteSpace(text[i - 1]);
            var blankAfter = i == text.Length - 1 || char.IsWhiteSpace(text[i + 1]);
            if (text[i] is '×' or '*' || (text[i] is 'x' or 'X' && blankAfter && (blankBefore || !char.IsLetter(text[i - 1]))) || (text[i] is '+' or '-' && blankBefore && blankAfter)) return true;
        }
        return false;
    }

    private static TapeReading Sized(string line, int start, int stop, UnitSystem system, ref int read)
    {
        const string form = "a room is length x width x height";
        var tape = new TapeScanner(line, start, stop, system);
        var length = tape.Dimension("length");
        read = 1;
        tape.By("width", form);
        var width = tape.Dimension("width");
        read = 2;
        tape.By("height", form);
        var height = tape.Dimension("height");
        var count = tape.Count(MostCount);
        tape.End("After the height there may be a count (x2), then ; and openings.");
        return new(NameOf(line[..start]), count, length, width, height, []);
    }

    private static string NameOf(string text)
    {
        var name = text.Trim();
        if (name.Length == 0) throw Refuse(0, "Say the room's name first, then its size.", "Study 14'6 x 11 x 8");
        return name.Length <= LongestName ? name : throw Refuse(0, $"A name is at most {LongestName} characters.");
    }

    private static Opening ReadOpening(string line, int start, int stop, UnitSystem system)
    {
        while (start < stop && char.IsWhiteSpace(line[start])) start++;
        var (word, kind) = Array.Find(OpeningWords, w => string.Compare(line, start, w.Word, 0, w.Word.Length, StringComparison.OrdinalIgnoreCase) == 0);
        if (word is null) throw Refuse(start, "An opening begins with door, window or pass-through.", "door 3 x 6'8");
        var tape = new TapeScanner(line, start + word.Length, stop, system);
        var width = tape.Dimension("width");
        tape.By("height", "an opening is width x height");
        var height = tape.Dimension("height");
        var count = tape.Count(MostCount);
        Length? depth = null;
        var sill = false;
        while (true)
        {
            if (depth is null && tape.Word("deep")) depth = tape.Dimension("depth");
            else if (!sill && tape.Word("sill")) sill = true;
            else break;
        }
        tape.End("After an opening's size there may be a count (x2), deep 4\" and sill.");
        return new(kind, width, height, count, depth, sill);
    }

    internal static RefusedException Refuse(int position, string message, string? suggestion = null) => new(new Refusal("line", message, position, suggestion));
}
