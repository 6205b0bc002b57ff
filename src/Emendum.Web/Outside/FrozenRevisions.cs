using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Storage;

namespace Emendum.Web.Outside;

/// <summary>A revision that is looked at from outside, with what it offers to choose from.</summary>
public sealed class Frozen
{
    private readonly Lazy<Offer?> offer;

    private readonly Lazy<Document> read;
    private readonly Statement alone;
    private readonly ImmutableArray<Statement> further;
    private readonly decimal furtherTotal;

    /// <summary>Of a revision, with the further estimates that went out with it.</summary>
    public Frozen(Revision revision, IReadOnlyCollection<Revision> others)
    {
        var (document, brand) = revision.Document;
        // What is held in memory needs no figures of lines: of a large job they are many megabytes.
        Revision = revision with
        {
            Reckoning = [],
        };
        alone = Statement.AsSent(document, brand, revision.Figures, revision.Start, revision.Pdf);
        further =
        [
            .. others.Select(o => Statement.AsSent(o.Document.Document, brand, o.Figures, o.Start, revision.Pdf)),
        ];
        furtherTotal = others.Sum(o => o.Figures.Total);
        AsSent = Together(new(alone, revision.Figures.Total));
        read = new(() => Outward(document));
        Offers = Core.Proposals.Offer.IsMadeBy(document);
        offer = new(() =>
            Offers
                ? Core.Proposals.Offer.Of(JobFile.Read(revision.JobFile, out _), revision.Figures, brand, alone)
                : null
        );
    }

    /// <summary>It.</summary>
    public Revision Revision { get; }

    /// <summary>Its document as it may leave the house.</summary>
    public Document Read => read.Value;

    /// <summary>What would be signed of it as it was sent, with its total.</summary>
    public ToSign AsSent { get; }

    /// <summary>What would be signed of one revision, together with the further estimates that went out with it.</summary>
    private ToSign Together(ToSign one)
    {
        if (further.IsEmpty)
            return one;
        var total = one.Total + furtherTotal;
        var said = Revision.Document.Brand.Writes.Number(Shown.Money(total, Revision.Figures.Places));
        return new(one.Statement.With(further, said), total);
    }

    /// <summary>Whether its document offers anything to choose from.</summary>
    public bool Offers { get; }

    /// <summary>What can be chosen, at live prices; null where nothing is offered, or where live pricing has stopped (L10).</summary>
    public Offer? Offer => offer.Value;

    /// <summary>A document as it may leave the house: what is hidden, whose words a block has, and where its figures come from stay here.</summary>
    private static Document Outward(Document document) =>
        document with
        {
            Blocks =
            [
                .. document
                    .Blocks.Where(b => b.IsRead)
                    .Select(b => b with { WordsOf = WordsOf.Nobody, Words = Bare.Of(b.Words), Made = Bare.Of(b.Made) }),
            ],
        };

    /// <summary>The estimate that was agreed: with what was chosen, or as it was sent.</summary>
    /// <param name="selection">What was chosen.</param>
    /// <exception cref="RefusedException">It cannot be reckoned any more.</exception>
    public Core.Pricing.Estimate Agreed(Selection selection) =>
        selection.Version > 0 && Offer is { } offers
            ? offers.Agreed(selection)
            : Core.Pricing.Estimate.Of(JobFile.Read(Revision.JobFile, out _), Core.Figures.Trace.Silent);

    /// <summary>What would be signed with what is chosen; where live pricing has stopped, what was sent, whatever was chosen before.</summary>
    /// <param name="selection">What is chosen.</param>
    /// <param name="live">Whether it could be priced.</param>
    public ToSign With(Selection selection, out bool live)
    {
        live = true;
        try
        {
            if (Offer is { } offers)
                return Together(offers.With(selection));
        }
        catch (RefusedException)
        {
            // What was chosen before cannot be priced any more.
        }
        live = !Offers && selection.Version == 0;
        return AsSent;
    }
}

/// <summary>The revisions that were looked at last, in memory: they never change, and to read one and to reckon what it offers takes longer than to answer by it.</summary>
public sealed class FrozenRevisions(RevisionStore revisions)
{
    private readonly LastUsed<(Guid Job, Guid Id), Frozen> held = new(16);

    /// <summary>A revision; null where there is none of that id in the job.</summary>
    public Frozen? Of(Guid job, Guid id) =>
        held.Of(
            (job, id),
            () => revisions.Find(job, id) is { } found ? new Frozen(found, revisions.Further(job, id)) : null
        );
}
