using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>What a rate is told by: an entry, the row of its coats, and the unit its quantity was counted in. Of an assembly the quantity is the hours allowed, and the unit h (rule H4).</summary>
public readonly record struct RateKey(Guid Entry, int Coats, string Unit);

/// <summary>What was worked by one rate in a job.</summary>
/// <param name="Key">Which rate.</param>
/// <param name="Weighted">Quantity as far as it is done × difficulty × conditions; of an assembly the hours allowed for it.</param>
/// <param name="Hours">Hours used.</param>
/// <param name="LastDay">Day of the last of them.</param>
public sealed record Reached(RateKey Key, decimal Weighted, decimal Hours, DateOnly LastDay)
{
    /// <summary>Of an assembly: the labour that hours were allowed by (<see cref="LabourBasis"/>); empty for rates.</summary>
    public string Basis { get; init; } = "";
}

/// <summary>What a finished job reached.</summary>
/// <param name="Job">The job.</param>
/// <param name="Number">Its number.</param>
/// <param name="Of">What it reached; in the unit it was counted in.</param>
public sealed record ReachedInJob(Guid Job, string Number, Reached Of);

/// <summary>The pace that hours come to, written as the Book writes it (rules H1 and H4).</summary>
public static class RateReached
{
    /// <summary>A pace in the words of another: so much per hour, or so many hours for so much.</summary>
    /// <param name="like">The Book's pace.</param>
    /// <param name="weighted">Quantity × difficulty × conditions.</param>
    /// <param name="unit">Its unit.</param>
    /// <param name="hours">Hours used; more than nothing, as the quantity.</param>
    public static Ratio Of(Ratio like, decimal weighted, Unit unit, decimal hours)
    {
        var number =
            like.UnitA.Kind == Kind.Time
                ? In(hours, Unit.Hour, like.UnitA) * like.B / In(weighted, unit, like.UnitB)
                : In(weighted, unit, like.UnitA) * like.B / In(hours, Unit.Hour, like.UnitB);
        return like with { A = Rounding.Figure(number) };
    }

    /// <summary>The number of a pace as it is read, and as it is kept when somebody takes it: three figures, and four from a hundred on.</summary>
    public static decimal ToRead(decimal pace) =>
        decimal.Round(
            Rounding.Digits(pace, pace >= 100 ? 4 : 3),
            Rounding.InputDecimals,
            MidpointRounding.AwayFromZero
        );

    /// <summary>A pace with such a number.</summary>
    public static Ratio ToRead(Ratio pace) => pace with { A = ToRead(pace.A) };

    /// <summary>A factor of hours as it is read and kept: four decimals.</summary>
    public static decimal FactorToRead(decimal factor) => decimal.Round(factor, 4, MidpointRounding.AwayFromZero);

    /// <summary>How many jobs a suggestion is made of at the most, and at the least (rules H2 and H3).</summary>
    public const int Most = 5,
        Least = 3;

    /// <summary>The last five, by the day of their last hour and then by number; the latest first.</summary>
    public static ImmutableArray<ReachedInJob> LastFive(IEnumerable<ReachedInJob> jobs) =>
        [
            .. jobs.OrderByDescending(j => j.Of.LastDay)
                .ThenByDescending(j => j.Number, StringComparer.Ordinal)
                .Take(Most),
        ];

    /// <summary>The middle one of some jobs' rates, of an even number the slower of the two middle ones: the same whichever way the rate is written (rule H3).</summary>
    public static ReachedInJob Median(IReadOnlyCollection<ReachedInJob> jobs) =>
        jobs.OrderBy(j => j.Of.Hours / Even(j.Of)).ElementAt(jobs.Count / 2);

    /// <summary>All of some jobs together, in the unit of the first: Σ of quantities by Σ of hours.</summary>
    public static (decimal Weighted, Unit Unit, decimal Hours) Together(IReadOnlyCollection<ReachedInJob> jobs)
    {
        var unit = UnitOf(jobs.First().Of);
        return (jobs.Sum(j => In(j.Of.Weighted, UnitOf(j.Of), unit)), unit, jobs.Sum(j => j.Of.Hours));
    }

    /// <summary>The unit that a quantity was counted in.</summary>
    public static Unit UnitOf(Reached of) => Unit.Find(of.Key.Unit) ?? Unit.Each;

    /// <summary>A quantity in one unit for all jobs, so that they can be told apart.</summary>
    private static decimal Even(Reached of)
    {
        var unit = UnitOf(of);
        return In(of.Weighted, unit, UnitSystem.Metres.For(unit.Kind));
    }

    /// <summary>What is counted stays as it is, whatever it is called.</summary>
    private static decimal In(decimal value, Unit from, Unit to) =>
        from.Kind == Kind.Count ? value : new Quantity(value, from).In(to).Value;
}
