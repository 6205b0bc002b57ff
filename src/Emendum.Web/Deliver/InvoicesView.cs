using Emendum.Core;
using Emendum.Core.Delivery;
using Emendum.Core.Quantities;
using Emendum.Storage;

namespace Emendum.Web.Deliver;

/// <summary>A row of money: what it is, more about it, the amount.</summary>
public sealed record MoneyRow(string Label, string Detail, string Amount);

/// <summary>What an invoice would come to, before it is issued.</summary>
/// <param name="Label">What it bills.</param>
/// <param name="Rows">From what is billed to what is to be paid.</param>
/// <param name="Total">With tax.</param>
/// <param name="Retained">What of it is kept back; empty for nothing.</param>
/// <param name="Payable">What is to be paid now.</param>
/// <param name="Ahead">By how much it goes beyond the contract sum; empty where it does not (M21).</param>
public sealed record InvoiceDraft(
    string Label,
    IReadOnlyList<MoneyRow> Rows,
    string Total,
    string Retained,
    string Payable,
    string Ahead
)
{
    internal static InvoiceDraft Of(BilledJob billed, Part part, string label)
    {
        string Money(decimal amount) => Shown.Money(amount, billed.Agreed.Places);
        var rows = new List<MoneyRow>();
        if (part.Work.Sum != 0)
            rows.Add(new("For work", "before tax", Money(part.Work.Sum)));
        if (part.OnAccount.Sum != 0)
            rows.Add(new("On account", "before tax", Money(part.OnAccount.Sum)));
        if (part.Used.Sum != 0)
            rows.Add(new("Used of what was billed on account", "before tax", Money(-part.Used.Sum)));
        rows.Add(new("Tax", "", Money(part.Tax)));
        if (part.Rounding != 0)
            rows.Add(new("Rounding", "of what was agreed", Money(part.Rounding)));
        var ahead = billed.Ahead(part);
        return new(
            label,
            rows,
            Money(part.Total),
            part.Retained == 0 ? "" : Money(part.Retained),
            Money(part.PayableNow),
            ahead > 0 ? Money(ahead) : ""
        );
    }
}

/// <summary>A step of the payment plan, or a month of a round.</summary>
/// <param name="Number">From 0.</param>
/// <param name="When">When it is paid.</param>
/// <param name="Net">Before tax.</param>
/// <param name="Total">With tax, as it was printed; empty of a month, whose tax is reckoned when it is billed.</param>
/// <param name="Billed">Number of its invoice; empty while it is open.</param>
public sealed record PlanStepView(int Number, string When, string Net, string Total, string Billed);

/// <summary>A change order that can be billed on its own.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Title">What it is about.</param>
/// <param name="Net">Before tax.</param>
public sealed record OpenChangeView(int Number, string Title, string Net);

/// <summary>Money that came.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Day">When, in words.</param>
/// <param name="Amount">How much.</param>
/// <param name="How">How it came.</param>
/// <param name="Stands">Whether it can be taken back: it was not, and is none that takes one back.</param>
public sealed record PaymentView(Guid Id, string Day, string Amount, string How, bool Stands);

/// <summary>An invoice or a credit note in the list.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Number">Its number.</param>
/// <param name="IsCredit">Whether it is a credit note.</param>
/// <param name="Label">What it bills, or which invoice it credits.</param>
/// <param name="Issued">When, in words.</param>
/// <param name="Due">When it is due; empty for a credit note.</param>
/// <param name="Net">Before tax.</param>
/// <param name="Total">With tax.</param>
/// <param name="Open">What is to be paid of it; empty for nothing.</param>
/// <param name="Says">How it stands, in words.</param>
/// <param name="IsLate">Whether it is overdue.</param>
/// <param name="MayCredit">Whether it can be credited whole.</param>
/// <param name="Left">What is left to be credited in part, for each tax category of the contract; empty where nothing is.</param>
/// <param name="Pays">What would pay it in full, to be typed over.</param>
/// <param name="Payments">What came for it.</param>
/// <param name="Held">What is retained of it still; empty for nothing.</param>
/// <param name="Early">The early-payment discount that can be taken today, in words; empty for none.</param>
/// <param name="EarlyPays">What pays it with that discount, to be typed over; empty for none.</param>
/// <param name="EarlyDiscount">The discount as it is typed; empty for none.</param>
/// <param name="Reminders">Reminders of it, the first first.</param>
/// <param name="EInvoice">Whether there is an e-invoice of it.</param>
/// <param name="ELacks">Why there is none, where the Office says what e-invoices need; empty otherwise.</param>
public sealed record InvoiceRow(
    Guid Id,
    string Number,
    bool IsCredit,
    string Label,
    string Issued,
    string Due,
    string Net,
    string Total,
    string Open,
    string Says,
    bool IsLate,
    bool MayCredit,
    IReadOnlyList<CreditLeft> Left,
    string Pays,
    IReadOnlyList<PaymentView> Payments,
    string Held,
    string Early,
    string EarlyPays,
    string EarlyDiscount,
    IReadOnlyList<ReminderRow> Reminders,
    bool EInvoice,
    string ELacks
);

/// <summary>A reminder.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Words">When, and with which interest.</param>
public sealed record ReminderRow(Guid Id, string Words);

/// <summary>A release of what was retained.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Words">Which, when, due when.</param>
/// <param name="Amount">How much.</param>
public sealed record ReleaseRow(Guid Id, string Words, string Amount);

/// <summary>What is left to be credited of an invoice in a tax category.</summary>
/// <param name="Label">Its taxes, or why there are none.</param>
/// <param name="Amount">Before tax; empty where the invoice has nothing of it.</param>
public sealed record CreditLeft(string Label, string Amount);

/// <summary>Invoices of a job: what was agreed, billed, paid, and what is open.</summary>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Sums">Contract sum, billed and not billed, before tax; then what is owed by age.</param>
/// <param name="Steps">The payment plan, or the months of a round; empty for none.</param>
/// <param name="ByMonth">Whether they are months.</param>
/// <param name="Changes">Change orders that were accepted and can be billed on their own.</param>
/// <param name="Invoices">The latest first.</param>
/// <param name="Done">How much of the work is done by hours, percent, as a first guess of what is billed by work; empty for nothing.</param>
/// <param name="Today">The firm's day, like 2027-01-31.</param>
/// <param name="Stops">Why nothing can be billed here; empty where it can.</param>
/// <param name="Ahead">By how much was billed beyond the contract sum; empty where it was not.</param>
/// <param name="Terms">What is agreed about paying.</param>
/// <param name="OwnTerms">Whether the job has terms of its own; otherwise they are the firm's.</param>
/// <param name="TermsSay">They, in a sentence.</param>
/// <param name="Releases">Releases of what was retained, in order.</param>
/// <param name="MayRelease">What the next release would give back; empty where none can be asked for.</param>
/// <param name="ReleaseWaits">Why none can; empty where one can, or there is nothing to release.</param>
public sealed record InvoicesView(
    string Currency,
    IReadOnlyList<MoneyRow> Sums,
    IReadOnlyList<PlanStepView> Steps,
    bool ByMonth,
    IReadOnlyList<OpenChangeView> Changes,
    IReadOnlyList<InvoiceRow> Invoices,
    string Done,
    string Today,
    string Stops,
    string Ahead,
    TermsTyped Terms,
    bool OwnTerms,
    string TermsSay,
    IReadOnlyList<ReleaseRow> Releases,
    string MayRelease,
    string ReleaseWaits
)
{
    /// <summary>What an invoice bills, in words.</summary>
    internal static string LabelOf(BilledJob billed, Bills bills) =>
        bills.By switch
        {
            BillsBy.Step =>
                $"Step {bills.Step + 1} of the payment plan: {billed.Agreed.Steps[bills.Step!.Value].When}{string.Concat(billed.OpenChanges.Where(c => c.WithStep == bills.Step).Select(c => $", with change order {c.Number}"))}",
            BillsBy.Percent => $"Work done to date, {Shown.Typed(bills.Value!.Value)} % of the contract sum",
            BillsBy.Amount => "Amount",
            BillsBy.Done => $"Work done to date, line by line: {DoneOf(billed)} of the contract sum",
            BillsBy.Month => MonthOf(billed.Agreed.Round!, bills.Step!.Value),
            BillsBy.Change =>
                $"Change order {bills.Step}: {billed.Agreed.Changes.First(c => c.Number == bills.Step).Title}",
            _ => "All that is open",
        };

    private static string MonthOf(AgreedRound round, int month) =>
        $"Month {month + 1} of the contract year, {RoundView.NameOf(round.First, month, "MMMM yyyy")}";

    private static string DoneOf(BilledJob billed) =>
        billed.Billing.Contract.Sum.Sum is not 0 and var sum
            ? $"{Shown.Typed(decimal.Round(billed.DoneValue.Sum / sum * 100m, 1))} %"
            : "all";

    internal static InvoicesView Of(BilledJob billed, SiteLog log, FirmDay day)
    {
        var (agreed, billing, today) = (billed.Agreed, billed.Billing, day.Today);
        string Money(decimal amount) => Shown.Money(amount, agreed.Places);
        var sum = billing.Contract.Sum.Sum;
        var (release, waits) = Release(billed);
        return new(
            agreed.Currency,
            [
                new(
                    "Contract sum",
                    string.Join(
                        ", ",
                        new[]
                        {
                            "before tax",
                            agreed.Changes.IsEmpty ? "" : $"with {Counted.Of(agreed.Changes.Length, "change order")}",
                            VisitsOf(agreed),
                        }.Where(w => w.Length > 0)
                    ),
                    Money(sum)
                ),
                new("Billed", "before tax", Money(billing.Billed.Sum)),
                .. billing.OnAccount.Sum == 0
                    ? (MoneyRow[])[]
                    : [new("of it on account, not used up", "before tax", Money(billing.OnAccount.Sum))],
                new("Not billed yet", "before tax", Money(sum - billing.Billed.Sum)),
                new("Agreed in all", "with tax", Money(billing.Contract.Total)),
                new("Paid", "with tax", Money(billed.Payments.Sum(p => p.Amount))),
                .. billed.Payments.Sum(p => p.Discount) is > 0 and var saved
                    ? [new("Saved by paying early", "with tax; the contract sum stays", Money(saved))]
                    : (MoneyRow[])[],
                .. billed.Held == 0
                    ? (MoneyRow[])[]
                    : [new("Retained", "a term of payment; its tax is billed", Money(billed.Held))],
                .. Owed(billed, today).Select(o => new MoneyRow(o.Label, o.Detail, Money(o.Amount))),
            ],
            [
                .. agreed.Steps.Select(
                    (s, i) =>
                        new PlanStepView(
                            i,
                            s.When,
                            Money(s.Net),
                            Money(s.Total),
                            billed
                                .Standing.FirstOrDefault(v =>
                                    v.Bills is { By: BillsBy.Step, Step: { } step } && step == i
                                )
                                ?.Number
                            ?? ""
                        )
                ),
                .. Months(billed),
            ],
            agreed.IsRound,
            [.. billed.OpenChanges.Select(c => new OpenChangeView(c.Number, c.Title, Money(c.Amounts.Sum)))],
            [.. billed.Invoices.Reverse().Select(i => Row(billed, i, today))],
            !agreed.IsRound && log.Percent is > 0 and var percent ? Shown.Typed(decimal.Floor(percent)) : "",
            day.Written,
            agreed is { IsRound: true, Round: null } ? "What was agreed for this round says nothing of its year." : "",
            billing.BilledAhead > 0 ? Money(billing.BilledAhead) : "",
            TermsTyped.Of(billed.Terms),
            billed.HasOwnTerms,
            InWords(billed.Terms, agreed.Places),
            [
                .. billed.Releases.Select(r => new ReleaseRow(
                    r.Id,
                    $"Release {r.Number}, {InWords(r.Day)}, due {InWords(r.Due)}",
                    Money(r.Amount)
                )),
            ],
            release is { } amount ? Money(amount) : "",
            waits
        );
    }

    /// <summary>What visits do to the contract sum of a round, in words; empty for nothing.</summary>
    private static string VisitsOf(AgreedContract agreed)
    {
        if (agreed.Year is not { } year)
            return "";
        var differs = year.Round.Visits.Select(year.Differs).ToList();
        var (fewer, more) = (-differs.Where(d => d < 0).Sum(), differs.Where(d => d > 0).Sum());
        return string.Join(
            ", ",
            new[]
            {
                fewer > 0 ? $"less {Counted.Of(fewer, "visit")} that {(fewer == 1 ? "is" : "are")} not done" : "",
                more > 0 ? $"with {Counted.Of(more, "more event")} than {(more == 1 ? "was" : "were")} expected" : "",
            }.Where(w => w.Length > 0)
        );
    }

    /// <summary>The months of a round, which bill it; none of other jobs.</summary>
    private static IEnumerable<PlanStepView> Months(BilledJob billed)
    {
        if (billed.Agreed.Round is not { } round)
            yield break;
        for (var month = 0; month < AgreedRound.MonthCount; month++)
            yield return new(
                month,
                RoundView.NameOf(round.First, month, "MMMM yyyy"),
                Shown.Money(round.Months[month], billed.Agreed.Places),
                "",
                billed.OfMonth(month)?.Number ?? ""
            );
    }

    /// <summary>What the next release would give back, or why there is none.</summary>
    private static (decimal? Amount, string Waits) Release(BilledJob billed)
    {
        if (billed.Held == 0)
            return (null, "");
        try
        {
            return (billed.NextRelease(), "");
        }
        catch (Core.RefusedException refused)
        {
            return (null, refused.Refusal.Message);
        }
    }

    private static string InWords(BillingTerms terms, int places)
    {
        static string Percent(decimal of) => $"{Shown.Typed(of)} %";
        var retention = terms.Retention;
        IEnumerable<string> said =
        [
            retention.Percent == 0
                ? ""
                : $"{Percent(retention.Percent)} of the value is retained"
                    + (retention.Cap is { } cap ? $", at most {Shown.Money(cap, places)}" : "")
                    + (retention.CapPercent is { } most ? $", at most {Percent(most)} of the contract sum" : "")
                    + $", given back in steps to {string.Join(", ", retention.Releases.Select(Percent))}",
            terms.EarlyPercent == 0
                ? ""
                : $"{Percent(terms.EarlyPercent)} off within {Counted.Of(terms.EarlyDays, "day")}",
            terms.InterestPercent == 0 ? "" : $"{Percent(terms.InterestPercent)} a year on what is late",
        ];
        var all = string.Join("; ", said.Where(s => s.Length > 0));
        return all.Length == 0 ? "Nothing is retained, and no discount or interest is agreed." : $"{all}.";
    }

    /// <summary>What is owed, by age of its due day.</summary>
    private static IEnumerable<(string Label, string Detail, decimal Amount)> Owed(BilledJob billed, DateOnly today)
    {
        var open = billed.Invoices.Select(i => (Invoice: i, Open: billed.OpenOf(i))).Where(i => i.Open != 0).ToList();
        var back = -open.Where(i => i.Open < 0).Sum(i => i.Open);
        (string Label, int From, int To)[] ages =
        [
            ("Owed, not due yet", int.MinValue, 0),
            ("Overdue up to 30 days", 1, 30),
            ("Overdue 31 to 60 days", 31, 60),
            ("Overdue longer", 61, int.MaxValue),
        ];
        foreach (var (label, from, to) in ages)
        {
            var sum = open.Where(i =>
                    i.Open > 0
                    && today.DayNumber - billed.DueOf(i.Invoice).DayNumber is var late
                    && late >= from
                    && late <= to
                )
                .Sum(i => i.Open);
            if (sum > 0)
                yield return (label, "with tax", sum);
        }
        if (back > 0)
            yield return ("To be given back", "paid, and credited or too much", back);
    }

    private static InvoiceRow Row(BilledJob billed, Invoice invoice, DateOnly today)
    {
        string Money(decimal amount) => Shown.Money(amount, billed.Agreed.Places);
        var (open, credited) = (billed.OpenOf(invoice), billed.IsCredited(invoice));
        var isCreditNote = invoice.Credits is not null;
        var late = today.DayNumber - billed.DueOf(invoice).DayNumber;
        var held = isCreditNote ? 0 : billed.HeldOf(invoice);
        var (early, _, _) = open > 0 ? billed.EarlyOf(invoice, today) : default;
        var says =
            isCreditNote ? ""
            : credited ? $"credited by {billed.Invoices.First(i => i.Credits == invoice.Id && !i.InPart).Number}"
            : open == 0 && held > 0 ? "paid but for what is retained"
            : open == 0 ? "paid"
            : open < 0 ? "paid too much"
            : late > 0 ? $"overdue {Counted.Of(late, "day")}"
            : billed.PaidOf(invoice) > 0 ? "paid in part"
            : "open";
        var lacks = LacksOf(invoice, billed);
        var back = billed.Payments.Select(p => p.TakesBack).OfType<Guid>().ToHashSet();
        return new(
            invoice.Id,
            invoice.Number,
            isCreditNote,
            isCreditNote
                ? $"Credits {(invoice.InPart ? "a part of " : "")}{billed.Invoices.First(i => i.Id == invoice.Credits).Number}: {invoice.Reason}"
                : invoice.Label,
            InWords(invoice.Issued),
            isCreditNote ? "" : InWords(billed.DueOf(invoice)),
            Money(invoice.Part.Net.Sum),
            Money(invoice.Part.Total),
            open == 0 ? "" : Money(open),
            says,
            !isCreditNote && open > 0 && late > 0,
            !isCreditNote && !credited && !billed.PartsCredited(invoice).Any(),
            isCreditNote || credited ? [] : LeftOf(billed, invoice),
            open > 0 ? Rounding.Text(open) : "",
            [
                .. billed
                    .Payments.Where(p => p.Invoice == invoice.Id)
                    .Select(p => new PaymentView(
                        p.Id,
                        InWords(p.Day),
                        Money(p.Amount),
                        (p.TakesBack is null ? p.How : "taken back: " + p.How)
                            + (p.Discount == 0 ? "" : $", with a discount of {Money(p.Discount)}"),
                        p.TakesBack is null && !back.Contains(p.Id)
                    )),
            ],
            held == 0 ? "" : Money(held),
            early == 0
                ? ""
                : $"{Shown.Typed(invoice.EarlyPercent)} % off until {InWords(invoice.EarlyUntil!.Value)}: {Money(early)}",
            early == 0 ? "" : Rounding.Text(open - early),
            early == 0 ? "" : Rounding.Text(early),
            [
                .. billed
                    .Reminders.Where(r => r.Invoice == invoice.Id)
                    .Select(r => new ReminderRow(
                        r.Id,
                        $"Reminder {r.Number}, {InWords(r.Day)}{(r.Interest == 0 ? "" : $", interest {Money(r.Interest)}")}"
                    )),
            ],
            lacks is "",
            lacks ?? ""
        );
    }

    /// <summary>Why there is no e-invoice; empty where there is one, null where the Office says nothing of them.</summary>
    private static string? LacksOf(Invoice invoice, BilledJob billed)
    {
        if (invoice.Parties is null)
            return null;
        try
        {
            EInvoice.Of(invoice, billed);
            return "";
        }
        catch (RefusedException refused)
        {
            return refused.Refusal.Message;
        }
    }

    private static IReadOnlyList<CreditLeft> LeftOf(BilledJob billed, Invoice invoice)
    {
        var left = billed.Left(invoice);
        return left.Amounts.All(a => a == 0)
            ? []
            :
            [
                .. billed.Agreed.Categories.Select(
                    (c, i) =>
                        new CreditLeft(
                            c.Taxes.IsEmpty
                                ? c.Reason
                                : string.Join(", ", c.Taxes.Select(t => $"{t.Name} {Shown.Typed(t.Rate)} %")),
                            left[i] == 0 ? "" : Shown.Money(left[i], billed.Agreed.Places)
                        )
                ),
            ];
    }

    internal static string InWords(DateOnly day) =>
        day.ToString("d MMM yyyy", System.Globalization.CultureInfo.InvariantCulture);
}

/// <summary>A gap in the series that a person made, and why.</summary>
/// <param name="Skipped">Which numbers.</param>
/// <param name="Reason">Why.</param>
/// <param name="At">When, and by whom.</param>
public sealed record NumberGap(string Skipped, string Reason, string At);

/// <summary>How the series of numbers stands.</summary>
/// <param name="Next">The next number, as it would be written.</param>
/// <param name="NextNumber">Its place in the series.</param>
/// <param name="Gaps">What persons have skipped, the latest first.</param>
public sealed record NumbersView(string Next, int NextNumber, IReadOnlyList<NumberGap> Gaps)
{
    internal static NumbersView Of(NumberStore store, string series, string scheme, FirmDay day)
    {
        var (now, moment, today) = (store.Stands(series, scheme, day.Today), day.Moments(), day.Today);
        string Written(int year, int number) => NumberScheme.Of(scheme, year == 0 ? today.Year : year, number);
        return new(
            Written(now.Year, now.Next),
            now.Next,
            [
                .. store
                    .Moved(series)
                    .Select(m => new NumberGap(
                        m.Now - m.Was == 1
                            ? Written(m.Year, m.Was)
                            : $"{Written(m.Year, m.Was)} to {Written(m.Year, m.Now - 1)}",
                        m.Reason,
                        $"{moment(m.At)} by {m.By}"
                    )),
            ]
        );
    }
}
