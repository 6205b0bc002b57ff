using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>A job reckoned and priced. Whatever a screen, a document or a file shows comes from here.</summary>
/// <param name="Reckoned">What it takes and costs.</param>
/// <param name="Priced">What has a price of its own, by work item in job order.</param>
/// <param name="Price">What the customer pays for it.</param>
public sealed record Estimate(Reckoned Reckoned, ImmutableArray<OwnPrice> Priced, Price Price)
{
    /// <summary>Places of the job's money.</summary>
    public int MoneyPlaces => Price.Draft.Places;

    /// <summary>What was estimated.</summary>
    public Job Job => Reckoned.Job;

    /// <summary>Reckons and prices a job; what <paramref name="earlier"/> and <paramref name="touched"/> are is said at <see cref="Reckoner.Reckon(Job, Trace, Reckoned?, IReadOnlyCollection{CellKey}?)"/>.</summary>
    /// <exception cref="RefusedException">Something in it cannot be reckoned.</exception>
    public static Estimate Of(
        Job job,
        Trace trace,
        Estimate? earlier = null,
        IReadOnlyCollection<CellKey>? touched = null
    ) => Of(Reckoner.Reckon(job, trace, earlier?.Reckoned, touched), trace);

    /// <summary>What it would be if the job were another (architecture decision 25): without a piece, with other terms, with another product. Lines that differ are redone, and the whole
    /// fold; where only the price differs, nothing is reckoned. Every 'what if' comes through here. <paramref name="touched"/> are the cells that differ, where nothing else does.</summary>
    /// <exception cref="RefusedException">That job cannot be reckoned.</exception>
    public Estimate If(Job other, IReadOnlyCollection<CellKey>? touched = null) =>
        Of(other, Trace.Silent, this, touched);

    /// <summary>The same estimate, to be shown to the customer in another way.</summary>
    public Estimate ShownAs(ProposalTerms proposal) =>
        this with
        {
            Reckoned = Reckoned.For(Job with { Proposal = proposal }),
        };

    /// <summary>The same for a job whose places have the measures that somebody gave.</summary>
    /// <exception cref="RefusedException">Something in it cannot be reckoned.</exception>
    public static Estimate Of(Job job, Dictionary<Guid, PlaceMeasures> given, Trace trace) =>
        Of(Reckoner.Reckon(job, given, trace), trace);

    /// <summary>Prices what has been reckoned.</summary>
    internal static Estimate Of(Reckoned reckoned, Trace trace) =>
        Reckoner.Bounded(() =>
        {
            if (!reckoned.Occurrences.IsEmpty)
                return OfYear(reckoned, trace);
            var priced = PriceOnly.Of(reckoned, trace);
            return new Estimate(reckoned, priced, Price.Of(reckoned, priced, trace));
        });

    /// <summary>The first year of a round. What has a price of its own has it in its occurrence; of an event, as the first band has it.</summary>
    private static Estimate OfYear(Reckoned reckoned, Trace trace)
    {
        var price = Price.Of(reckoned, [], trace);
        return new(
            reckoned,
            [
                .. price
                    .Occurrences.DistinctBy(o => o.Occurrence.Rhythm?.Id)
                    .SelectMany(o =>
                        o.Estimate.Priced.Select(p =>
                            p with
                            {
                                ByLine = [.. p.ByLine.Select(l => l with { Line = o.Occurrence.LineAt[l.Line] })],
                            }
                        )
                    ),
            ],
            price
        );
    }
}
