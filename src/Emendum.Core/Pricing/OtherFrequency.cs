using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Pricing;

/// <summary>A round with another frequency of one of its rhythms.</summary>
/// <param name="Frequency">How often.</param>
/// <param name="IsNow">Whether it is so already.</param>
/// <param name="Year">The year then; null where that cannot be.</param>
/// <param name="Refused">Why not, or empty.</param>
public sealed record OtherFrequency(Frequency Frequency, bool IsNow, Year? Year, string Refused)
{
    /// <summary>Start of the paths of its figures.</summary>
    public static string Within(Guid rhythm, Frequency frequency) =>
        $"frequencies/{rhythm}/{frequency.Kind}-{frequency.Times}/";

    /// <summary>Other frequencies of a rhythm side by side, the present one among them.</summary>
    public static ImmutableArray<OtherFrequency> Of(Estimate estimate, Guid rhythm, IEnumerable<Frequency> all)
    {
        var now = Frequency.Of(Find(estimate.Job, rhythm));
        return
        [
            .. all.Append(now)
                .Distinct()
                .OrderByDescending(f => f.Times)
                .Select(f =>
                {
                    if (f == now)
                        return new OtherFrequency(f, true, Year.Of(estimate, Trace.Silent), "");
                    try
                    {
                        var other = estimate.If(JobWith(estimate.Job, rhythm, f));
                        return new(f, false, Year.Of(other, Trace.Silent), "");
                    }
                    catch (RefusedException refused)
                    {
                        return new(f, false, null, refused.Refusal.Message);
                    }
                }),
        ];
    }

    /// <summary>The same, recorded.</summary>
    /// <exception cref="RefusedException">The job cannot have it so.</exception>
    public static Year? Recorded(Job job, Guid rhythm, Frequency frequency, Trace trace)
    {
        var within = trace.Within(Within(rhythm, frequency));
        return Year.Of(Estimate.Of(JobWith(job, rhythm, frequency), within), within);
    }

    private static Rhythm Find(Job job, Guid rhythm) =>
        job.Rhythm(rhythm) ?? throw RefusedException.Of("rhythm", "That rhythm is not in this job any more.");

    private static Job JobWith(Job job, Guid rhythm, Frequency frequency) =>
        Commands.Apply(job, new TakeFrequency(rhythm, Frequency.Of(Find(job, rhythm)), frequency), _ => null).Job;
}
