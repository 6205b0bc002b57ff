using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Bench;

/// <summary>Packs whose sizes have no divisor in common that would help.</summary>
internal static class AwkwardPacks
{
    /// <summary>2, 5, 10, 25 and 50 lb in kilograms, all at 4.00 per kg.</summary>
    public static readonly ImmutableArray<Pack> Pounds =
    [
        .. new[] { 0.907m, 2.268m, 4.536m, 11.34m, 22.68m }.Select(size => new Pack($"{size} kg", size, 4 * size)),
    ];

    /// <summary>Twelve sizes of six decimals, at prices per unit that lie close together.</summary>
    public static readonly ImmutableArray<Pack> Twelve =
    [
        .. new[]
        {
            (0.453592m, 2.11m),
            (0.907185m, 3.97m),
            (2.267962m, 9.83m),
            (3.785412m, 15.97m),
            (4.535924m, 19.01m),
            (9.071847m, 37.49m),
            (11.339809m, 46.57m),
            (18.927059m, 77.31m),
            (22.679619m, 92.03m),
            (25.000001m, 101.71m),
            (45.359237m, 183.89m),
            (208.197648m, 846.13m),
        }.Select(p => new Pack($"{p.Item1}", p.Item1, p.Item2)),
    ];
}
