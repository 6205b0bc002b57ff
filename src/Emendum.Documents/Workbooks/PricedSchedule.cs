using Emendum.Core.Jobs;
using Emendum.Core.Proposals;

namespace Emendum.Documents.Workbooks;

/// <summary>The customer's schedule of quantities with its numbers, priced: an .xlsx workbook in which each amount is the quantity times the unit price, and the price before tax their sum. The same
/// proposal gives the same bytes.</summary>
public static class PricedSchedule
{
    /// <summary>The price by the rows of a schedule that a document shows; null where it shows none.</summary>
    public static PriceTable? In(Document document) =>
        document
            .Blocks.Where(b => b.IsRead && b.Kind == BlockKind.Price)
            .SelectMany(b => b.Made)
            .OfType<PriceTable>()
            .FirstOrDefault(t => t.Rows.Any(r => r.Of is not null));

    /// <summary>Writes it.</summary>
    /// <param name="head">Who writes to whom, about what.</param>
    /// <param name="table">The price by the rows of the schedule.</param>
    /// <param name="places">Places of its money.</param>
    public static byte[] Write(Letterhead head, PriceTable table, int places)
    {
        var sheet = new Sheet("Schedule", [12, 60, 14, 10, 14, 16], fixedRows: HeadRows);
        sheet.Add(new SheetCell(head.Title, Look: CellLook.Title));
        sheet.Add(Quiet(head.Reference));
        sheet.Add(Quiet($"From {head.Firm}" + (head.Customer.Length > 0 ? $" for {head.Customer}" : "")));
        sheet.Add(Quiet($"{head.Validity}. Amounts in {table.Currency}."));
        sheet.Add(
            [
                .. Formulas.Heads("Number", "Wording"),
                new("Quantity", Look: CellLook.NumberHead),
                .. Formulas.Heads("Unit"),
                new("Unit price", Look: CellLook.NumberHead),
                new("Amount", Look: CellLook.NumberHead),
            ]
        );
        var (first, sum) = (sheet.Rows + 1, 0);
        foreach (var row in table.Rows)
        {
            var at = sheet.Rows + 1;
            sheet.Add(
                new(row.Number.Length > 0 ? row.Number : null),
                new(
                    row.Detail.Length > 0 ? $"{row.Label} ({row.Detail})" : row.Label,
                    Look: row.Kind is RowKind.Group or RowKind.Subtotal or RowKind.Total
                        ? CellLook.Head
                        : CellLook.Plain
                ),
                row.Of is { } of ? new(of.Quantity, Look: CellLook.Quantity) : default,
                row.Of is { Unit: var unit } ? new(unit) : default,
                row.Of is { UnitPrice: { } each } ? new(each, Look: CellLook.Money) : default,
                row.Amount is not { } amount ? default
                    : row is { Of: not null, Figure: null } ? new(row.Shown, Look: CellLook.Quiet)
                    : row.Kind switch
                    {
                        RowKind.Subtotal => new(amount, $"SUM(F{first}:F{at - 1})", CellLook.Sum),
                        // What comes after the price before tax is added to it.
                        RowKind.Total => new(amount, $"SUM(F{(sum > 0 ? sum : first)}:F{at - 1})", CellLook.Sum),
                        _ when row.Of is { UnitPrice: not null } => new(
                            amount,
                            $"ROUND(C{at}*E{at},{places})",
                            CellLook.Money
                        ),
                        _ => new(amount, Look: CellLook.Money),
                    }
            );
            if (row.Kind == RowKind.Subtotal)
                sum = at;
        }
        return Sheet.Write([sheet], places);
    }

    private const int HeadRows = 5;

    private static SheetCell Quiet(string words) => new(words, Look: CellLook.Quiet);
}
