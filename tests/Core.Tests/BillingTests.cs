using System.Collections.Immutable;
using Emendum.Core.Delivery;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Money after the yes (delivery.md, M2 to M29; of rounds see RoundYearTests): every number of the page, and random contracts that close to the cent.</summary>
public class BillingTests
{
    private static readonly Guid Vat = Sample.NewId();

    private static TaxCategory Taxed(decimal rate, int number = 0) =>
        new(number, "S", [new(Vat, "VAT", rate, Tax.Everything, TaxWay.Charged)]);

    private static TaxCategory Exempt(int number = 0) => new(number, "E", []);

    /// <summary>A contract of one taxed category.</summary>
    private static Contract One(decimal sum, decimal rate = 20) =>
        new([Taxed(rate)], ByCategory.Of(sum), sum + Rounding.Money(sum * rate / 100), false, 2);

    /// <summary>A contract of exempt and taxed money.</summary>
    private static Contract Two(decimal exempt, decimal taxed, decimal rate = 20) =>
        new(
            [Exempt(), Taxed(rate, 1)],
            ByCategory.Of(exempt, taxed),
            exempt + taxed + Rounding.Money(taxed * rate / 100),
            false,
            2
        );

    private static Billing Begun(
        Contract contract,
        AccountUse use = AccountUse.InProportion,
        Retention? retention = null
    ) => new(contract, use, retention ?? Retention.None, []);

    private static Billing With(Billing billing, Part part) => billing with { Parts = billing.Parts.Add(part) };

    private static Retention FivePercent(decimal? cap = null) => new(5, cap, null, [50, 100]);

    [Fact]
    public void M2_the_last_invoice_closes_on_a_total_that_was_rounded_after_tax()
    {
        var billing = Begun(new([Taxed(19)], ByCategory.Of(1000.01m), 1195, true, 2));
        foreach (var amount in new[] { 333.34m, 333.34m })
            billing = With(billing, billing.Step(amount, false));
        var last = billing.LastStep();
        billing = With(billing, last);
        Assert.Equal(5, last.Rounding);
        Assert.Equal(1190, billing.Parts.Sum(p => p.Net.Sum + p.Tax));
        Assert.Equal(189.99m, billing.Parts.Sum(p => p.Tax));
        Assert.Equal(1195, billing.Parts.Sum(p => p.Total));
        // Without such rounding the tax's cents stay.
        var plain = Begun(new([Taxed(19)], ByCategory.Of(1000.01m), 1190.01m, false, 2));
        Assert.Equal(0, plain.LastStep().Rounding);
    }

    [Fact]
    public void M3_an_amount_is_shared_by_what_is_open_in_each_category()
    {
        var billing = Begun(Two(50, 50));
        var exempt = new List<decimal>();
        foreach (var amount in Split.ByLargestRemainder(100, [1, 1, 1]))
        {
            var part = billing.Step(amount, false);
            exempt.Add(part.Net[0]);
            billing = With(billing, part);
        }
        Assert.Equal([33.34m, 33.33m, 33.33m], billing.Parts.Select(p => p.Net.Sum));
        Assert.Equal([16.67m, 16.67m, 16.66m], exempt);
        var more = Begun(Two(100, 100));
        more = With(more, more.Step(100, false));
        more = more with { Contract = more.Contract with { Changes = [new(ByCategory.Of(0, 100), 120)] } };
        Assert.Equal([18.75m, 56.25m], more.Step(75, false).Net.Amounts.ToArray());
    }

    [Fact]
    public void M4_work_is_valued_by_line_and_rounded_once()
    {
        // A third of 100.00 and of 0.05, exempt, and half of 10.01, taxed: 33.333… + 0.01666… + 5.005 = 38.355, once.
        var done = WorkDone.ToDate(
            [
                new(ByCategory.Of(100, 0), 100m / 3),
                new(ByCategory.Of(0.05m, 0), 100m / 3),
                new(ByCategory.Of(0, 10.01m), 50),
            ],
            2,
            2
        );
        Assert.Equal(38.36m, done.Sum);
        Assert.Equal([33.35m, 5.01m], done.Amounts.ToArray());
        Assert.Equal(
            [100.05m, 10.01m],
            WorkDone.ToDate([new(ByCategory.Of(100.05m, 10.01m), 100)], 2, 2).Amounts.ToArray()
        );
        Assert.Throws<RefusedException>(() => WorkDone.ToDate([new(ByCategory.Of(1), 101)], 1, 2));
        // A line that was credited more than its category holds still sums.
        Assert.Equal(5, WorkDone.ToDate([new(ByCategory.Of(-5, 15), 50)], 2, 2).Sum);
    }

    [Fact]
    public void M6_the_last_step_closes_on_what_is_open()
    {
        var billing = Begun(One(10_000));
        billing = With(billing, billing.Step(3000, false));
        billing = billing with { Contract = billing.Contract with { Changes = [new(ByCategory.Of(1000), 1200)] } };
        billing = With(billing, billing.Step(4000, false));
        billing = With(billing, billing.LastStep());
        Assert.Equal([3000m, 4000m, 4000m], billing.Parts.Select(p => p.Net.Sum));
        Assert.Equal(0, billing.Open.Sum);
    }

    [Fact]
    public void M7_a_percent_is_done_to_date_and_less_than_before_is_a_credit()
    {
        var billing = Begun(One(10_000));
        billing = With(billing, billing.ToDate(billing.Percent(40)));
        billing = With(billing, billing.ToDate(billing.Percent(70)));
        Assert.Equal([4000m, 3000m], billing.Parts.Select(p => p.Net.Sum));
        Assert.Equal(-1000, billing.ToDate(billing.Percent(60)).Net.Sum);
        // Of the contract sum as it is that day.
        billing = billing with
        {
            Contract = billing.Contract with { Changes = [new(ByCategory.Of(2000), 2400)] },
        };
        Assert.Equal(2600, billing.ToDate(billing.Percent(80)).Net.Sum);
    }

    [Theory]
    [InlineData(AccountUse.InProportion, 2800, 2100, 2100)]
    [InlineData(AccountUse.First, 1000, 3000, 3000)]
    [InlineData(AccountUse.Last, 4000, 3000, 0)]
    public void M8_a_deposit_is_used_up_as_the_firm_says(AccountUse use, int first, int second, int third)
    {
        var billing = Begun(One(10_000), use);
        billing = With(billing, billing.Account(3000));
        foreach (var percent in new[] { 40, 70, 100 })
            billing = With(billing, billing.ToDate(billing.Percent(percent)));
        Assert.Equal([3000m, first, second, third], billing.Parts.Select(p => p.Net.Sum));
        Assert.Equal((0, 0), (billing.OnAccount.Sum, billing.Open.Sum));
    }

    [Fact]
    public void M9_a_deposit_is_taxed_when_billed_and_used_up_in_its_own_categories()
    {
        var billing = Begun(One(10_000));
        billing = With(billing, billing.Account(3000));
        Assert.Equal(600, billing.Parts[0].Tax);
        var part = billing.ToDate(billing.Percent(40));
        Assert.Equal((4000, 1200, 2800, 560), (part.Work.Sum, part.Used.Sum, part.Net.Sum, part.Tax));
        var two = Begun(Two(100, 100));
        two = With(two, two.Account(60));
        Assert.Equal([85m, -15m], two.ToDate(ByCategory.Of(100, 0)).Net.Amounts.ToArray());
    }

    [Fact]
    public void M10_retention_is_of_the_value_to_date()
    {
        decimal[] Retained(Billing billing) => [.. billing.Parts.Select(p => p.Retained)];
        var steps = Begun(One(10_000), retention: FivePercent());
        steps = With(steps, steps.Step(3000, onAccount: true));
        steps = With(steps, steps.Step(4000, onAccount: false));
        steps = With(steps, steps.LastStep());
        Assert.Equal([0, 350, 150], Retained(steps));
        decimal[] ByPercent(AccountUse use, Retention retention)
        {
            var billing = Begun(One(10_000), use, retention);
            billing = With(billing, billing.Account(3000));
            foreach (var percent in new[] { 40, 70, 100 })
                billing = With(billing, billing.ToDate(billing.Percent(percent)));
            return Retained(billing)[1..];
        }
        Assert.Equal([200, 150, 150], ByPercent(AccountUse.InProportion, FivePercent()));
        Assert.Equal([200, 100, 0], ByPercent(AccountUse.InProportion, FivePercent(cap: 300)));
        // The cap may be a percent of the contract sum: 3 % of 10,000 are the same 300.
        Assert.Equal([200, 100, 0], ByPercent(AccountUse.InProportion, new(5, null, 3, [100])));
        // No part retains more than it bills.
        Assert.Equal([200, 150, 0], ByPercent(AccountUse.Last, FivePercent()));
    }

    [Fact]
    public void M11_and_M12_tax_in_full_and_releases_in_shares_of_all_that_was_retained()
    {
        var billing = Begun(One(10_000), retention: FivePercent());
        var part = billing.ToDate(billing.Percent(100));
        Assert.Equal((12_000, 11_500, 500), (part.Total, part.PayableNow, part.Retained));
        var retention = FivePercent();
        Assert.Equal(250, retention.Release(1, 500, 0, 2));
        Assert.Equal(250, retention.Release(2, 500, 250, 2));
        // An odd cent falls to the last.
        Assert.Equal((0.02m, 0.01m), (retention.Release(1, 0.03m, 0, 2), retention.Release(2, 0.03m, 0.02m, 2)));
        Assert.Throws<RefusedException>(() => retention.Release(3, 500, 500, 2));
        foreach (
            var (wrong, field) in new[]
            {
                (new Retention(101, null, null, [100]), "percent"),
                (new Retention(5, -1, null, [100]), "cap"),
                (new Retention(5, null, null, [50]), "releases"),
                (new Retention(5, null, null, [100, 50]), "releases"),
                (new Retention(5, null, null, []), "releases"),
            }
        )
            Assert.Equal(field, Assert.Throws<RefusedException>(wrong.Check).Refusal.Field);
        retention.Check();
        Retention.None.Check();
    }

    [Fact]
    public void M14_to_M16_and_M19_what_changes_is_worth()
    {
        Assert.Equal(-750, ChangedWork.Dropped(950, 200));
        Assert.Equal(0, ChangedWork.Dropped(950, 1000));
        // Built 400, least 500, so the contract sum is 500: a drop of 100 takes nothing off it.
        Assert.Equal(0, ChangedWork.AboveLeast(-100, 500, 500));
        Assert.Equal(-100, ChangedWork.AboveLeast(-100, 500, 0));
        Assert.Equal(-50, ChangedWork.AboveLeast(-100, 550, 500));
        Assert.Equal(250, ChangedWork.Remeasured(10, 25, 2));
        // 1,720 with 20 % reclaimed are 1,433.33.
        Assert.Equal(-66.67m, ChangedWork.Settled(1500, 1720 / 1.2m, 15, 2));
        Assert.Equal(253, ChangedWork.Settled(1500, 1720, 15, 2));
        Assert.Equal(-1500, ChangedWork.Settled(1500, 0, 15, 2));
    }

    [Fact]
    public void M20_credit_notes_never_take_more_than_is_left_and_the_last_takes_its_tax()
    {
        var contract = One(10);
        var (invoice, tax) = (ByCategory.Of(0.10m), 0.02m);
        ImmutableArray<CreditNote> notes = [];
        foreach (var amount in new[] { 0.03m, 0.03m, 0.04m })
            notes = notes.Add(CreditNote.Of(contract, invoice, tax, notes, ByCategory.Of(amount)));
        Assert.Equal([0.01m, 0.01m, 0m], notes.Select(n => n.Tax));
        foreach (var amount in new[] { 0.01m, -0.01m, 0 })
            Assert.Throws<RefusedException>(() => CreditNote.Of(contract, invoice, tax, notes, ByCategory.Of(amount)));
        Assert.Throws<RefusedException>(() => CreditNote.Of(contract, invoice, tax, [], ByCategory.Of(0.11m)));
    }

    [Fact]
    public void M21_more_than_the_contract_sum_is_billed_ahead()
    {
        var billing = Begun(One(1000));
        billing = With(billing, billing.Account(1100));
        Assert.Equal(100, billing.BilledAhead);
        Assert.Equal(0, Begun(One(1000)).BilledAhead);
    }

    [Fact]
    public void M23_a_valuation_says_in_order_what_is_billed()
    {
        var billing = Begun(One(10_000), retention: FivePercent());
        billing = With(billing, billing.Account(3000));
        billing = With(billing, billing.ToDate(billing.Percent(40)));
        var part = billing.ToDate(billing.Percent(70));
        Assert.Equal(
            new Valuation(7000, 4000, 3000, 900, 2100, 420, 350, 150, 2370, 3000),
            Valuation.Of(billing, part)
        );
    }

    [Fact]
    public void M24_and_M25_early_and_late()
    {
        var billing = Begun(One(1000, 19));
        Assert.Equal((23.80m, 20.00m, 3.80m), LateAndEarly.Discount(billing.ToDate(billing.Percent(100)), 2, 2));
        var issued = new DateOnly(2027, 1, 1);
        Assert.True(LateAndEarly.IsEarly(issued, 10, new(2027, 1, 11)));
        Assert.False(LateAndEarly.IsEarly(issued, 10, new(2027, 1, 12)));
        Assert.Equal(8.88m, LateAndEarly.Interest(1000, 9, issued, issued.AddDays(36), 2));
        Assert.Equal(0, LateAndEarly.Interest(1000, 9, issued, issued, 2));
    }

    [Fact]
    public void M26_a_payment_goes_where_it_says_else_to_the_oldest_due()
    {
        OpenInvoice[] open =
        [
            new("2027-0003", new(2027, 3, 1), 300),
            new("2027-0001", new(2027, 1, 1), 100),
            new("2027-0002", new(2027, 1, 1), 200),
        ];
        Assert.Equal([("2027-0001", 100m), ("2027-0002", 50m)], Payments.Of(150, [], open).To.ToArray());
        var named = Payments.Of(350, ["2027-0003"], open);
        Assert.Equal([("2027-0003", 300m)], named.To.ToArray());
        Assert.Equal(50, named.Credit);
        Assert.Equal(100, Payments.Of(700, [], open).Credit);
    }

    [Fact]
    public void M27_a_line_is_worth_what_was_measured_and_exactly_ten_percent_is_not_flagged()
    {
        Assert.Equal(2500, new Remeasured(100, 25, null, 2).Value);
        Assert.Equal((2750, false), (new Remeasured(100, 25, 110, 2).Value, new Remeasured(100, 25, 110, 2).IsFlagged));
        Assert.Equal(
            (2762.5m, true),
            (new Remeasured(100, 25, 110.5m, 2).Value, new Remeasured(100, 25, 110.5m, 2).IsFlagged)
        );
        Assert.True(new Remeasured(100, 25, 89, 2).IsFlagged);
        Assert.False(new Remeasured(100, 25, null, 2).IsFlagged);
    }

    [Fact]
    public void M28_only_signed_sheets_are_billed_under_the_cap()
    {
        DaySheet[] sheets = [new([new(10, 70)], true), new([new(100, 100)], false), new([new(10.25m, 58)], true)];
        var billed = DaySheets.Of(sheets, 1000, 2);
        Assert.Equal([700m, 300m], billed.Billed.ToArray());
        Assert.Equal(294.50m, billed.Above);
        Assert.Equal((900, 1000), (billed.ContractSum(900, false), billed.ContractSum(900, true)));
        Assert.Equal([700m, 594.50m], DaySheets.Of(sheets, null, 2).Billed.ToArray());
    }

    [Fact]
    public void M29_the_rate_is_that_of_the_day_and_sums_before_tax_stay()
    {
        var billing = Begun(One(1000, 19));
        billing = billing with { Contract = billing.Contract with { Categories = [Taxed(20)] } };
        var part = billing.ToDate(billing.Percent(100));
        Assert.Equal((1000, 1200), (part.Net.Sum, part.Total));
    }

    /// <summary>Whatever is billed, changed and used up, a contract closes to the cent in each category, and no more is retained than its percent.</summary>
    [Fact]
    public void Contracts_close_in_every_category()
    {
        for (var seed = 13_000_000; seed < 13_000_500; seed++)
        {
            var random = new Random(seed);
            decimal Money(int most) => random.Next(0, most * 100) / 100m;
            var contract = Two(Money(2000), Money(2000), Money(25));
            var billing = Begun(
                contract,
                (AccountUse)random.Next(3),
                random.Next(2) == 0 ? Retention.None : FivePercent(random.Next(2) == 0 ? null : Money(100))
            );
            if (random.Next(2) == 0)
                billing = With(billing, billing.Account(Rounding.Money(contract.Sum.Sum * random.Next(0, 60) / 100m)));
            var done = 0;
            for (var n = random.Next(1, 6); n > 0; n--)
            {
                if (random.Next(4) == 0)
                {
                    var more = ByCategory.Of(Money(300), Money(300));
                    billing = billing with
                    {
                        Contract = billing.Contract with
                        {
                            Changes = billing.Contract.Changes.Add(new(more, more.Sum + contract.Tax(more))),
                        },
                    };
                }
                done = random.Next(done, 100);
                billing = With(billing, billing.ToDate(billing.Percent(done)));
                Assert.True(billing.Parts[^1].Used.Sum <= Math.Max(billing.Parts[^1].Work.Sum, 0), $"{seed}: used");
                Assert.True(billing.OnAccount.Sum >= 0, $"{seed}: {billing.OnAccount.Sum} on account");
            }
            billing = With(billing, billing.ToDate(billing.Contract.Sum, last: true));
            Assert.True(billing.OnAccount.Amounts.All(a => a == 0), $"{seed}: left on account");
            Assert.True(
                billing.Open.Amounts.All(a => a == 0),
                $"{seed}: open {string.Join(' ', billing.Open.Amounts)}"
            );
            Assert.True(
                billing.Retained <= Rounding.Money(billing.Contract.Sum.Sum * billing.Retention.Percent / 100m),
                $"{seed}: retained"
            );
        }
    }
}
