using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core.Quantities;

namespace Emendum.Core.Places;

/// <summary>A row of a table read as a place: its tape line and what goes with it, or why it is none.</summary>
/// <param name="Row">1-based, counted below the headings.</param>
/// <param name="Line">The tape line.</param>
/// <param name="Group">Heading.</param>
/// <param name="Finish">Substrate or finish.</param>
/// <param name="Notes">Notes.</param>
/// <param name="Typed">Overrides and own measures.</param>
/// <param name="Words">The reading in plain words; empty when there is none.</param>
/// <param name="Wrong">What is wrong, in a sentence; null when it reads.</param>
public sealed record PlaceRow(
    int Row,
    string Line,
    string Group,
    string Finish,
    string Notes,
    ImmutableArray<TypedMeasure> Typed,
    string Words,
    string? Wrong
);

/// <summary>Places as a table: columns and rows of text, in and out. What goes out comes in again without loss.</summary>
public static class PlaceTable
{
    /// <summary>What a column can be, with the heading it goes out under and other headings it is known by.</summary>
    public static readonly ImmutableArray<TableField> Fields =
    [
        new("group", "Heading", ["group", "floor", "building", "phase", "area", "level", "block"]),
        new("name", "Name", ["place", "room", "room name", "location", "description"]),
        new("line", "Tape line", ["line", "tape"]),
        new("length", "Length", ["long", "l"]),
        new("width", "Width", ["wide", "w", "breadth"]),
        new("height", "Height", ["high", "h"]),
        new("count", "Count", ["number", "qty", "quantity", "times", "no", "no."]),
        new("openings", "Openings", ["doors and windows"]),
        new("finish", "Finish", ["substrate", "surface"]),
        new("notes", "Notes", ["note", "remarks", "comment", "comments"]),
        new("typed", "Typed measures", []),
    ];

    /// <summary>Reads rows as places; empty rows are left out.</summary>
    public static IReadOnlyList<PlaceRow> Read(
        IReadOnlyList<IReadOnlyList<string>> rows,
        IReadOnlyDictionary<string, int> mapping,
        UnitSystem system
    )
    {
        var places = new List<PlaceRow>(rows.Count);
        for (var i = 0; i < rows.Count; i++)
        {
            string Of(string field) => TableField.In(rows[i], mapping, field);
            if (rows[i].All(string.IsNullOrWhiteSpace))
                continue;
            var line = Of("line");
            if (line.Length == 0)
                line = Assembled(Of);
            try
            {
                var typed = ReadTyped(Of("typed"));
                var reading = TapeLine.ReadOrThrow(line, system);
                places.Add(
                    new(
                        i + 1,
                        line,
                        Of("group"),
                        Of("finish"),
                        Of("notes"),
                        typed,
                        string.Concat(reading.ReadBack(system)),
                        null
                    )
                );
            }
            catch (RefusedException refused)
            {
                places.Add(
                    new(i + 1, line, Of("group"), Of("finish"), Of("notes"), [], "", Name(Of) + refused.Refusal.Message)
                );
            }
        }
        return places;
    }

    private static string Name(Func<string, string> of) => of("name").Length == 0 ? "" : of("name") + ": ";

    /// <summary>A room's line from its columns.</summary>
    private static string Assembled(Func<string, string> of)
    {
        var (name, length, width, height, count, openings) = (
            of("name"),
            of("length"),
            of("width"),
            of("height"),
            of("count"),
            of("openings")
        );
        if (length.Length + width.Length + height.Length == 0)
            return name.Length == 0 ? "" : $"{name}: {TapeDraft.NotMeasured}";
        return $"{name}: {length} x {width} x {height}{(count is "" or "1" ? "" : " x" + count)}{(openings.Length == 0 ? "" : "; " + openings)}";
    }

    /// <summary>A cell going out: text, or a number.</summary>
    public readonly record struct Cell(string Text, bool IsNumber)
    {
        /// <summary>Text.</summary>
        public static Cell Of(string text) => new(text, false);

        /// <summary>A number.</summary>
        public static Cell Of(decimal number) => new(Rounding.Text(number), true);
    }

    /// <summary>Typed measures as text: <c>netWallArea (area, ft) = 300; Coving (length, m) = 4 + 3.2</c>.</summary>
    public static string WriteTyped(ImmutableArray<TypedMeasure> typed) =>
        string.Join(
            "; ",
            typed.Select(t =>
                $"{t.Name} ({t.Quantity.Kind.ToString().ToLowerInvariant()}, {(t.Quantity.Units == UnitSystem.Feet ? "ft" : "m")}) = {t.Quantity.Text}"
            )
        );

    /// <summary>Reads <see cref="WriteTyped"/>.</summary>
    /// <exception cref="RefusedException">It is not in that form.</exception>
    public static ImmutableArray<TypedMeasure> ReadTyped(string text)
    {
        if (text.Trim().Length == 0)
            return [];
        return
        [
            .. text.Split(';')
                .Select(part =>
                {
                    var equals = part.IndexOf(" = ", StringComparison.Ordinal);
                    var bracket = equals < 0 ? -1 : part.LastIndexOf(" (", equals, StringComparison.Ordinal);
                    var words = bracket < 0 ? [] : part[(bracket + 2)..equals].TrimEnd(')').Split(", ");
                    if (
                        words.Length != 2
                        || !Enum.TryParse<Kind>(words[0], true, out var kind)
                        || words[1] is not ("ft" or "m")
                    )
                        throw RefusedException.Of(
                            "typed",
                            $"“{part.Trim()}” is not a typed measure: write it like Coving (length, ft) = 12 + 8."
                        );
                    var quantity = new TypedQuantity(
                        kind,
                        part[(equals + 3)..].Trim(),
                        words[1] == "ft" ? UnitSystem.Feet : UnitSystem.Metres
                    );
                    TypedQuantities.Read(quantity);
                    return new TypedMeasure(part[..bracket].Trim(), quantity);
                }),
        ];
    }
}
