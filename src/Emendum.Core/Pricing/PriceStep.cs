using System.Collections.Immutable;
using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>What a step of the price is.</summary>
public enum StepKind
{
    /// <summary>A cost, as it is.</summary>
    Cost,

    /// <summary>Something on top, or taken off.</summary>
    Added,

    /// <summary>Added for the firm to keep.</summary>
    Profit,

    /// <summary>Added for somebody else to have.</summary>
    Tax,

    /// <summary>All so far.</summary>
    Sum,
}

/// <summary>What of a price is shared to lines in another way.</summary>
public enum PriceBody
{
    /// <summary>What has a cost: shared by each line's cost under the basis.</summary>
    Costs,

    /// <summary>What has a price of its own: it stays with its lines.</summary>
    Priced,

    /// <summary>What is of the job and of no line, as tax.</summary>
    Job,
}

/// <summary>What of a step falls on one body of the price.</summary>
public readonly record struct StepPart(PriceBody Of, Val Amount);

/// <summary>One thing that happens on the way from cost to price. The build-up on screen, the proposal and what else shows the price walk these.</summary>
/// <param name="Key">Its name in paths.</param>
/// <param name="Label">Its name on screen and paper.</param>
/// <param name="Note">What it rests on.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Amount">Money; the sum of its parts.</param>
/// <param name="Parts">What of it falls on what.</param>
public sealed record PriceStep(
    string Key,
    string Label,
    string Note,
    StepKind Kind,
    Total Amount,
    ImmutableArray<StepPart> Parts
)
{
    /// <summary>What of it falls on a body.</summary>
    public Val Of(PriceBody body) => Sum.Of(Parts.Where(p => p.Of == body).Select(p => p.Amount));
}
