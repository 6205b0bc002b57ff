using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>Folds the lines of a job whose work comes back: each occurrence by itself, the goods of all of them bought once for the year, and all of it together as the first year.</summary>
internal sealed class RoundFold(
    Job job,
    Trace trace,
    Dictionary<Guid, PlaceMeasures> measures,
    CompiledItem[] items,
    Line[] lines,
    Line?[] grid
)
{
    /// <summary>Folds lines that stand by work item: by rhythm, where any of the work comes back.</summary>
    public static Reckoned Of(
        Job job,
        Trace trace,
        Dictionary<Guid, PlaceMeasures> measures,
        CompiledItem[] items,
        Line[] lines,
        Line?[] grid
    ) =>
        Array.Exists(lines, l => RhythmTimes.Of(job, l.OfItem.Item) is not null)
            ? new RoundFold(job, trace, measures, items, lines, grid).Folded()
            : Fold.Of(job, trace, measures, items, lines, grid);

    /// <summary>One occurrence while it is folded.</summary>
    private sealed record Part(
        Rhythm? Rhythm,
        EventBand? Band,
        Line[] Lines,
        int[] At,
        Trace Trace,
        Total Times,
        Fold Fold
    );

    private Reckoned Folded()
    {
        var byRhythm = Enumerable
            .Range(0, lines.Length)
            .ToLookup(n => RhythmTimes.Of(job, lines[n].OfItem.Item)?.Id ?? Rhythm.Once);
        var parts = new List<Part>();
        foreach (var rhythm in job.Rhythms.Where(r => byRhythm.Contains(r.Id)))
        foreach (var band in rhythm.Bands.IsEmpty ? [null] : rhythm.Bands.Select(b => (EventBand?)b))
            parts.Add(Begun(rhythm, band, [.. byRhythm[rhythm.Id]], parts.Count == 0));
        if (byRhythm.Contains(Rhythm.Once))
            parts.Add(Begun(null, null, [.. byRhythm[Rhythm.Once]], false));
        var pool = Pooled(parts);
        ImmutableArray<Occurrence> occurrences =
        [
            .. parts.Select(part => new Occurrence(
                part.Rhythm,
                part.Band,
                part.Times,
                part.Fold.Ended(measures, items, part.Lines, grid, needs => Shared(needs, pool, part.Trace)),
                part.At
            )),
        ];
        return new()
        {
            Job = job,
            Measures = measures,
            Items = items,
            Lines = lines,
            Grid = grid,
            Costs = new RoundCosts(job, trace, occurrences, pool).Of(),
            Occurrences = occurrences,
        };
    }

    private Part Begun(Rhythm? rhythm, EventBand? band, int[] at, bool holdsFixed)
    {
        var of = Occurrence.JobOf(job, rhythm, band, holdsFixed);
        var within = trace.Under(Occurrence.Within(band?.Id ?? rhythm?.Id ?? Rhythm.Once));
        // An event that goes further takes longer: its lines are its own.
        Line[] own =
        [
            .. at.Select(n =>
                band is null or { Factor: 1 }
                    ? lines[n]
                    : Line.Of(lines[n].OfItem, lines[n].Measures, lines[n].Cell, of, within)
            ),
        ];
        var fold = Fold.Begun(of, within, own);
        return new(rhythm, band, own, at, within, TimesOf(rhythm, band), fold);
    }

    /// <summary>How often the first year has it.</summary>
    private Total TimesOf(Rhythm? rhythm, EventBand? band)
    {
        if (rhythm is null)
            return trace.Total(1m, "", "Once", new("rhythms", Rhythm.Once, "times"));
        if (band is not null)
            return trace.Total(
                trace.Typed(band.Expected, "", "expected in a season", null, "rhythms", rhythm.Id),
                "",
                $"{rhythm.Name}, {band.Name}: times a year",
                new("rhythms", band.Id, "times")
            );
        var times = Stated(rhythm);
        foreach (var other in job.Rhythms.Where(r => r.Instead == rhythm.Id))
            times -= Stated(other);
        return trace.Total(times, "", rhythm.Name + ": times a year", new("rhythms", rhythm.Id, "times"));
    }

    private Val Stated(Rhythm rhythm)
    {
        Val Said(int count, string what) => trace.Typed(count, "", what, null, "rhythms", rhythm.Id);
        var working = RhythmTimes.Working(rhythm);
        return rhythm.Kind != RhythmKind.WorkingDays ? Said(RhythmTimes.Stated(job, rhythm), rhythm.Name)
            : RhythmTimes.Off(job, rhythm) is > 0 and var off
                ? Said(working, "working days") - Said(int.Min(off, working), "days off")
            : Said(working, "working days");
    }

    /// <summary>What all occurrences of the year need, bought once.</summary>
    private Dictionary<(Guid, string), Purchase> Pooled(List<Part> parts)
    {
        var needs = new OrderedDictionary<(Guid, string), (Material Material, string Colour, Sum Need)>();
        foreach (var part in parts)
        foreach (var (material, colour, need) in part.Fold.Needs())
        {
            if (!needs.TryGetValue((material.Id, colour), out var sum))
                needs.Add((material.Id, colour), sum = (material, colour, new()));
            sum.Need.Add(part.Rhythm is null ? need : need * part.Times);
        }
        return Buying
            .Of([.. needs.Values.Select(n => (n.Material, n.Colour, n.Need.Total))], trace)
            .ToDictionary(p => (p.Material.Id, p.Colour));
    }

    /// <summary>What one occurrence has of what was bought for the year: by need.</summary>
    private ImmutableArray<Purchase> Shared(
        IReadOnlyList<(Material Material, string Colour, Val Need)> needs,
        Dictionary<(Guid, string), Purchase> pool,
        Trace within
    )
    {
        var places = Currency.Places(job.Info.Currency) ?? 2;
        return
        [
            .. needs.Select(one =>
            {
                var year = pool[(one.Material.Id, one.Colour)];
                var name =
                    !within.On ? ""
                    : one.Colour.Length == 0 ? one.Material.Name
                    : $"{one.Material.Name}, {one.Colour}";
                Total Made(Val value, string unit, string label, string leaf) =>
                    within.Total(
                        value,
                        unit,
                        name + label,
                        new(FigurePath.InColour("buy", one.Colour), one.Material.Id, leaf)
                    );
                var unit = one.Material.Unit.Symbol;
                var need = Made(one.Need, unit, ": needed", "need");
                Val Part(Total of) => year.Need.V == 0 ? 0m : need * of / year.Need;
                return new Purchase(
                    one.Material,
                    one.Colour,
                    need,
                    need,
                    new(new decimal[one.Material.Packs.Length], 0, 0),
                    Made(Part(year.Bought), unit, ": its part of what is bought", "bought"),
                    Made(Part(year.Leftover), unit, ": its part of what is left over", "leftover"),
                    Made(Part(year.BoughtCost).Money(places), "", ": its part of what the packs cost", "boughtCost"),
                    Made(
                        year.Bought.V == 0 ? 0m : need * year.BoughtCost / year.Bought,
                        "",
                        ": cost of the need",
                        "needCost"
                    ),
                    year.Delivery is { } delivery
                        ? Made(Part(delivery).Money(places), "", ": its part of the delivery", "delivery")
                        : null
                );
            }),
        ];
    }
}
