using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Payment steps (delivery.md M3, M5): they always come to the price and to the total, cents by largest remainder. Numbers of that page, and hand-reckoned ones.</summary>
public class PaymentPlanTests
{
    private static PaymentStep Percent(decimal percent) => new($"at {percent}", percent, null, false);

    private static PaymentStep Money(decimal amount, bool beforeTax = false) =>
        new($"for {amount}", null, amount, beforeTax);

    private static PaymentStep Left(string when = "the rest") => new(when, null, null, false);

    /// <summary>A job of so much before tax; <paramref name="taxed"/> of it is taxed at <paramref name="rate"/>.</summary>
    private static PricedJob Job(decimal price, decimal rate, decimal? taxed = null, params PaymentStep[] steps)
    {
        var job = new PricedJob(
            PricedJob.Plain with
            {
                Taxes = [PricedJob.Tax(rate, TaxOn.Material)],
                Payment = [.. steps],
            }
        );
        if (taxed != 0)
            job.Work(goods: taxed ?? price);
        if (taxed is { } part && part != price)
            job.Work(charge: price - part);
        job.Job.Pricing.Check();
        return job;
    }

    private static (decimal[] Net, decimal[] Total) Steps(PricedJob job)
    {
        var steps = PaymentPlan.Of(job.Estimate, Trace.Silent);
        Assert.Equal(job.Price.BeforeTax.V, steps.Sum(s => s.BeforeTax.V));
        Assert.Equal(job.Price.Total.V, steps.Sum(s => s.Total.V));
        return ([.. steps.Select(s => s.BeforeTax.V)], [.. steps.Select(s => s.Total.V)]);
    }

    [Fact]
    public void A_hundred_in_three_is_a_cent_more_in_the_first() =>
        Assert.Equal([33.34m, 33.33m, 33.33m], Steps(Job(100, 0, null, Left("a"), Left("b"), Left("c"))).Net);

    [Fact]
    public void Percents_are_of_the_price_and_print_as_parts_of_the_total()
    {
        var (net, total) = Steps(Job(1000, 20, null, Percent(30), Percent(40), Percent(30)));
        Assert.Equal([300m, 400m, 300m], net);
        Assert.Equal([360m, 480m, 360m], total);
        // 1,190.01 in three: 396.67 each.
        var job = Job(1000.01m, 19, null, Left("a"), Left("b"), Left("c"));
        Assert.Equal(1190.01m, job.Price.Total.V);
        Assert.Equal([396.67m, 396.67m, 396.67m], Steps(job).Total);
        Assert.Equal([333.34m, 333.34m, 333.33m], Steps(job).Net);
    }

    [Fact]
    public void Money_is_what_the_customer_pays_with_it()
    {
        var (net, total) = Steps(Job(2000, 20, null, Money(1000), Left()));
        Assert.Equal((833.33m, 1000m), (net[0], total[0]));
        Assert.Equal((1166.67m, 1400m), (net[1], total[1]));
        // At 7 % no sum comes to 1,000.07 with its tax: the largest below is taken, and the cent falls to the last step.
        (net, total) = Steps(Job(2000, 7, null, Money(1000.07m), Left()));
        Assert.Equal((934.64m, 1000.06m), (net[0], total[0]));
        Assert.Equal((1065.36m, 1139.94m), (net[1], total[1]));
    }

    [Fact]
    public void Money_before_tax_is_taken_as_it_is()
    {
        var (net, total) = Steps(Job(2000, 20, null, Money(500, beforeTax: true), Left()));
        Assert.Equal((500m, 600m), (net[0], total[0]));
        Assert.Equal((1500m, 1800m), (net[1], total[1]));
    }

    [Fact]
    public void Money_falls_on_what_is_taxed_and_what_is_not_by_what_is_open_of_each()
    {
        // 300 exempt and 100 at 20 %: 420 in all. Of 105.00, a quarter of the sum before tax is taxed: 75 + 25 + 5.
        var (net, total) = Steps(Job(400, 20, 100, Money(105), Left()));
        Assert.Equal((100m, 105m), (net[0], total[0]));
        Assert.Equal((300m, 315m), (net[1], total[1]));
    }

    [Fact]
    public void Percents_and_money_leave_the_rest_in_equal_parts()
    {
        // 1,000 and no tax: 250 in money, 30 % of 1,000, and 450 in two.
        var (net, _) = Steps(Job(1000, 0, null, Money(250), Percent(30), Left("a"), Left("b")));
        Assert.Equal([250m, 300m, 225m, 225m], net);
    }

    [Fact]
    public void Money_beyond_the_price_takes_all_and_leaves_nothing()
    {
        var (net, total) = Steps(Job(100, 20, null, Money(500), Percent(10), Left()));
        Assert.Equal((100m, 120m), (net[0], total[0]));
        Assert.Equal([0m, 0m], net[1..]);
    }

    [Fact]
    public void A_job_of_nothing_has_steps_of_nothing() =>
        Assert.Equal([0m, 0m], Steps(Job(0, 20, 0, Percent(50), Left())).Total);

    [Fact]
    public void Steps_that_do_not_come_to_the_price_are_refused()
    {
        string Wrong(params PaymentStep[] steps) =>
            Assert
                .Throws<RefusedException>(() => (PricingTerms.Starting with { Payment = [.. steps] }).Check())
                .Refusal.Message;
        Assert.Contains("90 %", Wrong(Percent(30), Percent(60)));
        Assert.Contains("110 %", Wrong(Percent(50), Percent(60)));
        Assert.Contains("nothing is left", Wrong(Percent(40), Percent(60), Left()));
        Assert.Contains("takes what the others leave", Wrong(Money(100), Percent(60)));
        Assert.Contains("or a sum of money", Wrong(new PaymentStep("both", 10, 10, false), Left()));
        Assert.Contains("Say when", Wrong(new PaymentStep(" ", 10, null, false), Left()));
        (PricingTerms.Starting with { Payment = [Percent(30), Percent(70)] }).Check();
    }

    [Fact]
    public void Every_step_can_be_reckoned_again_from_its_workings()
    {
        var job = Job(1234.56m, 7.25m, 500, Money(333.33m), Percent(17.5m), Money(99, true), Left("a"), Left("b"));
        var trace = Trace.Recording();
        var steps = PaymentPlan.Of(Estimate.Of(job.Job, trace), trace);
        foreach (var total in steps.SelectMany(s => new[] { s.BeforeTax, s.Total }))
            Assert.Equal(
                WorkingsChecker.Fraction.Of(total.V),
                WorkingsTests.Checker(trace, total.Path).Figure(total.Path)
            );
    }

    [Fact]
    public void A_round_has_none_because_its_year_says_how_it_is_billed()
    {
        var round = DemoJobs.Fixed().First(j => !j.Rhythms.IsEmpty);
        var job = round with { Pricing = round.Pricing with { Payment = [Percent(50), Left()] } };
        Assert.Empty(PaymentPlan.Of(Sample.Reckon(job), Trace.Silent));
    }
}
