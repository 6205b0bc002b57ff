using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What is refused of an entry, and where; and the Book as a table and a file.</summary>
public class BookRulesTests
{
    private static readonly Dictionary<Guid, BookEntry> All = StarterBook.Entries.ToDictionary(e => e.Id);

    private static T Named<T>(string name)
        where T : BookEntry => StarterBook.Entries.OfType<T>().First(e => e.Name == name);

    private static void Refused(BookEntry entry, string field, string says)
    {
        var refused = Assert.Throws<RefusedException>(() => BookRules.Check(entry, All, named: false)).Refusal;
        Assert.Equal(field, refused.Field);
        Assert.Contains(says, refused.Message);
    }

    private static Assembly With(Func<Component, Component> change, int at = 0)
    {
        var path = Named<Assembly>("Resin-bound path, 18 mm");
        return path with { Components = path.Components.SetItem(at, change(path.Components[at])) };
    }

    [Fact]
    public void An_assembly_is_led_by_what_its_parts_are_driven_by()
    {
        // Its first part went by the floor, and is gone.
        var old = Named<Assembly>("Sheet flooring");
        Component By(Component part, Measure measure) => part with { Id = Guid.NewGuid(), Measure = measure };
        var labour = old.Components.First(c => c.Kind == ComponentKind.Labour);
        var walls = old with { Components = [By(labour, Measure.NetWallArea), By(labour, Measure.CeilingArea)] };
        Assert.Equal(Measure.NetWallArea, ((Assembly)walls.Settled()).Measure);
        // One of them may be chosen, and stays chosen while a part goes by it.
        Assert.Equal(Measure.CeilingArea, ((Assembly)(walls with { Measure = Measure.CeilingArea }).Settled()).Measure);
        // Where it is led by another kind, what leads it on stairs does not fit any more.
        var doors = (Assembly)(old with { Components = [By(labour, Measure.DoorCount)] }).Settled();
        Assert.Equal((Measure.DoorCount, null), (doors.Measure, doors.WhereNone));
        Assert.Equal(Measure.DevelopedArea, ((Assembly)walls.Settled()).WhereNone);
    }

    [Fact]
    public void What_leads_it_elsewhere_is_of_the_same_kind() =>
        Refused(Named<ProductionRate>("Carpet tile") with { WhereNone = Measure.EdgeLength }, "whereNone", "a length");

    [Theory]
    [InlineData("rate", "role", "a role")]
    [InlineData("assembly", "components", "a part")]
    [InlineData("material", "packs", "a pack with its size and price")]
    [InlineData("role", "wage", "a wage above zero")]
    [InlineData("setUp", "role", "a role")]
    [InlineData("text", "body", "its words")]
    public void A_new_entry_says_nothing_that_nobody_said_and_is_kept_in_the_Book_but_used_in_no_job(
        string kind,
        string field,
        string needs
    )
    {
        var entry = Blank.Of(kind, Sample.NewId(), "New");
        Assert.Equal((field, needs), entry.Lacks.Select(l => (l.Field, l.What)).First());
        BookRules.Check(entry, new Dictionary<Guid, BookEntry>(All) { [entry.Id] = entry }, unfinished: true);
        Refused(entry, field, $"needs {needs} before it can be used");
        // What is unfinished deep below stops it, too.
        var user = new ProductionRate(
            Sample.NewId(),
            1,
            "User",
            "Walls",
            Measure.FloorArea,
            [new(1, Ratio.Parse("10 ft² per h"))],
            kind == "role" ? entry.Id : Named<LabourRole>("Painter").Id,
            null,
            "",
            ""
        );
        if (kind == "role")
            Assert.Contains(
                $"New needs {needs}",
                Assert
                    .Throws<RefusedException>(() =>
                        _ = Sample.Empty().Do(new AddWork(Sample.NewId(), user.Id, null), user, entry)
                    )
                    .Message
            );
    }

    [Fact]
    public void A_ring_of_parts_is_refused_with_its_path()
    {
        var path = Named<Assembly>("Resin-bound path, 18 mm");
        // Gravel by the binder, which is by the gravel.
        Refused(
            With(c => c with { Measure = null, Of = path.Components[5].Id, Ratio = Ratio.Parse("1 t per 72 kg") }, 3),
            "components[3].of",
            "Gravel, amber → Resin binder → Gravel, amber"
        );
    }

    [Fact]
    public void Units_that_do_not_fit_are_refused_beside_their_field()
    {
        Refused(
            With(c => c with { Ratio = Ratio.Parse("0.42 gal per h") }),
            "components[0].ratio",
            "does not apply to a mass"
        );
        Refused(With(c => c with { Ratio = Ratio.Parse("1 kg per t") }), "components[0].ratio", "into hours");
        Refused(With(c => c with { Depth = "20 mm" }), "components[0].depth", "makes a volume of an area");
        Refused(With(c => c with { Depth = "20 apples" }, 3), "components[3].depth", "not a thickness");
        Refused(With(c => c with { Measure = Measure.Area }), "components[0].measure", "driven by one thing");
        Refused(With(c => c with { Of = Guid.NewGuid() }), "components[0].of", "not there");
        Refused(With(c => c with { Group = "Alone" }, 5), "components[5].group", "needs two or more");
        Refused(With(c => c with { Entry = Guid.NewGuid() }), "components[0].entry", "is not there");
        Refused(With(c => c with { Crew = 0 }, 2), "components[2].crew", "crew");
        var paint = Named<ProductionRate>("Limewash");
        Refused(
            paint with
            {
                Paces = [new(1, Ratio.Parse("3 gal per h"))],
            },
            "paces[0].pace",
            "does not apply to an area"
        );
        Refused(paint with { Paces = [] }, "paces", "needs a pace");
        Refused(paint with { Paces = [paint.Paces[0], paint.Paces[0]] }, "paces", "stands once");
        Refused(paint with { Product = Named<Material>("Bark mulch").Id }, "product", "no coverage");
        Refused(paint with { Role = Guid.Empty }, "role", "needs a role");
    }

    [Fact]
    public void Zero_negative_and_huge_values_are_refused()
    {
        Refused(Named<LabourRole>("Painter") with { Wage = 0 }, "wage", "a wage above zero");
        Refused(
            Named<LabourRole>("Painter") with
            {
                Premiums = [new("x", 0.5m, 10)],
            },
            "premiums[0].multiplier",
            "1 to 10"
        );
        var mulch = Named<Material>("Bark mulch");
        Refused(mulch with { Packs = [] }, "packs", "needs a pack");
        Refused(mulch with { Packs = [new("p", 0, 1)] }, "packs[0].size", "more than zero");
        Refused(mulch with { Packs = [new("p", 1, -1)] }, "packs[0].price", "below zero");
        Refused(mulch with { WastePercent = 1001 }, "wastePercent", "0 to 1000");
        Refused(mulch with { Coverage = Ratio.Parse("300 ft² per kg") }, "coverage", "does not name its unit");
        Refused(mulch with { Density = Ratio.Parse("3 kg per ft²") }, "density", "mass per volume");
        Refused(mulch with { SolidsPercent = 101 }, "solidsPercent", "100 percent");
        Refused(Named<Equipment>("Tile saw") with { Cost = -1 }, "cost", "below zero");
        Refused(Named<Condition>("occupied") with { Labour = 0 }, "labour", "more than 0");
        Refused(
            Named<PriceOnlyItem>("Notice board, oiled frame") with
            {
                Breaks = [new(4, 1), new(4, 1)],
            },
            "breaks[1].from",
            "small to large"
        );
        Refused(
            Named<PriceOnlyItem>("Notice board, oiled frame") with
            {
                Unit = Unit.Gallon,
            },
            "unit",
            "not counted in gal"
        );
        foreach (
            var wrong in new[]
            {
                "0 ft² per h",
                "-3 ft² per h",
                "1234567890 ft² per h",
                "1.1234567 ft² per h",
                "ft² per h",
            }
        )
            Assert.Throws<RefusedException>(() => Ratio.Parse(wrong));
        // Large but allowed numbers that together overflow are refused, not broken.
        var role = Sample.Role();
        var huge = Sample.Rate(Measure.FloorArea, role, null, "999999999 h per 0.000001 ft²");
        var refused = Assert.Throws<RefusedException>(() =>
            (
                Trial.Usual(UnitSystem.Feet) with
                {
                    Quantities = ImmutableDictionary<string, decimal>.Empty.Add("floorArea", 999_999_999m),
                }
            ).Of(huge with { DryingHours = 0 }, id => id == role.Id ? role : null, Trace.Silent)
        );
        Assert.Contains("too large", refused.Message);
    }

    [Fact]
    public void A_job_keeps_what_it_uses_when_the_Book_changes_or_loses_it()
    {
        var (job, work, _) = Sample.With("R 20 x 10 x 10", [], StarterBook.Id(111));
        var before = Sample.Reckon(job).Price.BeforeTax.V;
        // The Book is empty now; the job has its own.
        job = Commands.Apply(job, new SetWork(work, "coats", 2, 1), _ => null).Job;
        job = Commands.Apply(job, new SetWork(work, "coats", 1, 2), _ => null).Job;
        Assert.Equal(before, Sample.Reckon(job).Price.BeforeTax.V);
        Assert.Contains(
            "not in the Book any more",
            Assert
                .Throws<RefusedException>(() =>
                    Commands.Apply(job, new AddWork(Sample.NewId(), StarterBook.Id(120), null), _ => null)
                )
                .Message
        );
    }

    [Fact]
    public void Rates_are_read_back_both_ways_round_with_a_sample()
    {
        Assert.Equal(
            new("125 ft² per h", "0.48 min per ft²", "100 ft²: 0.8 h"),
            RateReading.Of("125 ft²/h", Unit.SquareFoot)
        );
        Assert.Equal(
            new("0.3 h per 100 m²", "333.3 m² per h", "100 m²: 0.3 h"),
            RateReading.Of("0.3 h per 100 m²", Unit.SquareMetre)
        );
        Assert.Equal("30 gal per 100 gal", RateReading.Of("30 %", Unit.Gallon).Text);
        Assert.Throws<RefusedException>(() => RateReading.Of("30 %", null));
    }

    [Fact]
    public void The_Book_goes_out_as_a_table_and_as_a_file_and_comes_in_without_loss()
    {
        var (columns, rows) = BookTable.Write(StarterBook.Entries);
        var mapping = TableField.Guess(BookTable.Fields, columns);
        var same = BookTable.Read(rows, mapping, All, Sample.NewId);
        Assert.Empty(
            same.Where(r => r.Wrong is not null || r.IsNew || r.Differences.Count > 0)
                .Select(r => $"{r.Name}: {r.Wrong} {string.Join(", ", r.Differences)}")
        );
        // Into an empty Book everything is new and the same again.
        var fresh = BookTable.Read(rows, mapping, new Dictionary<Guid, BookEntry>(), Sample.NewId);
        Assert.Empty(fresh.Where(r => r.Wrong is not null).Select(r => $"{r.Name}: {r.Wrong}"));
        Assert.Equal(BookFile.Write(StarterBook.Entries), BookFile.Write(fresh.Select(r => r.Entry!)));
        Assert.All(
            BookFile.Read(BookFile.Write(StarterBook.Entries), All),
            r => Assert.True(r.Wrong is null && r.Differences.Count == 0)
        );
    }

    [Fact]
    public void A_supplier_list_of_ten_thousand_rows_with_three_bad_ones_says_which_and_why()
    {
        var rows = Enumerable
            .Range(0, 10_000)
            .Select(i =>
                (IReadOnlyList<string>)
                    [
                        "material",
                        $"Fitting {i}",
                        i switch
                        {
                            700 => "smoot",
                            _ => "each",
                        },
                        i switch
                        {
                            4000 => "box 10",
                            _ => $"box: 10 at {i % 90 + 1}.50",
                        },
                        i switch
                        {
                            9999 => "2000",
                            _ => "5",
                        },
                    ]
            )
            .ToList();
        var mapping = TableField.Guess(BookTable.Fields, ["Kind", "Name", "Unit", "Packs", "Waste %"]);
        var read = BookTable.Read(rows, mapping, All, Sample.NewId);
        Assert.Equal(
            [
                (701, "Unit: That is not a unit known here."),
                (4001, "Packs: “box 10” is not a pack. Write NAME: SIZE at PRICE, like 5 gal pail: 5 at 215."),
                (10_000, "Waste is 0 to 1000 percent."),
            ],
            read.Where(r => r.Wrong is not null).Select(r => (r.Row, r.Wrong!))
        );
        Assert.Equal(9997, read.Count(r => r.IsNew));
        // Prices alone, by name: only they change.
        var prices = BookTable.Read(
            [
                ["Harbour eggshell", "1 gal can: 1 at 51; 5 gal pail: 5 at 215"],
            ],
            TableField.Guess(BookTable.Fields, ["Name", "Packs"]),
            All,
            Sample.NewId
        );
        Assert.Equal([new Difference("packs 1: price", "48", "51")], prices.Single().Differences);
        Assert.Equal(1, ((Material)prices.Single().Entry!).WastePercent);
    }

    [Theory]
    [InlineData("", "not a Book file")]
    [InlineData("[]", "not a Book file")]
    [InlineData("{\"schemaVersion\": 9, \"entries\": []}", "version 1")]
    [InlineData("{\"schemaVersion\": 1}", "no entries")]
    public void A_broken_file_is_refused_with_a_sentence(string text, string says) =>
        Assert.Contains(
            says,
            Assert.Throws<RefusedException>(() => BookFile.Read(System.Text.Encoding.UTF8.GetBytes(text), All)).Message
        );

    [Fact]
    public void Entries_of_a_file_that_cannot_be_read_are_named()
    {
        var node = System.Text.Json.Nodes.JsonNode.Parse(
            BookFile.Write([Named<LabourRole>("Painter"), Named<Equipment>("Tile saw"), Named<Condition>("occupied")])
        )!;
        node["entries"]![0]!["wage"] = "-4";
        node["entries"]![1]!["cost"] = "a lot";
        Assert.Equal(
            [
                "The wage must be more than zero.",
                "A number is written as text, like \"12.5\", below a thousand million and with at most six decimals.",
            ],
            BookFile
                .Read(System.Text.Encoding.UTF8.GetBytes(node.ToJsonString()), All)
                .Where(r => r.Wrong is not null)
                .Select(r => r.Wrong)
        );
    }

    [Theory]
    [InlineData("38", "Colour consultation")]
    [InlineData("14.50", "Lettering on walls")]
    [InlineData("25.10", "Paver")]
    public void The_search_finds_what_is_remembered_by_its_price(string typed, string name)
    {
        var found = new BookIndex(StarterBook.Entries).Find(new(typed, "", "", false)).Select(e => e.Name);
        Assert.Contains(name, found);
        // A price that nothing has finds nothing.
        Assert.Empty(new BookIndex(StarterBook.Entries).Find(new("14.51", "", "", false)));
    }

    [Fact]
    public void The_search_ranks_as_Add_work_does()
    {
        var role = Sample.Role();
        ProductionRate Of(string section, string name, string wording) =>
            Sample.Rate(Places.Measure.FloorArea, role, null, "10 ft² per h") with
            {
                Section = section,
                Name = name,
                Wording = wording,
            };
        var index = new BookIndex(
            [
                Of("Doors", "Hang", "wall paint is not touched"),
                Of("Stairs", "Skim and paint walls", ""),
                Of("Walls", "Paint", ""),
                Of("Ceilings", "Wall paint, above", ""),
            ]
        );
        // Begins with it, by name or by section and name; then has all the words there; then has them anywhere.
        Assert.Equal(
            ["Wall paint, above", "Skim and paint walls", "Paint", "Hang"],
            index.Find(new("wall paint", "", "", false)).Select(e => e.Name)
        );
        Assert.Equal("Paint", index.Find(new("walls pa", "", "", false)).First().Name);
    }

    [Fact]
    public void Search_finds_all_words_and_puts_names_first()
    {
        var index = new BookIndex(StarterBook.Entries);
        Assert.Equal("Resin-bound path, 18 mm", index.Find(new("resin path", "", "", false)).First().Name);
        Assert.Equal("Path base", index.Find(new("path", "", "", false)).First().Name);
        Assert.All(
            index.Find(new("", "material", "Services", false)),
            e => Assert.True(e is Material && e.Trade == "Services")
        );
        Assert.Empty(index.Find(new("path", "", "", true)));
        Assert.Equal("Bark mulch", Assert.Single(index.Find(new("HA-90", "", "", false))).Name);
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void What_is_always_there_may_not_be_null_wherever_it_stands(bool first)
    {
        // Before what the constructor needs the serializer keeps it for later, and does not look at it.
        var whole = System
            .Text.Json.JsonSerializer.SerializeToNode<BookEntry>(
                Named<Material>("Jointing sand"),
                Json.CoreJson.Options
            )!
            .AsObject();
        whole.Remove("brand");
        whole.Insert(first ? 1 : whole.Count, "brand", null);
        Assert.ThrowsAny<System.Text.Json.JsonException>(() =>
            System.Text.Json.JsonSerializer.Deserialize<BookEntry>(whole.ToJsonString(), Json.CoreJson.Options)
        );
    }
}
