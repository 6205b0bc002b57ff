using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>Work bought from another firm, by the unit or for a lump sum.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Unit">What it is charged by.</param>
/// <param name="Price">Money per unit; for a lump sum, once per work item and job.</param>
/// <param name="LumpSum">Whether the price is for all of it.</param>
public sealed record Subcontract(Guid Id, int Version, string Name, Unit Unit, decimal Price, bool LumpSum)
    : BookEntry(Id, Version, Name)
{
    internal override void Check(BookCheck check)
    {
        if (Price < 0)
            throw check.Wrong("price", "the price cannot be below zero.");
        if (Unit.Kind == Kind.Time && Unit != Unit.Hour)
            throw check.Wrong("unit", "time is charged by the hour, h.");
    }
}
