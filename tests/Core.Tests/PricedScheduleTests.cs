using System.Collections.Immutable;
using Emendum.Core.Checks;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Reports;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The customer's own schedule of quantities, priced: its numbers and quantities, our price, nothing lost between them (estimating model §9). Worked by hand, from costs that are prices.</summary>
public class PricedScheduleTests
{
    private static Guid Row(ref Job job, string number, string wording, string unit, decimal quantity)
    {
        var id = Sample.NewId();
        job = job.Do(new AddSchedule([new(id, number, wording, unit, quantity)]));
        return id;
    }

    private static Job Price(Job job, Guid row, params ScheduleWork[] works) =>
        job.Do(new SetScheduleWork(row, job.Schedule.Single(s => s.Id == row).Work, [.. works]));

    private static ScheduleWork Everywhere(Guid work) => new(work, "", null);

    private static ImmutableArray<PriceRow> Rows(Job job) =>
        Proposal
            .Price(Sample.Reckon(job with { Proposal = job.Proposal with { Detail = Detail.Schedule } }), Trace.Silent)
            .Rows;

    private static string Said(PriceRow row) =>
        $"{row.Kind}|{row.Number}|{row.Label}|{row.Quantity}|{row.UnitPrice}|{row.Shown}";

    [Fact]
    public void Their_numbers_and_quantities_at_our_price_with_what_they_forgot_beside()
    {
        var priced = new PricedJob();
        var (r0, r1) = (priced.Place(), priced.Place());
        var a = priced.Work(labour: 100, at: [r0, r1]);
        var b = priced.Work(labour: 50, at: [r0]);
        priced.Work(labour: 7, section: "Extras", at: [r1]);
        var job = priced.Job;
        Row(ref job, "1", "Walls", "", 0);
        var all = Row(ref job, "1.1", "Walls, where not below", "m²", 7);
        var one = Row(ref job, "1.2", "Walls of the second", "m²", 3);
        var none = Row(ref job, "2.1", "Something by the lump", "item", 0);
        Row(ref job, "2.2", "Gold leaf", "m²", 12.5m);
        job = Price(job, all, Everywhere(a));
        job = Price(job, one, new ScheduleWork(a, "", r1));
        job = Price(job, none, Everywhere(b));
        Assert.Equal(
            [
                "Group|1|Walls|||",
                // 100 ÷ 7 is 14.29, and 14.29 × 7 is 100.03: the example of the price rules.
                "Part|1.1|Walls, where not below|7 m²|14.29|100.03",
                "Part|1.2|Walls of the second|3 m²|33.33|99.99",
                "Part|2.1|Something by the lump|0 item||50.00",
                "Part|2.2|Gold leaf|12.5 m²||not included",
                "Group||Not in your schedule|||",
                "Part||Extras|||7.00",
                "Part||Rounding of unit prices|||−0.02",
                "Total||Total|||257.00",
            ],
            Rows(job).Where(r => r.Kind != RowKind.Subtotal).Select(Said)
        );
    }

    [Fact]
    public void Each_figure_of_it_is_recomputed_from_its_workings()
    {
        var looked = 0;
        for (var seed = 11_000_000; seed < 11_000_020; seed++)
        {
            var random = new Random(seed);
            var job = RandomPricing.Job(random);
            var trace = Reported.Record(job with { Schedule = RandomPricing.Schedule(random, job) }).Trace;
            foreach (
                var path in trace.Figures.Keys.Where(p =>
                    p.StartsWith("schedule/", StringComparison.Ordinal)
                    || p.EndsWith("/notInSchedule", StringComparison.Ordinal)
                    || p == "price/scheduleRounding"
                )
            )
            {
                WorkingsTests.Checker(trace, path).Figure(path);
                looked++;
            }
        }
        Assert.InRange(looked, 100, int.MaxValue);
    }

    [Fact]
    public void Discounts_stand_below_the_rows_as_they_do_where_unit_prices_are_shown()
    {
        var priced = new PricedJob(PricedJob.Plain with { Discounts = [new("Early", 10, null)] });
        var a = priced.Work(labour: 100);
        var job = priced.Job;
        var row = Row(ref job, "1", "All", "m²", 8);
        job = Price(job, row, Everywhere(a));
        Assert.Equal(
            ["Part|1|All|8 m²|12.50|100.00", "Discount||Discount|||−10.00", "Total||Total|||90.00"],
            Rows(job).Where(r => r.Kind != RowKind.Subtotal).Select(Said)
        );
    }

    [Fact]
    public void A_line_is_in_the_row_that_names_it_nearest()
    {
        var priced = new PricedJob();
        var (r0, r1, r2, r3) = (priced.Place(), priced.Place(), priced.Place(), priced.Place());
        var a = priced.Work(labour: 100, at: [r0, r1, r2, r3]);
        var job = priced.Job with
        {
            Places =
            [
                .. priced.Job.Places.Select(p =>
                    p with
                    {
                        Group =
                            p.Id == r0 ? ""
                            : p.Id == r1 ? "House"
                            : "House / Attic",
                    }
                ),
            ],
        };
        var everywhere = Row(ref job, "1", "Elsewhere", "item", 1);
        var house = Row(ref job, "2", "House", "item", 1);
        var attic = Row(ref job, "3", "Attic", "item", 1);
        var place = Row(ref job, "4", "One room of it", "item", 1);
        job = Price(job, everywhere, Everywhere(a));
        job = Price(job, house, new ScheduleWork(a, "House", null));
        string[] Amounts(Job of) => [.. Rows(of).Where(r => r.Number.Length > 0).Select(r => r.Shown)];
        Assert.Equal(["100.00", "300.00", "not included", "not included"], Amounts(job));
        job = Price(job, attic, new ScheduleWork(a, "House / Attic", null));
        Assert.Equal(["100.00", "100.00", "200.00", "not included"], Amounts(job));
        job = Price(job, place, new ScheduleWork(a, "", r3));
        Assert.Equal(["100.00", "100.00", "100.00", "100.00"], Amounts(job));
        // A heading that gets another name takes its rows along.
        Assert.Equal(Amounts(job), Amounts(job.Do(new RenameGroup("House", "Mill"))));
        // What is taken out of the work leaves its row without a price, and the others as they were.
        Assert.Equal(
            ["not included", "not included", "not included", "not included"],
            Amounts(job.Do(new RemoveWork(a)))
        );
    }

    [Fact]
    public void Nothing_is_in_two_rows_and_a_heading_has_no_price()
    {
        var priced = new PricedJob();
        var a = priced.Work(labour: 100);
        var job = priced.Job;
        var heading = Row(ref job, "1", "Walls", "", 0);
        var first = Row(ref job, "1.1", "Walls", "m²", 7);
        var second = Row(ref job, "1.2", "Walls again", "m²", 7);
        job = Price(job, first, Everywhere(a));
        string Refused(Guid row, params ScheduleWork[] works) =>
            Assert.Throws<RefusedException>(() => Price(job, row, works)).Message;
        Assert.Contains("is in the price of row 1.1 already", Refused(second, Everywhere(a)));
        Assert.Contains("A heading of the schedule has no price", Refused(heading, Everywhere(a)));
        Assert.Contains("not by both", Refused(second, new ScheduleWork(a, "House", job.Places[0].Id)));
        Assert.Contains("not in this job any more", Refused(second, Everywhere(Sample.NewId())));
        Assert.Contains("not in this job any more", Refused(second, new ScheduleWork(a, "", Sample.NewId())));
        Assert.Throws<ConflictException>(() => job.Do(new SetScheduleWork(first, [], [])));
    }

    [Fact]
    public void Rows_are_priced_by_what_they_are_compared_with_and_compared_with_what_they_are_priced_by()
    {
        var priced = new PricedJob();
        var (a, b) = (priced.Work(labour: 100), priced.Work(labour: 10));
        var job = priced.Job;
        var first = Row(ref job, "1", "Floor", "ft²", 90);
        var twice = Row(ref job, "2", "Floor once more", "ft²", 90);
        var other = Row(ref job, "3", "Oil", "ft²", 100);
        job = job.Do(new SetScheduleItem(first, "", $"work/{a}")).Do(new SetScheduleItem(twice, "", $"work/{a}"));
        job = job.Do(new PriceAsCompared());
        Assert.Equal([1, 0, 0], job.Schedule.Select(s => s.Work.Length));
        Assert.Empty(PriceAsCompared.Of(job));
        job = Price(job, other, Everywhere(b));
        var compared = ScheduleCompared.Of(Sample.Reckon(job).Reckoned, Trace.Silent);
        Assert.Equal(100, compared[2].Ours!.Value.V);
        Assert.Equal(10, compared[0].Difference!.Value.V);
        // Work that is nowhere is compared all the same: there is nothing of it.
        var nowhere = job.Fill(a, [.. job.Places.Select(p => p.Id)], null);
        Assert.Equal(0, ScheduleCompared.Of(Sample.Reckon(nowhere).Reckoned, Trace.Silent)[0].Ours!.Value.V);
    }

    [Fact]
    public void It_does_not_go_out_with_rows_without_a_price_unseen()
    {
        var priced = new PricedJob();
        var a = priced.Work(labour: 100);
        var job = priced.Job with { Proposal = priced.Job.Proposal with { Detail = Detail.Schedule } };
        string[] Says(Job of)
        {
            var estimate = Sample.Reckon(of);
            return
            [
                .. BeforeSending
                    .Of(estimate, Sample.Document(estimate), new(2026, 1, 16))
                    .Where(h => h.At == Station.Schedule)
                    .Select(h => h.Says),
            ];
        }
        Assert.Equal(["There is no schedule of quantities."], Says(job));
        Row(ref job, "1", "Walls", "", 0);
        var row = Row(ref job, "1.1", "Walls", "m²", 7);
        Row(ref job, "", "Ceilings", "m²", 7);
        Assert.Equal(["2 rows of the schedule have no price: 1.1, Ceilings."], Says(job));
        job = Price(job, row, Everywhere(a));
        Assert.Equal(["1 row of the schedule has no price: Ceilings."], Says(job));
        Assert.Empty(Says(job with { Proposal = job.Proposal with { Detail = Detail.Section } }));
    }
}
