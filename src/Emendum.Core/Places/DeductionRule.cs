using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>How openings are taken off an area. Each opening is tested singly; one exactly at a limit is not above it.</summary>
/// <param name="Name">Name in files and on the command line.</param>
/// <param name="Label">Words on screen.</param>
/// <param name="Source">The standard it follows, and that it is from memory; empty for a house rule.</param>
/// <param name="WallLimit">m² up to which a wall opening is not deducted; null deducts none at all.</param>
/// <param name="HalfLimit">m² up to which half of it is deducted, above <paramref name="WallLimit"/>; null for no such band.</param>
/// <param name="FloorLimit">m² up to which an island is not taken from floor and ceiling; null takes none.</param>
/// <param name="LengthLimit">m up to which an opening does not interrupt a measured length.</param>
/// <param name="RevealsAbove">m² an opening must exceed for its reveals to be measured; null when they always are.</param>
/// <param name="AtEdgeAlways">Whether an opening at the edge of the area (one that reaches the floor) is deducted whatever its size.</param>
public sealed record DeductionRule(
    string Name,
    string Label,
    string Source,
    decimal? WallLimit,
    decimal? HalfLimit,
    decimal? FloorLimit,
    decimal LengthLimit,
    decimal? RevealsAbove,
    bool AtEdgeAlways = false
)
{
    /// <summary>How the name of a firm's own limits begins: <c>over 10 ft2; 5 ft2; 3 ft</c> for walls, floors and lengths.</summary>
    public const string Own = "over ";

    /// <summary>The presets; the first is what a job starts with. Limits are from memory (estimating model §2).</summary>
    public static readonly DeductionRule[] All =
    [
        new("net", "every opening deducted", "", 0m, null, 0m, 0m, null),
        new("gross", "nothing deducted", "", null, null, null, 0m, null),
        new(
            "nrm2",
            "openings over 1.00 m² deducted",
            "RICS NRM2, from memory; at the edge of the area always deducted",
            1.00m,
            null,
            1.00m,
            0m,
            null,
            true
        ),
        new(
            "vob",
            "openings over 2.5 m² deducted",
            "VOB/C DIN 18363 and DIN 18350, from memory; floors 0.5 m², lengths 1 m",
            2.5m,
            null,
            0.5m,
            1m,
            null
        ),
        new(
            "is1200",
            "half of openings over 0.5 m², all over 3 m²",
            "IS 1200 plaster, from memory; reveals only above 3 m²",
            0.5m,
            3m,
            0m,
            0m,
            3m
        ),
    ];

    /// <summary>The preset of that name, or the firm's own limits it spells out; null when it is neither.</summary>
    public static DeductionRule? Find(string name)
    {
        if (Array.Find(All, rule => rule.Name == name) is { } preset)
            return preset;
        if (!name.StartsWith(Own, StringComparison.Ordinal) || name.Length > 120)
            return null;
        var parts = name[Own.Length..].Split(';');
        if (parts.Length != 3)
            return null;
        var limits = new decimal[3];
        for (var i = 0; i < 3; i++)
        {
            var words = parts[i].Trim().Split(' ');
            if (
                words.Length != 2
                || Rounding.ReadInput(words[0]) is not (>= 0 and < 1_000_000 and var number)
                || Unit.Find(words[1]) is not { } unit
                || unit.Kind != (i < 2 ? Kind.Area : Kind.Length)
            )
                return null;
            limits[i] = number * unit.Factor / (i < 2 ? 1_000_000m : 1000m);
        }
        return new(
            name,
            $"openings over {parts[0].Trim()} deducted",
            $"own limits: floors {parts[1].Trim()}, lengths {parts[2].Trim()}",
            limits[0],
            null,
            limits[1],
            limits[2],
            null
        );
    }

    /// <summary>Numerator and denominator of the part of an opening that is taken off (0/1, 1/2 or 1/1).</summary>
    public (int Times, int Over) PartOf(decimal squareMetres, bool atEdge)
    {
        if (WallLimit is not { } limit)
            return (0, 1);
        if (atEdge && AtEdgeAlways)
            return (1, 1);
        var size = Rounding.ForCompare(squareMetres);
        if (size <= limit)
            return (0, 1);
        return HalfLimit is { } half && size <= half ? (1, 2) : (1, 1);
    }

    /// <summary>Whether an island of this size is taken from floor and ceiling.</summary>
    public bool TakesIsland(decimal squareMetres) =>
        FloorLimit is { } limit && Rounding.ForCompare(squareMetres) > limit;

    /// <summary>Whether the reveals of an opening of this size are measured.</summary>
    public bool CountsReveals(decimal squareMetres) =>
        RevealsAbove is not { } limit || Rounding.ForCompare(squareMetres) > limit;

    /// <summary>Whether an opening of this width in metres interrupts skirting.</summary>
    public bool Interrupts(decimal metres) => Rounding.ForCompare(metres) > LengthLimit;
}
