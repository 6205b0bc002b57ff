using System.Globalization;
using Emendum.Core.Figures;
using Emendum.Core.Reckoning;

namespace Emendum.Documents.Workbooks;

/// <summary>Writes how figures came about as live formulas: every figure is a row that points at the figures and inputs it came from. What a spreadsheet cannot find for itself (how many packs
/// are cheapest, the plan of the crew) stands as a value and is marked.</summary>
internal sealed class Formulas
{
    /// <summary>Terms of one formula; longer sums go through a column of their own.</summary>
    private const int MostTerms = 100;

    private readonly Sheet figures = new("Figures", [46, 16], fixedRows: 1),
        inputs = new("Inputs", [46, 16], fixedRows: 1),
        sums = new("Sums", [16]),
        shares = new("Shares", [46, 16], fixedRows: 1);
    private readonly Dictionary<string, string> cellOf = new(StringComparer.Ordinal);
    private readonly Dictionary<(string, decimal, string, string, string?), string> inputAt = [];
    private readonly Dictionary<ShareSet, int> shareAt = new(ReferenceEqualityComparer.Instance);

    public Formulas()
    {
        figures.Add(Heads("Figure", "Value", "Unit", "Path", "Sentence"));
        inputs.Add(Heads("Input", "Value", "Unit", "From", "Where"));
        sums.Add(Heads("Term"));
        shares.Add(
            Heads(
                "Split by largest remainder",
                "Weight",
                "Exact, in the smallest unit",
                "Whole",
                "Rest",
                "Rank of the rest",
                "Share"
            )
        );
    }

    /// <summary>The sheets that hold the formulas.</summary>
    public IEnumerable<Sheet> Sheets => [figures, inputs, sums, shares];

    /// <summary>Where a number of a rule stands, when it stands on a sheet of its own; null for the common one.</summary>
    public Func<Leaf, string?> Stands { get; init; } = _ => null;

    /// <summary>Told of each plan of the crew that a formula rests on: its hours are taken as they are.</summary>
    public Action<Plan> Planned { get; init; } = _ => { };

    /// <summary>Whether a figure is taken as it is, however it came about.</summary>
    public Func<Figure, bool> IsGiven { get; init; } = _ => false;

    /// <summary>A row of heads.</summary>
    public static SheetCell[] Heads(params string[] words) =>
        Array.ConvertAll(words, w => new SheetCell(w, Look: CellLook.Head));

    /// <summary>A figure stands in a cell of another sheet, and is not reckoned here.</summary>
    public void Place(string path, string cell) => cellOf[path] = cell;

    /// <summary>The cell of a figure; it stands below what it came from.</summary>
    public string Cell(Figure figure)
    {
        if (cellOf.TryGetValue(figure.Path, out var cell))
            return cell;
        if (IsGiven(figure))
            return cellOf[figure.Path] = Input(
                new("measured", figure.Value, figure.Unit, figure.Label, null, figure.Path)
            );
        var formula = Of(figure.How);
        var row = figures.Add(
            new(figure.Label),
            new(figure.Value, formula),
            new(figure.Unit),
            new(figure.Path),
            new(Explanation.Sentence(figure))
        );
        return cellOf[figure.Path] = $"Figures!B{row}";
    }

    /// <summary>A number as a formula has it.</summary>
    public static string Number(decimal value) =>
        value < 0 ? $"({value.ToString(CultureInfo.InvariantCulture)})" : value.ToString(CultureInfo.InvariantCulture);

    private string Input(Leaf leaf)
    {
        var key = (leaf.Source, leaf.Value, leaf.Unit, leaf.Label, leaf.Link);
        if (!inputAt.TryGetValue(key, out var cell))
            cell = inputAt[key] =
                Stands(leaf)
                ?? $"Inputs!B{inputs.Add(new(leaf.Label), new(leaf.Value), new(leaf.Unit), new(leaf.Source), new(leaf.Link))}";
        return cell;
    }

    private string Marked(decimal value, string label) =>
        Input(new("value, found by the program", value, "", label, null, null));

    /// <summary>How a number came about, as a formula.</summary>
    public string Of(Expr expr) =>
        expr switch
        {
            Leaf { Source: "constant" } leaf => Number(leaf.Value),
            Leaf leaf => Input(leaf),
            Ref reference => Cell(reference.Figure),
            Op { Name: "add", Of.Count: 0 } => "0",
            Op { Name: "add", Of.Count: > MostTerms } op => LongSum(op.Of),
            Op { Name: "add" } op => $"({string.Join("+", op.Of.Select(Of))})",
            Op { Name: "subtract" } op => $"({Of(op.Of[0])}-{Of(op.Of[1])})",
            Op { Name: "multiply" } op => $"({Of(op.Of[0])}*{Of(op.Of[1])})",
            Op { Name: "divide" } op => $"({Of(op.Of[0])}/{Of(op.Of[1])})",
            Op { Name: "ceil" } op => $"ROUNDUP(ROUND({Of(op.Of[0])},9),0)",
            Op { Name: "floor" } op => $"INT(ROUND({Of(op.Of[0])},9))",
            Op { Name: "sqrt" } op => $"SQRT({Of(op.Of[0])})",
            Cents cents => $"ROUND(ROUND({Of(cents.Of)},9),{cents.Places})",
            Op { Name: "min" } op => $"MIN({Of(op.Of[0])},{Of(op.Of[1])})",
            Op { Name: "max" } op => $"MAX({Of(op.Of[0])},{Of(op.Of[1])})",
            Apply apply => $"({Of(apply.Of)}*{Of(apply.Times)}/{Of(apply.Over)})",
            Table table => table
                .Rows.Skip(1)
                .Aggregate(
                    Number(table.Rows[0].Gives),
                    (below, row) => $"IF(ROUND({Of(table.Of)},9)>={Number(row.From)},{Number(row.Gives)},{below})"
                ),
            Packs packs => PacksOf(packs),
            Plan plan => PlanOf(plan),
            Share share => ShareOf(share),
            _ => throw new InvalidOperationException(expr.GetType().Name),
        };

    private string PacksOf(Packs packs)
    {
        var some = packs.Counts.Where(p => p.Count != 0).ToArray();
        return some.Length == 0
            ? "0"
            : $"({string.Join("+", some.Select(p => $"{Marked(p.Count, $"packs of {Number(p.Size)} that are cheapest")}*{Number(packs.Gives == "cost" ? p.Price : p.Size)}"))})";
    }

    private string PlanOf(Plan plan)
    {
        Planned(plan);
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
        return Marked(plan.Gives == "days" ? days : returns, $"plan of the crew: {plan.Gives}");
    }

    private string LongSum(IReadOnlyList<Expr> terms)
    {
        // The terms first: they may be long sums of their own.
        var formulas = terms.Select(Of).ToList();
        var from = sums.Rows + 1;
        foreach (var formula in formulas)
            sums.Add(new SheetCell(null, formula));
        return $"SUM(Sums!A{from}:A{sums.Rows})";
    }

    private string ShareOf(Share share)
    {
        if (!shareAt.TryGetValue(share.Set, out var from))
        {
            var (total, weights) = (Of(share.Set.Total), share.Set.Weights.Select(Of).ToList());
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
                    new(share.Set.Name),
                    new(null, weights[i]),
                    new(
                        null,
                        $"IF(SUM(B{from}:B{to})=0,ABS({total})/{weights.Count},ROUND(ABS({total})*B{row}/SUM(B{from}:B{to}),12))*{units}"
                    ),
                    new(null, $"INT(ROUND(C{row},9))"),
                    new(null, $"ROUND(C{row}-D{row},9)"),
                    new(null, $"RANK(E{row},E{from}:E{to},0)" + (i == 0 ? "" : $"+COUNTIF(E{from}:E{row - 1},E{row})")),
                    new(
                        null,
                        $"SIGN({total})*(D{row}+IF(F{row}<=ROUND(ABS({total})*{units}-SUM(D{from}:D{to}),0),1,0))/{units}"
                    )
                );
            }
        }
        return $"Shares!G{from + share.Index}";
    }
}
