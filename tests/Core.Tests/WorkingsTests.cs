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
        // A figure that others are made of is recomputed on the way; each is asked for on its own unless it was met already.
        var met = new HashSet<string>();
        foreach (var path in trace.Figures.Keys.Reverse())
        {
            if (met.Contains(path))
                continue;
            var checker = Checker(trace, path);
            checker.Figure(path);
            met.UnionWith(checker.Known);
        }
        Assert.Empty(trace.Figures.Keys.Except(met));
        Assert.InRange(met.Count, 1500, int.MaxValue);
    }

    public static TheoryData<string> OtherDemoJobs =>
        [.. DemoJobs.Fixed().Select(j => j.Info.Name).Where(n => !n.StartsWith("Saltmarsh", StringComparison.Ordinal))];

    [Theory]
    [MemberData(nameof(OtherDemoJobs))]
    public void Every_figure_of_the_other_demo_jobs_is_recomputed_too(string name)
    {
        var trace = Reported.Record(DemoJobs.Fixed().Single(j => j.Info.Name == name)).Trace;
        var met = new HashSet<string>();
        foreach (var path in trace.Figures.Keys.Reverse().Where(p => !met.Contains(p)))
        {
            var checker = Checker(trace, path);
            checker.Figure(path);
            met.UnionWith(checker.Known);
        }
        Assert.Contains(trace.Figures.Keys, p => p.StartsWith("setUp/", StringComparison.Ordinal));
        Assert.True(trace.Figures["totals/duration"].Value > 3);
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
