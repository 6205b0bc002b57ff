using System.Collections.Immutable;

namespace Emendum.Core.Places;

/// <summary>A row of a customer's schedule as it came in a table.</summary>
public sealed record ScheduleTableRow(
    int Row,
    string Number,
    string Wording,
    string Unit,
    decimal Quantity,
    string? Wrong
);

/// <summary>Schedules of quantities as a table.</summary>
public static class ScheduleTable
{
    /// <summary>What a column can be.</summary>
    public static readonly ImmutableArray<TableField> Fields =
    [
        new("number", "Number", ["no", "no.", "item", "ref", "reference", "pos", "position"]),
        new("wording", "Wording", ["description", "text", "work", "short text"]),
        new("unit", "Unit", ["units", "uom"]),
        new("quantity", "Quantity", ["qty", "amount", "measured"]),
    ];

    /// <summary>Reads rows; those with words and without quantity and unit are headings of the schedule.</summary>
    public static IReadOnlyList<ScheduleTableRow> Read(
        IReadOnlyList<IReadOnlyList<string>> rows,
        IReadOnlyDictionary<string, int> mapping
    )
    {
        var read = new List<ScheduleTableRow>();
        for (var i = 0; i < rows.Count; i++)
        {
            string Of(string field) => TableField.In(rows[i], mapping, field);
            var (unit, quantity) = (Of("unit"), Of("quantity"));
            if (unit.Length + quantity.Length == 0)
            {
                if (Of("wording").Length > 0)
                    read.Add(new(i + 1, Of("number"), Of("wording"), "", 0, null));
                continue;
            }
            var (number, unclear) = TableField.Number(quantity);
            var wrong =
                unclear is not null ? unclear
                : number is null ? $"“{quantity}” is not a quantity."
                : number < 0 ? "A quantity is not below zero."
                : unit.Length == 0 ? "The unit is missing."
                : Of("wording").Length == 0 ? "The wording is missing."
                : null;
            read.Add(new(i + 1, Of("number"), Of("wording"), unit, number ?? 0, wrong));
        }
        return read;
    }
}
