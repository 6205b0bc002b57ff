using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>What goods that are mixed on the spot are mixed from (estimating model §3). What is spread is the mixed; what is bought are its parts.</summary>
/// <param name="Base">The material that the other parts are reckoned on.</param>
/// <param name="Parts">What is added, in the order it is said.</param>
public sealed record Mix(Guid Base, ImmutableArray<MixPart> Parts)
{
    /// <summary>Most parts of a mix.</summary>
    public const int MostParts = 20;

    /// <summary>The base and every part that is bought.</summary>
    [JsonIgnore]
    public IEnumerable<Guid> Needs => Parts.Select(p => p.Material).OfType<Guid>().Prepend(Base);
}

/// <summary>One part of a mix.</summary>
/// <param name="Material">The material it is bought as; null for what is free, like water.</param>
/// <param name="Name">What it is called; empty for the name of its material.</param>
/// <param name="Amount">How much, as typed: a percentage, <c>35 %</c>, or so much per unit, <c>0.2 kg per L</c>.</param>
/// <param name="OfMixed">Whether that is of the mixed, and not of the base.</param>
public sealed record MixPart(Guid? Material, string Name, string Amount, bool OfMixed)
{
    /// <summary>How much of it, per unit of what it is reckoned on.</summary>
    /// <exception cref="RefusedException">It is neither a percentage nor a rate.</exception>
    public Ratio Ratio(Unit of, string field) =>
        Quantities.Ratio.OfPercent(Amount, of) ?? Quantities.Ratio.Parse(Amount, field);
}

/// <summary>What a mix must be.</summary>
internal static class MixRules
{
    /// <summary>Checks the mix of a material against the materials it names.</summary>
    public static void Check(Material mixed, Mix mix, BookCheck check)
    {
        if (mixed.Unit.Kind == Kind.Count)
            throw check.Wrong("unit", "what is mixed is counted by volume or mass.");
        if (!mixed.Packs.IsEmpty)
            throw check.Wrong("packs", "what is mixed on the spot is not bought in packs; its parts are.");
        check.Most(mix.Parts.Length, Mix.MostParts, "mix.parts", "parts of a mix");
        var basis = Part(mix.Base, "mix.base", mixed, check);
        if (basis.Unit.Kind != mixed.Unit.Kind)
            throw check.Wrong(
                "mix.base",
                $"the mixed is in {mixed.Unit}, and {basis.Name} in {basis.Unit}: the base is counted like the mixed."
            );
        if (mix.Needs.Distinct().Count() != mix.Needs.Count())
            throw check.Wrong("mix.parts", "a material stands twice in it.");
        var ofMixed = 0m;
        for (var i = 0; i < mix.Parts.Length; i++)
        {
            var (part, field) = (mix.Parts[i], $"mix.parts[{i}].amount");
            check.Text(part.Name, $"mix.parts[{i}].name", 120);
            check.Text(part.Amount, field, 60);
            var material = part.Material is { } id ? Part(id, $"mix.parts[{i}].material", mixed, check) : null;
            if (material is null && string.IsNullOrWhiteSpace(part.Name))
                throw check.Wrong($"mix.parts[{i}].name", "a free part needs a name, like water.");
            var ratio = part.Ratio(basis.Unit, field);
            if (ratio.UnitA.Kind != basis.Unit.Kind && ratio.UnitB.Kind != basis.Unit.Kind)
                throw check.Wrong(field, $"“{ratio}” does not apply to {basis.Unit}.");
            var (times, to, over, from) = ratio.Turn(basis.Unit.Kind);
            if (to.Kind is not (Kind.Volume or Kind.Mass))
                throw check.Wrong(field, $"“{ratio}” gives neither a volume nor a mass.");
            if (
                material is not null
                && to.Kind != material.Unit.Kind
                && !(material.Density is not null && material.Unit.Kind is Kind.Volume or Kind.Mass)
            )
                throw check.Wrong(field, $"{material.Name} is counted in {material.Unit}, and “{ratio}” gives {to}.");
            if (part.OfMixed && to.Kind == basis.Unit.Kind)
                ofMixed += times * to.Factor / (over * from.Factor);
        }
        if (ofMixed >= 1)
            throw check.Wrong(
                "mix.parts",
                "what is added leaves nothing of the base: parts of the mixed come to less than 100 %."
            );
    }

    private static Material Part(Guid id, string field, Material mixed, BookCheck check)
    {
        var part = check.Needed<Material>(id, field, "material");
        if (part.Mix is not null || id == mixed.Id)
            throw check.Wrong(field, $"{part.Name} is mixed itself; a mix is made of goods as they are bought.");
        return part;
    }
}
