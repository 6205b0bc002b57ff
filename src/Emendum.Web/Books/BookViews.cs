using System.Globalization;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Web.Jobs;

namespace Emendum.Web.Books;

/// <summary>A row of the list of entries; <c>Says</c> is the number people look for.</summary>
public sealed record EntryRow(
    Guid Id,
    string Name,
    string Kind,
    string KindWords,
    string Section,
    string Trade,
    string Says,
    bool Archived
);

/// <summary>A kind of entry and how many there are.</summary>
public sealed record KindCount(string Kind, string Words, string Many, int Count);

/// <summary>What a search found: the first rows, and how many there are in all.</summary>
public sealed record BookListView(
    IReadOnlyList<EntryRow> Entries,
    int Found,
    int All,
    IReadOnlyList<KindCount> Kinds,
    IReadOnlyList<string> Trades,
    IReadOnlyList<string> Sections
);

/// <summary>An entry that another names.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Kind">Its kind.</param>
/// <param name="Unit">Unit it is counted in; empty for none.</param>
/// <param name="Says">What it does, for those that are chosen by it: the factors of a condition or surface.</param>
public sealed record NamedEntry(Guid Id, string Name, string Kind, string Unit, string Says);

/// <summary>A quantity by which an entry can be tried.</summary>
public sealed record AskView(string Name, string Label, string Unit, string Sample);

/// <summary>An entry with what its page shows beside it.</summary>
/// <param name="Entry">The entry.</param>
/// <param name="KindWords">Its kind in words.</param>
/// <param name="SavedAt">When its newest version was saved.</param>
/// <param name="Person">By whom.</param>
/// <param name="Lacking">What it still needs; empty for a whole one.</param>
/// <param name="Doubt">What should be looked at twice.</param>
/// <param name="Readings">Each rate in it read back, by field.</param>
/// <param name="Asks">By which quantities it can be tried.</param>
/// <param name="UsedBy">Entries that use it.</param>
/// <param name="Jobs">Jobs that have pinned it.</param>
public sealed record EntryView(
    BookEntry Entry,
    string KindWords,
    string SavedAt,
    string Person,
    string Lacking,
    string? Doubt,
    IReadOnlyDictionary<string, RateReading> Readings,
    IReadOnlyList<AskView> Asks,
    IReadOnlyList<NamedEntry> UsedBy,
    IReadOnlyList<Storage.PinnedIn> Jobs
);

/// <summary>A version of an entry and what it changed.</summary>
/// <param name="Version">Its number.</param>
/// <param name="Person">Who wrote it.</param>
/// <param name="At">When, UTC.</param>
/// <param name="Why">Why, where that says more than what differs; empty otherwise.</param>
/// <param name="Differences">What differs from the one before.</param>
public sealed record VersionView(
    int Version,
    string Person,
    string At,
    string Why,
    IReadOnlyList<Difference> Differences
);

/// <summary>One figure of a trial.</summary>
public sealed record TrialLine(string Label, FigureView Figure, string Note);

/// <summary>What an entry comes to when it is tried.</summary>
/// <param name="Parts">Amount of each part, by component.</param>
/// <param name="Lines">Hours, goods, equipment, what would be bought.</param>
/// <param name="Cost">Cost, or for a price-only item its price.</param>
/// <param name="Sentence">How the first amount came about.</param>
public sealed record TrialView(
    IReadOnlyDictionary<string, FigureView> Parts,
    IReadOnlyList<TrialLine> Lines,
    FigureView Cost,
    string CostLabel,
    string Sentence
);

/// <summary>Makes the views of the Book.</summary>
public static class BookViews
{
    /// <summary>Most rows of a search.</summary>
    public const int MostRows = 200;

    /// <summary>A search.</summary>
    public static BookListView List(Shelf shelf, BookQuery query)
    {
        var found = shelf.Index.Find(query).ToList();
        var counts = shelf
            .Entries.Values.Where(e => e.Archived == query.Archived)
            .GroupBy(e => e.GetType())
            .ToDictionary(g => g.Key, g => g.Count());
        return new(
            [.. found.Take(MostRows).Select(Row)],
            found.Count,
            shelf.Entries.Count,
            [.. BookEntry.Kinds.Select(k => new KindCount(k.Kind, k.Words, k.Many, counts.GetValueOrDefault(k.Type)))],
            [.. shelf.Index.Trades()],
            [.. shelf.Index.Sections()]
        );
    }

    private static EntryRow Row(BookEntry entry) =>
        new(
            entry.Id,
            entry.Name,
            entry.KindName(),
            Words(entry),
            entry.Section,
            entry.Trade,
            Says(entry),
            entry.Archived
        );

    private static string Words(BookEntry entry) => BookEntry.Kinds.First(k => k.Type == entry.GetType()).Words;

    private static string Money(decimal value) => Shown.Money(value);

    /// <summary>What an entry still needs, in words; empty for a whole one.</summary>
    public static string Lacking(BookEntry entry) =>
        entry.Lacks.Any() ? "needs " + string.Join(" and ", entry.Lacks.Select(l => l.What)) : "";

    /// <summary>The factors that change something.</summary>
    private static string Factors(params (string Of, decimal Factor)[] all) =>
        string.Join(", ", all.Where(f => f.Factor != 1).Select(f => $"{f.Of} × {Rounding.Text(f.Factor)}"))
            is { Length: > 0 } said
            ? said
            : "changes nothing yet";

    private static string Says(BookEntry entry) =>
        entry switch
        {
            _ when entry.Lacks.Any() => Lacking(entry),
            ProductionRate rate => rate.Paces[0].Pace + (rate.Paces.Length > 1 ? $" · {rate.Paces.Length} coats" : ""),
            Assembly assembly => Counted.Of(assembly.Components.Length, "part"),
            PriceOnlyItem item => $"{Money(item.Price)} per {item.Unit}",
            Material { Mix: { } mix } => "mixed from " + Counted.Of(mix.Parts.Length + 1, "part"),
            Material material => $"{Money(material.Packs[0].Price)} · {material.Packs[0].Name}",
            LabourRole role => $"{Money(role.Wage)} per h",
            Equipment equipment => $"{Money(equipment.Cost)} per {equipment.Per.ToString().ToLowerInvariant()}",
            Subcontract subcontract => subcontract.LumpSum
                ? $"{Money(subcontract.Price)} in all"
                : $"{Money(subcontract.Price)} per {subcontract.Unit}",
            Condition condition => Factors(
                ("labour", condition.Labour),
                ("equipment", condition.Equipment),
                ("material", condition.Material)
            ),
            SurfaceFactor surface => Factors(("treated", surface.Treated), ("coverage", surface.Coverage)),
            BookText text => text.Use == TextUse.WhatToExpect
                ? "what to expect"
                : text.Use.ToString().ToLowerInvariant(),
            _ => "",
        };

    /// <summary>An entry in full.</summary>
    public static EntryView Of(Shelf shelf, Storage.BookStore store, Guid id, UnitSystem units)
    {
        var entry = shelf.Get(id);
        var newest = store.Versions(id)[0];
        return Of(entry, newest.At, newest.Person, units, shelf.UsedBy(id), store.Jobs(id));
    }

    /// <summary>An entry in full, of the Book or of a job.</summary>
    public static EntryView Of(
        BookEntry entry,
        string savedAt,
        string person,
        UnitSystem units,
        IEnumerable<BookEntry> usedBy,
        IReadOnlyList<Storage.PinnedIn> jobs
    ) =>
        new(
            entry,
            Words(entry),
            savedAt,
            person,
            Lacking(entry),
            (entry as Material)?.Doubt(),
            Readings(entry, units),
            entry is WorkEntry work
                ?
                [
                    .. Trial
                        .Asks(work, units)
                        .Select(a => new AskView(
                            a.Name,
                            a.Label,
                            a.Unit.Kind == Kind.Count && a.Unit == Unit.Each ? "" : a.Unit.Symbol,
                            Rounding.Text(a.Sample)
                        )),
                ]
                : [],
            [.. usedBy.Select(Named)],
            jobs
        );

    /// <summary>An entry by name.</summary>
    public static NamedEntry Named(BookEntry entry) =>
        new(
            entry.Id,
            entry.Name,
            entry.KindName(),
            entry switch
            {
                Material m => m.Unit.Symbol,
                Subcontract s => s.Unit.Symbol,
                Equipment => "h",
                LabourRole => "h",
                _ => "",
            },
            entry is Condition or SurfaceFactor ? Says(entry) : ""
        );

    private static Dictionary<string, RateReading> Readings(BookEntry entry, UnitSystem units)
    {
        var read = new Dictionary<string, RateReading>();
        switch (entry)
        {
            case ProductionRate rate:
                for (var i = 0; i < rate.Paces.Length; i++)
                    read[$"paces[{i}].pace"] = RateReading.Of(
                        rate.Paces[i].Pace.ToString(),
                        rate.Measure.UnitIn(units)
                    );
                break;
            case Material material:
                if (material.Coverage is { } first)
                    read["coverage"] = RateReading.Of(first.ToString(), null);
                if (material.LaterCoverage is { } later)
                    read["laterCoverage"] = RateReading.Of(later.ToString(), null);
                break;
            case Assembly assembly:
                for (var i = 0; i < assembly.Components.Length; i++)
                    if (assembly.Components[i].Ratio is { } ratio)
                        read[$"components[{i}].ratio"] = RateReading.Of(ratio.ToString(), null);
                break;
        }
        return read;
    }

    /// <summary>The versions of an entry, newest first, each with what it changed.</summary>
    public static IReadOnlyList<VersionView> Versions(Storage.BookStore store, Shelf shelf, Guid id)
    {
        var versions = store.Versions(id);
        return
        [
            .. versions.Select(
                (v, i) =>
                    new VersionView(
                        v.Entry.Version,
                        v.Person,
                        v.At,
                        v.Why,
                        i + 1 == versions.Count
                            ? []
                            : Differences.Between(versions[i + 1].Entry, v.Entry, e => shelf.Find(e)?.Name)
                    )
            ),
        ];
    }

    /// <summary>What a trial comes to.</summary>
    public static TrialView Tried(Estimate estimate, Trace trace)
    {
        var lines = new List<TrialLine>();
        string Sentence(string path) =>
            trace.Figures.TryGetValue(path, out var figure) ? Explanation.Sentence(figure) : "";
        void Line(string label, FigureView figure, string note = "") => lines.Add(new(label, figure, note));
        foreach (var role in estimate.Reckoned.Costs.Roles.Where(r => r.Hours.V != 0))
            Line(role.Role.Name, FigureView.Fine(role.Hours), $"at {Money(role.LoadedCost.V)} loaded");
        if (estimate.Reckoned.Costs.Roles.Length > 1)
            Line("Labour", FigureView.Fine(estimate.Reckoned.Costs.Hours));
        foreach (var e in estimate.Reckoned.Costs.Equipment.Where(e => e.Cost.V != 0))
            Line(e.Equipment.Name, FigureView.Fine(e.Equipment.Per == EquipmentPer.Hour ? e.Hours : e.Units));
        foreach (var mixed in estimate.Reckoned.Costs.Mixed.Where(m => m.Quantity.V != 0))
        {
            Line(mixed.Material.Name + ", mixed", FigureView.Fine(mixed.Quantity));
            foreach (var part in mixed.Parts.Where(p => p.Material is null))
                Line(part.Name, FigureView.Fine(part.Amount), "free");
        }
        foreach (var buy in estimate.Reckoned.Costs.Buying.Where(b => b.Need.V != 0))
        {
            Line(buy.Material.Name + ", needed", FigureView.Fine(buy.Need));
            Line(buy.Material.Name + ", bought", FigureView.Fine(buy.Bought), buy.PacksInWords);
        }
        foreach (var s in estimate.Reckoned.Costs.Subcontracts.Where(s => s.Cost.V != 0))
            Line(s.Subcontract.Name, FigureView.Fine(s.Amount));
        foreach (var charge in estimate.Reckoned.Costs.Charges)
            Line(charge.Name, FigureView.Money(charge.Cost));
        var (line, cell) = (estimate.Reckoned.Lines[0], $"cells/{Trial.Work}/{Trial.Place}");
        var parts = line
            .Item.Parts.Select(
                (part, i) =>
                    (part.Id, View: FigureView.Fine($"{cell}/parts/{part.Id}", line.Amounts[i], part.Unit.Symbol))
            )
            .Concat(
                estimate.Reckoned.Costs.Once.Select(o =>
                    (
                        o.Part.Id,
                        View: FigureView.Fine($"work/{Trial.Work}/once/{o.Part.Id}", o.Amount, o.Part.Unit.Symbol)
                    )
                )
            )
            .DistinctBy(p => p.Id)
            .ToDictionary(p => p.Id.ToString(), p => p.View);
        var priced = estimate.Priced.FirstOrDefault();
        return new(
            parts,
            lines,
            FigureView.Money(priced is null ? estimate.Price.Direct : estimate.Price.BeforeTax),
            priced is null ? "Cost" : "Price",
            Sentence(
                priced is not null ? estimate.Price.Step("least")?.Amount.Path ?? priced.Price.Path
                : line.Item.Parts.Length > 0 ? $"{cell}/parts/{line.Item.Parts[0].Id}"
                : estimate.Price.Direct.Path
            )
        );
    }
}
