using System.Text.Json;
using CsCheck;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What the customer reads (estimating model §9): every way in which work is done, what is left out, and parts that add up.</summary>
public class ProposalTests
{
    private static readonly LabourRole Painter = Sample.Role("Painter", 20);
    private static readonly Material Paint = Sample.Material(
        "Paint",
        Unit.Gallon,
        "400 ft² per gal",
        null,
        0,
        new Pack("1 gal", 1, 40)
    );
    private static readonly ProductionRate Walls = Sample.Rate(
        Measure.NetWallArea,
        Painter,
        Paint,
        "100 ft² per h",
        "60 ft² per h",
        "40 ft² per h"
    ) with
    {
        Wording = "Paint the walls",
        CustomerNote = "Move what is dear to you.",
    };
    private static readonly BookEntry[] Book = [Painter, Paint, Walls];

    /// <summary>A hall, a study, and two equal cells, painted in the usual two coats.</summary>
    private static (Job Job, Guid Work, Guid Hall, Guid Study, Guid Cells) House()
    {
        var (job, work, hall) = Sample.With("Hall 20 x 10 x 8", Book, Walls.Id);
        var (study, cells) = (Sample.NewId(), Sample.NewId());
        job = job.Do(new AddPlace(study, "Study 10 x 10 x 8", "", null))
            .Do(new AddPlace(cells, "Cell 8 x 8 x 8 x2", "", null));
        return (job.Fill(work, [study, cells], CellState.Included), work, hall, study, cells);
    }

    private static string[] Bullets(Job job) =>
        [.. Sample.Proposed(Sample.Reckon(job)).OfType<Bullets>().SelectMany(b => b.Items).Select(b => b.Text)];

    private static PriceRow[] Rows(Job job) =>
        [.. Sample.Proposed(Sample.Reckon(job)).OfType<PriceTable>().First().Rows];

    [Fact]
    public void Work_that_is_done_alike_in_every_room_is_one_sentence()
    {
        var (job, _, _, _, _) = House();
        Assert.Equal(
            "Paint the walls, two coats: in every room. Move what is dear to you.",
            Assert.Single(Bullets(job))
        );
    }

    [Fact]
    public void Where_it_is_done_otherwise_the_customer_reads_so_with_the_places()
    {
        var (job, work, _, study, cells) = House();
        job = job.Set(work, study, "coats", 3).Set(work, cells, "colour", "Samphire");
        Assert.Equal(
            [
                "Paint the walls, two coats: Hall. Move what is dear to you.",
                "Paint the walls, three coats: Study. Move what is dear to you.",
                "Paint the walls, two coats, Samphire: Cell ×2. Move what is dear to you.",
            ],
            Bullets(job)
        );
    }

    [Fact]
    public void A_cells_own_wording_note_and_sentence_stand_where_it_is()
    {
        var (job, work, hall, study, _) = House();
        job = job.Set(work, study, "wording", "Wipe-clean paint").Set(work, study, "customerNote", "By the desk only.");
        job = job.Do(new SetNote(work, hall, "", "After the party."));
        Assert.Equal(
            [
                "Paint the walls, two coats: Hall. Move what is dear to you. After the party.",
                "Wipe-clean paint, two coats: Study. By the desk only.",
                "Paint the walls, two coats: Cell ×2. Move what is dear to you.",
            ],
            Bullets(job)
        );
    }

    [Fact]
    public void A_cell_that_is_hidden_is_not_named_and_the_others_bear_its_price()
    {
        var (job, work, _, study, _) = House();
        job = job with { Proposal = job.Proposal with { Detail = Detail.Place } };
        var (before, after) = (Rows(job), Rows(job.Set(work, study, "hidden", true)));
        Assert.Equal(["Hall", "Study", "Cell ×2"], before.Where(r => r.Kind == RowKind.Part).Select(r => r.Label));
        Assert.Equal(["Hall", "Cell ×2"], after.Where(r => r.Kind == RowKind.Part).Select(r => r.Label));
        Assert.Equal(
            before.Single(r => r.Kind == RowKind.Total).Amount,
            after.Single(r => r.Kind == RowKind.Total).Amount
        );
        // 480 and 512 ft² of wall bear the study's price by theirs: 480 : 512.
        var (hall, cells) = (before[0].Amount!.Value, before[2].Amount!.Value);
        Assert.Equal(
            Math.Round(hall + (before[1].Amount!.Value * hall / (hall + cells)), 2, MidpointRounding.AwayFromZero),
            after[0].Amount
        );
        Assert.DoesNotContain(
            Bullets(job.Set(work, study, "hidden", true)),
            b => b.Contains("Study", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void One_cell_of_hidden_work_can_be_shown()
    {
        var (job, work, hall, _, _) = House();
        job = job.Do(new SetWork(work, "hidden", null, true)).Set(work, hall, "hidden", false);
        Assert.EndsWith(": Hall. Move what is dear to you.", Assert.Single(Bullets(job)), StringComparison.Ordinal);
    }

    [Fact]
    public void What_is_left_out_stands_with_its_sentence_and_sites_are_not_called_rooms()
    {
        var (job, work, hall, _, _) = House();
        job = job.Fill(work, [hall], CellState.Excluded).Do(new SetNote(work, hall, "", "Its mural is kept"));
        Assert.Contains(job.Titled(job.Work[0]) + " in Hall: Its mural is kept.", Bullets(job));
        var (outside, _, _) = Sample.With(
            "Front face 20 x 10",
            [Painter, Paint, Walls with { Measure = Measure.NetFaceArea }],
            Walls.Id
        );
        Assert.Contains(": everywhere.", Assert.Single(Bullets(outside)));
    }

    [Fact]
    public void Work_of_nothing_is_promised_to_nobody()
    {
        // Windows in two rooms, one of which has none.
        var (job, work, place) = Sample.With("Study 12 x 10 x 8; window 3 x 4 x2", [], StarterBook.Id(131));
        job = job.Do(new AddPlace(Sample.NewId(), "Store 6 x 5 x 8", "", null));
        var store = job.Places[1].Id;
        job = job.Fill(work, [store], CellState.Included);
        string Text(Job of) => JsonSerializer.Serialize(Sample.Proposed(Sample.Reckon(of)), CoreJson.Options);
        var said = string.Join("\n", Bullets(job));
        Assert.Contains("Study", said);
        Assert.DoesNotContain("Store", said);
        Assert.DoesNotContain("every room", said);
        // Nor as what the customer does.
        var theirs = job.Set(work, place, "supply", Supply.Customer).Set(work, store, "supply", Supply.Customer);
        Assert.DoesNotContain("Store", Text(theirs));
    }

    [Fact]
    public void What_the_customer_does_or_supplies_is_said_and_not_promised_by_us()
    {
        var (job, work, hall, study, cells) = House();
        job = job.Set(work, hall, "supply", Supply.Customer)
            .Set(work, study, "supply", Supply.CustomerMaterial)
            .Do(new SetNote(work, hall, "", "before we come"));
        job = job with { Proposal = job.Proposal with { Detail = Detail.Place } };
        var blocks = Sample.Proposed(Sample.Reckon(job));
        Assert.Equal(
            ["What we will do", "What you will do", "Price"],
            blocks.OfType<Heading>().Where(h => h.Level == 1).Select(h => h.Text)
        );
        Assert.Equal(
            [
                "Paint the walls, two coats, with material that you supply: Study. Move what is dear to you.",
                "Paint the walls, two coats: Cell ×2. Move what is dear to you.",
                job.Titled(job.Work[0]) + " in Hall: before we come.",
            ],
            Bullets(job)
        );
        Assert.Equal(["Study", "Cell ×2"], Rows(job).Where(r => r.Kind == RowKind.Part).Select(r => r.Label));

        // Nothing of it is ours to do: nothing is promised, and the rest is borne by what is seen.
        job = job.Set(work, study, "supply", Supply.Customer).Set(work, cells, "hidden", true);
        Assert.DoesNotContain(Sample.Proposed(Sample.Reckon(job)).OfType<Heading>(), h => h.Text == "What we will do");
    }

    [Fact]
    public void Coats_are_said_only_where_the_job_says_so_and_the_rate_has_several()
    {
        var (job, _, _, _, _) = House();
        Assert.StartsWith(
            "Paint the walls: in every room.",
            Assert.Single(Bullets(job with { Proposal = job.Proposal with { Coats = false } })),
            StringComparison.Ordinal
        );
        var once = Walls with { Paces = Walls.Paces[..1] };
        var (plain, _, _) = Sample.With("Hall 20 x 10 x 8", [Painter, Paint, once], once.Id);
        Assert.StartsWith("Paint the walls: in every room.", Assert.Single(Bullets(plain)), StringComparison.Ordinal);
    }

    [Fact]
    public void A_cells_rounding_step_rounds_its_hours_alone()
    {
        // 480 ft² ÷ 60 ft²/h = 8 h; 320 ÷ 60 = 5.33 h; 2 · 256 ÷ 60 = 8.53 h.
        var (job, work, _, study, cells) = House();
        Assert.Equal(Rounding.Figure(1312m / 60), Sample.Reckon(job).Reckoned.Costs.Hours.V, 11);
        job = job.Set(work, study, "step", 0.5m).Set(work, cells, "step", 0.25m);
        Assert.Equal(8 + 5.5m + 8.75m, Sample.Reckon(job).Reckoned.Costs.Hours.V);
        Assert.Throws<RefusedException>(() => job.Set(work, study, "step", 0m));
    }

    [Fact]
    public void Parts_add_up_to_the_total_however_a_job_was_edited_and_is_shown()
    {
        var start = DemoJobs.Fixed().ToArray();
        var hidden = 0;
        Gen.Select(Gen.Int[0, start.Length - 1], Gen.Int.Array[0, 12], Gen.Enum<Detail>())
            .Always(
                (which, seeds, detail) =>
                {
                    var job = start[which];
                    foreach (var seed in seeds)
                    {
                        try
                        {
                            var after = job.DoPriced(RandomWork.Command(job, new Random(seed)));
                            _ = Sample.Proposed(Sample.Reckon(after));
                            job = after;
                        }
                        catch (RefusedException)
                        {
                            // A random choice may not fit the work it falls on: an alternate may have no unit price where its section goes by them.
                        }
                    }
                    if (seeds.Length % 2 == 1)
                        job = job.Do(
                            new SetWork(
                                job.Work[^1].Id,
                                "hidden",
                                ChangeSet.Get(job, $"work/{job.Work[^1].Id}/hidden"),
                                true
                            )
                        );
                    job = job with { Proposal = job.Proposal with { Detail = detail } };
                    var reckoning = Sample.Reckon(job);
                    if (reckoning.Reckoned.Lines.Any(l => l.Hidden))
                        Interlocked.Increment(ref hidden);
                    var rows = Sample
                        .Proposed(reckoning)
                        .OfType<PriceTable>()
                        .First(t => t.Rows.Any(r => r.Kind == RowKind.Total))
                        .Rows;
                    var (subtotal, total) = (
                        rows.Single(r => r.Kind == RowKind.Subtotal).Amount,
                        rows.Single(r => r.Kind == RowKind.Total).Amount
                    );
                    if (detail != Detail.Total && rows.Any(r => r.Kind == RowKind.Part))
                        Assert.Equal(
                            subtotal,
                            rows.Where(r => r.Kind is RowKind.Part or RowKind.Discount).Sum(r => r.Amount)
                        );
                    Assert.Equal(reckoning.Price.BeforeTax.V, subtotal);
                    Assert.Equal(total, subtotal + rows.Where(r => r.Kind == RowKind.Tax).Sum(r => r.Amount));
                },
                times: 60
            );
        Assert.InRange(hidden, 5, int.MaxValue);
    }
}
