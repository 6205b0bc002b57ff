using System.Collections.Immutable;
using System.Globalization;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;

namespace Emendum.Storage.Demo;

/// <summary>Short ways to write the made-up starter Books down. Every entry has a fixed number, from which its id follows.</summary>
internal static class Entries
{
    public static Guid Id(int number) => new($"01930000-0000-7000-8000-{number:D12}");

    public static Ratio R(string text) => Ratio.Parse(text);

    public static decimal N(string text) => decimal.Parse(text, CultureInfo.InvariantCulture);

    public static LabourRole Role(int id, string name, decimal wage, decimal insurance, decimal perHour) =>
        new(
            Id(id),
            1,
            name,
            wage,
            [
                new("Social insurance", 7.65m, null),
                new("Accident insurance", insurance, null),
                new("Tools and clothing", null, perHour) { FollowsPremiums = false },
            ]
        );

    /// <summary>Packs are written <c>1 gal can: 1 at 48; 5 gal pail: 5 at 215</c>.</summary>
    public static Material Material(
        int id,
        string section,
        string name,
        string unit,
        string packs,
        decimal waste = 0,
        string coverage = "",
        string later = ""
    ) =>
        new(
            Id(id),
            1,
            name,
            Unit.Find(unit)!,
            [.. packs.Split("; ", StringSplitOptions.RemoveEmptyEntries).Select(Pack)],
            coverage.Length == 0 ? null : R(coverage),
            later.Length == 0 ? null : R(later),
            waste,
            true
        )
        {
            Section = section,
        };

    private static Pack Pack(string text)
    {
        var (colon, at) = (text.LastIndexOf(':'), text.LastIndexOf(" at ", StringComparison.Ordinal));
        return new(text[..colon], N(text[(colon + 1)..at]), N(text[(at + 4)..]));
    }

    public static Equipment Equipment(int id, string name, decimal cost, EquipmentPer per = EquipmentPer.Hour) =>
        new(Id(id), 1, name, cost) { Per = per, Section = "Equipment" };

    /// <summary>Paces for 1, 2, 3 … coats.</summary>
    public static ProductionRate Rate(
        int id,
        string section,
        string name,
        Measure measure,
        int role,
        int? product,
        string wording,
        string crew,
        params string[] paces
    ) =>
        new(
            Id(id),
            1,
            name,
            section,
            measure,
            [.. paces.Select((pace, i) => new CoatsPace(i + 1, R(pace)))],
            Id(role),
            product is { } p ? Id(p) : null,
            wording,
            crew
        );

    public static Question Ask(
        int id,
        int index,
        string text,
        string unit,
        decimal usual,
        Measure? from = null,
        bool once = false
    ) => new(Id(id * 100 + 80 + index), text, Unit.Find(unit)!, usual, from) { Once = once };

    /// <summary>A part of assembly <paramref name="id"/>. It is driven by a measure's name, <c>q1</c> (the first question), <c>of 2</c> (the second part), <c>crew 3</c> or <c>once</c>. Options, apart by <c>;</c>:
    /// waste, step, depth, compaction, charge with <c>=</c>; either-or groups as <c>group=NAME</c>; ordered, optional, scales, percoat, coloured, depthq1.</summary>
    public static Component Part(
        int id,
        int index,
        ComponentKind kind,
        string name,
        int entry,
        string driver,
        string ratio = "",
        string options = ""
    )
    {
        var part = new Component(
            Id(id * 100 + index),
            name,
            kind,
            entry == 0 ? null : Id(entry),
            Measures.Find(driver),
            driver.StartsWith("of ", StringComparison.Ordinal) ? Id(id * 100 + (int)N(driver[3..])) : null,
            driver.StartsWith("crew ", StringComparison.Ordinal) ? (int)N(driver[5..]) : null,
            ratio.Length == 0 ? null : R(ratio),
            false,
            null
        )
        {
            Question =
                driver[0] == 'q' && char.IsAsciiDigit(driver[^1]) ? Id(id * 100 + 80 + (int)N(driver[1..])) : null,
            Once = driver == "once",
            Scales = kind == ComponentKind.Labour,
        };
        foreach (
            var option in options.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
        )
        {
            var (key, value) = option.IndexOf('=') is var at and > 0
                ? (option[..at], option[(at + 1)..])
                : (option, "");
            part = key switch
            {
                "waste" => part with { WastePercent = N(value) },
                "step" => part with { Step = N(value) },
                "depth" => part with { Depth = value },
                "depthq1" => part with { DepthAsked = Id(id * 100 + 81) },
                "compaction" => part with { CompactionPercent = N(value) },
                "charge" => part with { Charge = N(value) },
                "group" => part with { Group = value },
                "ordered" => part with { AsOrdered = true },
                "optional" => part with { Optional = true },
                "percoat" => part with { PerCoat = true },
                "coloured" => part with { Coloured = true },
                "fixed" => part with { Scales = false },
                _ => throw new ArgumentException(option),
            };
        }
        return part;
    }

    public static Assembly Assembly(
        int id,
        string section,
        string name,
        Measure measure,
        string wording,
        string crew,
        params Component[] parts
    ) => new(Id(id), 1, name, section, measure, [.. parts], wording, crew);

    public static readonly ImmutableArray<Level> Levels =
    [
        new("straight", 0.85m),
        new("ordinary", 1m),
        new("fiddly", 1.35m),
    ];

    public static PriceOnlyItem Sold(
        int id,
        string section,
        string name,
        Measure measure,
        string unit,
        decimal price,
        string wording,
        string crew
    ) => new(Id(id), 1, name, section, measure, Unit.Find(unit)!, price, wording, crew);

    public static BookText Text(int id, string name, TextUse use, string body) =>
        new(Id(id), 1, name, use, body.ReplaceLineEndings("\n")) { Section = "Texts" };

    public static BookEntry[] Of(string trade, IEnumerable<BookEntry> entries) =>
        [
            .. entries.Select(e =>
                e with
                {
                    Trade = trade,
                    Source =
                        e is WorkEntry and not PriceOnlyItem or SurfaceFactor or Condition or SetUp ? "common practice"
                        : e is Material { Coverage: not null } ? "coverage: common practice; price: made up"
                        : e is BookText ? null
                        : "made up",
                    Section =
                        e.Section.Length > 0 ? e.Section
                        : e is LabourRole ? "Labour"
                        : e is Material ? "Materials"
                        : e.Section,
                }
            ),
        ];
}
