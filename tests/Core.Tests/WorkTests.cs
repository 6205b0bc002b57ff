using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Checks;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Work items and cells (estimating model §4): what a cell may have of its own, and what becomes of it. Numbers are reckoned by hand beside each.</summary>
public class WorkTests
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
    private static readonly Material Other = Sample.Material(
        "Other paint",
        Unit.Gallon,
        "300 ft² per gal",
        null,
        0,
        new Pack("1 gal", 1, 50)
    );
    private static readonly ProductionRate Walls = Sample.Rate(
        Measure.FloorArea,
        Painter,
        Paint,
        "100 ft² per h",
        "60 ft² per h"
    ) with
    {
        Levels = [new("hard", 1.5m)],
    };
    private static readonly BookEntry[] Book = [Painter, Paint, Other, Walls, Sample.Role("Foreman", 30)];

    /// <summary>Two rooms, 300 and 200 ft² of floor, painted in two coats.</summary>
    private static (Job Job, Guid Work, Guid Big, Guid Small) Rooms()
    {
        var (job, work, big) = Sample.With("Big 30 x 10 x 8", Book, Walls.Id);
        var small = Sample.NewId();
        job = job.Do(new AddPlace(small, "Small 20 x 10 x 8", "", null), Book).Fill(work, [small], CellState.Included);
        return (job, work, big, small);
    }

    private static Job Set<T>(Job job, Guid work, string field, T now) =>
        job.Do(
            new SetWork(
                work,
                field,
                ChangeSet.Get(job, $"work/{work}/{field}"),
                JsonSerializer.SerializeToNode(now, CoreJson.Options)
            ),
            Book
        );

    [Fact]
    public void A_cell_takes_its_own_coats_and_falls_back_to_its_items()
    {
        var (job, work, big, small) = Rooms();
        Assert.Equal(Rounding.Figure(300m / 60 + 200m / 60), Sample.Reckon(job).Reckoned.Costs.Hours.V);
        var own = job.Set(work, small, "coats", 1, Book);
        var reckoning = Sample.Reckon(own);
        // 300 ÷ 60 + 200 ÷ 100; 300 ft² twice and 200 once at 400 ft² a gallon.
        Assert.Equal(7m, reckoning.Reckoned.Costs.Hours.V);
        Assert.Equal(2m, reckoning.Reckoned.Costs.Buying.Single().Need.V);
        Assert.True(own.Cells[new(work, small)].Differs);
        Assert.False(own.Cells[new(work, big)].Differs);
        var back = own.Do(new FallBack([work], [big, small], own.Seen([work], [big, small])));
        Assert.Equal(JobFile.Write(job), JobFile.Write(back));
        Assert.Equal(
            "coats",
            Assert.Throws<RefusedException>(() => job.Set(work, small, "coats", 3, Book)).Refusal.Field
        );
    }

    [Fact]
    public void A_cell_with_its_own_product_or_colour_is_bought_apart()
    {
        var (job, work, _, small) = Rooms();
        job = Set(job.Set(work, small, "product", Other.Id, Book), work, "colour", "Tern");
        var buying = Sample.Reckon(job).Reckoned.Costs.Buying;
        Assert.Equal(
            [("Paint", 1.5m), ("Other paint", Rounding.Figure(400m / 300))],
            buying.Select(b => (b.Material.Name, b.Need.V))
        );
        job = job.Set(work, small, "colour", "Slate", Book);
        Assert.Equal(["Tern", "Slate"], Sample.Reckon(job).Reckoned.Costs.Buying.Select(b => b.Colour));
        // What the lines cost still adds up to what the job costs.
        Assert.Equal(
            Sample.Reckon(job).Price.Direct.V,
            Rounding.Money(Spread.Of(Sample.Reckon(job), Trace.Silent).Costs.Sum(c => c.V))
        );
    }

    [Fact]
    public void Pace_difficulty_and_role_of_a_cell_are_its_own()
    {
        var (job, work, _, small) = Rooms();
        job = job.Set(work, small, "pace", "50 ft² per h")
            .Set(work, small, "difficulty", "hard")
            .Set(work, small, "role", Book[4].Id, Book);
        var reckoning = Sample.Reckon(job);
        Assert.Equal(5m + 200m / 50 * 1.5m, reckoning.Reckoned.Costs.Hours.V);
        Assert.Equal(
            [("Painter", 5m), ("Foreman", 6m)],
            reckoning.Reckoned.Costs.Roles.Select(r => (r.Role.Name, r.Hours.V))
        );
        Assert.Equal(
            "difficulty",
            Assert.Throws<RefusedException>(() => job.Set(work, small, "difficulty", "odd", Book)).Refusal.Field
        );
    }

    [Fact]
    public void A_typed_quantity_stands_for_one_of_equal_places()
    {
        var (job, work, _, small) = Rooms();
        job = job.Do(new EditPlaces([new(small, job.Place(small)!.Line)], "count", "3"));
        job = job.Set(work, small, "quantity", new TypedQuantity(Kind.Area, "12'6 x 8", UnitSystem.Feet), Book);
        Assert.Equal([300m, 300m], Sample.Reckon(job).Reckoned.Lines.Select(l => l.Quantity.V));
        Assert.Equal(
            "quantity",
            Assert
                .Throws<RefusedException>(() =>
                    job.Set(work, small, "quantity", new TypedQuantity(Kind.Length, "12", UnitSystem.Feet), Book)
                )
                .Refusal.Field
        );
        Assert.ThrowsAny<RefusedException>(() =>
            job.Set(work, small, "quantity", new TypedQuantity(Kind.Area, "about ten", UnitSystem.Feet), Book)
        );
    }

    [Fact]
    public void An_allowance_is_its_sum_and_nothing_else()
    {
        var (job, work, _, small) = Rooms();
        job = job.Do(new EditPlaces([new(small, job.Place(small)!.Line)], "count", "2"));
        job = job.Set(work, small, "allowance", "250", Book);
        var reckoning = Sample.Reckon(job);
        Assert.Equal(5m, reckoning.Reckoned.Costs.Hours.V);
        Assert.Equal(1.5m, reckoning.Reckoned.Costs.Buying.Single().Need.V);
        Assert.Equal(500m, reckoning.Price.PriceOnly.V);
        Assert.Equal(reckoning.Price.BeforeTax.V, reckoning.Price.OfCosts.V + 500m);
        Assert.Equal(500m, Spread.Of(reckoning, Trace.Silent).Lines[1].V);
        Assert.Contains(
            Sample.Proposed(reckoning).OfType<Bullets>().SelectMany(b => b.Items),
            b => b.Text.Contains("an allowance of 500.00", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void Hidden_work_is_not_named_and_its_price_is_borne_by_its_section_to_the_cent()
    {
        var job = Sample.Library();
        var skirting = job.Work.First(w => w.Name == "Skirting, fit");
        var hidden = Set(
            job with
            {
                Proposal = job.Proposal with { Detail = Detail.Section },
            },
            skirting.Id,
            "hidden",
            true
        );
        var blocks = Sample.Proposed(Sample.Reckon(hidden));
        Assert.DoesNotContain(
            blocks.OfType<Bullets>().SelectMany(b => b.Items),
            b => b.Text.Contains("new primed skirting", StringComparison.Ordinal)
        );
        var before = Sample
            .Proposed(Sample.Reckon(job with { Proposal = hidden.Proposal }))
            .OfType<PriceTable>()
            .First()
            .Rows;
        var after = blocks.OfType<PriceTable>().First().Rows;
        Assert.Equal(before.Select(r => (r.Label, r.Amount)), after.Select(r => (r.Label, r.Amount)));
        // All of a section hidden: the others bear it.
        foreach (var item in hidden.Work.Where(w => hidden.SectionOf(w) == "Woodwork"))
            hidden = Set(hidden, item.Id, "hidden", true);
        var rows = Sample.Proposed(Sample.Reckon(hidden)).OfType<PriceTable>().First().Rows;
        Assert.DoesNotContain(rows, r => r.Label == "Woodwork");
        Assert.Equal(
            rows.Single(r => r.Kind == RowKind.Subtotal).Amount,
            rows.Where(r => r.Kind == RowKind.Part).Sum(r => r.Amount)
        );
    }

    [Fact]
    public void An_alternate_is_no_part_of_the_job_and_has_a_price_of_its_own()
    {
        var (job, work, _, small) = Rooms();
        var without = Sample.Reckon(job.Fill(work, [small], null));
        job = job.Fill(work, [small], CellState.Alternate);
        var reckoning = Sample.Reckon(job);
        Assert.Equal(without.Price.Total.V, reckoning.Price.Total.V);
        Assert.Equal(200m, reckoning.Reckoned.At(new(work, small))!.Quantity.V);
        var trace = Trace.Recording();
        var alternate = Alternates.Priced(Estimate.Of(job, trace), trace).Single();
        // Alone it buys a gallon of its own: what it would cost as a job of its own.
        var alone = Sample.Reckon(job.Do(new RemovePlaces([job.Places[0].Id])).Fill(work, [small], CellState.Included));
        Assert.Equal(alone.Price.BeforeTax.V, alternate.Price.V);
        var path = Alternates.Within(work) + "price/beforeTax";
        Assert.Equal(alternate.Price.V, trace.Figures[path].Value);
        WorkingsTests.Checker(trace, path).Figure(path);
        Assert.Contains(Sample.Proposed(reckoning).OfType<Heading>(), h => h.Text == "Alternates, not in the price");
    }

    [Fact]
    public void The_pace_of_a_job_multiplies_labour_and_says_why()
    {
        var (job, work, big, _) = Rooms();
        job = job.Do(new SetPace(null, new(1.25m, "lift out of order")));
        Assert.Equal(Rounding.Figure(500m / 60 * 1.25m), Sample.Reckon(job).Reckoned.Costs.Hours.V);
        Assert.Contains(
            "× 1.25 (lift out of order)",
            Explanation.Sentence(
                Reported.Record(job).Trace.Figures[
                    $"cells/{work}/{big}/parts/{Sample.Reckon(job).Reckoned.Lines[0].Item.Parts[0].Id}"
                ]
            ),
            StringComparison.Ordinal
        );
        Assert.Equal(
            "factor",
            Assert.Throws<RefusedException>(() => job.Do(new SetPace(job.Pace, new(50, "x")))).Refusal.Field
        );
        Assert.Equal(
            "reason",
            Assert.Throws<RefusedException>(() => job.Do(new SetPace(job.Pace, new(2, " ")))).Refusal.Field
        );
        Assert.Throws<ConflictException>(() => job.Do(new SetPace(null, null)));
    }

    [Theory]
    [InlineData("", "")]
    [InlineData("·", "")]
    [InlineData("0", "")]
    [InlineData("x", "i")]
    [InlineData("Yes", "i")]
    [InlineData("1,234.5", "i")]
    [InlineData("out", "x")]
    [InlineData("excluded", "x")]
    [InlineData("OUT: the mat stays", "x the mat stays")]
    [InlineData("alt", "a")]
    [InlineData("maybe", "!")]
    public void A_text_from_a_spreadsheet_is_read_as_a_mark(string text, string expected)
    {
        var (job, work, big, _) = Rooms();
        string Read()
        {
            var cell = job.Do(new PasteCells([work], [big], job.Seen([work], [big]), [text], false))
                .Cells.GetValueOrDefault(new(work, big));
            return cell is null
                ? ""
                : $"{cell.State switch { CellState.Included => "i", CellState.Excluded => "x", _ => "a" }} {cell.Note}".TrimEnd();
        }
        if (expected == "!")
            Assert.Contains(
                "Nothing was pasted",
                Assert.Throws<RefusedException>(Read).Message,
                StringComparison.Ordinal
            );
        else
            Assert.Equal(expected, Read());
    }

    [Theory]
    [InlineData("300", null)]
    [InlineData("300.04", null)]
    [InlineData("240", "240 ft²")]
    [InlineData("24 x 10", "24 x 10")]
    [InlineData("20 m²", "20 m²")]
    public void A_number_from_a_spreadsheet_is_a_quantity_unless_it_is_the_measure(string text, string? typed)
    {
        var (job, work, big, _) = Rooms();
        Assert.Equal(
            typed,
            job.Do(new PasteCells([work], [big], "i", [text], true)).Cells[new(work, big)].Quantity?.Text
        );
    }

    [Theory]
    [InlineData("1,5", false)]
    [InlineData("1,234", false)]
    [InlineData("12345,67", false)]
    [InlineData("1.234,5", false)]
    [InlineData("1,234.5", true)]
    [InlineData("1,234,567", true)]
    [InlineData("1234.5", true)]
    [InlineData(".5", true)]
    [InlineData("1e3", true)]
    [InlineData("1,23.5", false)]
    [InlineData("12,34,567", false)]
    [InlineData("1,5 m2", false)]
    public void A_comma_in_a_pasted_number_is_never_guessed_at(string text, bool taken)
    {
        // In a metric job 1,5 is 1.5 to one person and nothing at all to another; it is never 15.
        var (job, work, place) = Sample.With(
            "Hall 5 x 4 x 3",
            [.. StarterBook.Entries],
            StarterBook.Id(100),
            Quantities.UnitSystem.Metres
        );
        Cell Paste() => job.Do(new PasteCells([work], [place], "i", [text], true)).Cells[new(work, place)];
        if (taken)
            Assert.NotNull(Paste().Quantity);
        else
            Assert.Contains(
                $"“{text}”",
                Assert.Throws<RefusedException>(() => Paste()).Message,
                StringComparison.Ordinal
            );
    }

    [Fact]
    public void A_copied_block_is_laid_as_often_as_it_fits_and_keeps_only_what_fits_other_work()
    {
        var (job, work, big, small) = Rooms();
        var second = Sample.NewId();
        job = job.Do(new AddWork(second, StarterBook.Id(100), work));
        job = job.Set(work, big, "coats", 1).Set(work, big, "supply", "customer", Book);
        job = job.Do(
            new CopyCells([work], [big], [work, second], [big, small], job.Seen([work, second], [big, small]))
        );
        Assert.Equal((1, Supply.Customer), (job.Cells[new(work, small)].Coats, job.Cells[new(work, small)].Supply));
        Assert.Equal(
            (null, Supply.Customer),
            (job.Cells[new(second, small)].Coats, job.Cells[new(second, small)].Supply)
        );
        Assert.Throws<ConflictException>(() => job.Do(new CopyCells([work], [big], [work], [small], ".")));
        Assert.Throws<RefusedException>(() => job.Do(new CopyCells([], [], [work], [small], "i")));
    }

    [Fact]
    public void A_source_of_quantity_is_not_copied_to_where_it_is_not()
    {
        var (job, work, big) = Sample.With("Hall 10 x 10 x 8; band dado to 3", [], StarterBook.Id(111));
        var plain = Sample.NewId();
        job = job.Do(new AddPlace(plain, "Cell 9 x 9 x 8", "", null));
        job = job.Set(work, big, "source", "bands/1");
        job = job.Do(new CopyCells([work], [big], [work], [plain], "."));
        Assert.Equal("", job.Cells[new(work, plain)].Source);
        Assert.Equal(288m, Sample.Reckon(job).Reckoned.Lines[1].Quantity.V);
    }

    [Fact]
    public void Work_is_moved_between_sections_and_removed_without_leaving_waits()
    {
        var job = Sample.Library();
        var (first, last) = (job.Work[0], job.Work[^1]);
        var moved = job.Do(new MoveWork(first.Id, last.Section, last.Id));
        Assert.Equal((first.Id, last.Section), (moved.Work[^1].Id, moved.Work[^1].Section));
        Assert.Equal(Sample.Reckon(job).Price.Total.V, Sample.Reckon(moved).Price.Total.V);
        Assert.Equal(first.Id, moved.Do(new MoveWork(first.Id, first.Section, null)).Work[0].Id);
        Assert.Equal(
            "after",
            Assert.Throws<RefusedException>(() => job.Do(new MoveWork(first.Id, last.Section, first.Id))).Refusal.Field
        );
        var waits = Set(job, last.Id, "waitsFor", new[] { first.Id });
        Assert.Empty(waits.Do(new RemoveWork(first.Id)).Work[^1].WaitsFor);
    }

    [Fact]
    public void Work_comes_with_its_places_answers_and_what_goes_with_it_as_one_edit()
    {
        var (job, _, big, small) = Rooms();
        var (fit, paint) = (Sample.NewId(), Sample.NewId());
        var added = job.Do(
            new AddWork(fit, StarterBook.Id(132), null)
            {
                Places = [big, small],
                With = [new(StarterBook.Id(133), paint)],
            }
        );
        Assert.Equal(["ii", "ii"], new[] { big, small }.Select(p => added.Seen([fit, paint], [p])));
        // What the job has already is not added twice.
        var again = added.Do(
            new AddWork(Sample.NewId(), StarterBook.Id(132), null) { With = [new(StarterBook.Id(133), Sample.NewId())] }
        );
        Assert.Single(again.Work, w => w.Entry == StarterBook.Id(133));
    }

    [Fact]
    public void A_product_is_replaced_in_work_cells_and_parts_of_assemblies()
    {
        var job = DemoJobs.Fixed().Single(j => j.Info.Number == "2039");
        var eggshell = StarterBook.Id(20);
        var replaced = job.Do(new ReplaceProduct(eggshell, StarterBook.Id(2006)));
        Assert.DoesNotContain(Sample.Reckon(replaced).Reckoned.Costs.Buying, b => b.Material.Id == eggshell);
        Assert.Equal(Sample.Reckon(job).Reckoned.Costs.Hours.V, Sample.Reckon(replaced).Reckoned.Costs.Hours.V);
        var tile = job.Do(new ReplaceProduct(StarterBook.Id(2004), StarterBook.Id(2005)));
        Assert.Contains(tile.Book[StarterBook.Id(2201)].Needs, n => n == StarterBook.Id(2005));
        Assert.DoesNotContain(tile.Book[StarterBook.Id(2201)].Needs, n => n == StarterBook.Id(2004));
        Assert.Contains(
            "cannot take its place",
            Assert.Throws<RefusedException>(() => job.Do(new ReplaceProduct(eggshell, StarterBook.Id(2001)))).Message,
            StringComparison.Ordinal
        );
        Assert.Equal(
            "from",
            Assert
                .Throws<RefusedException>(() => job.Do(new ReplaceProduct(StarterBook.Id(3021), eggshell)))
                .Refusal.Field
        );
    }

    [Fact]
    public void An_entry_changed_in_the_job_stays_there_until_the_Books_is_taken()
    {
        var (job, work, _, _) = Rooms();
        var dear = Paint with { Packs = [new("1 gal", 1, 60)] };
        var changed = job.Do(new SetEntry(Paint, dear), Book);
        Assert.Equal(3 * 60m, Sample.Reckon(changed).Reckoned.Costs.Buying.Single().BoughtCost.V);
        Assert.Throws<ConflictException>(() => changed.Do(new SetEntry(Paint, dear with { WastePercent = 3 }), Book));
        Assert.Equal(
            "packs",
            Assert
                .Throws<RefusedException>(() => job.Do(new SetEntry(Paint, Paint with { Packs = [] }), Book))
                .Refusal.Field
        );
        var newest = Paint with { Version = 2, Packs = [new("1 gal", 1, 44)] };
        var taken = changed.Do(new TakeFromBook([Paint.Id], null), [newest, Painter, Walls]);
        Assert.Equal(
            (2, 3 * 44m),
            (taken.Book[Paint.Id].Version, Sample.Reckon(taken).Reckoned.Costs.Buying.Single().BoughtCost.V)
        );
        // Taking a rate drops what its work item has instead.
        var own = Set(job, work, "pace", "90 ft² per h");
        Assert.Null(own.Do(new TakeFromBook([Walls.Id], work), Book).Item(work)!.Pace);
    }

    [Fact]
    public void What_is_kept_in_the_Book_is_the_entry_as_the_work_uses_it()
    {
        var (job, work, _, _) = Rooms();
        job = Set(
            Set(Set(job, work, "pace", "72 ft² per h"), work, "product", Other.Id),
            work,
            "crewNote",
            "two brushes"
        );
        var kept = (ProductionRate)KeptEntry.Of(job.Item(work)!, "Walls", Walls);
        Assert.Equal(["100 ft² per h", "72 ft² per h"], kept.Paces.Select(p => p.Pace.ToString()));
        Assert.Equal((Other.Id, "two brushes"), (kept.Product, kept.CrewNote));
        // Used as it was kept, the job comes to the same.
        var back = job.Do(new TakeFromBook([Walls.Id], work), [kept with { Version = 2 }, .. Book]);
        Assert.Equal(Sample.Reckon(job).Price.Total.V, Sample.Reckon(back).Price.Total.V);
    }

    [Fact]
    public void Workings_as_text_go_down_to_what_was_typed()
    {
        var trace = Reported.Record(Sample.Library()).Trace;
        var text = Explanation.Text(
            trace,
            trace.Figures.Keys.First(k =>
                k.StartsWith("cells/", StringComparison.Ordinal) && k.EndsWith("/hours", StringComparison.Ordinal)
            )
        )!;
        Assert.Contains("in the Book", text, StringComparison.Ordinal);
        Assert.Contains("17'8, typed", text, StringComparison.Ordinal);
        Assert.Null(Explanation.Text(trace, "nothing/there"));
        Assert.InRange(Explanation.Text(trace, "price/total")!.Split('\n').Length, 200, Explanation.MostLines + 2);
    }

    [Fact]
    public void A_field_of_several_cells_is_set_in_one_change_set_or_in_none()
    {
        var (job, work, big, small) = Rooms();
        job = job.Set(work, big, "coats", 2, Book);
        static JsonNode? Json<T>(T value) => JsonSerializer.SerializeToNode(value, CoreJson.Options);
        SetCells To(JsonNode? wasBig, JsonNode? wasSmall) =>
            new(work, "coats", [new(small, wasSmall, Json(1)), new(big, wasBig, Json(1))]);
        // Seen as it was before the big room was set: neither is set.
        Assert.Throws<ConflictException>(() => job.Do(To(null, null), Book));
        var (after, changes) = Commands.Apply(job, To(Json(2), null), id => null);
        Assert.Equal([1, 1], new[] { big, small }.Select(p => after.Cells[new(work, p)].Coats!.Value));
        Assert.Equal(JobTests.File(job), JobTests.File(ChangeSet.Apply(after, ChangeSet.Reversed(changes))));
        Assert.Equal([new(work, small), new(work, big)], ChangeSet.OnlyCells(changes)!);
        Assert.Throws<RefusedException>(() =>
            job.Do(new SetCells(work, "coats", [new(big, Json(2), null), new(big, Json(2), null)]), Book)
        );
        Assert.Throws<RefusedException>(() =>
            job.Do(new SetCells(work, "coats", [new(Sample.NewId(), null, null)]), Book)
        );
        // One that the work cannot be done so: none.
        Assert.Throws<RefusedException>(() =>
            job.Do(new SetCells(work, "difficulty", [new(big, null, "hard"), new(small, null, "impossible")]), Book)
        );
    }

    [Fact]
    public void Conditions_are_set_on_several_places_at_once_and_pinned()
    {
        var condition = new Condition(Sample.NewId(), 1, "occupied", "people work here", 1.25m, 1, 1);
        var (job, _, big, small) = Rooms();
        var on = JsonSerializer.SerializeToNode(new[] { new PlaceCondition(condition.Id, "") }, CoreJson.Options);
        var after = job.Do(
            new SetPlaces("conditions", [new(big, new JsonArray(), on), new(small, new JsonArray(), on)]),
            [.. Book, condition]
        );
        Assert.Equal(
            Rounding.Figure((300m / 60 * 1.25m) + (200m / 60 * 1.25m)),
            Sample.Reckon(after).Reckoned.Costs.Hours.V
        );
        Assert.True(after.Book.ContainsKey(condition.Id));
        Assert.Throws<RefusedException>(() => job.Do(new SetPlaces("line", [new(big, "", "Big 9 x 9 x 9")])));
    }
}
