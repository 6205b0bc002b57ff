using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Emendum.Web.Outside;

namespace Emendum.Web.Deliver;

/// <summary>Changes contracts: what of the job differs from what was agreed becomes a change order, which is sent and signed like a proposal (estimating model §13; delivery.md, M13 to M18, L23).</summary>
public sealed class ChangeOrders(
    WorkOrders works,
    RevisionStore revisions,
    Invoicing invoices,
    Buying buying,
    SiteStore sites,
    OpenJobs open,
    JobStore jobs,
    CustomerStore customers,
    SettingStore settings,
    FileStore files,
    Pictures pictures,
    Told told,
    FirmDay day,
    OutsideAddress outside,
    Live live,
    TimeProvider time
)
{
    /// <summary>The view of a job; null while nothing is accepted.</summary>
    internal ChangesView? View(Guid job)
    {
        if (!jobs.Has(job))
            throw new NotThereException("That job is not here.");
        if (works.Of(job) is not { } work)
            return null;
        var (sent, contract) = (revisions.Changes(job), work.Money.Contract);
        var (differs, stops) = Differing(job, sent);
        string Money(decimal amount) => Shown.Money(amount, contract.Places);
        var signed = contract.Categories.Sum(c => c.Amount);
        return new(
            differs,
            stops,
            sent.Length + 1,
            told.Changes(job, sent),
            [
                new("As signed", "before tax", Money(signed)),
                .. contract.Changes.Select(c => new MoneyRow(
                    $"Change order {c.Number}",
                    $"{c.Title}, accepted {Core.Proposals.PaperLanguage.English.Day(c.Accepted)}",
                    Shown.Moved(c.Amounts.Sum, contract.Places)
                )),
                new("Contract sum", "before tax", Money(contract.Contract.Sum.Sum)),
            ],
            contract.Currency,
            [
                .. contract
                    .Steps.Select((s, i) => new ChangeStepView(i, s.When))
                    .Where(s => !invoices.IsBilled(job, work, s.Number)),
            ],
            Day.Written(day.Today.AddDays(open.Get(job).Estimate.Job.Proposal.ValidDays)),
            outside.IsThere
        );
    }

    private (IReadOnlyList<ChangePieceView> Differs, string Stops) Differing(Guid job, ImmutableArray<SentChange> sent)
    {
        try
        {
            var changed = works.Changed(open.Get(job).Estimate.Job);
            return ([.. changed.Pieces.Select(p => Piece(p, changed, sent))], "");
        }
        catch (RefusedException refused)
        {
            return ([], refused.Refusal.Message);
        }
    }

    private ChangePieceView Piece(ChangePiece piece, ChangedJob changed, ImmutableArray<SentChange> sent)
    {
        var (first, lines) = (piece.Lines[0], piece.Lines);
        var (was, now) = (changed.Before(first), changed.After(first));
        var places = lines
            .Select(l => PlacesInWords.Named((changed.After(l) ?? changed.Before(l))!.Measures.Place))
            .Distinct()
            .ToArray();
        var work = lines
            .Select(l =>
                (changed.After(l) is { } after ? changed.All : changed.Agreed).Job.Titled(
                    (changed.After(l) ?? changed.Before(l))!.OfItem.Item
                )
            )
            .Distinct()
            .ToArray();
        var waits = sent.FirstOrDefault(c =>
            c.Life.StateOf(c.Order.Revision, day.Today)
                is RevisionState.Sent
                    or RevisionState.Seen
                    or RevisionState.OnHold
            && c.Order.Lines.Any(l => lines.Contains(l.Key))
        );
        return new(
            piece.Id,
            was is null ? ChangeKind.Added
                : now is null ? ChangeKind.Dropped
                : ChangeKind.Repriced,
            Counted.Few(work, 3),
            Counted.Few(places, 4),
            lines.Length == 1
                ? ChangeMaking.Says(was, now, 0, changed.Agreed.Job.Units)
                : $"{lines.Length} lines together",
            lines.Length,
            waits is null ? "" : $"{waits.Order.Number}"
        );
    }

    /// <summary>What it is made against, as it stands.</summary>
    private (AcceptedWork Work, ChangeGround Ground, Job Now, long Version, int Number) Ground(Guid job)
    {
        var work =
            works.Of(job)
            ?? throw RefusedException.Of("job", "Nothing was accepted yet: there is no contract to change.");
        var (version, estimate, _, _) = open.Get(job).Now;
        var (log, sent) = (sites.Log(job, work.Order), revisions.Changes(job));
        return (
            work,
            new(
                works.Changed(estimate.Job),
                work.Money.Contract,
                works.ByLine(job),
                line => work.Order.Line(line.Work, line.Place) is { } ordered ? log.PercentOf(ordered) : 0,
                SentChange.RestsOn(work.Yes, sent)
            ),
            estimate.Job,
            version,
            sent.Length + 1
        );
    }

    /// <summary>What a change order would come to.</summary>
    internal ChangeDraft Draft(Guid job, ChangeWanted wanted)
    {
        var (work, ground, now, _, number) = Ground(job);
        var (change, goods) = Made(job, Guid.Empty, number, wanted, work, ground, now);
        var after = work.Money.Contract.With(change, day.Today);
        return ChangeDraft.Of(
            change,
            work.Money.Contract,
            goods,
            invoices.Beyond(job, work, after),
            Message(work, number, wanted.Title.Trim())
        );
    }

    private (ChangeOrder Change, IReadOnlyList<LeftGoodsView> Goods) Made(
        Guid job,
        Guid id,
        int number,
        ChangeWanted wanted,
        AcceptedWork work,
        ChangeGround ground,
        Job now
    )
    {
        var title = wanted.Title.Trim();
        if (title.Length > ChangeOrder.MostTitle || title.Any(char.IsControl))
            throw RefusedException.Of("title", $"One line of at most {ChangeOrder.MostTitle} characters.");
        if (wanted.Pieces.IsDefault || wanted.Goods.IsDefault || wanted.Goods.Length > 10_000)
            throw RefusedException.Of("lines", "Choose what the change order is to hold.");
        var pieces = wanted.Pieces.ToHashSet(StringComparer.Ordinal);
        var chosen = ground.Job.Pieces.Where(p => pieces.Contains(p.Id)).ToList();
        if (chosen.Count != pieces.Count)
            throw RefusedException.Of(
                "lines",
                "Something of it has changed meanwhile: look at what differs once more."
            );
        if (wanted.WithStep is { } step && (step < 0 || step >= work.Money.Contract.Steps.Length))
            throw RefusedException.Of("withStep", "That step is not in the payment plan.");
        var lines = chosen.SelectMany(p => p.Lines).ToImmutableHashSet();
        var left = LeftGoods.Of(
            AgreedGoods.Of(Estimate.Of(ground.Job.With(lines), Core.Figures.Trace.Silent)),
            buying.Goods(job, work)
        );
        var keeps = wanted.Goods.ToHashSet(StringComparer.Ordinal);
        var change = ChangeMaking.Of(
            ground,
            new(id, number, title, lines)
            {
                Goods = [.. left.Where(g => keeps.Contains(g.Key)).Select(g => g.Kept)],
                BelowLeast = wanted.BelowLeast,
                TodaysBook = wanted.TodaysBook,
                WithStep = wanted.WithStep,
            },
            now
        );
        return (
            change,
            [
                .. left.Select(g => new LeftGoodsView(
                    g.Key,
                    g.Kept.Name,
                    g.Kept.Amount,
                    Shown.Money(g.Kept.Cost, work.Money.Contract.Places),
                    keeps.Contains(g.Key)
                )),
            ]
        );
    }

    /// <summary>Sends a change order: it is frozen with its paper, and the fact of its sending, in one transaction.</summary>
    internal async Task<ChangesView> Send(Guid job, SendChange send)
    {
        if (revisions.Changes(job).Any(c => c.Life.Facts.Any(f => f.Id == send.Fact)))
            return View(job)!;
        var (work, ground, now, version, number) = Ground(job);
        if (send.Wanted.Title.Trim().Length == 0)
            throw RefusedException.Of("title", "Say in a few words what it is about.");
        if (send.Words.Length > ChangeOrder.MostWords)
            throw RefusedException.Of("words", $"At most {ChangeOrder.MostWords:N0} characters.");
        if (send.How.Length > 200)
            throw RefusedException.Of("how", "At most 200 characters.");
        var (change, _) = Made(job, send.Id, number, send.Wanted, work, ground, now);
        var contract = work.Money.Contract;
        var total = Shown.Moved(change.Total, contract.Places);
        if (total != send.Total)
            throw RefusedException.Of(
                "total",
                $"You saw {send.Total}; it comes to {total}. Look at it, and send again."
            );
        var until = Until(send.Until.Trim());
        var moment = time.GetUtcNow().UtcDateTime;
        var document = ChangePaper.Of(
            change,
            contract,
            work.Head,
            OrderView.ReferenceOf(work, day),
            work.Brand,
            send.Words,
            day.Today,
            until
        );
        if (send.Message is { } asked)
        {
            asked.Check();
            RevisionMails.CheckLink(asked, outside);
            RevisionMails.CheckNames(asked);
        }
        var sender = send.Message is { } from ? RevisionMails.Sender(from, settings) : "";
        var agreed = ground.Job.With(change.Lines.Select(l => l.Key).ToHashSet());
        using var content = new MemoryStream(await ProposalEndpoints.Set(document, agreed.Info, work.Brand, pictures));
        var pdf = await files.Take(content, FileEndpoints.Kind, moment, CancellationToken.None);
        files.Name(pdf.Hash);
        var revision = new Revision(
            new(send.Id, -number, until),
            job,
            version,
            Rules.Version,
            JobFile.Write(agreed),
            JsonSerializer.SerializeToUtf8Bytes(Reported.Of(agreed), CoreJson.Options),
            new(document, work.Brand),
            ChangePaper.Figures(change, contract.Places),
            pdf.Hash
        );
        revisions.SendChange(
            revision,
            change,
            RevisionEndpoints.SentBy(
                send.Fact,
                revision,
                moment,
                JobEndpoints.Owner,
                send.Message?.Went() ?? send.How.Trim(),
                ""
            ),
            send.Message is { } message
                ? RevisionMails.Bringing(message, send.Fact, revision, sender, moment, outside)
                : Brought.Nothing
        );
        live.Happened(job);
        return View(job)!;
    }

    private DateOnly? Until(string typed)
    {
        if (typed.Length == 0)
            return null;
        if (!Day.Read(typed, out var until))
            throw RefusedException.Of("until", "Write the day like 2027-01-31.");
        return until >= day.Today && until.Year < 2200
            ? until
            : throw RefusedException.Of("until", "That day is past, or too far away.");
    }

    /// <summary>The mail that would bring it.</summary>
    private PaperMessage Message(AcceptedWork work, int number, string title) =>
        new(
            settings.Get(MessageTexts.Setting, MessageTexts.Starting).From,
            customers.Find(open.Get(work.Job).Estimate.Job.Info.Customer)?.Email ?? "",
            RevisionMails.ChangeSubject(number, title, work.Head.Title),
            RevisionMails.ChangeWords(work.Head.Firm, outside.IsThere),
            settings.Get(MailServer.Setting, MailServer.Starting).On
        );
}
