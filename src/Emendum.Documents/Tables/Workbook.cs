using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Places;

namespace Emendum.Documents.Tables;

/// <summary>Tables as .xlsx workbooks (ISO/IEC 29500). Values only: formulas in what comes in are not run, and what goes out holds none.</summary>
public static partial class Workbook
{
    private const int MostShared = 500_000;
    private const long MostText = 40_000_000;

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

    /// <summary>Parts are read as a stream, cell by cell: a row or text that is larger than any of a table is refused before it is all there.</summary>
    private static XmlReader Open(OpenXmlPart part) =>
        XmlReader.Create(
            part.GetStream(FileMode.Open, FileAccess.Read),
            new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                MaxCharactersInDocument = 100_000_000,
                CloseInput = true,
            }
        );

    private static List<string> SharedTexts(WorkbookPart book)
    {
        var texts = new List<string>();
        if (book.SharedStringTablePart is not { } part)
            return texts;
        var all = 0L;
        using var reader = Open(part);
        while (reader.Read())
        {
            if (reader is not { NodeType: XmlNodeType.Element, LocalName: "si" })
                continue;
            if (texts.Count >= MostShared)
                throw TableFile.Wrong("This workbook holds too much text.");
            texts.Add(Unescaped(TextOf(reader)));
            if ((all += texts[^1].Length) > MostText)
                throw TableFile.Wrong("This workbook holds too much text.");
        }
        return texts;
    }

    /// <summary>Text within the element that the reader stands at, without reading aids (rPh); the reader is left at its end.</summary>
    private static string TextOf(XmlReader reader)
    {
        if (reader.IsEmptyElement)
            return "";
        var (end, aid) = (reader.Depth, 0);
        var text = new StringBuilder();
        while (reader.Read() && reader.Depth > end)
        {
            if (reader is { NodeType: XmlNodeType.Element, LocalName: "rPh" })
                aid = reader.IsEmptyElement ? 0 : reader.Depth;
            else if (reader.NodeType == XmlNodeType.EndElement && reader.Depth == aid)
                aid = 0;
            else if (aid == 0 && reader is { NodeType: XmlNodeType.Element, LocalName: "t" })
                Content(reader, text);
        }
        return text.ToString();
    }

    /// <summary>Adds the text directly within the element that the reader stands at, no more than a cell holds.</summary>
    private static void Content(XmlReader reader, StringBuilder text)
    {
        if (reader.IsEmptyElement)
            return;
        var (end, chunk) = (reader.Depth, new char[1024]);
        while (reader.Read() && reader.Depth > end)
        {
            if (
                reader.NodeType
                is not (
                    XmlNodeType.Text
                    or XmlNodeType.CDATA
                    or XmlNodeType.SignificantWhitespace
                    or XmlNodeType.Whitespace
                )
            )
                continue;
            for (int read; (read = reader.ReadValueChunk(chunk, 0, chunk.Length)) > 0; )
            {
                text.Append(chunk, 0, read);
                if (text.Length > Table.LongestCell)
                    throw TableFile.Wrong($"A cell is over {Table.LongestCell:N0} characters.");
            }
        }
    }

    private static IEnumerable<IReadOnlyList<string>> Rows(WorksheetPart part, List<string> shared)
    {
        using var reader = Open(part);
        var count = 0;
        while (reader.Read())
        {
            if (reader is not { NodeType: XmlNodeType.Element, LocalName: "row" })
                continue;
            if (++count > Table.MostRows + 1)
                throw TableFile.Wrong($"A table is at most {Table.MostRows:N0} rows.");
            yield return Row(reader, shared);
        }
    }

    private static List<string> Row(XmlReader reader, List<string> shared)
    {
        var cells = new List<string>();
        if (reader.IsEmptyElement)
            return cells;
        var (end, all) = (reader.Depth, 0);
        while (reader.Read() && reader.Depth > end)
        {
            if (reader is not { NodeType: XmlNodeType.Element, LocalName: "c" })
                continue;
            var column = reader.GetAttribute("r") is { } reference ? ColumnOf(reference) : cells.Count;
            if (column is < 0 or >= Table.MostColumns || ++all > Table.MostColumns)
                throw TableFile.Wrong($"A table has at most {Table.MostColumns} columns.");
            while (cells.Count <= column)
                cells.Add("");
            cells[column] = PlainText.Clean(Cell(reader, shared));
        }
        return cells;
    }

    private static string Cell(XmlReader reader, List<string> shared)
    {
        var type = reader.GetAttribute("t");
        if (reader.IsEmptyElement)
            return "";
        var (end, value, inline) = (reader.Depth, new StringBuilder(), "");
        while (reader.Read() && reader.Depth > end)
        {
            if (reader.NodeType != XmlNodeType.Element)
                continue;
            if (reader.LocalName == "v")
                Content(reader, value);
            else if (reader.LocalName == "is")
                inline = TextOf(reader);
        }
        var text = value.ToString();
        return type switch
        {
            "inlineStr" => Unescaped(inline),
            "s" => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var index)
            && index < shared.Count
                ? shared[index]
                : "",
            "e" => "",
            // A number is kept as binary floating point: 14.1 may stand there as 14.100000000000001.
            null or "n" => Number(text),
            _ => Unescaped(text),
        };
    }

    /// <summary>Text as a workbook keeps it: <c>_x0041_</c> in it would be read as the character of that code (ISO/IEC 29500-1 §22.9.2.19).</summary>
    internal static string Escaped(string text) => Opening().Replace(PlainText.Clean(text), "_x005F_");

    private static string Unescaped(string text) =>
        Coded().Replace(text, m => ((char)Convert.ToInt32(m.Value[2..6], 16)).ToString());

    [GeneratedRegex("_(?=x[0-9A-Fa-f]{4}_)")]
    private static partial Regex Opening();

    [GeneratedRegex("_x[0-9A-Fa-f]{4}_")]
    private static partial Regex Coded();

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
                Row(writer, 1, [.. columns.Select(PlaceTable.Cell.Of)]);
                for (var i = 0; i < rows.Count; i++)
                    Row(writer, i + 2, rows[i]);
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

    private static void Row(OpenXmlWriter writer, int number, IReadOnlyList<PlaceTable.Cell> cells)
    {
        writer.WriteStartElement(new Row { RowIndex = (uint)number });
        for (var column = 0; column < cells.Count; column++)
        {
            var cell = new Cell { CellReference = $"{LettersOf(column)}{number}" };
            if (cells[column].IsNumber)
                (cell.DataType, cell.CellValue) = (CellValues.Number, new(cells[column].Text));
            else
            {
                var text = new Text(Escaped(cells[column].Text)) { Space = SpaceProcessingModeValues.Preserve };
                (cell.DataType, cell.InlineString) = (CellValues.InlineString, new(text));
            }
            writer.WriteElement(cell);
        }
        writer.WriteEndElement();
    }

    private static string LettersOf(int column) =>
        column < 26 ? $"{(char)('A' + column)}" : LettersOf(column / 26 - 1) + (char)('A' + column % 26);
}
