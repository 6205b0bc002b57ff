using System.IO.Compression;
using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>
/// Every figure of the demo jobs, under two sets of terms, as it was before the core was given its present shape. What is reshaped moves none of them. Written anew, on
/// purpose only, with EMENDUM_BASELINE=write.
/// </summary>
public class BaselineTests
{
    private static string FileOf(string name, [CallerFilePath] string here = "") =>
        Path.Combine(Path.GetDirectoryName(here)!, "Baseline", name + ".json.gz");

    public static TheoryData<string, bool> All
    {
        get
        {
            var all = new TheoryData<string, bool>();
            foreach (var name in new[] { "library", "clinic", "pottery", "court" })
            {
                all.Add(name, false);
                all.Add(name, true);
            }
            return all;
        }
    }

    internal static Job Of(string name, bool other)
    {
        var job = DemoJobs.Fixed().Single(j => j.Info.Name.Contains(name, StringComparison.OrdinalIgnoreCase));
        return !other
            ? job
            : job with
            {
                Pricing = job.Pricing with
                {
                    Basis = job.Pricing.Basis == PriceBasis.Markup ? PriceBasis.TargetMargin : PriceBasis.Markup,
                    MaterialCost =
                        job.Pricing.MaterialCost == MaterialCost.Need ? MaterialCost.Purchase : MaterialCost.Need,
                },
            };
    }

    /// <summary>Sections stood in paths by their names before they had ids, which derive from those.</summary>
    internal static string SectionsById(string figures) =>
        Regex.Replace(
            figures,
            "\"sections/([^/]+)/",
            found => $"\"sections/{Section.IdOf(Uri.UnescapeDataString(found.Groups[1].Value))}/"
        );

    /// <summary>One figure a line, in one order.</summary>
    internal static string[] Lines(string figures) =>
        [
            .. JsonNode.Parse(figures)!["figures"]!
                .AsObject()
                .Select(f => $"{f.Key}: {f.Value!.ToJsonString(CoreJson.Options)}")
                .Order(StringComparer.Ordinal),
        ];

    [Theory]
    [MemberData(nameof(All))]
    public void No_figure_of_a_demo_job_has_moved(string name, bool other)
    {
        var now = Reported.Of(Of(name, other)).ToJsonString(CoreJson.Indented);
        var file = FileOf(other ? name + "-other" : name);
        if (Environment.GetEnvironmentVariable("EMENDUM_BASELINE") == "write")
        {
            Directory.CreateDirectory(Path.GetDirectoryName(file)!);
            using var written = new GZipStream(File.Create(file), CompressionLevel.SmallestSize);
            written.Write(Encoding.UTF8.GetBytes(now));
            return;
        }
        using var zip = new GZipStream(File.OpenRead(file), CompressionMode.Decompress);
        using var reader = new StreamReader(zip);
        var (before, after) = (Lines(SectionsById(reader.ReadToEnd())), Lines(now));
        for (var i = 0; i < Math.Min(before.Length, after.Length); i++)
            Assert.Equal($"{i}: {before[i]}", $"{i}: {after[i]}");
        Assert.Equal(before.Length, after.Length);
    }
}
