using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;

namespace Emendum.Web.Jobs;

/// <summary>What is asked of the year of a round.</summary>
public static class YearEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapYear(this IEndpointRouteBuilder jobs)
    {
        jobs.MapGet("/{id:guid}/price/year", (Guid id, OpenJobs open) => YearView.Of(open.Get(id).Estimate));
        jobs.MapGet(
            "/{id:guid}/price/year/{rhythm:guid}/frequencies",
            (Guid id, Guid rhythm, string? times, OpenJobs open) =>
                Frequencies(open.Get(id).Estimate, rhythm, times ?? "")
        );
    }

    /// <summary>Records what a figure of these views stands in; false where it is none of them.</summary>
    internal static bool Record(Job job, string figure, Trace trace)
    {
        if (figure.Split('/') is not ["frequencies", var id, var frequency, ..])
            return false;
        if (
            Guid.TryParse(id, out var rhythm)
            && frequency.Split('-') is [var kind, var times]
            && Enum.TryParse<RhythmKind>(kind, out var of)
            && int.TryParse(times, System.Globalization.CultureInfo.InvariantCulture, out var number)
        )
            OtherFrequency.Recorded(job, rhythm, new(of, number), trace);
        return true;
    }

    /// <summary>The frequencies that are usual about that of a rhythm, and one that was typed, side by side.</summary>
    private static FrequenciesView Frequencies(Estimate estimate, Guid rhythm, string typed)
    {
        var of =
            estimate.Job.Rhythm(rhythm)
            ?? throw RefusedException.Of("rhythm", "That rhythm is not in this job any more.");
        if (of.Kind == RhythmKind.Event)
            throw RefusedException.Of("rhythm", "What an event brings has no frequency of its own.");
        var now = Frequency.Of(of);
        // The next that is more frequent, and the next that is rarer.
        IEnumerable<Frequency> near = Frequency
            .Usual.Where(f => f.Times > now.Times)
            .TakeLast(1)
            .Concat(Frequency.Usual.Where(f => f.Times < now.Times).Take(1));
        if (typed.Trim().Length > 0)
            near = near.Append(
                int.TryParse(typed.Trim(), System.Globalization.CultureInfo.InvariantCulture, out var times)
                && times is >= 1 and <= 1000
                    ? new(RhythmKind.Times, times)
                    : throw RefusedException.Of("times", "Write how often a year, 1 to 1,000.")
            );
        var all = OtherFrequency.Of(estimate, rhythm, near);
        return new(of.Name, [.. all.Select(f => FrequencyView.Of(estimate, rhythm, f))], Words(estimate, all));
    }

    private static string Words(Estimate estimate, IEnumerable<OtherFrequency> all)
    {
        var floor = estimate.Job.Pricing.FloorMargin;
        var under = all.Where(f => f.Year?.Margin is { } margin && margin.V < floor)
            .Select(f => f.Frequency.Name)
            .ToArray();
        return under.Length == 0
            ? $"None of these is under the floor of {Core.Quantities.Rounding.Text(floor)} %."
            : $"{string.Join(", ", under)}: under the floor of {Core.Quantities.Rounding.Text(floor)} %.";
    }
}
