using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Emendum.Core.Delivery;

/// <summary>By what an invoice bills.</summary>
public enum BillsBy
{
    /// <summary>A step of the payment plan (M3, M6).</summary>
    Step,

    /// <summary>Work done to date, percent of the contract sum (M7).</summary>
    Percent,

    /// <summary>An amount before tax that is not tied to work: on account (M8).</summary>
    Amount,

    /// <summary>All that is open: the last one.</summary>
    Rest,

    /// <summary>A change order that was accepted, on its own (M6).</summary>
    Change,

    /// <summary>Work done to date, line by line as it is ticked (M4).</summary>
    Done,

    /// <summary>A month of the contract year of a round (M30).</summary>
    Month,
}

/// <summary>What an invoice bills.</summary>
/// <param name="By">By what.</param>
/// <param name="Step">Number of the step or of the month, from 0, or of the change order, from 1; null where it is by none of them.</param>
/// <param name="Value">Percent, or the amount; null where it has none.</param>
public sealed record Bills(BillsBy By, int? Step, decimal? Value);

/// <summary>An invoice or a credit note that was issued: a fact, which nothing changes.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Its number.</param>
/// <param name="Issued">Day of issue, in the firm's zone (N3).</param>
/// <param name="Supplied">Day of supply.</param>
/// <param name="Due">Day on which it is due.</param>
/// <param name="Bills">What it bills; of a credit note what was billed.</param>
/// <param name="Part">What it comes to; of a credit note less than nothing.</param>
/// <param name="Label">What it bills, in words.</param>
public sealed record Invoice(
    Guid Id,
    string Number,
    DateOnly Issued,
    DateOnly Supplied,
    DateOnly Due,
    Bills Bills,
    Part Part,
    string Label
)
{
    /// <summary>The invoice that it credits; null where it is an invoice.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public Guid? Credits { get; init; }

    /// <summary>Whether it credits a part of that, and not the whole (M20).</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool InPart { get; init; }

    /// <summary>Why, of a credit note.</summary>
    public string Reason { get; init; } = "";

    /// <summary>From whom and to whom, as an e-invoice says it; null where that was not known when it was issued.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public EParties? Parties { get; init; }

    /// <summary>Early-payment discount that it offers, in percent of what is payable now; 0 for none (M24).</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public decimal EarlyPercent { get; init; }

    /// <summary>The last day on which money has to have come for it; null for none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public DateOnly? EarlyUntil { get; init; }
}

/// <summary>What was billed of a job, and what was paid: read from facts alone.</summary>
/// <param name="Agreed">What was agreed.</param>
/// <param name="Use">How what is on account is used up.</param>
/// <param name="Invoices">Invoices and credit notes, in the order in which they were issued.</param>
/// <param name="Payments">Payments, in order.</param>
public sealed record BilledJob(
    AgreedContract Agreed,
    AccountUse Use,
    ImmutableArray<Invoice> Invoices,
    ImmutableArray<PaymentFact> Payments
)
{
    /// <summary>What is agreed about paying.</summary>
    public BillingTerms Terms { get; init; } = BillingTerms.None;

    /// <summary>Whether the job has terms of its own; otherwise they are the firm's.</summary>
    public bool HasOwnTerms { get; init; }

    /// <summary>Releases of what was retained, in order.</summary>
    public ImmutableArray<ReleaseFact> Releases { get; init; } = [];

    /// <summary>Reminders, in order.</summary>
    public ImmutableArray<ReminderFact> Reminders { get; init; } = [];

    /// <summary>Snags, and whether the customer has taken the work.</summary>
    public Completion Completion { get; init; } = Completion.Nothing;

    /// <summary>Lines and rows of the contract with how much of each is done, for whoever bills by that; empty where nobody asks.</summary>
    public ImmutableArray<LineDone> Done { get; init; } = [];

    /// <summary>Value of work to date by its lines: rounded once, in their own categories (M4).</summary>
    public ByCategory DoneValue => WorkDone.ToDate(Done, Agreed.Categories.Length, Agreed.Places);

    /// <summary>Most invoices and credit notes of a job.</summary>
    public const int Most = 1000;

    /// <summary>Most payments of a job.</summary>
    public const int MostPayments = 5000;

    /// <summary>Invoices that stand: neither credit notes nor what one of them undid.</summary>
    public IEnumerable<Invoice> Standing => Invoices.Where(i => i.Credits is null && !IsCredited(i));

    /// <summary>Whether a credit note has undone an invoice whole.</summary>
    public bool IsCredited(Invoice invoice) => Invoices.Any(c => c.Credits == invoice.Id && !c.InPart);

    /// <summary>Credit notes over parts of an invoice.</summary>
    public IEnumerable<Invoice> PartsCredited(Invoice invoice) =>
        Invoices.Where(c => c.Credits == invoice.Id && c.InPart);

    /// <summary>What was billed so far, without what was credited whole: its step is open again, account and retention are back. What was credited in part is billed less (M20).</summary>
    public Billing Billing =>
        new(
            Agreed.Contract,
            Use,
            Terms.Retention,
            [.. Invoices.Where(i => i.Credits is null ? !IsCredited(i) : i.InPart).Select(i => i.Part)]
        );

    /// <summary>Whether a step of the plan was billed.</summary>
    public bool IsBilled(int step) => Standing.Any(i => i.Bills is { By: BillsBy.Step, Step: { } s } && s == step);

    /// <summary>The invoice that has billed a month of a round, from 0; null while it is open.</summary>
    public Invoice? OfMonth(int month) =>
        Standing.FirstOrDefault(i => i.Bills is { By: BillsBy.Month, Step: { } m } && m == month);

    /// <summary>Change orders that no invoice has billed on its own or with its step, and that add something.</summary>
    public IEnumerable<AgreedChange> OpenChanges =>
        Agreed.Changes.Where(c =>
            c.Amounts.Sum > 0
            && !Standing.Any(i => i.Bills is { By: BillsBy.Change, Step: { } n } && n == c.Number)
            && !(
                c.WithStep is { } step
                && Standing.Any(i =>
                    i.Bills is { By: BillsBy.Step, Step: { } s } && s == step && i.Issued >= c.Accepted
                )
            )
        );

    /// <summary>What came for an invoice.</summary>
    public decimal PaidOf(Invoice invoice) => Payments.Where(p => p.Invoice == invoice.Id).Sum(p => p.Amount);

    /// <summary>What is to be paid of an invoice: less than nothing where it was paid and then credited, which is to be given back.</summary>
    public decimal OpenOf(Invoice invoice) =>
        invoice.Credits is not null ? 0
        : IsCredited(invoice) ? -PaidOf(invoice)
        : invoice.Part.Total
            - HeldOf(invoice)
            + PartsCredited(invoice).Sum(c => c.Part.Total)
            - PaidOf(invoice)
            - SavedOf(invoice);

    /// <summary>Early-payment discount that was taken of an invoice.</summary>
    public decimal SavedOf(Invoice invoice) => Payments.Where(p => p.Invoice == invoice.Id).Sum(p => p.Discount);

    /// <summary>All that was given back of what was retained.</summary>
    public decimal Released => Releases.Sum(r => r.Amount);

    /// <summary>All that is retained of what was billed, and not given back.</summary>
    public decimal Held => Math.Max(Billing.Retained - Released, 0);

    /// <summary>What is still retained of an invoice: releases give back what was retained first.</summary>
    public decimal HeldOf(Invoice invoice)
    {
        var left = Released;
        foreach (var of in Standing)
        {
            var given = Math.Min(of.Part.Retained, left);
            if (of.Id == invoice.Id)
                return of.Part.Retained - given;
            left -= given;
        }
        return 0;
    }

    /// <summary>When what is open of an invoice is due: what was released later, on the day of its release.</summary>
    public DateOnly DueOf(Invoice invoice)
    {
        var released = invoice.Part.Retained - HeldOf(invoice);
        return Releases.IsEmpty || released <= 0 || OpenOf(invoice) > released ? invoice.Due : Releases[^1].Due;
    }

    /// <summary>The next release: its cumulative share of all that was retained (M12). It waits for the completion note, and for snags.</summary>
    /// <exception cref="RefusedException">It cannot be asked for; says why.</exception>
    public decimal NextRelease()
    {
        if (Releases.Length >= Terms.Retention.Releases.Length)
            throw RefusedException.Of("release", "There is nothing more to release.");
        if (Completion.Note is null)
            throw RefusedException.Of("release", "The release waits for the completion note.");
        if (Completion.Open > 0)
            throw RefusedException.Of(
                "release",
                $"{Quantities.Counted.Of(Completion.Open, "snag")} open: the release waits until they are mended."
            );
        var amount = Terms.Retention.Release(Releases.Length + 1, Billing.Retained, Released, Agreed.Places);
        return amount > 0 ? amount : throw RefusedException.Of("release", "Nothing is retained.");
    }

    /// <summary>The discount that money settling an invoice on a day may take; nothing where it comes late, was taken before, or would not settle it (M24).</summary>
    /// <param name="invoice">The invoice.</param>
    /// <param name="day">The day on which money came.</param>
    /// <returns>All of it, what of it is before tax, and what is tax.</returns>
    public (decimal Discount, decimal Net, decimal Tax) EarlyOf(Invoice invoice, DateOnly day) =>
        invoice is { Credits: null, EarlyUntil: { } until, EarlyPercent: > 0 and var percent }
        && day <= until
        && SavedOf(invoice) == 0
        && !PartsCredited(invoice).Any()
            ? LateAndEarly.Discount(invoice.Part, percent, Agreed.Places)
            : default;

    /// <summary>A reminder of an invoice that is late.</summary>
    /// <exception cref="RefusedException">Nothing of it is late.</exception>
    public ReminderFact Remind(Guid id, Invoice invoice, DateOnly today, DateTime at, string by)
    {
        var open = OpenOf(invoice);
        if (open <= 0 || today <= DueOf(invoice))
            throw RefusedException.Of("invoice", "Nothing of it is late.");
        if (Reminders.Length >= Most)
            throw RefusedException.Of("invoice", $"A job has at most {Most:N0} reminders.");
        return new(
            id,
            invoice.Id,
            Reminders.Count(r => r.Invoice == invoice.Id) + 1,
            today,
            open,
            LateAndEarly.Interest(open, Terms.InterestPercent, DueOf(invoice), today, Agreed.Places),
            at,
            by
        );
    }

    /// <summary>What an invoice would come to.</summary>
    /// <param name="bills">What it bills.</param>
    /// <exception cref="RefusedException">It cannot be billed so; naming the field.</exception>
    public Part Of(Bills bills)
    {
        if (Agreed.IsRound != bills.By is BillsBy.Month && bills.By is not (BillsBy.Amount or BillsBy.Rest))
            throw RefusedException.Of(
                "by",
                Agreed.IsRound ? "A round is billed by the month." : "Only a round is billed by the month."
            );
        if (Invoices.Length >= Most)
            throw RefusedException.Of("by", $"A job has at most {Most:N0} invoices.");
        var billing = Billing;
        var part = bills.By switch
        {
            BillsBy.Step => OfStep(billing, bills.Step),
            BillsBy.Percent => OfPercent(billing, bills.Value),
            BillsBy.Amount => OfAmount(billing, bills.Value),
            BillsBy.Change => OfChange(billing, bills.Step),
            BillsBy.Done => OfDone(billing),
            BillsBy.Month => OfMonth(billing, bills.Step),
            _ when Agreed.IsRound => Closing(billing, "by"),
            _ => billing.ToDate(billing.Contract.Sum, last: true),
        };
        if (
            Terms.Retention.Percent > 0
            && Completion.Note is null
            && (billing.Worked + part.Work).Sum >= billing.Contract.Sum.Sum
            && part.Work.Sum > 0
        )
            throw RefusedException.Of(
                bills.By == BillsBy.Percent ? "value"
                    : bills.By is BillsBy.Step or BillsBy.Change or BillsBy.Month ? "step"
                    : "by",
                "The last invoice waits for the completion note: record it with the work order."
            );
        if (part is { Net.Sum: 0, Rounding: 0 })
            throw RefusedException.Of("value", "There is nothing to bill.");
        return part;
    }

    private Part OfStep(Billing billing, int? step)
    {
        if (step is not { } n || n < 0 || n >= Agreed.Steps.Length)
            throw RefusedException.Of("step", "Say which step of the payment plan.");
        if (IsBilled(n))
            throw RefusedException.Of("step", "That step was billed already.");
        // The one that is left closes on what is open, whatever was added or billed otherwise (M6).
        var isLast = Enumerable.Range(0, Agreed.Steps.Length).All(i => i == n || IsBilled(i));
        if (isLast)
            return billing.LastStep();
        var with = OpenChanges.Where(c => c.WithStep == n).ToList();
        return with.Count == 0
            ? billing.Step(Agreed.Steps[n].Net, onAccount: false)
            : billing.StepWith(Agreed.Steps[n].Net, with.Aggregate(new ByCategory([]), (sum, c) => sum + c.Amounts));
    }

    private Part OfChange(Billing billing, int? number)
    {
        var change =
            Agreed.Changes.FirstOrDefault(c => c.Number == number)
            ?? throw RefusedException.Of("step", "Say which change order.");
        if (!OpenChanges.Contains(change))
            throw RefusedException.Of(
                "step",
                change.Amounts.Sum > 0
                    ? $"Change order {change.Number} was billed already."
                    : $"Change order {change.Number} takes something off: it falls to the last invoice, and to work done to date."
            );
        return billing.StepWith(0, change.Amounts);
    }

    private Part OfMonth(Billing billing, int? month)
    {
        if (month is not { } n || n < 0 || n >= AgreedRound.MonthCount)
            throw RefusedException.Of("step", "Say which month of the contract year.");
        if (OfMonth(n) is { } by)
            throw RefusedException.Of("step", $"That month was billed already, by {by.Number}.");
        // The one that is left closes the year on what was done in it (M30).
        return Enumerable.Range(0, AgreedRound.MonthCount).All(m => m == n || OfMonth(m) is not null)
            ? Closing(billing, "step")
            : Charged(billing, billing.ToDate(YearNow.ToDate(n, billing)), "step");
    }

    /// <summary>What closes the contract year: all that is open once it is known of each visit what has become of it.</summary>
    private Part Closing(Billing billing, string field) =>
        YearNow.IsKnown
            ? Charged(billing, billing.ToDate(billing.Contract.Sum, last: true), field)
            : throw RefusedException.Of(
                field,
                YearNow.Visits.Open > 0
                    ? $"{Quantities.Counted.Of(YearNow.Visits.Open, "visit")} of the contract year {(YearNow.Visits.Open == 1 ? "is" : "are")} neither done nor left out: say of each what has become of it, then the year is closed."
                    : "The contract year is not over: more may come."
            );

    private RoundYear YearNow =>
        Agreed.Year ?? throw RefusedException.Of("by", "What was agreed for this round says nothing of its year.");

    private static Part OfPercent(Billing billing, decimal? percent)
    {
        if (percent is not ({ } value and > 0 and <= 100) || decimal.Round(value, 2) != value)
            throw RefusedException.Of(
                "value",
                "Done to date: more than 0 and at most 100 %, with at most two decimals."
            );
        return Charged(billing, billing.ToDate(billing.Percent(value), last: value == 100), "value");
    }

    private Part OfDone(Billing billing)
    {
        if (Done.All(l => l.Percent == 0))
            throw RefusedException.Of("by", "Nothing is ticked as done.");
        return Charged(billing, billing.ToDate(DoneValue, last: Done.All(l => l.Percent == 100)), "by");
    }

    /// <summary>Refuses work to date that is less than what was billed of it: that is a credit note.</summary>
    private static Part Charged(Billing billing, Part part, string field) =>
        part.Work.Sum >= 0
            ? part
            : throw RefusedException.Of(
                field,
                $"{Quantities.Shown.Money(billing.Worked.Sum, billing.Contract.Places)} of work was billed already, which is more than that: credit an invoice first."
            );

    private static Part OfAmount(Billing billing, decimal? amount)
    {
        if (
            amount is not ({ } value and > 0)
            || value > 100_000_000
            || decimal.Round(value, billing.Contract.Places) != value
        )
            throw RefusedException.Of("value", "An amount before tax, in the currency's places.");
        return billing.Account(value);
    }

    /// <summary>By how much more would be billed than the contract sum bears; nothing where it is not: it asks for a reason (M21).</summary>
    public decimal Ahead(Part part) => (Billing with { Parts = Billing.Parts.Add(part) }).BilledAhead;

    /// <summary>What undoes an invoice whole: its amounts below nothing (M20).</summary>
    /// <param name="invoice">The invoice.</param>
    /// <exception cref="RefusedException">It is no invoice that stands.</exception>
    public Part Credit(Invoice invoice)
    {
        CheckCredited(invoice);
        if (PartsCredited(invoice).Any())
            throw RefusedException.Of("invoice", "A part of it was credited: it is credited further only in parts.");
        var part = invoice.Part;
        return new(Less(part.Work), Less(part.OnAccount), Less(part.Used), -part.Retained, -part.Tax, -part.Rounding);
    }

    private static ByCategory Less(ByCategory of) => new([.. of.Amounts.Select(a => -a)]);

    private void CheckCredited(Invoice invoice)
    {
        if (invoice.Credits is not null || IsCredited(invoice))
            throw RefusedException.Of("invoice", "That invoice was credited already.");
    }

    /// <summary>What is left to be credited of an invoice, before tax.</summary>
    public ByCategory Left(Invoice invoice) =>
        PartsCredited(invoice).Aggregate(invoice.Part.Net, (left, note) => left + note.Part.Net);

    /// <summary>What credits a part of an invoice, in its own categories and rates: never more than is left of it, and the one that closes it takes the tax that is left (M20).</summary>
    /// <param name="invoice">The invoice.</param>
    /// <param name="amounts">What is credited, before tax, by category.</param>
    /// <exception cref="RefusedException">More than is left, or nothing.</exception>
    public Part CreditPart(Invoice invoice, ByCategory amounts)
    {
        CheckCredited(invoice);
        if (amounts.Amounts.Any(a => decimal.Round(a, Agreed.Places) != a))
            throw RefusedException.Of("amount", "Amounts in the currency's places.");
        var contract = Agreed.Contract;
        var nothing = ByCategory.Nothing(Agreed.Categories.Length);
        var note = CreditNote.Of(
            contract,
            invoice.Part.Net,
            invoice.Part.Tax,
            [.. PartsCredited(invoice).Select(c => new CreditNote(Less(c.Part.Net), -c.Part.Tax))],
            nothing + amounts
        );
        var less = Less(note.Net);
        var account = invoice.Part.OnAccount.Sum != 0;
        return new(account ? nothing : less, account ? less : nothing, nothing, 0, -note.Tax, 0);
    }

    /// <summary>Refuses money that cannot have come.</summary>
    /// <param name="payment">The payment.</param>
    /// <param name="today">The firm's day.</param>
    /// <exception cref="RefusedException">Naming the field.</exception>
    public void Check(PaymentFact payment, DateOnly today)
    {
        if (Invoices.FirstOrDefault(i => i.Id == payment.Invoice) is not { Credits: null } invoice)
            throw RefusedException.Of("invoice", "That invoice is not of this job.");
        if (payment.Amount == 0 || decimal.Round(payment.Amount, Agreed.Places) != payment.Amount)
            throw RefusedException.Of("amount", "An amount in the currency's places.");
        if (payment.Amount < 0 && PaidOf(invoice) + payment.Amount < 0)
            throw RefusedException.Of("amount", "More cannot go back than has come.");
        if (payment.Discount != 0)
        {
            var (may, _, _) = EarlyOf(invoice, payment.Day);
            if (may == 0)
                throw RefusedException.Of(
                    "discount",
                    invoice.EarlyUntil is { } until
                        ? $"The discount was for money received until {Quantities.Day.Written(until)}: it stays owed."
                        : "That invoice offers no discount."
                );
            if (payment.Discount != may)
                throw RefusedException.Of("discount", $"The discount is {Quantities.Shown.Money(may, Agreed.Places)}.");
            if (payment.Amount + may != OpenOf(invoice))
                throw RefusedException.Of(
                    "discount",
                    $"The discount is for paying all of it: {Quantities.Shown.Money(OpenOf(invoice) - may, Agreed.Places)}."
                );
        }
        if (payment.Amount > 100_000_000)
            throw RefusedException.Of("amount", "That is too much.");
        if (payment.Day > today)
            throw RefusedException.Of("day", "That day is still to come.");
        if (payment.Day < invoice.Issued.AddDays(-366))
            throw RefusedException.Of("day", "That is long before the invoice.");
        if (payment.How.Length > PaymentFact.MostHow)
            throw RefusedException.Of("how", $"At most {PaymentFact.MostHow} characters.");
        if (Payments.Length >= MostPayments)
            throw RefusedException.Of("amount", $"A job keeps at most {MostPayments:N0} payments.");
    }

    /// <summary>What takes a payment back.</summary>
    /// <exception cref="RefusedException">It is not there any more.</exception>
    public PaymentFact TakeBack(Guid id, Guid which, DateTime at, string by)
    {
        var fact =
            Payments.FirstOrDefault(p => p.Id == which && p.TakesBack is null)
            ?? throw RefusedException.Of("payment", "That payment is not there.");
        return Payments.Any(p => p.TakesBack == which)
            ? throw RefusedException.Of("payment", "That payment was taken back already.")
            : fact with
            {
                Id = id,
                Amount = -fact.Amount,
                Discount = -fact.Discount,
                At = at,
                By = by,
                TakesBack = which,
            };
    }
}
