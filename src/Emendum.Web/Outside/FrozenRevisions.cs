using Emendum.Core;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Storage;

namespace Emendum.Web.Outside;

/// <summary>A revision that is looked at from outside, with what it offers to choose from.</summary>
public sealed class Frozen
{
    private readonly Lazy<Offer?> offer;

    /// <summary>Of a revision.</summary>
    public Frozen(Revision revision)
    {
        var (document, brand) = revision.Document;
        // What is held in memory needs no figures of lines: of a large job they are many megabytes.
        Revision = revision with
        {
            Reckoning = [],
        };
        AsSent = Statement.AsSent(document, brand, revision.Figures, revision.Start.Letters, revision.Pdf);
        Offers = Core.Proposals.Offer.IsMadeBy(document);
        offer = new(() =>
            Offers
                ? Core.Proposals.Offer.Of(JobFile.Read(revision.JobFile, out _), revision.Figures, brand, AsSent)
                : null
        );
    }

    /// <summary>It.</summary>
    public Revision Revision { get; }

    /// <summary>What would be signed of it as it was sent.</summary>
    public Statement AsSent { get; }

    /// <summary>Whether its document offers anything to choose from.</summary>
    public bool Offers { get; }

    /// <summary>What can be chosen, at live prices; null where nothing is offered, or where live pricing has stopped (L10).</summary>
    public Offer? Offer => offer.Value;

    /// <summary>What would be signed with what is chosen; where live pricing has stopped, what was sent, whatever was chosen before.</summary>
    /// <param name="selection">What is chosen.</param>
    /// <param name="live">Whether it could be priced.</param>
    public ToSign With(Selection selection, out bool live)
    {
        live = true;
        try
        {
            if (Offer is { } offers)
                return offers.With(selection);
        }
        catch (RefusedException)
        {
            // What was chosen before cannot be priced any more.
        }
        live = !Offers && selection.Version == 0;
        return new(AsSent, Revision.Figures.Total);
    }
}

/// <summary>The revisions that were looked at last, in memory: they never change, and to read one and to reckon what it offers takes longer than to answer by it.</summary>
public sealed class FrozenRevisions(RevisionStore revisions)
{
    /// <summary>Most that are held.</summary>
    private const int Most = 16;

    private readonly Lock gate = new();
    private readonly LinkedList<Frozen> held = [];

    /// <summary>A revision; null where there is none of that id in the job.</summary>
    public Frozen? Of(Guid job, Guid id)
    {
        lock (gate)
            for (var at = held.First; at is not null; at = at.Next)
                if (at.Value.Revision.Start.Id == id && at.Value.Revision.Job == job)
                {
                    held.Remove(at);
                    held.AddFirst(at);
                    return at.Value;
                }
        if (revisions.Find(job, id) is not { } found)
            return null;
        var frozen = new Frozen(found);
        lock (gate)
        {
            held.AddFirst(frozen);
            if (held.Count > Most)
                held.RemoveLast();
        }
        return frozen;
    }
}
