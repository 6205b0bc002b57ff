using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Book;

/// <summary>A size a material is sold in, in its unit of use, and what one costs.</summary>
public sealed record Pack(string Name, decimal Size, decimal Price);

/// <summary>A roll, sheet or length that goods come in. Laying out and cutting are reckoned by area with waste until the sizes themselves are laid out.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Wide">Width as typed, <c>1.2 m</c>; empty for goods cut by length.</param>
/// <param name="Long">Length as typed.</param>
public sealed record StockSize(string Name, string Wide, string Long);

/// <summary>How it is ordered.</summary>
/// <param name="Minimum">Least quantity of an order, in the unit of use.</param>
/// <param name="Delivery">Money for a delivery; once per supplier and job, the dearest.</param>
/// <param name="SparePercent">Percent of the need bought on top and left with the customer.</param>
public sealed record OrderRules(decimal Minimum, decimal Delivery, decimal SparePercent)
{
    /// <summary>None.</summary>
    public static readonly OrderRules None = new(0, 0, 0);
}

/// <summary>A material with its packs and, for what is spread, its coverage per coat.</summary>
/// <param name="Id">UUIDv7.</param>
/// <param name="Version">Version.</param>
/// <param name="Name">Own name.</param>
/// <param name="Unit">Unit of use; packs are in it.</param>
/// <param name="Packs">At least one, but for what is mixed on the spot.</param>
/// <param name="Coverage">What one unit covers at the first coat; null when an assembly says how much is needed.</param>
/// <param name="LaterCoverage">At each later coat; null for the same.</param>
/// <param name="WastePercent">Percent on top of the need.</param>
/// <param name="Taxed">Whether tax on materials falls on it.</param>
public sealed record Material(
    Guid Id,
    int Version,
    string Name,
    Unit Unit,
    ImmutableArray<Pack> Packs,
    Ratio? Coverage,
    Ratio? LaterCoverage,
    decimal WastePercent,
    bool Taxed
) : BookEntry(Id, Version, Name)
{
    /// <summary>Maker's name.</summary>
    public string Brand { get; init; } = "";

    /// <summary>Kind of goods.</summary>
    public string Category { get; init; } = "";

    /// <summary>Who sells it.</summary>
    public string Supplier { get; init; } = "";

    /// <summary>The supplier's code.</summary>
    public string Code { get; init; } = "";

    /// <summary>Usual colour.</summary>
    public string Colour { get; init; } = "";

    /// <summary>Hash of its picture, or empty.</summary>
    public string Picture { get; init; } = "";

    /// <summary>Whether pack prices hold the tax already; then it is cost, and not taxed again as material.</summary>
    public bool PriceIncludesTax { get; init; }

    /// <summary>Why no tax is charged on it, where none is; null where nobody has said.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public string? TaxExempt { get; init; }

    /// <summary>Rolls, sheets or stock lengths.</summary>
    public ImmutableArray<StockSize> Stock { get; init; } = [];

    /// <summary>What it is mixed from on the spot; null for goods that are used as they are bought.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull
    )]
    public Mix? Mix { get; init; }

    /// <summary>It covers something, and whoever took it over did not know how much: it waits for its coverage.</summary>
    [System.Text.Json.Serialization.JsonIgnore(
        Condition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingDefault
    )]
    public bool CoverageWanted { get; init; }

    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Guid> Needs => Mix?.Needs ?? [];

    /// <summary>Order rules.</summary>
    public OrderRules Rules { get; init; } = OrderRules.None;

    /// <summary>Mass per volume, which lets one become the other.</summary>
    public Ratio? Density { get; init; }

    /// <summary>Solids by volume, percent; with <see cref="DryFilm"/> it bounds the coverage.</summary>
    public decimal? SolidsPercent { get; init; }

    /// <summary>Dry film thickness of one coat as typed, <c>1.5 mil</c> or <c>60 µm</c>; empty for none.</summary>
    public string DryFilm { get; init; } = "";

    /// <summary>The most one unit of use can cover at the dry film thickness: volume · solids ÷ thickness, no loss (exact physics; the form used in coating
    /// standards, ISO 12944 and SSPC/AMPP guides). In square feet per gallon for goods sold by the gallon, else in square metres per litre. Null when it is not known.</summary>
    public (decimal Value, Unit Area, Unit Per)? MostCoverage()
    {
        if (SolidsPercent is not { } solids || DryFilm.Length == 0 || Unit.Kind != Kind.Volume)
            return null;
        var thickness = Thickness.Read(DryFilm, "dryFilm");
        var area = Unit == Unit.Gallon || Unit == Unit.Quart ? Unit.SquareFoot : Unit.SquareMetre;
        return (
            Rounding.Figure(Unit.Factor * solids / (100m * thickness.Unit.Factor * thickness.Value * area.Factor)),
            area,
            Unit
        );
    }

    /// <summary>What an estimator should look at twice: a coverage above what the film thickness allows. Null when nothing is.</summary>
    public string? Doubt()
    {
        if (MostCoverage() is not { } most)
            return null;
        foreach (var typed in new[] { Coverage, LaterCoverage }.OfType<Ratio>())
        {
            var (times, to, over, from) = typed.Turn(Unit.Kind);
            if (to.Kind != Kind.Area)
                continue;
            var covers = times * to.Factor / most.Area.Factor * Unit.Factor / (over * from.Factor);
            if (Rounding.ForCompare(covers) > Rounding.ForCompare(most.Value))
                return $"{typed} is more than {Rounding.Text(decimal.Round(most.Value, 1))} {most.Area} per {most.Per}, the most that {Rounding.Text(SolidsPercent!.Value)} % solids can cover at {DryFilm} dry, even without loss.";
        }
        return null;
    }

    /// <inheritdoc/>
    [System.Text.Json.Serialization.JsonIgnore]
    public override IEnumerable<Lack> Lacks =>
        Lack.Of(
            (Packs.IsEmpty && Mix is null, "packs", "a pack with its size and price"),
            (CoverageWanted && Coverage is null, "coverage", "its coverage")
        );

    internal override void Check(BookCheck check)
    {
        for (var i = 0; i < Packs.Length; i++)
        {
            if (Packs[i].Size <= 0)
                throw check.Wrong($"packs[{i}].size", "the size of a pack is more than zero.");
            if (Packs[i].Price < 0)
                throw check.Wrong($"packs[{i}].price", "the price of a pack is not below zero.");
            check.Text(Packs[i].Name, $"packs[{i}].name", 120);
        }
        if (Packs.Length > 12)
            throw check.Wrong("packs", "at most 12 packs.");
        if (Mix is { } mix)
            MixRules.Check(this, mix, check);
        check.Percent(WastePercent, "wastePercent", "waste");
        foreach (var (coverage, field) in new[] { (Coverage, "coverage"), (LaterCoverage, "laterCoverage") })
        {
            if (coverage is null)
                continue;
            if (coverage.A <= 0 || coverage.B <= 0)
                throw check.Wrong(field, $"coverage “{coverage}” must be more than zero.");
            if (coverage.UnitB.Kind != Unit.Kind && coverage.UnitA.Kind != Unit.Kind)
                throw check.Wrong(field, $"coverage “{coverage}” does not name its unit, {Unit}.");
        }
        if (LaterCoverage is not null && Coverage is null)
            throw check.Wrong("coverage", "a coverage of later coats needs one of the first.");
        if (Rules.Minimum < 0)
            throw check.Wrong("rules.minimum", "a least order is not below zero.");
        if (Rules.Delivery < 0)
            throw check.Wrong("rules.delivery", "a delivery is not below zero.");
        check.Percent(Rules.SparePercent, "rules.sparePercent", "spare");
        if (SolidsPercent is <= 0 or > 100)
            throw check.Wrong("solidsPercent", "solids are more than 0 and at most 100 percent.");
        if (DryFilm.Length > 0)
            _ = Thickness.Read(DryFilm, "dryFilm");
        if (
            Density is { } density
            && !((density.UnitA.Kind, density.UnitB.Kind) is (Kind.Mass, Kind.Volume) or (Kind.Volume, Kind.Mass))
        )
            throw check.Wrong("density", "a density is mass per volume, like 1.6 t per m³.");
        check.Most(Stock.Length, 40, "stock", "rolls, sheets or lengths");
        for (var i = 0; i < Stock.Length; i++)
        {
            if (Stock[i].Wide.Length > 0)
                _ = Thickness.Read(Stock[i].Wide, $"stock[{i}].wide");
            _ = Thickness.Read(Stock[i].Long, $"stock[{i}].long");
        }
        foreach (var text in new[] { Brand, Category, Supplier, Code, Colour, Picture })
            check.Text(text, "brand", 120);
    }
}

/// <summary>A depth, thickness or stock size as typed with its unit: <c>50 mm</c>, <c>1.5 mil</c>, <c>4 ft</c>.</summary>
public static class Thickness
{
    /// <summary>Reads it.</summary>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public static Quantity Read(string text, string field)
    {
        var trimmed = text.Trim();
        var at = 0;
        while (at < trimmed.Length && (char.IsAsciiDigit(trimmed[at]) || trimmed[at] == '.'))
            at++;
        var unit = trimmed[at..].Trim() switch
        {
            "\"" => Unit.Inch,
            "'" => Unit.Foot,
            var name => Unit.Find(name),
        };
        return Rounding.ReadInput(trimmed[..at]) is { } value and > 0 && unit is { Kind: Kind.Length }
            ? new(value, unit)
            : throw RefusedException.Of(
                field,
                $"“{trimmed}” is not a thickness or length. Write it like 50 mm, 2 in or 1.5 mil."
            );
    }
}
