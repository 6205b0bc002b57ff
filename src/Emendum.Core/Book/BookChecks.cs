using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>What an entry must be to be reckoned with. Each refusal names the entry.</summary>
public static class BookChecks
{
    /// <summary>Checks one entry against the others it stands with.</summary>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public static void Check(BookEntry entry, IReadOnlyDictionary<Guid, BookEntry> all)
    {
        RefusedException Wrong(string message) => RefusedException.Of("book/" + entry.Id, $"{entry.Name}: {message}");
        T Needed<T>(Guid id, string what) where T : BookEntry => all.GetValueOrDefault(id) as T ?? throw Wrong($"the {what} it uses ({id}) is not there.");
        void Fits(Ratio ratio, Kind from, Kind to, string what)
        {
            Positive(ratio, what);
            if (ratio.UnitB.Kind != from && ratio.UnitA.Kind != from) throw Wrong($"{what} “{ratio}” does not apply to a {from.ToString().ToLowerInvariant()}.");
            if (ratio.Turn(from).To.Kind != to) throw Wrong($"{what} “{ratio}” does not give a {to.ToString().ToLowerInvariant()}.");
        }
        void Positive(Ratio ratio, string what)
        {
            if (ratio.A <= 0 || ratio.B <= 0) throw Wrong($"{what} “{ratio}” must be more than zero.");
        }

        if (string.IsNullOrWhiteSpace(entry.Name)) throw Wrong("it needs a name.");
        switch (entry)
        {
            case LabourRole role:
                if (role.Wage <= 0) throw Wrong("the wage must be more than zero.");
                if (role.Burden.Any(b => b.Percent is null == b.PerHour is null || b.Percent < 0 || b.PerHour < 0)) throw Wrong("a burden item is a percent or money per hour, not below zero.");
                break;
            case Material material:
                if (material.Packs.IsEmpty || material.Packs.Any(p => p.Size <= 0 || p.Price < 0)) throw Wrong("it needs a pack with a size above zero and a price.");
                if (material.WastePercent is < 0 or > 1000) throw Wrong("waste is 0 to 1000 percent.");
                foreach (var coverage in new[] { material.Coverage, material.LaterCoverage }.OfType<Ratio>())
                {
                    Positive(coverage, "coverage");
                    if (coverage.UnitB.Kind != material.Unit.Kind && coverage.UnitA.Kind != material.Unit.Kind) throw Wrong($"coverage “{coverage}” does not name its unit, {material.Unit}.");
                }
                break;
            case Equipment equipment when equipment.CostPerHour < 0:
                throw Wrong("the cost per hour cannot be below zero.");
            case ProductionRate rate:
                Needed<LabourRole>(rate.Role, "role");
                if (rate.Paces.IsEmpty) throw Wrong("it needs a pace.");
                if (rate.Paces.Select(p => p.Coats).Distinct().Count() != rate.Paces.Length || rate.Paces.Any(p => p.Coats is < 1 or > 20)) throw Wrong("each number of coats, 1 to 20, stands once.");
                var kind = Places.Measures.Kind(rate.Measure);
                foreach (var row in rate.Paces) Fits(row.Pace, kind, Kind.Time, "the pace");
                if (rate.Product is { } id)
                {
                    var product = Needed<Material>(id, "product");
                    if (product.Coverage is not { } coverage) throw Wrong($"{product.Name} has no coverage.");
                    Fits(coverage, kind, product.Unit.Kind, "the product's coverage");
                    if (product.LaterCoverage is { } later) Fits(later, kind, product.Unit.Kind, "the product's later coverage");
                }
                break;
            case Assembly assembly:
                CheckAssembly(assembly, Wrong, Needed<LabourRole>, Needed<Material>, Needed<Equipment>);
                break;
        }
    }

    private static void CheckAssembly(
        Assembly assembly, Func<string, RefusedException> wrong, Func<Guid, string, LabourRole> role, Func<Guid, string, Material> material, Func<Guid, string, Equipment> equipment)
    {
        var parts = assembly.Components.ToDictionary(c => c.Id);
        foreach (var part in assembly.Components)
        {
            Kind gives = part.Kind switch
            {
                ComponentKind.Labour => role(part.Entry, "role") is null ? default : Kind.Time,
                ComponentKind.Material => material(part.Entry, "material").Unit.Kind,
                _ => equipment(part.Entry, "equipment") is null ? default : Kind.Time,
            };
            if (new[] { part.Measure is not null, part.Of is not null, part.Crew is not null }.Count(x => x) != 1) throw wrong($"“{part.Name}” must be driven by one thing: a measure, another part, or the crew.");
            if (part.WastePercent is < 0 or > 1000) throw wrong($"“{part.Name}”: waste is 0 to 1000 percent.");
            if (part.Crew is { } crew)
            {
                if (part.Kind != ComponentKind.Equipment || crew < 1) throw wrong($"“{part.Name}”: only equipment follows a crew, of at least one.");
                continue;
            }
            if (part.Of is { } of && !parts.ContainsKey(of)) throw wrong($"“{part.Name}” is driven by a part that is not there.");
            var from = part.Measure is { } measure ? Places.Measures.Kind(measure) : parts[part.Of!.Value] is { Kind: ComponentKind.Material } driver ? material(driver.Entry, "material").Unit.Kind : Kind.Time;
            if (part.Ratio is not { } ratio || ratio.A <= 0 || ratio.B <= 0) throw wrong($"“{part.Name}” needs a rate above zero.");
            if ((ratio.UnitA.Kind != from && ratio.UnitB.Kind != from) || ratio.Turn(from).To.Kind != gives) throw wrong($"“{part.Name}”: “{ratio}” does not turn a {from.ToString().ToLowerInvariant()} into a {gives.ToString().ToLowerInvariant()}.");
        }
        _ = InWorkingOrder(assembly.Components, wrong);
    }

    /// <summary>The parts with every driver before what it drives.</summary>
    /// <exception cref="RefusedException">They drive each other in a ring; the message gives the path.</exception>
    public static ImmutableArray<Component> InWorkingOrder(ImmutableArray<Component> components, Func<string, RefusedException> wrong)
    {
        var parts = components.ToDictionary(c => c.Id);
        var done = new List<Component>();
        void Visit(Component part, ImmutableArray<Component> path)
        {
            if (done.Contains(part)) return;
            if (path.Contains(part)) throw wrong("the parts drive each other in a ring: " + string.Join(" → ", path.Append(part).Select(p => p.Name)) + ".");
            if (part.Of is { } of) Visit(parts[of], path.Add(part));
            done.Add(part);
        }
        foreach (var part in components.OrderBy(c => c.Crew is null ? 0 : 1)) Visit(part, []);
        return [.. done];
    }
}
