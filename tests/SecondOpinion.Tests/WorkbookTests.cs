using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Reports;
using Emendum.Core.Work;
using Emendum.Documents.Workbooks;
using Emendum.Storage.Demo;
using NPOI.SS.UserModel;
using NPOI.XSSF.UserModel;
using Xunit;

namespace Emendum.SecondOpinion.Tests;

/// <summary>Whole demo jobs as workbooks with live formulas, recalculated by a general-purpose spreadsheet library (NPOI).</summary>
public class WorkbookTests
{
    public static TheoryData<string, MaterialCost, PriceBasis> Jobs =>
        new()
        {
            { "library", MaterialCost.Purchase, PriceBasis.Markup },
            { "library", MaterialCost.Need, PriceBasis.TargetMargin },
            { "court", MaterialCost.Purchase, PriceBasis.Markup },
            { "clinic", MaterialCost.Purchase, PriceBasis.Markup },
            { "pottery", MaterialCost.Need, PriceBasis.Markup },
        };

    [Theory]
    [MemberData(nameof(Jobs))]
    public void A_demo_job_recalculated_by_a_spreadsheet_library_agrees_to_the_cent(
        string name,
        MaterialCost cost,
        PriceBasis basis
    )
    {
        var job = DemoJobs.Fixed().Single(j => j.Info.Name.Contains(name, StringComparison.OrdinalIgnoreCase));
        var trace = Reported
            .Record(job with { Pricing = job.Pricing with { MaterialCost = cost, Basis = basis } })
            .Trace;
        var workbook = new XSSFWorkbook(new MemoryStream(WorkingsWorkbook.Write(trace)));
        // What was computed here is thrown away first: only the formulas speak.
        var evaluator = workbook.GetCreationHelper().CreateFormulaEvaluator();
        var (sheet, checkedRows, formulas) = (workbook.GetSheet("Figures"), 0, 0);
        for (var r = 1; r <= sheet.LastRowNum; r++)
        {
            var (cell, path) = (sheet.GetRow(r).GetCell(1), sheet.GetRow(r).GetCell(3).StringCellValue);
            if (cell.CellType != CellType.Formula)
                continue;
            formulas++;
            var figure = trace.Figures[path];
            var value = evaluator.Evaluate(cell);
            Assert.True(
                value.CellType == CellType.Numeric,
                $"{path}: {cell.CellFormula} gives {value.FormatAsString()}"
            );
            // Money to the cent; the rest to what a double of fifteen places can hold.
            var within =
                figure.Path.StartsWith("price/", StringComparison.Ordinal) && figure.Unit.Length == 0
                    ? 0.000_01
                    : 1e-9 * Math.Max(1, Math.Abs((double)figure.Value));
            Assert.True(
                Math.Abs(value.NumberValue - (double)figure.Value) <= within,
                $"{path}: {figure.Value} here, {value.NumberValue} there, by {cell.CellFormula}"
            );
            checkedRows++;
        }
        Assert.Equal(formulas, checkedRows);
        Assert.InRange(checkedRows, 200, int.MaxValue);
    }
}
