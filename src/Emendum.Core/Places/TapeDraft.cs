using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>A tape line while it is being read: the size after the name gives the kind of place, the parts after semicolons add to it.</summary>
internal sealed class TapeDraft
{
    /// <summary>Says that a place is listed but not measured yet.</summary>
    public const string NotMeasured = "not measured";

    /// <summary>Words after the name that say the kind of place, or how a room's outline is given.</summary>
    public static readonly string[] Keywords =
    [
        "walls",
        "sides",
        "corners",
        "face",
        "site",
        "run",
        "stairs",
        "stair",
        "items",
        NotMeasured,
    ];

    private static readonly (string Word, OpeningKind Kind)[] OpeningWords =
    [
        ("pass-throughs", OpeningKind.PassThrough),
        ("pass-through", OpeningKind.PassThrough),
        ("windows", OpeningKind.Window),
        ("window", OpeningKind.Window),
        ("doors", OpeningKind.Door),
        ("door", OpeningKind.Door),
        ("d", OpeningKind.Door),
        ("w", OpeningKind.Window),
        ("p", OpeningKind.PassThrough),
    ];

    /// <summary>What an opening is called in full, so that a place can be named after it: <c>Front windows</c>.</summary>
    public static IEnumerable<string> OpeningNames => OpeningWords.Where(w => w.Word.Length > 1).Select(w => w.Word);

    /// <summary>The kind of opening of that word.</summary>
    public static OpeningKind? OpeningNamed(string word) =>
        Array.Find(OpeningWords, w => w.Word.Equals(word, StringComparison.OrdinalIgnoreCase))
            is { Word: not null } named
            ? named.Kind
            : null;

    private readonly string name;
    private readonly ImmutableArray<Opening>.Builder openings = ImmutableArray.CreateBuilder<Opening>();
    private readonly ImmutableArray<string?>.Builder into = ImmutableArray.CreateBuilder<string?>();
    private Shape shape;
    private int count = 1;

    private TapeDraft(string name, Shape shape) => (this.name, this.shape) = (name, shape);

    /// <summary>Reads the size: after a keyword its own form, otherwise length × width × height.</summary>
    public static TapeDraft Of(string name, string? keyword, TapeScanner tape, UnitSystem system, string line, int stop)
    {
        switch (keyword)
        {
            case null:
                var read = 0;
                return Box(tape, () => name, ref read);
            case "walls" or "sides" or "corners":
                return RoomFrom(name, keyword == "corners" ? CornersOf(tape) : WallsOf(tape), tape);
            case "face":
                return ReadElevation(name, tape);
            case "site":
                return ReadSite(name, tape, system, line, stop);
            case "run":
                return ReadRun(name, tape);
            case "items":
                return ReadItems(name, tape);
            case NotMeasured:
                return new(name, new Unmeasured());
            case not null when OpeningNamed(keyword) is { } kind:
                var draft = new TapeDraft(name, new ItemSet([]));
                draft.ReadOpening(tape, kind, tape.At);
                return draft;
            default:
                return ReadStair(name, tape);
        }
    }

    /// <summary>The reading so far.</summary>
    public TapeReading Reading() => new(name, count, shape, openings.ToImmutable(), into.ToImmutable());

    /// <summary>A room of length × width × height.</summary>
    public static TapeDraft Box(TapeScanner tape, Func<string> name, ref int read)
    {
        const string form = "a room is length x width x height";
        var length = tape.Dimension("length");
        read = 1;
        tape.By("width", form);
        var width = tape.Dimension("width");
        read = 2;
        var draft = RoomFrom("", new Rectangle(length, width), tape);
        return new(name(), draft.shape) { count = draft.count };
    }

    private static TapeDraft RoomFrom(string name, Outline outline, TapeScanner tape)
    {
        ImmutableArray<Length> slope = [];
        Length? high = null;
        if (tape.Word("slope"))
        {
            slope = ListOf(() => tape.Dimension("height at a corner"), () => tape.Sign(',') || tape.AtNumber());
        }
        else
        {
            tape.By(
                "height",
                outline is Rectangle ? "a room is length x width x height" : "put x and the height after the last wall"
            );
            high = tape.Dimension("height");
        }
        var draft = new TapeDraft(name, new Room(outline, high, slope, [], [], []))
        {
            count = tape.Count(TapeLine.MostCount),
        };
        tape.End("After the height there may be a count (x2), then ; and openings.");
        return draft;
    }

    private static Walls WallsOf(TapeScanner tape)
    {
        var runs = ImmutableArray.CreateBuilder<WallRun>();
        do
        {
            if (runs.Count > 0 && runs[^1].Turn == 0)
                throw TapeLine.Refuse(
                    tape.At,
                    "Say after each wall how it turns: r for right, l for left, r45° for another angle.",
                    "20 r 10 r 20 r 10"
                );
            var length = tape.Dimension($"length of wall {Outline.Letter(runs.Count)}");
            runs.Add(new(length, tape.Turn() ?? 0));
            if (runs.Count > PlaceLimits.MostCorners)
                throw TapeLine.Refuse(tape.At, $"An outline has at most {PlaceLimits.MostCorners} walls.");
        } while (tape.AtNumber());
        return new(runs.ToImmutable());
    }

    private static Corners CornersOf(TapeScanner tape)
    {
        var points = ImmutableArray.CreateBuilder<Point>();
        do
        {
            var x = tape.Coordinate("distance across");
            if (!tape.Sign(','))
                throw TapeLine.Refuse(
                    tape.At,
                    "A corner is two distances with a comma between.",
                    "0,0 20,0 20,10 0,10"
                );
            points.Add(new(x, tape.Coordinate("distance up")));
            if (points.Count > PlaceLimits.MostCorners)
                throw TapeLine.Refuse(tape.At, $"An outline has at most {PlaceLimits.MostCorners} corners.");
        } while (tape.AtNumber());
        return new(points.ToImmutable());
    }

    private static Outline OutlineOf(TapeScanner tape)
    {
        if (tape.Word("walls") || tape.Word("sides"))
            return WallsOf(tape);
        if (tape.Word("corners"))
            return CornersOf(tape);
        var length = tape.Dimension("length");
        tape.By("width", "an island is length x width");
        return new Rectangle(length, tape.Dimension("width"));
    }

    private static TapeDraft ReadElevation(string name, TapeScanner tape)
    {
        var faces = ListOf(() => Part(tape, "width", "height", "a face is width x height"), () => tape.Sign('+'));
        tape.End("Faces are joined with +; gables, openings and a count come after ;.");
        return new(name, new Elevation(faces, [], null));
    }

    private static FacePart Part(TapeScanner tape, string first, string second, string form)
    {
        var wide = tape.Dimension(first, sums: false);
        tape.By(second, form);
        return new(wide, tape.Dimension(second, sums: false), tape.Count(TapeLine.MostCount));
    }

    private static TapeDraft ReadSite(string name, TapeScanner tape, UnitSystem system, string line, int stop)
    {
        Outline? outline = null;
        TypedQuantity? area = null;
        if (tape.Word("walls") || tape.Word("sides"))
            outline = WallsOf(tape);
        else if (tape.Word("corners"))
            outline = CornersOf(tape);
        else
        {
            // One length times another is a rectangle, whose perimeter is known; anything else is only an area.
            tape.AtNumber();
            var from = tape.At;
            _ = tape.Quantity(Kind.Area);
            var text = line[from..tape.At].Trim();
            outline = RectangleIn(text, system);
            area = outline is null ? new(Kind.Area, text, system) : null;
        }
        Length? depth = null,
            around = null;
        while (true)
        {
            if (depth is null && tape.Word("deep"))
                depth = tape.Dimension("depth");
            else if (around is null && outline is null && tape.Word("around"))
                around = tape.Dimension("length around");
            else
                break;
        }
        tape.End(
            "After a site's area there may be deep 4\""
                + (outline is null ? ", around 120'" : "")
                + ", then ; and islands or a count."
        );
        return new(name, new Site(outline, area, around, depth, []));
    }

    private static Rectangle? RectangleIn(string text, UnitSystem system)
    {
        try
        {
            var tape = new TapeScanner(text, 0, text.Length, system);
            var length = tape.Dimension("length", sums: false);
            tape.By("width", "");
            var width = tape.Dimension("width", sums: false);
            tape.End("");
            return new(length, width);
        }
        catch (RefusedException)
        {
            return null;
        }
    }

    private static TapeDraft ReadRun(string name, TapeScanner tape)
    {
        var length = tape.Dimension("length");
        var girth = tape.Word("girth");
        var across = girth || tape.Word("wide") ? tape.Dimension(girth ? "girth" : "width") : null;
        tape.End("After a run's length there may be wide 8\" or girth 14\", then ; and a count.");
        return new(name, new Run(length, across, girth));
    }

    private static TapeDraft ReadStair(string name, TapeScanner tape)
    {
        const string form = "a stair is so many risers, then rise, going and wide";
        var risers = tape.Whole(MostRisers, "Say how many risers the stair has, like 14.");
        int? treads = null;
        Length? rise = null,
            going = null,
            width = null;
        while (true)
        {
            if (rise is null && tape.Word("rise"))
                rise = tape.Dimension("rise");
            else if (going is null && tape.Word("going"))
                going = tape.Dimension("going");
            else if (width is null && tape.Word("wide"))
                width = tape.Dimension("width");
            else if (treads is null && tape.Word("treads"))
                treads = tape.Whole(MostRisers, "Say how many treads, like 13.");
            else
                break;
        }
        tape.End("A stair takes rise, going, wide and treads, then ; and landings.");
        if (rise is null || going is null || width is null)
            throw TapeLine.Refuse(
                tape.At,
                $"The {(rise is null ? "rise" : going is null ? "going" : "width")} is missing: {form}.",
                "Back stair 14 rise 7 1/2\" going 10\" wide 3'6"
            );
        if (risers == 1 && treads is null)
            throw TapeLine.Refuse(tape.At, "A single riser needs its treads said: treads 1.");
        return new(name, new Stair(risers, treads ?? risers - 1, rise, going, width, []));
    }

    private const int MostRisers = 1000;

    private static TapeDraft ReadItems(string name, TapeScanner tape)
    {
        var items = ListOf(
            () =>
            {
                var number = tape.Whole(1_000_000, "Say how many of what: 12 handles, 4 notice boards.");
                var at = tape.At;
                var what = tape.Text(',', "The name of a thing");
                return what.Length > 1 && char.IsLetter(what[0]) && char.IsLetter(what[1])
                    ? new Item(what, number)
                    : throw TapeLine.Refuse(at, "Say how many of what: 12 handles, 4 notice boards.");
            },
            () => tape.Sign(',')
        );
        return new(name, new ItemSet(items));
    }

    /// <summary>Adds what stands after a semicolon.</summary>
    public void ReadPart(TapeScanner tape, int start)
    {
        if (tape.Word("x") || tape.Sign('×'))
        {
            count = tape.Whole(TapeLine.MostCount, "x takes a whole count, like x2.");
            tape.End("Only the count stands here.");
            return;
        }
        if (shape is Room room && tape.Word("wall"))
        {
            var letter = tape.Letters().ToUpperInvariant();
            shape = room with
            {
                WallHeights = Grown(room.WallHeights, new(letter, tape.Dimension($"height of wall {letter}")), start),
            };
        }
        else if (shape is Room banded && tape.Word("band"))
        {
            shape = banded with { Bands = Grown(banded.Bands, ReadBand(tape), start) };
        }
        else if (shape is Room or Site && tape.Word("island"))
        {
            var outline = OutlineOf(tape);
            var number = tape.Count(TapeLine.MostCount);
            Point? at = null;
            if (tape.Word("at"))
            {
                var x = tape.Coordinate("distance across");
                if (!tape.Sign(','))
                    throw TapeLine.Refuse(
                        tape.At,
                        "A place in the room is two distances with a comma between.",
                        "at 5,4"
                    );
                at = new(x, tape.Coordinate("distance up"));
            }
            var island = new Island(outline, number, at);
            shape = shape is Room around
                ? around with
                {
                    Islands = Grown(around.Islands, island, start),
                }
                : ((Site)shape) with
                {
                    Islands = Grown(((Site)shape).Islands, island, start),
                };
        }
        else if (shape is Elevation gabled && (tape.Word("gable") || tape.Word("gables")))
        {
            shape = gabled with
            {
                Gables = Grown(gabled.Gables, Part(tape, "width", "rise", "a gable is width x rise"), start),
            };
        }
        else if (shape is Elevation eaved && tape.Word("eaves"))
        {
            shape = eaved with { Eaves = tape.Dimension("length of the eaves") };
        }
        else if (shape is Stair stair && (tape.Word("landing") || tape.Word("landings")))
        {
            shape = stair with
            {
                Landings = Grown(stair.Landings, Part(tape, "width", "depth", "a landing is width x depth"), start),
            };
        }
        else if (shape.TakesOpenings && Array.Find(OpeningWords, w => tape.Word(w.Word)) is { Word: not null } word)
        {
            ReadOpening(tape, word.Kind, start);
            return;
        }
        else
        {
            throw TapeLine.Refuse(
                start,
                shape switch
                {
                    Room => "A part of a room begins with door, window or pass-through, or with wall, band or island.",
                    Elevation => "A part of a face begins with door, window or pass-through, or with gable or eaves.",
                    Site => "A part of a site begins with island.",
                    Stair => "A part of a stair begins with landing.",
                    ItemSet { TakesOpenings: true } => "A part of a set of windows begins with window or door.",
                    _ => "Only a count, like x2, stands here.",
                },
                shape.TakesOpenings ? "door 3 x 6'8" : null
            );
        }
        tape.End("Put ; before the next part.");
    }

    private static Band ReadBand(TapeScanner tape)
    {
        var words = new List<string>();
        while (true)
        {
            if (words.Count > 0 && tape.Word("to"))
                break;
            var from = tape.At;
            words.Add(
                tape.Letters() is { Length: > 0 } word
                    ? word
                    : throw TapeLine.Refuse(from, "A band is its name, then to and its height.", "band dado to 3'")
            );
        }
        return new(string.Join(' ', words), tape.Dimension("height of the band"));
    }

    private void ReadOpening(TapeScanner tape, OpeningKind kind, int start)
    {
        var width = tape.Dimension("width");
        tape.By("height", "an opening is width x height");
        var height = tape.Dimension("height");
        var number = tape.Count(TapeLine.MostCount);
        Length? depth = null,
            bottom = null;
        string? wall = null,
            leads = null;
        bool sill = false,
            reaches = kind != OpeningKind.Window,
            said = false,
            glazed = false;
        while (true)
        {
            if (depth is null && tape.Word("deep"))
                depth = tape.Dimension("depth");
            else if (!sill && tape.Word("sill"))
                sill = true;
            else if (bottom is null && tape.Word("at"))
                bottom = tape.Dimension("height of its bottom");
            else if (!said && tape.Word("floor"))
                (reaches, said) = (true, true);
            else if (!said && tape.Word("raised"))
                (reaches, said) = (false, true);
            else if (!glazed && tape.Word("glazed"))
                glazed = true;
            else if (wall is null && tape.Word("on"))
                wall = tape.Letters().ToUpperInvariant();
            else if (tape.Word("into"))
            {
                if (shape is not Room)
                    throw TapeLine.Refuse(tape.At, "Only an opening of a room leads into another.");
                leads = tape.Text(';', "The name of the place it leads into");
            }
            else
                break;
        }
        tape.End(
            "After an opening's size there may be a count (x2), deep 4\", sill, at 3', on B, floor, raised, glazed and into Hall."
        );
        if (openings.Count == TapeLine.MostParts)
            throw TapeLine.Refuse(start, $"A place takes at most {TapeLine.MostParts} kinds of opening.");
        openings.Add(new(kind, width, height, number, depth, sill, wall, reaches, bottom, null) { Glazed = glazed });
        into.Add(leads);
    }

    private static ImmutableArray<T> ListOf<T>(Func<T> next, Func<bool> more)
    {
        var list = ImmutableArray.CreateBuilder<T>();
        do
        {
            list.Add(next());
        } while (list.Count < TapeLine.MostParts && more());
        return list.ToImmutable();
    }

    private static ImmutableArray<T> Grown<T>(ImmutableArray<T> list, T thing, int start) =>
        list.Length < TapeLine.MostParts
            ? list.Add(thing)
            : throw TapeLine.Refuse(start, $"A place takes at most {TapeLine.MostParts} of these.");
}
