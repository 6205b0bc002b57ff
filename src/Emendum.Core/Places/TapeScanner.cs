using System.Globalization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>
/// Reads lengths in tape notation from part of a line: <c>12'6"</c>, <c>12'6</c>, <c>12' 6 1/2"</c>, <c>12ft 6in</c>, <c>12.5'</c>, <c>150"</c>,
/// <c>3.81 m</c>, <c>381 cm</c>, <c>3810 mm</c>, a bare number in the job's unit; <c>12-6</c> is feet-inches in feet, <c>12 - 6</c> subtracts;
/// <c>+ - *</c> and brackets between terms (estimating model §1). As a quantity it also reads <c>24 x 15 + 10 x 10</c> and <c>0.4 acre</c>.
/// </summary>
internal sealed class TapeScanner(string line, int start, int stop, UnitSystem system)
{
    private const int DeepestBrackets = 20;
    private const decimal TooLarge = 1_000_000_000_000_000_000m;

    /// <summary>Words that may follow a bare number; any other word after one is refused.</summary>
    private static readonly HashSet<string> Following = new(StringComparer.OrdinalIgnoreCase)
    {
        "deep",
        "sill",
        "on",
        "at",
        "into",
        "floor",
        "raised",
        "glazed",
        "r",
        "l",
        "right",
        "left",
        "slope",
        "wide",
        "girth",
        "going",
        "rise",
        "treads",
        "around",
        "deg",
    };

    /// <summary>Area and volume units of a quantity, longest spelling first, with the base they are kept in and how much of it one is.</summary>
    private static readonly (string Word, Unit Base, int Power, decimal Size)[] Sized =
    [
        ("sq ft", Unit.Inch, 2, 144),
        ("sqft", Unit.Inch, 2, 144),
        ("ft²", Unit.Inch, 2, 144),
        ("ft2", Unit.Inch, 2, 144),
        ("sf", Unit.Inch, 2, 144),
        ("sq yd", Unit.Inch, 2, 1296),
        ("yd²", Unit.Inch, 2, 1296),
        ("yd2", Unit.Inch, 2, 1296),
        ("squares", Unit.Inch, 2, 14_400),
        ("square", Unit.Inch, 2, 14_400),
        ("acres", Unit.Inch, 2, 6_272_640),
        ("acre", Unit.Inch, 2, 6_272_640),
        ("sq m", Unit.Millimetre, 2, 1_000_000),
        ("sqm", Unit.Millimetre, 2, 1_000_000),
        ("m²", Unit.Millimetre, 2, 1_000_000),
        ("m2", Unit.Millimetre, 2, 1_000_000),
        ("ha", Unit.Millimetre, 2, 10_000_000_000),
        ("cu ft", Unit.Inch, 3, 1728),
        ("ft³", Unit.Inch, 3, 1728),
        ("ft3", Unit.Inch, 3, 1728),
        ("cu yd", Unit.Inch, 3, 46656),
        ("yd³", Unit.Inch, 3, 46656),
        ("yd3", Unit.Inch, 3, 46656),
        ("m³", Unit.Millimetre, 3, 1_000_000_000),
        ("m3", Unit.Millimetre, 3, 1_000_000_000),
    ];

    private int at = start;
    private int depth;
    private bool quantities;

    /// <summary>Where it has read to.</summary>
    public int At => at;

    /// <summary>A length with its text; more than zero. Sums are read only where <paramref name="sums"/>: between areas a plus joins the areas.</summary>
    public Length Dimension(string name, bool sums = true)
    {
        Space();
        var from = at;
        var value = sums ? Terms(name) : Product(name);
        return LengthOf(value, from, name);
    }

    /// <summary>A coordinate: may be zero or below, and takes no sums.</summary>
    public Length Coordinate(string name)
    {
        Space();
        var from = at;
        var below = at < stop && line[at] == '-';
        if (below)
            at++;
        var value = Single(name);
        if (value.Plain)
            value = Bare(value.Value, from, 1);
        if (value.Power != 1)
            throw TapeLine.Refuse(from, $"The {name} is a length.");
        return Bounded(new(below ? -value.Value : value.Value, value.Base!, line[from..at].Trim()), from, name);
    }

    /// <summary>A quantity of a kind: its value in inches or millimetres to the power of the kind (a count: as it is).</summary>
    public (decimal Value, Unit? Base) Quantity(Kind kind)
    {
        var power = PowerOf(kind);
        quantities = true;
        Space();
        var from = at;
        var value = Terms(kind.ToString().ToLowerInvariant());
        if (value.Plain && power > 0)
            value = Bare(value.Value, from, power);
        if (value.Power != power)
            throw TapeLine.Refuse(from, $"That is {NameOf(value.Power)}, and {NameOf(power)} is wanted.");
        if (value.Value < 0)
            throw TapeLine.Refuse(from, "It comes to less than zero.");
        return (value.Value, value.Base);
    }

    /// <summary>Power of a length that a kind is: 1, 2, 3; 0 for a count.</summary>
    public static int PowerOf(Kind kind) =>
        kind switch
        {
            Kind.Length => 1,
            Kind.Area => 2,
            Kind.Volume => 3,
            _ => 0,
        };

    /// <summary>Exact factor of a length unit raised to the power of a kind.</summary>
    public static decimal FactorOf(Unit unit, Kind kind)
    {
        var factor = 1m;
        for (var i = 0; i < PowerOf(kind); i++)
            factor *= unit.Factor;
        return factor;
    }

    /// <summary>The sign between dimensions.</summary>
    public void By(string next, string form)
    {
        Space();
        if (at >= stop)
            throw TapeLine.Refuse(at, $"The {next} is missing: {form}.");
        if (line[at] is not ('x' or 'X' or '×'))
            throw TapeLine.Refuse(at, $"“{line[at]}” cannot be read here. Put x before the {next}.");
        at++;
    }

    /// <summary>An optional count after complete dimensions: <c>x2</c>.</summary>
    public int Count(int most)
    {
        Space();
        if (at >= stop || line[at] is not ('x' or 'X' or '×'))
            return 1;
        at++;
        return Whole(most, "After complete dimensions x takes a whole count, like x2.");
    }

    /// <summary>A whole number from 1.</summary>
    public int Whole(int most, string wrong)
    {
        Space();
        var from = at;
        while (at < stop && char.IsAsciiDigit(line[at]))
            at++;
        if (at == from || (at < stop && !char.IsWhiteSpace(line[at]) && line[at] is not (',' or '+')))
            throw TapeLine.Refuse(from, wrong);
        if (
            !int.TryParse(line.AsSpan(from, at - from), NumberStyles.None, CultureInfo.InvariantCulture, out var count)
            || count < 1
            || count > most
        )
            throw TapeLine.Refuse(from, $"A count is 1 to {most}.");
        return count;
    }

    /// <summary>A turn at the end of a wall: <c>r</c>, <c>left</c>, <c>r45°</c>; degrees to the right, or null when none stands here.</summary>
    public decimal? Turn()
    {
        Space();
        var sign =
            at < stop
                ? char.ToLowerInvariant(line[at]) switch
                {
                    'r' => 1,
                    'l' => -1,
                    _ => 0,
                }
                : 0;
        if (sign == 0)
            return null;
        var from = at;
        if (!Mark("right", "left") && !(at + 1 >= stop || !char.IsLetter(line[at + 1]) || line[at + 1] is 'x' or 'X'))
            return null;
        if (at == from)
            at++;
        var after = at;
        if (Number() is { } degrees)
        {
            if (Mark("°", "deg"))
                return degrees is > 0 and < 180
                    ? sign * degrees
                    : throw TapeLine.Refuse(after, "A turn is above 0 and below 180 degrees.", "r45°");
            at = after;
        }
        return sign * 90;
    }

    /// <summary>Takes the word if it stands next.</summary>
    public bool Word(string word)
    {
        Space();
        if (
            at + word.Length > stop
            || string.Compare(line, at, word, 0, word.Length, StringComparison.OrdinalIgnoreCase) != 0
        )
            return false;
        if (at + word.Length < stop && char.IsLetter(line[at + word.Length]))
            return false;
        at += word.Length;
        return true;
    }

    /// <summary>Takes the sign if it stands next.</summary>
    public bool Sign(char sign)
    {
        Space();
        if (at >= stop || line[at] != sign)
            return false;
        at++;
        return true;
    }

    /// <summary>The text up to the sign or the end, trimmed.</summary>
    public string Text(char until, string what)
    {
        Space();
        var from = at;
        while (at < stop && line[at] != until)
            at++;
        var text = line[from..at].Trim();
        return text.Length is > 0 and <= TapeLine.LongestName
            ? text
            : throw TapeLine.Refuse(from, $"{what} is 1 to {TapeLine.LongestName} characters.");
    }

    /// <summary>Letters that stand next.</summary>
    public string Letters()
    {
        Space();
        var from = at;
        while (at < stop && char.IsLetter(line[at]))
            at++;
        return line[from..at];
    }

    /// <summary>Whether a number can begin here.</summary>
    public bool AtNumber()
    {
        Space();
        return at < stop && (char.IsAsciiDigit(line[at]) || line[at] is '.' or '(' or '-');
    }

    /// <summary>Refuses anything left over.</summary>
    public void End(string form)
    {
        Space();
        if (at < stop)
            throw TapeLine.Refuse(at, $"“{line[at..stop].Trim()}” cannot be read here. {form}");
    }

    /// <summary>A number with the power of a length it is (0: plain) in inches or millimetres.</summary>
    private readonly record struct Term(decimal Value, Unit? Base, int Power)
    {
        public bool Plain => Power == 0;
    }

    private Length LengthOf(Term value, int from, string name)
    {
        if (value.Plain)
            value = Bare(value.Value, from, 1);
        if (value.Power != 1)
            throw TapeLine.Refuse(from, $"The {name} is a length.");
        if (value.Value <= 0)
            throw TapeLine.Refuse(from, $"The {name} must be more than zero.");
        return Bounded(new(value.Value, value.Base!, line[from..at].Trim()), from, name);
    }

    private static Length Bounded(Length length, int from, string name)
    {
        if (decimal.Abs(length.Millimetres) > Length.Longest)
            throw TapeLine.Refuse(from, $"The {name} is over 10 km: check the unit.");
        if (decimal.Round(length.Value, Rounding.InputDecimals) != length.Value)
            throw TapeLine.Refuse(
                from,
                $"The {name} has more than six decimals of {(length.Unit == Unit.Inch ? "an inch" : "a millimetre")}."
            );
        return length;
    }

    private Term Terms(string name)
    {
        var sum = Product(name);
        while (true)
        {
            Space();
            if (at >= stop || line[at] is not ('+' or '-'))
                return sum;
            var sign = at++;
            sum = Add(sum, Product(name), line[sign] == '+' ? 1 : -1, sign);
        }
    }

    private Term Product(string name)
    {
        var product = Single(name);
        while (true)
        {
            Space();
            if (at >= stop)
                return product;
            var sign = at;
            if (line[at] == '*')
                at++;
            else if (quantities && line[at] is 'x' or 'X' or '×')
                at++;
            else
                return product;
            var next = Single(name);
            if (line[sign] != '*')
            {
                if (product.Plain)
                    product = Bare(product.Value, sign, 1);
                if (next.Plain)
                    next = Bare(next.Value, sign, 1);
            }
            if (!quantities && !product.Plain && !next.Plain)
                throw TapeLine.Refuse(sign, "A length times a length is an area, not a length.");
            if (product.Power + next.Power > 3)
                throw TapeLine.Refuse(sign, "More than three lengths are multiplied here.");
            if (!product.Plain && !next.Plain && product.Base != next.Base)
                (product, next) = (InMillimetres(product), InMillimetres(next));
            product = new(product.Value * next.Value, product.Base ?? next.Base, product.Power + next.Power);
            if (decimal.Abs(product.Value) >= (product.Power < 2 ? Rounding.InputBound : TooLarge))
                throw TapeLine.Refuse(sign, "That is too large.");
        }
    }

    private Term Add(Term a, Term b, int sign, int position)
    {
        if (a.Plain && b.Plain)
            return new(a.Value + sign * b.Value, null, 0);
        if (a.Plain)
            a = Bare(a.Value, position, b.Power);
        if (b.Plain)
            b = Bare(b.Value, position, a.Power);
        if (a.Power != b.Power)
            throw TapeLine.Refuse(position, $"{NameOf(a.Power)} and {NameOf(b.Power)} cannot be added.");
        if (a.Base != b.Base)
            (a, b) = (InMillimetres(a), InMillimetres(b));
        return a with { Value = a.Value + sign * b.Value };
    }

    private static string NameOf(int power) =>
        power switch
        {
            0 => "a count",
            1 => "a length",
            2 => "an area",
            _ => "a volume",
        };

    private static Term InMillimetres(Term term)
    {
        if (term.Base == Unit.Millimetre)
            return term;
        var value = term.Value;
        for (var i = 0; i < term.Power; i++)
            value *= Unit.Inch.Factor;
        return new(value, Unit.Millimetre, term.Power);
    }

    private Term Bare(decimal value, int position, int power)
    {
        if (decimal.Abs(value) >= Rounding.InputBound)
            throw TapeLine.Refuse(position, "That is too large.");
        for (var i = 0; i < power; i++)
            value *= system == UnitSystem.Feet ? 12 : 1000;
        return new(value, system == UnitSystem.Feet ? Unit.Inch : Unit.Millimetre, power);
    }

    private Term Single(string name)
    {
        Space();
        if (at < stop && line[at] == '(')
        {
            if (++depth > DeepestBrackets)
                throw TapeLine.Refuse(at, "Too many brackets inside each other.");
            at++;
            var inside = Terms(name);
            Space();
            if (at >= stop || line[at] != ')')
                throw TapeLine.Refuse(at, "A bracket is not closed here.");
            at++;
            depth--;
            return inside;
        }
        if (at < stop && line[at] == '-')
            throw TapeLine.Refuse(at, $"The {name} must be more than zero.");
        var from = at;
        var number =
            Number()
            ?? throw TapeLine.Refuse(
                at,
                at >= stop ? $"The {name} is missing." : $"“{line[at]}” cannot be read as a {name}.",
                system == UnitSystem.Feet ? "14'6" : "4.42"
            );
        return Unitful(number, from);
    }

    private Term Unitful(decimal number, int from)
    {
        if (FeetInches(number) is { } hyphen)
            return hyphen;
        if (at < stop && line[at] == '/' && line.IndexOf('.', from, at - from) < 0)
        {
            var stroke = at;
            at = from;
            if (Fraction() is { } alone)
                return Mark("\"", "″", "inches", "inch", "in")
                    ? Of(alone, Unit.Inch)
                    : throw TapeLine.Refuse(from, "A fraction is of an inch: end it with \".", line[from..at] + "\"");
            at = stroke;
        }
        var gap = at;
        Space();
        if (quantities && AreaUnit(number) is { } sized)
            return sized;
        if (Mark("'", "′", "ft", "feet", "foot"))
            return Of(Scaled(number, 12, from) + InchesAfterFeet(), Unit.Inch);
        if (Mark("\"", "″", "inches", "inch", "in"))
            return Of(number, Unit.Inch);
        if (Fraction() is { } part)
            return Mark("\"", "″", "inches", "inch", "in")
                ? Of(number + part, Unit.Inch)
                : throw TapeLine.Refuse(from, "A fraction is of an inch: end it with \".", line[from..at] + "\"");
        if (Mark("yards", "yard", "yd"))
            return Of(Scaled(number, 36, from), Unit.Inch);
        if (Mark("mm"))
            return Of(number, Unit.Millimetre);
        if (Mark("cm"))
            return Of(Scaled(number, 10, from), Unit.Millimetre);
        if (Mark("metres", "metre", "meters", "meter", "m"))
            return Of(Scaled(number, 1000, from), Unit.Millimetre);
        var here = at;
        if (Letters() is { Length: > 0 } word && word[0] is not ('x' or 'X') && !Following.Contains(word))
            throw TapeLine.Refuse(
                here,
                $"“{word}” cannot be read here. After a number comes a unit (', \", m, cm, mm) or x and the next size."
            );
        at = gap;
        return new(number, null, 0);
    }

    private static Term Of(decimal value, Unit unit) => new(value, unit, 1);

    private static decimal Scaled(decimal value, int by, int position) =>
        value < Rounding.InputBound ? value * by : throw TapeLine.Refuse(position, "That is too large.");

    private Term? AreaUnit(decimal number)
    {
        foreach (var (word, unit, power, size) in Sized)
        {
            if (
                at + word.Length > stop
                || string.Compare(line, at, word, 0, word.Length, StringComparison.OrdinalIgnoreCase) != 0
            )
                continue;
            if (at + word.Length < stop && char.IsLetterOrDigit(line[at + word.Length]))
                continue;
            at += word.Length;
            return new(number * size, unit, power);
        }
        return null;
    }

    /// <summary><c>12-6</c> without spaces.</summary>
    private Term? FeetInches(decimal feet)
    {
        if (at + 1 >= stop || line[at] != '-' || !char.IsAsciiDigit(line[at + 1]))
            return null;
        var hyphen = at++;
        if (system == UnitSystem.Metres)
            throw TapeLine.Refuse(hyphen, "12-6 is feet and inches, and this job is metric. Put spaces round a minus.");
        var inches = Number()!.Value;
        if (inches >= 12)
            throw TapeLine.Refuse(hyphen + 1, "Inches after feet are less than 12. Put spaces round a minus.");
        Mark("\"", "″");
        return Of(Scaled(feet, 12, hyphen) + inches, Unit.Inch);
    }

    private decimal InchesAfterFeet()
    {
        var gap = at;
        Space();
        var from = at;
        if (Number() is not { } inches)
        {
            at = gap;
            return 0;
        }
        if (at < stop && line[at] == '/' && line.IndexOf('.', from, at - from) < 0)
        {
            var stroke = at;
            at = from;
            if (Fraction() is { } only)
                inches = only;
            else
                at = stroke;
        }
        else
        {
            var before = at;
            Space();
            if (Fraction() is { } part)
                inches += part;
            else
                at = before;
        }
        if (inches >= 12)
            throw TapeLine.Refuse(from, "Inches after feet are less than 12.");
        var end = at;
        Space();
        if (!Mark("\"", "″", "inches", "inch", "in"))
            at = end;
        return inches;
    }

    private decimal? Fraction()
    {
        var from = at;
        var digits = Digits();
        if (digits is null || at >= stop || line[at] != '/')
        {
            at = from;
            return null;
        }
        at++;
        var below = Digits();
        if (below is not (2 or 4 or 8 or 16 or 32 or 64) || digits >= below)
            throw TapeLine.Refuse(
                from,
                "A fraction of an inch is in halves, quarters, eighths, sixteenths, 32nds or 64ths, and less than one."
            );
        return (decimal)digits.Value / below.Value;
    }

    private int? Digits()
    {
        var from = at;
        while (at < stop && char.IsAsciiDigit(line[at]) && at - from < 4)
            at++;
        return at == from ? null : int.Parse(line.AsSpan(from, at - from), CultureInfo.InvariantCulture);
    }

    private decimal? Number()
    {
        var from = at;
        while (at < stop && (char.IsAsciiDigit(line[at]) || line[at] == '.'))
            at++;
        if (at == from)
            return null;
        return Rounding.ReadInput(line[from..at])
            ?? throw TapeLine.Refuse(
                from,
                $"“{line[from..at]}” is not a number below a thousand million with at most six decimals."
            );
    }

    private bool Mark(params ReadOnlySpan<string> marks)
    {
        foreach (var mark in marks)
        {
            if (
                at + mark.Length > stop
                || string.Compare(line, at, mark, 0, mark.Length, StringComparison.OrdinalIgnoreCase) != 0
            )
                continue;
            var after = at + mark.Length;
            if (char.IsLetter(mark[0]) && after < stop && char.IsLetter(line[after]) && line[after] is not ('x' or 'X'))
                continue;
            at = after;
            return true;
        }
        return false;
    }

    private void Space()
    {
        while (at < stop && char.IsWhiteSpace(line[at]))
            at++;
    }
}
