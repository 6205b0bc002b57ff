using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Reports;

/// <summary>A line of the cost sheet.</summary>
/// <param name="Line">The line.</param>
/// <param name="Section">Its section.</param>
/// <param name="Hours">Labour hours; of work that comes back, of the first year, as the money is.</param>
/// <param name="Costs">What it costs, by class.</param>
/// <param name="Cost">The same together.</param>
/// <param name="Price">Its part of the price before tax.</param>
/// <param name="Note">What sets it apart: who supplies, an allowance, hidden; or empty.</param>
public sealed record CostSheetLine(
    Line Line,
    string Section,
    Val Hours,
    ByClass<Val> Costs,
    Val Cost,
    Val Price,
    string Note
);

/// <summary>A job's costs and price for the firm itself: what every line takes, costs and brings, and how the price is built from it. Printed, and taken out as a workbook.</summary>
/// <param name="Estimate">The job.</param>
/// <param name="Lines">By section, in job order.</param>
/// <param name="CostOfNoLine">Cost that no line bears: the way to the site, set-up.</param>
/// <param name="PriceOfNoLine">What is in the price and falls on no line.</param>
/// <param name="HoursOfNoLine">Hours that no line takes: set-up, travel, what comes once for a work item.</param>
/// <param name="Contingency">Contingency that stands on its own and in no line's price.</param>
public sealed record CostSheet(
    Estimate Estimate,
    ImmutableArray<CostSheetLine> Lines,
    Val CostOfNoLine,
    Val PriceOfNoLine,
    Val HoursOfNoLine,
    Val Contingency
)
{
    /// <summary>What is called what no line bears, and contingency by itself.</summary>
    public const string NoLine = "No line's own: set-up, the way to the site, what comes once",
        OfContingency = "Contingency, on its own";

    /// <summary>Whether there is anything that no line bears.</summary>
    public bool HasNoLine => CostOfNoLine.V != 0 || PriceOfNoLine.V != 0 || HoursOfNoLine.V != 0;

    /// <summary>The cost sheet of a job that was estimated with the same trace.</summary>
    public static CostSheet Of(Estimate estimate, Trace trace)
    {
        var (job, spread, draft) = (estimate.Job, Spread.Of(estimate, trace), estimate.Price.Draft);
        var rank = job.Sections.Select((s, i) => (s.Id, i)).ToDictionary(s => s.Id, s => s.i);
        var lines = estimate
            .Reckoned.Lines.Select(
                (line, n) =>
                    new CostSheetLine(
                        line,
                        job.SectionOf(line.OfItem.Item),
                        estimate.Reckoned.HoursInYear(n),
                        draft.LineCosts.Lines[n],
                        spread.Costs[n],
                        spread.Lines[n],
                        Note(line, job)
                    )
            )
            .OrderBy(l => rank.GetValueOrDefault(l.Line.OfItem.Item.Section, int.MaxValue));
        return new(
            estimate,
            [.. lines],
            draft.Direct - Sum.Of(spread.Costs.Where(c => c.V != 0)),
            spread.NoLines,
            estimate.Reckoned.Costs.Hours
                - Sum.Of(Enumerable.Range(0, estimate.Reckoned.Lines.Length).Select(estimate.Reckoned.HoursInYear)),
            spread.Contingency
        );
    }

    private static string Note(Line line, Job job) =>
        string.Join(
            ", ",
            new[]
            {
                line.IsNothing ? "nothing of it here" : "",
                RhythmTimes.Of(job, line.OfItem.Item) is { } rhythm ? "a year of it: " + rhythm.Name : "",
                line.Allowance is null ? "" : "allowance",
                line.Supply switch
                {
                    Supply.Customer => "the customer does it",
                    Supply.CustomerMaterial => "the customer supplies the material",
                    _ => "",
                },
                line.Quote is { } quote ? "done by " + quote.From : "",
                line.Hidden ? "hidden from the customer" : "",
            }.Where(n => n.Length > 0)
        );
}
