using Emendum.Core.Figures;
using Emendum.Core.Quantities;

namespace Emendum.Core.Pricing;

/// <summary>Something that comes out anywhere between two amounts, each as likely as the other.</summary>
/// <param name="Least">At the least.</param>
/// <param name="Most">At the most.</param>
/// <param name="Stream">Which of the drawn numbers it follows; what follows the same moves alike.</param>
public readonly record struct Varying(Val Least, Val Most, int Stream);

/// <summary>
/// A sum drawn many times over. In each outcome there is one number u between 0 and 1 for all, and two for each stream: the first says whether it goes with all (it is below the share), the
/// second is its own u otherwise. What varies comes to least + (most − least) · u.
/// </summary>
public sealed class Outcomes
{
    private readonly DrawnSum how;
    private readonly decimal[] sorted;

    private Outcomes(DrawnSum how, decimal[] inOrder, decimal[] sorted) =>
        (this.how, InOrder, this.sorted) = (how, inOrder, sorted);

    /// <summary>What each draw came to, in the order of the draws.</summary>
    public decimal[] InOrder { get; }

    /// <summary>The smallest.</summary>
    public decimal Smallest => sorted[0];

    /// <summary>The largest.</summary>
    public decimal Largest => sorted[^1];

    /// <summary>Draws a sum.</summary>
    /// <param name="name">What it is of, for its workings.</param>
    /// <param name="fixedPart">What does not vary.</param>
    /// <param name="varying">What does.</param>
    /// <param name="streams">How many streams there are, also those that nothing here follows.</param>
    /// <param name="shared">In how many of a hundred outcomes a stream goes with all.</param>
    /// <param name="seed">With which the draws begin.</param>
    /// <param name="draws">How many.</param>
    /// <param name="stop">Ends it early.</param>
    public static Outcomes Of(
        string name,
        Val fixedPart,
        Varying[] varying,
        int streams,
        Val shared,
        Val seed,
        int draws,
        CancellationToken stop
    )
    {
        var row = new Draws((long)seed.V);
        var below = shared.V * (Draws.Parts / 100);
        var least = fixedPart.V + varying.Sum(v => v.Least.V);
        decimal[] wide = [.. varying.Select(v => v.Most.V - v.Least.V)];
        var outcomes = new decimal[draws];
        long each = 1 + 2L * streams;
        for (var n = 0; n < draws; n++)
        {
            if (n % 256 == 0)
                stop.ThrowIfCancellationRequested();
            var first = n * each;
            var all = row.Billionths(first);
            var sum = least;
            for (var i = 0; i < varying.Length; i++)
            {
                if (wide[i] == 0)
                    continue;
                var at = first + 1 + 2L * varying[i].Stream;
                var u = row.Billionths(at) < below ? all : row.Billionths(at + 1);
                sum += wide[i] * new decimal(u, 0, 0, false, 9);
            }
            outcomes[n] = sum;
        }
        var sorted = (decimal[])outcomes.Clone();
        Array.Sort(sorted);
        return new(
            new(
                name,
                fixedPart.HowOrConstant,
                [.. varying.Select(v => new Drawn(v.Least.HowOrConstant, v.Most.HowOrConstant, v.Stream))],
                shared.HowOrConstant,
                seed.HowOrConstant,
                draws,
                streams
            ),
            outcomes,
            sorted
        );
    }

    /// <summary>The outcome that so many of a hundred do not go above.</summary>
    public Val Percentile(int percent, Trace trace)
    {
        var rank = (sorted.Length * percent + 99) / 100;
        return new(sorted[rank - 1], trace.On ? new Outcome(how, rank) : null);
    }

    /// <summary>How many draws come to more than a bound, rounded to 9 places.</summary>
    public Val Above(Val bound, Trace trace) =>
        new(
            Array.FindAll(sorted, o => Rounding.ForCompare(o) > Rounding.ForCompare(bound.V)).Length,
            trace.On ? new OutcomesAbove(how, bound.HowOrConstant) : null
        );
}
