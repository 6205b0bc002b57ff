using System.Text.Json.Nodes;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;

namespace Emendum.Core.Reports;

/// <summary>A whole estimate as canonical JSON: every figure by its path, in order of path. The same job gives the same bytes.</summary>
public static class Reported
{
    /// <summary>Every figure that any screen shows of the job, recorded.</summary>
    public static (Estimate Estimate, Trace Trace) Record(Job job)
    {
        var trace = Trace.Recording();
        return (All(job, trace), trace);
    }

    /// <summary>The same with a trace that records or is silent.</summary>
    public static Estimate All(Job job, Trace trace)
    {
        var estimate = Estimate.Of(job, trace);
        Subtotals.Of(estimate.Reckoned, trace);
        MeasureTotals.ByHeading(estimate.Reckoned, trace);
        MeasureTotals.Of(estimate.Reckoned, trace);
        PricePerArea.Of(estimate, trace);
        ScheduleCompared.Of(estimate.Reckoned, trace);
        Alternates.Priced(estimate, trace);
        LineMoney.Of(estimate, trace);
        Year.Of(estimate, trace);
        PaymentPlan.Of(estimate, trace);
        // What else the proposal says is recorded above; its price is another at each detail.
        foreach (var detail in Enum.GetValues<Detail>())
        foreach (var unitPrices in detail == Detail.Line ? new[] { false, true } : [false])
            Proposal.Price(estimate.ShownAs(job.Proposal with { Detail = detail, UnitPrices = unitPrices }), trace);
        return estimate;
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
