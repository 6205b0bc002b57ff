using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Emendum.Core.Places;

namespace Emendum.Documents.Tables;

/// <summary>Tables as comma-separated text (RFC 4180).</summary>
public static class CsvText
{
    private const string Formulas = "=+-@\t\r";

    /// <summary>Reads text; the sign between columns is found by itself.</summary>
    public static Table Read(byte[] content)
    {
        var text = Decode(content);
        if (text.Any(c => c < ' ' && c is not ('\t' or '\n' or '\r' or '\f')))
            throw TableFile.Wrong("This is neither a workbook nor a text file. Choose an .xlsx or CSV file.");
        var settings = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            HasHeaderRecord = false,
            DetectDelimiter = true,
            DetectDelimiterValues = [",", ";", "\t", "|"],
            Mode = CsvMode.RFC4180,
            BadDataFound = null,
            IgnoreBlankLines = false,
            MaxFieldSize = Table.LongestCell,
        };
        try
        {
            using var reader = new CsvParser(new StringReader(text), settings);
            var rows = new List<IReadOnlyList<string>>();
            while (reader.Read())
            {
                if (rows.Count > Table.MostRows)
                    throw TableFile.Wrong($"A table is at most {Table.MostRows:N0} rows.");
                if (reader.Count > Table.MostColumns)
                    throw TableFile.Wrong($"A table has at most {Table.MostColumns} columns.");
                rows.Add([.. reader.Record!.Select(Plain)]);
            }
            return Table.From([""], 0, rows);
        }
        catch (CsvHelperException)
        {
            throw TableFile.Wrong(
                $"This text cannot be read as a table: a quotation mark is not closed, or a cell is over {Table.LongestCell:N0} characters."
            );
        }
    }

    /// <summary>Writes text with a byte order mark, so that spreadsheets take it as UTF-8.</summary>
    public static byte[] Write(IReadOnlyList<string> columns, IReadOnlyList<IReadOnlyList<PlaceTable.Cell>> rows)
    {
        using var memory = new MemoryStream();
        using (var writer = new StreamWriter(memory, new UTF8Encoding(true), leaveOpen: true))
        using (var csv = new CsvWriter(writer, new CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\r\n" }))
        {
            foreach (var column in columns)
                csv.WriteField(Escaped(column));
            csv.NextRecord();
            foreach (var row in rows)
            {
                foreach (var cell in row)
                    csv.WriteField(cell.IsNumber ? cell.Text : Escaped(cell.Text));
                csv.NextRecord();
            }
        }
        return memory.ToArray();
    }

    /// <summary>Text that a spreadsheet would take for a formula gets a mark in front; so does text that has such a mark already.</summary>
    private static string Escaped(string text) => LooksLikeFormula(text) ? "'" + text : text;

    /// <summary>The mark taken off again.</summary>
    private static string Plain(string text) => text.StartsWith('\'') && LooksLikeFormula(text) ? text[1..] : text;

    private static bool LooksLikeFormula(string text)
    {
        var at = 0;
        while (at < text.Length && text[at] == '\'')
            at++;
        return at < text.Length && Formulas.Contains(text[at], StringComparison.Ordinal);
    }

    private static string Decode(byte[] content)
    {
        if (content is [0xFF, 0xFE, ..])
            return Encoding.Unicode.GetString(content, 2, content.Length - 2);
        if (content is [0xFE, 0xFF, ..])
            return Encoding.BigEndianUnicode.GetString(content, 2, content.Length - 2);
        try
        {
            var start = content is [0xEF, 0xBB, 0xBF, ..] ? 3 : 0;
            return new UTF8Encoding(false, true).GetString(content, start, content.Length - start);
        }
        catch (DecoderFallbackException)
        {
            return Encoding.Latin1.GetString(content);
        }
    }
}
