using System.Collections.Immutable;
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

/// <summary>Cases at the edges of the rules, reckoned by hand: nothing of it, the customer does it, twice the same thing in one piece of work.</summary>
public class HandReckonedTests
{
    private static Component Part(string name, ComponentKind kind, BookEntry? entry, string ratio) =>
        new(Sample.NewId(), name, kind, entry?.Id, Measure.FloorArea, null, null, Ratio.Parse(ratio), false, null);

    private static Component OnceOnly(string name, ComponentKind kind, BookEntry entry, string? ratio) =>
        new(
            Sample.NewId(),
            name,
            kind,
            entry.Id,
            null,
            null,
            null,
            ratio is null ? null : Ratio.Parse(ratio),
            false,
            null
        )
        {
            Once = true,
        };

    private static Assembly Assembly(params Component[] parts) =>
        new(Sample.NewId(), 1, "Assembly", "S", Measure.FloorArea, [.. parts], "", "");

    /// <summary>A job with a room of 100 ft² in which two pieces of work of the same entry are done.</summary>
    private static (Job Job, Guid First, Guid Second, Guid Place) Twice(Assembly entry, params BookEntry[] book)
    {
        var (job, first, place) = Sample.With("R 10 x 10 x 8", [entry, .. book], entry.Id);
        var second = Sample.NewId();
        job = job.Do(new AddWork(second, entry.Id, null)).Do(new FillCells([second], [place], ".", CellState.Included));
        return (job, first, second, place);
    }

    private static decimal LineCost(Estimate reckoning) =>
        LineCosts.Of(reckoning.Reckoned, Trace.Silent).Lines.Sum(line => line.Sum(c => c.Of.V));

    public static TheoryData<string, decimal> WaysNotToBringIt =>
        new()
        {
            { "both", 1000 },
            { "customer", 500 },
            { "allowance", 500 },
            { "nothing", 500 },
            { "excluded", 500 },
        };

    [Theory]
    [MemberData(nameof(WaysNotToBringIt))]
    public void A_lump_sum_is_paid_for_each_work_that_really_brings_it(string second, decimal cost)
    {
        var lift = new Subcontract(Sample.NewId(), 1, "The crane", Unit.Each, 500, true);
        var entry = Assembly(Part("Crane", ComponentKind.Subcontract, lift, "1 each per 100 ft²"));
        var (job, _, other, place) = Twice(entry, lift);
        job = second switch
        {
            "customer" => job.Set<Supply?>(other, place, "supply", Supply.Customer),
            "allowance" => job.Set<decimal?>(other, place, "allowance", 900),
            "nothing" => job.Set(other, place, "quantity", new TypedQuantity(Kind.Area, "0 ft²", UnitSystem.Feet)),
            "excluded" => job.Fill(other, [place], CellState.Excluded),
            _ => job,
        };
        // The driver of the part is the floor, not what is typed in the cell, unless the cell says so.
        var reckoning = Sample.Reckon(job);
        Assert.Equal(cost, reckoning.Price.Direct.V);
        Assert.Equal(cost, LineCost(reckoning));
    }

    [Theory]
    [InlineData(Supply.We, 60)]
    [InlineData(Supply.CustomerMaterial, 0)]
    [InlineData(Supply.Customer, 0)]
    public void Material_that_comes_once_is_not_charged_where_the_customer_supplies_material(
        Supply supply,
        decimal cost
    )
    {
        var kit = Sample.Material("Kit", Unit.Each, null, null, 0, new Pack("kit", 1, 60));
        var entry = Assembly(
            Part("Work", ComponentKind.Labour, Sample.Role(), "1 h per 100 ft²"),
            OnceOnly("Kit", ComponentKind.Material, kit, "1 each per each")
        );
        var role = new LabourRole(entry.Components[0].Entry!.Value, 1, "Painter", 20, []);
        var (job, work, place) = Sample.With("R 10 x 10 x 8", [entry, kit, role], entry.Id);
        var costs = Sample.Reckon(job.Set<Supply?>(work, place, "supply", supply)).Reckoned.Costs;
        Assert.Equal(cost, costs.Buying.Sum(b => b.Cost(MaterialCost.Purchase).V));
    }

    [Fact]
    public void Two_coats_at_a_pace_typed_in_the_job_take_goods_for_two_coats()
    {
        // 400 ft² of floor, 200 ft² per gal: 2 gal a coat, 4 gal in all.
        var role = Sample.Role();
        var paint = Sample.Material("Paint", Unit.Gallon, "200 ft² per gal", null, 0, new Pack("can", 1, 30));
        var rate = Sample.Rate(Measure.FloorArea, role, paint, "100 ft² per h");
        var (job, work, place) = Sample.With("R 20 x 20 x 8", [role, paint, rate], rate.Id);
        job = job.Set<Ratio?>(work, place, "pace", Ratio.Parse("80 ft² per h")).Set<int?>(work, place, "coats", 2);
        var reckoning = Sample.Reckon(job);
        Assert.Equal((4m, 5m), (reckoning.Reckoned.Costs.Buying[0].Need.V, reckoning.Reckoned.Costs.Hours.V));
    }

    [Fact]
    public void A_machine_in_two_parts_of_one_work_is_paid_for_the_days_of_both_together()
    {
        // 4 h and 4 h of an eight-hour day: one day. With 1 h that comes once, 9 h: two days.
        var grinder = new Equipment(Sample.NewId(), 1, "Grinder", 90) { Per = EquipmentPer.Day };
        Assembly With(params Component[] more) =>
            Assembly(
                [
                    Part("Grind", ComponentKind.Equipment, grinder, "4 h per 100 ft²"),
                    Part("Polish", ComponentKind.Equipment, grinder, "4 h per 100 ft²"),
                    .. more,
                ]
            );
        decimal Cost(Assembly entry)
        {
            var reckoning = Sample.Reckon(Sample.With("R 10 x 10 x 8", [entry, grinder], entry.Id).Job);
            Assert.Equal(reckoning.Price.Direct.V, LineCost(reckoning));
            return reckoning.Price.Direct.V;
        }
        Assert.Equal(90, Cost(With()));
        Assert.Equal(180, Cost(With(OnceOnly("Set it up", ComponentKind.Equipment, grinder, "1 h per each"))));
        // Without hours of its own it comes for a day: 8 h and a day are two.
        Assert.Equal(180, Cost(With(OnceOnly("Bring it", ComponentKind.Equipment, grinder, null))));
    }

    [Theory]
    [InlineData("9 x 10", 200)] // 90: 900 at 10, 500 at the break of 100, 200 at the break of 200
    [InlineData("10 x 10", 200)] // 100: 500, or 200
    [InlineData("20 x 10", 200)]
    [InlineData("1 x 10", 100)] // 10 at 10
    public void A_quantity_never_costs_more_than_any_later_break(string size, decimal price)
    {
        var item = new PriceOnlyItem(Sample.NewId(), 1, "Item", "S", Measure.FloorArea, Unit.SquareFoot, 10, "", "")
        {
            BreakKind = BreakKind.Whole,
            Breaks = [new(100, 5), new(200, 1)],
            NeverMoreThanNext = true,
        };
        Assert.Equal(price, Sample.Reckon(Sample.With($"R {size} x 8", [item], item.Id).Job).Priced[0].Price.V);
    }

    [Theory]
    [InlineData(Supply.We, 20)]
    [InlineData(Supply.Customer, 0)]
    public void Nobody_travels_to_work_that_the_customer_does(Supply supply, decimal cost)
    {
        // 10 miles a visit at 2.00.
        var role = Sample.Role();
        var rate = Sample.Rate(Measure.FloorArea, role, null, "100 ft² per h");
        var setUp = new SetUp(Sample.NewId(), 1, "Van", role.Id, 15, TravelPer.Visit, 10, DistanceUnit.Mile, 20, 2);
        var (job, work, place) = Sample.With("R 10 x 10 x 8", [role, rate], rate.Id);
        job = job.Do(new SetCrew("setUp", null, setUp.Id.ToString()), [setUp, role]);
        var reckoning = Sample.Reckon(job.Set<Supply?>(work, place, "supply", supply));
        Assert.Equal(cost, reckoning.Reckoned.Costs.Charges.Sum(c => c.Cost.V));
        Assert.Equal(supply == Supply.Customer ? 0 : 1, reckoning.Reckoned.Costs.Charges.Length);
    }

    [Fact]
    public void What_the_need_costs_is_not_cut_to_cents_good_by_good()
    {
        // Two goods, half a pack of 2.67 each: 1.335 and 1.335 are 2.67, and not 1.34 + 1.34.
        var (a, b) = (
            Sample.Material("A", Unit.Each, null, null, 0, new Pack("two", 2, 2.67m)),
            Sample.Material("B", Unit.Each, null, null, 0, new Pack("two", 2, 2.67m))
        );
        var entry = Assembly(
            Part("A", ComponentKind.Material, a, "1 each per 100 ft²"),
            Part("B", ComponentKind.Material, b, "1 each per 100 ft²")
        );
        var (job, _, _) = Sample.With("R 10 x 10 x 8", [entry, a, b], entry.Id);
        job = job with { Pricing = job.Pricing with { MaterialCost = MaterialCost.Need } };
        var reckoning = Sample.Reckon(job);
        Assert.Equal((2.67m, 2.67m), (reckoning.Price.Direct.V, LineCost(reckoning)));
    }
}
