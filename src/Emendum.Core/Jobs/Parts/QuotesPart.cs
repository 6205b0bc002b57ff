using System.Collections.Immutable;

namespace Emendum.Core.Jobs;

/// <summary>Quotes of other firms for sections, in order.</summary>
internal sealed class QuotesPart() : ThingsPart<Quote>("quotes")
{
    /// <summary>Most of them in a job.</summary>
    private const int Most = 100;

    /// <inheritdoc/>
    protected override ImmutableArray<Quote> Of(Job job) => job.Quotes;

    /// <inheritdoc/>
    protected override Job With(Job job, ImmutableArray<Quote> things) => job with { Quotes = things };

    /// <inheritdoc/>
    protected override Guid IdOf(Quote thing) => thing.Id;

    /// <inheritdoc/>
    protected override string RankOf(Quote thing) => thing.Rank;

    /// <inheritdoc/>
    public override bool Settable(string field) =>
        field is "from" or "amount" or "validUntil" or "leavesOut" or "without";

    /// <inheritdoc/>
    public override void Check(Job job)
    {
        Once(job, "quote");
        if (job.Quotes.Length > Most)
            throw RefusedException.Of("quotes", $"A job has at most {Most} quotes.");
        foreach (var quote in job.Quotes)
        {
            quote.Check();
            if (job.Section(quote.Section) is null)
                throw RefusedException.Of("section", "That section is not in this job any more.");
        }
        if (job.Quotes.Where(q => q.Taken).GroupBy(q => q.Section).Any(of => of.Count() > 1))
            throw RefusedException.Of("taken", "Of a section one quote is taken.");
    }
}
