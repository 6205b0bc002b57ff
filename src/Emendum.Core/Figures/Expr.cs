namespace Emendum.Core.Figures;

/// <summary>A step of an explanation. The closed list of operations is described in docs/workings-format.md.</summary>
public abstract record Expr;

/// <summary>A number that was not computed: typed by someone, standing in the Book, or a constant of a rule or unit.</summary>
/// <param name="Source"><c>typed</c>, <c>book</c>, <c>terms</c> or <c>constant</c>.</param>
/// <param name="Value">The number.</param>
/// <param name="Unit">Its unit's symbol, or empty.</param>
/// <param name="Label">What it is.</param>
/// <param name="Text">As it was typed, where that differs from the number.</param>
/// <param name="Link">Where it can be changed: <c>places/ID</c>, <c>work/ID</c>, <c>book/ID</c>, <c>pricing/FIELD</c>, <c>crew/FIELD</c>.</param>
public sealed record Leaf(string Source, decimal Value, string Unit, string Label, string? Text, string? Link) : Expr;

/// <summary>An operation on other steps: add, subtract, multiply, divide, min, max, ceil, floor, sqrt.</summary>
public sealed record Op(string Name, IReadOnlyList<Expr> Of) : Expr;

/// <summary>A quantity turned by a ratio: <c>of × times ÷ over</c>; kept together so that it reads as people say it.</summary>
public sealed record Apply(Expr Of, Leaf Times, Leaf Over) : Expr;

/// <summary>Money rounded to so many places, after rounding to 9.</summary>
public sealed record Cents(Expr Of, int Places) : Expr;

/// <summary>Another figure.</summary>
public sealed record Ref(Figure Figure) : Expr;

/// <summary>The cheapest packs that cover a need; <paramref name="Gives"/> is <c>cost</c> or <c>quantity</c>. Where the cheapest could not be told within a bound on work, they cost at most <paramref name="Above"/> more.</summary>
public sealed record Packs(Expr Need, IReadOnlyList<PackCount> Counts, string Gives, decimal Above) : Expr;

/// <summary>So many of one pack.</summary>
public sealed record PackCount(decimal Size, decimal Price, decimal Count);

/// <summary>What a table gives for a quantity: the row with the largest <see cref="TableRow.From"/> that the quantity, rounded to 9 places, reaches.</summary>
public sealed record Table(Expr Of, IReadOnlyList<TableRow> Rows, string Unit, string Label, string? Link) : Expr;

/// <summary>From a quantity on, a value.</summary>
public sealed record TableRow(decimal From, decimal Gives);

/// <summary>The plan of the crew's work; <paramref name="Gives"/> is <c>days</c> or <c>returns</c>.</summary>
public sealed record Plan(IReadOnlyList<PlanPiece> Steps, Expr Crew, Expr HoursPerDay, string Gives) : Expr;

/// <summary>Work in a plan: its labour hours, in how many coats, the steps it waits for by position, and how long it dries after each coat.</summary>
public sealed record PlanPiece(Expr Hours, int Coats, IReadOnlyList<int> Waits, decimal Drying);

/// <summary>One part of an amount split by largest remainder in the smallest unit of its currency.</summary>
public sealed record Share(ShareSet Set, int Index) : Expr;

/// <summary>An amount and the weights it is split by; named, so that many shares can point at one set.</summary>
public sealed record ShareSet(string Name, Expr Total, IReadOnlyList<Expr> Weights, int Places);

/// <summary>Of the draws of a sum, put in order from the smallest, the one at a rank (the smallest is 1).</summary>
public sealed record Outcome(DrawnSum Of, int Rank) : Expr;

/// <summary>How many draws of a sum come to more than a bound, both rounded to 9 places.</summary>
public sealed record OutcomesAbove(DrawnSum Of, Expr Bound) : Expr;

/// <summary>A sum that is drawn many times over: what does not vary, and what does (docs/workings-format.md says how it is drawn). Named, so that many figures can point at one.</summary>
public sealed record DrawnSum(
    string Name,
    Expr Fixed,
    IReadOnlyList<Drawn> Varying,
    Expr Shared,
    Expr Seed,
    int Draws,
    int Streams
);

/// <summary>Something between two amounts, by a number that is drawn for its stream.</summary>
public sealed record Drawn(Expr Least, Expr Most, int Stream);

/// <summary>A number with a stable path, a label and a unit: what screens show and people ask about.</summary>
public sealed record Figure(string Path, string Label, decimal Value, string Unit, Expr How);
