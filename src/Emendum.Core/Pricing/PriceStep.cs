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

    /// <summary>Comes out of the price, and adds nothing to it.</summary>
    Within,

    /// <summary>All so far.</summary>
    Sum,
}

/// <summary>What of a step falls on one part of the price.</summary>
/// <param name="Of">Kind of that part.</param>
/// <param name="Section">The section, where that has a basis of its own.</param>
/// <param name="Tax">Its tax category; null before those are told apart.</param>
/// <param name="Amount">Money.</param>
public readonly record struct StepPart(PortionKind Of, Guid? Section, TaxCategory? Tax, Val Amount);

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
    /// <summary>Whether it is a discount.</summary>
    public bool IsDiscount => DiscountsPass.Is(this);
}

/// <summary>Something raised to its least charge.</summary>
/// <param name="What">What was raised.</param>
/// <param name="Was">What it came to.</param>
/// <param name="Least">Its least charge.</param>
/// <param name="By">What that adds.</param>
public sealed record Shortfall(string What, Val Was, Val Least, Total By);

/// <summary>One tax on its part of the price.</summary>
public sealed record TaxAmount(Jobs.Tax? Tax, Total Taxed, Total Amount);
