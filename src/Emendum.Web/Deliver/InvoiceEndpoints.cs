using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web.Deliver;

/// <summary>What an invoice is to bill.</summary>
/// <param name="By">By what.</param>
/// <param name="Step">Number of the step or of the month, from 0, or of the change order, from 1; null for none of them.</param>
/// <param name="Value">Percent, or the amount before tax, as typed; empty for none.</param>
public sealed record InvoiceWanted(BillsBy By, int? Step, string Value)
{
    /// <summary>It, read.</summary>
    /// <exception cref="RefusedException">The value cannot be read.</exception>
    internal Bills Read() =>
        By is BillsBy.Step or BillsBy.Rest or BillsBy.Change or BillsBy.Done or BillsBy.Month
            ? new(By, By is BillsBy.Step or BillsBy.Change or BillsBy.Month ? Step : null, null)
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
                "/{invoice:guid}/e-invoice.xml",
                (Guid id, Guid invoice, Invoicing invoicing) => invoicing.EInvoice(id, invoice)
            )
            .Produces<byte[]>(200, EInvoiceFile.Type);
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
