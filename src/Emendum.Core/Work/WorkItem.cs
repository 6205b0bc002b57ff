using Emendum.Core.Quantities;

namespace Emendum.Core.Work;

/// <summary>A Book entry as used in this job.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Rank">Sort key among the job's work items.</param>
/// <param name="Entry">The pinned rate or assembly.</param>
/// <param name="Section">Heading in grid and proposal.</param>
/// <param name="Name">Short name over the column.</param>
/// <param name="Coats">How many coats.</param>
/// <param name="Product">Material instead of the rate's own.</param>
/// <param name="Colour">Colour, for buying and wording; empty for none.</param>
/// <param name="Pace">Pace for this job instead of the rate's.</param>
/// <param name="Wording">What the customer reads.</param>
public sealed record WorkItem(Guid Id, string Rank, Guid Entry, string Section, string Name, int Coats, Guid? Product, string Colour, Ratio? Pace, string Wording);

/// <summary>Whether a work item is done at a place. No cell at all is 'none here'.</summary>
public enum CellState
{
    /// <summary>Done and priced.</summary>
    Included,
    /// <summary>Stated to customer and crew, priced at nothing.</summary>
    Excluded,
}

/// <summary>A work item at a place; holds only its state and what it overrides.</summary>
/// <param name="State">Included or excluded.</param>
/// <param name="Note">A sentence for customer and crew.</param>
public sealed record Cell(CellState State, string Note);
