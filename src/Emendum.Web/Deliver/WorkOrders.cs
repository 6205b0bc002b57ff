using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Emendum.Web.Outside;

namespace Emendum.Web.Deliver;

/// <summary>What was accepted of a job, and what is done for it.</summary>
/// <param name="Yes">The fact of the acceptance.</param>
/// <param name="Revision">The revision that was accepted.</param>
/// <param name="Head">The head of its document: for whom, where, under which title.</param>
/// <param name="Brand">The look it was sent in.</param>
/// <param name="Order">The work order.</param>
/// <param name="Money">What was agreed in money, for the firm alone.</param>
public sealed record AcceptedWork(
    Fact Yes,
    RevisionStart Revision,
    Letterhead Head,
    Brand Brand,
    WorkOrder Order,
    AgreedMoney Money
);

/// <summary>The work orders of accepted jobs: each is made once from what was agreed, and kept (architecture decision 34).</summary>
public sealed class WorkOrders(WorkOrderStore store, RevisionStore revisions, Signings signings, TimeProvider time)
{
    private readonly LastUsed<(Guid Job, Guid Yes), KeptOrder> held = new(16);

    /// <summary>What was accepted of a job; null while nothing is.</summary>
    public AcceptedWork? Of(Guid job)
    {
        var life = revisions.Life(job);
        if (life.Acceptance is not { } yes)
            return null;
        var frozen = signings.Frozen(job, yes.Revision)!;
        var kept = held.Of(
            (job, yes.Id),
            () => WithGoods(store.Find(job, yes.Id) ?? Made(job, life, yes, frozen), life, yes, frozen)
        )!;
        var (document, brand) = frozen.Revision.Document;
        return new(yes, frozen.Revision.Start, document.Head, brand, kept.Order, kept.Money);
    }

    /// <summary>The estimate as it was agreed, for whoever makes more of it.</summary>
    /// <exception cref="RefusedException">Nothing was accepted.</exception>
    public Estimate Agreed(Guid job)
    {
        var life = revisions.Life(job);
        var yes = life.Acceptance ?? throw RefusedException.Of("job", "Nothing was accepted yet.");
        return Agreed(life, yes, signings.Frozen(job, yes.Revision)!);
    }

    /// <summary>The estimate as it was agreed. A further estimate goes as it was sent: nothing is chosen of it (L22).</summary>
    private Estimate Agreed(ProposalLife life, Fact yes, Frozen frozen) =>
        frozen.Agreed(
            frozen.Revision.Start.Lead is null && signings.Standing(life, yes.Revision) is { Statement.Selection: > 0 }
                ? signings.Selected(yes.Revision)
                : Selection.AsSent
        );

    /// <summary>What was kept before there was buying gets its goods by today's rules.</summary>
    private KeptOrder WithGoods(KeptOrder kept, ProposalLife life, Fact yes, Frozen frozen) =>
        kept.Money.Goods.IsDefault
            ? kept with
            {
                Money = kept.Money with { Goods = AgreedGoods.Of(Agreed(life, yes, frozen)) },
            }
            : kept;

    private KeptOrder Made(Guid job, ProposalLife life, Fact yes, Frozen frozen)
    {
        var agreed = Agreed(life, yes, frozen);
        store.Keep(
            job,
            yes.Id,
            new(OrderMaking.Of(agreed), AgreedMoney.Of(agreed)),
            JobFile.Write(agreed.Job),
            Rules.Version,
            time.GetUtcNow().UtcDateTime
        );
        // Of two that make it at once the first is kept.
        return store.Find(job, yes.Id)!;
    }
}
