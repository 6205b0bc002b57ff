using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>What the commands about cells of the scope grid do: change sets, or refusals. One command is one undo, however many cells it touches.</summary>
internal static class CellCommands
{
    public static ImmutableArray<Change> Fill(Job job, FillCells command)
    {
        var changes = ImmutableArray.CreateBuilder<Change>();
        var write = ChangeSet.CellWriter();
        foreach (var (key, cell, _) in Seen(job, command.Work, command.Places, command.Was))
        {
            if (cell?.State == command.State)
                continue;
            var now =
                command.State is not { } to ? null
                : cell is null ? new Cell(to, "")
                : cell with { State = to };
            changes.Add(new($"cells/{key.Work}/{key.Place}", write(cell), write(now)));
        }
        return changes.ToImmutable();
    }

    public static ImmutableArray<Change> Copy(Job job, CopyCells command)
    {
        if (command.FromWork.IsEmpty || command.FromPlaces.IsEmpty)
            throw RefusedException.Of("fromWork", "There is nothing to copy.");
        CheckBlock(job, command.FromWork, command.FromPlaces);
        var measures = Measures(job);
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var (key, cell, at) in Seen(job, command.Work, command.Places, command.Was))
        {
            var (row, column) = (at / command.Work.Length, at % command.Work.Length);
            var from = new CellKey(
                command.FromWork[column % command.FromWork.Length],
                command.FromPlaces[row % command.FromPlaces.Length]
            );
            var now = job.Cells.GetValueOrDefault(from);
            if (
                now is { Source.Length: > 0 }
                && from.Place != key.Place
                && measures(key.Place).Named(now.Source) is null
            )
                now = now with { Source = "" };
            if (now is not null && from.Work != key.Work)
                now = new Cell(now.State, now.Note) { Conditions = now.Conditions, Supply = now.Supply };
            var change = Set(key, cell, Commands.Node(now));
            if (!ChangeSet.Same(change.Before, change.After))
                changes.Add(change);
        }
        return changes.ToImmutable();
    }

    public static ImmutableArray<Change> Paste(Job job, PasteCells command)
    {
        if (command.Texts.Length != command.Work.Length * command.Places.Length)
            throw RefusedException.Of("texts", "There must be one text for each cell.");
        var measures = Measures(job);
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var (key, cell, at) in Seen(job, command.Work, command.Places, command.Was))
        {
            Cell? now;
            try
            {
                now = Read(
                    command.Texts[at].Trim(),
                    cell,
                    (WorkEntry)job.Book[job.Item(key.Work)!.Entry],
                    measures(key.Place),
                    job.Units,
                    command.Quantities
                );
            }
            catch (RefusedException wrong)
            {
                throw RefusedException.Of(
                    "texts",
                    $"Row {at / command.Work.Length + 1}, column {at % command.Work.Length + 1} ({job.Item(key.Work)!.Name}, {job.Place(key.Place)!.Name}): “{Short(command.Texts[at].Trim())}”. {wrong.Refusal.Message} Nothing was pasted."
                );
            }
            var change = Set(key, cell, Commands.Node(now));
            if (!ChangeSet.Same(change.Before, change.After))
                changes.Add(change);
        }
        return changes.ToImmutable();
    }

    public static ImmutableArray<Change> Set(Job job, SetCells command, Func<Guid, BookEntry?> book)
    {
        var work = Commands.Item(job, command.Work).Id;
        CellKey Key(AtPlace at) => new(work, at.Place);
        if (command.At.Any(at => !job.Cells.ContainsKey(Key(at))))
            throw RefusedException.Of(command.Field, "Include the work here first.");
        return Commands.Pinning(
            job,
            Commands.SetAll(job, $"cells/{work}", command.Field, command.At),
            changed => command.At.SelectMany(at => changed.Cells[Key(at)].Uses),
            command.Field,
            book
        );
    }

    public static ImmutableArray<Change> FallBack(Job job, FallBack command) =>
        [
            .. Seen(job, command.Work, command.Places, command.Was)
                .Where(c => c.Cell?.Differs == true)
                .Select(c => Set(c.Key, c.Cell, Commands.Node(new Cell(c.Cell!.State, c.Cell.Note)))),
        ];

    /// <summary>The measures of places as they are asked for, each measured once.</summary>
    private static Func<Guid, PlaceMeasures> Measures(Job job)
    {
        var known = new Dictionary<Guid, PlaceMeasures>();
        return place =>
            known.TryGetValue(place, out var of) ? of : known[place] = job.Measured(job.Place(place)!, Trace.Silent);
    }

    private static string Short(string text) => text.Length <= 40 ? text : text[..40] + "…";

    /// <summary>What a text means as a cell: nothing or a dot is none here; <c>x</c> or <c>yes</c> is included; <c>out</c>, or <c>out: words</c>, excluded; <c>alt</c> an alternate; a number
    /// a quantity, or a mark. A number that reads as the place's own measure is that measure.</summary>
    private static Cell? Read(
        string text,
        Cell? cell,
        WorkEntry entry,
        PlaceMeasures measures,
        UnitSystem units,
        bool quantities
    )
    {
        Cell As(CellState state) => cell is null ? new(state, "") : cell with { State = state };
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
        if (text.StartsWith("out:", StringComparison.OrdinalIgnoreCase))
            return As(CellState.Excluded) with { Note = text[4..].Trim() };
        var kind = entry.Measure.Kind();
        var plain = PlainNumber.Read(text, out var number);
        if (plain && number == 0)
            return null;
        if (plain && !quantities)
            return As(CellState.Included);
        if (!quantities)
            throw RefusedException.Of(
                "text",
                "Write x for included, out or out: words for excluded, alt for an alternate, and nothing for none here."
            );
        bool Reads(decimal value) =>
            plain
            && decimal.Round(value * measures.Place.Count, 1, MidpointRounding.AwayFromZero)
                == decimal.Round(number, 1, MidpointRounding.AwayFromZero);
        // What was copied from here and comes back unchanged changes nothing.
        if (cell?.Quantity is { } here && Reads(TypedQuantities.In(here, entry.Measure.UnitIn(units))))
            return As(CellState.Included);
        if (cell is { Source.Length: > 0 } && Reads(measures.Named(cell.Source)?.V ?? 0))
            return As(CellState.Included);
        if (Reads(measures[entry.Measure].V))
            return As(CellState.Included) with { Quantity = null, Source = "" };
        if (measures.Place.Count > 1)
            throw RefusedException.Of(
                "text",
                $"{measures.Place.Name} stands for {measures.Place.Count} equal places: type its quantity for one of them in the sheet."
            );
        var typed = new TypedQuantity(kind, plain ? Rounding.Text(number) + Suffix(kind, units) : text, units);
        TypedQuantities.Read(typed);
        return As(CellState.Included) with { Quantity = typed, Source = "" };
    }

    private static string Suffix(Kind kind, UnitSystem units) => kind == Kind.Count ? "" : " " + units.For(kind).Symbol;

    public static ImmutableArray<Change> Note(Job job, SetNote command)
    {
        JobChecks.Note(command.Note);
        var key = new CellKey(command.Work, command.Place);
        if (!job.Cells.TryGetValue(key, out var cell))
            throw RefusedException.Of("note", "Include or exclude the work here first.");
        if (cell.Note != command.Was)
            throw new ConflictException("note", cell.Note);
        return cell.Note == command.Note ? [] : [Set(key, cell, Commands.Node(cell with { Note = command.Note }))];
    }

    private static Change Set(CellKey key, Cell? was, JsonNode? now) =>
        new($"cells/{key.Work}/{key.Place}", Commands.Node(was), now?.DeepClone());

    private static void CheckBlock(Job job, ImmutableArray<Guid> works, ImmutableArray<Guid> places)
    {
        if ((long)works.Length * places.Length > Commands.MostCells)
            throw RefusedException.Of("cells", $"At most {Commands.MostCells} cells at a time.");
        var (knownPlaces, knownWork) = (
            job.Places.Select(p => p.Id).ToHashSet(),
            job.Work.Select(w => w.Id).ToHashSet()
        );
        if (works.Any(w => !knownWork.Contains(w)))
            throw RefusedException.Of("work", "That work is not in this job any more.");
        if (places.Any(p => !knownPlaces.Contains(p)))
            throw RefusedException.Of("places", "That place is not in this job any more.");
        if (works.Distinct().Count() != works.Length || places.Distinct().Count() != places.Length)
            throw RefusedException.Of("cells", "A cell stands twice in one command.");
    }

    /// <summary>The cells of a block with their place in it, row by row, when they are still as they were seen.</summary>
    private static IEnumerable<(CellKey Key, Cell? Cell, int At)> Seen(
        Job job,
        ImmutableArray<Guid> works,
        ImmutableArray<Guid> places,
        string was
    )
    {
        CheckBlock(job, works, places);
        if (was.Length != works.Length * places.Length)
            throw RefusedException.Of("was", "There must be one letter for each cell.");
        for (var at = 0; at < was.Length; at++)
        {
            var key = new CellKey(works[at % works.Length], places[at / works.Length]);
            var cell = job.Cells.GetValueOrDefault(key);
            if (Letter(cell?.State) != was[at])
                throw new ConflictException("cells", Commands.Node(cell?.State));
            yield return (key, cell, at);
        }
    }

    /// <summary>The letter that stands for a state in a command.</summary>
    internal static char Letter(CellState? state) =>
        state switch
        {
            CellState.Included => 'i',
            CellState.Excluded => 'x',
            CellState.Alternate => 'a',
            _ => '.',
        };
}
