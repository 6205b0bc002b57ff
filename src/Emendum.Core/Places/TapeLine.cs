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
        // Several words may begin the size ("Bay 2 12 x 10 x 8"); of those that fail, the one that got through most dimensions has the helpful message.
        RefusedException? furthest = null;
        var most = -1;
        for (var i = 0; i < stop; i++)
        {
            var startsWord = i == 0 || char.IsWhiteSpace(line[i - 1]);
            if (!startsWord || !(char.IsAsciiDigit(line[i]) || line[i] is '.' or '(' or '-' or '+')) continue;
            var read = 0;
            try
            {
                var tape = new TapeScanner(line, i, stop, system);
                var length = tape.Dimension("length");
                read = 1;
                tape.By("width", "a room is length x width x height");
                var width = tape.Dimension("width");
                read = 2;
                tape.By("height", "a room is length x width x height");
                var height = tape.Dimension("height");
                read = 3;
                var count = tape.Count(MostCount);
                tape.End("After the height there may be a count (x2), then ; and openings.");
                return new(NameOf(line[..i]), count, length, width, height, []);
            }
            catch (RefusedException refused) when (read > most || refused.Refusal.Position == 0)
            {
                (furthest, most) = (refused, read);
            }
            catch (RefusedException)
            {
                // An earlier start got further: its message stands.
            }
        }
        throw furthest ?? Refuse(line.TrimEnd().Length, "Say the room's size after its name: length x width x height.", $"{(line.Trim().Length is 0 or > 40 ? "Study" : line.Trim())} 14'6 x 11 x 8");
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
