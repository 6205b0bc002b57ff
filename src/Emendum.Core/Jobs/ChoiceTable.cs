using System.Collections.Immutable;
using Emendum.Core.Places;

namespace Emendum.Core.Jobs;

/// <summary>A row of a supplier's table of variations.</summary>
/// <param name="Row">Its number, from 1.</param>
/// <param name="Name">What the variation is called, of all columns that name it.</param>
/// <param name="Price">What one costs.</param>
/// <param name="Code">The supplier's code.</param>
/// <param name="Supplier">Who sells it.</param>
/// <param name="Wrong">Why it cannot be taken; null where it can.</param>
public sealed record ChoiceTableRow(int Row, string Name, decimal Price, string Code, string Supplier, string? Wrong);

/// <summary>A supplier's variations with their prices, as a table.</summary>
public static class ChoiceTable
{
    /// <summary>What a column can be. A variation is often named by several: the board, its size, its finish.</summary>
    public static readonly ImmutableArray<TableField> Fields =
    [
        new("name", "Variation", ["name", "product", "item", "description", "model", "article"]),
        new("second", "Also named by", ["size", "format", "dimension", "width"]),
        new("third", "And by", ["finish", "colour", "color", "surface", "edge"]),
        new("price", "Price of one", ["price", "cost", "net", "unit price", "trade price"]),
        new("code", "Code", ["sku", "code", "number", "no", "article no"]),
        new("supplier", "Supplier", ["vendor", "from"]),
    ];

    /// <summary>Reads rows; empty ones are left out.</summary>
    public static IReadOnlyList<ChoiceTableRow> Read(
        IReadOnlyList<IReadOnlyList<string>> rows,
        IReadOnlyDictionary<string, int> mapping
    )
    {
        var read = new List<ChoiceTableRow>();
        var seen = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        for (var i = 0; i < rows.Count; i++)
        {
            string Of(string field) => TableField.In(rows[i], mapping, field);
            var name = string.Join(
                ", ",
                new[] { Of("name"), Of("second"), Of("third") }.Where(part => part.Length > 0)
            );
            var price = Of("price");
            if (name.Length + price.Length == 0)
                continue;
            var (number, unclear) = TableField.Number(price);
            var wrong =
                name.Length == 0 ? "The variation has no name."
                : name.Length > 200 ? "A name is at most 200 characters."
                : unclear
                    ?? (
                        number is null ? $"“{price}” is not a price."
                        : number < 0 ? "A price is not below zero."
                        : seen.TryGetValue(name, out var first) ? $"“{name}” stands in row {first} already."
                        : null
                    );
            seen.TryAdd(name, i + 1);
            read.Add(new(i + 1, name, number ?? 0, Of("code"), Of("supplier"), wrong));
        }
        return read;
    }
}
