namespace Emendum.Core.Figures;

/// <summary>How two numbers stand to each other, both rounded to 9 places.</summary>
public enum Relation
{
    /// <summary>Equal.</summary>
    Same,

    /// <summary>The left is less.</summary>
    Below,

    /// <summary>The left is not less.</summary>
    AtLeast,

    /// <summary>The left is more.</summary>
    Above,
}

/// <summary>What was so when a figure was made, and decided how it was made. A workbook in which numbers are changed asks it again: where it does not hold any more, its formulas are not those
/// of the rule any more, and it says so.</summary>
/// <param name="Left">One number.</param>
/// <param name="Relation">How it stood to the other.</param>
/// <param name="Right">The other.</param>
/// <param name="Otherwise">What is to be said when it does not.</param>
public sealed record Assumption(Expr Left, Relation Relation, Expr Right, string Otherwise);
