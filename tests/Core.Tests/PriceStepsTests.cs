using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What happens to a price after its basis has made it, in order, by the numbers of the model (§7) and of *Pricing*, and by hand.</summary>
public class PriceStepsTests
{
    private static PricedJob At(decimal cost, Func<PricingTerms, PricingTerms>? terms = null)
    {
        var job = new PricedJob();
        job.Work(labour: cost);
        return terms is null ? job : job.With(terms);
    }

    private static Brackets ByArea(bool never) =>
        new(BracketBy.Quantity, [new(0, 15), new(500, 0)], never)
        {
            Measure = Measure.FloorArea,
            Unit = Unit.SquareFoot,
        };

    [Theory]
    // 2 per ft², under 500 ft² + 15 %.
    [InlineData("499.99' x 1' x 8'", false, 1149.98)]
    [InlineData("500' x 1' x 8'", false, 1000.00)]
    [InlineData("500.01' x 1' x 8'", false, 1000.02)]
    [InlineData("499.99' x 1' x 8'", true, 1000.00)]
    [InlineData("400' x 1' x 8'", true, 920.00)]
    public void Brackets_at_and_around_their_edges(string size, bool never, double price)
    {
        var job = new PricedJob();
        job.Sold(2, at: [job.Place("R " + size)]);
        job.With(t => t with { Brackets = ByArea(never) });
        Assert.Equal((decimal)price, job.Price.BeforeTax.V);
    }

    [Fact]
    public void Brackets_go_by_price_or_hours_and_leave_fixed_sections_and_allowances_alone()
    {
        var job = At(1000, t => t with { Brackets = new(BracketBy.Price, [new(1000, -5)], false) });
        Assert.Equal(950m, job.Price.BeforeTax.V);
        job.Work(labour: 10, section: "Own");
        job.Section("Own", new(PriceBasis.Fixed) { FixedPrice = 500 });
        Assert.Equal(1450m, job.Price.BeforeTax.V);
        // One hour of it is the first's, one the fixed section's.
        job.With(t => t with { Brackets = new(BracketBy.Hours, [new(3, 10)], false) });
        Assert.Equal(1500m, job.Price.BeforeTax.V);
        job.With(t => t with { Brackets = new(BracketBy.Hours, [new(2, 10)], false) });
        Assert.Equal(1600m, job.Price.BeforeTax.V);
    }

    [Fact]
    public void Least_charges_by_place_and_by_work_item()
    {
        // × 4 built at 30 each with 45 a place: 180; a work-item least of 200 adds 20.
        var job = new PricedJob(PricedJob.Plain with { LeastPlace = 45 });
        var place = job.Place("R 10 x 10 x 8 x4");
        var work = job.Work(labour: 30, at: [place]);
        Assert.Equal(4, job.Job.Place(place)!.Count);
        Assert.Equal((180m, 60m), (job.Price.BeforeTax.V, job.Step("least")));
        job.Set(work, "least", 200m);
        Assert.Equal((200m, 80m), (job.Price.BeforeTax.V, job.Step("least")));
        Assert.Equal([60m, 20m], job.Price.Draft.Shortfalls.Select(s => s.By.V));
    }

    [Fact]
    public void A_places_least_is_that_of_each_line_there()
    {
        // 150, two lines of 100 in one room: 300.
        var job = new PricedJob(PricedJob.Plain with { LeastPlace = 150 });
        var room = job.Place();
        job.Work(labour: 100, at: [room]);
        job.Work(labour: 100, at: [room]);
        Assert.Equal(300m, job.Price.BeforeTax.V);
    }

    [Fact]
    public void Line_section_and_job_minimum_together_each_on_raised_amounts()
    {
        // 20 → 50 and 80; the section at 130 → 150; beside it 40 → 50; the job at 200 → 260.
        var job = new PricedJob(PricedJob.Plain with { LeastLine = 50, LeastJob = 260 });
        job.Work(labour: 20, section: "A");
        job.Work(labour: 80, section: "A");
        job.Work(labour: 40, section: "B");
        job.Section("A", least: 150);
        Assert.Equal((60m, 60m, 260m), (job.Step("least"), job.Step("leastJob"), job.Price.BeforeTax.V));
        Assert.Equal([30m, 10m, 20m, 60m], job.Price.Draft.Shortfalls.Select(s => s.By.V));
        // Lines: 50 + 20·50/130 = 57.69, 80 + 12.31 = 92.31, 50; the job's 60 by price: 74.997, 120.003, 65.
        Assert.Equal([75.00m, 120.00m, 65.00m], Spread.Of(job.Estimate, Trace.Silent).Lines.Select(l => l.V));
    }

    [Fact]
    public void No_least_charge_on_what_is_nothing_excluded_the_customers_or_in_a_fixed_price()
    {
        var job = new PricedJob(PricedJob.Plain with { LeastLine = 500 });
        var place = job.Place();
        var work = job.Work(labour: 20, at: [place]);
        Assert.Equal(500m, job.Price.BeforeTax.V);
        decimal With(Job other) => Sample.Reckon(other).Price.BeforeTax.V;
        Assert.Equal(0m, With(job.Job.Fill(work, [place], CellState.Excluded)));
        Assert.Equal(0m, With(job.Job.Set<Supply?>(work, place, "supply", Supply.Customer)));
        Assert.Equal(
            0m,
            With(job.Job.Set(work, place, "quantity", new TypedQuantity(Kind.Area, "0 ft²", UnitSystem.Feet)))
        );
        Assert.Equal(120m, With(job.Job.Set<decimal?>(work, place, "allowance", 120)));
        job.Section("S", new(PriceBasis.Fixed) { FixedPrice = 80 });
        Assert.Equal(80m, job.Price.BeforeTax.V);
    }

    [Fact]
    public void The_least_price_of_a_price_only_item_is_its_work_items_after_those_of_its_lines()
    {
        // 10 and 40 → 50 and 50 by line; the item at 100 is at its least.
        var job = new PricedJob(PricedJob.Plain with { LeastLine = 50 });
        var (a, b) = (job.Place("R 1 x 10 x 8"), job.Place("R 4 x 10 x 8"));
        job.Sold(1, at: [a, b], minimum: 100);
        Assert.Equal(100m, job.Price.BeforeTax.V);
        job.With(t => t with { LeastLine = 0 });
        Assert.Equal((100m, 50m), (job.Price.BeforeTax.V, job.Step("least")));
        Assert.Equal([20m, 80m], Spread.Of(job.Estimate, Trace.Silent).Lines.Select(l => l.V));
    }

    [Fact]
    public void Allowances_stand_outside_least_charges_and_discounts_and_cost_their_sum()
    {
        // 300 of work and an allowance of 1,500, job's least 500: 2,000.
        var job = At(300, t => t with { LeastJob = 500 });
        var allowed = job.Work(labour: 7);
        job.Set(allowed, "allowance", 1500m);
        Assert.Equal(2000m, job.Price.BeforeTax.V);
        job.With(t => t with { Discounts = [new("Early", 10, null)] });
        Assert.Equal(1950m, job.Price.BeforeTax.V);
        // The worked example with 1,500 allowed: gross profit 565.81.
        var worked = new PricedJob(PricedJob.Worked);
        worked.Work(labour: 1000, goods: 400);
        worked.Set(worked.Work(labour: 1), "allowance", 1500m);
        Assert.Equal((3465.81m, 565.81m), (worked.Price.BeforeTax.V, worked.Price.Readouts.GrossProfit.V));
    }

    [Fact]
    public void Discounts_each_on_what_is_left_and_below_a_least_charge_with_a_word()
    {
        var job = At(
            1000,
            t => t with { Discounts = [new("Trade", 10, null), new("Flyer", null, 50), new("Early", 2, null)] }
        );
        Assert.Equal([-100m, -50m, -17m], job.Price.Steps.Where(s => s.IsDiscount).Select(s => s.Amount.V));
        Assert.Equal(833m, job.Price.BeforeTax.V);
        // A money discount under a minimum: 300 raised to 500, 80 off.
        var small = At(300, t => t with { LeastJob = 500, Discounts = [new("Neighbour", null, 80)] });
        Assert.Equal(420m, small.Price.BeforeTax.V);
        Assert.Equal("Neighbour, below the least charge of the job", small.Price.Step("discounts/1")!.Note);
        // No more than is left.
        Assert.Equal(0m, At(30, t => t with { Discounts = [new("Gift", null, 80)] }).Price.BeforeTax.V);
    }

    [Theory]
    [InlineData(10, null, 1111.11)]
    [InlineData(null, 75, 1075.00)]
    public void A_raised_list_leaves_the_intended_price(int? percent, int? amount, double list)
    {
        var job = At(1000, t => t with { RaiseList = true, Discounts = [new("Sale", percent, amount)] });
        Assert.Equal(1000m, job.Price.BeforeTax.V);
        Assert.Equal((decimal)list - 1000m, job.Step("raised"));
        var two = job.With(t => t with { Discounts = [new("A", 3, null), new("B", 7, null), new("C", 1, null)] });
        Assert.Equal(1000m, two.Price.BeforeTax.V);
        Assert.Throws<RefusedException>(() => job.With(t => t with { Discounts = [new("All", 100, null)] }));
    }

    [Fact]
    public void Fees_on_the_price_and_on_what_the_customer_pays()
    {
        // Cost 600, built 1,000, fee 2.9 %: 1,029.87, profit 400.00 = 38.84 %.
        var job = At(
            600,
            t => t with { Basis = PriceBasis.TargetMargin, TargetMargin = 40, Fees = [new("Card", 2.9m, false)] }
        );
        Assert.Equal((1029.87m, 400m), (job.Price.BeforeTax.V, job.Price.Readouts.GrossProfit.V));
        Assert.Equal(38.84m, decimal.Round(job.Price.Readouts.Margin!.V, 2));
        // On the total with 8 % tax: 1,032.33.
        job.With(t => t with { Taxes = [PricedJob.Tax(8)], Fees = [new("Card", 2.9m, true)] });
        Assert.Equal(1032.33m, job.Price.BeforeTax.V);
        // Under a fixed price it comes out of it: 1,000 stays, fee 29.00.
        var set = At(
            600,
            t => t with { Basis = PriceBasis.Fixed, FixedPrice = 1000, Fees = [new("Card", 2.9m, false)] }
        );
        Assert.Equal((1000m, 29m, 371m), (set.Price.BeforeTax.V, set.Step("fees/1"), set.Price.Readouts.GrossProfit.V));
        Assert.Equal(StepKind.Within, set.Price.Step("fees/1")!.Kind);
        // 1,000 and a section fixed at 500: 1,544.80.
        var beside = At(1000, t => t with { Fees = [new("Card", 2.9m, false)] });
        beside.Work(labour: 1, section: "Own");
        beside.Section("Own", new(PriceBasis.Fixed) { FixedPrice = 500 });
        Assert.Equal(1544.80m, beside.Price.BeforeTax.V);
    }

    [Fact]
    public void Several_fees_share_what_they_add_and_a_target_price_bears_them()
    {
        // 970 ÷ (1 − 3 %) = 1,000: bond 10, commission 20.
        var job = At(970, t => t with { Fees = [new("Bond", 1, false), new("Commission", 2, false)], GoalMargin = 47 });
        Assert.Equal((1000m, 10m, 20m), (job.Price.BeforeTax.V, job.Step("fees/1"), job.Step("fees/2")));
        // At 47 % of the price, fees at 3: 970 ÷ 0.5.
        Assert.Equal(1940m, job.Price.Readouts.AtGoal.V);
    }

    [Theory]
    [InlineData(5, false, false, 1003, 1005, 80.40, 1085.40)]
    [InlineData(5, true, false, 1001, 1005, 80.40, 1085.40)]
    [InlineData(5, true, true, 1001, 1001, 80.08, 1085)] // 1,081.08 up to 1,085: 3.92, not taxed
    [InlineData(10, false, false, 1005, 1010, 80.80, 1090.80)] // half away from zero
    [InlineData(10, false, false, 1004.99, 1000, 80, 1080)]
    public void Rounding_before_and_after_tax(
        int to,
        bool up,
        bool after,
        double built,
        double price,
        double tax,
        double total
    )
    {
        var job = At((decimal)built, t => t with { Rounding = new(to, up, after), Taxes = [PricedJob.Tax(8)] });
        Assert.Equal(
            ((decimal)price, (decimal)tax, (decimal)total),
            (job.Price.BeforeTax.V, job.Price.Tax, job.Price.Total.V)
        );
    }

    [Fact]
    public void A_fixed_price_is_not_rounded_before_tax()
    {
        var job = At(
            600,
            t => t with { Basis = PriceBasis.Fixed, FixedPrice = 1003, Rounding = new(10, false, false) }
        );
        Assert.Equal(1003m, job.Price.BeforeTax.V);
    }

    [Fact]
    public void Labour_at_one_tax_goods_at_another_one_exempt()
    {
        // Labour 100 at 5 %, goods 200 at 20 %, work that is exempt 60: 5.00 + 40.00.
        var (five, twenty) = (PricedJob.Tax(5, TaxOn.Labour), PricedJob.Tax(20, TaxOn.Material));
        var job = new PricedJob(PricedJob.Plain with { Taxes = [five, twenty] });
        job.Work(labour: 100, goods: 200);
        job.Work(labour: 60, entry: e => e with { TaxExempt = "repair of a listed building" });
        Assert.Equal([5m, 40m], job.Price.Taxes.Select(t => t.Amount.V));
        Assert.Equal([100m, 200m], job.Price.Taxes.Select(t => t.Taxed.V));
        Assert.Equal(["S", "S", "E"], job.Price.Portions.Select(p => p.Tax.Code).OrderDescending());
        Assert.Equal("repair of a listed building", job.Price.Portions.Single(p => p.Tax.Code == "E").Tax.Reason);
        // A customer's exemption lifts all charged tax.
        job.With(t => t with { Exemption = new(ExemptKind.ReverseCharge, "Certificate 12") });
        Assert.Equal((0m, "AE"), (job.Price.Tax, Assert.Single(job.Price.Portions).Tax.Code));
    }

    [Fact]
    public void Rates_on_one_amount_add_up_and_none_falls_on_another()
    {
        // 1,000 at 5 % and 9.975 %: 149.75.
        var job = At(1000, t => t with { Taxes = [PricedJob.Tax(5), PricedJob.Tax(9.975m)] });
        Assert.Equal((149.75m, 1149.75m), (job.Price.Tax, job.Price.Total.V));
    }

    [Fact]
    public void Tax_paid_on_purchases_is_cost_before_markup()
    {
        // 400 + 7 %, 20 % markup: 513.60.
        var paid = new Tax(Sample.NewId(), "Use tax", 7, [TaxOn.Material], TaxWay.Paid);
        var job = new PricedJob(PricedJob.Plain with { MaterialMarkup = 20, Taxes = [paid] });
        job.Work(goods: 400);
        Assert.Equal((428m, 513.60m, 513.60m), (job.Price.Direct.V, job.Price.BeforeTax.V, job.Price.Total.V));
        // Only the goods' own exemption lifts it.
        job.With(t => t with { Exemption = new(ExemptKind.Exempt, "School") });
        Assert.Equal(513.60m, job.Price.BeforeTax.V);
        var free = new PricedJob(PricedJob.Plain with { MaterialMarkup = 20, Taxes = [paid] });
        free.Work(goods: 400, of: m => m with { Taxed = false });
        Assert.Equal(480m, free.Price.BeforeTax.V);
    }

    [Fact]
    public void Reclaimed_tax_is_taken_out_of_prices_that_include_it()
    {
        var vat = new Tax(Sample.NewId(), "VAT", 20, Tax.Everything, TaxWay.Reclaimed);
        var job = new PricedJob(PricedJob.Plain with { Taxes = [vat] });
        job.Work(goods: 120, of: m => m with { PriceIncludesTax = true });
        // 100 without it, 20 % charged.
        Assert.Equal((100m, 120m), (job.Price.BeforeTax.V, job.Price.Total.V));
        // Where it does not come back, 120 is what it costs, and it is not taxed again.
        job.With(t => t with { Taxes = [vat with { Way = TaxWay.Charged }] });
        Assert.Equal((120m, 120m), (job.Price.BeforeTax.V, job.Price.Total.V));
    }

    [Fact]
    public void A_shortfall_stays_in_the_category_of_what_it_raises()
    {
        // Exempt 60 raised to 100 beside 900 at 20 %: tax 180.00.
        var job = new PricedJob(PricedJob.Plain with { LeastLine = 100, Taxes = [PricedJob.Tax(20)] });
        job.Work(labour: 900);
        job.Work(labour: 60, entry: e => e with { TaxExempt = "exempt" });
        Assert.Equal((1000m, 180m), (job.Price.BeforeTax.V, job.Price.Tax));
    }

    [Fact]
    public void Unit_prices_are_taxed_by_the_own_cost_of_each_line()
    {
        // Line A all labour, cost 100, price 300; line B all goods, cost 100, price 150; 10 % on goods: tax 15.00.
        var job = new PricedJob(
            PricedJob.Plain with
            {
                Basis = PriceBasis.UnitPrice,
                Taxes = [PricedJob.Tax(10, TaxOn.Material)],
            }
        );
        job.Work(labour: 100, entry: e => e with { UnitPrice = new(3, Unit.SquareFoot) });
        job.Work(goods: 100, entry: e => e with { UnitPrice = new(1.5m, Unit.SquareFoot) });
        Assert.Equal((450m, 15m), (job.Price.BeforeTax.V, job.Price.Tax));
    }

    [Fact]
    public void Tax_falls_once_on_the_sum_of_a_rate()
    {
        // 40 lines of 10.01, half of them taxed 20 %: tax 40.04.
        var job = new PricedJob(PricedJob.Plain with { Taxes = [PricedJob.Tax(20)] });
        for (var i = 0; i < 40; i++)
            job.Sold(0.1001m, taxable: i % 2 == 0);
        Assert.Equal((400.40m, 40.04m), (job.Price.BeforeTax.V, job.Price.Tax));
    }

    [Fact]
    public void Amounts_of_the_job_are_shared_over_all_categories_by_price()
    {
        // 900 taxed and 100 not, 10 % off: 810 at 20 %.
        var job = new PricedJob(PricedJob.Plain with { Taxes = [PricedJob.Tax(20, TaxOn.Labour)] });
        job.Work(labour: 900, goods: 100);
        job.With(t => t with { Discounts = [new("Early", 10, null)] });
        Assert.Equal((900m, 162m), (job.Price.BeforeTax.V, job.Price.Tax));
    }

    [Fact]
    public void Contingency_shown_on_its_own_moves_no_price()
    {
        var job = new PricedJob(PricedJob.Worked);
        job.Work(labour: 1000, goods: 400);
        job.Work(labour: 200);
        var price = job.Price;
        job.With(t => t with { ShowContingency = true });
        Assert.Equal((price.BeforeTax.V, price.Total.V), (job.Price.BeforeTax.V, job.Price.Total.V));
        var spread = Spread.Of(job.Estimate, Trace.Silent);
        Assert.Equal(job.Step("contingency"), spread.Contingency.V);
        Assert.Equal(price.BeforeTax.V, spread.Lines.Sum(l => l.V) + spread.Contingency.V);
    }

    [Fact]
    public void Hidden_work_is_borne_within_its_tax_category_or_by_other_work()
    {
        var job = new PricedJob(PricedJob.Plain with { Taxes = [PricedJob.Tax(10, TaxOn.Material)] });
        job.Work(labour: 100);
        var hidden = job.Work(labour: 30, goods: 50);
        job.Set(hidden, "hidden", true);
        var spread = Spread.Of(job.Estimate, Trace.Silent);
        // Its labour goes to the visible labour; nothing visible has goods.
        Assert.Equal([130m, 0m], spread.Shown.Select(l => l.V));
        Assert.Equal(50m, spread.Other.V);
    }

    [Fact]
    public void What_no_line_can_bear_stands_beside_them()
    {
        // An allowance in a section of its own basis bears no adjustment, and nothing else is there to bear it: 500 + 35.
        var job = new PricedJob(PricedJob.Plain with { Adjustment = 35 });
        var work = job.Work(labour: 10);
        job.Set(work, "allowance", 500m);
        job.Section("S", new(PriceBasis.Markup));
        var spread = Spread.Of(job.Estimate, Trace.Silent);
        Assert.Equal(
            (535m, 500m, 35m, 35m),
            (job.Price.BeforeTax.V, spread.Lines.Sum(l => l.V), spread.NoLines.V, spread.Other.V)
        );
    }

    [Fact]
    public void In_a_currency_without_cents_sections_of_their_own_leave_no_odd_rest()
    {
        // A pack of 99.50 in yen, all of it used in a section that is priced by itself: 100, and no line of −1 beside it.
        var job = new PricedJob(PricedJob.Plain, "JPY");
        job.Work(goods: 99.5m, section: "Own");
        job.Work(goods: 99.5m, section: "Own");
        job.Work(goods: 0.2m, section: "Own");
        job.Section("Own", new(PriceBasis.Markup));
        Assert.DoesNotContain(job.Price.Steps, s => s.Kind == StepKind.Cost && s.Amount.V != 0);
        Assert.Equal(job.Price.BeforeTax.V, Spread.Of(job.Estimate, Trace.Silent).Lines.Sum(l => l.V));
    }
}
