using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Core.Checks;

/// <summary>A door or window is much larger than any the firm usually has.</summary>
internal static class LargeOpening
{
    /// <summary>An opening is larger than usual when it has more than this many times the area of the firm's largest of its kind.</summary>
    private const decimal Larger = 1.5m;

    public static IEnumerable<Finding> In(CheckedJob job)
    {
        var largest = job
            .Sizes.Sizes.Select(s =>
                TapeLine
                    .Read($"Any 10000 m x 10000 m x 10000 m; {s}", UnitSystem.Feet)
                    .Reading?.Openings.FirstOrDefault()
            )
            .OfType<Opening>()
            .GroupBy(o => o.Kind)
            .ToDictionary(g => g.Key, g => g.Max(Area));
        foreach (var place in job.Job.Places)
            for (var i = 0; i < place.Openings.Length; i++)
            {
                var opening = place.Openings[i];
                if (largest.TryGetValue(opening.Kind, out var usual) && Area(opening) > usual * Larger)
                    yield return job.Found(
                        $"opening/{place.Id}/{i + 1}",
                        "Opening larger than usual",
                        $"{place.Name} has a {opening.Words} of {opening.Width.Typed} × {opening.Height.Typed}.",
                        $"The largest usual {opening.Words} of the firm has {SquareMetres(usual)} m², this one {SquareMetres(Area(opening))} m²: is a unit or a figure slipped?",
                        place.Id
                    );
            }
    }

    /// <summary>In mm².</summary>
    private static decimal Area(Opening opening) => opening.Width.Millimetres * opening.Height.Millimetres;

    private static string SquareMetres(decimal area) => Rounding.Text(decimal.Round(area / 1_000_000m, 2));
}
