namespace Emendum.Core.Figures;

/// <summary>
/// A number on its way through a rule, with how it came about when the trace records and nothing when it is silent. Rules are written once over
/// this type, so an explanation cannot differ from the figure (architecture decision 11).
/// </summary>
public readonly struct Val(decimal value, Expr? how)
{
    /// <summary>The number.</summary>
    public decimal V { get; } = value;

    /// <summary>How it came about; null when the trace is silent.</summary>
    public Expr? How { get; } = how;

    /// <summary>A number that stands in a rule itself (the 2 of 2 · (length + width)).</summary>
    public static implicit operator Val(decimal constant) => new(constant, null);

    /// <summary>Sum.</summary>
    public static Val operator +(Val a, Val b) => new(a.V + b.V, Join("add", a, b));

    /// <summary>Difference.</summary>
    public static Val operator -(Val a, Val b) => new(a.V - b.V, Join("subtract", a, b));

    /// <summary>Product.</summary>
    public static Val operator *(Val a, Val b) => new(a.V * b.V, Join("multiply", a, b));

    /// <summary>Quotient.</summary>
    public static Val operator /(Val a, Val b) => new(a.V / b.V, Join("divide", a, b));

    /// <summary>Whole number not below, after rounding to 9 places.</summary>
    public Val Ceil() => new(Quantities.Rounding.Ceiling(V), How is null ? null : new Op("ceil", [How]));

    /// <summary>Whole number not above, after rounding to 9 places.</summary>
    public Val Floor() =>
        new(decimal.Floor(Quantities.Rounding.ForCompare(V)), How is null ? null : new Op("floor", [How]));

    /// <summary>The larger.</summary>
    public static Val Max(Val a, Val b) => new(decimal.Max(a.V, b.V), Join("max", a, b));

    /// <summary>The smaller.</summary>
    public static Val Min(Val a, Val b) => new(decimal.Min(a.V, b.V), Join("min", a, b));

    /// <summary>Square root, to 12 places.</summary>
    public Val Sqrt() => new(Quantities.Roots.Sqrt(V), How is null ? null : new Op("sqrt", [How]));

    /// <summary>Rounded to the places of its currency, after rounding to 9.</summary>
    public Val Money(int places) =>
        new(Quantities.Rounding.Money(V, places), How is null ? null : new Cents(How, places));

    /// <summary>How it came about, a constant when nothing was recorded.</summary>
    public Expr HowOrConstant => How ?? new Leaf("constant", V, "", "", null, null);

    private static Op? Join(string op, Val a, Val b) =>
        a.How is null && b.How is null ? null : new Op(op, [a.HowOrConstant, b.HowOrConstant]);
}

/// <summary>Adds up many values without building a ladder of sums.</summary>
public sealed class Sum
{
    private decimal total;
    private List<Expr>? parts;

    /// <summary>Adds one value.</summary>
    public void Add(Val value)
    {
        total += value.V;
        if (value.How is not null)
            (parts ??= []).Add(value.How);
    }

    /// <summary>The sum of values.</summary>
    public static Val Of(IEnumerable<Val> values)
    {
        var sum = new Sum();
        foreach (var value in values)
            sum.Add(value);
        return sum.Total;
    }

    /// <summary>The sum so far; what is added later does not change it.</summary>
    public Val Total => new(total, parts is null ? null : new Op("add", [.. parts]));
}
