using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>A section done by a firm that has quoted for it, or by ourselves.</summary>
/// <param name="Section">The section.</param>
/// <param name="Quote">The quote; null for by ourselves.</param>
/// <param name="Taken">Whether it is so now.</param>
/// <param name="Estimate">The job then; null where it cannot be priced so.</param>
/// <param name="Cost">What the section's work costs, by whoever does it.</param>
/// <param name="LeftToUs">What of that is our own work, which the quote leaves out.</param>
/// <param name="Refused">Why it cannot be priced, or empty.</param>
public sealed record PricedQuote(
    Section Section,
    Quote? Quote,
    bool Taken,
    Estimate? Estimate,
    Total? Cost,
    Total? LeftToUs,
    string Refused
)
{
    /// <summary>Start of the paths of its figures.</summary>
    public static string Within(Guid section, Guid? quote) => $"quoted/{section}/{quote?.ToString() ?? "ourselves"}/";

    /// <summary>Every section that somebody has quoted for, in order: by ourselves, and by each of them.</summary>
    public static ImmutableArray<PricedQuote> Of(Estimate estimate) =>
        [
            .. estimate
                .Job.Sections.Where(s => estimate.Job.Quotes.Any(q => q.Section == s.Id))
                .SelectMany(section =>
                    estimate
                        .Job.Quotes.Where(q => q.Section == section.Id)
                        .Cast<Quote?>()
                        .Prepend(null)
                        .Select(quote => Of(estimate, section, quote))
                ),
        ];

    private static PricedQuote Of(Estimate estimate, Section section, Quote? quote)
    {
        var taken = estimate.Job.Quotes.FirstOrDefault(q => q.Section == section.Id && q.Taken)?.Id == quote?.Id;
        try
        {
            return Of(
                taken ? estimate : estimate.If(With(estimate.Job, section.Id, quote?.Id)),
                section,
                quote,
                taken,
                Trace.Silent
            );
        }
        catch (RefusedException refused)
        {
            return new(section, quote, taken, null, null, null, refused.Refusal.Message);
        }
    }

    /// <summary>One of them, recorded.</summary>
    /// <exception cref="RefusedException">It cannot be priced so.</exception>
    public static void Record(Job job, Guid section, Guid? quote, Trace trace)
    {
        if (job.Section(section) is not { } of)
            return;
        var within = trace.Within(Within(section, quote));
        var other = With(job, section, quote);
        Of(Estimate.Of(other, within), of, other.Quotes.FirstOrDefault(q => q.Id == quote), false, within);
    }

    private static PricedQuote Of(Estimate estimate, Section section, Quote? quote, bool taken, Trace trace)
    {
        var (lines, costs) = (estimate.Reckoned.Lines, estimate.Price.Draft.LineCosts.Lines);
        Total Made(Func<Reckoning.Line, bool> which, string label, string leaf) =>
            trace.Total(
                Sum.Of(
                        Enumerable
                            .Range(0, lines.Length)
                            .Where(n => lines[n].OfItem.Item.Section == section.Id && which(lines[n]))
                            .SelectMany(n => costs[n].Where(c => c.Of.V != 0).Select(c => c.Of))
                    )
                    .Money(estimate.MoneyPlaces),
                "",
                trace.On ? $"{section.Name}: {label}" : "",
                new("sections", section.Id, "quoted/" + leaf)
            );
        return new(
            section,
            quote,
            taken,
            estimate,
            Made(_ => true, "cost", "cost"),
            quote is null ? null : Made(l => l.Ours, "cost of what is left to us", "leftToUs"),
            ""
        );
    }

    private static Job With(Job job, Guid section, Guid? quote) =>
        job with
        {
            Quotes = [.. job.Quotes.Select(q => q.Section == section ? q with { Taken = q.Id == quote } : q)],
        };
}
