using Emendum.Core;
using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Outside;

/// <summary>A yes with a name under it: what its sender has seen, and how they sign.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Revision">Letters of the revision that they saw.</param>
/// <param name="Selection">Version of the selection that they saw; 0 for the revision as it was sent.</param>
/// <param name="Total">The total with tax that they saw, as it was read.</param>
/// <param name="Name">Their name in full.</param>
/// <param name="Drawn">It as it was drawn; empty where it was typed.</param>
/// <param name="Declares">Whether they say that they may sign and have read.</param>
public sealed record AcceptRevision(
    Guid Id,
    string Revision,
    int Selection,
    string Total,
    string Name,
    string Drawn,
    bool Declares
);

/// <summary>Signs what was agreed, and hands out the signed PDF: the same for the customer's page, the firm's tablet, and the firm itself.</summary>
public sealed class Signings(
    RevisionStore revisions,
    AcceptanceStore acceptances,
    FrozenRevisions frozen,
    FileStore files,
    Pictures pictures,
    FirmDay day,
    TimeProvider time
)
{
    private DateTime Now => time.GetUtcNow().UtcDateTime;

    /// <summary>A revision with what it offers; null where there is none of that id in the job.</summary>
    public Frozen? Frozen(Guid job, Guid revision) => frozen.Of(job, revision);

    /// <summary>What is chosen of a revision by now.</summary>
    public Selection Selected(Guid revision) => revisions.Selected(revision);

    /// <summary>Chooses one thing more for the customer (L8).</summary>
    /// <param name="job">The job.</param>
    /// <param name="revision">The revision.</param>
    /// <param name="choose">What, and which version its sender has seen.</param>
    /// <param name="fact">Id of the fact.</param>
    /// <param name="link">The customer's link; null where it is chosen at the firm's own screen.</param>
    /// <exception cref="RefusedException">It cannot be chosen as the proposal stands; says why.</exception>
    public ProposalLife Choose(Guid job, Frozen revision, ChooseOne choose, Guid fact, Link? link)
    {
        var id = revision.Revision.Start.Id;
        if (revision.Offer is not { } offer)
            throw RefusedException.Of("choose", "Nothing can be chosen here any more; please ask.");
        var now = Selected(id);
        var next = choose is { Together: true, Taken: true, Choice: { } choice }
            ? offer.Together(now, choice, choose.Of)
            : now.With(choose.Choice, choose.Of, choose.Taken);
        // It can be priced, or is refused with its reason, before it is kept. What was chosen beside an older selection is refused for that below, and needs no price.
        if (choose.Version == now.Version)
            _ = offer.With(next);
        return revisions.Choose(
            job,
            new(
                fact,
                id,
                FactKind.Chosen,
                Now,
                link?.For ?? "the customer",
                link is null ? "in person, at the firm's screen" : ""
            )
            {
                Link = link?.Id,
                Copy = link is { Signs: false },
            },
            choose.Version,
            next,
            day.Today
        );
    }

    /// <summary>Accepts a revision for the customer (L7, L8): state, total and that there is no other acceptance are checked in the transaction that records it.</summary>
    /// <param name="job">The job.</param>
    /// <param name="revision">The revision.</param>
    /// <param name="accept">What its sender has seen, and how they sign.</param>
    /// <param name="fact">Id of the fact.</param>
    /// <param name="link">The customer's link; null where it is signed at the firm's own tablet.</param>
    /// <exception cref="RefusedException">It cannot be accepted as it stands; says why.</exception>
    public ProposalLife Accept(Guid job, Frozen revision, AcceptRevision accept, Guid fact, Link? link)
    {
        var (now, id) = (Now, revision.Revision.Start.Id);
        var (statement, total) = revision.With(Selected(id), out var live);
        var name = new Signed(fact, false, accept.Name.Trim(), accept.Drawn, now);
        name.Check();
        if (!accept.Declares)
            throw RefusedException.Of("declares", "Say that you may sign, and have read it.");
        if (accept.Revision != statement.Revision)
            throw RefusedException.Of(
                "revision",
                $"You saw revision {accept.Revision}; this is revision {statement.Revision}. Read it, and sign again."
            );
        if (accept.Selection != statement.Selection || accept.Total != statement.Total)
            throw RefusedException.Of(
                "total",
                $"You saw {accept.Total}; it comes to {statement.Total}. Look at it, and sign again."
            );
        return revisions.Record(
            job,
            new(
                fact,
                id,
                FactKind.Accepted,
                now,
                name.Name,
                link is null ? "signed in person, at the firm's tablet" : $"signed by the link of {link.For}"
            )
            {
                Total = total,
                Link = link?.Id,
                Copy = link is { Signs: false },
            },
            day.Today,
            Brought.Nothing with
            {
                Acceptance = new(fact, id, statement, [name]),
                WhateverWasChosen = !live,
            }
        );
    }

    /// <summary>Records a yes that came on paper or by word (L14), with what it was said to.</summary>
    /// <param name="job">The job.</param>
    /// <param name="revision">The revision.</param>
    /// <param name="yes">The fact; its total is found here.</param>
    /// <param name="asSent">Whether it is a yes to the revision as it was sent, whatever was chosen on the page; otherwise to what is chosen by now.</param>
    /// <exception cref="RefusedException">It cannot be recorded as it stands; says why.</exception>
    public ProposalLife Record(Guid job, Frozen revision, Fact yes, bool asSent)
    {
        var live = true;
        var (statement, total) = asSent ? revision.AsSent : revision.With(Selected(yes.Revision), out live);
        if (!live)
            throw RefusedException.Of(
                "asSent",
                "What was chosen cannot be priced any more: record a yes to the revision as it was sent, or send a new one."
            );
        return revisions.Record(
            job,
            yes with
            {
                Total = total,
            },
            day.Today,
            Brought.Nothing with
            {
                Acceptance = new(yes.Id, yes.Revision, statement, []),
                WhateverWasChosen = asSent,
            }
        );
    }

    /// <summary>The acceptance that stands of a revision, with what was agreed; null where there is none.</summary>
    public Acceptance? Standing(ProposalLife life, Guid revision) =>
        life.Acceptance is { } fact && fact.Revision == revision ? acceptances.Find(fact.Id)?.By(fact) : null;

    /// <summary>What was agreed of a revision, and stands.</summary>
    /// <exception cref="NotThereException">Nothing was.</exception>
    private Acceptance Agreed(ProposalLife life, Guid revision) =>
        Standing(life, revision) ?? throw new NotThereException("Nothing was agreed there.");

    /// <summary>Adds the firm's name, or a further one of the customer's side.</summary>
    /// <exception cref="NotThereException">Nothing was signed.</exception>
    public Acceptance Sign(ProposalLife life, Guid revision, Guid id, bool byFirm, string name, string drawn) =>
        acceptances.Sign(Agreed(life, revision).Fact, new(id, byFirm, name.Trim(), drawn, Now));

    /// <summary>The signed PDF of a revision, to be sent.</summary>
    /// <exception cref="NotThereException">Nothing was signed.</exception>
    public async Task<IResult> Sent(ProposalLife life, Revision revision)
    {
        var agreed = Agreed(life, revision.Start.Id);
        // What was signed is the proposal that it went out with.
        if (revision.Start.Lead is { } lead)
            revision = revisions.Find(lead.Job, lead.Revision)!;
        return Results.Stream(
            files.Read(await Pdf(revision, agreed)),
            "application/pdf",
            $"{(agreed.Recorded.Length > 0 ? "Accepted" : "Signed")}, {RevisionEndpoints.NameOf(revision)}"
        );
    }

    /// <summary>The signed PDF with all names that stand under it by now; made when it is first asked for, and the same from then on.</summary>
    private async Task<StoredFile> Pdf(Revision revision, Acceptance signed)
    {
        if (acceptances.Pdf(signed.Fact, signed.Names.Length) is { } kept && files.Find(kept) is { } there)
            return there;
        var (document, brand) = revision.Document;
        var info = JobFile.Read(revision.JobFile, out _).Info;
        var pdf = await ProposalEndpoints.Set(signed.Signed(document, day.Moments()), info, brand, pictures);
        using var content = new MemoryStream(pdf);
        var file = await files.Take(content, FileEndpoints.Kind, Now, CancellationToken.None);
        files.Name(file.Hash);
        acceptances.KeepPdf(signed.Fact, signed.Names.Length, file.Hash);
        return file;
    }
}
