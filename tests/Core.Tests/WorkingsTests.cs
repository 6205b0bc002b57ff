using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

public class WorkingsTests
{
    [Theory]
    [InlineData(MaterialCost.Purchase, PriceBasis.Markup, false)]
    [InlineData(MaterialCost.Need, PriceBasis.TargetMargin, true)]
    public void Every_figure_of_the_demo_job_is_recomputed_from_its_explanation(
        MaterialCost cost,
        PriceBasis basis,
        bool taxed
    )
    {
        var job = Sample.Library();
        var trace = Reported
            .Record(
                job with
                {
                    Pricing = job.Pricing with
                    {
                        MaterialCost = cost,
                        Basis = basis,
                        Taxes = taxed ? [job.Pricing.Taxes[0] with { On = Tax.Everything }] : job.Pricing.Taxes,
                    },
                }
            )
            .Trace;
        Assert.InRange(Recomputed(trace), 1500, int.MaxValue);
    }

    /// <summary>
    /// Recomputes every figure from what its explanation says of it, and every fiftieth once more from its own whole explanation, which holds all that it needs;
    /// how many figures there are.
    /// </summary>
    internal static int Recomputed(Trace trace)
    {
        var (figures, sets) = (new JsonObject(), new JsonObject());
        foreach (var path in trace.Figures.Keys)
        {
            var alone = Explanation.Of(trace, path, 0)!;
            figures[path] = alone["figures"]![path]!.DeepClone();
            foreach (var (name, set) in alone["sets"]!.AsObject())
                sets[name] ??= set!.DeepClone();
        }
        var said = new JsonObject { ["figures"] = figures, ["sets"] = sets };
        var checker = new WorkingsChecker(JsonDocument.Parse(said.ToJsonString()).RootElement);
        foreach (var path in trace.Figures.Keys)
            checker.Figure(path);
        foreach (var path in trace.Figures.Keys.Where((_, i) => i % 50 == 0).Append(trace.Figures.Keys.Last()))
            Checker(trace, path).Figure(path);
        return trace.Figures.Count;
    }

    public static TheoryData<string> OtherDemoJobs =>
        [.. DemoJobs.Fixed().Select(j => j.Info.Name).Where(n => !n.StartsWith("Saltmarsh", StringComparison.Ordinal))];

    [Theory]
    [MemberData(nameof(OtherDemoJobs))]
    public void Every_figure_of_the_other_demo_jobs_is_recomputed_too(string name)
    {
        var trace = Reported.Record(DemoJobs.Fixed().Single(j => j.Info.Name == name)).Trace;
        Assert.InRange(Recomputed(trace), 100, int.MaxValue);
        Assert.Contains(trace.Figures.Keys, p => p.StartsWith("setUp/", StringComparison.Ordinal));
        Assert.True(trace.Figures["totals/duration"].Value > 1);
    }

    internal static WorkingsChecker Checker(Trace trace, string path) =>
        new(JsonDocument.Parse(Explanation.Of(trace, path)!.ToJsonString()).RootElement);

    [Fact]
    public void No_figure_comes_from_itself()
    {
        foreach (var job in DemoJobs.Fixed())
        {
            var trace = Reported.Record(job).Trace;
            var figures = trace.Figures;
            var done = new HashSet<string>();
            foreach (var path in figures.Keys)
                Visit(path, []);

            void Visit(string path, System.Collections.Immutable.ImmutableList<string> way)
            {
                Assert.False(way.Contains(path), string.Join(" ← ", way.Add(path)));
                if (!done.Contains(path))
                    foreach (
                        var from in Explanation.Of(trace, path, 0)!["figures"]![path]!["how"]!
                            .ToJsonString()
                            .Split("\"op\":\"figure\",\"path\":\"")
                            .Skip(1)
                    )
                        Visit(from[..from.IndexOf('"')], way.Add(path));
                done.Add(path);
            }
        }
    }

    [Fact]
    public void The_checker_finds_a_figure_that_is_off()
    {
        var explanation = Explanation.Of(Reported.Record(Sample.Library()).Trace, "price/beforeTax")!;
        explanation["figures"]!["price/overhead"]!["value"] = "11372.47";
        Assert.ThrowsAny<InvalidOperationException>(() =>
            new WorkingsChecker(JsonDocument.Parse(explanation.ToJsonString()).RootElement).Figure("price/beforeTax")
        );
    }

    [Fact]
    public void A_sentence_reads_as_people_say_it()
    {
        var (job, work, place) = Sample.With(
            "Study 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2",
            [],
            StarterBook.Id(111)
        );
        var trace = Reported.Record(job).Trace;
        string Sentence(string path) => Explanation.Sentence(trace.Figures[path]);
        var labour = trace.Figures.Keys.First(p =>
            p.StartsWith($"cells/{work}/{place}/parts/", StringComparison.Ordinal)
        );
        Assert.Equal("360 ft² ÷ 95 ft²/h = 3.789 h", Sentence(labour));
        var paint = trace.Figures.Keys.Last(p =>
            p.StartsWith($"cells/{work}/{place}/parts/", StringComparison.Ordinal)
        );
        Assert.Equal("360 ft² ÷ 360 ft²/gal + 360 ft² ÷ 400 ft²/gal + 1 % (waste) = 1.919 gal", Sentence(paint));
        Assert.Equal("408 ft² − 48 ft² = 360 ft²", Sentence($"places/{place}/netWallArea"));
        Assert.Equal("14'6 × 11 = 159.5 ft²", Sentence($"places/{place}/floorArea"));
    }

    [Fact]
    public void A_pace_typed_for_this_job_is_said_to_be_typed_and_not_from_the_Book()
    {
        var (job, work, place) = Sample.With("Study 14'6 x 11 x 8", [], StarterBook.Id(111));
        job = job.Do(new SetWork(work, "pace", null, "80 ft² per h"));
        var explanation = Explanation
            .Of(Reported.Record(job).Trace, $"cells/{work}/{place}/hours")!
            .ToJsonString(CoreJson.Options);
        Assert.Contains(
            $"\"op\":\"typed\",\"value\":\"80\",\"unit\":\"ft²\",\"label\":\"Paint\",\"shown\":\"80 ft²\",\"link\":\"work/{work}\"",
            explanation
        );
        Assert.DoesNotContain($"book/{StarterBook.Id(111)}", explanation);
    }

    [Fact]
    public void Hours_of_work_that_the_customer_does_are_one_figure_also_where_a_step_rounds_them()
    {
        var (job, work, place) = Sample.With("Study 14'6 x 11 x 8", [], StarterBook.Id(111));
        job = job.Do(new SetWork(work, "step", null, "0.25")).Set(work, place, "supply", "customer");
        var trace = Reported.Record(job).Trace;
        Assert.Equal(0m, trace.Figures[$"cells/{work}/{place}/hours"].Value);
        Assert.True(trace.Figures[$"cells/{work}/{place}/hours/stepped"].Value > 0);
        Recomputed(trace);
    }

    [Fact]
    public void The_tape_reading_and_the_Book_entry_are_at_the_bottom_of_it()
    {
        var (job, work, place) = Sample.With("Study 14'6 x 11 x 8", [], StarterBook.Id(111));
        var explanation = Explanation
            .Of(Reported.Record(job).Trace, $"cells/{work}/{place}/hours")!
            .ToJsonString(CoreJson.Options);
        Assert.Contains($"\"text\":\"14'6\",\"link\":\"places/{place}\"", explanation);
        Assert.Contains($"\"link\":\"book/{StarterBook.Id(111)}\"", explanation);
    }
}
