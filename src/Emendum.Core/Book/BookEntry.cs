using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>Something the firm knows about its own work, as one immutable (id, version) (estimating model §3).</summary>
/// <param name="Id">UUIDv7, the same through all versions.</param>
/// <param name="Version">1 and up; every save is a new one.</param>
/// <param name="Name">Own name.</param>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(LabourRole), "role")]
[JsonDerivedType(typeof(Material), "material")]
[JsonDerivedType(typeof(Equipment), "equipment")]
[JsonDerivedType(typeof(ProductionRate), "rate")]
[JsonDerivedType(typeof(Assembly), "assembly")]
public abstract record BookEntry(Guid Id, int Version, string Name)
{
    /// <summary>Entries this one cannot be reckoned without.</summary>
    [JsonIgnore]
    public virtual IEnumerable<Guid> Needs => [];
}

/// <summary>A named addition to a wage: a percent of it or money per hour.</summary>
public sealed record BurdenItem(string Name, decimal? Percent, decimal? PerHour);

/// <summary>A labour role. Loaded cost = wage · (1 + Σ%) + Σ per hour.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Wage">Money per hour.</param>
/// <param name="Burden">Named items.</param>
public sealed record LabourRole(Guid Id, int Version, string Name, decimal Wage, ImmutableArray<BurdenItem> Burden) : BookEntry(Id, Version, Name);

/// <summary>A size a material is sold in, in its unit of use, and what one costs.</summary>
public sealed record Pack(string Name, decimal Size, decimal Price);

/// <summary>A material with its packs and, for what is spread, its coverage per coat.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Unit">Unit of use; packs are in it.</param>
/// <param name="Packs">At least one.</param>
/// <param name="Coverage">What one unit covers at the first coat; null when an assembly says how much is needed.</param>
/// <param name="LaterCoverage">At each later coat; null for the same.</param>
/// <param name="WastePercent">Percent on top of the need.</param>
/// <param name="Taxed">Whether tax on materials falls on it.</param>
public sealed record Material(
    Guid Id, int Version, string Name, Unit Unit, ImmutableArray<Pack> Packs, Ratio? Coverage, Ratio? LaterCoverage, decimal WastePercent, bool Taxed) : BookEntry(Id, Version, Name);

/// <summary>Equipment at a cost per hour.</summary>
public sealed record Equipment(Guid Id, int Version, string Name, decimal CostPerHour) : BookEntry(Id, Version, Name);

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
    Guid Id, int Version, string Name, string Section, Measure Measure, ImmutableArray<CoatsPace> Paces, Guid Role, Guid? Product, string Wording, string CrewNote) : BookEntry(Id, Version, Name)
{
    /// <inheritdoc/>
    public override IEnumerable<Guid> Needs => Product is { } product ? [Role, product] : [Role];
}

/// <summary>What a component of an assembly costs as.</summary>
public enum ComponentKind { Labour, Material, Equipment }

/// <summary>One part of an assembly.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Name">What it is here.</param>
/// <param name="Kind">How it is reckoned.</param>
/// <param name="Entry">The role, material or equipment.</param>
/// <param name="Measure">The measure that drives it; or</param>
/// <param name="Of">the component that drives it; or</param>
/// <param name="Crew">the crew size it works with (equipment only).</param>
/// <param name="Ratio">How much per driver; none for crew-tied equipment.</param>
/// <param name="AsOrdered">A chained component takes its driver with waste.</param>
/// <param name="WastePercent">Replaces the material's own.</param>
public sealed record Component(
    Guid Id, string Name, ComponentKind Kind, Guid Entry, Measure? Measure, Guid? Of, int? Crew, Ratio? Ratio, bool AsOrdered, decimal? WastePercent);

/// <summary>Parts that are dropped in as one so that nothing is forgotten.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Section">Heading in grid and proposal.</param>
/// <param name="Measure">The measure shown as the line's quantity.</param>
/// <param name="Components">In the order they are worked.</param>
/// <param name="Wording">What the customer reads.</param>
/// <param name="CrewNote">What the crew reads.</param>
public sealed record Assembly(
    Guid Id, int Version, string Name, string Section, Measure Measure, ImmutableArray<Component> Components, string Wording, string CrewNote) : BookEntry(Id, Version, Name)
{
    /// <inheritdoc/>
    public override IEnumerable<Guid> Needs => Components.Select(c => c.Entry).Distinct();
}
