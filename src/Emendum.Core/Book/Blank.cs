using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>New entries to be filled in.</summary>
public static class Blank
{
    /// <summary>An entry of that kind with nothing in it that nobody has said: what it needs before it can be used is what it lacks.</summary>
    /// <exception cref="RefusedException">There is no such kind.</exception>
    public static BookEntry Of(string kind, Guid id, string name) =>
        kind switch
        {
            "role" => new LabourRole(id, 1, name, 0, []),
            "material" => new Material(id, 1, name, Unit.Each, [], null, null, 0, true),
            "equipment" => new Equipment(id, 1, name, 0),
            "subcontract" => new Subcontract(id, 1, name, Unit.SquareFoot, 0, false),
            "rate" => new ProductionRate(id, 1, name, "", Measure.FloorArea, [], Guid.Empty, null, "", ""),
            "assembly" => new Assembly(id, 1, name, "", Measure.FloorArea, [], "", ""),
            "priceOnly" => new PriceOnlyItem(id, 1, name, "", Measure.Count, Unit.Each, 0, "", ""),
            "condition" => new Condition(id, 1, name, "", 1, 1, 1),
            "surface" => new SurfaceFactor(id, 1, name, 1, 1),
            "setUp" => new SetUp(id, 1, name, Guid.Empty, 0, TravelPer.CrewDay, 0, DistanceUnit.Mile, 0, 0),
            "text" => new BookText(id, 1, name, TextUse.Scope, ""),
            _ => throw RefusedException.Of("kind", $"There is no kind of entry “{kind}”."),
        };
}
