using System.Collections.Immutable;
using CsCheck;
using Emendum.Core.Delivery;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Invoices of what was agreed: steps, percents, amounts, credits, numbers (delivery.md, M and N).</summary>
public sealed class InvoicesTests
{
    private static readonly DateOnly Monday = new(2026, 11, 23);
    private static readonly DateTime At = new(2026, 11, 23, 16, 0, 0, DateTimeKind.Utc);
    private static readonly Guid Vat = Sample.NewId();

    private static AgreedContract Agreed(decimal sum, decimal rate = 20, params decimal[] percents)
    {
        var total = sum + Rounding.Money(sum * rate / 100);
        var (nets, totals) = (Split.ByLargestRemainder(sum, percents), Split.ByLargestRemainder(total, percents));
        return new(
            [new("S", [new(Vat, "VAT", rate, Tax.Everything, TaxWay.Charged)], "", sum)],
            total,
            false,
            "EUR",
            2,
            [.. percents.Select((_, i) => new AgreedStep($"Step {i + 1}", nets[i], totals[i]))],
            false
        );
    }

    private static BilledJob Begun(AgreedContract agreed, AccountUse use = AccountUse.InProportion) =>
        new(agreed, use, [], []);

    private static BilledJob Issue(BilledJob job, Bills bills) =>
        job with
        {
            Invoices = job.Invoices.Add(
                new(
                    Sample.NewId(),
                    $"2026-{job.Invoices.Length + 1:D4}",
                    Monday,
                    Monday,
                    Monday.AddDays(30),
                    bills,
                    job.Of(bills),
                    "Work"
                )
            ),
        };

    private static BilledJob Credit(BilledJob job, Invoice invoice) =>
        job with
        {
            Invoices = job.Invoices.Add(
                invoice with
                {
                    Id = Sample.NewId(),
                    Number = $"2026-{job.Invoices.Length + 1:D4}",
                    Part = job.Credit(invoice),
                    Credits = invoice.Id,
                    Reason = "wrong",
                }
            ),
        };

    private static PaymentFact Paid(Invoice invoice, decimal amount, int days = 0) =>
        new(Sample.NewId(), invoice.Id, Monday.AddDays(days), amount, "bank", At, "owner");

    private static Bills Step(int n) => new(BillsBy.Step, n, null);

    private static Bills Percent(decimal percent) => new(BillsBy.Percent, null, percent);

    private static Bills Amount(decimal amount) => new(BillsBy.Amount, null, amount);

    private static readonly Bills Rest = new(BillsBy.Rest, null, null);

    private static void Refused(string field, Action act) =>
        Assert.Equal(field, Assert.Throws<RefusedException>(act).Refusal.Field);

    [Fact]
    public void What_is_ticked_is_billed_line_by_line_in_its_own_categories()
    {
        // M4, M9: 100.00 exempt and 100.00 taxed, a deposit of 60.00 used in proportion, the exempt item billed: 85.00 and −15.00.
        var agreed = Agreed(200);
        agreed = agreed with
        {
            Categories = [new("E", [], "a school", 100), agreed.Categories[0] with { Amount = 100 }],
            Total = 220,
        };
        var done = new Bills(BillsBy.Done, null, null);
        var job = Issue(Begun(agreed), Amount(60));
        BilledJob Ticked(decimal exempt, decimal taxed) =>
            job with
            {
                Done = [new(ByCategory.Of(100, 0), exempt), new(ByCategory.Of(0, 100), taxed)],
            };
        Assert.Equal([85m, -15m], Ticked(100, 0).Of(done).Net.Amounts.ToArray());
        // The rest: all that is open, to the cent.
        var billed = Issue(Ticked(100, 0), done) with
        {
            Done = Ticked(100, 100).Done,
        };
        Assert.Equal([0m, 0m], (billed.Billing.Open - billed.Of(done).Net).Amounts.ToArray());
        // A third of a cent is rounded once, over all lines.
        Assert.Equal(33.33m, Ticked(33.33m, 0).DoneValue.Sum);
        Refused("by", () => Ticked(0, 0).Of(done));
        // Less than was billed is a credit note, and none is made by this.
        Refused("by", () => (billed with { Done = Ticked(50, 0).Done }).Of(done));
    }

    [Fact]
    public void Steps_are_billed_once_in_any_order_and_the_one_that_is_left_closes()
    {
        // 1,190.01 in three: the steps print 396.67 each, the third invoice is 396.66 (M5).
        var agreed = Agreed(1000.01m, 19, 1, 1, 1);
        Assert.Equal([396.67m, 396.67m, 396.67m], agreed.Steps.Select(s => s.Total));
        var job = Begun(agreed);
        foreach (var n in new[] { 2, 0, 1 })
            job = Issue(job, Step(n));
        Assert.Equal([396.66m, 396.67m, 396.67m], job.Invoices.Select(i => i.Part.Total).Order());
        Assert.Equal((1000.01m, 0m), (job.Billing.Billed.Sum, job.Billing.Open.Sum));
        Refused("step", () => job.Of(Step(1)));
        Refused("step", () => job.Of(Step(3)));
        Refused("value", () => job.Of(Rest));
    }

    [Fact]
    public void Work_done_uses_up_a_deposit_and_all_that_is_open_closes_it()
    {
        // 10,000, deposit 3,000, at 40/70/100 %: 2,800 2,100 2,100 (M8).
        var job = Issue(Begun(Agreed(10_000)), Amount(3000));
        Assert.Equal((3000m, 3600m), (job.Invoices[0].Part.Net.Sum, job.Invoices[0].Part.Total));
        foreach (var percent in new[] { 40m, 70m })
            job = Issue(job, Percent(percent));
        job = Issue(job, Rest);
        Assert.Equal([3000m, 2800m, 2100m, 2100m], job.Invoices.Select(i => i.Part.Net.Sum));
        Assert.Equal(0, job.Billing.OnAccount.Sum);
        Refused("value", () => job.Of(Percent(100)));
        Refused("value", () => job.Of(Percent(60)));
        foreach (var wrong in new[] { 0m, 100.01m, 33.333m })
            Refused("value", () => Begun(Agreed(10_000)).Of(Percent(wrong)));
        foreach (var wrong in new[] { 0m, -1m, 0.001m })
            Refused("value", () => Begun(Agreed(10_000)).Of(Amount(wrong)));
    }

    [Fact]
    public void What_goes_beyond_the_contract_sum_says_so()
    {
        var job = Issue(Begun(Agreed(1000)), Amount(900));
        Assert.Equal((0m, 50m), (job.Ahead(job.Of(Amount(100))), job.Ahead(job.Of(Amount(150)))));
    }

    [Fact]
    public void A_credit_note_undoes_all_that_its_invoice_did()
    {
        var job = Issue(Begun(Agreed(10_000, 20, 30, 40, 30)), Step(0));
        job = job with { Payments = [Paid(job.Invoices[0], 3600)] };
        Assert.Equal((0m, true), (job.OpenOf(job.Invoices[0]), job.IsBilled(0)));
        job = Credit(job, job.Invoices[0]);
        var note = job.Invoices[1].Part;
        Assert.Equal((-3000m, -600m, -3600m), (note.Net.Sum, note.Tax, note.Total));
        // The step is open again, and what was paid is to be given back (M20).
        Assert.Equal((false, -3600m, 0m), (job.IsBilled(0), job.OpenOf(job.Invoices[0]), job.OpenOf(job.Invoices[1])));
        Assert.Equal(0, job.Billing.Billed.Sum);
        job = job with { Payments = job.Payments.Add(Paid(job.Invoices[0], -3600)) };
        Assert.Equal(0, job.OpenOf(job.Invoices[0]));
        Refused("invoice", () => job.Credit(job.Invoices[0]));
        Refused("invoice", () => job.Credit(job.Invoices[1]));
        Assert.Equal(3000, Issue(job, Step(0)).Invoices[^1].Part.Net.Sum);
        // A deposit that was credited is used up by nothing.
        var account = Issue(Begun(Agreed(10_000)), Amount(3000));
        account = Credit(account, account.Invoices[0]);
        Assert.Equal(4000, Issue(account, Percent(40)).Invoices[^1].Part.Net.Sum);
    }

    private static BilledJob CreditPart(BilledJob job, Invoice invoice, params ReadOnlySpan<decimal> amounts) =>
        job with
        {
            Invoices = job.Invoices.Add(
                invoice with
                {
                    Id = Sample.NewId(),
                    Number = $"2026-{job.Invoices.Length + 1:D4}",
                    Part = job.CreditPart(invoice, ByCategory.Of(amounts)),
                    Credits = invoice.Id,
                    InPart = true,
                    Reason = "less was done",
                }
            ),
        };

    [Fact]
    public void A_part_that_is_credited_is_never_more_than_is_left_and_the_last_takes_the_tax_that_is_left()
    {
        // 0.10 + 0.02 in 0.03 0.03 0.04: tax 0.01 0.01 0.00 (M20).
        var job = Issue(Begun(Agreed(0.10m)), Rest);
        var invoice = job.Invoices[0];
        foreach (var amount in new[] { 0.03m, 0.03m, 0.04m })
            job = CreditPart(job, invoice, amount);
        Assert.Equal([-0.01m, -0.01m, 0m], job.Invoices.Skip(1).Select(i => i.Part.Tax));
        Assert.Equal((0m, 0m, 0.10m), (job.OpenOf(invoice), job.Billing.Billed.Sum, job.Billing.Open.Sum));
        Refused("amount", () => job.CreditPart(invoice, ByCategory.Of(0.01m)));
        // Credited in part, an invoice is credited further only in parts, and its step stays billed.
        job = Issue(Begun(Agreed(10_000, 20, 50, 50)), Step(0));
        invoice = job.Invoices[0];
        Refused("amount", () => job.CreditPart(invoice, ByCategory.Of(5000.01m)));
        Refused("amount", () => job.CreditPart(invoice, ByCategory.Of(0m)));
        Refused("amount", () => job.CreditPart(invoice, ByCategory.Of(-1m)));
        Refused("amount", () => job.CreditPart(invoice, ByCategory.Of(0.001m)));
        job = CreditPart(job, invoice, 1000);
        Refused("invoice", () => job.Credit(invoice));
        Assert.Equal((true, 4800m, 4000m), (job.IsBilled(0), job.OpenOf(invoice), job.Left(invoice).Sum));
        // What was credited is billed with the step that closes.
        job = Issue(job, Step(1));
        Assert.Equal((6000m, 0m), (job.Invoices[^1].Part.Net.Sum, job.Billing.Open.Sum));
        // A part of a deposit is off the account.
        var account = Issue(Begun(Agreed(10_000)), Amount(3000));
        account = CreditPart(account, account.Invoices[0], 1000);
        Assert.Equal(2000, account.Billing.OnAccount.Sum);
    }

    [Fact]
    public void Payments_are_in_parts_are_taken_back_once_and_are_refused_where_they_cannot_be()
    {
        var job = Issue(Begun(Agreed(1000)), Rest);
        var invoice = job.Invoices[0];
        var first = Paid(invoice, 200);
        job = job with { Payments = [first, Paid(invoice, 300.50m)] };
        Assert.Equal((500.50m, 699.50m), (job.PaidOf(invoice), job.OpenOf(invoice)));
        var back = job.TakeBack(Sample.NewId(), first.Id, At, "owner");
        job = job with { Payments = job.Payments.Add(back) };
        Assert.Equal(300.50m, job.PaidOf(invoice));
        Refused("payment", () => job.TakeBack(Sample.NewId(), first.Id, At, "owner"));
        Refused("payment", () => job.TakeBack(Sample.NewId(), back.Id, At, "owner"));
        void Wrong(string field, PaymentFact payment) => Refused(field, () => job.Check(payment, Monday));
        job.Check(Paid(invoice, 10_000), Monday);
        Wrong("amount", Paid(invoice, 0));
        Wrong("amount", Paid(invoice, 0.001m));
        Wrong("amount", Paid(invoice, -300.51m));
        Wrong("day", Paid(invoice, 1, days: 1));
        Wrong("invoice", Paid(invoice, 1) with { Invoice = Sample.NewId() });
        var credited = Credit(job, invoice);
        Refused("invoice", () => credited.Check(Paid(credited.Invoices[1], 1), Monday));
    }

    [Fact]
    [Trait("Category", "Long")]
    public void Any_order_of_steps_percents_amounts_and_credits_closes_on_the_contract_sum()
    {
        var one = Gen.Select(Gen.Int[0, 5], Gen.Int[0, 9999]);
        Gen.Select(
                Gen.Int[1, 2_000_000],
                Gen.Int[0, 3].Select(n => new[] { 0m, 7m, 19m, 20m }[n]),
                Gen.Bool,
                Gen.Bool,
                one.List[0, 12]
            )
            .Always(
                drawn =>
                {
                    var (cents, rate, two, rounds, acts) = drawn;
                    var sum = cents / 100m;
                    var agreed = Agreed(sum, rate, 30, 40, 30);
                    if (two)
                        agreed = agreed with
                        {
                            Categories = [agreed.Categories[0], new("E", [], "exempt", 123.45m)],
                            Total = agreed.Total + 123.45m,
                        };
                    if (rounds)
                        agreed = agreed with { RoundsAfterTax = true, Total = decimal.Ceiling(agreed.Total / 5) * 5 };
                    var all = agreed.Categories.Sum(c => c.Amount);
                    var job = Begun(agreed, (AccountUse)(cents % 3));
                    foreach (var (kind, n) in acts)
                        try
                        {
                            var standing = job.Standing.ToList();
                            job =
                                kind == 0 ? Issue(job, Step(n % 3))
                                : kind == 1 ? Issue(job, Percent(n % 100 + 1))
                                : kind == 2 ? Issue(job, Amount(decimal.Round(all * (n % 40) / 100m, 2)))
                                : kind == 3 && standing.Count > 0 ? Credit(job, standing[n % standing.Count])
                                : kind == 5 && standing.Count > 0
                                    ? CreditSome(job, standing[n % standing.Count], n % 101)
                                : Issue(job, Rest);
                            // Before tax, what was billed and what is open are the contract sum, in each category.
                            var billing = job.Billing;
                            for (var i = 0; i < agreed.Categories.Length; i++)
                                Assert.Equal(agreed.Categories[i].Amount, billing.Billed[i] + billing.Open[i]);
                            Assert.Equal(billing.Billed.Sum, job.Invoices.Sum(i => i.Part.Net.Sum));
                            Assert.All(
                                job.Invoices,
                                i => Assert.Equal(i.Part.Total, i.Part.Net.Sum + i.Part.Tax + i.Part.Rounding)
                            );
                        }
                        catch (RefusedException) { }
                    // Closed at the end, everything that stands is the contract sum, and where it was rounded after tax the signed total.
                    if (job.Billing.BilledAhead > 0)
                        return;
                    try
                    {
                        job = Issue(job, Rest);
                    }
                    catch (RefusedException) { }
                    Assert.Equal(all, job.Billing.Billed.Sum);
                    if (rounds && job.Invoices[^1] is { Bills.By: BillsBy.Rest, Credits: null })
                        Assert.Equal(agreed.Total, job.Invoices.Sum(i => i.Part.Total));
                },
                times: Properties.Times(500, 10_000)
            );
    }

    /// <summary>Credits so many percent of what is left of an invoice, in each category.</summary>
    private static BilledJob CreditSome(BilledJob job, Invoice invoice, int percent) =>
        CreditPart(job, invoice, [.. job.Left(invoice).Amounts.Select(a => decimal.Round(a * percent / 100m, 2))]);

    [Theory]
    [InlineData("{year}-{number:4}", 2026, 12, "2026-0012")]
    [InlineData("{year}-{number:4}", 2027, 10000, "2027-10000")]
    [InlineData("INV {number}", 2026, 7, "INV 7")]
    [InlineData("R/{number:6}/{year}", 2026, 123, "R/000123/2026")]
    public void Numbers_are_written_by_the_firms_scheme(string scheme, int year, int number, string written)
    {
        NumberScheme.Check(scheme);
        Assert.Equal(written, NumberScheme.Of(scheme, year, number));
    }

    [Theory]
    [InlineData("")]
    [InlineData("INV")]
    [InlineData("{number}{number}")]
    [InlineData("{year}{year}{number}")]
    [InlineData("{number:0}")]
    [InlineData("{number:12}")]
    [InlineData("{Number}")]
    [InlineData("<b>{number}")]
    [InlineData(" {number}")]
    public void A_scheme_that_is_none_is_refused(string scheme) => Refused("numbers", () => NumberScheme.Check(scheme));

    public static TheoryData<Guid> Jobs => [.. DemoJobs.Fixed().Select(j => j.Id)];

    [Theory]
    [MemberData(nameof(Jobs))]
    public void What_was_agreed_is_the_price_by_tax_category_with_its_plan(Guid id)
    {
        var estimate = Sample.Reckon(DemoJobs.Fixed().Single(j => j.Id == id));
        var agreed = AgreedContract.Of(estimate);
        Assert.Equal(estimate.Price.BeforeTax.V, agreed.Contract.Sum.Sum);
        Assert.Equal(estimate.Price.Total.V, agreed.Total);
        if (!agreed.RoundsAfterTax)
            Assert.Equal(agreed.Total, agreed.Contract.Sum.Sum + agreed.Contract.Tax(agreed.Contract.Sum));
        Assert.Equal(
            PaymentPlan.Of(estimate, Trace.Silent).Select(s => (s.BeforeTax.V, s.Total.V)),
            agreed.Steps.Select(s => (s.Net, s.Total))
        );
    }

    [Fact]
    public void The_paper_says_what_is_billed_and_its_rows_add_up()
    {
        var head = new Letterhead("Firm", "", "", "Customer", "Where", "Hall", "", "", "");
        var agreed = Agreed(10_000) with
        {
            Categories =
            [
                new("S", [new(Vat, "VAT", 20, Tax.Everything, TaxWay.Charged)], "", 9000),
                new("E", [], "insurance is exempt", 1000),
            ],
            Total = 11_800,
        };
        var job = Issue(Begun(agreed), Amount(3000));
        var before = job;
        job = Issue(job, Percent(40));
        var document = InvoicePaper.Of(job.Invoices[1], before, head, "Job 1", Brand.Starting, "Pay to: the bank");
        var rows = document.Elements.OfType<PriceTable>().First().Rows;
        var parts = rows.Where(r => r.Kind == RowKind.Part).Sum(r => r.Amount);
        Assert.Equal(parts, rows.Single(r => r.Kind == RowKind.Subtotal).Amount);
        Assert.Equal(
            parts + rows.Where(r => r.Kind == RowKind.Tax).Sum(r => r.Amount),
            rows.Single(r => r.Kind == RowKind.Total).Amount
        );
        // A deposit that is used up is a minus line in each of its categories and names its invoice (M9).
        Assert.Equal(
            [-1080m, -120m],
            rows.Where(r => r.Label.Contains("(2026-0001)", StringComparison.Ordinal)).Select(r => r.Amount)
        );
        Assert.Contains(rows, r => r.Detail == "insurance is exempt");
        var words = string.Join('\n', document.Elements.OfType<Paragraph>().Select(p => p.Text));
        Assert.Contains("Please pay by 23 December 2026", words, StringComparison.Ordinal);
        Assert.Contains("Pay to: the bank", words, StringComparison.Ordinal);
        // Of work done to date a valuation statement in its order (M23); before tax was 40 %, now it is 70.
        var at70 = Issue(job, Percent(70));
        var valued = InvoicePaper
            .Of(at70.Invoices[2], job, head, "Job 1", Brand.Starting, "")
            .Elements.OfType<PriceTable>()
            .Last()
            .Rows.Where(r => r.Kind == RowKind.Part)
            .Select(r => (r.Label, r.Amount));
        Assert.Equal(
            [
                ("Contract sum", 10_000m),
                ("Value of work to date", 7000),
                ("Previous", 4000),
                ("This period", 3000),
                ("Used from what was billed on account", 900),
                ("Net", 2100),
                ("Tax", 378),
                ("Payable", 2478),
                ("Balance", 3000),
            ],
            valued.Select(v => (v.Label, v.Amount!.Value))
        );
        var note = Credit(job, job.Invoices[1]);
        var paper = InvoicePaper.Of(note.Invoices[2], job, head, "Job 1", Brand.Starting, "");
        Assert.Equal("Credit note 2026-0003", paper.Head.Title);
        Assert.Contains(
            paper.Elements.OfType<PriceTable>().Single().Rows,
            r => r.Label == "Credits invoice 2026-0002 whole" && r.Detail == "wrong"
        );
    }

    /// <summary>10,000 with 20 % tax, 5 % retained and given back in halves.</summary>
    private static BilledJob Retaining(params Bills[] bills)
    {
        var job = Begun(Agreed(10_000)) with
        {
            Terms = new(new(5, null, null, [50, 100]), 2, 10, 9),
            Completion = new([], new(Guid.NewGuid(), Monday, "Odo Fenn", "signed", At, "Nora")),
        };
        return bills.Aggregate(job, Issue);
    }

    [Fact]
    public void M11_and_M12_what_is_retained_is_a_term_of_payment_and_comes_back_in_shares_of_all_of_it()
    {
        var job = Retaining(new(BillsBy.Percent, null, 40), new(BillsBy.Percent, null, 100));
        // 10,000 + 20 %, 5 % in halves: 11,500 payable, then 250 and 250.
        Assert.Equal((500m, 11_500m), (job.Held, job.Invoices.Sum(job.OpenOf)));
        Assert.Equal(250m, job.NextRelease());
        ReleaseFact Release(int number, decimal amount) =>
            new(Guid.NewGuid(), number, amount, Monday, Monday.AddDays(30), At, "Nora");
        var half = job with { Releases = [Release(1, 250)] };
        // What was retained first comes back first: 200 of the first invoice, 50 of the second.
        Assert.Equal((0m, 250m), (half.HeldOf(half.Invoices[0]), half.HeldOf(half.Invoices[1])));
        Assert.Equal(11_750m, half.Invoices.Sum(half.OpenOf));
        // Paid but for what was released, it is due on the day of the release.
        var first = half.Invoices[0];
        var paid = half with { Payments = [Paid(first, 4_800 - 200)] };
        Assert.Equal((200m, Monday.AddDays(30)), (paid.OpenOf(first), paid.DueOf(first)));
        Assert.Equal(first.Due, half.DueOf(first));
        Assert.Equal(250m, half.NextRelease());
        var all = half with { Releases = half.Releases.Add(Release(2, 250)) };
        Assert.Equal((0m, 12_000m), (all.Held, all.Invoices.Sum(all.OpenOf)));
        Assert.Throws<RefusedException>(() => all.NextRelease());
    }

    [Fact]
    public void M12_the_note_opens_the_last_invoice_and_the_release_and_snags_hold_the_release_alone()
    {
        var without = Retaining(new Bills(BillsBy.Percent, null, 40)) with { Completion = Completion.Nothing };
        foreach (var bills in new Bills[] { new(BillsBy.Percent, null, 100), new(BillsBy.Rest, null, null) })
            Assert.Contains(
                "completion note",
                Assert.Throws<RefusedException>(() => without.Of(bills)).Refusal.Message,
                StringComparison.Ordinal
            );
        _ = without.Of(new(BillsBy.Percent, null, 99));
        Assert.Contains(
            "completion note",
            Assert.Throws<RefusedException>(() => without.NextRelease()).Refusal.Message,
            StringComparison.Ordinal
        );
        var snag = new Snag(Guid.NewGuid(), "a run", null, At, "Nora");
        var with = without with { Completion = new([snag], new(Guid.NewGuid(), Monday, "Odo Fenn", "", At, "Nora")) };
        _ = with.Of(new(BillsBy.Rest, null, null));
        Assert.Contains(
            "1 snag",
            Assert.Throws<RefusedException>(() => with.NextRelease()).Refusal.Message,
            StringComparison.Ordinal
        );
        var mended = with with
        {
            Completion = with.Completion with { Snags = [snag with { Mended = new(At, "Idris") }] },
        };
        Assert.Equal(100m, mended.NextRelease());
        // Without retention nothing waits for a note.
        _ = Begun(Agreed(10_000)).Of(new(BillsBy.Rest, null, null));
    }

    [Fact]
    public void M24_and_M25_early_and_late_money_of_an_invoice()
    {
        var job = Begun(Agreed(1_000, 19)) with { Terms = new(Retention.None, 2, 10, 9) };
        job = Issue(job, new(BillsBy.Rest, null, null));
        var invoice = job.Invoices[0] with { EarlyPercent = 2, EarlyUntil = Monday.AddDays(10) };
        job = job with { Invoices = [invoice] };
        Assert.Equal((23.80m, 20.00m, 3.80m), job.EarlyOf(invoice, Monday.AddDays(10)));
        Assert.Equal(default, job.EarlyOf(invoice, Monday.AddDays(11)));
        var early = Paid(invoice, 1_166.20m) with { Discount = 23.80m };
        job.Check(early, Monday);
        var settled = job with { Payments = [early] };
        Assert.Equal(
            (0m, 1_190m),
            (settled.OpenOf(invoice), settled.Billing.Billed.Sum + settled.Invoices[0].Part.Tax)
        );
        Assert.Equal(
            "discount",
            Assert
                .Throws<RefusedException>(() => job.Check(early with { Day = Monday.AddDays(11) }, Monday.AddDays(20)))
                .Refusal.Field
        );
        Assert.Equal(
            "discount",
            Assert.Throws<RefusedException>(() => job.Check(early with { Amount = 1_000 }, Monday)).Refusal.Field
        );
        // Interest of what is open, from the day after it was due.
        var late = job.Remind(Guid.NewGuid(), invoice, invoice.Due.AddDays(36), At, "Nora");
        Assert.Equal((1, 1_190m, Rounding.Money(1_190m * 9 * 36 / 36_500)), (late.Number, late.Open, late.Interest));
        Assert.Throws<RefusedException>(() => job.Remind(Guid.NewGuid(), invoice, invoice.Due, At, "Nora"));
        Assert.Throws<RefusedException>(() =>
            settled.Remind(Guid.NewGuid(), invoice, invoice.Due.AddDays(36), At, "Nora")
        );
    }
}
