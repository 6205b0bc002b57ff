using System.Text.Json.Nodes;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;

namespace Emendum.Core.Reckoning;

/// <summary>A whole reckoning as canonical JSON: every figure by its path, in order of path. The same job gives the same bytes.</summary>
public static class Reported
{
    /// <summary>Every figure that any screen shows of the job, recorded.</summary>
    public static (Reckoning Reckoning, Trace Trace) Record(Job job)
    {
        var trace = Trace.Recording();
        var reckoning = Reckoner.Reckon(job, trace);
        Subtotals.Of(reckoning, trace);
        MeasureTotals.Of(reckoning, trace);
        ScheduleCheck.Of(reckoning, trace);
        Alternates.Of(reckoning, trace);
        LineMoney.Of(reckoning, trace);
        foreach (var detail in Enum.GetValues<Proposals.Detail>())
            Proposals.Proposal.Of(
                Reckoner.Reckon(job with { Proposal = job.Proposal with { Detail = detail } }, trace),
                trace
            );
        return (reckoning, trace);
    }

    /// <summary>All figures with value and unit.</summary>
    public static JsonObject Figures(Trace trace)
    {
        var figures = new JsonObject();
        foreach (var figure in trace.Figures.Values.OrderBy(f => f.Path, StringComparer.Ordinal))
            figures[figure.Path] = new JsonObject
            {
                ["value"] = Rounding.Text(figure.Value),
                ["unit"] = figure.Unit,
                ["label"] = figure.Label,
            };
        return figures;
    }

    /// <summary>What <c>emendum reckon</c> prints.</summary>
    public static JsonObject Of(Job job) =>
        new()
        {
            ["job"] = job.Id.ToString(),
            ["name"] = job.Info.Name,
            ["currency"] = job.Info.Currency,
            ["figures"] = Figures(Record(job).Trace),
        };
}
