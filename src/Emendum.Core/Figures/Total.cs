namespace Emendum.Core.Figures;

/// <summary>A figure that is asked for by itself: what it is in its unit, and where its workings stand. Whoever shows it need not know its path.</summary>
/// <param name="value">The figure.</param>
/// <param name="unit">Symbol of its unit, or empty; money has none.</param>
/// <param name="at">Its path within the reckoning.</param>
/// <param name="within">What paths of that reckoning begin with.</param>
public sealed class Total(Val value, string unit, FigurePath at, string within = "")
{
    /// <summary>The figure.</summary>
    public Val Value => value;

    /// <summary>Its number.</summary>
    public decimal V => value.V;

    /// <summary>Symbol of its unit, or empty.</summary>
    public string Unit => unit;

    /// <summary>Where its workings stand.</summary>
    public string Path => within + at;

    /// <summary>The figure on its way through a rule.</summary>
    public static implicit operator Val(Total total) => total.Value;

    /// <summary>Sum.</summary>
    public static Val operator +(Total a, Val b) => a.Value + b;

    /// <summary>Difference.</summary>
    public static Val operator -(Total a, Val b) => a.Value - b;

    /// <summary>Product.</summary>
    public static Val operator *(Total a, Val b) => a.Value * b;

    /// <summary>Quotient.</summary>
    public static Val operator /(Total a, Val b) => a.Value / b;
}
