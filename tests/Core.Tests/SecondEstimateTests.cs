using System.Text.Json;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reports;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Would two estimators agree: hand-reckoned.</summary>
public class SecondEstimateTests
{
    private static SecondEstimate Compared(Job job, SecondEstimator second) =>
        SecondEstimate.Of(Sample.Reckon(job), second, Trace.Silent, "");

    [Fact]
    public void Another_pace_moves_labour_alone_and_the_largest_difference_stands_first()
    {
        var job = new PricedJob(PricedJob.Plain with { LabourMarkup = 50 });
        job.Work(labour: 20, hours: 10); // 200 of labour, sold for 300
        job.Work(labour: 20, hours: 30, goods: 400); // 600, sold for 900, and 400
        job.Work(goods: 70);
        var two = Compared(job.Job, new(null, 0, 15));
        // 40 h + 15 % = 46 h; 1,200 of labour price + 180.
        Assert.Equal((40m, 46m, 6m), (two.Hours.Ours.V, two.Hours.Theirs.V, two.Hours.More.V));
        Assert.Equal((1670m, 1850m, 180m), (two.Price.Ours.V, two.Price.Theirs.V, two.Price.More.V));
        Assert.Equal((1270m, 1390m, 120m), (two.Cost.Ours.V, two.Cost.Theirs.V, two.Cost.More.V));
        Assert.Equal(["Work 2", "Work 1"], two.Work.Select(w => w.Item.Name));
        Assert.Equal([135m, 45m], two.Work.Select(w => w.Price.More.V));
        Assert.Equal((34.5m, 4.5m), (two.Work[0].Hours.Theirs.V, two.Work[0].Hours.More.V));
        // Beside a pace of the job: 1.2 × 1.15.
        var paced = job.Job.Do(new SetPace(null, new(1.2m, "stairs")));
        Assert.Equal(40m * 1.2m * 1.15m, Compared(paced, new(null, 0, 15)).Hours.Theirs.V);
    }

    [Fact]
    public void Another_Book_has_its_own_wages_and_prices_and_keeps_what_it_does_not_have()
    {
        var job = new PricedJob();
        var role = Sample.Role("Painter", 20m);
        job.Work(role: role, hours: 10);
        job.Work(labour: 30, hours: 1);
        var two = Compared(job.Job, new(id => id == role.Id ? role with { Wage = 25m, Version = 2 } : null, 0, 0));
        // 10 h at 25 instead of 20; a role that theirs does not have stays.
        Assert.Equal((230m, 280m), (two.Price.Ours.V, two.Price.Theirs.V));
        Assert.Equal(["Work 1"], two.Work.Select(w => w.Item.Name));
        Assert.Equal(0m, two.Hours.More.V);
    }

    [Fact]
    public void An_entry_of_another_firm_is_found_by_its_kind_and_name_with_what_it_needs()
    {
        var job = new PricedJob();
        job.Work(labour: 20, hours: 10);
        var ours = Assert.IsType<Assembly>(job.Job.Book[job.Job.Work[0].Entry]);
        // Theirs has ids of its own, and a role of 30 an hour.
        var role = Sample.Role("Their hand", 30m);
        var theirs = ours with
        {
            Id = Sample.NewId(),
            Name = ours.Name.ToUpperInvariant(),
            Components = [ours.Components[0] with { Entry = role.Id }],
        };
        var other = new OtherBook([theirs, role], job.Job.Book);
        Assert.Equal((200m, 300m), Prices(Compared(job.Job, new(other.Find, 0, 0))));
        // Two of a name are none.
        var twice = new OtherBook([theirs, role, theirs with { Id = Sample.NewId() }], job.Job.Book);
        Assert.Equal((200m, 200m), Prices(Compared(job.Job, new(twice.Find, 0, 0))));
    }

    private static (decimal, decimal) Prices(SecondEstimate two) => (two.Price.Ours.V, two.Price.Theirs.V);

    [Fact]
    public void Work_with_levels_goes_up_or_down_by_its_factors_and_no_further_than_they_go()
    {
        var job = new PricedJob();
        Level[] levels = [new("easy", 0.75m), new("average", 1), new("hard", 1.4m)];
        var work = job.Work(labour: 20, hours: 10, entry: e => e with { Levels = [.. levels], Components = Scaled(e) });
        job.Work(labour: 20, hours: 10);
        decimal Theirs(int harder) => Compared(job.Job, new(null, harder, 0)).Hours.Theirs.V;
        Assert.Equal((17.5m, 24m, 24m), (Theirs(-1), Theirs(1), Theirs(3)));
        // From hard one down is average, two down easy.
        job.Set(work, "difficulty", "hard");
        Assert.Equal((20m, 17.5m), (Theirs(-1), Theirs(-2)));
        Assert.Empty(Compared(job.Job, new(null, 1, 0)).Work);
    }

    private static System.Collections.Immutable.ImmutableArray<Component> Scaled(Assembly entry) =>
        [.. entry.Components.Select(c => c with { Scales = true })];

    [Fact]
    public void Every_figure_of_it_is_recomputed_from_its_workings()
    {
        var job = Sample.Library();
        var trace = Trace.Recording();
        var two = SecondEstimate.Of(Sample.Reckon(job), new SecondEstimator(null, 1, 10), trace, "second/x/");
        var silent = Compared(job, new(null, 1, 10));
        Assert.Equal(silent.Price.More.V, two.Price.More.V);
        foreach (
            var path in two
                .Work.Take(3)
                .SelectMany(w => new[] { w.Price.More.Path, w.Hours.More.Path, w.Cost.Theirs.Path })
                .Append(two.Price.More.Path)
        )
        {
            using var json = JsonDocument.Parse(Explanation.Of(trace, path)!.ToJsonString());
            new WorkingsChecker(json.RootElement).Figure(path);
        }
    }

    [Fact]
    public void Nothing_different_differs_in_nothing_and_too_much_is_refused()
    {
        var job = Sample.Library();
        Assert.Empty(Compared(job, new(id => job.Book.GetValueOrDefault(id), 0, 0)).Work);
        Assert.Throws<RefusedException>(() => Compared(job, new(null, 6, 0)));
        Assert.Throws<RefusedException>(() => Compared(job, new(null, 0, -81)));
        var slow = job.Do(new SetPace(job.Pace, new(9, "slow")));
        Assert.Throws<RefusedException>(() => Compared(slow, new(null, 0, 100)));
    }
}
