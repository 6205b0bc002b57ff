using Emendum.Core.Figures;

namespace Emendum.Documents.Tables;

/// <summary>The text of a table as a parser reads it: a row that is longer than any row of a table, or has more columns, is refused while it is read and not when it has been taken apart.</summary>
internal sealed class BoundedText(TextReader inner) : TextReader
{
    /// <summary>Most characters of a row.</summary>
    public const int LongestRow = 500_000;

    /// <summary>Most signs of one kind in a row that could stand between its columns. Far above the most columns, since commas may also stand in texts that another sign divides.</summary>
    private const int MostSigns = 5_000;

    private const string Signs = ",;\t|";

    private readonly int[] signs = new int[Signs.Length];
    private int inRow,
        inCell;
    private bool quoted;
    private char before = '\n';

    public override int Read(char[] buffer, int index, int count) => Read(buffer.AsSpan(index, count));

    public override int Read(Span<char> buffer)
    {
        var read = inner.Read(buffer);
        for (var i = 0; i < read; i++)
        {
            var c = buffer[i];
            if (c == '\0')
                throw TableFile.Wrong("This is neither a workbook nor a text file. Choose an .xlsx or CSV file.");
            // A mark opens a text where a column begins, and is one of the text where it stands twice; elsewhere it means inches.
            if (c == '"')
                quoted = !quoted && (before is '"' or '\n' or '\r' || Signs.Contains(before, StringComparison.Ordinal));
            before = c;
            if (c is '\n' or '\r' && !quoted)
            {
                (inRow, inCell) = (0, 0);
                Array.Clear(signs);
                continue;
            }
            if (++inRow > LongestRow)
                throw TableFile.Wrong($"A row of this text is over {LongestRow:N0} characters.");
            if (!quoted && Signs.IndexOf(c) is var sign and >= 0)
            {
                inCell = 0;
                if (++signs[sign] > MostSigns)
                    throw TableFile.Wrong($"A table has at most {Table.MostColumns} columns.");
            }
            else if (++inCell > Table.LongestCell + 2)
                throw TableFile.Wrong(CsvText.Unreadable);
        }
        return read;
    }

    public override int Read() => throw new NotSupportedException();

    public override int Peek() => inner.Peek();
}
