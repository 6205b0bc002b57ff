using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Documents.Workbooks;
using Emendum.Storage.Demo;
using NPOI.SS.UserModel;
using NPOI.XSSF.UserModel;
using Xunit;

namespace Emendum.SecondOpinion.Tests;

/// <summary>The customer's schedule as it goes back, recalculated by a general-purpose spreadsheet library (NPOI): as it is, and after somebody has changed a quantity in it.</summary>
public class PricedScheduleTests
{
    /// <summary>A demo job whose customer sent a schedule: each work item but every third, by odd quantities, and a row that we do not price.</summary>
    private static Estimate Scheduled(string name)
    {
        var job = DemoJobs.Fixed().Single(j => j.Info.Name.Contains(name, StringComparison.OrdinalIgnoreCase));
        var rows = job
            .Work.Where((_, i) => i % 3 != 2)
            .Select(
                (work, i) =>
                    new ScheduleItem(
                        new(i, 0, 0, new byte[8]),
                        $"{i:D3}",
                        $"1.{i:D2}",
                        work.Name,
                        "m²",
                        7.125m + 13 * i,
                        ""
                    )
                    {
                        Work = [new(work.Id, "", null)],
                    }
            );
        job = job with
        {
            Schedule =
            [
                new(new(900, 0, 0, new byte[8]), "", "1", "Works", "", 0, ""),
                .. rows,
                new(new(901, 0, 0, new byte[8]), "9", "9", "Gold leaf", "m²", 3, ""),
            ],
            Proposal = job.Proposal with { Detail = Detail.Schedule },
        };
        return Estimate.Of(job, Trace.Silent);
    }

    [Theory]
    [InlineData("library")]
    [InlineData("court")]
    [InlineData("clinic")]
    [InlineData("pottery")]
    public void It_comes_to_the_price_by_its_own_formulas(string name)
    {
        var estimate = Scheduled(name);
        var document = Proposal.Of(estimate, Party.None, Brand.Starting, Trace.Silent);
        var table = PricedSchedule.In(document)!;
        var bytes = PricedSchedule.Write(document.Head, table, estimate.MoneyPlaces);
        Assert.Equal(bytes, PricedSchedule.Write(document.Head, table, estimate.MoneyPlaces));
        var book = new XSSFWorkbook(new MemoryStream(bytes));
        var (sheet, evaluator) = (book.GetSheetAt(0), book.GetCreationHelper().CreateFormulaEvaluator());
        IRow Row(Func<IRow, bool> holds) =>
            Enumerable.Range(0, sheet.LastRowNum + 1).Select(sheet.GetRow).First(r => r is not null && holds(r));
        IRow Called(string words) => Row(r => r.GetCell(1)?.StringCellValue == words);
        decimal Amount(IRow row) => Rounding.Money((decimal)evaluator.Evaluate(row.GetCell(5)).NumberValue, 2);
        Assert.Equal(estimate.Price.BeforeTax.V, Amount(Called("Price before tax")));
        Assert.Equal(estimate.Price.Total.V, Amount(Called("Total")));
        var priced = 0;
        foreach (var row in table.Rows.Where(r => r.Of is { UnitPrice: not null }))
        {
            var there = Row(r => r.GetCell(0)?.StringCellValue == row.Number);
            Assert.Equal(row.Amount, Amount(there));
            Assert.Equal(row.Of!.Quantity, (decimal)there.GetCell(2).NumericCellValue);
            Assert.Equal("m²", there.GetCell(3).StringCellValue);
            priced++;
        }
        Assert.InRange(priced, 2, int.MaxValue);
        Assert.Equal("not included", Called("Gold leaf").GetCell(5).StringCellValue);
        // Twice as much of the first row is twice its amount, and so much more in all, before tax.
        var first = table.Rows.First(r => r.Of is { UnitPrice: not null });
        Row(r => r.GetCell(0)?.StringCellValue == first.Number)
            .GetCell(2)
            .SetCellValue((double)(first.Of!.Quantity * 2));
        evaluator.ClearAllCachedResultValues();
        var more = Rounding.Money(first.Of.Quantity * 2 * first.Of.UnitPrice!.Value, 2) - first.Amount!.Value;
        Assert.Equal(estimate.Price.BeforeTax.V + more, Amount(Called("Price before tax")));
    }
}
