using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>How sure a job is: what is said of work that says nothing of its own, and what all of it shares.</summary>
/// <param name="All">Of work whose section says nothing either.</param>
/// <param name="Shared">In how many of a hundred outcomes a piece of work goes as the whole job goes, and not by itself. Two pieces then move together with a correlation of (shared ÷ 100)².</param>
/// <param name="Seed">With which the draws begin; the same gives the same.</param>
public sealed record Sureness(Doubt All, decimal Shared, int Seed)
{
    /// <summary>What a job starts with: something to begin from, which a firm replaces by what its own jobs have shown.</summary>
    public static readonly Sureness Starting = new(new(-10, 20, -5, 10), 50, 1);

    /// <summary>Checks it.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    public void Check()
    {
        All.Check("all");
        if (Shared is < 0 or > 100)
            throw RefusedException.Of("shared", "What all work shares is 0 to 100 of a hundred outcomes.");
        if (Seed is < 0 or > 999_999)
            throw RefusedException.Of("seed", "A seed is a whole number from 0 to 999,999.");
    }
}
