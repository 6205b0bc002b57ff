using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>What holds of sets that the firm gives names to, and of which new jobs take one: price policies, patterns of proposals.</summary>
internal static class NamedOnes
{
    /// <summary>Most of a kind.</summary>
    private const int Most = 50;

    /// <summary>Refuses what cannot be kept.</summary>
    /// <param name="all">All of them.</param>
    /// <param name="usual">The one that new jobs take.</param>
    /// <param name="id">Id of one.</param>
    /// <param name="name">Name of one.</param>
    /// <param name="one">What one is called.</param>
    /// <param name="many">What many are called.</param>
    /// <param name="brief">What one is called in short.</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public static void Check<T>(
        ImmutableArray<T> all,
        Guid usual,
        Func<T, Guid> id,
        Func<T, string> name,
        string one,
        string many,
        string brief
    )
    {
        if (all.Length is 0 or > Most)
            throw RefusedException.Of("all", $"A firm has 1 to {Most} {many}.");
        if (all.Select(id).Distinct().Count() != all.Length)
            throw RefusedException.Of("all", $"A {one} stands twice.");
        if (all.All(o => id(o) != usual))
            throw RefusedException.Of("usual", $"Say which {brief} is the usual one.");
        var twice = all.GroupBy(o => name(o).Trim(), StringComparer.OrdinalIgnoreCase)
            .FirstOrDefault(g => g.Count() > 1);
        if (twice is not null)
            throw RefusedException.Of("name", $"There is a {one} “{twice.Key}” already.");
    }
}
