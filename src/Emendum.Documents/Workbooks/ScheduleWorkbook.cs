namespace Emendum.Documents.Workbooks;

/// <summary>A task as a row of the schedule.</summary>
/// <param name="Where">Building, floor or phase, or place; empty for the whole job.</param>
/// <param name="Name">What is done.</param>
/// <param name="Crew">Who does it.</param>
/// <param name="Hours">Labour hours.</param>
/// <param name="Start">When it begins, local time.</param>
/// <param name="End">When it ends, local time.</param>
/// <param name="WaitsFor">What it waits for, in words.</param>
/// <param name="Done">How much of it is done, percent.</param>
/// <param name="Says">What else is to be known: pinned, a pin missed.</param>
public sealed record TaskRow(
    string Where,
    string Name,
    string Crew,
    decimal Hours,
    DateTime Start,
    DateTime End,
    string WaitsFor,
    decimal Done,
    string Says
);

/// <summary>The schedule of a job as an .xlsx workbook.</summary>
public static class ScheduleWorkbook
{
    private const string Form = "yyyy-MM-dd HH:mm";

    /// <summary>Writes it.</summary>
    /// <param name="title">What the job is called.</param>
    /// <param name="rows">Its tasks.</param>
    public static byte[] Write(string title, IEnumerable<TaskRow> rows)
    {
        var sheet = new Sheet("Schedule", [26, 30, 24, 10, 18, 18, 50, 9, 30], fixedRows: 2);
        sheet.Add(new SheetCell(title, Look: CellLook.Title));
        sheet.Add(Formulas.Heads("Where", "What", "Crew", "Hours", "Begins", "Ends", "Waits for", "% done", "Note"));
        foreach (var row in rows)
            sheet.Add(
                new(row.Where),
                new(row.Name),
                new(row.Crew),
                new(row.Hours, Look: CellLook.Quantity),
                new(row.Start.ToString(Form, System.Globalization.CultureInfo.InvariantCulture)),
                new(row.End.ToString(Form, System.Globalization.CultureInfo.InvariantCulture)),
                new(row.WaitsFor),
                new(row.Done, Look: CellLook.Quantity),
                new(row.Says, Look: CellLook.Quiet)
            );
        return Sheet.Write([sheet], places: 2);
    }
}
