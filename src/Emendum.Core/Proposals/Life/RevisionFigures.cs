using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Proposals;

/// <summary>A line of a revision, as it is kept with it.</summary>
/// <param name="Work">The work item.</param>
/// <param name="Place">The place.</param>
/// <param name="Name">Section and name of the work.</param>
/// <param name="At">Name of the place with its count.</param>
/// <param name="Quantity">How much, for all equal places.</param>
/// <param name="Unit">Its unit; empty for counts.</param>
/// <param name="Coats">Coats.</param>
/// <param name="Said">What the customer reads of it.</param>
/// <param name="Price">Its price before discounts and what else stands apart.</param>
public sealed record RevisionLine(
    Guid Work,
    Guid Place,
    string Name,
    string At,
    decimal Quantity,
    string Unit,
    int Coats,
    string Said,
    decimal Price
);

/// <summary>What is in the price of a revision beside its lines.</summary>
public sealed record RevisionStep(string Key, string Label, string Note, decimal Amount);

/// <summary>The figures of a revision that is compared with another: lines and steps sum to the price before tax.</summary>
/// <param name="Lines">Its lines, in order.</param>
/// <param name="Steps">What stands beside them.</param>
/// <param name="BeforeTax">Price before tax.</param>
/// <param name="Total">What the customer pays.</param>
/// <param name="Hours">Labour hours.</param>
/// <param name="Margin">Margin, percent; null where there is no price.</param>
/// <param name="Places">Places of its money.</param>
public sealed record RevisionFigures(
    ImmutableArray<RevisionLine> Lines,
    ImmutableArray<RevisionStep> Steps,
    decimal BeforeTax,
    decimal Total,
    decimal Hours,
    decimal? Margin,
    int Places
)
{
    /// <summary>SHA-256 of the customer's schedule of quantities as it was given back, priced (.xlsx); empty where the price is not shown by it.</summary>
    public string Schedule { get; init; } = "";

    /// <summary>Those of a job as it stands.</summary>
    public static RevisionFigures Of(Estimate estimate)
    {
        var (job, price, spread) = (estimate.Job, estimate.Price, Spread.Of(estimate, Trace.Silent, Apart.Adjustments));
        var writing = new Writing(estimate, Jobs.Party.None, Brand.Starting, Trace.Silent);
        var lines = ImmutableArray.CreateBuilder<RevisionLine>();
        for (var i = 0; i < estimate.Reckoned.Lines.Length; i++)
        {
            var line = estimate.Reckoned.Lines[i];
            if (line.IsNothing && spread.Lines[i].V == 0)
                continue;
            lines.Add(
                new(
                    line.OfItem.Item.Id,
                    line.Measures.Place.Id,
                    job.Titled(line.OfItem.Item),
                    Writing.PlaceName(line),
                    Rounding.Kept(line.Quantity.V),
                    line.OfItem.SymbolIn(job.Units),
                    line.Cell.Of(line.OfItem.Item).Coats,
                    ScopeBlock.Said(line, writing).Wording,
                    spread.Lines[i].V
                )
            );
        }
        var steps = ImmutableArray.CreateBuilder<RevisionStep>();
        foreach (var step in price.Steps.Where(s => Spread.StandsApart(s, Apart.Adjustments)))
            steps.Add(new(step.Key, step.IsDiscount ? "Discount" : step.Label, step.Note, step.Amount.V));
        if (spread.Contingency.V != 0)
            steps.Add(new("contingency", "Contingency", "", spread.Contingency.V));
        var rest = price.BeforeTax.V - lines.Sum(l => l.Price) - steps.Sum(s => s.Amount);
        if (rest != 0)
            steps.Add(new("other", price.Step(SuppliesPass.Key)?.Label ?? "Other work", "", rest));
        return new(
            lines.ToImmutable(),
            steps.ToImmutable(),
            price.BeforeTax.V,
            price.Total.V,
            Rounding.Kept(estimate.Reckoned.Costs.Hours.V),
            price.Readouts.Margin is { } margin ? Rounding.Kept(margin.V) : null,
            estimate.MoneyPlaces
        );
    }
}
