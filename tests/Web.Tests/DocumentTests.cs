using System.Diagnostics;
using System.Text.Json.Nodes;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Documents;
using Emendum.Storage.Demo;
using UglyToad.PdfPig;
using Xunit;
using Trace = Emendum.Core.Figures.Trace;

namespace Emendum.Web.Tests;

public class DocumentTests
{
    private static Job Library(Detail detail)
    {
        var job = LibraryJob.Build(StarterBook.Id(999), StarterBook.Id(900), "2026-11-23");
        return job with { Proposal = job.Proposal with { Detail = detail } };
    }

    private static readonly Party Trust = new(
        Guid.Empty,
        "Saltmarsh Lending Library Trust",
        "2 Causeway Road, Port Ennis"
    );

    private static Job Letter(Job job, string words) =>
        job with
        {
            Blocks = [.. job.Blocks.Select(b => b.Kind == BlockKind.Letter ? b with { Words = words } : b)],
        };

    private static byte[] Pdf(Job job) =>
        ProposalPdf.Write(
            Proposal.Of(Estimate.Of(job, Trace.Silent), Trust, Brand.Starting, Trace.Silent),
            job.Info,
            Brand.Starting
        );

    [Theory]
    [InlineData(Detail.Total)]
    [InlineData(Detail.Section)]
    [InlineData(Detail.Place)]
    public void The_PDF_says_what_the_blocks_say(Detail detail)
    {
        var job = Library(detail);
        var blocks = Proposal
            .Of(Estimate.Of(job, Trace.Silent), Trust, Brand.Starting, Trace.Silent)
            .Elements.ToArray();
        using var pdf = PdfDocument.Open(Pdf(job));
        var pages = pdf.GetPages().ToArray();
        var text = Squeezed(string.Concat(pages.Select(p => p.Text)));
        foreach (var row in blocks.OfType<PriceTable>().SelectMany(t => t.Rows))
        {
            Assert.Contains(Squeezed(row.Label), text);
            Assert.Contains(row.Shown, text);
        }
        foreach (var paragraph in blocks.OfType<Paragraph>())
            Assert.Contains(Squeezed(paragraph.Text)[..40], text);
        for (var i = 0; i < pages.Length; i++)
            Assert.Contains(Squeezed($"page {i + 1} of {pages.Length}"), Squeezed(pages[i].Text));
        var fonts = pages.SelectMany(p => p.Letters).Select(l => l.FontName!).Distinct().ToArray();
        Assert.All(fonts, font => Assert.Matches("Literata|Archivo", font));
    }

    /// <summary>Every look on every paper, with everything shown: a document of many pages.</summary>
    public static TheoryData<Look, Paper> Papers
    {
        get
        {
            var all = new TheoryData<Look, Paper>();
            foreach (var look in Enum.GetValues<Look>())
            foreach (var paper in Enum.GetValues<Paper>())
                all.Add(look, paper);
            return all;
        }
    }

    [Theory]
    [MemberData(nameof(Papers))]
    public void Every_look_reads_in_order_on_its_paper_with_heads_repeated_and_none_left_alone(Look look, Paper paper)
    {
        var job = Library(Detail.Line);
        job = job with
        {
            Proposal = job.Proposal with
            {
                UnitPrices = true,
                Quantities = true,
                Hours = true,
                Products = true,
                ScopeBy = Detail.Place,
            },
            Blocks =
            [
                new(ProposalBlock.First(BlockKind.Cover), BlockKind.Cover, "0"),
                .. job.Blocks.Select(b => b.Kind == BlockKind.Terms ? b with { NewPage = true } : b),
            ],
        };
        var brand = Brand.Starting with
        {
            Look = look,
            Paper = paper,
            Colour = "#7fb069",
            Slogan = "Walls and floors",
            Head = "555 0100\nreg. 44",
            Foot = "Insured by nobody real",
        };
        var document = Proposal.Of(Estimate.Of(job, Trace.Silent), Trust, brand, Trace.Silent, "B");
        var bytes = ProposalPdf.Write(document, job.Info, brand);
        Assert.Equal(bytes, ProposalPdf.Write(document, job.Info, brand));
        using var pdf = PdfDocument.Open(bytes);
        var pages = pdf.GetPages().ToArray();
        var (width, height) = paper == Paper.A4 ? (595.28, 841.89) : (612.0, 792.0);
        Assert.All(pages, p => Assert.True(Math.Abs(p.Width - width) < 1 && Math.Abs(p.Height - height) < 1));
        // Nothing is printed beyond the page, nor over its foot.
        Assert.All(pages.SelectMany(p => p.Letters), l => Assert.InRange(l.BoundingBox.Right, 0, width - 40));
        // In the order of the blocks, without a letter lost.
        var text = string.Concat(pages.Select(p => Squeezed(p.Text)));
        var at = 0;
        foreach (var title in document.Blocks.Where(b => b is { IsRead: true, IsTitled: true }).Select(b => b.Title))
        {
            var found = text.IndexOf(Squeezed(title), at, StringComparison.Ordinal);
            Assert.True(found >= 0, $"{title} stands not in its order.");
            at = found;
        }
        foreach (var row in document.Elements.OfType<PriceTable>().SelectMany(t => t.Rows))
        {
            Assert.Contains(Squeezed(row.Label), text);
            Assert.Contains(Squeezed(row.Shown), text);
        }
        Assert.Contains("Proposal2041,revisionB", text);
        // A cover has no number; every other page has, and the foot.
        Assert.DoesNotContain(Squeezed($"page 1 of {pages.Length}"), Squeezed(pages[0].Text));
        for (var i = 1; i < pages.Length; i++)
        {
            Assert.Contains(Squeezed($"page {i + 1} of {pages.Length}"), Squeezed(pages[i].Text));
            Assert.Contains("Insuredbynobodyreal", Squeezed(pages[i].Text));
        }
        // Where the table goes over pages, each has its heads; no page ends in a heading.
        var lines = pages.Select(p => Lines(p).ToArray()).ToArray();
        Assert.True(lines.Count(l => l.Any(x => x.Contains("unitprice", StringComparison.Ordinal))) >= 3);
        string[] heads =
        [
            .. document
                .Blocks.Where(b => b is { IsRead: true, IsTitled: true })
                .Select(b => Squeezed(b.Title))
                .Concat(document.Elements.OfType<Heading>().Select(h => Squeezed(h.Text))),
        ];
        foreach (var page in lines[1..])
        {
            var body = page.Where(l =>
                !l.Contains("Insured", StringComparison.Ordinal) && !l.Contains("page", StringComparison.Ordinal)
            );
            Assert.DoesNotContain(body.Last(), heads);
        }
    }

    /// <summary>The lines of a page from top to bottom, without white space.</summary>
    private static IEnumerable<string> Lines(UglyToad.PdfPig.Content.Page page) =>
        page
            .Letters.GroupBy(l => Math.Round(l.StartBaseLine.Y))
            .OrderByDescending(l => l.Key)
            .Select(l => Squeezed(string.Concat(l.OrderBy(x => x.StartBaseLine.X).Select(x => x.Value))));

    private static string Squeezed(string text) => text.Replace(" ", "", StringComparison.Ordinal);

    [Fact]
    public void No_letter_is_lost_where_others_would_set_a_ligature()
    {
        var job = Library(Detail.Total);
        job = Letter(job, "Skirting 24 ft, coffee-stained office floor, 360 ft²: £ and é and – stay.");
        using var pdf = PdfDocument.Open(Pdf(job));
        Assert.Contains("Skirting24ft,coffee-stainedofficefloor,360ft²:£andéand–stay.", Squeezed(pdf.GetPage(1).Text));
    }

    [Fact]
    public void The_same_job_gives_the_same_bytes() =>
        Assert.Equal(Pdf(Library(Detail.Place)), Pdf(Library(Detail.Place)));

    [Fact]
    public void The_cost_sheet_says_every_step_and_every_line_and_stays_on_the_page()
    {
        var job = Library(Detail.Total);
        var sheet = CostSheet.Of(Estimate.Of(job, Trace.Silent), Trace.Silent);
        var bytes = CostSheetPdf.Write(sheet, Trust.Name);
        Assert.Equal(bytes, CostSheetPdf.Write(sheet, Trust.Name));
        using var pdf = PdfDocument.Open(bytes);
        var pages = pdf.GetPages().ToArray();
        var text = Squeezed(string.Concat(pages.Select(p => p.Text)));
        foreach (var step in sheet.Estimate.Price.Steps.Where(s => s.Amount.V != 0))
            Assert.Contains(Squeezed(step.Label + step.Note + Shown.Money(step.Amount.V)), text);
        foreach (var line in sheet.Lines)
            Assert.Contains(Shown.Money(line.Price.V), text);
        foreach (var buy in sheet.Estimate.Reckoned.Costs.Buying)
            Assert.Contains(Shown.Money(buy.BoughtCost.V), text);
        Assert.Contains(Squeezed(Trust.Name), text);
        Assert.All(pages, p => Assert.Contains("forthefirm,notforthecustomer", Squeezed(p.Text)));
        Assert.True(pages.SelectMany(p => p.Letters).All(l => l.BoundingBox.Right <= Typesetter.PageWidth - 40));
    }

    [Fact]
    public void A_word_longer_than_a_line_is_broken_and_stays_on_the_page()
    {
        var job = Library(Detail.Total);
        using var pdf = PdfDocument.Open(Pdf(Letter(job, new string('w', 400))));
        Assert.True(
            pdf.GetPages().SelectMany(p => p.Letters).All(l => l.BoundingBox.Right <= Typesetter.PageWidth - 70)
        );
    }

    private static (int Code, string Out, string Error) Cli(params string[] arguments) => Run(_ => { }, arguments);

    /// <summary>The command line in a process of its own, set up first.</summary>
    internal static (int Code, string Out, string Error) Run(Action<ProcessStartInfo> setUp, params string[] arguments)
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root.FullName, "Emendum.slnx")))
            root = root.Parent!;
        var configuration = AppContext.BaseDirectory.Contains("/Release/", StringComparison.Ordinal)
            ? "Release"
            : "Debug";
        var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (
            var argument in (string[])
                [
                    Path.Combine(root.FullName, $"src/Emendum.Cli/bin/{configuration}/net10.0/linux-x64/emendum.dll"),
                    .. arguments,
                ]
        )
            start.ArgumentList.Add(argument);
        setUp(start);
        using var process = Process.Start(start)!;
        var (output, error) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        process.WaitForExit();
        return (process.ExitCode, output.Result, error.Result);
    }

    [Fact]
    public void The_command_line_measures_a_tape_line()
    {
        var (code, output, _) = Cli("measure", "Study 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2");
        Assert.Equal(0, code);
        Assert.Equal("360", (string)JsonNode.Parse(output)!["measures"]!["netWallArea"]!["value"]!);
        Assert.Equal(
            "m²",
            (string)
                JsonNode.Parse(Cli("measure", "Study 4 x 3 x 2.5", "--units", "m").Out)!["measures"]!["netWallArea"]![
                    "unit"
                ]!
        );
        var refused = Cli("measure", "Study 14'6 x 11");
        Assert.Equal((2, ""), (refused.Code, refused.Out));
        Assert.Contains("The height is missing", refused.Error);
        Assert.Equal(2, Cli("measure", "Study 14 x 11 x 8", "--deduct", "half").Code);
    }

    [Fact]
    public void The_command_line_reckons_a_job_file_to_the_same_price()
    {
        using var folder = new TemporaryFolder();
        var file = Path.Combine(folder.Path, "job.json");
        var job = Library(Detail.Place);
        File.WriteAllBytes(file, JobFile.Write(job));
        var (code, output, _) = Cli("reckon", file);
        Assert.Equal(0, code);
        Assert.Equal(
            Core.Quantities.Rounding.Text(Estimate.Of(job, Trace.Silent).Price.Total.V),
            (string)JsonNode.Parse(output)!["figures"]!["price/total"]!["value"]!
        );
        File.WriteAllText(file, "{");
        var refused = Cli("reckon", file);
        Assert.Equal(2, refused.Code);
        Assert.Contains("not a job file", refused.Error);
        Assert.Equal(2, Cli("reckon", file + ".gone").Code);
    }
}
