using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Documents.Tables;

/// <summary>Tables as comma-separated text (RFC 4180).</summary>
public static class CsvText
{
    private const string Formulas = "=+-@\t\r";

    /// <summary>What is said of text that is no table.</summary>
    internal static readonly string Unreadable =
        $"This text cannot be read as a table: a quotation mark is not closed, or a cell is over {Table.LongestCell:N0} characters.";

    /// <summary>Reads text; the sign between columns is found by itself.</summary>
    public static Table Read(byte[] content)
    {
        var settings = new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            HasHeaderRecord = false,
            DetectDelimiter = true,
            DetectDelimiterValues = [",", ";", "\t", "|"],
            Mode = CsvMode.RFC4180,
            BadDataFound = null,
            IgnoreBlankLines = false,
            MaxFieldSize = Table.LongestCell,
            BufferSize = 64 * 1024,
        };
        try
        {
            using var reader = new CsvParser(new BoundedText(Decoded(content)), settings);
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
            throw TableFile.Wrong(Unreadable);
        }
    }

    /// <summary>Writes text with a byte order mark, so that spreadsheets take it as UTF-8.</summary>
    public static byte[] Write(IReadOnlyList<string> columns, IReadOnlyList<IReadOnlyList<PlaceTable.Cell>> rows)
    {
        using var memory = new MemoryStream();
        using (var writer = new StreamWriter(memory, new UTF8Encoding(true), leaveOpen: true))
        using (var csv = new CsvWriter(writer, Written))
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

    /// <summary>Whatever could be taken for more than one field or row stands in quotation marks: also a line feed alone, and signs that other programs divide columns by.</summary>
    private static readonly CsvConfiguration Written = new(CultureInfo.InvariantCulture)
    {
        NewLine = "\r\n",
        ShouldQuote = field =>
            field.Field is { Length: > 0 } text
            && (text.AsSpan().ContainsAny(",;\t|\"\r\n") || text[0] == ' ' || text[^1] == ' '),
    };

    /// <summary>Text that a spreadsheet would take for a formula gets a mark in front; so does text that has such a mark already.</summary>
    private static string Escaped(string text)
    {
        var plain = PlainText.Clean(text);
        return LooksLikeFormula(plain) ? "'" + plain : plain;
    }

    /// <summary>The mark taken off again.</summary>
    private static string Plain(string text)
    {
        var plain = PlainText.Clean(text);
        return plain.StartsWith('\'') && LooksLikeFormula(plain) ? plain[1..] : plain;
    }

    private static bool LooksLikeFormula(string text)
    {
        var at = 0;
        while (at < text.Length && text[at] == '\'')
            at++;
        return at < text.Length && Formulas.Contains(text[at], StringComparison.Ordinal);
    }

    /// <summary>The text, decoded as it is read: UTF-16 by its mark, else UTF-8, else Latin-1.</summary>
    private static StreamReader Decoded(byte[] content)
    {
        var utf8 = System.Text.Unicode.Utf8.IsValid(content);
        return new(
            new MemoryStream(content, writable: false),
            utf8 ? Encoding.UTF8 : Encoding.Latin1,
            detectEncodingFromByteOrderMarks: true
        );
    }
}
