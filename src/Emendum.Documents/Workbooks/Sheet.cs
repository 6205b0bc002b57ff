using System.Globalization;
using System.IO.Compression;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;

namespace Emendum.Documents.Workbooks;

/// <summary>How a cell looks; in the order of the formats that <see cref="Look"/> writes.</summary>
internal enum CellLook
{
    /// <summary>As it comes.</summary>
    Plain,

    /// <summary>The name of a document.</summary>
    Title,

    /// <summary>The head of a column.</summary>
    Head,

    /// <summary>The head of a column of numbers.</summary>
    NumberHead,

    /// <summary>What is said about something else.</summary>
    Quiet,

    /// <summary>Money.</summary>
    Money,

    /// <summary>A sum of money.</summary>
    Sum,

    /// <summary>A quantity.</summary>
    Quantity,

    /// <summary>A number that is meant to be changed.</summary>
    Input,

    /// <summary>A number that was found by the program and stands still.</summary>
    Found,
}

/// <summary>One cell: what stands in it, or a formula with what that came to.</summary>
internal readonly record struct SheetCell(object? Value, string? Formula = null, CellLook Look = CellLook.Plain);

/// <summary>One sheet of a workbook while it is made.</summary>
/// <param name="name">Its name.</param>
/// <param name="widths">Widths of its columns in characters; the last holds for those that follow.</param>
/// <param name="fixedRows">Rows that stay when it is scrolled.</param>
internal sealed class Sheet(string name, double[] widths, int fixedRows = 0)
{
    private const int MostColumns = 26;

    // Characters above which a sheet is printed across.
    private const double WideAs = 130;

    /// <summary>Its name.</summary>
    public string Name => name;

    /// <summary>Rows so far.</summary>
    public int Rows { get; private set; }

    private readonly SheetData data = new();

    /// <summary>Adds a row; gives its number, from 1.</summary>
    public int Add(params SheetCell[] cells)
    {
        var row = new Row { RowIndex = (uint)++Rows };
        if (cells is [{ Look: CellLook.Title }, ..])
            (row.Height, row.CustomHeight) = (24, true);
        for (var c = 0; c < cells.Length; c++)
            if (cells[c] is { Value: not null } or { Formula: not null })
                row.Append(Written(cells[c], $"{(char)('A' + c)}{Rows}"));
        data.Append(row);
        return Rows;
    }

    private static Cell Written(SheetCell cell, string at)
    {
        var written = new Cell { CellReference = at, StyleIndex = (uint)cell.Look };
        if (cell.Formula is not null)
            written.CellFormula = new CellFormula(cell.Formula);
        switch (cell.Value)
        {
            case decimal number:
                written.CellValue = new CellValue(number.ToString(CultureInfo.InvariantCulture));
                break;
            case string text when cell.Formula is not null:
                written.DataType = CellValues.String;
                written.CellValue = new CellValue(Tables.Workbook.Escaped(text));
                break;
            case string text:
                written.DataType = CellValues.InlineString;
                written.InlineString = new InlineString(
                    new Text(Tables.Workbook.Escaped(text)) { Space = SpaceProcessingModeValues.Preserve }
                );
                break;
        }
        return written;
    }

    /// <summary>The sheet as a part of a workbook.</summary>
    public Worksheet Worksheet()
    {
        var columns = new Columns();
        for (var c = 0; c < widths.Length; c++)
            columns.Append(
                new Column
                {
                    Min = (uint)c + 1,
                    Max = c < widths.Length - 1 ? (uint)c + 1 : MostColumns,
                    Width = widths[c],
                    CustomWidth = true,
                }
            );
        // On paper it is as wide as a page.
        var sheet = new Worksheet(new SheetProperties(new PageSetupProperties { FitToPage = true }));
        if (fixedRows > 0)
            sheet.Append(
                new SheetViews(
                    new SheetView(
                        new Pane
                        {
                            VerticalSplit = fixedRows,
                            TopLeftCell = $"A{fixedRows + 1}",
                            ActivePane = PaneValues.BottomLeft,
                            State = PaneStateValues.Frozen,
                        }
                    )
                    {
                        WorkbookViewId = 0,
                    }
                )
            );
        sheet.Append(
            columns,
            data,
            new PageSetup
            {
                Orientation = widths.Sum() > WideAs ? OrientationValues.Landscape : OrientationValues.Portrait,
                FitToWidth = 1,
                FitToHeight = 0,
            }
        );
        return sheet;
    }

    /// <summary>Writes sheets as a workbook whose formulas are reckoned anew when it is opened. The same sheets give the same bytes.</summary>
    /// <param name="sheets">In their order.</param>
    /// <param name="places">Places of its money.</param>
    public static byte[] Write(IEnumerable<Sheet> sheets, int places)
    {
        using var stream = new MemoryStream();
        using (var document = SpreadsheetDocument.Create(stream, SpreadsheetDocumentType.Workbook))
        {
            var part = document.AddWorkbookPart();
            // Ids would be made by chance.
            document.ChangeIdOfPart(part, "workbook");
            part.AddNewPart<WorkbookStylesPart>("styles").Stylesheet = Look.Of(places);
            var list = new Sheets();
            part.Workbook = new Workbook(
                new BookViews(new WorkbookView()),
                list,
                new CalculationProperties { FullCalculationOnLoad = true }
            );
            foreach (var sheet in sheets)
            {
                var worksheet = part.AddNewPart<WorksheetPart>($"sheet{list.ChildElements.Count + 1}");
                worksheet.Worksheet = sheet.Worksheet();
                list.Append(
                    new DocumentFormat.OpenXml.Spreadsheet.Sheet
                    {
                        Id = part.GetIdOfPart(worksheet),
                        SheetId = (uint)list.ChildElements.Count + 1,
                        Name = sheet.Name,
                    }
                );
            }
        }
        return Undated(stream);
    }

    /// <summary>The same archive without the moment at which it was made.</summary>
    private static byte[] Undated(MemoryStream made)
    {
        using var stream = new MemoryStream();
        using (var from = new ZipArchive(made, ZipArchiveMode.Read))
        using (var to = new ZipArchive(stream, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var entry in from.Entries)
            {
                var written = to.CreateEntry(entry.FullName);
                written.LastWriteTime = new(1980, 1, 1, 0, 0, 0, TimeSpan.Zero);
                using var read = entry.Open();
                using var write = written.Open();
                read.CopyTo(write);
            }
        return stream.ToArray();
    }
}
