using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Figures;
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
)
{
    /// <summary>The job.</summary>
    public Guid Job { get; init; }

    /// <summary>Change orders that were accepted, in that order.</summary>
    public ImmutableArray<SentChange> Changes { get; init; } = [];
}

/// <summary>The work orders of accepted jobs: each is made once from what was agreed, and kept (architecture decision 34).</summary>
public sealed class WorkOrders(
    WorkOrderStore store,
    RevisionStore revisions,
    Signings signings,
    FirmDay day,
    TimeProvider time
)
{
    private readonly LastUsed<(Guid Job, Guid Fact), KeptOrder> held = new(16);

    // As they were signed, they never change; of a large one the figures are many megabytes.
    private readonly LastUsed<(Guid Job, Guid Yes), Estimate> estimates = new(4);

    /// <summary>What was accepted of a job; null while nothing is.</summary>
    public AcceptedWork? Of(Guid job)
    {
        var life = revisions.Life(job);
        if (life.Acceptance is not { } yes)
            return null;
        var frozen = signings.Frozen(job, yes.Revision)!;
        var all = revisions.Changes(job);
        var kept = Kept(job, life, yes, frozen, all);
        var (document, brand) = frozen.Revision.Document;
        return new(yes, frozen.Revision.Start, document.Head, brand, kept.Order, kept.Money)
        {
            Job = job,
            Changes = SentChange.Accepted(all),
        };
    }

    /// <summary>The estimate as it was agreed, with the changes that were accepted since, for whoever makes more of it.</summary>
    /// <exception cref="RefusedException">Nothing was accepted.</exception>
    public Estimate Agreed(Guid job)
    {
        var life = revisions.Life(job);
        var yes = life.Acceptance ?? throw RefusedException.Of("job", "Nothing was accepted yet.");
        return Changed(
            job,
            Signed(life, yes, signings.Frozen(job, yes.Revision)!),
            SentChange.Accepted(revisions.Changes(job))
        );
    }

    /// <summary>The estimate as it was agreed: before each change order that was accepted and stands; with those that were accepted once and annulled; and as it is now.</summary>
    /// <exception cref="RefusedException">Nothing was accepted.</exception>
    public (ImmutableArray<Estimate> Earlier, ImmutableArray<Estimate> Annulled, Estimate Now) Stages(Guid job)
    {
        var life = revisions.Life(job);
        var yes = life.Acceptance ?? throw RefusedException.Of("job", "Nothing was accepted yet.");
        var signed = Signed(life, yes, signings.Frozen(job, yes.Revision)!);
        var all = revisions.Changes(job);
        var accepted = SentChange.Accepted(all);
        var annulled = all.Where(c => c.Life.Facts.Any(f => f.Kind == FactKind.Annulled)).Except(accepted);
        return (
            [.. Enumerable.Range(0, Math.Max(1, accepted.Length)).Select(n => Changed(job, signed, accepted[..n]))],
            [.. annulled.Select(c => Changed(job, signed, [.. accepted, c]))],
            Changed(job, signed, accepted)
        );
    }

    /// <summary>A job as it stands against what was agreed of it.</summary>
    /// <param name="now">The job.</param>
    /// <exception cref="RefusedException">Nothing was accepted, or what is changed cannot be reckoned on it.</exception>
    public ChangedJob Changed(Job now)
    {
        var life = revisions.Life(now.Id);
        var yes = life.Acceptance ?? throw RefusedException.Of("job", "Nothing was accepted yet.");
        var frozen = signings.Frozen(now.Id, yes.Revision)!;
        var signed = Signed(life, yes, frozen);
        var agreed = Changed(now.Id, signed, SentChange.Accepted(revisions.Changes(now.Id)));
        var sent = JobFile.Read(frozen.Revision.JobFile, out _);
        return ChangedJob.Of(agreed, ChangedJob.WithChosen(now, sent, signed.Job, agreed.Job));
    }

    /// <summary>The contract sum by its lines, with the changes that were accepted since.</summary>
    /// <exception cref="RefusedException">Nothing was accepted; or what was agreed comes to another sum by today's rules, so that no line can be told its part of it.</exception>
    public ContractByLine ByLine(Guid job)
    {
        var life = revisions.Life(job);
        var yes = life.Acceptance ?? throw RefusedException.Of("job", "Nothing was accepted yet.");
        var frozen = signings.Frozen(job, yes.Revision)!;
        var signed = Signed(life, yes, frozen);
        var contract = First(job, life, yes, frozen).Money.Contract;
        if (
            !AgreedContract
                .Of(signed)
                .Categories.Select(c => c.Amount)
                .SequenceEqual(contract.Categories.Select(c => c.Amount))
        )
            throw RefusedException.Of(
                "by",
                "The rules have changed since this was accepted: its lines come to another sum. Bill it by step or percent."
            );
        var byLine = ContractByLine.Of(signed);
        foreach (var change in SentChange.Accepted(revisions.Changes(job)))
        {
            contract = contract.With(change.Order, OnDay(change));
            byLine = byLine.With(change.Order, contract);
        }
        return byLine;
    }

    private DateOnly OnDay(SentChange change) =>
        change.Life.Acceptance is { } yes ? yes.Day ?? day.Days()(yes.At) : day.Today;

    /// <summary>The estimate as it was signed. A further estimate goes as it was sent: nothing is chosen of it (L22).</summary>
    private Estimate Signed(ProposalLife life, Fact yes, Frozen frozen) =>
        estimates.Of(
            (frozen.Revision.Job, yes.Id),
            () =>
                frozen.Agreed(
                    frozen.Revision.Start.Lead is null
                    && signings.Standing(life, yes.Revision) is { Statement.Selection: > 0 }
                        ? signings.Selected(yes.Revision)
                        : Selection.AsSent
                )
        )!;

    /// <summary>It with the changes that were accepted since: of each the lines that it touches, as its own frozen job has them.</summary>
    private Estimate Changed(Guid job, Estimate signed, ImmutableArray<SentChange> changes) =>
        changes.IsEmpty
            ? signed
            : Estimate.Of(
                changes.Aggregate(
                    signed.Job,
                    (agreed, change) =>
                        ChangedJob.Taken(
                            agreed,
                            JobFile.Read(signings.Frozen(job, change.Order.Revision)!.Revision.JobFile, out _),
                            change.Order.Lines.Select(l => l.Key).ToHashSet()
                        )
                ),
                Trace.Silent
            );

    /// <summary>The work order as it was accepted.</summary>
    private KeptOrder First(Guid job, ProposalLife life, Fact yes, Frozen frozen) =>
        held.Of(
            (job, yes.Id),
            () =>
                WithGoods(
                    store.Find(job, yes.Id) ?? Made(job, yes.Id, () => Signed(life, yes, frozen)),
                    life,
                    yes,
                    frozen
                )
        )!;

    /// <summary>The work order as it stands: that of the acceptance, or after the change that was accepted or annulled last.</summary>
    private KeptOrder Kept(Guid job, ProposalLife life, Fact yes, Frozen frozen, ImmutableArray<SentChange> all)
    {
        var first = First(job, life, yes, frozen);
        var rests = SentChange.RestsOn(yes, all);
        if (rests == yes.Id)
            return first;
        var changes = SentChange.Accepted(all);
        return held.Of(
            (job, rests),
            () =>
                store.Find(job, rests) ?? Made(job, rests, () => Changed(job, Signed(life, yes, frozen), changes), With)
        )!;

        // What was agreed in money is what was signed, and what each change was signed at; what it costs is reckoned anew.
        AgreedMoney With(AgreedMoney money) =>
            money with
            {
                Price = first.Money.Price + changes.Sum(c => c.Order.Net),
                Contract = changes.Aggregate(first.Money.Contract, (contract, c) => contract.With(c.Order, OnDay(c))),
            };
    }

    /// <summary>What was kept before there was buying gets its goods by today's rules, and a round that was kept before there were visits gets those.</summary>
    private KeptOrder WithGoods(KeptOrder kept, ProposalLife life, Fact yes, Frozen frozen)
    {
        if (kept.Money.Goods.IsDefault)
            kept = kept with { Money = kept.Money with { Goods = AgreedGoods.Of(Signed(life, yes, frozen)) } };
        if (kept.Money.Contract is not { IsRound: true, Round: null })
            return kept;
        var signed = Signed(life, yes, frozen);
        return new(
            OrderMaking.Of(signed),
            kept.Money with
            {
                Contract = kept.Money.Contract with { Round = AgreedContract.Of(signed).Round },
            }
        );
    }

    private KeptOrder Made(Guid job, Guid fact, Func<Estimate> agreed, Func<AgreedMoney, AgreedMoney>? with = null)
    {
        var estimate = agreed();
        var money = AgreedMoney.Of(estimate);
        store.Keep(
            job,
            fact,
            new(OrderMaking.Of(estimate), with is null ? money : with(money)),
            JobFile.Write(estimate.Job),
            Rules.Version,
            time.GetUtcNow().UtcDateTime
        );
        // Of two that make it at once the first is kept.
        return store.Find(job, fact)!;
    }
}
