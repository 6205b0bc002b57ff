using CsCheck;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
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

public class PriceTests
{
    private static Total T(decimal value) => new(value, "", new("test", "given"));

    private static Price Of(decimal labour, decimal material, PricingTerms terms)
    {
        var role = Sample.Role();
        var goods = Sample.Material("Goods", Unit.Each, null, null, 0);
        var job = Sample.Empty() with { Pricing = terms };
        return Price.Of(
            new()
            {
                Job = job,
                Measures = [],
                Items = [],
                Lines = [],
                Grid = [],
                Costs = new()
                {
                    Roles = [new(role, T(40), T(25), T(labour))],
                    Buying = [new(goods, "", T(1), 1, new([], 0, 0), T(1), T(0), T(material), T(material), null)],
                    Mixed = [],
                    Equipment = [],
                    Subcontracts = [],
                    Charges = [],
                    Once = [],
                    Worked = T(40),
                    Hours = T(40),
                    CrewDays = T(5),
                    Duration = new(T(5), T(0)),
                    FloorArea = T(100),
                },
            },
            [],
            Trace.Silent
        );
    }

    private static Tax On(decimal rate, params TaxOn[] on) => new(Tax.First, "Tax", rate, [.. on], TaxWay.Charged);

    private static PricingTerms Terms =>
        PricingTerms.Starting with
        {
            LabourMarkup = 0,
            MaterialMarkup = 20,
            Overhead = 10,
            Contingency = 5,
            Profit = 15,
            Taxes = [],
        };

    [Fact]
    public void Worked_example_of_markup_where_margin_and_markup_are_not_confused()
    {
        // Estimating model §7, basis 1.
        var price = Of(1000, 400, Terms);
        Assert.Equal(
            (1400m, 148.00m, 81.40m, 256.41m, 1965.81m),
            (
                price.Direct.V,
                price.Step("overhead")!.Amount.V,
                price.Step("contingency")!.Amount.V,
                price.Step("profit")!.Amount.V,
                price.BeforeTax.V
            )
        );
        Assert.Equal(
            (28.78m, 40.415m),
            (decimal.Round(price.Readouts.Margin!.Value.V, 2), decimal.Round(price.Readouts.Markup!.Value.V, 3))
        );
    }

    [Theory]
    // Identity: margin 40 % is a markup of 66.67 %; margin 33.33 % is about 50 %.
    [InlineData(40, 166.67, 66.67)]
    [InlineData(50, 200, 100)]
    [InlineData(20, 125, 25)]
    [InlineData(0, 100, 0)]
    public void Target_margin(int margin, double price, double markup)
    {
        var priced = Of(60, 40, Terms with { Basis = PriceBasis.TargetMargin, TargetMargin = margin });
        Assert.Equal((decimal)price, priced.BeforeTax.V);
        Assert.Equal((decimal)markup, decimal.Round(priced.Readouts.Markup!.Value.V, 2));
    }

    [Theory]
    [MemberData(nameof(DemoCases.All), MemberType = typeof(DemoCases))]
    public void Steps_are_the_sum_of_their_parts_and_lead_to_each_sum(string name, bool other)
    {
        var price = Sample.Reckon(DemoCases.Of(name, other)).Price;
        var so = 0m;
        foreach (var step in price.Steps.Where(s => s.Kind != StepKind.Within))
        {
            Assert.Equal(step.Amount.V, step.Parts.Sum(p => p.Amount.V));
            if (step.Kind == StepKind.Sum)
                Assert.Equal(so, step.Amount.V);
            else
                so += step.Amount.V;
        }
        Assert.Equal(["beforeTax", "total"], price.Steps.Where(s => s.Kind == StepKind.Sum).Select(s => s.Key));
        Assert.Equal(price.Steps.Length, price.Steps.Select(s => s.Key).Distinct().Count());
    }

    [Fact]
    public void Changed_terms_price_anew_and_reckon_nothing()
    {
        var before = Sample.Reckon(Sample.Library());
        var job = before.Job with
        {
            Pricing = before.Job.Pricing with { Profit = 21, MaterialCost = MaterialCost.Need },
        };
        var after = before.If(job);
        Assert.Same(before.Reckoned.Costs, after.Reckoned.Costs);
        Assert.Same(before.Reckoned.Lines, after.Reckoned.Lines);
        Assert.Equal(Reported.Of(job).ToJsonString(), Reported.Of(after.Job).ToJsonString());
        Assert.Equal(Sample.Reckon(job).Price.Total.V, after.Price.Total.V);
        Assert.NotEqual(before.Price.Total.V, after.Price.Total.V);
        // The crew is no term of the price: it is reckoned with.
        var crew = before.If(before.Job with { Crew = before.Job.Crew with { HoursPerDay = 6 } });
        Assert.NotSame(before.Reckoned.Costs, crew.Reckoned.Costs);
    }

    [Fact]
    public void Every_basis_stands_at_its_place()
    {
        var kinds = Enum.GetValues<PriceBasis>();
        Assert.Equal(kinds, kinds.Select(k => Basis.Of(k).Kind));
    }

    [Fact]
    public void A_markup_of_50_percent_is_a_margin_of_a_third()
    {
        var price = Of(1000, 0, Terms with { LabourMarkup = 50, Overhead = 0, Contingency = 0, Profit = 0 });
        Assert.Equal(
            (1500m, 33.33m, 50m),
            (price.BeforeTax.V, decimal.Round(price.Readouts.Margin!.Value.V, 2), price.Readouts.Markup!.Value.V)
        );
    }

    [Fact]
    public void A_job_starts_with_the_floor_and_target_of_a_healthy_firm() =>
        // Common practice: a gross profit of at least 40 %, good at 50 %.
        Assert.Equal((40m, 50m), (PricingTerms.Starting.FloorMargin, PricingTerms.Starting.GoalMargin));

    [Fact]
    public void Tax_on_the_price_and_on_the_materials_part_of_it()
    {
        Assert.Equal(
            (1965.81m, 137.61m, 2103.42m),
            Taxed(Of(1000, 400, Terms with { Taxes = [On(7, [.. Tax.Everything])] }))
        );
        // Marked-up materials are 480 of 1,480: 1,965.81 × 480 ÷ 1,480 = 637.56; 7 % of it is 44.63.
        Assert.Equal((637.56m, 44.63m, 2010.44m), Taxed(Of(1000, 400, Terms with { Taxes = [On(7, TaxOn.Material)] })));
        static (decimal, decimal, decimal) Taxed(Price p) => (p.Taxes[0].Taxed.V, p.Tax, p.Total.V);
    }

    [Fact]
    public void A_job_without_work_has_no_margin_and_no_price_per_area()
    {
        var price = Sample.Reckon(Sample.Empty()).Price;
        Assert.Equal(0, price.Total.V);
        Assert.True(price.Readouts is { Margin: null, Markup: null, PerFloor: null, PerHour: null });
    }

    [Theory]
    [InlineData("targetMargin", "100")]
    [InlineData("overhead", "-1")]
    [InlineData("hoursPerDay", "0")]
    [InlineData("profit", "much")]
    [InlineData("profit", "1e999")]
    public void Terms_that_cannot_be_priced_with_are_refused_by_field(string field, string value)
    {
        var job = Sample.Empty();
        var refused = Assert.Throws<RefusedException>(() =>
            job.Do(new SetPricing(field, ChangeSet.Get(job, "pricing/" + field), value))
        );
        Assert.Equal(field, refused.Refusal.Field);
    }

    [Fact]
    public void Parts_shown_sum_to_the_total_shown_at_every_detail() =>
        Gen.Select(
                Gen.Enum<Detail>(),
                Gen.Enum<MaterialCost>(),
                Gen.OneOf(Gen.Const(PriceBasis.Markup), Gen.Const(PriceBasis.TargetMargin)),
                Gen.Int[0, 4000],
                Gen.Enum<TaxOn>()
            )
            .Always(
                drawn =>
                {
                    var (detail, cost, basis, hundredths, tax) = drawn;
                    var library = Sample.Library();
                    var terms = library.Pricing with
                    {
                        MaterialCost = cost,
                        Basis = basis,
                        Taxes = [On(7, tax)],
                        Overhead = hundredths / 100m,
                        TargetMargin = hundredths / 100m,
                        MaterialMarkup = hundredths / 137m,
                    };
                    var job = library with
                    {
                        Pricing = terms with { MaterialMarkup = decimal.Round(terms.MaterialMarkup, 6) },
                        Proposal = library.Proposal with { Detail = detail },
                    };
                    var rows = Sample.Proposed(Sample.Reckon(job)).OfType<PriceTable>().First().Rows;
                    decimal Sum(RowKind kind) => rows.Where(r => r.Kind == kind).Sum(r => r.Amount!.Value);
                    return (detail == Detail.Total || Sum(RowKind.Part) == Sum(RowKind.Subtotal))
                        && Sum(RowKind.Subtotal) + Sum(RowKind.Tax) == Sum(RowKind.Total);
                },
                times: 40
            );
}
