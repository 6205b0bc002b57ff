using Emendum.Core.Proposals;
using Emendum.Core.Quantities;

namespace Emendum.Core.Checks;

/// <summary>A quote that is taken ends before the prices of the proposal do: the customer might say yes when the firm need not any more.</summary>
internal static class QuoteEnds
{
    public static IEnumerable<Finding> In(CheckedJob job)
    {
        static string Said(DateOnly day) => PaperLanguage.English.Day(day);
        var holds = job.Job.PricesHoldUntil;
        foreach (var quote in job.Job.Quotes.Where(q => q.Taken && q.EndsBefore(holds)))
            yield return job.Found(
                $"quote/{quote.Id}",
                "A quote ends first",
                $"The quote of {quote.From} for {job.Job.Section(quote.Section)?.Name} holds until {Said(Day.Of(quote.ValidUntil))}; your prices hold until {Said(holds)}.",
                "Who says yes in between buys work at a price that nobody has promised you. Ask for longer, or let the proposal end sooner."
            );
    }
}
