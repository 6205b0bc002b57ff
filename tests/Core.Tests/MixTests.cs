using System.Text.Json;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>What is mixed on the spot (estimating model §3), reckoned by hand.</summary>
public class MixTests
{
    private static Material Bought(string name, string unit, decimal size, decimal price) =>
        Sample.Material(name, Unit.Find(unit)!, null, null, 0, new Pack("pack", size, price));

    private static Material Mixed(string coverage, decimal waste, Material basis, params MixPart[] parts) =>
        Sample.Material("Mixed", basis.Unit, coverage, null, waste) with
        {
            Mix = new(basis.Id, [.. parts]),
        };

    private static MixPart Free(string name, string amount, bool ofMixed = false) => new(null, name, amount, ofMixed);

    private static MixPart Of(Material material, string amount, bool ofMixed = false) =>
        new(material.Id, "", amount, ofMixed);

    private readonly LabourRole role = Sample.Role();
    private readonly Material sealer = Bought("Sealer", "L", 20, 60);
    private readonly Material hardener = Bought("Hardener", "L", 5, 30);
    private readonly Material grit = Bought("Grit", "kg", 25, 12);

    private ProductionRate Spread(Material mixed) => Sample.Rate(Measure.FloorArea, role, mixed, "50 m² per h");

    /// <summary>540 m² of floor with a mix on it.</summary>
    private (Job Job, Guid Work, Guid Place) Lot(Material mixed) => Lot(Spread(mixed), mixed, sealer, hardener, grit);

    private (Job Job, Guid Work, Guid Place) Lot(ProductionRate rate, params Material[] goods) =>
        Sample.With("Lot 27 x 20 x 3", [role, rate, .. goods], rate.Id, UnitSystem.Metres);

    private Material Worked(decimal waste = 0) =>
        Mixed("0.5 L per m²", waste, sealer, Free("Water", "35 %"), Of(hardener, "15 %"), Of(grit, "0.2 kg per L"));

    private static decimal Need(Estimate estimate, Material material) =>
        estimate.Reckoned.Costs.Buying.Single(b => b.Material.Id == material.Id).Need.V;

    [Fact]
    public void Worked_example_of_a_mix()
    {
        // Estimating model §3: 540 m² at 0.5 L/m² are 270 L mixed; water 35 %, hardener 15 % of the base, grit 0.2 kg per L of base.
        var estimate = Sample.Reckon(Lot(Worked()).Job);
        var mixed = Assert.Single(estimate.Reckoned.Costs.Mixed);
        Assert.Equal(270m, mixed.Quantity.V);
        Assert.Equal(
            [("Sealer", 180m, "L"), ("Water", 63m, "L"), ("Hardener", 27m, "L"), ("Grit", 36m, "kg")],
            mixed.Parts.Select(p => (p.Name, p.Amount.V, p.Amount.Unit))
        );
        // Bought are the parts, water is not: 9 × 20 L, 6 × 5 L, 2 × 25 kg.
        Assert.Equal(
            [("Sealer", 180m), ("Hardener", 30m), ("Grit", 50m)],
            estimate.Reckoned.Costs.Buying.Select(b => (b.Material.Name, b.Bought.V))
        );
        Assert.Equal(9 * 60m + 6 * 30m + 2 * 12m, estimate.Price.Classes[CostClass.Material].Cost.V);
    }

    [Fact]
    public void A_part_of_the_mixed_comes_off_before_the_base_is_reckoned()
    {
        // 270 L, thinner 10 % of the mixed: 27 L; of the 243 L left, hardener half of the base: 162 L and 81 L.
        var thinner = Bought("Thinner", "L", 5, 20);
        var mixed = Mixed("0.5 L per m²", 0, sealer, Of(thinner, "10 %", ofMixed: true), Of(hardener, "50 %"));
        var (job, _, _) = Lot(Spread(mixed), sealer, hardener, thinner, mixed);
        var estimate = Sample.Reckon(job);
        Assert.Equal((162m, 81m, 27m), (Need(estimate, sealer), Need(estimate, hardener), Need(estimate, thinner)));
    }

    [Fact]
    public void Coats_waste_and_conditions_make_more_of_the_mix_and_nothing_twice()
    {
        // 270 L, two coats 540 L, windy 1.2: 648 L, waste 5 %: 680.4 L mixed, 453.6 L of base, 68.04 L hardener, 90.72 kg grit.
        var wind = new Condition(Sample.NewId(), 1, "Windy", "wind", 1, 1, 1.2m);
        var mixed = Worked(waste: 5);
        var rate = Sample.Rate(Measure.FloorArea, role, mixed, "50 m² per h", "25 m² per h");
        var (job, work, place) = Lot(rate, sealer, hardener, grit, mixed);
        job = job.Set(work, place, "conditions", new[] { wind.Id }, wind);
        var estimate = Sample.Reckon(job);
        Assert.Equal(680.4m, estimate.Reckoned.Costs.Mixed.Single().Quantity.V);
        Assert.Equal(
            (453.6m, 68.04m, 90.72m),
            (Need(estimate, sealer), Need(estimate, hardener), Need(estimate, grit))
        );
    }

    [Fact]
    public void A_part_that_is_used_by_itself_too_is_bought_together()
    {
        // Hardener by itself, 1 L for 10 m²: 54 L, and 27 L in the mix.
        var covers = hardener with
        {
            Coverage = Ratio.Parse("10 m² per L"),
        };
        var alone = Sample.Rate(Measure.FloorArea, role, covers, "50 m² per h");
        var mixed = Worked();
        var (job, _, place) = Lot(Spread(mixed), sealer, covers, grit, mixed);
        var second = Sample.NewId();
        job = job.Do(new AddWork(second, alone.Id, null), alone).Fill(second, [place], CellState.Included);
        Assert.Equal(81m, Need(Sample.Reckon(job), hardener));
    }

    [Theory]
    [InlineData(MaterialCost.Purchase)]
    [InlineData(MaterialCost.Need)]
    public void What_the_parts_cost_is_borne_by_the_lines_that_spread_the_mix(MaterialCost goods)
    {
        var (job, work, _) = Lot(Worked());
        var small = Sample.NewId();
        job = job.Do(new AddPlace(small, "Bay 3 x 2 x 3", "", null)).Fill(work, [small], CellState.Included);
        job = job with { Pricing = job.Pricing with { MaterialCost = goods } };
        var estimate = Sample.Reckon(job);
        var lines = LineCosts.Of(estimate.Reckoned, Trace.Silent).Lines;
        Assert.Equal(2, lines.Length);
        Assert.Equal(
            estimate.Price.Classes[CostClass.Material].Cost.V,
            Rounding.Money(lines.Sum(l => l[CostClass.Material].V))
        );
        // 6 m² of 546: under need its share is exactly that.
        if (goods == MaterialCost.Need)
            Assert.Equal(
                decimal.Round(estimate.Price.Classes[CostClass.Material].Cost.V * 6 / 546, 2),
                decimal.Round(lines[1][CostClass.Material].V, 2)
            );
    }

    [Fact]
    public void Nothing_of_it_and_goods_of_the_customer_buy_nothing()
    {
        var (job, work, place) = Lot(Worked());
        var theirs = Sample.Reckon(job.Set(work, place, "supply", Supply.CustomerMaterial));
        Assert.Equal(0m, theirs.Price.Classes[CostClass.Material].Cost.V);
        Assert.Equal(0m, theirs.Reckoned.Costs.Mixed.Single().Quantity.V);
        var none = Sample.Reckon(job.Fill(work, [place], CellState.Excluded));
        Assert.Equal(0m, none.Price.Classes[CostClass.Material].Cost.V);
    }

    [Fact]
    public void The_workings_of_a_mix_can_be_recomputed()
    {
        var thinner = Bought("Thinner", "L", 5, 20);
        var mixed = Mixed(
            "0.5 L per m²",
            3,
            sealer,
            Of(thinner, "10 %", true),
            Of(hardener, "15 %"),
            Free("Water", "0.35 L per L")
        );
        var rate = Spread(mixed);
        var (job, _, _) = Sample.With(
            "Lot 13.37 x 7.77 x 3",
            [role, sealer, hardener, thinner, mixed, rate],
            rate.Id,
            UnitSystem.Metres
        );
        var trace = Trace.Recording();
        var estimate = Estimate.Of(job, trace);
        foreach (var part in estimate.Reckoned.Costs.Mixed.Single().Parts)
        {
            var explained = JsonDocument.Parse(Explanation.Of(trace, part.Amount.Path)!.ToJsonString()).RootElement;
            new WorkingsChecker(explained).Figure(part.Amount.Path);
        }
    }

    [Fact]
    public void Density_turns_a_part_by_volume_into_one_by_mass()
    {
        // 15 % of 180 L of base are 27 L, at 1.1 kg per L 29.7 kg.
        var heavy = Bought("Hardener", "kg", 5, 30) with
        {
            Density = Ratio.Parse("1.1 kg per L"),
        };
        var mixed = Mixed("0.5 L per m²", 0, sealer, Free("Water", "35 %"), Of(heavy, "15 %"));
        var (job, _, _) = Lot(Spread(mixed), sealer, heavy, mixed);
        Assert.Equal(29.7m, Need(Sample.Reckon(job), heavy));
    }

    [Fact]
    public void What_is_no_mix_is_refused_beside_its_field()
    {
        void Refused(string field, string says, Material mixed, params Material[] others)
        {
            var all = new BookEntry[] { sealer, hardener, grit, mixed }
                .Concat(others)
                .ToDictionary(e => e.Id);
            var refused = Assert.Throws<RefusedException>(() => BookRules.Check(mixed, all, named: false));
            Assert.Equal(field, refused.Refusal.Field);
            Assert.Contains(says, refused.Message);
        }
        var worked = Worked();
        BookRules.Check(
            worked,
            new BookEntry[] { sealer, hardener, grit, worked }.ToDictionary(e => e.Id),
            named: false
        );
        Refused("mix.base", "counted like the mixed", worked with { Mix = new(grit.Id, []) });
        Refused("mix.base", "is mixed itself", worked with { Id = Sample.NewId(), Mix = new(worked.Id, []) }, worked);
        Refused("mix.parts[0].name", "free part needs a name", worked with { Mix = new(sealer.Id, [Free("", "1 %")]) });
        Refused("mix.parts[0].amount", "is not a rate", worked with { Mix = new(sealer.Id, [Free("Water", "some")]) });
        Refused(
            "mix.parts[0].amount",
            "neither a volume nor a mass",
            worked with
            {
                Mix = new(sealer.Id, [Free("Water", "1 h per L")]),
            }
        );
        Refused(
            "mix.parts[0].amount",
            "Grit is counted in kg",
            worked with
            {
                Mix = new(sealer.Id, [Of(grit, "5 %")]),
            }
        );
        Refused("mix.parts", "less than 100 %", worked with { Mix = new(sealer.Id, [Free("Water", "100 %", true)]) });
        Refused("mix.parts", "stands twice", worked with { Mix = new(sealer.Id, [Of(sealer, "5 %")]) });
        Refused("packs", "not bought in packs", worked with { Packs = [new("can", 1, 2)] });
    }
}
