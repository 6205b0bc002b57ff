using System.Text;
using Emendum.Core;
using Emendum.Core.Places;
using Emendum.Core.Work;
using Emendum.Documents.Tables;
using Microsoft.VisualBasic.FileIO;
using NPOI.XSSF.UserModel;
using Xunit;

namespace Emendum.SecondOpinion.Tests;

/// <summary>Tables that go out, read back by libraries that did not write them (the text parser of Microsoft.VisualBasic, NPOI), with texts that are made to break them.</summary>
public class ExportTests
{
    private static readonly string[] Hostile =
    [
        "plain",
        "",
        "two\nlines",
        "two\r\nlines",
        "feed\n=1+1",
        "carriage\r=1+1",
        "=1+1",
        "+1",
        "-1",
        "@SUM(A1)",
        "\t=1+1",
        "'=1+1",
        "''",
        "say \"so\"",
        "\"",
        "a,b;c\td|e",
        " spaces ",
        "12'6\"",
        "été — 5 m² 😀",
        "vertical\vtab",
        "nul\0here",
        "escape\u001b[31m",
        "not a character \uFFFF",
        "half \uD800 a character",
        "<t>&amp;</t>",
        "_x0000_",
        "_x0041_x0042_",
        new string('x', 32_000),
    ];

    /// <summary>What is to be read: without what no document can hold.</summary>
    private static string Kept(string text) => PlainText.Clean(text);

    private static readonly string[] Columns = ["Name", "=Second", "Third\nline"];

    private static IReadOnlyList<IReadOnlyList<PlaceTable.Cell>> Rows =>
        [
            .. Hostile.Select(
                (text, i) =>
                    (IReadOnlyList<PlaceTable.Cell>)
                        [PlaceTable.Cell.Of(text), PlaceTable.Cell.Of(Hostile[^(i + 1)]), PlaceTable.Cell.Of(i)]
            ),
        ];

    [Fact]
    public void Csv_is_read_by_another_parser_as_it_was_and_no_cell_begins_a_formula()
    {
        var bytes = CsvText.Write(Columns, Rows);
        using var parser = new TextFieldParser(new MemoryStream(bytes), Encoding.UTF8) { TrimWhiteSpace = false };
        parser.SetDelimiters(",");
        var read = new List<string[]>();
        while (parser.ReadFields() is { } fields)
            read.Add(fields);
        Assert.Equal(Hostile.Length + 1, read.Count);
        Assert.All(read.SelectMany(r => r), cell => Assert.False(cell.Length > 0 && "=+-@\t\r".Contains(cell[0])));
        for (var i = 0; i < Hostile.Length; i++)
        {
            // The other parser reads every line end within a cell as its own; the mark before a formula is ours.
            Assert.Equal(Lines(Kept(Hostile[i])), Lines(Unmarked(read[i + 1][0])));
            Assert.Equal(Lines(Kept(Hostile[^(i + 1)])), Lines(Unmarked(read[i + 1][1])));
            Assert.Equal(i.ToString(System.Globalization.CultureInfo.InvariantCulture), read[i + 1][2]);
        }
    }

    [Fact]
    public void Csv_rows_stay_rows_for_a_reader_that_knows_no_quotation_marks_but_at_a_rows_start()
    {
        // A row's first cell that has a line end in it stands in quotation marks: what follows the line end is never a row of its own.
        var text = Encoding.UTF8.GetString(
            CsvText.Write(["a"], [.. Hostile.Select(h => new[] { PlaceTable.Cell.Of(h) })])
        );
        var quoted = false;
        var start = true;
        foreach (var c in text.TrimStart('\uFEFF'))
        {
            if (start && !quoted)
                Assert.DoesNotContain(c, "=+-@\t");
            if (c == '"')
                quoted = !quoted;
            start = c == '\n';
        }
        Assert.False(quoted);
    }

    [Fact]
    public void Our_own_import_reads_both_back_as_they_were()
    {
        foreach (var bytes in new[] { CsvText.Write(Columns, Rows), Workbook.Write("Sheet", Columns, Rows) })
        {
            var table = TableFile.Read(bytes, 0);
            Assert.Equal(Columns, table.Columns);
            Assert.Equal(Hostile.Select(Kept).Select(Lines), table.Rows.Select(r => Lines(r[0])));
            Assert.Equal(Hostile.Reverse().Select(Kept).Select(Lines), table.Rows.Select(r => Lines(r[1])));
        }
    }

    [Fact]
    public void Workbooks_are_read_by_another_library_as_they_were()
    {
        var book = new XSSFWorkbook(new MemoryStream(Workbook.Write("Sheet", Columns, Rows)));
        var sheet = book.GetSheetAt(0);
        for (var i = 0; i < Hostile.Length; i++)
        {
            Assert.Equal(Lines(Kept(Hostile[i])), Lines(sheet.GetRow(i + 1).GetCell(0).StringCellValue));
            Assert.Equal(i, sheet.GetRow(i + 1).GetCell(2).NumericCellValue);
        }
    }

    private static string Lines(string text) =>
        text.Replace("\r\n", "\n", StringComparison.Ordinal).Replace('\r', '\n');

    private static string Unmarked(string text) =>
        text.Length > 1 && text[0] == '\'' && text.TrimStart('\'') is [var first, ..] && "=+-@\t\r\n".Contains(first)
            ? text[1..]
            : text;
}
