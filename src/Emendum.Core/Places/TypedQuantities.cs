using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>Reads quantities that someone typed as an expression in tape notation.</summary>
public static class TypedQuantities
{
    /// <summary>Longest text.</summary>
    public const int Longest = 200;

    /// <summary>The quantity in its own base: inches or millimetres to the power of its kind; a count has no base.</summary>
    /// <exception cref="RefusedException">It cannot be read, with its position.</exception>
    public static (decimal Value, Unit? Base) Read(TypedQuantity typed)
    {
        if (typed.Kind is Kind.Mass or Kind.Time)
            throw RefusedException.Of("text", "A measure is a length, an area, a volume or a count.");
        if (typed.Text.Length > Longest)
            throw RefusedException.Of("text", $"At most {Longest} characters.");
        try
        {
            var tape = new TapeScanner(typed.Text, 0, typed.Text.Length, typed.Units);
            var (value, unit) = tape.Quantity(typed.Kind);
            tape.End("Write an expression like 24 x 15 + 10 x 10.");
            // Twelve digits before the point are more than any job has, and leave decimals room to be multiplied.
            if (value >= 1_000_000_000_000_000m)
                throw RefusedException.Of("text", "That is too large.");
            return (value, unit);
        }
        catch (OverflowException)
        {
            throw RefusedException.Of("text", "That is too large.");
        }
    }

    /// <summary>A length on its own, more than zero.</summary>
    /// <exception cref="RefusedException">It cannot be read.</exception>
    public static Length Length(string text, UnitSystem system, string name)
    {
        if (text.Length > Longest)
            throw RefusedException.Of("text", $"At most {Longest} characters.");
        var tape = new TapeScanner(text, 0, text.Length, system);
        var length = tape.Dimension(name);
        tape.End("Write one length, like 9'2.");
        return length;
    }

    /// <summary>The quantity in a unit of its kind.</summary>
    public static decimal In(TypedQuantity typed, Unit unit)
    {
        var (value, from) = Read(typed);
        return from is null ? value : value * TapeScanner.FactorOf(from, typed.Kind) / unit.Factor;
    }
}
