using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;

namespace Emendum.Web.Jobs;

/// <summary>A section done by a firm that has quoted for it, or by ourselves; figures are null where it cannot be priced so.</summary>
/// <param name="Quote">The quote; null for by ourselves.</param>
/// <param name="Taken">Whether it is so now.</param>
/// <param name="Cost">What the section's work costs, by whoever does it.</param>
/// <param name="LeftToUs">What of that is left to us; null where nothing of the section is left out.</param>
/// <param name="Hours">Labour hours of the job then.</param>
/// <param name="BeforeTax">Price of the job then, before tax.</param>
/// <param name="Margin">Its margin.</param>
/// <param name="Ends">What is to be said of how long it holds; empty for nothing.</param>
/// <param name="Refused">Why it cannot be priced, or empty.</param>
public sealed record QuotedView(
    Quote? Quote,
    bool Taken,
    FigureView? Cost,
    FigureView? LeftToUs,
    FigureView? Hours,
    FigureView? BeforeTax,
    FigureView? Margin,
    string Ends,
    string Refused
);

/// <summary>The quotes for a section side by side.</summary>
/// <param name="Work">Its work, of which a quote may leave some out.</param>
public sealed record QuotedSectionView(
    Guid Id,
    string Name,
    IReadOnlyList<NamedView> Work,
    IReadOnlyList<QuotedView> Quoted
);

/// <summary>All quotes of a job.</summary>
/// <param name="Sections">Sections that somebody has quoted for.</param>
/// <param name="Others">Sections that nobody has quoted for yet.</param>
public sealed record QuotesView(IReadOnlyList<QuotedSectionView> Sections, IReadOnlyList<NamedView> Others);

/// <summary>What is asked of the quotes of other firms.</summary>
public static class QuoteEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapQuotes(this IEndpointRouteBuilder jobs) =>
        jobs.MapGet("/{id:guid}/price/quotes", (Guid id, OpenJobs open) => All(open.Get(id).Estimate));

    /// <summary>Records what a figure of these views stands in; false where it is none of them.</summary>
    internal static bool Record(Job job, string figure, Trace trace)
    {
        if (figure.Split('/') is not ["quoted", var section, var by, ..])
            return false;
        if (Guid.TryParse(section, out var of))
            PricedQuote.Record(job, of, Guid.TryParse(by, out var quote) ? quote : null, trace);
        return true;
    }

    private static QuotesView All(Estimate estimate)
    {
        var job = estimate.Job;
        return new(
            [
                .. PricedQuote
                    .Of(estimate)
                    .GroupBy(q => q.Section)
                    .Select(of => new QuotedSectionView(
                        of.Key.Id,
                        Named(of.Key.Name),
                        [.. job.Work.Where(w => w.Section == of.Key.Id).Select(w => new NamedView(w.Id, w.Name))],
                        [.. of.Select(q => View(job, q))]
                    )),
            ],
            [
                .. job
                    .Sections.Where(s => job.Quotes.All(q => q.Section != s.Id))
                    .Select(s => new NamedView(s.Id, Named(s.Name))),
            ]
        );
    }

    private static string Named(string section) => section.Length == 0 ? "Work without a section" : section;

    private static QuotedView View(Job job, PricedQuote of)
    {
        var within = PricedQuote.Within(of.Section.Id, of.Quote?.Id);
        var e = of.Estimate;
        FigureView Money(Total total) => FigureView.Money(within + total.Path, total, places: e!.MoneyPlaces);
        return new(
            of.Quote,
            of.Taken,
            of.Cost is { } cost ? Money(cost) : null,
            of.LeftToUs is { V: not 0 } left ? Money(left) : null,
            e is null ? null : FigureView.Hours(within + e.Reckoned.Costs.Hours.Path, e.Reckoned.Costs.Hours),
            e is null ? null : Money(e.Price.BeforeTax),
            e?.Price.Readouts.Margin is { } margin ? FigureView.Percent(within + margin.Path, margin) : null,
            of.Quote?.EndsBefore(job.PricesHoldUntil) == true ? "ends before your own prices do" : "",
            of.Refused
        );
    }
}
