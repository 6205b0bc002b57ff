using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>Work counted in the units of its trade: a lot in square yards, a roof in squares, a park in acres. 1 yd² = 9 ft², 1 square = 100 ft², 1 acre = 43,560 ft² (NIST Handbook 44, appendix C).</summary>
public class CountedInTests
{
    private static readonly LabourRole Role = Sample.Role();

    /// <summary>A floor of 20 × 18 ft, 360 ft², with work that is counted in a unit.</summary>
    private static (Job Job, Guid Work, Guid Place, ProductionRate Rate) Lot(string? unit, string pace = "40 yd² per h")
    {
        var paint = Sample.Material("Paint", Unit.Gallon, "360 ft² per gal", null, 0, new Pack("can", 1, 50));
        var rate = Sample.Rate(Measure.FloorArea, Role, paint, pace) with
        {
            CountedIn = unit is null ? null : Unit.Find(unit),
        };
        var (job, work, place) = Sample.With("Lot 20 x 18 x 8", [Role, paint, rate], rate.Id);
        return (job, work, place, rate);
    }

    private static Line LineOf(Job job) => Sample.Reckon(job).Reckoned.Lines.Single();

    [Theory]
    [InlineData(null, 360)]
    [InlineData("yd²", 40)]
    [InlineData("square", 3.6)]
    [InlineData("m²", 33.4450944)]
    public void The_quantity_is_in_the_unit_and_hours_and_goods_are_the_same(string? unit, decimal quantity)
    {
        var (job, _, _, _) = Lot(unit);
        Assert.Equal(quantity, LineOf(job).Quantity.V);
        var costs = Sample.Reckon(job).Reckoned.Costs;
        Assert.Equal((1m, 1m), (costs.Hours.V, costs.Buying.Single().Need.V));
    }

    [Fact]
    public void An_acre_of_lawn_is_an_acre()
    {
        var rate = Sample.Rate(Measure.Area, Role, null, "2 acre per h") with { CountedIn = Unit.Acre };
        var (job, _, _) = Sample.With("Lawn site 0.4 acre", [Role, rate], rate.Id);
        Assert.Equal((0.4m, 0.2m), (LineOf(job).Quantity.V, LineOf(job).Hours.V));
    }

    [Fact]
    public void A_job_may_count_it_in_another_unit_and_go_back()
    {
        var (job, work, _, _) = Lot("yd²");
        var squares = job.Do(new SetWork(work, "countedIn", null, "square"));
        Assert.Equal(3.6m, LineOf(squares).Quantity.V);
        Assert.Equal(40m, LineOf(squares.Do(new SetWork(work, "countedIn", "square", null))).Quantity.V);
        var refused = Assert.Throws<RefusedException>(() => job.Do(new SetWork(work, "countedIn", null, "gal")));
        Assert.Equal("countedIn", refused.Refusal.Field);
    }

    [Fact]
    public void What_is_typed_or_pasted_is_in_that_unit()
    {
        var (job, work, place, _) = Lot("yd²");
        var typed = job.Set(work, place, "quantity", new TypedQuantity(Kind.Area, "3 squares", UnitSystem.Feet));
        Assert.Equal(decimal.Round(300m / 9, 12), LineOf(typed).Quantity.V);
        Job Pasted(string text) => job.Do(new PasteCells([work], [place], job.Seen([work], [place]), [text], true));
        Assert.Equal(12m, LineOf(Pasted("12")).Quantity.V);
        // What was copied from here, 40.0 yd², is the place's own measure again.
        Assert.Null(Pasted("40.0").Cells[new(work, place)].Quantity);
    }

    [Fact]
    public void What_is_pasted_is_the_measure_only_where_it_reads_as_it_is_shown()
    {
        // 0.4 acre is shown as 0.400: 0.42 is another quantity, though both are 0.4 to one decimal.
        var rate = Sample.Rate(Measure.Area, Role, null, "2 acre per h") with
        {
            CountedIn = Unit.Acre,
        };
        var (job, work, place) = Sample.With("Lawn site 0.4 acre", [Role, rate], rate.Id);
        Line Pasted(string text) =>
            LineOf(job.Do(new PasteCells([work], [place], job.Seen([work], [place]), [text], true)));
        Assert.Null(Pasted("0.400").Cell.Quantity);
        Assert.Equal(0.42m, Pasted("0.42").Quantity.V);
    }

    [Fact]
    public void A_typed_quantity_is_held_against_the_measure_in_one_unit()
    {
        // 40 yd² are the 360 ft² that were measured: nothing is far off.
        var (job, work, place, _) = Lot("yd²");
        Job Typed(string text) => job.Set(work, place, "quantity", new TypedQuantity(Kind.Area, text, UnitSystem.Feet));
        bool Doubted(Job of) =>
            Checks
                .Findings.Of(Sample.Reckon(of), [], StarterPlaces.Sizes)
                .Any(f => f.Kind == "Typed far from reckoned");
        Assert.False(Doubted(Typed("41 yd2")));
        Assert.True(Doubted(Typed("60 yd2")));
    }

    [Fact]
    public void A_unit_of_another_kind_is_refused_in_the_Book()
    {
        var (_, _, _, rate) = Lot(null);
        var wrong = rate with { CountedIn = Unit.Gallon };
        var refused = Assert.Throws<RefusedException>(() =>
            BookRules.Check(wrong, new BookEntry[] { Role, wrong }.ToDictionary(e => e.Id), named: false)
        );
        Assert.Equal("countedIn", refused.Refusal.Field);
    }

    [Fact]
    public void The_price_is_said_for_each_area_the_job_has()
    {
        // Floor 360 ft², walls 2 · (20 + 18) · 8 = 608 ft².
        var (job, _, _, _) = Lot("yd²");
        var estimate = Sample.Reckon(job);
        var per = PricePerArea.Of(estimate, Trace.Silent).ToDictionary(p => p.Measure, p => p.Per.V);
        Assert.Equal(decimal.Round(estimate.Price.BeforeTax.V / 360, 12), per[Measure.FloorArea]);
        Assert.Equal(decimal.Round(estimate.Price.BeforeTax.V / 608, 12), per[Measure.NetWallArea]);
        Assert.DoesNotContain(Measure.GlassArea, per.Keys);
    }

    [Fact]
    public void Another_role_does_a_part_of_an_assembly_in_this_job()
    {
        var (dear, cheap) = (Sample.Role("Layer", 30), Sample.Role("Helper", 15));
        Component Part(string name, LabourRole role) =>
            new(
                Sample.NewId(),
                name,
                ComponentKind.Labour,
                role.Id,
                Measure.FloorArea,
                null,
                null,
                Ratio.Parse("36 ft² per h"),
                false,
                null
            );
        var assembly = new Assembly(
            Sample.NewId(),
            1,
            "Lay",
            "Floors",
            Measure.FloorArea,
            [Part("Lay", dear), Part("Clean", Role)],
            "",
            ""
        );
        var (job, work, _) = Sample.With("Lot 20 x 18 x 8", [dear, Role, assembly], assembly.Id);
        RoleInstead[] swap = [new(dear.Id, cheap.Id)];
        System.Text.Json.Nodes.JsonNode? Json(RoleInstead[] roles) =>
            System.Text.Json.JsonSerializer.SerializeToNode(roles, Core.Json.CoreJson.Options);
        var helped = job.Do(new SetWork(work, "roles", null, Json(swap)), cheap);
        decimal HoursOf(Job of, LabourRole role) =>
            Sample.Reckon(of).Reckoned.Costs.Roles.FirstOrDefault(r => r.Role.Id == role.Id)?.Hours.V ?? 0;
        Assert.Equal((10m, 0m, 10m), (HoursOf(job, dear), HoursOf(job, cheap), HoursOf(job, Role)));
        Assert.Equal((0m, 10m, 10m), (HoursOf(helped, dear), HoursOf(helped, cheap), HoursOf(helped, Role)));
        Assert.Equal((10m, 0m), (HoursOf(helped.Do(new SetWork(work, "roles", Json(swap), null)), dear), 0m));
        RoleInstead[] stranger = [new(cheap.Id, dear.Id)];
        Assert.Throws<RefusedException>(() => job.Do(new SetWork(work, "roles", null, Json(stranger)), cheap));
    }

    [Fact]
    public void A_thickness_is_answered_in_the_units_of_the_job()
    {
        // 360 ft² two inches deep are 60 ft³; 50.8 mm are two inches.
        var stone = Sample.Material("Stone", Unit.CubicFoot, null, null, 0, new Pack("ft³", 1, 1));
        var depth = new Question(Sample.NewId(), "Depth", Unit.Inch, 3, null);
        var assembly = new Assembly(
            Sample.NewId(),
            1,
            "Base",
            "Paths",
            Measure.FloorArea,
            [
                new Component(
                    Sample.NewId(),
                    "Stone",
                    ComponentKind.Material,
                    stone.Id,
                    Measure.FloorArea,
                    null,
                    null,
                    Ratio.Parse("1 ft³ per ft³"),
                    false,
                    null
                )
                {
                    DepthAsked = depth.Id,
                },
            ],
            "",
            ""
        )
        {
            Questions = [depth],
        };
        var (job, work, place) = Sample.With("Lot 20 x 18 x 8", [stone, assembly], assembly.Id);
        decimal Need(Job of) => Sample.Reckon(of).Reckoned.Costs.Buying.Single().Need.V;
        Assert.Equal(90m, Need(job));
        Assert.Equal(60m, Need(job.Answer(work, new Answer(depth.Id, 50.8m) { Unit = Unit.Millimetre })));
        Assert.Equal(60m, Need(job.Set(work, place, "answers", new[] { new Answer(depth.Id, 2m) })));
        Assert.Throws<RefusedException>(() => job.Answer(work, new Answer(depth.Id, 2m) { Unit = Unit.Gallon }));
        Assert.Equal(Unit.Millimetre, UnitSystem.Metres.Like(Unit.Inch));
        Assert.Equal(Unit.Inch, UnitSystem.Feet.Like(Unit.Millimetre));
        Assert.Equal(Unit.Gallon, UnitSystem.Metres.Like(Unit.Gallon));
    }
}
