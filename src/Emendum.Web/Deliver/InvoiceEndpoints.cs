using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Deliver;

/// <summary>What an invoice is to bill.</summary>
/// <param name="By">By what.</param>
/// <param name="Step">Number of the step, from 0; null for none.</param>
/// <param name="Value">Percent, or the amount before tax, as typed; empty for none.</param>
public sealed record InvoiceWanted(BillsBy By, int? Step, string Value)
{
    /// <summary>It, read.</summary>
    /// <exception cref="RefusedException">The value cannot be read.</exception>
    internal Bills Read() =>
        By is BillsBy.Step or BillsBy.Rest
            ? new(By, By == BillsBy.Step ? Step : null, null)
            : new(
                By,
                null,
                Rounding.ReadInput(Value.Trim())
                    ?? throw RefusedException.Of("value", "Write it as a number, like 3000 or 40.")
            );
}

/// <summary>Issues an invoice.</summary>
/// <param name="Id">Its id; the same again is done once.</param>
/// <param name="Wanted">What it bills.</param>
/// <param name="Total">What it was seen to come to, with tax, as it was read.</param>
/// <param name="Supplied">Day of supply, like 2027-01-31; empty for the day of issue.</param>
/// <param name="Reason">Why it is billed ahead of the contract sum; empty where it is not (M21).</param>
public sealed record IssueInvoice(Guid Id, InvoiceWanted Wanted, string Total, string Supplied, string Reason);

/// <summary>Credits an invoice, whole or in part.</summary>
/// <param name="Id">Id of the credit note.</param>
/// <param name="Reason">Why.</param>
public sealed record CreditInvoice(Guid Id, string Reason)
{
    /// <summary>Of a part: amounts before tax as typed, one for each tax category of the contract, empty for nothing; none for the whole.</summary>
    public ImmutableArray<string> Amounts { get; init; } = [];

    /// <summary>They, read.</summary>
    /// <exception cref="RefusedException">One of them cannot be.</exception>
    internal ByCategory Read(int categories)
    {
        if (Amounts.Length > categories)
            throw RefusedException.Of("amount", "The contract has fewer tax categories.");
        return new(
            [
                .. Amounts.Select(a =>
                    a.Trim().Length == 0
                        ? 0
                        : Rounding.ReadInput(a.Replace(",", "", StringComparison.Ordinal).Trim())
                            ?? throw RefusedException.Of("amount", "Write amounts as numbers, like 1250.00.")
                ),
            ]
        );
    }
}

/// <summary>Writes money that came for an invoice.</summary>
/// <param name="Id">Id of the payment.</param>
/// <param name="Day">When it came, like 2027-01-31.</param>
/// <param name="Amount">How much, as typed; below nothing for what was given back.</param>
/// <param name="How">How it came.</param>
public sealed record WritePayment(Guid Id, string Day, string Amount, string How)
{
    /// <summary>Early-payment discount that is taken with it, as typed; empty for none.</summary>
    public string Discount { get; init; } = "";
}

/// <summary>Asks for the next part of what was retained.</summary>
/// <param name="Id">Its id; the same again is done once.</param>
/// <param name="Amount">What it was seen to be, as it was read.</param>
public sealed record AskRelease(Guid Id, string Amount);

/// <summary>Reminds of an invoice.</summary>
/// <param name="Id">Its id; the same again is done once.</param>
public sealed record RemindOfInvoice(Guid Id);

/// <summary>Sends an invoice, or a reminder of it.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Reminder">The reminder; null for the invoice itself.</param>
/// <param name="Message">The mail.</param>
public sealed record MailInvoice(Guid Id, Guid? Reminder, Message Message);

/// <summary>Takes back a payment that was written wrong.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
public sealed record TakePaymentBack(Guid Id);

/// <summary>Moves the series of numbers on.</summary>
/// <param name="Id">Made by the sender: the same again is done once.</param>
/// <param name="Next">The number that is next from then on.</param>
/// <param name="Reason">Why.</param>
public sealed record MoveNumbers(Guid Id, int Next, string Reason)
{
    /// <summary>Whether it is the series of purchase orders; otherwise that of invoices.</summary>
    public bool Orders { get; init; }
}

/// <summary>Invoices, payments, numbers.</summary>
public static class InvoiceEndpoints
{
    /// <summary>Maps those of a job.</summary>
    public static void MapInvoices(this IEndpointRouteBuilder deliver)
    {
        var invoices = deliver.MapGroup("/invoices");
        invoices.MapGet("/", (Guid id, Invoicing invoicing) => invoicing.View(id));
        invoices.MapPost("/draft", (Guid id, InvoiceWanted wanted, Invoicing invoicing) => invoicing.Draft(id, wanted));
        invoices.MapPost("/", (Guid id, IssueInvoice issue, Invoicing invoicing) => invoicing.Issue(id, issue));
        invoices
            .MapGet(
                "/{invoice:guid}/pdf",
                (Guid id, Guid invoice, bool? inline, Invoicing invoicing) =>
                    invoicing.Pdf(id, InvoicePaperKind.Invoice, invoice, inline is true)
            )
            .Produces<byte[]>(200, "application/pdf");
        invoices
            .MapGet(
                "/releases/{release:guid}/pdf",
                (Guid id, Guid release, bool? inline, Invoicing invoicing) =>
                    invoicing.Pdf(id, InvoicePaperKind.Release, release, inline is true)
            )
            .Produces<byte[]>(200, "application/pdf");
        invoices
            .MapGet(
                "/reminders/{reminder:guid}/pdf",
                (Guid id, Guid reminder, bool? inline, Invoicing invoicing) =>
                    invoicing.Pdf(id, InvoicePaperKind.Reminder, reminder, inline is true)
            )
            .Produces<byte[]>(200, "application/pdf");
        invoices.MapPost("/terms", (Guid id, AgreeTerms agree, Invoicing invoicing) => invoicing.Agree(id, agree));
        invoices.MapPost("/releases", (Guid id, AskRelease ask, Invoicing invoicing) => invoicing.Release(id, ask));
        invoices.MapPost(
            "/{invoice:guid}/reminders",
            (Guid id, Guid invoice, RemindOfInvoice remind, Invoicing invoicing) =>
                invoicing.Remind(id, invoice, remind)
        );
        invoices.MapGet(
            "/{invoice:guid}/message",
            (Guid id, Guid invoice, bool? reminds, Invoicing invoicing) =>
                invoicing.Message(id, invoice, reminds is true)
        );
        invoices.MapPost(
            "/{invoice:guid}/mails",
            (Guid id, Guid invoice, MailInvoice mail, Invoicing invoicing) => invoicing.Mail(id, invoice, mail)
        );
        invoices.MapPost(
            "/{invoice:guid}/credit",
            (Guid id, Guid invoice, CreditInvoice credit, Invoicing invoicing) => invoicing.Credit(id, invoice, credit)
        );
        invoices.MapPost(
            "/{invoice:guid}/payments",
            (Guid id, Guid invoice, WritePayment write, Invoicing invoicing) => invoicing.Pay(id, invoice, write)
        );
        invoices.MapPost(
            "/payments/{payment:guid}/take-back",
            (Guid id, Guid payment, TakePaymentBack take, Invoicing invoicing) => invoicing.TakeBack(id, payment, take)
        );
    }

    /// <summary>Maps the series of numbers, which is the firm's.</summary>
    public static void MapNumbers(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/company/numbers", (bool? orders, Invoicing invoicing) => invoicing.Numbers(orders is true));
        app.MapPost("/api/company/numbers/move", (MoveNumbers move, Invoicing invoicing) => invoicing.Move(move));
    }
}

/// <summary>Bills what was accepted.</summary>
public sealed class Invoicing(
    WorkOrders orders,
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
        orders.Of(job) ?? throw RefusedException.Of("job", "Nothing was accepted yet: there is nothing to bill.");

    private BilledJob Billed(Guid job, AcceptedWork work) => store.Billed(job, work.Yes.Id, work.Money.Contract, Terms);

    /// <summary>The view of a job; null while nothing is accepted.</summary>
    internal InvoicesView? View(Guid job)
    {
        if (!jobs.Has(job))
            throw new NotThereException("That job is not here.");
        return orders.Of(job) is { } work ? Of(job, work, Billed(job, work)) : null;
    }

    private InvoicesView Of(Guid job, AcceptedWork work, BilledJob billed) =>
        InvoicesView.Of(billed, sites.Log(job, work.Order), store.OwnTerms(job) is not null, day);

    private InvoicesView Told(Guid job, AcceptedWork work, BilledJob billed)
    {
        live.Happened(job);
        return Of(job, work, billed);
    }

    /// <summary>What an invoice would come to.</summary>
    internal InvoiceDraft Draft(Guid job, InvoiceWanted wanted)
    {
        var work = Accepted(job);
        var (billed, bills) = (Billed(job, work), wanted.Read());
        return InvoiceDraft.Of(billed, billed.Of(bills), InvoicesView.LabelOf(billed, bills));
    }

    /// <summary>Issues an invoice: number, amounts and document in one transaction.</summary>
    internal InvoicesView Issue(Guid job, IssueInvoice issue)
    {
        var (work, terms, bills) = (Accepted(job), Terms, issue.Wanted.Read());
        if (issue.Reason.Length > 500)
            throw RefusedException.Of("reason", "At most 500 characters.");
        var billed = store.Issue(
            job,
            work.Yes.Id,
            work.Money.Contract,
            terms,
            issue.Id,
            day.Today,
            (before, number, issued) =>
            {
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
