using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>
/// Reads lengths in tape notation from part of a line: <c>12'6"</c>, <c>12'6</c>, <c>12' 6 1/2"</c>, <c>12ft 6in</c>, <c>12.5'</c>, <c>150"</c>,
/// <c>3.81 m</c>, <c>381 cm</c>, <c>3810 mm</c>, a bare number in the job's unit; <c>12-6</c> is feet-inches in feet, <c>12 - 6</c> subtracts;
/// <c>+ - *</c> and brackets between terms (estimating model §1).
/// </summary>
internal sealed class TapeScanner(string line, int start, int stop, UnitSystem system)
{
    private const int DeepestBrackets = 20;
    private int at = start;
    private int depth;

    /// <summary>A length with its text; more than zero.</summary>
    public Length Dimension(string name)
    {
        Space();
        var from = at;
        var sum = Terms(name);
        var text = line[from..at].Trim();
        if (sum.Plain) sum = Bare(sum.Value, from);
        if (sum.Value <= 0) throw TapeLine.Refuse(from, $"The {name} must be more than zero.");
        if (sum.Value * sum.Unit!.Factor > 10_000_000m) throw TapeLine.Refuse(from, $"The {name} is over 10 km: check the unit.");
        if (decimal.Round(sum.Value, Rounding.InputDecimals) != sum.Value) throw TapeLine.Refuse(from, $"The {name} has more than six decimals of {(sum.Unit == Unit.Inch ? "an inch" : "a millimetre")}.");
        return new(sum.Value, sum.Unit, text);
    }

    /// <summary>The sign between dimensions.</summary>
    public void By(string next, string form)
    {
        Space();
        if (at >= stop) throw TapeLine.Refuse(at, $"The {next} is missing: {form}.");
        if (line[at] is not ('x' or 'X' or '×')) throw TapeLine.Refuse(at, $"“{line[at]}” cannot be read here. Put x before the {next}.");
        at++;
    }

    /// <summary>An optional count after complete dimensions: <c>x2</c>.</summary>
    public int Count(int most)
    {
        Space();
        if (at >= stop || line[at] is not ('x' or 'X' or '×')) return 1;
        at++;
        Space();
        var from = at;
        while (at < stop && char.IsAsciiDigit(line[at])) at++;
        if (at == from || (at < stop && !char.IsWhiteSpace(line[at]))) throw TapeLine.Refuse(from, "After complete dimensions x takes a whole count, like x2.");
        if (!int.TryParse(line.AsSpan(from, at - from), out var count) || count < 1 || count > most) throw TapeLine.Refuse(from, $"A count is 1 to {most}.");
        return count;
    }

    /// <summary>Takes the word if it stands next.</summary>
    public bool Word(string word)
    {
        Space();
        if (at + word.Length > stop || string.Compare(line, at, word, 0, word.Length, StringComparison.OrdinalIgnoreCase) != 0) return false;
        if (at + word.Length < stop && char.IsLetter(line[at + word.Length])) return false;
        at += word.Length;
        return true;
    }

    /// <summary>Refuses anything left over.</summary>
    public void End(string form)
    {
        Space();
        if (at < stop) throw TapeLine.Refuse(at, $"“{line[at..stop].Trim()}” cannot be read here. {form}");
    }

    private readonly record struct Term(decimal Value, Unit? Unit)
    {
        public bool Plain => Unit is null;
    }

    private Term Terms(string name)
    {
        var sum = Product(name);
        while (true)
        {
            Space();
            if (at >= stop || line[at] is not ('+' or '-')) return sum;
            var sign = line[at++] == '+' ? 1 : -1;
            sum = Add(sum, Product(name), sign);
        }
    }

    private Term Product(string name)
    {
        var product = Single(name);
        while (true)
        {
            Space();
            if (at >= stop || line[at] != '*') return product;
            var sign = at++;
            var next = Single(name);
            if (!product.Plain && !next.Plain) throw TapeLine.Refuse(sign, "A length times a length is an area, not a length.");
            product = new(product.Value * next.Value, product.Unit ?? next.Unit);
            if (decimal.Abs(product.Value) >= Rounding.InputBound) throw TapeLine.Refuse(sign, "That is too large.");
        }
    }

    private Term Add(Term a, Term b, int sign)
    {
        if (a.Plain && b.Plain) return new(a.Value + sign * b.Value, null);
        if (a.Plain) a = Bare(a.Value, at);
        if (b.Plain) b = Bare(b.Value, at);
        return a.Unit == b.Unit
            ? new(a.Value + sign * b.Value, a.Unit)
            : new(a.Value * a.Unit!.Factor + sign * b.Value * b.Unit!.Factor, Unit.Millimetre);
    }

    private Term Bare(decimal value, int position) => system == UnitSystem.Feet
        ? new(Bounded(value, position) * 12, Unit.Inch)
        : new(Bounded(value, position) * 1000, Unit.Millimetre);

    private static decimal Bounded(decimal value, int position) =>
        decimal.Abs(value) < Rounding.InputBound ? value : throw TapeLine.Refuse(position, "That is too large.");

    private Term Single(string name)
    {
        Space();
        if (at < stop && line[at] == '(')
        {
            if (++depth > DeepestBrackets) throw TapeLine.Refuse(at, "Too many brackets inside each other.");
            at++;
            var inside = Terms(name);
            Space();
            if (at >= stop || line[at] != ')') throw TapeLine.Refuse(at, "A bracket is not closed here.");
            at++;
            depth--;
            return inside;
        }
        if (at < stop && line[at] == '-') throw TapeLine.Refuse(at, $"The {name} must be more than zero.");
        var from = at;
        var number = Number() ?? throw TapeLine.Refuse(at, at >= stop ? $"The {name} is missing." : $"“{line[at]}” cannot be read as a {name}.", "14'6");
        return Unitful(number, from);
    }

    private Term Unitful(decimal number, int from)
    {
        if (FeetInches(number) is { } hyphen) return hyphen;
        var gap = at;
        Space();
        if (Mark("'", "′", "ft", "feet", "foot")) return new(Bounded(number, from) * 12 + InchesAfterFeet(), Unit.Inch);
        if (Mark("\"", "″", "inches", "inch", "in")) return new(number, Unit.Inch);
        if (Fraction() is { } part)
            return Mark("\"", "″", "inches", "inch", "in") ? new(number + part, Unit.Inch) : throw TapeLine.Refuse(from, "A fraction is of an inch: end it with \".", line[from..at] + "\"");
        if (Mark("mm")) return new(number, Unit.Millimetre);
        if (Mark("cm")) return new(number * 10, Unit.Millimetre);
        if (Mark("metres", "metre", "meters", "meter", "m")) return new(Bounded(number, from) * 1000, Unit.Millimetre);
        if (Letters() is { Length: > 0 } word && word[0] is not ('x' or 'X') && word.ToLowerInvariant() is not ("deep" or "sill")) throw TapeLine.Refuse(at, $"“{word}” cannot be read here. After a number comes a unit (', \", m, cm, mm) or x and the next size.");
        at = gap;
        return new(number, null);
    }

    /// <summary><c>12-6</c> without spaces.</summary>
    private Term? FeetInches(decimal feet)
    {
        if (at + 1 >= stop || line[at] != '-' || !char.IsAsciiDigit(line[at + 1])) return null;
        var hyphen = at++;
        if (system == UnitSystem.Metres) throw TapeLine.Refuse(hyphen, "12-6 is feet and inches, and this job is metric. Put spaces round a minus.");
        var inches = Number()!.Value;
        if (inches >= 12) throw TapeLine.Refuse(hyphen + 1, "Inches after feet are less than 12. Put spaces round a minus.");
        Mark("\"", "″");
        return new(feet * 12 + inches, Unit.Inch);
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
        if (at < stop && line[at] == '/' && inches is > 0 and < 1000 && decimal.Truncate(inches) == inches)
        {
            at = from;
            inches = Fraction()!.Value;
        }
        else
        {
            var before = at;
            Space();
            if (Fraction() is { } part) inches += part;
            else at = before;
        }
        if (inches >= 12) throw TapeLine.Refuse(from, "Inches after feet are less than 12.");
        var end = at;
        Space();
        if (!Mark("\"", "″", "inches", "inch", "in")) at = end;
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
        if (below is not (2 or 4 or 8 or 16 or 32 or 64) || digits >= below) throw TapeLine.Refuse(from, "A fraction of an inch is in halves, quarters, eighths, sixteenths, 32nds or 64ths, and less than one.");
        return (decimal)digits.Value / below.Value;
    }

    private int? Digits()
    {
        var from = at;
        while (at < stop && char.IsAsciiDigit(line[at]) && at - from < 4) at++;
        return at == from ? null : int.Parse(line.AsSpan(from, at - from), System.Globalization.CultureInfo.InvariantCulture);
    }

    private decimal? Number()
    {
        var from = at;
        while (at < stop && (char.IsAsciiDigit(line[at]) || line[at] == '.')) at++;
        if (at == from) return null;
        return Rounding.ReadInput(line[from..at]) ?? throw TapeLine.Refuse(from, $"“{line[from..at]}” is not a number below a thousand million with at most six decimals.");
    }

    private bool Mark(params ReadOnlySpan<string> marks)
    {
        foreach (var mark in marks)
        {
            if (at + mark.Length > stop || string.Compare(line, at, mark, 0, mark.Length, StringComparison.OrdinalIgnoreCase) != 0) continue;
            var after = at + mark.Length;
            if (char.IsLetter(mark[0]) && after < stop && char.IsLetter(line[after]) && line[after] is not ('x' or 'X')) continue;
            at = after;
            return true;
        }
        return false;
    }

    private string Letters()
    {
        var from = at;
        var end = at;
        while (end < stop && char.IsLetter(line[end])) end++;
        return line[from..end];
    }

    private void Space()
    {
        while (at < stop && char.IsWhiteSpace(line[at])) at++;
    }
}
