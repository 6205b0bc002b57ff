using System.Globalization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;

namespace Emendum.Documents.Workbooks;

/// <summary>A job's cost sheet as an .xlsx workbook whose price follows its quantities and terms: change one there, and hours, costs, the build-up and the total are reckoned anew by the rules that
/// made them. Packs, and the plan of the crew, are found by the program and stand as values; where a change makes those stale, or leaves the way on which the price was made, the workbook says so.</summary>
public sealed class CostWorkbook
{
    private readonly CostSheet sheet;
    private readonly Estimate estimate;
    private readonly Formulas formulas;
    private readonly Sheet price = new("Price", [34, 60, 18]),
        lines = new("Lines", [18, 30, 26, 13, 8, 10, 12, 12, 12, 12, 12, 13, 13, 30], fixedRows: 1),
        goods = new("Goods", [32, 16, 12, 8, 34, 12, 14, 14, 12, 34, 8], fixedRows: 1),
        terms = new("Terms", [40, 14, 10, 30], fixedRows: 1),
        checks = new("Checks", [80, 16, 8, 16, 10], fixedRows: 1);

    private CostWorkbook(CostSheet sheet, Trace trace)
    {
        (this.sheet, estimate) = (sheet, sheet.Estimate);
        formulas = new()
        {
            Stands = leaf => leaf.Source == "terms" ? Term(leaf) : null,
            IsGiven = figure => figure.Path.StartsWith("places/", StringComparison.Ordinal),
            Planned = Plan,
        };
        terms.Add(Formulas.Heads("Term", "Value", "Unit", "Of"));
        checks.Add(Formulas.Heads("What may be so no longer", "This", "was", "That", "Broken", "Stale"));
        // Quantities are placed first: whatever rests on one points at its cell.
        Lines();
        Goods();
        foreach (var assumption in trace.Assumptions)
            Check(assumption);
        Price();
    }

    /// <summary>Writes the cost sheet of a job.</summary>
    /// <exception cref="Core.RefusedException">The job cannot be priced.</exception>
    public static byte[] Write(Job job)
    {
        var trace = Trace.Following();
        var estimate = Estimate.Of(job, trace);
        var book = new CostWorkbook(CostSheet.Of(estimate, trace), trace);
        return Sheet.Write(
            [book.price, book.lines, book.goods, book.terms, book.checks, .. book.formulas.Sheets],
            estimate.MoneyPlaces
        );
    }

    private string Term(Leaf leaf) =>
        $"Terms!B{terms.Add(new(leaf.Label), new(leaf.Value, Look: CellLook.Input), new(leaf.Unit), new(leaf.Link, Look: CellLook.Quiet))}";

    private static SheetCell NumberHead(string words) => new(words, Look: CellLook.NumberHead);

    private SheetCell Cell(Val value, CellLook look) =>
        value.How is null ? new(value.V, Look: look) : new(value.V, formulas.Of(value.How), look);

    private SheetCell Money(Val value) => value.V == 0 && value.How is null ? default : Cell(value, CellLook.Money);

    private void Lines()
    {
        lines.Add(
            [
                .. Formulas.Heads("Section", "Work", "Place"),
                NumberHead("Quantity"),
                .. Formulas.Heads("Unit"),
                NumberHead("Hours"),
                .. ByClass<int>.Classes.Select(c => NumberHead(c.Label())),
                NumberHead("Cost"),
                NumberHead("Price"),
                .. Formulas.Heads("Note"),
            ]
        );
        const int first = 2;
        for (var i = 0; i < sheet.Lines.Length; i++)
            if (sheet.Lines[i].Line.Quantity.How is Ref quantity)
                formulas.Place(quantity.Figure.Path, $"Lines!D{first + i}");
        var units = estimate.Job.Units;
        foreach (var (line, section, hours, costs, cost, sold, note) in sheet.Lines)
            lines.Add(
                [
                    new(section),
                    new(line.OfItem.Item.Name),
                    new(line.Measures.Place.Name),
                    new(line.Quantity.V, Look: CellLook.Input),
                    new(line.OfItem.SymbolIn(units)),
                    Cell(hours, CellLook.Quantity),
                    .. costs.Select(c => Money(c.Of)),
                    Money(cost),
                    Money(sold),
                    new(note, Look: CellLook.Quiet),
                ]
            );
        if (sheet.HasNoLine)
            lines.Add(
                [
                    new(CostSheet.NoLine, Look: CellLook.Quiet),
                    .. Enumerable.Repeat(default(SheetCell), 4),
                    Cell(sheet.HoursOfNoLine, CellLook.Quantity),
                    .. Enumerable.Repeat(default(SheetCell), 5),
                    Money(sheet.CostOfNoLine),
                    Money(sheet.PriceOfNoLine),
                ]
            );
        if (sheet.Contingency.V != 0)
            lines.Add(
                [
                    new(CostSheet.OfContingency, Look: CellLook.Quiet),
                    .. Enumerable.Repeat(default(SheetCell), 11),
                    Money(sheet.Contingency),
                ]
            );
        var last = lines.Rows;
        SheetCell Sum(char column, decimal value, CellLook look = CellLook.Sum) =>
            new(value, $"SUM({column}{first}:{column}{last})", look);
        lines.Add(
            [
                new("Together", Look: CellLook.Head),
                .. Enumerable.Repeat(default(SheetCell), 4),
                Sum('F', estimate.Reckoned.Costs.Hours.V, CellLook.Quantity),
                .. ByClass<int>.Classes.Select((c, i) => Sum((char)('G' + i), sheet.Lines.Sum(l => l.Costs[c].V))),
                Sum('L', estimate.Price.Direct.V),
                Sum('M', estimate.Price.BeforeTax.V),
            ]
        );
    }

    private void Goods()
    {
        goods.Add(
            [
                .. Formulas.Heads("Material", "Colour"),
                NumberHead("Needed"),
                .. Formulas.Heads("Unit", "Packs chosen"),
                NumberHead("Bought"),
                NumberHead("Cost of packs"),
                NumberHead("Cost of the need"),
                NumberHead("Delivery"),
                .. Formulas.Heads("Packs are", "Stale"),
            ]
        );
        foreach (var buy in estimate.Reckoned.Costs.Buying)
        {
            var unit = buy.Material.Unit.Symbol;
            var (required, row) = (formulas.Of(buy.Required.HowOrConstant), goods.Rows + 1);
            var chosenFor = Formulas.Number(Core.Quantities.Rounding.ForCompare(buy.Required.V));
            goods.Add(
                new(buy.Material.Name),
                new(buy.Colour),
                Cell(buy.Need, CellLook.Quantity),
                new(unit),
                new(buy.PacksInWords, Look: CellLook.Quiet),
                Cell(buy.Bought, CellLook.Found),
                Cell(buy.BoughtCost, CellLook.Money),
                Cell(buy.NeedCost, CellLook.Money),
                buy.Delivery is null ? default : Cell(buy.Delivery, CellLook.Money),
                new("as chosen", $"IF(K{row}=0,\"as chosen\",\"stale: chosen for {chosenFor} {unit}\")"),
                new(0m, $"IF(ROUND({required},9)={chosenFor},0,1)")
            );
        }
    }

    private static string Sign(Relation relation) =>
        relation switch
        {
            Relation.Same => "=",
            Relation.Below => "<",
            Relation.AtLeast => ">=",
            _ => ">",
        };

    private void Check(Assumption assumed) =>
        Check(assumed.Otherwise, formulas.Of(assumed.Left), Sign(assumed.Relation), formulas.Of(assumed.Right), 'E');

    /// <summary>A row that says whether something is still so; what is not counts in the column of what is broken, or of what is stale.</summary>
    private void Check(string otherwise, string left, string sign, string right, char column)
    {
        var row = checks.Rows + 1;
        var counted = new SheetCell(0m, $"IF(ROUND(B{row},9){sign}ROUND(D{row},9),0,1)");
        checks.Add(
            new(otherwise),
            new(null, left, CellLook.Quantity),
            new(sign),
            new(null, right, CellLook.Quantity),
            column == 'E' ? counted : default,
            column == 'F' ? counted : default
        );
    }

    private void Plan(Plan plan)
    {
        foreach (var step in plan.Steps)
            if (step.Hours is Ref { Figure: var hours })
                Check(
                    $"{hours.Label}: the crew's days and visits were planned for other hours.",
                    formulas.Cell(hours),
                    "=",
                    Formulas.Number(hours.Value),
                    'F'
                );
    }

    private void Price()
    {
        var (job, of) = (estimate.Job, estimate.Price);
        price.Add(new SheetCell($"Cost sheet: {job.Info.Name}", Look: CellLook.Title));
        price.Add(
            new SheetCell(
                $"{job.Info.Number} · {job.Info.Date} · amounts in {job.Info.Currency} · goods count {(job.Pricing.MaterialCost == MaterialCost.Purchase ? "as bought: their cost stays while packs are stale" : "by need")}",
                Look: CellLook.Quiet
            )
        );
        price.Add(
            new SheetCell(
                "All of it follows the yellow cells.",
                "IF(SUM(Checks!E:E)>0,\"The price does not follow any more: sheet Checks says why. Make the change in the job, and take the workbook out anew.\","
                    + "IF(SUM(Goods!K:K)+SUM(Checks!F:F)>0,\"What the program found is stale: packs on Goods, visits on Checks.\",\"All of it follows the yellow cells.\"))",
                CellLook.Head
            )
        );
        price.Add();
        price.Add([.. Formulas.Heads("Step", "On what, when this was taken out"), NumberHead("Amount")]);
        foreach (var step in of.Steps)
            price.Add(
                new(step.Label, Look: step.Kind == StepKind.Sum ? CellLook.Head : CellLook.Plain),
                new(step.Note, Look: CellLook.Quiet),
                Cell(step.Amount, step.Kind == StepKind.Sum ? CellLook.Sum : CellLook.Money)
            );
        price.Add();
        price.Add(Formulas.Heads("Where that leaves us", "", ""));
        var (read, costs) = (of.Readouts, estimate.Reckoned.Costs);
        void Readout(string label, Total? figure, string unit, CellLook look = CellLook.Money)
        {
            if (figure is not null)
                price.Add(new(label), new(unit, Look: CellLook.Quiet), Cell(figure, look));
        }
        Readout("Cost, with allowances and fees", read.Cost, "");
        Readout("Gross profit", read.GrossProfit, "");
        Readout("Margin", read.Margin, "percent of the price before tax", CellLook.Quantity);
        Readout("Markup", read.Markup, "percent of the cost", CellLook.Quantity);
        Readout("Left after overhead and contingency", read.AfterOverhead, "");
        Readout("Labour hours", costs.Hours, "h", CellLook.Quantity);
        Readout("Price for each labour hour", read.PerHour, "before tax");
        Readout("Price at the floor", read.AtFloor, Percent(job.Pricing.FloorMargin));
        Readout("Price at the target", read.AtGoal, Percent(job.Pricing.GoalMargin));
        price.Add();
        foreach (
            var words in new[]
            {
                "Yellow cells are meant to be changed: quantities on Lines, terms on Terms.",
                "Grey ones were found by the program and stand still: packs, the crew's plan.",
                "For the firm, not for the customer.",
            }
        )
            price.Add(new SheetCell(words, Look: CellLook.Quiet));
    }

    private static string Percent(decimal margin) =>
        $"margin of {margin.ToString("0.##", CultureInfo.InvariantCulture)} %";
}
