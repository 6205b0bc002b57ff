using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Deliver;

/// <summary>Bills what was accepted.</summary>
public sealed class Invoicing(
    WorkOrders orders,
    Rounds rounds,
    InvoiceStore store,
    SiteStore sites,
    SettingStore settings,
    JobStore jobs,
    NumberStore numbers,
    CustomerStore customers,
    OpenJobs open,
    IssuedPdfs pdfs,
    FirmDay day,
    Live live,
    TimeProvider time
)
{
    private DateTime Now => time.GetUtcNow().UtcDateTime;

    private InvoiceTerms Terms => settings.Get(InvoiceTerms.Setting, InvoiceTerms.Starting);

    private AcceptedWork Accepted(Guid job) =>
        rounds.Of(job) ?? throw RefusedException.Of("job", "Nothing was accepted yet: there is nothing to bill.");

    private BilledJob Billed(Guid job, AcceptedWork work) => store.Billed(job, work.Yes.Id, work.Money.Contract, Terms);

    /// <summary>The view of a job; null while nothing is accepted.</summary>
    internal InvoicesView? View(Guid job)
    {
        if (!jobs.Has(job))
            throw new NotThereException("That job is not here.");
        return rounds.Of(job) is { } work ? Of(job, work, Billed(job, work)) : null;
    }

    private InvoicesView Of(Guid job, AcceptedWork work, BilledJob billed) =>
        InvoicesView.Of(billed, sites.Log(job, work.Order), day);

    private InvoicesView Told(Guid job, AcceptedWork work, BilledJob billed)
    {
        live.Happened(job);
        return Of(job, work, billed);
    }

    /// <summary>Whether a step of the payment plan was billed.</summary>
    internal bool IsBilled(Guid job, AcceptedWork work, int step) => Billed(job, work).IsBilled(step);

    /// <summary>What is to be done where a change leaves more billed than the contract sum bears, in all or in a tax category; empty where it does not (M21).</summary>
    /// <param name="job">The job.</param>
    /// <param name="work">What was accepted.</param>
    /// <param name="after">The contract with the change.</param>
    internal string Beyond(Guid job, AcceptedWork work, AgreedContract after)
    {
        var billing = (Billed(job, work) with { Agreed = after }).Billing;
        var beyond = billing.Open.Amounts.Where(a => a < 0).Sum();
        return beyond == 0
            ? ""
            : $"{Shown.Money(-beyond, after.Places)} more is billed than the contract sum bears then: credit an invoice by that at once.";
    }

    /// <summary>What an invoice would come to.</summary>
    internal InvoiceDraft Draft(Guid job, InvoiceWanted wanted)
    {
        var work = Accepted(job);
        var bills = wanted.Read();
        var billed = Billed(job, work) with { Done = Done(job, work, bills) };
        return InvoiceDraft.Of(billed, billed.Of(bills), InvoicesView.LabelOf(billed, bills));
    }

    /// <summary>Lines of the contract with how much of each is ticked, where that is billed; a line that is in the order no more has in the contract what was done of it.</summary>
    private ImmutableArray<LineDone> Done(Guid job, AcceptedWork work, Bills bills)
    {
        if (bills.By != BillsBy.Done)
            return [];
        var log = sites.Log(job, work.Order);
        return orders
            .ByLine(job)
            .DoneBy(line => work.Order.Line(line.Work, line.Place) is { } ordered ? log.PercentOf(ordered) : 100);
    }

    /// <summary>Issues an invoice: number, amounts and document in one transaction.</summary>
    internal InvoicesView Issue(Guid job, IssueInvoice issue)
    {
        var (work, terms, bills) = (Accepted(job), Terms, issue.Wanted.Read());
        if (issue.Reason.Length > 500)
            throw RefusedException.Of("reason", "At most 500 characters.");
        var done = Done(job, work, bills);
        var billed = store.Issue(
            job,
            work.Yes.Id,
            work.Money.Contract,
            terms,
            issue.Id,
            day.Today,
            (stands, number, issued) =>
            {
                var before = stands with { Done = done };
                var part = before.Of(bills);
                var draft = InvoiceDraft.Of(before, part, "");
                if (draft.Total != issue.Total)
                    throw RefusedException.Of(
                        "total",
                        $"You saw {issue.Total}; it comes to {draft.Total}. Look at it, and issue it again."
                    );
                if (before.Ahead(part) > 0 && string.IsNullOrWhiteSpace(issue.Reason))
                    throw RefusedException.Of(
                        "reason",
                        $"It is billed ahead of the contract sum by {draft.Ahead}: say why."
                    );
                return new(
                    issue.Id,
                    number,
                    issued,
                    Supplied(issue.Supplied, issued),
                    issued.AddDays(terms.DueDays),
                    bills,
                    part,
                    InvoicesView.LabelOf(before, bills)
                )
                {
                    Reason = issue.Reason.Trim(),
                    Parties = Parties(job),
                    EarlyPercent = before.Terms.EarlyPercent,
                    EarlyUntil = before.Terms.EarlyPercent > 0 ? issued.AddDays(before.Terms.EarlyDays) : null,
                };
            },
            (invoice, before) => Paper(work, invoice, before, terms),
            Now,
            JobEndpoints.Owner
        );
        return Told(job, work, billed);
    }

    /// <summary>From whom and to whom an e-invoice would be; null while the Office says nothing of e-invoices.</summary>
    private EParties? Parties(Guid job)
    {
        var terms = settings.Get(EInvoiceTerms.Setting, EInvoiceTerms.Starting);
        return terms.Seller.Name.Length > 0
            ? new(
                terms.Seller,
                customers.Find(open.Get(job).Estimate.Job.Info.Customer)?.Buyer ?? EParty.Nobody,
                terms.Account
            )
            : null;
    }

    private static DateOnly Supplied(string said, DateOnly issued)
    {
        if (said.Length == 0)
            return issued;
        if (!Day.Read(said, out var supplied))
            throw RefusedException.Of("supplied", "Write the day like 2027-01-31.");
        return supplied >= issued.AddDays(-1000) && supplied <= issued.AddDays(1000)
            ? supplied
            : throw RefusedException.Of("supplied", "That is years away from the invoice.");
    }

    private SentDocument Paper(AcceptedWork work, Invoice invoice, BilledJob before, InvoiceTerms terms) =>
        new(
            InvoicePaper.Of(invoice, before, work.Head, OrderView.ReferenceOf(work, day), work.Brand, terms.Words),
            work.Brand
        );

    /// <summary>Credits an invoice, whole or in part, under the next number of the same series.</summary>
    internal InvoicesView Credit(Guid job, Guid invoice, CreditInvoice credit)
    {
        var (work, terms) = (Accepted(job), Terms);
        if (credit.Reason.Trim().Length is 0 or > 500)
            throw RefusedException.Of("reason", "Say why it is credited, in at most 500 characters.");
        var billed = store.Issue(
            job,
            work.Yes.Id,
            work.Money.Contract,
            terms,
            credit.Id,
            day.Today,
            (before, number, issued) =>
            {
                var of =
                    before.Invoices.FirstOrDefault(i => i.Id == invoice)
                    ?? throw new NotThereException("That invoice is not of this job.");
                var inPart = !credit.Amounts.IsDefaultOrEmpty;
                var part = inPart
                    ? before.CreditPart(of, credit.Read(before.Agreed.Categories.Length))
                    : before.Credit(of);
                return new(credit.Id, number, issued, of.Supplied, issued, of.Bills, part, of.Label)
                {
                    Credits = of.Id,
                    InPart = inPart,
                    Parties = of.Parties,
                    Reason = credit.Reason.Trim(),
                };
            },
            (note, before) => Paper(work, note, before, terms),
            Now,
            JobEndpoints.Owner
        );
        return Told(job, work, billed);
    }

    /// <summary>Writes money that came.</summary>
    /// <param name="job">The job.</param>
    /// <param name="invoice">Its invoice.</param>
    /// <param name="write">What came.</param>
    internal InvoicesView Pay(Guid job, Guid invoice, WritePayment write)
    {
        var work = Accepted(job);
        if (!Day.Read(write.Day, out var on))
            throw RefusedException.Of("day", "Write the day like 2027-01-31.");
        var amount =
            Rounding.ReadInput(write.Amount.Replace(",", "", StringComparison.Ordinal).Trim())
            ?? throw RefusedException.Of("amount", "Write the amount as a number, like 1250.00.");
        var payment = new PaymentFact(write.Id, invoice, on, amount, write.How.Trim(), Now, JobEndpoints.Owner)
        {
            Discount = Typed.Number(write.Discount, "discount") ?? 0,
        };
        var billed = store.Pay(
            job,
            work.Yes.Id,
            work.Money.Contract,
            Terms,
            write.Id,
            stands =>
            {
                stands.Check(payment, day.Today);
                return payment;
            }
        );
        return Told(job, work, billed);
    }

    /// <summary>Writes money that came by bank: no more than is open of the invoice, for what is too much is the customer's credit (M26). The same id again changes nothing.</summary>
    /// <param name="job">The job.</param>
    /// <param name="invoice">Its invoice.</param>
    /// <param name="payment">What came, for an amount of its own.</param>
    /// <param name="amount">How much of it; null for as much as the invoice takes.</param>
    /// <param name="left">How much of the money is on no invoice.</param>
    internal void Pay(Guid job, Guid invoice, PaymentFact payment, decimal? amount, decimal left)
    {
        var work = Accepted(job);
        var billed = store.Pay(
            job,
            work.Yes.Id,
            work.Money.Contract,
            Terms,
            payment.Id,
            stands =>
            {
                var open = stands.Invoices.FirstOrDefault(i => i.Id == invoice) is { } of ? stands.OpenOf(of) : 0;
                if (open <= 0)
                    throw RefusedException.Of("invoice", "Nothing of that invoice is open.");
                if (amount > open)
                    throw RefusedException.Of(
                        "amount",
                        $"{Shown.Money(open, stands.Agreed.Places)} of that invoice is open."
                    );
                var fact = payment with { Amount = amount ?? Math.Min(open, left) };
                stands.Check(fact, day.Today);
                return fact;
            }
        );
        Told(job, work, billed);
    }

    /// <summary>Takes a payment back that was written wrong.</summary>
    internal InvoicesView TakeBack(Guid job, Guid payment, TakePaymentBack take)
    {
        var work = Accepted(job);
        var billed = store.Pay(
            job,
            work.Yes.Id,
            work.Money.Contract,
            Terms,
            take.Id,
            stands => stands.TakeBack(take.Id, payment, Now, JobEndpoints.Owner)
        );
        return Told(job, work, billed);
    }

    /// <summary>The PDF of an invoice, a release or a reminder as it was issued.</summary>
    internal async Task<IResult> Pdf(Guid job, InvoicePaperKind kind, Guid paper, bool inline)
    {
        var document = store.Document(job, kind, paper) ?? throw new NotThereException("That is not of this job.");
        return pdfs.Sent(await File(job, kind, paper, document), document.Document.Head.Title, inline);
    }

    /// <summary>An invoice or a credit note as an e-invoice (EN 16931, UBL 2.1), made of what was issued.</summary>
    internal IResult EInvoice(Guid job, Guid invoice)
    {
        var billed = Billed(job, Accepted(job));
        var of =
            billed.Invoices.FirstOrDefault(i => i.Id == invoice)
            ?? throw new NotThereException("That invoice is not of this job.");
        return Results.File(
            EInvoiceFile.Write(Core.Delivery.EInvoice.Of(of, billed)),
            EInvoiceFile.Type,
            $"{(of.Credits is null ? "Invoice" : "Credit note")} {of.Number}.xml"
        );
    }

    private Task<StoredFile> File(Guid job, InvoicePaperKind kind, Guid paper, SentDocument document)
    {
        var billed = Billed(job, Accepted(job));
        var issued = kind switch
        {
            InvoicePaperKind.Release => billed.Releases.FirstOrDefault(r => r.Id == paper)?.Day,
            InvoicePaperKind.Reminder => billed.Reminders.FirstOrDefault(r => r.Id == paper)?.Day,
            _ => billed.Invoices.FirstOrDefault(i => i.Id == paper)?.Issued,
        };
        return pdfs.Of(document, issued ?? day.Today, store.Pdf(kind, paper), hash => store.KeepPdf(kind, paper, hash));
    }

    /// <summary>Says what is agreed about paying for a job from now on.</summary>
    internal InvoicesView Agree(Guid job, AgreeTerms agree)
    {
        var work = Accepted(job);
        store.Agree(job, new(agree.Id, agree.Terms.Read(), Now, JobEndpoints.Owner));
        return Told(job, work, Billed(job, work));
    }

    /// <summary>Asks for the next part of what was retained.</summary>
    internal InvoicesView Release(Guid job, AskRelease ask)
    {
        var (work, terms) = (Accepted(job), Terms);
        var billed = store.Ask(
            job,
            work.Yes.Id,
            work.Money.Contract,
            terms,
            ask.Id,
            before =>
            {
                var amount = before.NextRelease();
                var read = Shown.Money(amount, before.Agreed.Places);
                if (read != ask.Amount)
                    throw RefusedException.Of("amount", $"You saw {ask.Amount}; it is {read}. Look at it again.");
                return new ReleaseFact(
                    ask.Id,
                    before.Releases.Length + 1,
                    amount,
                    day.Today,
                    day.Today.AddDays(terms.DueDays),
                    Now,
                    JobEndpoints.Owner
                );
            },
            (release, before) =>
                new(
                    LatePaper.Of(release, before, work.Head, OrderView.ReferenceOf(work, day), work.Brand, terms.Words),
                    work.Brand
                )
        );
        return Told(job, work, billed);
    }

    /// <summary>Reminds of an invoice that is late.</summary>
    internal InvoicesView Remind(Guid job, Guid invoice, RemindOfInvoice remind)
    {
        var (work, terms) = (Accepted(job), Terms);
        Invoice Found(BilledJob billed) =>
            billed.Invoices.FirstOrDefault(i => i.Id == invoice)
            ?? throw new NotThereException("That invoice is not of this job.");
        var billed = store.Ask(
            job,
            work.Yes.Id,
            work.Money.Contract,
            terms,
            remind.Id,
            before => before.Remind(remind.Id, Found(before), day.Today, Now, JobEndpoints.Owner),
            (reminder, before) =>
                new(
                    LatePaper.Of(
                        reminder,
                        Found(before),
                        before,
                        work.Head,
                        OrderView.ReferenceOf(work, day),
                        work.Brand,
                        terms.Words
                    ),
                    work.Brand
                )
        );
        return Told(job, work, billed);
    }

    /// <summary>The mail that would bring an invoice to the customer, or remind of it.</summary>
    internal PaperMessage Message(Guid job, Guid invoice, bool reminds)
    {
        var work = Accepted(job);
        var of =
            Billed(job, work).Invoices.FirstOrDefault(i => i.Id == invoice) ?? throw new NotThereException(
                "That invoice is not of this job."
            );
        var kind = of.Credits is null ? "Invoice" : "Credit note";
        var says = reminds
            ? $"our invoice {of.Number} of {work.Brand.Writes.Day(of.Issued)} has not been paid yet. The reminder is attached; if your payment is on its way, take it as read."
            : $"our {kind.ToLowerInvariant()} {of.Number} is attached.{(of.Credits is null ? $" Please pay by {work.Brand.Writes.Day(of.Due)}." : "")}";
        return new(
            settings.Get(MessageTexts.Setting, MessageTexts.Starting).From,
            customers.Find(open.Get(job).Estimate.Job.Info.Customer)?.Email ?? "",
            $"{(reminds ? "Reminder: invoice" : kind)} {of.Number}, {work.Head.Title}",
            $"Good day,\n\n{says}\n\n{work.Head.Firm}",
            settings.Get(MailServer.Setting, MailServer.Starting).On
        );
    }

    /// <summary>Sends an invoice, or a reminder of it, to the customer: it stands in the outbox.</summary>
    internal async Task<InvoicesView> Mail(Guid job, Guid invoice, MailInvoice mail)
    {
        var work = Accepted(job);
        mail.Message.Check();
        if (mail.Message.Way != MessageWay.Mail)
            throw RefusedException.Of("way", "An invoice goes by mail.");
        var sender = RevisionMails.Sender(mail.Message, settings);
        var billed = Billed(job, work);
        if (
            !billed.Invoices.Any(i => i.Id == invoice)
            || (mail.Reminder is { } of && !billed.Reminders.Any(r => r.Id == of && r.Invoice == invoice))
        )
            throw new NotThereException("That invoice is not of this job.");
        var (kind, paper) = mail.Reminder is { } reminder
            ? (InvoicePaperKind.Reminder, reminder)
            : (InvoicePaperKind.Invoice, invoice);
        var document = store.Document(job, kind, paper)!;
        var (file, now) = (await File(job, kind, paper, document), Now);
        store.Goes(
            [
                .. mail.Message.To.Select(to => new Mail(
                    DerivedId.Of($"{mail.Id}/{to.Address}"),
                    null,
                    job,
                    null,
                    now,
                    work.Head.Firm,
                    sender,
                    to,
                    mail.Message.Subject,
                    mail.Message.Words,
                    $"{document.Document.Head.Title.Replace(":", ",", StringComparison.Ordinal)}.pdf",
                    file.Hash
                )
                {
                    Invoice = invoice,
                }),
            ]
        );
        return Told(job, work, billed);
    }

    /// <summary>How the series of numbers of invoices stands, or that of purchase orders.</summary>
    internal NumbersView Numbers(bool orders) => NumbersView.Of(numbers, Series(orders), Scheme(orders), day);

    /// <summary>Moves it on.</summary>
    internal NumbersView Move(MoveNumbers move)
    {
        numbers.Move(
            Series(move.Orders),
            Scheme(move.Orders),
            day.Today,
            move.Id,
            move.Next,
            move.Reason,
            Now,
            JobEndpoints.Owner
        );
        return Numbers(move.Orders);
    }

    private static string Series(bool orders) => orders ? NumberStore.Orders : NumberStore.Invoices;

    private string Scheme(bool orders) =>
        orders ? settings.Get(OrderTerms.Setting, OrderTerms.Starting).Numbers : Terms.Numbers;
}
