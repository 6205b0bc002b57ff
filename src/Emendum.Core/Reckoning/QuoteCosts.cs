using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Reckoning;

/// <summary>What a firm is paid whose quote is taken.</summary>
/// <param name="Quote">The quote.</param>
/// <param name="Cost">Money.</param>
public sealed record QuoteCost(Quote Quote, Total Cost);

/// <summary>Quotes that are taken: each once, where any of its work is done. What it costs is shared to its lines by the hours we would take ourselves; where there are none, in as many equal parts as there are lines.</summary>
internal static class QuoteCosts
{
    /// <summary>The costs of lines that stand by work item.</summary>
    public static ImmutableArray<QuoteCost> Of(Job job, IReadOnlyList<Line> lines, Trace trace)
    {
        if (!job.Quotes.Any(q => q.Taken))
            return [];
        var worked = lines.Where(l => l.Quote is not null && !l.IsNothing).Select(l => l.Quote!.Id).ToHashSet();
        return
        [
            .. job
                .Quotes.Where(q => worked.Contains(q.Id))
                .Select(q => new QuoteCost(
                    q,
                    trace.Total(
                        trace.Typed(q.Amount, "", q.From, null, "quotes", q.Id),
                        "",
                        trace.On ? $"Quote of {q.From}, {job.Section(q.Section)?.Name}" : "",
                        new("quotes", q.Id, "cost")
                    )
                )),
        ];
    }

    /// <summary>Gives each line what it bears.</summary>
    public static void Share(LineShares shares, Line[] lines)
    {
        foreach (var (quote, cost) in shares.Costs.Quotes)
        {
            int[] at =
            [
                .. Enumerable.Range(0, lines.Length).Where(n => lines[n].Quote?.Id == quote.Id && !lines[n].IsNothing),
            ];
            var by = Array.ConvertAll(at, n => lines[n].WouldTake);
            var all = Sum.Of(by);
            for (var i = 0; i < at.Length; i++)
                shares.Add(at[i], Book.CostClass.Subcontract, all.V == 0 ? cost / at.Length : cost * by[i] / all);
        }
    }
}
