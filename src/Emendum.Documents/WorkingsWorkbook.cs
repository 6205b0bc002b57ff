using System.Globalization;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Reckoning;

namespace Emendum.Documents;

/// <summary>A whole reckoning as an .xlsx workbook with live formulas: every figure is a row that points at the figures and inputs it came from. What a
/// spreadsheet cannot find for itself (how many packs are cheapest, the plan of the crew) stands as a value and is marked.</summary>
public sealed class WorkingsWorkbook
{
    /// <summary>Terms of one formula; longer sums go through a column of their own.</summary>
    private const int MostTerms = 100;

    private readonly Sheet figures = new("Figures"),
        inputs = new("Inputs"),
        sums = new("Sums"),
        shares = new("Shares");
    private readonly Dictionary<string, int> rowOf = new(StringComparer.Ordinal);
    private readonly Dictionary<(string, decimal, string, string, string?), int> inputAt = [];
    private readonly Dictionary<ShareSet, int> shareAt = new(ReferenceEqualityComparer.Instance);

    /// <summary>One sheet while it is made.</summary>
    private sealed class Sheet(string name)
    {
        public string Name => name;
        public SheetData Data { get; } = new();
        public int Rows { get; private set; }

        public int Add(params (object? Value, string? Formula)[] cells)
        {
            var row = new Row { RowIndex = (uint)++Rows };
            for (var c = 0; c < cells.Length; c++)
            {
                var (value, formula) = cells[c];
                if (value is null && formula is null)
                    continue;
                var cell = new Cell { CellReference = $"{(char)('A' + c)}{Rows}" };
                if (formula is not null)
                    cell.CellFormula = new CellFormula(formula);
                if (value is decimal number)
                    cell.CellValue = new CellValue(number.ToString(CultureInfo.InvariantCulture));
                else if (value is string text)
                {
                    cell.DataType = CellValues.InlineString;
                    cell.InlineString = new InlineString(
                        new Text(Tables.Workbook.Escaped(text)) { Space = SpaceProcessingModeValues.Preserve }
                    );
                }
                row.Append(cell);
            }
            Data.Append(row);
            return Rows;
        }
    }

    private WorkingsWorkbook(IEnumerable<Figure> all)
    {
        figures.Add(("Figure", null), ("Value", null), ("Unit", null), ("Path", null), ("Sentence", null));
        inputs.Add(("Input", null), ("Value", null), ("Unit", null), ("From", null), ("Where", null));
        sums.Add(("Term", null));
        shares.Add(
            ("Split by largest remainder", null),
            ("Weight", null),
            ("Exact, in cents", null),
            ("Whole cents", null),
            ("Rest", null),
            ("Rank of the rest", null),
            ("Share", null)
        );
        foreach (var figure in all)
            Row(figure);
    }

    /// <summary>Writes the figures of a recorded reckoning.</summary>
    public static byte[] Write(Trace trace)
    {
        var book = new WorkingsWorkbook(trace.Figures.Values);
        using var stream = new MemoryStream();
        using (var document = SpreadsheetDocument.Create(stream, SpreadsheetDocumentType.Workbook))
        {
            var part = document.AddWorkbookPart();
            var sheets = new Sheets();
            part.Workbook = new DocumentFormat.OpenXml.Spreadsheet.Workbook(sheets);
            foreach (var sheet in new[] { book.figures, book.inputs, book.sums, book.shares })
            {
                var worksheet = part.AddNewPart<WorksheetPart>();
                worksheet.Worksheet = new Worksheet(
                    new Columns(
                        new Column
                        {
                            Min = 1,
                            Max = 1,
                            Width = 46,
                            CustomWidth = true,
                        },
                        new Column
                        {
                            Min = 2,
                            Max = 7,
                            Width = 16,
                            CustomWidth = true,
                        }
                    ),
                    sheet.Data
                );
                sheets.Append(
                    new DocumentFormat.OpenXml.Spreadsheet.Sheet
                    {
                        Id = part.GetIdOfPart(worksheet),
                        SheetId = (uint)sheets.ChildElements.Count + 1,
                        Name = sheet.Name,
                    }
                );
            }
        }
        return stream.ToArray();
    }

    /// <summary>A figure stands below what it came from.</summary>
    private int Row(Figure figure)
    {
        if (rowOf.TryGetValue(figure.Path, out var row))
            return row;
        var formula = Formula(figure.How);
        return rowOf[figure.Path] = figures.Add(
            (figure.Label, null),
            (figure.Value, formula),
            (figure.Unit, null),
            (figure.Path, null),
            (Explanation.Sentence(figure), null)
        );
    }

    private static string Number(decimal value) =>
        value < 0 ? $"({value.ToString(CultureInfo.InvariantCulture)})" : value.ToString(CultureInfo.InvariantCulture);

    private string Input(string source, decimal value, string unit, string label, string? link)
    {
        if (!inputAt.TryGetValue((source, value, unit, label, link), out var row))
            row = inputAt[(source, value, unit, label, link)] = inputs.Add(
                (label, null),
                (value, null),
                (unit, null),
                (source, null),
                (link, null)
            );
        return $"Inputs!B{row}";
    }

    private string Marked(decimal value, string label) => Input("value, found by the program", value, "", label, null);

    private string Formula(Expr expr) =>
        expr switch
        {
            Leaf { Source: "constant" } leaf => Number(leaf.Value),
            Leaf leaf => Input(leaf.Source, leaf.Value, leaf.Unit, leaf.Label, leaf.Link),
            Ref reference => $"Figures!B{Row(reference.Figure)}",
            Op { Name: "add", Of.Count: 0 } => "0",
            Op { Name: "add", Of.Count: > MostTerms } op => LongSum(op.Of),
            Op { Name: "add" } op => $"({string.Join("+", op.Of.Select(Formula))})",
            Op { Name: "subtract" } op => $"({Formula(op.Of[0])}-{Formula(op.Of[1])})",
            Op { Name: "multiply" } op => $"({Formula(op.Of[0])}*{Formula(op.Of[1])})",
            Op { Name: "divide" } op => $"({Formula(op.Of[0])}/{Formula(op.Of[1])})",
            Op { Name: "ceil" } op => $"ROUNDUP(ROUND({Formula(op.Of[0])},9),0)",
            Op { Name: "floor" } op => $"INT(ROUND({Formula(op.Of[0])},9))",
            Op { Name: "sqrt" } op => $"SQRT({Formula(op.Of[0])})",
            Cents cents => $"ROUND(ROUND({Formula(cents.Of)},9),{cents.Places})",
            Op { Name: "min" } op => $"MIN({Formula(op.Of[0])},{Formula(op.Of[1])})",
            Op { Name: "max" } op => $"MAX({Formula(op.Of[0])},{Formula(op.Of[1])})",
            Apply apply => $"({Formula(apply.Of)}*{Formula(apply.Times)}/{Formula(apply.Over)})",
            Core.Figures.Table table => table
                .Rows.Skip(1)
                .Aggregate(
                    Number(table.Rows[0].Gives),
                    (below, row) => $"IF(ROUND({Formula(table.Of)},9)>={Number(row.From)},{Number(row.Gives)},{below})"
                ),
            Packs packs => packs.Counts.All(p => p.Count == 0)
                ? "0"
                : "("
                    + string.Join(
                        "+",
                        packs
                            .Counts.Where(p => p.Count != 0)
                            .Select(p =>
                                $"{Marked(p.Count, $"packs of {Number(p.Size)} that are cheapest")}*{Number(packs.Gives == "cost" ? p.Price : p.Size)}"
                            )
                    )
                    + ")",
            Plan plan => Marked(PlanValue(plan), $"plan of the crew: {plan.Gives}"),
            Share share => ShareOf(share),
            _ => throw new InvalidOperationException(expr.GetType().Name),
        };

    private static decimal PlanValue(Plan plan)
    {
        var (crew, day) = (((Leaf)plan.Crew).Value, ((Leaf)plan.HoursPerDay).Value);
        var (days, returns) = CrewPlan.Work(
            [
                .. plan.Steps.Select(s => new CrewPlan.Piece(
                    Core.Quantities.Rounding.Figure(((Ref)s.Hours).Figure.Value / (crew * s.Coats)),
                    s.Coats,
                    [.. s.Waits],
                    s.Drying
                )),
            ],
            day
        );
        return plan.Gives == "days" ? days : returns;
    }

    private string LongSum(IReadOnlyList<Expr> terms)
    {
        // The terms first: they may be long sums of their own.
        var formulas = terms.Select(Formula).ToList();
        var from = sums.Rows + 1;
        foreach (var formula in formulas)
            sums.Add((null, formula));
        return $"SUM(Sums!A{from}:A{sums.Rows})";
    }

    private string ShareOf(Share share)
    {
        if (!shareAt.TryGetValue(share.Set, out var from))
        {
            var (total, weights) = (Formula(share.Set.Total), share.Set.Weights.Select(Formula).ToList());
            from = shareAt[share.Set] = shares.Rows + 1;
            var to = from + weights.Count - 1;
            var units = share.Set.Places switch
            {
                0 => "1",
                2 => "100",
                _ => "1000",
            };
            for (var i = 0; i < weights.Count; i++)
            {
                var row = from + i;
                shares.Add(
                    (share.Set.Name, null),
                    (null, weights[i]),
                    (
                        null,
                        $"IF(SUM(B{from}:B{to})=0,ABS({total})/{weights.Count},ROUND(ABS({total})*B{row}/SUM(B{from}:B{to}),12))*{units}"
                    ),
                    (null, $"INT(ROUND(C{row},9))"),
                    (null, $"ROUND(C{row}-D{row},9)"),
                    (null, $"RANK(E{row},E{from}:E{to},0)" + (i == 0 ? "" : $"+COUNTIF(E{from}:E{row - 1},E{row})")),
                    (
                        null,
                        $"SIGN({total})*(D{row}+IF(F{row}<=ROUND(ABS({total})*{units}-SUM(D{from}:D{to}),0),1,0))/{units}"
                    )
                );
            }
        }
        return $"Shares!G{from + share.Index}";
    }
}
