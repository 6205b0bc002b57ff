using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using SkiaSharp;
using static Emendum.Documents.Typesetter;

namespace Emendum.Documents;

/// <summary>A job's cost sheet as a PDF, for the firm itself: how the price is built, what it rests on, and every line with its hours, cost and price.</summary>
public sealed class CostSheetPdf
{
    private const float Left = 44,
        Right = PageWidth - 44,
        Width = Right - Left,
        Size = 8.5f,
        Leading = 12.5f,
        Gap = 10;

    /// <summary>A column of a table: its head, its width in points, and whether it holds numbers.</summary>
    private readonly record struct Column(string Head, float Wide, bool IsNumber = false);

    private readonly Typesetter set = new(50, PageHeight - 62);
    private readonly CostSheet sheet;
    private readonly Estimate estimate;

    private CostSheetPdf(CostSheet sheet) => (this.sheet, estimate) = (sheet, sheet.Estimate);

    /// <summary>The PDF's bytes; the same job gives the same bytes.</summary>
    /// <param name="sheet">The cost sheet.</param>
    /// <param name="customer">Whom the job is for, or empty.</param>
    public static byte[] Write(CostSheet sheet, string customer)
    {
        var pdf = new CostSheetPdf(sheet);
        pdf.All(customer);
        var info = sheet.Estimate.Job.Info;
        return pdf.set.Write(
            $"Cost sheet {info.Number}: {info.Name}",
            info.Firm,
            info.Date,
            (canvas, page, of) => Furniture(canvas, info, page, of)
        );
    }

    private string Money(decimal amount) => Shown.Money(amount, estimate.MoneyPlaces);

    /// <summary>Money of a row that is often empty.</summary>
    private string Some(decimal amount) => decimal.Round(amount, estimate.MoneyPlaces) == 0 ? "" : Money(amount);

    private static string With(string number, string unit) => unit.Length == 0 ? number : $"{number} {unit}";

    private void All(string customer)
    {
        var info = estimate.Job.Info;
        set.Text("Cost sheet", Left, set.Y + 16, Face.SansBold, 18, Ink);
        set.Y += 24;
        set.Column([new(info.Name, Face.SansBold)], Left, Width, 11, 15, Ink);
        set.Column(
            [
                new(
                    string.Join(
                        " · ",
                        new[] { info.Number, customer, info.Date, $"amounts in {info.Currency}" }.Where(w =>
                            w.Length > 0
                        )
                    ),
                    Face.Sans
                ),
            ],
            Left,
            Width,
            Size,
            Leading,
            Quiet
        );
        BuildUp();
        Leaves();
        Labour();
        Goods();
        Others();
        Lines();
    }

    private void BuildUp()
    {
        var price = estimate.Price;
        Table(
            "How the price is built",
            [new("", 180), new("", Width - 180 - 90), new("", 90, true)],
            price
                .Steps.Where(s => s.Amount.V != 0 || s.Kind == StepKind.Sum)
                .Select(s => (s.Kind == StepKind.Sum, new[] { s.Label, s.Note, Money(s.Amount.V) }))
        );
        if (price.Draft.Shortfalls.Length > 0)
            Table(
                "Raised to a least charge",
                [
                    new("What", Width - 270),
                    new("came to", 90, true),
                    new("least", 90, true),
                    new("raised by", 90, true),
                ],
                price.Draft.Shortfalls.Select(s =>
                    (false, new[] { s.What, Money(s.Was.V), Money(s.Least.V), Money(s.By.V) })
                )
            );
    }

    private void Leaves()
    {
        var (terms, read) = (estimate.Job.Pricing, estimate.Price.Readouts);
        string Percent(decimal? value) => value is { } some ? Shown.Tenths(some) + " %" : "none";
        var rows = new List<(bool, string[])>
        {
            (false, ["Cost, with allowances and fees", "", Money(read.Cost.V)]),
            (
                false,
                [
                    "Gross profit",
                    $"margin {Percent(read.Margin?.V)}, markup {Percent(read.Markup?.V)}",
                    Money(read.GrossProfit.V),
                ]
            ),
            (false, ["Left after overhead and contingency", "", Money(read.AfterOverhead.V)]),
            (false, ["Price at the floor", $"margin of {Percent(terms.FloorMargin)}", Money(read.AtFloor.V)]),
            (false, ["Price at the target", $"margin of {Percent(terms.GoalMargin)}", Money(read.AtGoal.V)]),
        };
        if (read.PerHour is { } hour)
            rows.Add((false, ["Price for each labour hour", "before tax", Money(hour.V)]));
        if (
            read.Margin?.V < terms.FloorMargin
            && estimate.Job.SetAside.GetValueOrDefault(TypePrice.BelowFloor, "") is { Length: > 0 } reason
        )
            rows.Add((true, ["Below the floor", reason, ""]));
        Table("Where that leaves us", [new("", 180), new("", Width - 180 - 90), new("", 90, true)], rows);
    }

    private void Labour()
    {
        var costs = estimate.Reckoned.Costs;
        Table(
            "Labour",
            [new("Role", Width - 270), new("hours", 90, true), new("loaded, an hour", 90, true), new("cost", 90, true)],
            [
                .. costs.Roles.Select(r =>
                    (false, new[] { r.Role.Name, Shown.Tenths(r.Hours.V), Money(r.LoadedCost.V), Money(r.Cost.V) })
                ),
                (true, ["Together", Shown.Tenths(costs.Hours.V), "", Money(costs.Roles.Sum(r => r.Cost.V))]),
            ]
        );
    }

    private void Goods()
    {
        // What the customer supplies is on the list of goods, and nothing is bought of it.
        var buying = estimate.Reckoned.Costs.Buying.Where(b => b.Need.V != 0 || b.BoughtCost.V != 0).ToArray();
        if (buying.Length == 0)
            return;
        Table(
            $"Goods, {(estimate.Job.Pricing.MaterialCost == MaterialCost.Purchase ? "counted as bought" : "counted by need")}",
            [
                new("Material", 150),
                new("need", 74, true),
                new("packs", Width - 150 - 74 - 210),
                new("as bought", 70, true),
                new("by need", 70, true),
                new("delivery", 70, true),
            ],
            [
                .. buying.Select(b =>
                    (
                        false,
                        new[]
                        {
                            b.Colour.Length == 0 ? b.Material.Name : $"{b.Material.Name}, {b.Colour}",
                            With(Shown.Fine(b.Need.V), b.Need.Unit),
                            b.PacksInWords,
                            Money(b.BoughtCost.V),
                            Money(b.NeedCost.V),
                            Some(b.Delivery?.V ?? 0),
                        }
                    )
                ),
                (
                    true,
                    [
                        "Together",
                        "",
                        "",
                        Money(buying.Sum(b => b.BoughtCost.V)),
                        Money(buying.Sum(b => b.NeedCost.V)),
                        Some(buying.Sum(b => b.Delivery?.V ?? 0)),
                    ]
                ),
            ]
        );
    }

    private void Others()
    {
        var costs = estimate.Reckoned.Costs;
        (bool, string[])[] rows =
        [
            .. costs.Equipment.Select(e =>
                (false, new[] { e.Equipment.Name, With(Shown.Fine(e.Units.V), e.Units.Unit), Money(e.Cost.V) })
            ),
            .. costs.Subcontracts.Select(s =>
                (false, new[] { s.Subcontract.Name, With(Shown.Fine(s.Amount.V), s.Amount.Unit), Money(s.Cost.V) })
            ),
            .. costs.Quotes.Select(q =>
                (
                    false,
                    new[]
                    {
                        $"{q.Quote.From}, quote for {estimate.Job.Section(q.Quote.Section)?.Name}",
                        "",
                        Money(q.Cost.V),
                    }
                )
            ),
            .. costs.Charges.Select(c =>
                (
                    false,
                    new[]
                    {
                        c.Item is null ? c.Name : $"{c.Name}, {c.Item.Item.Name}",
                        With(Shown.Fine(c.Amount.V), c.Amount.Unit),
                        Money(c.Cost.V),
                    }
                )
            ),
            .. estimate.Priced.Select(p =>
                (
                    false,
                    new[]
                    {
                        p.Line is { } line
                            ? $"{p.Item.Item.Name}, {line.Measures.Place.Name}: allowance, at its price"
                            : $"{p.Item.Item.Name}: at its own price",
                        p.Sold is { } sold
                            ? With(Shown.Fine(p.Quantity.V), sold.Unit.Kind == Kind.Count ? "" : sold.Unit.Symbol)
                            : "",
                        Money(p.Price.V),
                    }
                )
            ),
        ];
        if (rows.Length > 0)
            Table(
                "Machines, subcontracts, charges, and what has a price of its own",
                [new("What", Width - 180), new("how much", 90, true), new("money", 90, true)],
                rows
            );
    }

    private void Lines()
    {
        var units = estimate.Job.Units;
        Column[] columns =
        [
            new("Work", 120),
            new("Place", Width - 120 - 56 - 32 - 5 * 46),
            new("quantity", 56, true),
            new("hours", 32, true),
            new("labour", 46, true),
            new("goods", 46, true),
            new("other", 46, true),
            new("cost", 46, true),
            new("price", 46, true),
        ];
        foreach (var section in sheet.Lines.GroupBy(l => l.Section))
        {
            var rows = section.Select(l =>
            {
                var (labour, material) = (l.Costs[CostClass.Labour].V, l.Costs[CostClass.Material].V);
                return (
                    false,
                    new[]
                    {
                        l.Line.OfItem.Item.Name + (l.Note.Length > 0 ? $" ({l.Note})" : ""),
                        l.Line.Measures.Place.Name,
                        With(
                            Shown.Amount(l.Line.Quantity.V, l.Line.OfItem.SymbolIn(units)),
                            l.Line.OfItem.SymbolIn(units)
                        ),
                        l.Hours.V == 0 ? "" : Shown.Tenths(l.Hours.V),
                        Some(labour),
                        Some(material),
                        Some(l.Cost.V - labour - material),
                        Some(l.Cost.V),
                        Some(l.Price.V),
                    }
                );
            });
            decimal Sum(Func<CostSheetLine, decimal> of) => section.Sum(of);
            var (cost, ofLabour, ofGoods) = (
                Sum(l => l.Cost.V),
                Sum(l => l.Costs[CostClass.Labour].V),
                Sum(l => l.Costs[CostClass.Material].V)
            );
            Table(
                section.Key.Length == 0 ? "Work without a section" : section.Key,
                columns,
                [
                    .. rows,
                    (
                        true,
                        [
                            "Together",
                            "",
                            "",
                            Shown.Tenths(Sum(l => l.Hours.V)),
                            Some(ofLabour),
                            Some(ofGoods),
                            Some(cost - ofLabour - ofGoods),
                            Some(cost),
                            Some(Sum(l => l.Price.V)),
                        ]
                    ),
                ]
            );
        }
        var rest = new List<(bool, string[])>();
        if (sheet.HasNoLine)
            rest.Add(
                (
                    false,
                    [
                        CostSheet.NoLine,
                        Shown.Tenths(sheet.HoursOfNoLine.V),
                        Some(sheet.CostOfNoLine.V),
                        Some(sheet.PriceOfNoLine.V),
                    ]
                )
            );
        if (sheet.Contingency.V != 0)
            rest.Add((false, [CostSheet.OfContingency, "", "", Money(sheet.Contingency.V)]));
        rest.Add(
            (
                true,
                [
                    "The whole job, before tax",
                    Shown.Tenths(estimate.Reckoned.Costs.Hours.V),
                    Money(estimate.Price.Direct.V),
                    Money(estimate.Price.BeforeTax.V),
                ]
            )
        );
        Table(
            "All lines",
            [new("", Width - 180), new("hours", 40, true), new("cost", 70, true), new("price", 70, true)],
            rest
        );
    }

    /// <summary>A table under its title; heads are said again on each page.</summary>
    private void Table(string title, Column[] columns, IEnumerable<(bool Strong, string[] Cells)> rows)
    {
        set.Need(60);
        set.Y += 14;
        set.Column([new(title, Face.SansBold)], Left, Width, 10, 14, Ink);
        Heads(columns);
        foreach (var (strong, cells) in rows)
            Row(columns, cells, strong);
    }

    /// <summary>Words that follow a number keep away from it.</summary>
    private static float Inset(Column[] columns, int at) => at > 0 && columns[at - 1].IsNumber ? Gap : 0;

    private void Heads(Column[] columns)
    {
        var said = columns.Any(c => c.Head.Length > 0);
        if (said)
        {
            var x = Left;
            for (var i = 0; i < columns.Length; x += columns[i++].Wide)
                if (columns[i].IsNumber)
                    set.Figures(columns[i].Head, x + columns[i].Wide, set.Y + 9, Face.Sans, 7.5f, Quiet);
                else
                    set.Text(columns[i].Head, x + Inset(columns, i), set.Y + 9, Face.Sans, 7.5f, Quiet);
            set.Y += 11;
        }
        set.Rule(Left, Right, set.Y + 2, 0.7f, Ink);
        set.Y += 2;
    }

    private void Row(Column[] columns, string[] cells, bool strong)
    {
        var face = strong ? Face.SansBold : Face.Sans;
        var texts = columns
            .Select(
                (c, i) =>
                    c.IsNumber || cells[i].Length == 0
                        ? []
                        : Wrap([new(cells[i], face)], c.Wide - Gap - Inset(columns, i), Size)
            )
            .ToArray();
        var tall = Math.Max(1, texts.Max(t => t.Count));
        if (set.Need(tall * Leading + 4))
            Heads(columns);
        var (x, top) = (Left, set.Y + 1.5f);
        for (var i = 0; i < columns.Length; x += columns[i++].Wide)
            if (columns[i].IsNumber)
                set.Figures(cells[i], x + columns[i].Wide, top + Leading * 0.75f, face, Size, Ink);
            else
                for (var line = 0; line < texts[i].Count; line++)
                    set.SetLine(
                        texts[i][line],
                        x + Inset(columns, i),
                        top + line * Leading + Leading * 0.75f,
                        Size,
                        i == 0 || strong ? Ink : Quiet
                    );
        set.Y = top + tall * Leading + 1.5f;
        set.Rule(Left, Right, set.Y, 0.4f, strong ? Ink : Hair);
    }

    private static void Furniture(SKCanvas canvas, JobInfo info, int page, int of)
    {
        using var tape = new SKPaint { Color = Tape };
        using var quiet = new SKPaint { Color = Quiet, IsAntialias = true };
        using var font = Font(Face.Sans, 8);
        canvas.DrawRect(Left, 34, Width, 3, tape);
        canvas.DrawText(
            $"{info.Firm} · Cost sheet {info.Number} · for the firm, not for the customer",
            Left,
            PageHeight - 36,
            SKTextAlign.Left,
            font,
            quiet
        );
        canvas.DrawText($"page {page} of {of}", Right, PageHeight - 36, SKTextAlign.Right, font, quiet);
    }
}
