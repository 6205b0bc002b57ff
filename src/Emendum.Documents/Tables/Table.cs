using Emendum.Core.Figures;

namespace Emendum.Documents.Tables;

/// <summary>One sheet of a table that came in: text only. Formulas are never run; what a workbook last showed for one is taken as text.</summary>
/// <param name="Sheets">Names of all its sheets; one without a name for a text file.</param>
/// <param name="Sheet">Which of them this is.</param>
/// <param name="Columns">First row: headings.</param>
/// <param name="Rows">The rows below, as wide as the headings.</param>
public sealed record Table(
    IReadOnlyList<string> Sheets,
    int Sheet,
    IReadOnlyList<string> Columns,
    IReadOnlyList<IReadOnlyList<string>> Rows
)
{
    /// <summary>Most rows that are read.</summary>
    public const int MostRows = 20_000;

    /// <summary>Most columns that are read.</summary>
    public const int MostColumns = 200;

    /// <summary>Longest text of a cell.</summary>
    public const int LongestCell = 32_000;

    /// <summary>Headings and rows from raw rows: blank lines at the head are skipped, rows are filled up to one width.</summary>
    internal static Table From(IReadOnlyList<string> sheets, int sheet, IEnumerable<IReadOnlyList<string>> raw)
    {
        var rows = raw.SkipWhile(r => r.All(string.IsNullOrWhiteSpace)).ToList();
        if (rows.Count == 0)
            throw Core.RefusedException.Of("file", "There is nothing in this table.");
        var width = rows.Max(r => r.Count);
        IReadOnlyList<string> Filled(IReadOnlyList<string> row) =>
            [.. Enumerable.Range(0, width).Select(i => i < row.Count ? row[i] : "")];
        return new(sheets, sheet, Filled(rows[0]), [.. rows.Skip(1).Select(Filled)]);
    }
}
