using System.Collections.Immutable;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>What a column of a table can be.</summary>
/// <param name="Field">Name in mappings.</param>
/// <param name="Heading">The heading it goes out under.</param>
/// <param name="Known">Other headings it is known by, in small letters.</param>
public sealed record TableField(string Field, string Heading, ImmutableArray<string> Known)
{
    /// <summary>What stands in the column of a field, without spaces around it; empty where the row has none.</summary>
    public static string In(IReadOnlyList<string> row, IReadOnlyDictionary<string, int> mapping, string field) =>
        mapping.TryGetValue(field, out var column) && column >= 0 && column < row.Count ? row[column].Trim() : "";

    /// <summary>A number that is typed in a table; null where it is none, and why where that cannot be told.</summary>
    internal static (decimal? Number, string? Unclear) Number(string text)
    {
        try
        {
            return (
                PlainNumber.Read(text, out var number) && decimal.Abs(number) < Rounding.InputBound
                    ? decimal.Round(number, Rounding.InputDecimals, MidpointRounding.AwayFromZero)
                    : null,
                null
            );
        }
        catch (RefusedException unclear)
        {
            return (null, unclear.Refusal.Message);
        }
    }

    /// <summary>Guesses which column is which from the headings; −1 where none fits.</summary>
    public static Dictionary<string, int> Guess(IEnumerable<TableField> fields, IReadOnlyList<string> columns) =>
        fields.ToDictionary(
            f => f.Field,
            f =>
            {
                for (var i = 0; i < columns.Count; i++)
                    if (
                        columns[i].Trim() is var column
                        && (
                            column.Equals(f.Heading, StringComparison.OrdinalIgnoreCase)
                            || f.Known.Contains(column.ToLowerInvariant())
                        )
                    )
                        return i;
                return -1;
            }
        );
}
