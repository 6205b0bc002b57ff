using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Reads a block of cells from texts, as they come from a spreadsheet.</summary>
/// <param name="Work">Columns.</param>
/// <param name="Places">Rows.</param>
/// <param name="Was">How the cells are seen, as in <see cref="FillCells"/>.</param>
/// <param name="Texts">One for each cell, row by row.</param>
/// <param name="Quantities">Whether numbers are quantities; otherwise a number above zero only says that the work is done.</param>
public sealed record PasteCells(
    ImmutableArray<Guid> Work,
    ImmutableArray<Guid> Places,
    string Was,
    ImmutableArray<string> Texts,
    bool Quantities
) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Texts.Length != Work.Length * Places.Length)
            throw RefusedException.Of("texts", "There must be one text for each cell.");
        var measures = CellBlock.Measures(job);
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var (key, cell, at) in CellBlock.Seen(job, Work, Places, Was))
        {
            Cell? now;
            try
            {
                now = Read(
                    Texts[at].Trim(),
                    cell,
                    (WorkEntry)job.Book[job.Item(key.Work)!.Entry],
                    measures(key.Place),
                    job.Units,
                    job.Item(key.Work)!.CountedIn,
                    Quantities
                );
            }
            catch (RefusedException wrong)
            {
                throw RefusedException.Of(
                    "texts",
                    $"Row {at / Work.Length + 1}, column {at % Work.Length + 1} ({job.Item(key.Work)!.Name}, {job.Place(key.Place)!.Name}): “{Short(Texts[at].Trim())}”. {wrong.Refusal.Message} Nothing was pasted."
                );
            }
            var change = CellBlock.Set(key, cell, Commands.Node(now));
            if (!ChangeSet.Same(change.Before, change.After))
                changes.Add(change);
        }
        return changes.ToImmutable();
    }

    /// <summary>What a text means as a cell: nothing or a dot is none here; <c>x</c> or <c>yes</c> is included; <c>excluded</c> or <c>out</c>, or either with a colon and words, excluded; <c>alt</c> an alternate; a number
    /// a quantity, or a mark. A number that reads as the place's own measure is that measure.</summary>
    private static Cell? Read(
        string text,
        Cell? cell,
        WorkEntry entry,
        PlaceMeasures measures,
        UnitSystem units,
        Unit? countedIn,
        bool quantities
    )
    {
        Cell As(CellState state) => cell is null ? new(state, "") : cell with { State = state, Alternate = null };
        switch (text.ToUpperInvariant())
        {
            case "" or "·" or "." or "-" or "–" or "NO" or "NONE" or "NONE HERE":
                return null;
            case "X" or "✓" or "YES" or "IN" or "INCLUDED":
                return As(CellState.Included);
            case "OUT" or "EXCLUDED":
                return As(CellState.Excluded);
            case "ALT" or "ALTERNATE":
                return As(CellState.Alternate);
        }
        foreach (var excluded in new[] { "excluded:", "out:" })
            if (text.StartsWith(excluded, StringComparison.OrdinalIgnoreCase))
                return As(CellState.Excluded) with { Note = text[excluded.Length..].Trim() };
        var kind = entry.Measure.Kind();
        var plain = PlainNumber.Read(text, out var number);
        if (plain && number == 0)
            return null;
        if (plain && !quantities)
            return As(CellState.Included);
        if (!quantities)
            throw RefusedException.Of(
                "text",
                "Write x for included, excluded or excluded: words, alt for an alternate, and nothing for none here."
            );
        var (common, unit) = (entry.Measure.UnitIn(units), entry.UnitIn(units, countedIn));
        decimal Counted(decimal value) => new Quantity(value, common).In(unit).Value;
        // As many decimals as the grid shows: 0.42 acre is not the 0.4 that was measured.
        bool Reads(decimal value) => plain && Shown(value * measures.Place.Count, unit) == Shown(number, unit);
        // What was copied from here and comes back unchanged changes nothing.
        if (cell?.Quantity is { } here && Reads(TypedQuantities.In(here, unit)))
            return As(CellState.Included);
        if (cell is { Source.Length: > 0 } && Reads(Counted(measures.Named(cell.Source)?.V ?? 0)))
            return As(CellState.Included);
        if (Reads(Counted(measures[entry.LedAt(measures)].V)))
            return As(CellState.Included) with { Quantity = null, Source = "" };
        if (measures.Place.Count > 1)
            throw RefusedException.Of(
                "text",
                $"{measures.Place.Name} stands for {measures.Place.Count} equal places: type its quantity for one of them in the sheet."
            );
        var typed = new TypedQuantity(kind, plain ? Rounding.Text(number) + Suffix(unit) : text, units);
        TypedQuantities.Read(typed);
        return As(CellState.Included) with { Quantity = typed, Source = "" };
    }

    private static decimal Shown(decimal value, Unit unit) =>
        decimal.Round(value, unit.ShownPlaces, MidpointRounding.AwayFromZero);

    private static string Suffix(Unit unit) => unit.Kind == Kind.Count ? "" : " " + unit.Symbol;

    private static string Short(string text) => text.Length <= 40 ? text : text[..40] + "…";
}
