using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Each way of making a price from costs, by the numbers of the model (§7) and of *Pricing*, and by hand.</summary>
public class BasesTests
{
    private static PricedJob Worked(PricingTerms? terms = null)
    {
        var job = new PricedJob(terms ?? PricedJob.Worked);
        job.Work(labour: 1000, goods: 400);
        return job;
    }

    [Fact]
    public void Markup_margin_and_a_price_only_line_after_it()
    {
        var job = Worked();
        Assert.Equal(1965.81m, job.Price.BeforeTax.V);
        job.Sold(5);
        // 100 ft² at 5: no overhead, contingency or profit falls on it.
        Assert.Equal(2465.81m, job.Price.BeforeTax.V);
        job.With(t => t with { Basis = PriceBasis.TargetMargin, TargetMargin = 30 });
        Assert.Equal(1400m / 0.7m + 500, job.Price.BeforeTax.V);
    }

    [Fact]
    public void A_charge_rate_on_hours_and_markups_on_the_rest()
    {
        // Estimating model §7, basis 3: 100 h at 58 and 900 of material at 25 % → 6,925.00.
        var job = new PricedJob(
            PricedJob.Worked with
            {
                Basis = PriceBasis.SellRate,
                SellRate = 58,
                MaterialMarkup = 25,
            }
        );
        job.Work(role: Sample.Role(), hours: 100, goods: 900);
        Assert.Equal(6925m, job.Price.BeforeTax.V);
        // Overhead and contingency are read off: 10 % of 2,900, 5 % of 3,190; what is left is 6,925 less all of that.
        Assert.Equal((290m, 159.50m), (job.Step("overhead"), job.Step("contingency")));
        Assert.Equal(6925m - 2900m - 290m - 159.50m, job.Step("profit"));
    }

    [Fact]
    public void Each_role_at_its_own_rate_or_the_jobs()
    {
        // 60 h at 58 and 40 h at the job's 52: 5,560.
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.SellRate, SellRate = 52 });
        job.Work(role: Sample.Role("Lead") with { SellRate = 58 }, hours: 60);
        job.Work(role: Sample.Role("Hand"), hours: 40);
        Assert.Equal(5560m, job.Price.BeforeTax.V);
        var refused = Assert.Throws<RefusedException>(() => job.With(t => t with { SellRate = null }).Price);
        Assert.Contains("Hand has no charge rate", refused.Refusal.Message);
    }

    [Fact]
    public void Each_role_is_an_amount_of_its_own()
    {
        // Three of 19.3367 are 58.02; together they would be 58.01.
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.SellRate });
        for (var i = 0; i < 3; i++)
            job.Work(role: Sample.Role($"Role {i}") with { SellRate = 19.3367m });
        Assert.Equal(58.02m, job.Price.BeforeTax.V);
    }

    [Theory]
    [InlineData(true, 870)]
    [InlineData(false, 580)]
    public void A_premium_raises_a_charge_rate_only_where_it_is_sold_on(bool soldOn, decimal price)
    {
        // 10 h at × 1.5, charge rate 58.
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.SellRate });
        job.Work(
            role: Sample.Role() with
            {
                SellRate = 58,
                Premiums = [new("Night", 1.5m, 100) { SoldOn = soldOn }],
            },
            hours: 10
        );
        Assert.Equal(price, job.Price.BeforeTax.V);
    }

    private static UnitPrice PerFoot(decimal price) => new(price, Unit.SquareFoot);

    [Fact]
    public void Unit_prices_of_the_Book_of_the_job_and_of_a_cell()
    {
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.UnitPrice });
        var (a, b) = (job.Place(), job.Place("R 5 x 10 x 8"));
        var work = job.Work(labour: 60, at: [a, b], entry: e => e with { UnitPrice = PerFoot(4) });
        Assert.Equal(600m, job.Price.BeforeTax.V);
        job.Set(work, "unitPrice", PerFoot(5));
        Assert.Equal(750m, job.Price.BeforeTax.V);
        // The small place at 7: 100 · 5 + 50 · 7.
        var small = job.Job.Set(work, b, "unitPrice", PerFoot(7));
        Assert.Equal(850m, Sample.Reckon(small).Price.BeforeTax.V);
        Assert.Equal([500m, 350m], Spread.Of(Sample.Reckon(small), Trace.Silent).Lines.Select(l => l.V));
        // Per square yard: 150 ft² are 16.666… yd².
        job.Set(work, "unitPrice", new UnitPrice(9, Unit.Find("yd²")!));
        Assert.Equal(150m, job.Price.BeforeTax.V);
        // The customer supplies the material: the unit price stands until it is changed.
        job.Set(work, "supply", Supply.CustomerMaterial);
        Assert.Equal(150m, job.Price.BeforeTax.V);
    }

    [Fact]
    public void A_line_without_a_unit_price_is_refused_by_name_and_a_hidden_one_is_cost()
    {
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.UnitPrice });
        var refused = Assert.Throws<RefusedException>(() =>
        {
            job.Work(labour: 60);
            return job.Price;
        });
        Assert.Contains("S: Work 1 has no unit price", refused.Refusal.Message);
        Assert.Equal("unitPrice", refused.Refusal.Field);
        job.Set(job.Job.Work[0].Id, "hidden", true);
        Assert.Equal((0m, 60m, -60m), (job.Price.BeforeTax.V, job.Price.Direct.V, job.Price.Readouts.GrossProfit.V));
        Assert.Null(job.Price.Readouts.Margin);
    }

    [Fact]
    public void A_fixed_price_is_shared_by_the_usual_basis()
    {
        // Usual prices 120 (goods 100 at 20 %) and 100: 5,000 in that proportion.
        var job = new PricedJob(
            PricedJob.Plain with
            {
                Basis = PriceBasis.Fixed,
                FixedPrice = 5000,
                MaterialMarkup = 20,
            }
        );
        job.Work(goods: 100);
        job.Work(labour: 100);
        Assert.Equal(5000m, job.Price.BeforeTax.V);
        Assert.Equal([2727.27m, 2272.73m], Spread.Of(job.Estimate, Trace.Silent).Lines.Select(l => l.V));
        job.With(t => t with { UsualBasis = PriceBasis.TargetMargin });
        Assert.Equal([2500m, 2500m], Spread.Of(job.Estimate, Trace.Silent).Lines.Select(l => l.V));
        // A price below cost is a loss and is called one.
        job.With(t => t with { FixedPrice = 150 });
        Assert.Equal((-50m, "Loss"), (job.Step("profit"), job.Price.Step("profit")!.Label));
    }

    [Fact]
    public void A_fixed_price_without_work_is_no_price()
    {
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.Fixed, FixedPrice = 5000 });
        Assert.Equal(0m, job.Price.Total.V);
    }

    [Fact]
    public void A_section_with_its_own_basis_stands_beside_the_rest()
    {
        // 1,965.81 and a section fixed at 500, 5 % off: 2,342.52.
        var job = Worked();
        job.Work(labour: 100, section: "Own");
        job.Section("Own", new(PriceBasis.Fixed) { FixedPrice = 500 });
        Assert.Equal(2465.81m, job.Price.BeforeTax.V);
        // Cost of everything, once.
        Assert.Equal((1500m, 1965.81m + 500 - 1500), (job.Price.Direct.V, job.Price.Readouts.GrossProfit.V));
        job.With(t => t with { Discounts = [new("Second job", 5, null)] });
        Assert.Equal(2342.52m, job.Price.BeforeTax.V);
    }

    [Fact]
    public void A_fixed_job_covers_the_sections_without_a_basis_of_their_own()
    {
        // 5,000 and a section on unit prices 1,000: 6,000.
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.Fixed, FixedPrice = 5000 });
        job.Work(labour: 1000);
        job.Work(labour: 300, section: "Own", entry: e => e with { UnitPrice = PerFoot(10) });
        job.Section("Own", new(PriceBasis.UnitPrice));
        Assert.Equal(6000m, job.Price.BeforeTax.V);
        Assert.Equal([5000m, 1000m], Spread.Of(job.Estimate, Trace.Silent).Lines.Select(l => l.V));
    }

    [Fact]
    public void Sections_on_the_jobs_basis_are_one_build_up()
    {
        // Five of cost 100.004 with 10 %: 550.02; each by itself would be 110.00.
        var job = new PricedJob(PricedJob.Plain with { FixedMarkup = 10 });
        for (var i = 0; i < 5; i++)
            job.Work(charge: 100.004m, section: $"S{i}");
        Assert.Equal(550.02m, job.Price.BeforeTax.V);
        // A section on its own rate and margin beside them.
        job.Work(role: Sample.Role(), hours: 4, section: "Hours");
        job.Section("Hours", new(PriceBasis.SellRate) { SellRate = 50 });
        Assert.Equal(550.02m + 200m, job.Price.BeforeTax.V);
        job.Section("Hours", new(PriceBasis.TargetMargin) { TargetMargin = 60 });
        Assert.Equal(550.02m + 80m / 0.4m, job.Price.BeforeTax.V);
        job.Section("Hours", new(PriceBasis.Markup) { Profit = 25 });
        Assert.Equal(550.02m + 100m, job.Price.BeforeTax.V);
    }

    [Fact]
    public void Ways_stand_side_by_side_and_say_why_one_cannot_be_had()
    {
        var job = Worked();
        var ways = Way.Of(job.Estimate);
        Assert.Equal(Enum.GetValues<PriceBasis>(), ways.Select(w => w.Basis));
        Assert.Equal(1965.81m, ways[0].Estimate!.Price.BeforeTax.V);
        Assert.Equal(1400m / 0.55m, ways[1].Estimate!.Price.BeforeTax.V, 2);
        Assert.Contains("no charge rate", ways[2].Refused);
        Assert.Contains("no unit price", ways[3].Refused);
        Assert.Equal(1965.81m, ways[4].Estimate!.Price.BeforeTax.V);
    }

    [Theory]
    // Three places: 100.0045 is 100.005, and 10 % of it 10.001. None: 100 and 10.
    [InlineData("BHD", 110.006)]
    [InlineData("USD", 110.00)]
    [InlineData("JPY", 110)]
    public void Money_has_the_places_of_its_currency(string currency, double price)
    {
        var job = new PricedJob(PricedJob.Plain with { FixedMarkup = 10 }, currency);
        job.Work(charge: 100.0045m);
        job.Work(charge: 0);
        Assert.Equal((decimal)price, job.Price.BeforeTax.V);
        Assert.Equal((decimal)price, Spread.Of(job.Estimate, Trace.Silent).Lines.Sum(l => l.V));
    }

    [Fact]
    public void A_margin_of_100_percent_is_refused_with_its_reason()
    {
        var job = Worked();
        var refused = Assert.Throws<RefusedException>(() => job.With(t => t with { TargetMargin = 100 }));
        Assert.Equal("targetMargin", refused.Refusal.Field);
        Assert.Contains("no price is high enough", refused.Refusal.Message);
        Assert.Throws<RefusedException>(() => Solving.Of(Worked().Estimate, SolveFor.Margin, 100));
    }
}
