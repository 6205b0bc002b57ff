using System.Collections.Immutable;

namespace Emendum.Core.Places;

/// <summary>What a column of a table can be.</summary>
/// <param name="Field">Name in mappings.</param>
/// <param name="Heading">The heading it goes out under.</param>
/// <param name="Known">Other headings it is known by, in small letters.</param>
public sealed record TableField(string Field, string Heading, ImmutableArray<string> Known)
{
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
