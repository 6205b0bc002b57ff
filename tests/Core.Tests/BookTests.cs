using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What entries of the Book make of a quantity (estimating model §3, §5, §6).</summary>
public class BookTests
{
    private static Component Part(string name, ComponentKind kind, BookEntry? entry, Measure? measure, string? ratio) =>
        new(
            Sample.NewId(),
            name,
            kind,
            entry?.Id,
            measure,
            null,
            null,
            ratio is null ? null : Ratio.Parse(ratio),
            false,
            null
        );

    private static Assembly Assembly(Measure measure, params Component[] parts) =>
        new(Sample.NewId(), 1, "Assembly", "S", measure, [.. parts], "", "");

    private static Estimate Try(
        WorkEntry entry,
        BookEntry[] book,
        UnitSystem units,
        Func<Trial, Trial>? how = null,
        params (string Name, decimal Value)[] quantities
    )
    {
        var trial = Trial.Usual(units) with
        {
            Quantities = quantities.ToImmutableDictionary(q => q.Name, q => q.Value),
        };
        var trace = Trace.Recording();
        var reckoning = (how?.Invoke(trial) ?? trial).Of(entry, id => book.FirstOrDefault(e => e.Id == id), trace);
        foreach (var path in trace.Figures.Keys)
            WorkingsTests.Checker(trace, path).Figure(path);
        return reckoning;
    }

    private static decimal Amount(Estimate reckoning, string part) =>
        reckoning
            .Reckoned
            .Lines[0]
            .Amounts[Array.FindIndex(reckoning.Reckoned.Lines[0].Item.Parts, p => p.Name == part)]
            .V;

    [Fact]
    public void Coats_are_a_pace_for_all_together()
    {
        // Estimating model §3: 600 ft² at 2 coats is 600/95 h = 6.3158, not 600/160 + 600/95.
        var role = Sample.Role();
        var rate = Sample.Rate(Measure.NetWallArea, role, null, "160 ft² per h", "95 ft² per h", "68 ft² per h");
        Assert.Equal(
            6.3158m,
            decimal.Round(Try(rate, [role], UnitSystem.Feet, null, ("netWallArea", 600)).Reckoned.Costs.Hours.V, 4)
        );
        var refused = Assert.Throws<RefusedException>(() =>
            Try(rate, [role], UnitSystem.Feet, t => t with { Coats = 4 })
        );
        Assert.Contains("Rate has no pace for 4 coats; it has 1, 2, 3", refused.Message);
    }

    [Fact]
    public void The_path_of_the_model_with_its_edge_asked()
    {
        // Estimating model §5: 62 m², edge 44 m.
        var all = Storage.Demo.StarterBook.Entries.ToArray();
        var path = (Assembly)all.First(e => e.Name == "Resin-bound path, 18 mm");
        var reckoning = Try(path, all, UnitSystem.Metres, null, ("area", 62), ("perimeter", 44));
        Assert.Equal(
            (2.06m, 4.905m, 2.444m, 2.450m),
            (
                Amount(reckoning, "Gravel, amber"),
                decimal.Round(Amount(reckoning, "Mix and lay"), 3),
                decimal.Round(Amount(reckoning, "Edge strip, fix"), 3),
                decimal.Round(Amount(reckoning, "Mixer, forced action"), 3)
            )
        );
        Assert.Equal([83m], reckoning.Reckoned.Costs.Buying[0].Packs.Counts);
        // The other of the either-or group drives the laying as well.
        var slate = path.Components.Single(c => c.Name == "Gravel, slate").Id;
        var other = Try(path, all, UnitSystem.Metres, t => t with { Picks = [slate] }, ("area", 62), ("perimeter", 44));
        Assert.Equal(4.905m, decimal.Round(Amount(other, "Mix and lay"), 3));
        Assert.Equal("Dried gravel, slate", other.Reckoned.Costs.Buying[0].Material.Name);
        Assert.DoesNotContain(other.Reckoned.Lines[0].Item.Parts, p => p.Name == "Gravel, amber");
    }

    [Fact]
    public void Film_thickness_bounds_the_coverage()
    {
        // 1 US gal at 1 mil covers 231,000/144 ft² × solids; 35 % at 1.5 mil 374.3 ft²/gal; 1 L at 1 µm 1000 m² (arithmetic; the form used in ISO 12944 and SSPC/AMPP guides).
        Material Paint(Unit unit, string coverage, decimal solids, string film) =>
            Sample.Material("Paint", unit, coverage, null, 0, new Pack("can", 1, 1)) with
            {
                SolidsPercent = solids,
                DryFilm = film,
            };
        Assert.Equal(
            1604.1667m,
            decimal.Round(Paint(Unit.Gallon, "300 ft² per gal", 100, "1 mil").MostCoverage()!.Value.Value, 4)
        );
        Assert.Equal(
            374.3m,
            decimal.Round(Paint(Unit.Gallon, "300 ft² per gal", 35, "1.5 mil").MostCoverage()!.Value.Value, 1)
        );
        Assert.Equal(1000m, Paint(Unit.Litre, "10 m² per L", 100, "1 µm").MostCoverage()!.Value.Value);
        Assert.Null(Paint(Unit.Gallon, "374 ft² per gal", 35, "1.5 mil").Doubt());
        Assert.Contains("374.3", Paint(Unit.Gallon, "375 ft² per gal", 35, "1.5 mil").Doubt());
    }

    [Fact]
    public void Tile_grout_by_the_formula_printed_by_makers()
    {
        // kg/m² = (L + W) ÷ (L · W) · joint · depth · density: tiles of 152 mm, 3 mm joints 6 mm deep, 1.6 kg/L.
        var perArea = (152m + 152m) / (152m * 152m) * 3 * 6 * 1.6m;
        Assert.Equal(0.379m, decimal.Round(perArea, 3));
        var all = Storage.Demo.StarterBook.Entries.ToArray();
        var tile = (Assembly)all.First(e => e.Name == "Wall tile");
        var grout = Try(tile, all, UnitSystem.Metres, null, ("netWallArea", 10)).Reckoned.Lines[0];
        Assert.Equal(
            decimal.Round(10 * 0.379m * 1.05m, 9),
            decimal.Round(grout.Amounts[Array.FindIndex(grout.Item.Parts, p => p.Name == "Grout")].V, 9)
        );
    }

    [Fact]
    public void Bituminous_mix_pavers_and_loose_cover_agree_with_handbook_figures()
    {
        var all = Storage.Demo.StarterBook.Entries.ToArray();
        Assembly Named(string name) => (Assembly)all.First(e => e.Name == name);
        // One yd² an inch thick at 145 lb/ft³: 108.75 lb, handbooks say about 110 (from memory); the waste of 3 % is on top.
        var surfacing = Named("Bituminous surfacing");
        var mix = Try(surfacing, all, UnitSystem.Feet, null, ("area", 9), (surfacing.Questions[0].Id.ToString(), 1));
        Assert.Equal(108.75m, decimal.Round(Amount(mix, "Mix") * 2000 / 1.03m, 6));
        Assert.InRange(108.75m / 110m, 0.988m, 1);
        // 4.5 pavers of 4 × 8 in to the square foot laid dry (arithmetic: 144/32; BIA Technical Note 10, from memory).
        Assert.Equal(
            450m,
            decimal.Round(
                Amount(Try(Named("Brick paving, dry laid"), all, UnitSystem.Feet, null, ("area", 100)), "Pavers")
                    / 1.05m,
                6
            )
        );
        // 1 yd³ covers 324 ft² at an inch and 108 ft² at three (arithmetic).
        var mulch = Named("Mulch beds");
        decimal Mulch(decimal area, decimal inches) =>
            decimal.Round(
                Amount(
                    Try(mulch, all, UnitSystem.Feet, null, ("area", area), (mulch.Questions[0].Id.ToString(), inches)),
                    "Mulch"
                ) / 1.05m,
                9
            );
        Assert.Equal((1m, 1m), (Mulch(324, 1), Mulch(108, 3)));
    }

    [Theory]
    // Roll 0.53 × 10.05 m (EN 233, from memory); drops and rolls as in published roll charts: 2.4 m high with 10 cm trim four drops, 2.6 m three; straight match.
    [InlineData(12, 2.4, "", 6)]
    [InlineData(12, 2.6, "", 8)]
    [InlineData(16.96, 2.4, "", 8)]
    [InlineData(16.97, 2.4, "", 9)]
    // Repeat of 64 cm: 2.4 + 0.1 m goes up to 2.56 m, three drops to a roll.
    [InlineData(12, 2.4, "64 cm", 8)]
    public void Wallcovering_is_bought_by_drops_to_a_roll(double perimeter, double height, string repeat, int rolls)
    {
        var (role, paper) = (
            Sample.Role(),
            Sample.Material("Paper", Unit.Find("roll")!, null, null, 0, new Pack("roll", 1, 30))
        );
        var question = new Question(Sample.NewId(), "Height", Unit.Metre, 2.4m, null);
        var assembly = Assembly(
            Measure.Perimeter,
            Part("Rolls", ComponentKind.Material, paper, Measure.Perimeter, null) with
            {
                Drops = new("0.53 m", "10.05 m", "10 cm", repeat, question.Id),
            }
        ) with
        {
            Questions = [question],
        };
        Assert.Equal(
            rolls,
            Amount(
                Try(
                    assembly,
                    [role, paper],
                    UnitSystem.Metres,
                    null,
                    ("perimeter", (decimal)perimeter),
                    (question.Id.ToString(), (decimal)height)
                ),
                "Rolls"
            )
        );
        Assert.Contains(
            "no drop of that height",
            Assert
                .Throws<RefusedException>(() =>
                    Try(assembly, [role, paper], UnitSystem.Metres, null, (question.Id.ToString(), 10))
                )
                .Message
        );
    }

    [Fact]
    public void Sheets_cover_their_size()
    {
        // 4 × 8 ft is 32 ft² (common practice): 320 ft² need ten sheets, eleven with 10 % waste.
        var all = Storage.Demo.StarterBook.Entries.ToArray();
        var panels = Try(
            (Assembly)all.First(e => e.Name == "Hygienic panels"),
            all,
            UnitSystem.Feet,
            null,
            ("netWallArea", 320)
        );
        Assert.Equal((11m, 11m), (panels.Reckoned.Costs.Buying[0].Need.V, panels.Reckoned.Costs.Buying[0].Bought.V));
    }

    [Fact]
    public void Modular_brick_to_the_square_foot()
    {
        // 144 / (8 × 2⅔) = 6.75 modular brick per ft² (BIA Technical Note 10, from memory; arithmetic). Both numbers of the ratio are kept: no third of an inch is lost.
        var (mason, brick) = (
            Sample.Role(),
            Sample.Material("Brick", Unit.Find("brick")!, null, null, 0, new Pack("strap", 100, 80))
        );
        var wall = Assembly(
            Measure.NetWallArea,
            Part("Brick", ComponentKind.Material, brick, Measure.NetWallArea, "432 brick per 64 ft²"),
            Part("Lay", ComponentKind.Labour, mason, Measure.NetWallArea, "8 ft² per h")
        );
        Assert.Equal(675m, Amount(Try(wall, [mason, brick], UnitSystem.Feet, null, ("netWallArea", 100)), "Brick"));
    }

    [Fact]
    public void A_coating_thinned_with_aggregate_and_additive_is_bought_in_drums_bags_and_jugs()
    {
        // 900 yd² at 0.15 gal per yd² and coat, two coats, 5 % waste: 283.5 gal; sand 4 lb per net gal, additive 2 % of net.
        var all = Storage.Demo.StarterBook.Entries.ToArray();
        var sealing = Try(
            (Assembly)all.First(e => e.Name == "Drive sealing"),
            all,
            UnitSystem.Feet,
            null,
            ("area", 8100)
        );
        Assert.Equal(
            (283.5m, 1134m, 5.4m),
            (Amount(sealing, "Sealer"), Amount(sealing, "Sand"), Amount(sealing, "Additive"))
        );
        Assert.Equal(
            ["2 × 5 gal pail + 5 × drum", "23 × 50 lb bag", "6 × 1 gal jug"],
            sealing.Reckoned.Costs.Buying.Select(b =>
                string.Join(
                    " + ",
                    b.Packs.Counts.Select((n, i) => (n, i))
                        .Where(p => p.n > 0)
                        .Select(p => $"{p.n} × {b.Material.Packs[p.i].Name}")
                )
            )
        );
    }

    [Fact]
    public void A_layered_build_up_gives_tonnes_per_layer()
    {
        // 50 m²: 100 mm at 1.9 t/m³ with 25 % loose on built, 5 % waste; 30 mm at 1.6 t/m³ with 15 %, 8 % waste (arithmetic).
        var all = Storage.Demo.StarterBook.Entries.ToArray();
        var layers = Try((Assembly)all.First(e => e.Name == "Path base"), all, UnitSystem.Metres, null, ("area", 50));
        Assert.Equal(
            (50 * 0.1m * 1.9m * 1.25m * 1.05m, 50 * 0.03m * 1.6m * 1.15m * 1.08m),
            (Amount(layers, "Crushed stone"), Amount(layers, "Sand"))
        );
        Assert.Equal(50 * 0.17m, Amount(layers, "Dig out"));
    }

    [Fact]
    public void Strip_out_gives_loose_volume_containers_and_tonnes_and_names_its_hazard()
    {
        // 27 yd² = 243 ft², half an inch: 10.125 ft³ = 0.375 yd³, 45 % bulking 0.54375 yd³; one small skip.
        var all = Storage.Demo.StarterBook.Entries.ToArray();
        var assembly = (Assembly)all.First(e => e.Name == "Old floor, take up");
        var taken = Try(assembly, all, UnitSystem.Feet, null, ("floorArea", 243));
        Assert.Equal(
            (0.54375m, 3m),
            (decimal.Round(Amount(taken, "Skip"), 9), taken.Reckoned.Costs.Buying.Single().Bought.V)
        );
        // 10.125 ft³ are 0.28671 m³, at 0.9 t/m³ 0.25804 t, 0.28444 short tons.
        Assert.Equal(0.28444m, decimal.Round(Amount(taken, "Tipping"), 5));
        Assert.Contains("asbestos", assembly.Hazard);
    }

    [Fact]
    public void Density_lets_a_volume_be_bought_by_mass()
    {
        var sand = Sample.Material("Sand", Unit.Tonne, null, null, 0, new Pack("bag", 1, 50)) with
        {
            Density = Ratio.Parse("1.6 t per m³"),
        };
        var (role, bed) = (
            Sample.Role(),
            Part("Sand", ComponentKind.Material, sand, Measure.FloorArea, "1 m³ per m³") with
            {
                Depth = "50 mm",
            }
        );
        Assert.Equal(
            20 * 0.05m * 1.6m,
            Amount(
                Try(Assembly(Measure.FloorArea, bed), [role, sand], UnitSystem.Metres, null, ("floorArea", 20)),
                "Sand"
            )
        );
    }

    [Fact]
    public void Difficulty_scales_chosen_parts_only_and_conditions_multiply_by_class_with_their_reasons()
    {
        var (role, goods, lift) = (
            Sample.Role(),
            Sample.Material("Goods", Unit.Kilogram, null, null, 0, new Pack("bag", 1, 2)),
            new Equipment(Sample.NewId(), 1, "Lift", 10)
        );
        var assembly = Assembly(
            Measure.FloorArea,
            Part("Fit", ComponentKind.Labour, role, Measure.FloorArea, "10 m² per h") with
            {
                Scales = true,
            },
            Part("Clean", ComponentKind.Labour, role, Measure.FloorArea, "10 m² per h"),
            Part("Goods", ComponentKind.Material, goods, Measure.FloorArea, "1 kg per m²"),
            Part("Lift", ComponentKind.Equipment, lift, null, null) with
            {
                Crew = 2,
            },
            Part("Pump", ComponentKind.Equipment, lift, Measure.FloorArea, "20 m² per h")
        ) with
        {
            Levels = [new("hard", 1.4m)],
        };
        var occupied = new Condition(Sample.NewId(), 1, "occupied", "People live there", 1.15m, 1.1m, 1.02m);
        var night = new Condition(Sample.NewId(), 1, "night", "After hours", 1.2m, 1, 1);
        var reckoning = Try(
            assembly,
            [role, goods, lift, occupied, night],
            UnitSystem.Metres,
            t => t with { Difficulty = "hard", Conditions = [occupied.Id, night.Id] },
            ("floorArea", 100)
        );
        Assert.Equal(
            (10 * 1.4m * 1.15m * 1.2m, 10 * 1.15m * 1.2m, 102m, 5 * 1.1m),
            (
                Amount(reckoning, "Fit"),
                Amount(reckoning, "Clean"),
                Amount(reckoning, "Goods"),
                Amount(reckoning, "Pump")
            )
        );
        // Crew-tied equipment follows the labour and is not multiplied again.
        Assert.Equal((10 * 1.4m + 10) * 1.15m * 1.2m / 2, Amount(reckoning, "Lift"));
    }

    [Fact]
    public void Conditions_hold_for_job_place_band_and_line()
    {
        var role = Sample.Role();
        var rate = Sample.Rate(Measure.NetWallArea, role, null, "10 m² per h");
        Condition On(string name, decimal labour) => new(Sample.NewId(), 1, name, "because", labour, 1, 1);
        var (onJob, onPlace, onBand, onLine) = (On("job", 1.1m), On("place", 1.2m), On("band", 1.3m), On("line", 1.5m));
        BookEntry[] book = [role, rate, onJob, onPlace, onBand, onLine];
        var (job, work, place) = Sample.With("R 5 x 4 x 3; band dado to 1", book, rate.Id, UnitSystem.Metres);
        decimal Hours() => Sample.Reckon(job).Reckoned.Costs.Hours.V;
        JsonNode? Json<T>(T value) => System.Text.Json.JsonSerializer.SerializeToNode(value, CoreJson.Options);
        // 18 m of wall: 54 m² in all, 18 m² in the dado.
        Assert.Equal(5.4m, Hours());
        job = job.Do(new SetConditions([], [onJob.Id]), book);
        Assert.Equal(5.4m * 1.1m, Hours());
        job = job.Do(
            new SetPlaces(
                "conditions",
                [
                    new(
                        place,
                        Json(Array.Empty<PlaceCondition>()),
                        Json(new[] { new PlaceCondition(onPlace.Id, ""), new PlaceCondition(onBand.Id, "bands/1") })
                    ),
                ]
            ),
            book
        );
        Assert.Equal(5.4m * 1.1m * 1.2m, Hours());
        job = job.Set(work, place, "source", "bands/1", book);
        Assert.Equal(1.8m * 1.1m * 1.2m * 1.3m, Hours());
        job = job.Set(work, place, "conditions", new[] { onLine.Id }, book);
        Assert.Equal(1.8m * 1.1m * 1.2m * 1.3m * 1.5m, Hours());
        Assert.Equal(JobFile.Write(job), JobFile.Write(JobFile.Read(JobFile.Write(job))));
        Assert.Contains(
            "× 1.5 (line)",
            Explanation.Sentence(
                Reported.Record(job).Trace.Figures[$"cells/{work}/{place}/parts/00000000-0000-7000-8000-000000000001"]
            )
        );
    }

    [Fact]
    public void A_surface_has_more_to_treat_and_drinks_more()
    {
        var (role, paint) = (
            Sample.Role(),
            Sample.Material("Paint", Unit.Litre, "10 m² per L", null, 0, new Pack("can", 1, 5))
        );
        var sheet = new SurfaceFactor(Sample.NewId(), 1, "Profiled sheet", 1.3m, 0.8m);
        var rate = Sample.Rate(Measure.NetFaceArea, role, paint, "20 m² per h") with { Surface = sheet.Id };
        var reckoning = Try(rate, [role, paint, sheet], UnitSystem.Metres, null, ("netFaceArea", 100));
        Assert.Equal(
            (100m, 6.5m, 16.25m),
            (
                reckoning.Reckoned.Lines[0].Quantity.V,
                reckoning.Reckoned.Costs.Hours.V,
                reckoning.Reckoned.Costs.Buying[0].Need.V
            )
        );
    }

    [Fact]
    public void Days_and_visits_are_rounded_up_once_per_work_item_and_job()
    {
        var role = Sample.Role();
        var (saw, lift) = (
            new Equipment(Sample.NewId(), 1, "Saw", 40) { Per = EquipmentPer.Day },
            new Equipment(Sample.NewId(), 1, "Lift", 100) { Per = EquipmentPer.Visit }
        );
        Assembly Cut() =>
            Assembly(
                Measure.FloorArea,
                Part("Cut", ComponentKind.Labour, role, Measure.FloorArea, "1 m² per h"),
                Part("Saw", ComponentKind.Equipment, saw, null, null) with
                {
                    Crew = 1,
                },
                Part("Lift", ComponentKind.Equipment, lift, Measure.FloorArea, "1 visit per 8 m²")
            );
        var (one, two) = (Cut(), Cut());
        BookEntry[] book = [role, saw, lift, one, two];
        // Three rooms of 4 m²: 12 h are two days of 8 h, not three; 1.5 visits are two. Two work items are rounded each.
        var (job, _, _) = Sample.With("R 2 x 2 x 2 x3", book, one.Id, UnitSystem.Metres);
        var second = Sample.NewId();
        job = job.Do(new AddWork(second, two.Id, null), book).Fill(second, [job.Places[0].Id], CellState.Included);
        var reckoning = Sample.Reckon(job);
        (decimal, decimal) Paid(string name) =>
            reckoning.Reckoned.Costs.Equipment.Single(e => e.Equipment.Name == name) is var e
                ? (e.Units.V, e.Cost.V)
                : default;
        Assert.Equal((4m, 160m), Paid("Saw"));
        Assert.Equal((4m, 400m), Paid("Lift"));
        var lines = LineCosts.Of(reckoning.Reckoned, Trace.Silent).Lines;
        Assert.Equal(560m, lines.Sum(l => l[CostClass.Equipment].V));
    }

    [Fact]
    public void A_line_with_a_rounding_step_rounds_once_and_all_its_labour_shares_it()
    {
        var (first, second) = (Sample.Role("A"), Sample.Role("B"));
        var roller = new Equipment(Sample.NewId(), 1, "Roller", 3);
        var assembly = Assembly(
            Measure.FloorArea,
            Part("One", ComponentKind.Labour, first, Measure.FloorArea, "10 m² per h"),
            Part("Two", ComponentKind.Labour, second, Measure.FloorArea, "30 m² per h"),
            Part("Roller", ComponentKind.Equipment, roller, null, null) with
            {
                Crew = 2,
            }
        ) with
        {
            Step = 0.5m,
        };
        // 17 m²: 1.7 + 0.5667 = 2.2667 h, up to 2.5; shared 3 : 1.
        var reckoning = Try(assembly, [first, second, roller], UnitSystem.Metres, null, ("floorArea", 17));
        Assert.Equal(
            (2.5m, 1.875m, 0.625m, 1.25m),
            (
                reckoning.Reckoned.Lines[0].Hours.V,
                decimal.Round(Amount(reckoning, "One"), 9),
                decimal.Round(Amount(reckoning, "Two"), 9),
                Amount(reckoning, "Roller")
            )
        );
        Assert.Equal(2.5m, decimal.Round(reckoning.Reckoned.Costs.Hours.V, 9));
    }

    [Fact]
    public void Order_rules_add_spare_and_least_orders_and_a_supplier_delivers_once()
    {
        var role = Sample.Role();
        Material Goods(string name, decimal delivery, decimal minimum, decimal spare) =>
            Sample.Material(name, Unit.Kilogram, null, null, 0, new Pack("bag", 10, 20)) with
            {
                Supplier = "One",
                Rules = new(minimum, delivery, spare),
            };
        var (a, b) = (Goods("A", 40, 100, 0), Goods("B", 60, 0, 10));
        var assembly = Assembly(
            Measure.FloorArea,
            Part("A", ComponentKind.Material, a, Measure.FloorArea, "1 kg per m²"),
            Part("B", ComponentKind.Material, b, Measure.FloorArea, "1 kg per m²")
        );
        var reckoning = Try(assembly, [role, a, b], UnitSystem.Metres, null, ("floorArea", 38));
        // A: 38 kg, least order 100; B: 38 kg and 10 % spare are 41.8, five bags. One delivery, the dearer.
        Assert.Equal(
            (100m, 62m, 200m, 0m),
            (
                reckoning.Reckoned.Costs.Buying[0].Bought.V,
                reckoning.Reckoned.Costs.Buying[0].Leftover.V,
                reckoning.Reckoned.Costs.Buying[0].BoughtCost.V,
                reckoning.Reckoned.Costs.Buying[0].Delivery?.V ?? 0
            )
        );
        Assert.Equal(
            (50m, 12m, 60m),
            (
                reckoning.Reckoned.Costs.Buying[1].Bought.V,
                reckoning.Reckoned.Costs.Buying[1].Leftover.V,
                reckoning.Reckoned.Costs.Buying[1].Delivery!.V
            )
        );
        Assert.Equal(360m, reckoning.Price.Direct.V);
    }

    [Fact]
    public void What_the_customer_supplies_is_not_bought_and_what_the_customer_does_is_not_in_the_cost()
    {
        var (role, paint) = (
            Sample.Role(),
            Sample.Material("Paint", Unit.Litre, "10 m² per L", null, 0, new Pack("can", 1, 5))
        );
        var rate = Sample.Rate(Measure.FloorArea, role, paint, "10 m² per h");
        var (job, work, place) = Sample.With("R 5 x 4 x 3", [role, paint, rate], rate.Id, UnitSystem.Metres);
        job = job.Do(new SetWork(work, "supply", "we", "customerMaterial"));
        var labourOnly = Sample.Reckon(job);
        Assert.Equal(
            (2m, 0m),
            (labourOnly.Reckoned.Costs.Hours.V, labourOnly.Reckoned.Costs.Buying.Sum(b => b.Bought.V))
        );
        job = job.Set(work, place, "supply", "customer");
        var none = Sample.Reckon(job);
        Assert.Equal(
            (0m, 0m, 20m),
            (none.Reckoned.Costs.Hours.V, none.Price.Direct.V, none.Reckoned.Lines.Single().Quantity.V)
        );
    }

    [Theory]
    // 22.00 with 7.65 % + 4.35 % + 1.10/h is 25.74; a tenth of the hours at time and a half lifts what follows by 5 %.
    [InlineData(true, 27.027)]
    [InlineData(false, 26.972)]
    public void Premiums_lift_their_share_of_the_hours_and_what_follows_them(bool toolsFollow, double loaded)
    {
        var role = new LabourRole(
            Sample.NewId(),
            1,
            "R",
            22m,
            [new("a", 7.65m, null), new("b", 4.35m, null), new("c", null, 1.10m) { FollowsPremiums = toolsFollow }]
        )
        {
            Premiums = [new("overtime", 1.5m, 10)],
        };
        Assert.Equal(
            (decimal)loaded,
            Try(Sample.Rate(Measure.FloorArea, role, null, "1 m² per h"), [role], UnitSystem.Metres)
                .Reckoned.Costs.Roles[0]
                .LoadedCost.V
        );
    }

    [Theory]
    [InlineData(BreakKind.Whole, false, 9, 90)]
    [InlineData(BreakKind.Whole, false, 10, 80)]
    [InlineData(BreakKind.Whole, true, 9, 80)]
    [InlineData(BreakKind.Whole, false, 25, 175)]
    [InlineData(BreakKind.Slices, false, 10, 100)]
    [InlineData(BreakKind.Slices, false, 25, 255)]
    public void Breaks_are_inclusive_at_their_edge(BreakKind kind, bool never, int quantity, decimal price)
    {
        // 10 each, from 10 on 8 each, from 20 on 7 each. Slices: 10 · 10 + 10 · 8 + 5 · 7 = 215 and a least price.
        var item = new PriceOnlyItem(Sample.NewId(), 1, "Item", "S", Measure.Count, Unit.Each, 10, "", "")
        {
            BreakKind = kind,
            NeverMoreThanNext = never,
            Breaks = [new(10, 8), new(20, 7)],
            Minimum = kind == BreakKind.Slices && quantity == 25 ? 255 : 0,
        };
        Assert.Equal(price, Try(item, [], UnitSystem.Metres, null, ("count", quantity)).Price.BeforeTax.V);
    }

    [Theory]
    // Estimating model §3: 1–2 rooms 90 in all, 3 rooms 125 in all, each further 38.
    [InlineData(1, 90)]
    [InlineData(2, 90)]
    [InlineData(3, 125)]
    [InlineData(4, 163)]
    [InlineData(6, 239)]
    public void Packages(int rooms, decimal price)
    {
        var item = new PriceOnlyItem(Sample.NewId(), 1, "Item", "S", Measure.Count, Unit.Each, 38, "", "")
        {
            BreakKind = BreakKind.Packages,
            Breaks = [new(2, 90), new(3, 125)],
        };
        var reckoning = Try(item, [], UnitSystem.Metres, null, ("count", rooms));
        Assert.Equal(price, reckoning.Priced[0].Price.V);
        // No percentage of the job falls on it.
        Assert.Equal((price, 0m), (reckoning.Price.BeforeTax.V, reckoning.Price.Direct.V));
    }

    [Fact]
    public void Waits_and_drying_give_days_and_return_visits()
    {
        static CrewPlan.Piece Step(decimal span, decimal drying = 0, int coats = 1, params int[] waits) =>
            new(span, coats, [.. waits], drying);
        // Eight-hour days. Two pieces of five hours: a day and two hours of the next.
        Assert.Equal((2, 0), CrewPlan.Work([Step(5), Step(5)], 8));
        // The second waits for the first to dry over night: home at five, back next morning, three hours lost.
        Assert.Equal((2, 1), CrewPlan.Work([Step(5, 12), Step(5, 0, 1, 0)], 8));
        // A full day, dry by morning: nothing is lost, so nobody returns for it.
        Assert.Equal((2, 0), CrewPlan.Work([Step(8, 12), Step(5, 0, 1, 0)], 8));
        // Other work fills the wait.
        Assert.Equal((2, 0), CrewPlan.Work([Step(5, 12), Step(3, 0, 1, 0), Step(3)], 8));
        // Three coats a day apart.
        Assert.Equal((3, 2), CrewPlan.Work([Step(2, 20, 3)], 8));
        // A short wait is stood out on site.
        Assert.Equal((1, 0), CrewPlan.Work([Step(2, 1), Step(2, 0, 1, 0)], 8));
        Assert.Equal((0, 0), CrewPlan.Work([], 8));
    }

    [Fact]
    public void Set_up_and_travel_come_on_top_by_crew_day_or_visit()
    {
        var role = Sample.Role("Painter", 30);
        var rate = Sample.Rate(Measure.FloorArea, role, null, "1 m² per h");
        var setUp = new SetUp(
            Sample.NewId(),
            1,
            "Near",
            role.Id,
            30,
            TravelPer.CrewDay,
            10,
            DistanceUnit.Kilometre,
            15,
            0.5m
        );
        var (job, _, _) = Sample.With("R 10 x 6 x 3", [role, rate, setUp], rate.Id, UnitSystem.Metres);
        job = job.Do(new SetCrew("setUp", null, setUp.Id.ToString()), setUp);
        var reckoning = Sample.Reckon(job);
        // 60 h by three people of eight hours are 2.5, so three days: 3 · (30 + 15) min · 3 people = 6.75 h; 30 km at 0.50.
        Assert.Equal(
            (66.75m, 15m),
            (reckoning.Reckoned.Costs.Hours.V, reckoning.Reckoned.Costs.Charges.Single().Cost.V)
        );
        Assert.Equal(66.75m * 30 + 15, reckoning.Price.Direct.V);
    }

    [Fact]
    public void A_fixed_charge_and_a_lump_sum_come_once_however_many_places()
    {
        var role = Sample.Role();
        var survey = new Subcontract(Sample.NewId(), 1, "Survey", Unit.Each, 480, true);
        var assembly = Assembly(
            Measure.FloorArea,
            Part("Work", ComponentKind.Labour, role, Measure.FloorArea, "1 m² per h"),
            Part("Survey", ComponentKind.Subcontract, survey, null, null) with
            {
                Once = true,
            },
            Part("Mats", ComponentKind.Charge, null, null, null) with
            {
                Once = true,
                Charge = 85,
            },
            Part("Sockets", ComponentKind.Charge, null, Measure.DoorCount, "2 each per door") with
            {
                Charge = 5,
            }
        );
        var (job, _, _) = Sample.With(
            "R 2 x 2 x 3 x4; door 1 x 2",
            [role, survey, assembly],
            assembly.Id,
            UnitSystem.Metres
        );
        var reckoning = Sample.Reckon(job);
        Assert.Equal(
            (480m, 85m + 4 * 2 * 5),
            (reckoning.Price.Classes[CostClass.Subcontract].Cost.V, reckoning.Price.Classes[CostClass.Fixed].Cost.V)
        );
        var lines = LineCosts.Of(reckoning.Reckoned, Trace.Silent).Lines;
        Assert.Equal((480m, 125m), (lines.Sum(l => l[CostClass.Subcontract].V), lines.Sum(l => l[CostClass.Fixed].V)));
    }
}
