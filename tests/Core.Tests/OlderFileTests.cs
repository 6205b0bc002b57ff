using System.IO.Compression;
using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Job files as an older version wrote them, with every figure that it gave.</summary>
public sealed class OlderFileTests
{
    private static byte[] Older(string name, [CallerFilePath] string here = "")
    {
        using var zip = new GZipStream(
            File.OpenRead(Path.Combine(Path.GetDirectoryName(here)!, "Older", name + ".json.gz")),
            CompressionMode.Decompress
        );
        using var whole = new MemoryStream();
        zip.CopyTo(whole);
        return whole.ToArray();
    }

    /// <summary>Sections stood in paths by their names before they had ids, which derive from those.</summary>
    private static string SectionsById(string figures) =>
        Regex.Replace(
            figures,
            "\"sections/([^/]+)/",
            found => $"\"sections/{Section.IdOf(Uri.UnescapeDataString(found.Groups[1].Value))}/"
        );

    /// <summary>One figure a line, in one order.</summary>
    private static string[] Lines(string figures) =>
        [
            .. JsonNode.Parse(figures)!["figures"]!
                .AsObject()
                .Select(f => $"{f.Key}: {f.Value!.ToJsonString(CoreJson.Options)}")
                .Order(StringComparer.Ordinal),
        ];

    private static bool IsNewer(string line) =>
        Regex.IsMatch(
            line,
            "^(measured|places/[^/]+)/(door|window|glass)Area: |^headings/|^perArea/|price/(afterOverhead|atFloor): |^lines/.*/(printed|atUnitPrice|bare/price|bare/shown): |^price/unitRounding: "
        );

    /// <summary>How far figures may have moved because a price is shared to tax categories before it is shared to lines, and hidden lines are borne within theirs (pricing, Taxes; docs/decisions/008).</summary>
    private static decimal MayMove(string line) =>
        Regex.IsMatch(line, "^lines/.*/shown: |^(places|sections)/[^/]+/price: ") ? 2.5m
        : Regex.IsMatch(line, "^lines/.*/price: |^(places|work)/[^/]+/linePrice: |^price/taxable: ") ? 0.02m
        : 0m;

    private static (string Text, decimal Value) Parted(string line)
    {
        var value = Regex.Match(line, "\"value\":\"([^\"]+)\"").Groups[1];
        return (
            line.Remove(value.Index, value.Length),
            decimal.Parse(value.Value, System.Globalization.CultureInfo.InvariantCulture)
        );
    }

    [Theory]
    [InlineData("996")]
    [InlineData("998")]
    public void A_file_of_version_4_gives_the_figures_it_gave(string name)
    {
        var job = JobFile.Read(Older("job4-" + name));
        var then = Lines(SectionsById(Encoding.UTF8.GetString(Older("reckon4-" + name))));
        var now = Lines(Reported.Of(job).ToJsonString(CoreJson.Options));
        // The areas of doors, windows and glass are newer, and so are the sums by heading and the prices per area.
        foreach (var (was, present) in then.Zip(now.Where(line => !IsNewer(line))))
        {
            if (MayMove(was) == 0)
            {
                Assert.Equal(was, present);
                continue;
            }
            Assert.Equal(Parted(was).Text, Parted(present).Text);
            Assert.InRange(Parted(present).Value - Parted(was).Value, -MayMove(was), MayMove(was));
        }
        Assert.Equal(then.Length, now.Count(line => !IsNewer(line)));
        // Written anew and read again it is the same file.
        var written = JobFile.Write(job);
        Assert.Equal(written, JobFile.Write(JobFile.Read(written)));
    }

    [Fact]
    public void A_customer_that_was_named_in_the_file_is_said_beside_it()
    {
        var file = JsonNode.Parse(Older("job4-998"))!.AsObject();
        var (name, id) = ((string)file["info"]!["customer"]!, (Guid)file["info"]!["customerId"]!);
        Assert.Equal(id, JobFile.Read(Older("job4-998"), out var party).Info.Customer);
        Assert.Equal((id, name), (party!.Id, party.Name));
        // Nobody's id: it is made from name and address, and everywhere the same.
        (file["info"]!["customer"], file["info"]!["customerAddress"], file["info"]!["customerId"]) = (
            " Gull House",
            "3 Quay",
            null
        );
        var job = JobFile.Read(Encoding.UTF8.GetBytes(file.ToJsonString()), out party);
        Assert.Equal(Party.IdOf("Gull House", "3 Quay"), job.Info.Customer);
        Assert.Equal(job.Info.Customer, party!.Id);
        // What is kept at home says no names, what leaves the house does.
        Assert.DoesNotContain("Gull House", Encoding.UTF8.GetString(JobFile.Write(job)), StringComparison.Ordinal);
        JobFile.Read(JobFile.Write(job, party: party), out var copied);
        Assert.Equal(party, copied);
        // Nobody.
        file["info"]!["customer"] = "";
        Assert.Null(JobFile.Read(Encoding.UTF8.GetBytes(file.ToJsonString()), out party).Info.Customer);
        Assert.Null(party);
    }

    [Fact]
    public void The_id_of_a_section_made_from_its_name_is_what_it_was()
    {
        // Reckoned with Python's hashlib: sha256("section/Walls"), first 16 bytes, version 8, variant 1.
        Assert.Equal(new Guid("10e17846-fcf6-8536-8f81-9a49129ec291"), Section.IdOf("Walls"));
        Assert.NotEqual(Section.IdOf("Walls"), Section.IdOf("walls"));
    }
}
