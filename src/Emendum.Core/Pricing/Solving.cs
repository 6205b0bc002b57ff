using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>What can be typed of a price.</summary>
public enum SolveFor
{
    /// <summary>What the customer pays.</summary>
    Total,

    /// <summary>Price before tax.</summary>
    BeforeTax,

    /// <summary>Margin, percent of the price.</summary>
    Margin,

    /// <summary>Gross profit in money.</summary>
    Profit,

    /// <summary>What is left after overhead and contingency.</summary>
    AfterOverhead,

    /// <summary>Price before tax per unit of an area.</summary>
    PerArea,

    /// <summary>Price before tax per labour hour.</summary>
    PerHour,
}

/// <summary>A price that one term leads to.</summary>
/// <param name="Field">The term, as files name it.</param>
/// <param name="Was">What it is.</param>
/// <param name="Now">What it would be.</param>
/// <param name="Typed">The price that would not be rounded; null where nothing is rounded.</param>
/// <param name="Estimate">The job so.</param>
public sealed record MovedTerm(string Field, decimal Was, decimal Now, decimal? Typed, Estimate Estimate)
{
    /// <summary>What the term is called.</summary>
    public string Term => Words(Field);

    /// <summary>What a term that can move is called.</summary>
    internal static string Words(string field) =>
        field switch
        {
            "profit" => "profit markup",
            "targetMargin" => "target margin",
            _ => "adjustment",
        };
}

/// <summary>What typing a price leads to: the term that would move, or the two nearest prices that can be had.</summary>
/// <param name="Exact">The answer; null where there is none.</param>
/// <param name="Below">The nearest below, where there is no exact one.</param>
/// <param name="Above">The nearest above, where there is no exact one.</param>
/// <param name="Why">What stands in the way; empty for nothing.</param>
public sealed record Solved(MovedTerm? Exact, MovedTerm? Below, MovedTerm? Above, string Why);

/// <summary>Solves backwards: one named term moves so that the price is what somebody typed. It moves once; nothing stays pinned (pricing, Solving).</summary>
public sealed class Solving
{
    private readonly Estimate estimate;
    private readonly PricingTerms terms;
    private readonly SolveFor what;
    private readonly decimal quantity;
    private readonly (string Field, decimal Step, long Lowest, long Highest, decimal Was) term;

    private Solving(Estimate estimate, SolveFor what, decimal quantity)
    {
        (this.estimate, terms, this.what, this.quantity) = (estimate, estimate.Job.Pricing, what, quantity);
        var cents = 1m;
        for (var i = 0; i < estimate.MoneyPlaces; i++)
            cents /= 10;
        term = terms.Basis switch
        {
            PriceBasis.Markup when Moves(own => own.Profit is null) => (
                "profit",
                0.000001m,
                -99_999_999,
                999_999_999,
                terms.Profit
            ),
            PriceBasis.TargetMargin when Moves(own => own.TargetMargin is null) => (
                "targetMargin",
                0.000001m,
                -999_999_999,
                99_999_999,
                terms.TargetMargin
            ),
            _ => ("adjustment", cents, (long)(-900_000_000m / cents), (long)(900_000_000m / cents), terms.Adjustment),
        };
    }

    /// <summary>Whether the job's own term moves anything: there is cost in its own build-up, or in that of a section on the same basis which takes the term from the job.</summary>
    private bool Moves(Func<OwnBasis, bool> takes) =>
        estimate.Price.Draft.Pools.Any(p =>
            p.Terms.Basis == terms.Basis
            && (p.Section?.Pricing is not { } own || takes(own))
            && p.Costs.Sum(c => c.Of.V) > 0
        );

    /// <summary>What would have to move for <paramref name="what"/> to be <paramref name="value"/>. <paramref name="quantity"/> is the area or the hours that a price per area or per hour is for.</summary>
    /// <exception cref="RefusedException">There is no price to move, or nothing leads there.</exception>
    public static Solved Of(Estimate estimate, SolveFor what, decimal value, decimal quantity = 1)
    {
        static RefusedException No(string message) => RefusedException.Of("value", message);
        if (!Array.Exists(estimate.Reckoned.Lines, l => !l.IsNothing))
            throw No("There is no work yet that a price could be typed for.");
        if (what == SolveFor.Margin && value >= 100)
            throw No(
                "A margin is under 100 percent: at 100 the whole price would be profit, and no price is high enough for that."
            );
        if (what is SolveFor.Total or SolveFor.BeforeTax or SolveFor.PerArea or SolveFor.PerHour && value <= 0)
            throw No("Type a price above zero.");
        if (what is SolveFor.PerArea or SolveFor.PerHour && quantity <= 0)
            throw No(
                what == SolveFor.PerHour
                    ? "There are no labour hours in this job."
                    : "There is no such area in this job."
            );
        if (decimal.Abs(value) >= Rounding.InputBound)
            throw No("That is more than can be reckoned with.");
        return new Solving(estimate, what, quantity).For(value);
    }

    /// <summary>The job with the term moved, without rounding, and <paramref name="free"/> of the job's least charge, with one percent for all sizes.</summary>
    private Estimate At(long n, bool free, decimal? percent = null)
    {
        // In a round a visit is rounded, and what is typed is of the year: it is met beside the visits.
        var moved = Moved(terms, n) with
        {
            Rounding = IsRound ? terms.Rounding : null,
            Typed = null,
        };
        if (free)
            moved = moved with { LeastJob = 0 };
        if (percent is { } one)
            moved = moved with { Brackets = terms.Brackets! with { Rows = [new(0, one)], NeverMoreThanNext = false } };
        return estimate.If(estimate.Job with { Pricing = moved });
    }

    private bool IsRound => !estimate.Price.Occurrences.IsEmpty;

    private PricingTerms Moved(PricingTerms of, long n)
    {
        var value = n * term.Step;
        return term.Field switch
        {
            "profit" => of with { Profit = value },
            "targetMargin" => of with { TargetMargin = value },
            _ => of with { Adjustment = value },
        };
    }

    /// <summary>What is typed, of an estimate.</summary>
    private decimal Read(Estimate of) =>
        what switch
        {
            SolveFor.Total => of.Price.Total.V,
            SolveFor.Margin => of.Price.Readouts.Margin?.V ?? decimal.MinValue,
            SolveFor.Profit => of.Price.Readouts.GrossProfit.V,
            SolveFor.AfterOverhead => of.Price.Readouts.AfterOverhead.V,
            _ => of.Price.BeforeTax.V,
        };

    private Solved For(decimal value)
    {
        var goal = what is SolveFor.PerArea or SolveFor.PerHour
            ? Rounding.Money(value * quantity, estimate.MoneyPlaces)
            : value;
        // Where a percent depends on the size, each size is looked at as if it were the only one.
        decimal?[] percents = terms.Brackets is { By: BracketBy.Price } brackets
            ? [.. brackets.Rows.Select(r => (decimal?)r.Percent).Prepend(0m).Distinct()]
            : [null];
        var found = percents.Select(p => Search(goal, p)).ToArray();
        // Where least charges hold the price, the term may stand where it is.
        var exact = found
            .SelectMany(f => f.Exact is { } range ? Choices(range) : [])
            .Append((long)decimal.Round(term.Was / term.Step))
            .Distinct()
            .Select(n => (n, Estimate: Kept(n)))
            .Where(a => a.Estimate.Price.Step("leastJob") is null && Unrounded(a.n) == goal)
            .OrderBy(a => decimal.Abs(a.n * term.Step - term.Was))
            .ToArray();
        if (exact.Length > 0)
            return new(AnswerAt(exact[0].n, exact[0].Estimate), null, null, "");
        if (found.Length > 0 && terms.LeastJob > 0 && found.All(f => Stands(f.Above)))
        {
            var least = estimate.Price.Draft.Words(terms.LeastJob);
            var at = found[0].Above;
            return new(
                null,
                null,
                AnswerAt(at, Kept(at)),
                $"The least charge of the job, {least}, stands in the way: a lower price needs a lower least charge."
            );
        }
        var near = found
            .SelectMany(f => new[] { f.Below, f.Above })
            .Distinct()
            .Select(n => (n, Estimate: Kept(n)))
            .Where(a => a.Estimate.Price.Step("leastJob") is null)
            .ToArray();
        var low = Nearest(near.Where(a => Read(a.Estimate) < goal), goal);
        var high = Nearest(near.Where(a => Read(a.Estimate) > goal), goal);
        if (what == SolveFor.Margin)
        {
            // A margin is a quotient of cents: the nearest is what was meant.
            var nearest = new[] { low, high }.OfType<MovedTerm>().MinBy(a => decimal.Abs(Read(a.Estimate) - goal));
            if (nearest is not null && low is not null && high is not null)
                return new(nearest, null, null, "");
        }
        if (low is null && high is null)
            throw RefusedException.Of("value", "No price can be found that leads there.");
        return new(null, low, high, Why(low, high));
    }

    private string Why(MovedTerm? low, MovedTerm? high) =>
        low is null ? "The least charges of the lines stand in the way: nothing lower can be had while they do."
        : high is null ? $"The {MovedTerm.Words(term.Field)} cannot go further."
        : terms.Fees.Length > 0
            ? "Fees and tax are rounded to whole cents: these two prices can be had, the one that was typed lies between them."
        : "Tax is rounded to whole cents: these two prices can be had, the one that was typed lies between them.";

    private MovedTerm? Nearest(IEnumerable<(long N, Estimate Estimate)> near, decimal goal) =>
        near.Select(a => (a.N, a.Estimate, Away: decimal.Abs(Read(a.Estimate) - goal)))
            .OrderBy(a => a.Away)
            .Select(a => AnswerAt(a.N, a.Estimate))
            .FirstOrDefault();

    private bool Stands(long n) => At(n, free: false).Price.Step("leastJob") is not null;

    private decimal Unrounded(long n) => Read(At(n, free: false));

    /// <summary>Whole steps of the term: the last below the goal and the first at or above it; and the range that is exactly there.</summary>
    private (long Below, long Above, (long From, long To)? Exact) Search(decimal goal, decimal? percent)
    {
        decimal Value(long n) => Read(At(n, free: true, percent));
        long FirstWith(Func<decimal, bool> reached)
        {
            var (low, high) = (term.Lowest, term.Highest);
            while (low < high)
            {
                var middle = low + (high - low) / 2;
                if (reached(Value(middle)))
                    high = middle;
                else
                    low = middle + 1;
            }
            return low;
        }
        var first = FirstWith(v => v >= goal);
        var at = Value(first);
        if (at != goal)
            return (long.Max(first - 1, term.Lowest), first, null);
        var after = FirstWith(v => v > goal);
        return (first, first, (first, Value(after) > goal ? after - 1 : after));
    }

    /// <summary>Of a range that gives the same price: the present value where it lies there, and the shortest number.</summary>
    private IEnumerable<long> Choices((long From, long To) range)
    {
        var was = (long)decimal.Round(term.Was / term.Step);
        if (was >= range.From && was <= range.To)
            yield return was;
        if (term.Field == "adjustment")
        {
            yield return range.From;
            yield break;
        }
        for (long grain = 1_000_000; grain >= 1; grain /= 10)
        {
            var up = (long)decimal.Ceiling((decimal)range.From / grain) * grain;
            if (up > range.To)
                continue;
            yield return up;
            yield break;
        }
    }

    private decimal? TypedAt(long n) =>
        terms.Rounding is not { } rounding || IsRound ? null
        : At(n, free: false).Price is var price && rounding.AfterTax ? price.Total.V
        : price.BeforeTax.V;

    /// <summary>The job as it would be kept: with its rounding, which what was typed steps over.</summary>
    private Estimate Kept(long n) =>
        estimate.If(estimate.Job with { Pricing = Moved(terms, n) with { Typed = TypedAt(n) } });

    private MovedTerm AnswerAt(long n, Estimate kept) => new(term.Field, term.Was, n * term.Step, TypedAt(n), kept);
}
