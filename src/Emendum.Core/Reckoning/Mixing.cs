using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Reckoning;

/// <summary>What is mixed on the spot in a job, and of what.</summary>
/// <param name="Material">The goods as they are spread.</param>
/// <param name="Colour">Their colour, which the base is bought in; or empty.</param>
/// <param name="Quantity">How much is mixed.</param>
/// <param name="Parts">What it is mixed from, the base first.</param>
public sealed record Mixed(Material Material, string Colour, Total Quantity, ImmutableArray<MixedPart> Parts);

/// <summary>One part of what is mixed.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="Material">What it is bought as; null for what is free.</param>
/// <param name="Colour">The colour it is bought in, or empty.</param>
/// <param name="Amount">How much of it, in its material's unit.</param>
public sealed record MixedPart(string Name, Material? Material, string Colour, Total Amount);

/// <summary>Base = (mixed − parts of the mixed) ÷ (1 + Σ parts of the base), of what is counted like the mixed (estimating model §3). Grit by mass in a sealer by volume takes no room.</summary>
internal static class Mixing
{
    /// <summary>Parts a quantity of mixed goods, once for the job and colour.</summary>
    public static Mixed Of(
        Material mixed,
        string colour,
        Val amount,
        IReadOnlyDictionary<Guid, BookEntry> book,
        Trace trace
    )
    {
        var mix = mixed.Mix!;
        var basis = (Material)book[mix.Base];
        FigurePath Path(string leaf) => new(FigurePath.InColour("mixed", colour), mixed.Id, leaf);
        var name = trace.On && colour.Length > 0 ? $"{mixed.Name}, {colour}" : mixed.Name;
        var quantity = trace.Total(amount, mixed.Unit.Symbol, trace.On ? name + ": mixed" : "", Path("quantity"));
        var whole = trace.Convert(quantity, mixed.Unit, basis.Unit);

        var added = new (Material? Material, string Name, MixPart Part, Ratio Ratio)[mix.Parts.Length];
        Val percent = 100m,
            rest = whole;
        for (var i = 0; i < added.Length; i++)
        {
            var part = mix.Parts[i];
            var material = part.Material is { } id ? (Material)book[id] : null;
            var said = part.Name.Length > 0 ? part.Name : material!.Name;
            var ratio = part.Ratio(basis.Unit, $"mix.parts[{i}].amount");
            added[i] = (material, said, part, ratio);
            if (ratio.Turn(basis.Unit.Kind).To.Kind != basis.Unit.Kind)
                continue;
            if (part.OfMixed)
                rest -= In(whole, basis.Unit, ratio, said, mixed.Id, basis.Unit, null, trace);
            else
                percent += In(100m, basis.Unit, ratio, said, mixed.Id, basis.Unit, null, trace);
        }

        var parts = ImmutableArray.CreateBuilder<MixedPart>(added.Length + 1);
        var ofBase = trace.Total(
            added.All(a => a.Part.OfMixed) ? rest : rest * 100m / percent,
            basis.Unit.Symbol,
            trace.On ? $"{name}: {basis.Name}" : "",
            Path("base")
        );
        parts.Add(new(basis.Name, basis, colour, ofBase));
        for (var i = 0; i < added.Length; i++)
        {
            var (material, said, part, ratio) = added[i];
            var unit = material?.Unit ?? ratio.Turn(basis.Unit.Kind).To;
            var much = In(
                part.OfMixed ? whole : ofBase.Value,
                basis.Unit,
                ratio,
                said,
                mixed.Id,
                unit,
                material,
                trace
            );
            parts.Add(
                new(
                    said,
                    material,
                    "",
                    trace.Total(much, unit.Symbol, trace.On ? $"{name}: {said}" : "", Path($"parts/{i}"))
                )
            );
        }
        return new(mixed, colour, quantity, parts.ToImmutable());
    }

    private static Val In(
        Val of,
        Unit unit,
        Ratio ratio,
        string name,
        Guid source,
        Unit wanted,
        Material? material,
        Trace trace
    )
    {
        var amount = trace.Turn(of, unit, ratio, name, source, null, out var to);
        if (to.Kind != wanted.Kind && material?.Density is { } density)
            amount = trace.Turn(amount, to, density, "density", material.Id, null, out to);
        return trace.Convert(amount, to, wanted);
    }
}
