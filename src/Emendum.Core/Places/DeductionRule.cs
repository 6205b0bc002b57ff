namespace Emendum.Core.Places;

/// <summary>How openings are taken off an area. Each opening is tested singly; one exactly at a limit is not above it.</summary>
/// <param name="Name">Name in files and on the command line.</param>
/// <param name="Label">Words on screen.</param>
/// <param name="Source">The standard it follows, and that it is from memory; empty for a house rule.</param>
/// <param name="WallLimit">m² up to which a wall opening is not deducted; null deducts none at all.</param>
/// <param name="HalfLimit">m² up to which half of it is deducted, above <paramref name="WallLimit"/>; null for no such band.</param>
/// <param name="LengthLimit">m up to which an opening does not interrupt a measured length.</param>
/// <param name="RevealsAbove">m² an opening must exceed for its reveals to be measured; null when they always are.</param>
public sealed record DeductionRule(string Name, string Label, string Source, decimal? WallLimit, decimal? HalfLimit, decimal LengthLimit, decimal? RevealsAbove)
{
    /// <summary>Every rule there is; the first is what a job starts with. Limits of the presets are from memory (estimating model §2).</summary>
    public static readonly DeductionRule[] All =
    [
        new("net", "every opening deducted", "", 0m, null, 0m, null),
        new("gross", "nothing deducted", "", null, null, 0m, null),
        new("nrm2", "openings over 1.00 m² deducted", "RICS NRM2, from memory", 1.00m, null, 0m, null),
        new("vob", "openings over 2.5 m² deducted", "VOB/C DIN 18363 and DIN 18350, from memory", 2.5m, null, 1m, null),
        new("is1200", "half of openings over 0.5 m², all over 3 m²", "IS 1200 plaster, from memory", 0.5m, 3m, 0m, 3m),
    ];

    /// <summary>The rule of that name, or null.</summary>
    public static DeductionRule? Find(string name) => Array.Find(All, rule => rule.Name == name);

    /// <summary>Numerator and denominator of the part of an opening that is taken off (0/1, 1/2 or 1/1).</summary>
    public (int Times, int Over) PartOf(decimal squareMetres)
    {
        var size = Quantities.Rounding.ForCompare(squareMetres);
        if (WallLimit is not { } limit || size <= limit) return (0, 1);
        return HalfLimit is { } half && size <= half ? (1, 2) : (1, 1);
    }

    /// <summary>Whether the reveals of an opening of this size are measured.</summary>
    public bool CountsReveals(decimal squareMetres) => RevealsAbove is not { } limit || Quantities.Rounding.ForCompare(squareMetres) > limit;

    /// <summary>Whether an opening of this width in metres interrupts skirting.</summary>
    public bool Interrupts(decimal metres) => Quantities.Rounding.ForCompare(metres) > LengthLimit;
}
