using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>A rate that a job reached.</summary>
/// <param name="Job">Its number; empty for the job that is looked at.</param>
/// <param name="Pace">The number before the unit.</param>
/// <param name="Faster">By how many percent it is faster than the Book; less than nothing where it is slower.</param>
public sealed record RateOfJob(string Job, decimal Pace, decimal Faster);

/// <summary>A rate of the Book against what this job and the last five reached, and what is suggested (rules H1 to H6).</summary>
/// <param name="Entry">The entry as the Book has it today.</param>
/// <param name="Coats">The row of its coats; 0 for an assembly.</param>
/// <param name="Unit">What the numbers are of: <c>ft² per h</c>, <c>h per door</c>; of an assembly × hours allowed.</param>
/// <param name="Book">The Book's number.</param>
/// <param name="Here">What this job has reached so far; null for nothing yet.</param>
/// <param name="LastFive">Finished jobs, the latest first.</param>
/// <param name="Median">The middle one of those; null where there are none.</param>
/// <param name="Together">All of those together, Σ by Σ; null where there are none.</param>
/// <param name="Suggests">The number that is suggested, as it is read and kept; null below three jobs, or where that is what the Book has.</param>
/// <param name="Suggested">The entry with it; null where nothing is suggested.</param>
public sealed record RateCompared(
    BookEntry Entry,
    int Coats,
    string Unit,
    decimal Book,
    RateOfJob? Here,
    ImmutableArray<RateOfJob> LastFive,
    RateOfJob? Median,
    decimal? Together,
    decimal? Suggests,
    BookEntry? Suggested
)
{
    /// <summary>That of an entry; null where the Book has no such rate today.</summary>
    /// <param name="today">The entry as the Book has it; null where it is gone.</param>
    /// <param name="key">Which rate.</param>
    /// <param name="here">What this job has reached; null for nothing.</param>
    /// <param name="finished">What finished jobs have.</param>
    public static RateCompared? Of(BookEntry? today, RateKey key, Reached? here, IEnumerable<ReachedInJob> finished) =>
        today switch
        {
            ProductionRate rate when rate.Paces.FirstOrDefault(p => p.Coats == key.Coats) is { } row => Of(
                rate,
                row,
                here,
                RateReached.LastFive(finished)
            ),
            Assembly assembly => Of(
                assembly,
                Evened(here, assembly),
                RateReached.LastFive(
                    finished
                        .Select(j => Evened(j.Of, assembly) is { } even ? j with { Of = even } : null)
                        .OfType<ReachedInJob>()
                )
            ),
            _ => null,
        };

    private static RateCompared Of(ProductionRate rate, CoatsPace row, Reached? here, ImmutableArray<ReachedInJob> five)
    {
        Ratio Pace(decimal weighted, Unit unit, decimal hours) => RateReached.Of(row.Pace, weighted, unit, hours);
        Ratio PaceOf(Reached of) => Pace(of.Weighted, RateReached.UnitOf(of), of.Hours);
        RateOfJob Job(string number, Reached of) => new(number, PaceOf(of).A, Faster(row.Pace, PaceOf(of)));
        var median = five.IsEmpty ? null : RateReached.Median(five);
        var suggests =
            median is not null && five.Length >= RateReached.Least ? RateReached.ToRead(PaceOf(median.Of)) : null;
        if (suggests is { A: <= 0 } || suggests == RateReached.ToRead(row.Pace))
            suggests = null;
        var together = five.IsEmpty ? ((decimal, Unit, decimal)?)null : RateReached.Together(five);
        return new(
            rate,
            row.Coats,
            UnitOf(row.Pace),
            row.Pace.A,
            here is null ? null : Job("", here),
            [.. five.Select(j => Job(j.Number, j.Of))],
            median is null ? null : Job(median.Number, median.Of),
            together is var (weighted, unit, hours) ? Pace(weighted, unit, hours).A : null,
            suggests?.A,
            suggests is null
                ? null
                : rate with
                {
                    Paces = [.. rate.Paces.Select(p => p.Coats == row.Coats ? p with { Pace = suggests } : p)],
                }
        );
    }

    private static string UnitOf(Ratio pace) =>
        $"{pace.UnitA} per {(pace.B == 1 ? "" : Rounding.Text(pace.B) + " ")}{pace.UnitB}";

    private static decimal Faster(Ratio book, Ratio reached) =>
        book.UnitA.Kind == Kind.Time ? (book.A / reached.A - 1) * 100m : (reached.A / book.A - 1) * 100m;

    /// <summary>One factor for all labour of an assembly: used ÷ allowed (H4).</summary>
    private static RateCompared Of(Assembly assembly, Reached? here, ImmutableArray<ReachedInJob> five)
    {
        static decimal Factor(Reached of) => Rounding.Figure(of.Hours / of.Weighted);
        static RateOfJob Job(string number, Reached of) => new(number, Factor(of), (1 / Factor(of) - 1) * 100m);
        var median = five.IsEmpty ? null : RateReached.Median(five);
        var suggests =
            median is not null && five.Length >= RateReached.Least ? RateReached.FactorToRead(Factor(median.Of)) : 1;
        var together = five.IsEmpty ? ((decimal, Unit, decimal)?)null : RateReached.Together(five);
        return new(
            assembly,
            0,
            "× hours allowed",
            1,
            here is null ? null : Job("", here),
            [.. five.Select(j => Job(j.Number, j.Of))],
            median is null ? null : Job(median.Number, median.Of),
            together is var (weighted, _, hours) ? hours / weighted : null,
            suggests == 1 ? null : suggests,
            suggests == 1 ? null : LabourBasis.Scaled(assembly, suggests)
        );
    }

    /// <summary>What was reached, with the hours allowed as today's assembly would allow them; null where its labour is made otherwise by now.</summary>
    private static Reached? Evened(Reached? of, Assembly today) =>
        of is not null && LabourBasis.Of(of.Basis, today) is { } by ? of with { Weighted = of.Weighted * by } : null;
}
