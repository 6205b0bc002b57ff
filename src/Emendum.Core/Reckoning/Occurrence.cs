using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Reckoning;

/// <summary>Work of one rhythm, done once: what it takes and costs by itself (estimating model §7, Rhythm of work).</summary>
/// <param name="Rhythm">How often it comes; null for what is done once.</param>
/// <param name="Band">How far the event goes that brings it; null where it is no event.</param>
/// <param name="Times">How often the year has it, without what is done instead of it.</param>
/// <param name="Reckoned">One of it.</param>
/// <param name="LineAt">For each of its lines the position among all lines of the job.</param>
public sealed record Occurrence(Rhythm? Rhythm, EventBand? Band, Total Times, Reckoned Reckoned, int[] LineAt)
{
    /// <summary>Id under which its figures stand.</summary>
    public Guid Id => Band?.Id ?? Rhythm?.Id ?? Jobs.Rhythm.Once;

    /// <summary>What it is called.</summary>
    public string Name =>
        Rhythm is null ? "Once"
        : Band is null ? Rhythm.Name
        : $"{Rhythm.Name}, {Band.Name}";

    /// <summary>What the first year has of an amount of one of it.</summary>
    public Val InYear(Val one) => Rhythm is null || one.V == 0 ? one : one * Times;

    /// <summary>Start of the paths of an occurrence's figures.</summary>
    public static string Within(Guid id) => $"rhythms/{id}/";

    /// <summary>The job that one occurrence of it is: its work, priced as one visit is.</summary>
    /// <param name="job">The whole job.</param>
    /// <param name="rhythm">The rhythm; null for what is done once.</param>
    /// <param name="band">How far an event goes.</param>
    /// <param name="holdsFixed">Whether the job's fixed price is for this occurrence.</param>
    public static Job JobOf(Job job, Rhythm? rhythm, EventBand? band, bool holdsFixed)
    {
        var visit = rhythm is null || RhythmTimes.HasVisit(job, rhythm);
        var terms = job.Pricing with
        {
            // A discount in money, what was typed and what was adjusted are of the year; rounding after tax is an invoice's.
            Discounts = [.. job.Pricing.Discounts.Where(d => d.Percent is not null)],
            Adjustment = 0,
            Typed = null,
            Rounding = job.Pricing.Rounding is { AfterTax: true } ? null : job.Pricing.Rounding,
            LeastJob = visit ? job.Pricing.LeastJob : 0,
            MaterialCost = rhythm is null ? job.Pricing.MaterialCost : MaterialCost.Need,
            Basis =
                job.Pricing.Basis == Work.PriceBasis.Fixed && !holdsFixed ? job.Pricing.UsualBasis : job.Pricing.Basis,
        };
        return job with { Pricing = terms, Crew = visit ? job.Crew : job.Crew with { SetUp = null }, Band = band };
    }
}
