using System.Globalization;
using System.Xml;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using Emendum.Core;
using Emendum.Core.Places;

namespace Emendum.Documents.Tables;

/// <summary>Tables as .xlsx workbooks (ISO/IEC 29500). Values only: formulas in what comes in are not run, and what goes out holds none.</summary>
public static class Workbook
{
    private const int MostShared = 500_000;

    /// <summary>Reads a sheet. Reads part by part and stops at the limits.</summary>
    public static Table Read(byte[] content, int sheet)
    {
        try
        {
            using var document = SpreadsheetDocument.Open(
                new MemoryStream(content, writable: false),
                false,
                new OpenSettings { MaxCharactersInPart = 100_000_000 }
            );
            var book = document.WorkbookPart ?? throw TableFile.Wrong("This workbook has no sheets.");
            var sheets = book.Workbook?.Sheets?.Elements<Sheet>().ToList() ?? [];
            if (sheets.Count == 0)
                throw TableFile.Wrong("This workbook has no sheets.");
            if (sheet < 0 || sheet >= sheets.Count)
                throw RefusedException.Of("sheet", "That sheet is not in this workbook.");
            if (sheets[sheet].Id?.Value is not { } id || book.GetPartById(id) is not WorksheetPart part)
                throw TableFile.Wrong("That sheet holds no table.");
            return Table.From([.. sheets.Select(s => s.Name?.Value ?? "")], sheet, Rows(part, SharedTexts(book)));
        }
        catch (Exception wrong)
            when (wrong
                    is OpenXmlPackageException
                        or XmlException
                        or FileFormatException
                        or InvalidDataException
                        or FormatException
                        or ArgumentException
                        or InvalidOperationException
            )
        {
            throw TableFile.Wrong("This workbook is damaged or not of a kind that is read here.");
        }
    }

    private static List<string> SharedTexts(WorkbookPart book)
    {
        var texts = new List<string>();
        if (book.SharedStringTablePart is not { } part)
            return texts;
        using var reader = OpenXmlReader.Create(part);
        while (reader.Read())
        {
            if (reader.ElementType != typeof(SharedStringItem) || !reader.IsStartElement)
                continue;
            if (texts.Count >= MostShared)
                throw TableFile.Wrong("This workbook holds too much text.");
            texts.Add(Cut(reader.LoadCurrentElement() is SharedStringItem item ? TextOf(item) : ""));
        }
        return texts;
    }

    /// <summary>Text of an item without its reading aids.</summary>
    private static string TextOf(OpenXmlElement item) =>
        string.Concat(item.Descendants<Text>().Where(t => t.Parent is not PhoneticRun).Select(t => t.Text));

    private static IEnumerable<IReadOnlyList<string>> Rows(WorksheetPart part, List<string> shared)
    {
        using var reader = OpenXmlReader.Create(part);
        var count = 0;
        while (reader.Read())
        {
            if (reader.ElementType != typeof(Row) || !reader.IsStartElement)
                continue;
            if (++count > Table.MostRows + 1)
                throw TableFile.Wrong($"A table is at most {Table.MostRows:N0} rows.");
            if (reader.LoadCurrentElement() is not Row row)
                continue;
            var cells = new List<string>();
            foreach (var cell in row.Elements<Cell>())
            {
                var column = cell.CellReference?.Value is { } reference ? ColumnOf(reference) : cells.Count;
                if (column >= Table.MostColumns)
                    throw TableFile.Wrong($"A table has at most {Table.MostColumns} columns.");
                while (cells.Count <= column)
                    cells.Add("");
                cells[column] = Cut(ValueOf(cell, shared));
            }
            yield return cells;
        }
    }

    private static string ValueOf(Cell cell, List<string> shared)
    {
        var type = cell.DataType?.Value;
        if (type == CellValues.InlineString)
            return cell.InlineString is { } inline ? TextOf(inline) : "";
        var text = cell.CellValue?.Text ?? "";
        if (type == CellValues.SharedString)
            return
                int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var index)
                && index < shared.Count
                ? shared[index]
                : "";
        if (type == CellValues.Error)
            return "";
        // A number is kept as binary floating point: 14.1 may stand there as 14.100000000000001.
        return type is null || type == CellValues.Number ? Number(text) : text;
    }

    private static string Number(string text) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
        && Math.Abs(number) < 1e15
            ? Core.Quantities.Rounding.Text((decimal)number)
            : text;

    private static int ColumnOf(string reference)
    {
        var column = 0;
        foreach (var letter in reference)
        {
            if (!char.IsAsciiLetter(letter))
                break;
            column = column * 26 + (char.ToUpperInvariant(letter) - 'A' + 1);
            if (column > 20_000)
                break;
        }
        return column - 1;
    }

    private static string Cut(string text) =>
        text.Length <= Table.LongestCell
            ? text
            : throw TableFile.Wrong($"A cell is over {Table.LongestCell:N0} characters.");

    /// <summary>Writes one sheet with a heading row; text as text, numbers as numbers.</summary>
    public static byte[] Write(
        string sheet,
        IReadOnlyList<string> columns,
        IReadOnlyList<IReadOnlyList<PlaceTable.Cell>> rows
    )
    {
        using var memory = new MemoryStream();
        using (var document = SpreadsheetDocument.Create(memory, SpreadsheetDocumentType.Workbook))
        {
            var book = document.AddWorkbookPart();
            book.Workbook = new();
            var part = book.AddNewPart<WorksheetPart>();
            using (var writer = OpenXmlWriter.Create(part))
            {
                writer.WriteStartElement(new Worksheet());
                writer.WriteStartElement(new SheetData());
                Row(writer, [.. columns.Select(PlaceTable.Cell.Of)]);
                foreach (var row in rows)
                    Row(writer, row);
                writer.WriteEndElement();
                writer.WriteEndElement();
            }
            book.Workbook.AppendChild(
                new Sheets(
                    new Sheet
                    {
                        Id = book.GetIdOfPart(part),
                        SheetId = 1,
                        Name = sheet,
                    }
                )
            );
        }
        return memory.ToArray();
    }

    private static void Row(OpenXmlWriter writer, IReadOnlyList<PlaceTable.Cell> cells)
    {
        writer.WriteStartElement(new Row());
        foreach (var cell in cells)
            writer.WriteElement(
                cell.IsNumber
                    ? new Cell { DataType = CellValues.Number, CellValue = new(cell.Text) }
                    : new Cell
                    {
                        DataType = CellValues.InlineString,
                        InlineString = new(new Text(cell.Text) { Space = SpaceProcessingModeValues.Preserve }),
                    }
            );
        writer.WriteEndElement();
    }
}
