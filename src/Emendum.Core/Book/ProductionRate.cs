using System.Collections.Immutable;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>The pace for so many coats, all of them together.</summary>
public sealed record CoatsPace(int Coats, Ratio Pace);

/// <summary>A production rate: the pace at which a role does one kind of work, with its default product.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Section">Heading in grid and proposal.</param>
/// <param name="Measure">What it is measured against.</param>
/// <param name="Paces">Pace by number of coats; work without coats has the one row 1.</param>
/// <param name="Role">Who does it.</param>
/// <param name="Product">Default material, or none.</param>
/// <param name="Wording">What the customer reads.</param>
/// <param name="CrewNote">What the crew reads.</param>
public sealed record ProductionRate(
    Guid Id,
    int Version,
    string Name,
    string Section,
    Measure Measure,
    ImmutableArray<CoatsPace> Paces,
    Guid Role,
    Guid? Product,
    string Wording,
    string CrewNote
) : WorkEntry(Id, Version, Name, Section, Measure, Wording, CrewNote)
{
    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Guid> Needs =>
        new[] { Role, Product, Surface }.OfType<Guid>().Where(id => id != Guid.Empty);

    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Lack> Lacks =>
        Lack.Of((Role == Guid.Empty, "role", "a role"), (Paces.IsEmpty, "paces", "a pace"));

    /// <summary>Two where there is a pace for two, else the first there is.</summary>
    public override int UsualCoats() =>
        Paces.Any(p => p.Coats == 2) ? 2
        : Paces.IsEmpty ? 1
        : Paces[0].Coats;

    internal override void Check(BookCheck check)
    {
        CheckWork(check);
        if (Role != Guid.Empty)
            check.Needed<LabourRole>(Role, "role", "role");
        if (Paces.Select(p => p.Coats).Distinct().Count() != Paces.Length || Paces.Any(p => p.Coats is < 1 or > 20))
            throw check.Wrong("paces", "each number of coats, 1 to 20, stands once.");
        var kind = Measure.Kind();
        for (var i = 0; i < Paces.Length; i++)
            check.Fits(Paces[i].Pace, kind, Kind.Time, $"paces[{i}].pace", "the pace");
        if (Product is not { } id)
            return;
        var product = check.Needed<Material>(id, "product", "product");
        if (product is { Coverage: null, CoverageWanted: true })
            return;
        if (product.Coverage is not { } coverage)
            throw check.Wrong("product", $"{product.Name} has no coverage.");
        check.Fits(coverage, kind, product.Unit.Kind, "product", "the product's coverage");
        if (product.LaterCoverage is { } later)
            check.Fits(later, kind, product.Unit.Kind, "product", "the product's later coverage");
    }
}
