using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using NPOI.SS.UserModel;
using NPOI.XSSF.UserModel;

namespace Emendum.Bench;

/// <summary>The same estimate as a workbook with live formulas: measures from sizes, hours and need by line, cost and price by markup. Pack counts are values.</summary>
internal sealed class Spreadsheet
{
    private readonly XSSFWorkbook workbook = new();
    private readonly ICell price;

    public Spreadsheet(Estimate estimate)
    {
        var job = estimate.Job;
        var places = workbook.CreateSheet("places");
        for (var p = 0; p < job.Places.Length; p++)
        {
            var (place, row) = (job.Places[p], places.CreateRow(p));
            decimal[] sizes =
            [
                .. place.Shape.Lengths.Select(l => l.Value),
                .. place.Openings.SelectMany(o => new[] { o.Width.Value, o.Height.Value, o.Count }),
            ];
            for (var c = 0; c < sizes.Length; c++)
                row.CreateCell(c).SetCellValue((double)sizes[c]);
            var n = p + 1;
            row.CreateCell(10).SetCellFormula($"ROUND((2*(A{n}+B{n})*C{n}-D{n}*E{n}*F{n}-G{n}*H{n}*I{n})/144,12)");
            row.CreateCell(11).SetCellFormula($"ROUND(A{n}*B{n}/144,12)");
        }
        var lines = workbook.CreateSheet("lines");
        var at = estimate.Reckoned.Measures.Keys.Select((id, i) => (id, i)).ToDictionary(x => x.id, x => x.i);
        for (var i = 0; i < estimate.Reckoned.Lines.Length; i++)
        {
            var (line, row) = (estimate.Reckoned.Lines[i], lines.CreateRow(i));
            var quantity =
                $"places!{(line.Item.Measure == Core.Places.Measure.NetWallArea ? "K" : "L")}{at[line.Measures.Place.Id] + 1}";
            row.CreateCell(0).SetCellFormula($"ROUND({quantity}/{line.Item.Parts[0].Ratio!.A},12)");
            var product = (Material)line.Item.Parts[1].Entry;
            row.CreateCell(1)
                .SetCellFormula(
                    $"ROUND(({quantity}/{product.Coverage!.A}+{quantity}/{product.LaterCoverage!.A})*(100+{product.WastePercent})/100,12)"
                );
        }
        var sum = workbook.CreateSheet("price");
        void Put(int row, string formula) => sum.CreateRow(row).CreateCell(0).SetCellFormula(formula);
        var terms = job.Pricing;
        var role = (LabourRole)estimate.Reckoned.Lines[0].Item.Parts[0].Entry;
        Put(0, $"SUM(lines!A1:A{estimate.Reckoned.Lines.Length})");
        Put(
            1,
            $"ROUND(ROUND(A1*({role.Wage}*(1+{role.Burden.Sum(b => b.Percent ?? 0)}/100)+{role.Burden.Sum(b => b.PerHour ?? 0)}),9),2)"
        );
        sum.CreateRow(2).CreateCell(0).SetCellValue((double)estimate.Reckoned.Costs.Buying.Sum(b => b.BoughtCost.V));
        Put(3, $"SUM(lines!B1:B{estimate.Reckoned.Lines.Length})");
        Put(4, $"A2+ROUND(ROUND(A2*{terms.LabourMarkup}/100,9),2)+A3+ROUND(ROUND(A3*{terms.MaterialMarkup}/100,9),2)");
        Put(5, $"ROUND(ROUND(A5*{terms.Overhead}/100,9),2)");
        Put(6, $"ROUND(ROUND((A5+A6)*{terms.Contingency}/100,9),2)");
        Put(7, $"ROUND(ROUND((A5+A6+A7)*{terms.Profit}/100,9),2)");
        Put(8, "A5+A6+A7+A8");
        price = sum.GetRow(8).GetCell(0);
    }

    /// <summary>Recalculates every formula; the price before tax.</summary>
    public decimal Recalculate()
    {
        workbook.GetCreationHelper().CreateFormulaEvaluator().EvaluateAll();
        return decimal.Round((decimal)price.NumericCellValue, 2);
    }
}
