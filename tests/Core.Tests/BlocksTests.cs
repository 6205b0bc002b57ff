using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Checks;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The blocks of a proposal: order, words of the job or of the Book, figures by name, patterns, what is unfinished.</summary>
public class BlocksTests
{
    private static readonly Guid Letter = ProposalBlock.First(BlockKind.Letter),
        Terms = ProposalBlock.First(BlockKind.Terms);

    private static readonly BookText Usual = new(
        Sample.NewId(),
        1,
        "Usual terms",
        TextUse.Terms,
        "You pay *{total}* by {valid until}."
    );

    private static PricedJob Priced(decimal price = 1000)
    {
        var job = new PricedJob();
        job.Work(charge: price);
        return job;
    }

    private static Block Of(Job job, Guid block) =>
        Sample.Document(Sample.Reckon(job)).Blocks.Single(b => b.Id == block);

    private static string Words(Job job, Guid block) =>
        string.Join('\n', Of(job, block).Words.OfType<Paragraph>().Select(p => p.Text));

    private static Job Write(Job job, Guid block, string words) =>
        job.Do(new SetBlock(block, "words", ChangeSet.Get(job, $"blocks/{block}/words"), JsonValue.Create(words)));

    [Fact]
    public void Figures_by_name_follow_every_edit()
    {
        var priced = Priced();
        var job = Write(priced.Job, Letter, "It comes to {total}, of which {tax} is tax; good until {valid until}.");
        Assert.Equal("It comes to 1,000.00, of which 0.00 is tax; good until 14 February 2026.", Words(job, Letter));
        job = job with { Pricing = job.Pricing with { Overhead = 10, Taxes = [PricedJob.Tax(20)] } };
        Assert.Equal("It comes to 1,320.00, of which 220.00 is tax; good until 14 February 2026.", Words(job, Letter));
        job = job.Do(new SetProposal("validDays", 30, 3));
        Assert.EndsWith("good until 18 January 2026.", Words(job, Letter), StringComparison.Ordinal);
        var total = ((Paragraph)Of(job, Letter).Words[0]).Spans.Single(s => s.Name == "total");
        Assert.Equal("price/total", total.Figure);
    }

    [Fact]
    public void Every_figure_that_can_be_named_comes_to_something_somewhere()
    {
        var all = string.Join(' ', FigureNames.All.Select(f => $"{{{f.Name}}}"));
        var round = DemoJobs.Fixed().First(j => !j.Rhythms.IsEmpty);
        var missing = new[] { Sample.Library(), round }
            .Select(job =>
                Proposal
                    .Of(
                        Sample.Reckon(Write(job, Letter, all)),
                        new(Guid.Empty, "The Trust", ""),
                        Brand.Starting,
                        Trace.Silent
                    )
                    .Blocks.Single(b => b.Id == Letter)
                    .Missing.ToArray()
            )
            .ToArray();
        Assert.Equal(["a year", "a month", "revision"], missing[0]);
        Assert.Equal(["deposit", "revision"], missing[1]);
    }

    [Fact]
    public void A_name_that_is_none_is_refused_and_nothing_changes()
    {
        var wrong = Assert.Throws<RefusedException>(() => Write(Priced().Job, Letter, "It is {ttl}.")).Refusal;
        Assert.Equal(("words", 6), (wrong.Field, wrong.Position));
    }

    [Fact]
    public void Words_are_the_Books_until_somebody_writes_others_and_can_be_again()
    {
        var job = Priced().Job.Do(new TakeText(Terms, Usual.Id), Usual);
        Assert.Equal("You pay 1,000.00 by 14 February 2026.", Words(job, Terms));
        Assert.Equal(WordsOf.Book, Of(job, Terms).WordsOf);
        var own = Write(job, Terms, "As we said.");
        Assert.Equal((WordsOf.Job, "As we said."), (Of(own, Terms).WordsOf, Words(own, Terms)));
        var back = own.Do(new SetBlock(Terms, "words", JsonValue.Create("As we said."), null));
        Assert.Equal(JobFile.Write(job), JobFile.Write(back));
        // The Book goes on; the job keeps what it took, until it takes the newest.
        var newer = Usual with
        {
            Version = 2,
            Body = "Cash.",
        };
        Assert.Equal("You pay 1,000.00 by 14 February 2026.", Words(job, Terms));
        Assert.Equal("Cash.", Words(job.Do(new TakeText(Terms, Usual.Id), newer), Terms));
        var other = Assert.Throws<RefusedException>(() => job.Do(new TakeText(Letter, Usual.Id), Usual));
        Assert.Contains("is not for “Letter”", other.Refusal.Message);
    }

    [Fact]
    public void Blocks_move_come_and_go_one_at_a_time()
    {
        var job = Priced().Job;
        Guid[] Order(Job of) => [.. of.Blocks.Select(b => b.Id)];
        var first = Order(job);
        var moved = job.Do(new MoveBlock(Terms, null));
        Assert.Equal([Terms, .. first.Where(b => b != Terms)], Order(moved));
        Assert.Equal(first, Order(moved.Do(new MoveBlock(Terms, first[Array.IndexOf(first, Terms) - 1]))));
        // Where it stands already, nothing changes.
        Assert.Empty(
            Commands.Apply(job, new MoveBlock(Terms, first[Array.IndexOf(first, Terms) - 1]), _ => null).Changes
        );
        var cover = new ProposalBlock(Sample.NewId(), BlockKind.Cover, "zz");
        var added = job.Do(new AddBlock(cover, Letter));
        Assert.Equal([Letter, cover.Id], Order(added)[..2]);
        Assert.Equal(first, Order(added.Do(new RemoveBlock(cover.Id))));
        var twice = Assert.Throws<RefusedException>(() =>
            added.Do(new AddBlock(cover with { Id = Sample.NewId() }, null))
        );
        Assert.Contains("one block “Cover”", twice.Refusal.Message);
        Assert.Throws<RefusedException>(() => job.Do(new MoveBlock(Terms, Terms)));
        Assert.Throws<RefusedException>(() => job.Do(new AddBlock(new(Sample.NewId(), BlockKind.Words, ""), null)));
        // Through the file and back.
        Assert.Equal(Order(moved), Order(JobFile.Read(JobFile.Write(moved))));
        Assert.Equal(Order(job), Order(JobFile.Read(JobFile.Write(job))));
    }

    [Fact]
    public void A_hidden_block_is_not_read_and_moves_no_price()
    {
        var job = Priced().Job;
        var price = ProposalBlock.First(BlockKind.Price);
        var hidden = job.Do(new SetBlock(price, "hidden", false, true));
        Assert.DoesNotContain(Sample.Proposed(Sample.Reckon(hidden)), e => e is PriceTable);
        Assert.Contains(Sample.Proposed(Sample.Reckon(job)), e => e is PriceTable);
        Assert.Equal(Sample.Reckon(job).Price.Total.V, Sample.Reckon(hidden).Price.Total.V);
    }

    [Fact]
    public void A_pattern_brings_its_blocks_and_detail_and_leaves_what_was_written()
    {
        var job = Write(Priced().Job, Letter, "Dear all.");
        job = Write(job, Terms, "Ours.");
        var full = ProposalPatterns.Starting.All.Single(p => p.Name == "Full");
        var taken = job.Do(new TakePattern(full));
        Assert.Equal(full.Blocks.Select(b => b.Kind), taken.Blocks.Select(b => b.Kind));
        Assert.Equal(BlockKind.Cover, taken.Blocks[0].Kind);
        Assert.Equal((Detail.Place, true), (taken.Proposal.Detail, taken.Proposal.Products));
        Assert.Equal(("Dear all.", "Ours."), (Words(taken, Letter), Words(taken, Terms)));
        var page = job.Do(new TakePattern(ProposalPatterns.Starting.All.Single(p => p.Name == "One page")));
        Assert.Equal(
            [BlockKind.Letter, BlockKind.Scope, BlockKind.Price, BlockKind.Signatures],
            page.Blocks.Select(b => b.Kind)
        );
        // A block of another id takes the words of the one it stands for.
        var own = full with
        {
            Blocks = [new(Sample.NewId(), BlockKind.Letter, "") { Words = "not of a pattern" }],
        };
        Assert.Equal("Dear all.", Assert.Single(job.Do(new TakePattern(own)).Blocks).Words);
        Assert.Throws<RefusedException>(() => job.Do(new TakePattern(full with { Blocks = [] })));
    }

    [Fact]
    public void A_unit_price_times_its_quantity_is_the_line_and_the_rest_stands_by_itself()
    {
        // 7 ft² at 100.00: 14.29 × 7 = 100.03 (pricing.md, Steps).
        var job = new PricedJob(PricedJob.Plain with { Basis = PriceBasis.Fixed, FixedPrice = 100 });
        job.Work(charge: 50, at: [job.Place("R 3.5 x 2 x 8")]);
        job.Do(new SetProposal("detail", "section", "line"));
        job.Do(new SetProposal("unitPrices", false, true));
        var rows = Sample.Proposed(job.Estimate).OfType<PriceTable>().First().Rows;
        var line = Assert.Single(rows, r => r.UnitPrice.Length > 0);
        Assert.Equal(("7.0 ft²", "14.29", 100.03m), (line.Quantity, line.UnitPrice, line.Amount));
        Assert.Equal(-0.03m, rows.Single(r => r.Label == "Rounding of unit prices").Amount);
        Assert.Equal(100m, rows.Single(r => r.Kind == RowKind.Subtotal).Amount);
    }

    [Fact]
    public void At_unit_prices_adjustments_are_rows_of_their_own()
    {
        // Two lines of 100 and 60 up to 200, 10 % off, rounded to 50: 100 + 60 + 40 − 20 + 20.
        var job = new PricedJob(
            PricedJob.Plain with
            {
                LeastJob = 200,
                Discounts = [new("second job", 10, null)],
                Rounding = new(50, true, false),
            }
        );
        job.Work(charge: 100);
        job.Work(charge: 60);
        job.Do(new SetProposal("detail", "section", "line"));
        job.Do(new SetProposal("unitPrices", false, true));
        var rows = Sample.Proposed(job.Estimate).OfType<PriceTable>().First().Rows;
        Assert.Equal(
            [100m, 60m, 40m, -20m, 20m],
            rows.Where(r => r.Kind is RowKind.Part or RowKind.Discount).Select(r => r.Amount!.Value)
        );
        Assert.Equal(200m, rows.Single(r => r.Kind == RowKind.Subtotal).Amount);
        // By section they are in the lines, but for the discount.
        job.Do(new SetProposal("detail", "line", "section"));
        rows = Sample.Proposed(job.Estimate).OfType<PriceTable>().First().Rows;
        Assert.Equal(
            [220m, -20m],
            rows.Where(r => r.Kind is RowKind.Part or RowKind.Discount).Select(r => r.Amount!.Value)
        );
    }

    [Fact]
    public void Headlines_bundle_sections_under_one_price_where_the_first_stands()
    {
        var job = new PricedJob();
        job.Work(charge: 100, section: "Walls");
        job.Work(charge: 20, section: "Floors");
        job.Work(charge: 3, section: "Doors");
        var walls = job.Job.Sections.Single(s => s.Name == "Walls").Id;
        var doors = job.Job.Sections.Single(s => s.Name == "Doors").Id;
        job.Do(new SetProposal("detail", "section", "headline"));
        job.Do(
            new SetProposal(
                "headlines",
                new JsonArray(),
                JsonNode.Parse(
                    $$"""[{"words":"Everything that stands upright","sections":["{{doors}}","{{walls}}"]}]"""
                )
            )
        );
        Assert.Equal(
            [("Everything that stands upright", 103m), ("Floors", 20m)],
            Sample
                .Proposed(job.Estimate)
                .OfType<PriceTable>()
                .First()
                .Rows.Where(r => r.Kind == RowKind.Part)
                .Select(r => (r.Label, r.Amount!.Value))
        );
        Assert.Throws<RefusedException>(() =>
            job.Do(
                new SetProposal(
                    "headlines",
                    ChangeSet.Get(job.Job, "proposal/headlines"),
                    JsonNode.Parse(
                        $$"""[{"words":"a","sections":["{{walls}}"]},{"words":"b","sections":["{{walls}}"]}]"""
                    )
                )
            )
        );
    }

    [Fact]
    public void An_exempt_customer_reads_why_and_a_tax_says_what_it_falls_on()
    {
        var job = Priced();
        job.With(t => t with { Taxes = [PricedJob.Tax(7)] });
        PriceRow Tax() =>
            Sample.Proposed(job.Estimate).OfType<PriceTable>().First().Rows.Single(r => r.Kind == RowKind.Tax);
        Assert.Equal(("7 % on the price, 1,000.00", 70m), (Tax().Detail, Tax().Amount!.Value));
        job.With(t => t with { Exemption = new(ExemptKind.Exempt, "a charity") });
        Assert.Equal(("not charged: a charity", 0m), (Tax().Detail, Tax().Amount!.Value));
    }

    [Fact]
    public void Nothing_goes_out_with_a_hole()
    {
        var priced = Priced();
        string[] Holes(Job job, string today = "2026-01-20") =>
            [
                .. BeforeSending
                    .Of(
                        Sample.Reckon(job),
                        Proposal.Of(
                            Sample.Reckon(job),
                            job.Info.Customer is null ? Party.None : new(Guid.Empty, "Ida", ""),
                            Brand.Starting,
                            Trace.Silent
                        ),
                        Quantities.Day.Of(today)
                    )
                    .Select(u => u.Key.Split('/')[0]),
            ];
        Assert.Equal(
            ["customer", "payment", "margin"],
            Holes(priced.Job).Select(k => k == TypePrice.BelowFloor ? "margin" : k)
        );
        var whole = priced.Job with
        {
            Info = priced.Job.Info with { Customer = Sample.NewId() },
            Pricing = priced.Job.Pricing with
            {
                FloorMargin = 0,
                Payment = [new("on acceptance", 30, null, false), new("at the end", null, null, false)],
            },
        };
        Assert.Empty(Holes(whole));
        // The last day of the prices is still one of them.
        Assert.Empty(Holes(whole, "2026-02-14"));
        Assert.Equal(["expired"], Holes(whole, "2026-02-15"));
        Assert.Equal(["figure"], Holes(Write(whole, Letter, "{a month} a month")));
        Assert.Equal(
            ["price"],
            Holes(whole.Do(new SetBlock(ProposalBlock.First(BlockKind.Price), "hidden", false, true)))
        );
        // Work of nothing, and a hazard that nobody has answered.
        var (windows, work, _) = Sample.With("Store 6 x 5 x 8", [], StarterBook.Id(131));
        Assert.Contains("noMeasure", Holes(windows));
        var key = BeforeSending
            .Of(Sample.Reckon(windows), Sample.Document(Sample.Reckon(windows)), new(2026, 1, 20))
            .Single(u => u.Key.StartsWith("noMeasure", StringComparison.Ordinal))
            .Key;
        Assert.DoesNotContain("noMeasure", Holes(windows.Do(new SetAside(key, "", "counted on the spot"))));
        Assert.Equal(["nothing"], Holes(whole with { Cells = whole.Cells.Clear() }).Take(1));
    }

    [Fact]
    public void Where_something_is_done_is_said_briefly_and_truly()
    {
        var draft = Sample.Empty();
        var ids = new List<Guid>();
        void Place(string line, string group)
        {
            ids.Add(Sample.NewId());
            draft = draft.Do(new AddPlace(ids[^1], line, group, null));
        }
        for (var i = 1; i <= 10; i++)
            Place($"Room {i} 10 x 10 x 8", "Ground floor");
        Place("Annex 10 x 10 x 8 x2", "Building B");
        Place("Loft 10 x 10 x 8", "Building B");
        string Said(params int[] but) =>
            new PlacesInWords(draft).Of(draft.Places.Where((_, i) => !but.Contains(i + 1)));
        string Only(params int[] at) => new PlacesInWords(draft).Of(draft.Places.Where((_, i) => at.Contains(i + 1)));
        Assert.Equal("in every room", Said());
        Assert.Equal("in every room except Loft", Said(12));
        Assert.Equal("in every room except Room 1, Room 2 and Annex ×2", Said(1, 2, 11));
        Assert.Equal("all rooms of the ground floor", Only(1, 2, 3, 4, 5, 6, 7, 8, 9, 10));
        Assert.Equal("in every room except Room 3 and Annex ×2", Only(1, 2, 4, 5, 6, 7, 8, 9, 10, 12));
        Assert.Equal("all rooms of Building B", Only(11, 12));
        Assert.Equal("Room 1, Room 2, Annex ×2", Only(1, 2, 11));
        // More than eight names are a list by itself, which stands once.
        for (var i = 11; i <= 30; i++)
            Place($"Room {i} 10 x 10 x 8", "First floor");
        Assert.Equal("all rooms of the ground floor except Room 3; Loft", Only(1, 2, 4, 5, 6, 7, 8, 9, 10, 12));
        var places = new PlacesInWords(draft);
        var some = draft.Places.Where((_, i) => i % 2 == 0).ToArray();
        Assert.Equal("in the 16 places of list 1", places.Of(some));
        Assert.Equal("in the 16 places of list 1", places.Of(some));
        Assert.Equal(string.Join(", ", some.Select(PlacesInWords.Named)), Assert.Single(places.Lists));
    }

    [Fact]
    public void By_place_those_in_which_the_same_is_done_stand_together()
    {
        var job = new PricedJob();
        var (a, b, c) = (job.Place(), job.Place(), job.Place());
        job.Work(charge: 1, at: [a, b]);
        job.Work(charge: 1, at: [c]);
        job.Do(new SetProposal("scopeBy", "section", "place"));
        var names = job.Job.Places.Select(p => p.Name).ToArray();
        Assert.Equal(
            [$"{names[0]}, {names[1]}: work 1.", $"{names[2]}: work 2."],
            Sample.Proposed(job.Estimate).OfType<Bullets>().SelectMany(x => x.Items).Select(x => x.Text)
        );
        job.Do(new SetProposal("scopeBy", "place", "line"));
        job.Do(new SetProposal("quantities", false, true));
        Assert.Equal(
            [
                $"Work 1: {names[0]} (100.0 ft²).",
                $"Work 1: {names[1]} (100.0 ft²).",
                $"Work 2: {names[2]} (100.0 ft²).",
            ],
            Sample.Proposed(job.Estimate).OfType<Bullets>().SelectMany(x => x.Items).Select(x => x.Text)
        );
    }

    [Fact]
    public void A_file_of_version_7_keeps_its_letter_and_terms_and_its_log_changes_them()
    {
        var file = JsonNode.Parse(JobFile.Write(Priced().Job))!.AsObject();
        file["schemaVersion"] = 7;
        var proposal = file["proposal"]!.AsObject();
        (proposal["letter"], proposal["terms"]) = ("Dear all.", "");
        foreach (
            var newer in new[] { "scopeBy", "quantities", "unitPrices", "products", "colours", "hours", "headlines" }
        )
            proposal.Remove(newer);
        var job = JobFile.Read(Encoding.UTF8.GetBytes(file.ToJsonString()));
        Assert.Equal("Dear all.", Words(job, Letter));
        Assert.Equal(ProposalBlock.Starting.Select(b => b.Id), job.Blocks.Select(b => b.Id));
        Assert.Null(job.Blocks.Single(b => b.Id == Terms).Words);
        var changes = new JobUpgrade.Log().Changes(
            [new("proposal/letter", "Dear all.", "Dear both."), new("proposal/terms", "", "Cash.")],
            7
        );
        var after = ChangeSet.Apply(job, changes);
        Assert.Equal(("Dear both.", "Cash."), (Words(after, Letter), Words(after, Terms)));
        Assert.Equal(JobFile.Write(job), JobFile.Write(ChangeSet.Apply(after, [.. ChangeSet.Reversed(changes)])));
    }

    [Fact]
    public void Colours_are_kept_readable_and_dates_are_as_their_language_has_them()
    {
        // Black on white is 21 to 1, and #767676 the lightest grey of 4.5 (WCAG 2.2, 1.4.3).
        Assert.Equal(21, Contrast.OnWhite("#000000"), 2);
        Assert.Equal(4.54, Contrast.OnWhite("#767676"), 2);
        Assert.Equal("#0e5a63", Contrast.Readable("#0e5a63"));
        for (var i = 0; i < 4096; i += 7)
        {
            var colour = $"#{i / 256 * 17:x2}{i / 16 % 16 * 17:x2}{i % 16 * 17:x2}";
            Assert.True(Contrast.OnWhite(Contrast.Readable(colour)) >= 4.5, colour);
        }
        string Day(string language) => PaperLanguage.Named(language).Day(new(2026, 3, 5));
        string Number(string language) => PaperLanguage.Named(language).Number("−12,345.60");
        // Unicode CLDR, long dates and decimal numbers, from memory; a browser's own are compared in office.spec.
        Assert.Equal(("5 March 2026", "March 5, 2026"), (Day("en-GB"), Day("en-US")));
        Assert.Equal(("5. März 2026", "5 de marzo de 2026"), (Day("de"), Day("es")));
        Assert.Equal(("−12.345,60", "−12\u00a0345,60", "−12'345.60"), (Number("de"), Number("fr"), Number("de-CH")));
        foreach (var wrong in new[] { "red", "#12345", "#12345g", "" })
            Assert.Throws<RefusedException>(() => (Brand.Starting with { Colour = wrong }).Check());
        Assert.Throws<RefusedException>(() => (Brand.Starting with { Language = "xx" }).Check());
        Assert.Throws<RefusedException>(() => (Brand.Starting with { Mark = "../x" }).Check());
    }

    private static BlockFile Picture(int width, int height, char name = 'a') =>
        new(new string(name, 64), "", width, height);

    /// <summary>How wide the pictures of a block stand, row by row, in percent of the row.</summary>
    private static string Shares(int? across, params BlockFile[] files)
    {
        var block = new ProposalBlock(Sample.NewId(), BlockKind.Pictures, "") { Files = [.. files], Across = across };
        var made = Of(Priced().Job.Do(new AddBlock(block, Letter)), block.Id).Made;
        return string.Join(
            " | ",
            made.Cast<PictureRow>()
                .Select(row =>
                    string.Join(' ', row.Pictures.Select(p => p.Share.ToString("0.00", CultureInfo.InvariantCulture)))
                )
        );
    }

    [Fact]
    public void Pictures_of_a_row_are_as_high_as_each_other_and_none_is_a_page_high()
    {
        // 1.6 and 1.3333 wide for each high: 1.6 ÷ 2.9333 and 1.3333 ÷ 2.9333 of the row.
        Assert.Equal("54.54 45.45", Shares(2, Picture(1600, 1000), Picture(800, 600, 'b')));
        // 0.5 wide for each high: at full width it would stand two widths high; 0.62 is the most, so 0.31 wide.
        Assert.Equal("31.00", Shares(1, Picture(600, 1200)));
        // A row that is not full leaves room, so that the last picture is no larger than the others.
        Assert.Equal(
            "50.00 50.00 | 50.00",
            Shares(null, Picture(1600, 1000), Picture(1600, 1000, 'b'), Picture(1600, 1000, 'c'))
        );
        Assert.Equal("", Shares(3));
    }

    [Fact]
    public void A_block_of_pictures_is_not_read_without_any_and_takes_only_what_is_one()
    {
        var block = new ProposalBlock(Sample.NewId(), BlockKind.Pictures, "") { Words = "See:" };
        var job = Priced().Job.Do(new AddBlock(block, Letter));
        Assert.False(Of(job, block.Id).IsRead);
        Job With(params BlockFile[] files) =>
            job.Do(new SetBlock(block.Id, "files", null, JsonSerializer.SerializeToNode(files, CoreJson.Options)));
        Assert.True(Of(With(Picture(2, 1)), block.Id).IsRead);
        foreach (
            var wrong in new[]
            {
                Picture(0, 0),
                Picture(0, 1),
                Picture(20_001, 1),
                Picture(2, 1) with
                {
                    File = "A" + new string('a', 63),
                },
                Picture(2, 1) with
                {
                    Words = "two\nlines",
                },
            }
        )
            Assert.Equal("files", Assert.Throws<RefusedException>(() => With(wrong)).Refusal.Field);
        Assert.Throws<RefusedException>(() =>
            With([.. Enumerable.Range(0, 25).Select(i => Picture(2, 1, (char)('a' + i)))])
        );
        Assert.Throws<RefusedException>(() => job.Do(new SetBlock(block.Id, "across", null, 4)));
        Assert.Throws<RefusedException>(() =>
            job.Do(
                new SetBlock(
                    Letter,
                    "files",
                    null,
                    new JsonArray(JsonSerializer.SerializeToNode(Picture(2, 1), CoreJson.Options))
                )
            )
        );
    }

    [Fact]
    public void What_a_pattern_attaches_comes_along_unless_the_job_attaches_something_itself()
    {
        var ours = new ProposalBlock(Sample.NewId(), BlockKind.Attachments, "")
        {
            Files = [new(new string('a', 64), "Insurance.pdf", 0, 0)],
        };
        var pattern = new ProposalPattern(Sample.NewId(), "With papers", "", new(Detail.Total, false, 30), [ours]);
        var job = Priced().Job;
        string Attached(Job of) =>
            string.Join(", ", Of(of, ours.Id).Made.OfType<Attached>().Single().Files.Select(f => f.Name));
        Assert.Equal("Insurance.pdf", Attached(job.Do(new TakePattern(pattern))));
        var own = new ProposalBlock(Sample.NewId(), BlockKind.Attachments, "")
        {
            Files = [new(new string('b', 64), "Plan.pdf", 0, 0)],
        };
        job = job.Do(new AddBlock(own, Letter)).Do(new TakePattern(pattern));
        Assert.Equal("Plan.pdf", Attached(job));
        // Taken again it changes nothing.
        Assert.Empty(Commands.Apply(job, new TakePattern(pattern), _ => null).Changes);
    }
}
