using System.Collections.Immutable;
using System.Text.Json;
using Emendum.Core.Book;
using Emendum.Core.Checks;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Quotes of other firms for a section, reckoned by hand.</summary>
public class QuotesTests
{
    private static readonly PricingTerms Terms = PricedJob.Plain with { SubcontractMarkup = 10, LabourMarkup = 50 };

    private static Guid Quote(PricedJob job, string section, string from, decimal amount, params Guid[] leavesOut)
    {
        var id = Sample.NewId();
        job.Do(
            new AddQuote(
                new(id, "", job.Job.Sections.Single(s => s.Name == section).Id, from, amount, false)
                {
                    LeavesOut = [.. leavesOut],
                }
            )
        );
        return id;
    }

    private static void Take(PricedJob job, Guid? was, Guid? now) =>
        job.Do(new TakeQuote(job.Job.Quotes.First(q => q.Id == (now ?? was)).Section, was, now));

    /// <summary>Tiling of 3 h and 1 h at 20 with 40 of goods, and painting of 1 h at 20 beside it.</summary>
    private static (PricedJob Job, Guid Walls, Guid Floor) Tiling(PricingTerms terms)
    {
        var job = new PricedJob(terms);
        var role = Sample.Role("Tiler", 20);
        var walls = job.Work(role: role, hours: 3, goods: 40, section: "Tiling");
        var floor = job.Work(role: role, hours: 1, section: "Tiling");
        job.Work(role: role, hours: 1, section: "Paint");
        return (job, walls, floor);
    }

    [Fact]
    public void A_quote_that_is_taken_stands_for_the_work_of_its_section_and_goes_back_to_the_byte()
    {
        var (job, _, _) = Tiling(Terms);
        // 5 h at 20, half on top: 150; goods 40.
        Assert.Equal(190m, job.Price.BeforeTax.V);
        var tiler = Quote(job, "Tiling", "the tiler", 900);
        var other = Quote(job, "Tiling", "another", 800);
        Assert.Equal(190m, job.Price.BeforeTax.V);
        var before = JobFile.Write(job.Job);
        Take(job, null, tiler);
        // 900 with 10 % is 990; one hour of painting 30; no goods.
        Assert.Equal((1_020m, 1m), (job.Price.BeforeTax.V, job.Estimate.Reckoned.Costs.Hours.V));
        Assert.Equal(
            (900m, 0m),
            (job.Price.Classes[CostClass.Subcontract].Cost.V, job.Price.Classes[CostClass.Material].Cost.V)
        );
        Assert.Empty(job.Estimate.Reckoned.Costs.Buying.Where(b => b.Need.V != 0));
        // Another instead of it is one step, and so is none.
        Take(job, tiler, other);
        Assert.Equal(910m, job.Price.BeforeTax.V);
        Take(job, other, null);
        Assert.Equal(before, JobFile.Write(job.Job));
        Assert.Throws<ConflictException>(() => Take(job, tiler, other));
    }

    [Fact]
    public void What_a_quote_leaves_out_stays_ours_and_its_price_goes_to_its_lines_by_the_hours_we_would_take()
    {
        var (job, walls, floor) = Tiling(Terms);
        var all = Quote(job, "Tiling", "the tiler", 900);
        var part = Quote(job, "Tiling", "another", 700, floor);
        Take(job, null, all);
        var costs = LineCosts.Of(job.Estimate.Reckoned, Trace.Silent).Lines;
        // 3 h and 1 h: 675 and 225.
        Assert.Equal([675m, 225m, 0m], costs.Select(l => l[CostClass.Subcontract].V));
        Take(job, all, part);
        // 700 with 10 % for the walls, one hour at 30 for the floor, and one for the paint.
        Assert.Equal((830m, 2m), (job.Price.BeforeTax.V, job.Estimate.Reckoned.Costs.Hours.V));
        Assert.Equal(
            [700m, 0m, 0m],
            LineCosts.Of(job.Estimate.Reckoned, Trace.Silent).Lines.Select(l => l[CostClass.Subcontract].V)
        );
        var spread = Spread.Of(job.Estimate, Trace.Silent);
        Assert.Equal([770m, 30m, 30m], spread.Lines.Select(l => l.V));
        // Where we would take no hours each line bears as much.
        var bare = new PricedJob(Terms);
        bare.Work(charge: 10, section: "Signs");
        bare.Work(charge: 90, section: "Signs");
        Take(bare, null, Quote(bare, "Signs", "the sign fitter", 101));
        Assert.Equal(
            [50.5m, 50.5m],
            LineCosts.Of(bare.Estimate.Reckoned, Trace.Silent).Lines.Select(l => l[CostClass.Subcontract].V)
        );
        Assert.Equal(walls, job.Job.Work[0].Id);
    }

    [Fact]
    public void What_the_customer_does_and_a_sum_that_is_allowed_are_in_no_quote_and_a_quote_for_nothing_costs_nothing()
    {
        var (job, walls, floor) = Tiling(Terms);
        var quote = Quote(job, "Tiling", "the tiler", 900);
        Take(job, null, quote);
        job.Set(walls, "supply", Supply.Customer);
        Assert.Equal(
            [0m, 900m, 0m],
            LineCosts.Of(job.Estimate.Reckoned, Trace.Silent).Lines.Select(l => l[CostClass.Subcontract].V)
        );
        job.Set(floor, "allowance", 250m);
        // Only a sum is left: nobody is paid for tiling.
        Assert.Equal((0m, 280m), (job.Price.Classes[CostClass.Subcontract].Cost.V, job.Price.BeforeTax.V));
    }

    [Fact]
    public void Least_charges_reach_work_that_another_firm_does_and_no_travel_comes_with_it()
    {
        var role = Sample.Role("Driver", 30);
        var setUp = new SetUp(Sample.NewId(), 1, "Van", role.Id, 0, TravelPer.CrewDay, 10, DistanceUnit.Mile, 0, 2);
        var job = new PricedJob(Terms with { LeastJob = 1_000 });
        job.Work(labour: 20, section: "Tiling");
        job.Pin(role, setUp);
        job.Do(new SetCrew("setUp", null, setUp.Id.ToString()));
        Take(job, null, Quote(job, "Tiling", "the tiler", 500));
        Assert.Empty(job.Estimate.Reckoned.Costs.Charges);
        Assert.Equal(1_000m, job.Price.BeforeTax.V);
    }

    [Fact]
    public void Quotes_stand_side_by_side_with_doing_it_ourselves_as_they_would_be_taken()
    {
        var (job, _, floor) = Tiling(Terms);
        var all = Quote(job, "Tiling", "the tiler", 900);
        var part = Quote(job, "Tiling", "another", 700, floor);
        var side = PricedQuote.Of(job.Estimate);
        Assert.Equal([190m, 1_020m, 830m], side.Select(q => q.Estimate!.Price.BeforeTax.V));
        Assert.Equal([120m, 900m, 720m], side.Select(q => q.Cost!.V));
        Assert.Equal([null, 0m, 20m], side.Select(q => q.LeftToUs?.V));
        Assert.Equal([true, false, false], side.Select(q => q.Taken));
        Take(job, null, part);
        side = PricedQuote.Of(job.Estimate);
        Assert.Equal([190m, 1_020m, 830m], side.Select(q => q.Estimate!.Price.BeforeTax.V));
        Assert.Equal([false, false, true], side.Select(q => q.Taken));
        var trace = Trace.Recording();
        PricedQuote.Record(job.Job, side[0].Section.Id, part, trace);
        var path = PricedQuote.Within(side[0].Section.Id, part) + side[2].LeftToUs!.Path;
        Assert.Equal(20m, trace.Figures[path].Value);
        Assert.Equal(all, job.Job.Quotes[0].Id);
    }

    [Fact]
    public void A_round_pays_the_quote_each_time()
    {
        var job = new PricedJob(Terms);
        job.Work(labour: 20, section: "Glass");
        job.Do(new AddRhythm(new(Sample.NewId(), "", "Monthly", RhythmKind.Times, 12), true));
        Take(job, null, Quote(job, "Glass", "the glass cleaner", 80));
        Assert.Equal(
            (12 * 88m, 960m),
            (job.Price.BeforeTax.V, Assert.Single(job.Estimate.Reckoned.Costs.Quotes).Cost.V)
        );
    }

    [Fact]
    public void A_quote_that_ends_before_our_prices_do_is_a_finding_while_it_is_taken()
    {
        var (job, _, _) = Tiling(Terms);
        var quote = Quote(job, "Tiling", "the tiler", 900);
        var ends = DateOnly
            .ParseExact(job.Job.Info.Date, "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
            .AddDays(job.Job.Proposal.ValidDays - 1);
        void Until(DateOnly day) =>
            job.Do(
                new SetQuote(
                    quote,
                    "validUntil",
                    ChangeSet.Get(job.Job, $"quotes/{quote}/validUntil"),
                    day.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
                )
            );
        IEnumerable<Finding> Found() =>
            Findings.Of(job.Estimate, [], StarterPlaces.Sizes).Where(f => f.Kind == "A quote ends first");
        Until(ends);
        Assert.Empty(Found());
        Take(job, null, quote);
        Assert.Contains("the tiler", Assert.Single(Found()).Says, StringComparison.Ordinal);
        Until(ends.AddDays(1));
        Assert.Empty(Found());
    }

    [Fact]
    public void A_quote_goes_with_its_section_and_what_cannot_be_is_refused_with_its_field()
    {
        var (job, walls, floor) = Tiling(Terms);
        var quote = Quote(job, "Tiling", "the tiler", 900);
        foreach (
            var (field, was, now) in new (string, string?, string)[]
            {
                ("amount", "900", "-1"),
                ("from", "the tiler", " "),
                ("validUntil", "", "soon"),
            }
        )
            Assert.Equal(
                field,
                Assert.Throws<RefusedException>(() => job.Do(new SetQuote(quote, field, was, now))).Refusal.Field
            );
        Assert.Equal(
            "taken",
            Assert.Throws<RefusedException>(() => job.Do(new SetQuote(quote, "taken", false, true))).Refusal.Field
        );
        job.Do(new RemoveWork(walls));
        Assert.Single(job.Job.Quotes);
        job.Do(new RemoveWork(floor));
        Assert.Empty(job.Job.Quotes);
        Assert.Equal(JobFile.Write(job.Job), JobFile.Write(JobFile.Read(JobFile.Write(job.Job))));
    }

    [Fact]
    public void Every_figure_of_a_job_with_quotes_is_recomputed_from_its_workings()
    {
        var (job, _, floor) = Tiling(PricedJob.Worked with { Taxes = [PricedJob.Tax(7, TaxOn.Subcontract)] });
        var quote = Quote(job, "Tiling", "the tiler", 333.33m, floor);
        Take(job, null, quote);
        var (_, trace) = Reported.Record(job.Job);
        Assert.True(trace.Figures.ContainsKey($"quotes/{quote}/cost"));
        foreach (var path in trace.Figures.Keys)
        {
            using var json = JsonDocument.Parse(Explanation.Of(trace, path)!.ToJsonString());
            new WorkingsChecker(json.RootElement).Figure(path);
        }
    }
}
