using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Documents.Workbooks;
using Emendum.Storage.Demo;
using NPOI.SS.UserModel;
using NPOI.XSSF.UserModel;
using Xunit;

namespace Emendum.SecondOpinion.Tests;

/// <summary>Cost sheets as workbooks, recalculated by a general-purpose spreadsheet library (NPOI): as they are, and after somebody has changed a quantity or a term in them.</summary>
public class CostWorkbookTests
{
    private static Job Demo(string name) =>
        DemoJobs.Fixed().Single(j => j.Info.Name.Contains(name, StringComparison.OrdinalIgnoreCase));

    private static Job With(Job job, Func<PricingTerms, PricingTerms> terms) =>
        job with
        {
            Pricing = terms(job.Pricing),
        };

    /// <summary>A workbook in which somebody types.</summary>
    private sealed class Opened
    {
        private readonly XSSFWorkbook book;
        private readonly IFormulaEvaluator evaluator;

        public Opened(Job job)
        {
            book = new(new MemoryStream(CostWorkbook.Write(job)));
            evaluator = book.GetCreationHelper().CreateFormulaEvaluator();
        }

        public ISheet this[string sheet] => book.GetSheet(sheet);

        public decimal Number(ICell cell)
        {
            var value = evaluator.Evaluate(cell);
            Assert.True(value.CellType == CellType.Numeric, $"{cell.CellFormula} gives {value.FormatAsString()}");
            return (decimal)value.NumberValue;
        }

        public string Text(ICell cell) => evaluator.Evaluate(cell).StringValue;

        public IEnumerable<IRow> Rows(string sheet) =>
            Enumerable
                .Range(0, this[sheet].LastRowNum + 1)
                .Select(r => this[sheet].GetRow(r))
                .Where(r => r is not null);

        public decimal Step(string label) =>
            Number(
                Rows("Price").Last(r => r.GetCell(0)?.StringCellValue == label && r.GetCell(2) is not null).GetCell(2)
            );

        public bool Follows => Rows("Checks").Skip(1).All(r => r.GetCell(4) is null || Number(r.GetCell(4)) == 0);

        public bool PacksStand => Rows("Goods").Skip(1).All(r => Number(r.GetCell(10)) == 0);

        public string Says => Text(Rows("Price").ElementAt(2).GetCell(0));

        public void Type(ICell cell, decimal value)
        {
            cell.SetCellValue((double)value);
            evaluator.ClearAllCachedResultValues();
        }

        /// <summary>Types a number, looks, and puts the old one back.</summary>
        public T Trying<T>(ICell cell, decimal value, Func<T> look)
        {
            var was = (decimal)cell.NumericCellValue;
            Type(cell, value);
            var seen = look();
            Type(cell, was);
            return seen;
        }
    }

    private static void Equal(decimal core, decimal there, string what) =>
        Assert.True(Math.Abs(core - there) < 0.000_01m, $"{what}: {core} here, {there} there");

    [Theory]
    [InlineData("library", MaterialCost.Purchase)]
    [InlineData("library", MaterialCost.Need)]
    [InlineData("court", MaterialCost.Purchase)]
    [InlineData("court", MaterialCost.Need)]
    [InlineData("clinic", MaterialCost.Purchase)]
    [InlineData("clinic", MaterialCost.Need)]
    [InlineData("pottery", MaterialCost.Purchase)]
    [InlineData("pottery", MaterialCost.Need)]
    [InlineData("round", MaterialCost.Purchase)]
    public void A_demo_job_recalculated_equals_the_core_to_the_cent(string name, MaterialCost by)
    {
        var job = With(Demo(name), t => t with { MaterialCost = by });
        var (estimate, opened) = (Estimate.Of(job, Trace.Silent), new Opened(job));
        var sheet = CostSheet.Of(estimate, Trace.Silent);
        foreach (var step in estimate.Price.Steps)
            Equal(step.Amount.V, opened.Step(step.Label), step.Label);
        Equal(estimate.Price.Readouts.GrossProfit.V, opened.Step("Gross profit"), "gross profit");
        var rows = opened.Rows("Lines").ToList();
        // Prices of the lines hang together by the cents of largest remainder: their sum below tells of each that is left out.
        for (var i = 0; i < sheet.Lines.Length; i += 1 + sheet.Lines.Length / 60)
        {
            var line = sheet.Lines[i];
            Equal(line.Price.V, opened.Number(rows[i + 1].GetCell(12)), $"price of line {i + 1}");
            if (line.Cost.V != 0)
                Assert.InRange(opened.Number(rows[i + 1].GetCell(11)) - line.Cost.V, -0.000_001m, 0.000_001m);
        }
        Equal(estimate.Price.BeforeTax.V, opened.Number(rows[^1].GetCell(12)), "prices of the lines");
        Equal(estimate.Price.Direct.V, opened.Number(rows[^1].GetCell(11)), "costs of the lines");
        Assert.True(opened.Follows && opened.PacksStand);
        Assert.Equal("All of it follows the yellow cells.", opened.Says);
    }

    public static TheoryData<string, string> Changed
    {
        get
        {
            var data = new TheoryData<string, string>();
            foreach (var name in new[] { "pottery", "court" })
            foreach (var terms in Ways.Keys)
                data.Add(name, terms);
            data.Add("clinic", "as it is");
            data.Add("clinic", "least charges and brackets");
            data.Add("library", "as it is");
            data.Add("round", "as it is");
            return data;
        }
    }

    private static readonly Dictionary<string, Func<PricingTerms, PricingTerms>> Ways = new()
    {
        ["as it is"] = t => t,
        ["target margin, rounded, fees"] = t =>
            t with
            {
                Basis = PriceBasis.TargetMargin,
                Rounding = new(5, false, false),
                Fees = [new("card", 2.9m, true)],
            },
        ["least charges and brackets"] = t =>
            t with
            {
                LeastLine = 300,
                LeastPlace = 40,
                LeastJob = 9000,
                Brackets = new(BracketBy.Price, [new(0, 4), new(6000, 2.5m), new(12000, 0)], true),
            },
        ["fixed, with a discount"] = t =>
            t with
            {
                Basis = PriceBasis.Fixed,
                FixedPrice = 12_345.67m,
                Discounts = [new("neighbours", 5, null), new("rounded off", null, 12.34m)],
            },
    };

    /// <summary>Under need cost a workbook with a changed quantity gives the price that the core gives for the job with that quantity, or says that it cannot.</summary>
    [Theory]
    [MemberData(nameof(Changed))]
    public void A_changed_quantity_moves_the_price_as_in_the_core_or_is_refused(string name, string terms)
    {
        var job = With(Demo(name), t => Ways[terms](t with { MaterialCost = MaterialCost.Need }));
        var (estimate, opened) = (Estimate.Of(job, Trace.Silent), new Opened(job));
        var lines = CostSheet.Of(estimate, Trace.Silent).Lines;
        var rows = opened.Rows("Lines").ToList();
        var (followed, moved, tried) = (0, 0, 0);
        for (var i = 0; i < lines.Length; i += 1 + lines.Length / 9)
        {
            var line = lines[i].Line;
            if (line.Measures.Place.Count != 1 || line.IsNothing)
                continue;
            var quantity = decimal.Round(line.Quantity.V * (i % 3 == 0 ? 0.75m : 1.2m), 2) + 0.25m;
            var unit = line.OfItem.UnitIn(job.Units);
            var key = new CellKey(line.OfItem.Item.Id, line.Measures.Place.Id);
            var other = job with
            {
                Cells = job.Cells.SetItem(
                    key,
                    job.Cells[key] with
                    {
                        Quantity = new(
                            unit.Kind,
                            Rounding.Text(quantity) + (unit.Kind == Kind.Count ? "" : " " + unit.Symbol),
                            job.Units
                        ),
                    }
                ),
            };
            tried++;
            var there = Estimate.Of(other, Trace.Silent);
            var visits =
                there.Reckoned.Costs.Duration.ReturnVisits.V == estimate.Reckoned.Costs.Duration.ReturnVisits.V;
            // Where other packs are now the cheapest, what they cost for the need is another matter, and Goods says so.
            var same = there
                .Reckoned.Costs.Buying.Zip(estimate.Reckoned.Costs.Buying)
                .All(b =>
                    b.First.NeedCost.V * b.Second.Need.V == 0
                    || Math.Abs(b.First.NeedCost.V / b.First.Need.V - b.Second.NeedCost.V / b.Second.Need.V) < 1e-9m
                );
            var (follows, stand, total) = opened.Trying(
                rows[i + 1].GetCell(3),
                quantity,
                () => (opened.Follows, opened.PacksStand, opened.Step("Customer pays"))
            );
            Assert.True(same || !stand, "packs changed, and Goods does not say so");
            if (!follows || !same || !visits)
                continue;
            followed++;
            Equal(there.Price.Total.V, total, $"{line.OfItem.Item.Name}, {line.Measures.Place.Name}: {quantity}");
            moved += there.Price.Total.V == estimate.Price.Total.V ? 0 : 1;
        }
        Assert.True(followed * 3 >= tried, $"followed {followed} of {tried}");
        if (!terms.StartsWith("fixed", StringComparison.Ordinal))
            Assert.True(moved > 0, "no price moved");
    }

    [Theory]
    [InlineData("overhead", 13.5)]
    [InlineData("profit", 11.25)]
    [InlineData("contingency", 2.5)]
    public void A_changed_term_moves_the_price_as_in_the_core(string field, double percent)
    {
        var job = With(
            Demo("library"),
            t => t with { Basis = PriceBasis.Markup, Overhead = 10, Profit = 15, Contingency = 5 }
        );
        var to = (decimal)percent;
        var other = With(
            job,
            t =>
                field switch
                {
                    "overhead" => t with { Overhead = to },
                    "profit" => t with { Profit = to },
                    _ => t with { Contingency = to },
                }
        );
        var opened = new Opened(job);
        var cell = opened.Rows("Terms").Single(r => r.GetCell(3)?.StringCellValue == "pricing/" + field).GetCell(1);
        opened.Type(cell, to);
        Equal(Estimate.Of(other, Trace.Silent).Price.Total.V, opened.Step("Customer pays"), field);
    }

    [Fact]
    public void A_changed_need_marks_the_packs_and_what_was_bought_stays()
    {
        var job = With(Demo("pottery"), t => t with { MaterialCost = MaterialCost.Purchase });
        var opened = new Opened(job);
        var lines = CostSheet.Of(Estimate.Of(job, Trace.Silent), Trace.Silent).Lines;
        var at = lines.IndexOf(lines.First(l => l.Costs[Core.Book.CostClass.Material].V > 0));
        decimal Bought() => opened.Rows("Goods").Skip(1).Sum(r => opened.Number(r.GetCell(6)));
        var (before, cell) = (Bought(), opened["Lines"].GetRow(at + 1).GetCell(3));
        opened.Type(cell, (decimal)cell.NumericCellValue * 3);
        Assert.Equal("What the program found is stale: packs on Goods, visits on Checks.", opened.Says);
        Assert.Contains(
            opened.Rows("Goods").Skip(1),
            r => opened.Text(r.GetCell(9)).StartsWith("stale: chosen for ", StringComparison.Ordinal)
        );
        Assert.Equal(before, Bought());
    }

    [Fact]
    public void A_quantity_where_there_was_none_or_none_where_there_was_one_is_said_not_to_follow()
    {
        var opened = new Opened(Demo("pottery"));
        opened.Type(opened["Lines"].GetRow(1).GetCell(3), 0);
        Assert.StartsWith("The price does not follow any more", opened.Says, StringComparison.Ordinal);
    }
}
