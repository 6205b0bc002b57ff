using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>New entries to be filled in.</summary>
public static class Blank
{
    /// <summary>An entry of that kind with nothing in it that must be chosen; roles and the like are the first of <paramref name="all"/>.</summary>
    /// <exception cref="RefusedException">There is no such kind, or nothing yet that it could be made from.</exception>
    public static BookEntry Of(string kind, Guid id, string name, IEnumerable<BookEntry> all, Func<Guid> newId)
    {
        var role = new Lazy<Guid>(() =>
            all.OfType<LabourRole>().OrderBy(r => r.Name, StringComparer.Ordinal).FirstOrDefault(r => !r.Archived)?.Id
            ?? throw RefusedException.Of("kind", "Add a labour role first.")
        );
        return kind switch
        {
            "role" => new LabourRole(id, 1, name, 20, []),
            "material" => new Material(id, 1, name, Unit.Each, [new("piece", 1, 0)], null, null, 0, true),
            "equipment" => new Equipment(id, 1, name, 0),
            "subcontract" => new Subcontract(id, 1, name, Unit.SquareFoot, 0, false),
            "rate" => new ProductionRate(
                id,
                1,
                name,
                "",
                Measure.FloorArea,
                [new(1, Ratio.Parse("100 ft² per h"))],
                role.Value,
                null,
                "",
                ""
            ),
            "assembly" => new Assembly(
                id,
                1,
                name,
                "",
                Measure.FloorArea,
                [
                    new(
                        newId(),
                        "Labour",
                        ComponentKind.Labour,
                        role.Value,
                        Measure.FloorArea,
                        null,
                        null,
                        Ratio.Parse("100 ft² per h"),
                        false,
                        null
                    )
                    {
                        Scales = true,
                    },
                ],
                "",
                ""
            ),
            "priceOnly" => new PriceOnlyItem(id, 1, name, "", Measure.Count, Unit.Each, 0, "", ""),
            "condition" => new Condition(id, 1, name, "", 1, 1, 1),
            "surface" => new SurfaceFactor(id, 1, name, 1, 1),
            "setUp" => new SetUp(id, 1, name, role.Value, 20, TravelPer.CrewDay, 0, DistanceUnit.Mile, 0, 0),
            "text" => new BookText(id, 1, name, TextUse.Scope, "Text"),
            _ => throw RefusedException.Of("kind", $"There is no kind of entry “{kind}”."),
        };
    }
}
