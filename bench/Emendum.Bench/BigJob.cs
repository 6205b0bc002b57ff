using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using Emendum.Storage.Demo;

namespace Emendum.Bench;

/// <summary>Made-up jobs of a given size: every work item is a rate with labour and a product, two components a cell.</summary>
internal static class BigJob
{
    /// <summary>The same rooms with assemblies of five parts: goods, a chained layer, two kinds of labour, crew-tied equipment.</summary>
    public static Job OfAssemblies(int places, int items)
    {
        var (role, goods, tower) = (
            StarterBook.Entries.OfType<LabourRole>().First(),
            StarterBook.Entries.OfType<Material>().First(),
            StarterBook.Entries.OfType<Equipment>().First()
        );
        Guid Part(int item, int n) => new($"01950000-0000-7000-8006-{item * 10 + n:D12}");
        var plain = Of(places, items);
        var assemblies = plain.Work.Select(
            (w, i) =>
            {
                var measure = i % 2 == 0 ? Measure.NetWallArea : Measure.CeilingArea;
                return new Assembly(
                    w.Entry,
                    1,
                    w.Name,
                    plain.SectionOf(w),
                    measure,
                    [
                        new(
                            Part(i, 1),
                            "Goods",
                            ComponentKind.Material,
                            goods.Id,
                            measure,
                            null,
                            null,
                            Ratio.Parse($"1 gal per {90 + i} ft²"),
                            false,
                            5
                        ),
                        new(
                            Part(i, 2),
                            "Second layer",
                            ComponentKind.Material,
                            goods.Id,
                            null,
                            Part(i, 1),
                            null,
                            Ratio.Parse("30 gal per 100 gal"),
                            true,
                            null
                        ),
                        new(
                            Part(i, 3),
                            "Lay",
                            ComponentKind.Labour,
                            role.Id,
                            measure,
                            null,
                            null,
                            Ratio.Parse($"{60 + i} ft² per h"),
                            false,
                            null
                        )
                        {
                            Scales = true,
                        },
                        new(
                            Part(i, 4),
                            "Clean",
                            ComponentKind.Labour,
                            role.Id,
                            null,
                            Part(i, 1),
                            null,
                            Ratio.Parse("4 gal per h"),
                            false,
                            null
                        ),
                        new(Part(i, 5), "Tower", ComponentKind.Equipment, tower.Id, null, null, 2, null, false, null),
                    ],
                    "",
                    ""
                )
                {
                    Levels = [new("hard", 1.3m)],
                };
            }
        );
        return plain with
        {
            Book = ImmutableDictionary.CreateRange(
                new BookEntry[] { role, goods, tower }
                    .Concat(assemblies)
                    .Select(e => KeyValuePair.Create(e.Id, e))
            ),
            Work = [.. plain.Work.Select((w, i) => w with { Difficulty = i % 3 == 0 ? "hard" : "" })],
        };
    }

    /// <summary>The same, where much hangs on something else: a door of each room leads into the next, each assembly has a charge, every second line is an allowance.</summary>
    public static Job Entangled(int places, int items)
    {
        var plain = OfAssemblies(places, items);
        var charged = plain
            .Book.Values.OfType<Assembly>()
            .Select(a =>
                KeyValuePair.Create<Guid, BookEntry>(
                    a.Id,
                    a with
                    {
                        Components =
                        [
                            .. a.Components,
                            new(
                                new($"01950000-0000-7000-8007-{a.Id.ToString()[24..]}"),
                                "Disposal",
                                ComponentKind.Charge,
                                null,
                                a.Measure,
                                null,
                                null,
                                Ratio.Parse("1 each per 100 ft²"),
                                false,
                                null
                            )
                            {
                                Charge = 4m,
                            },
                        ],
                    }
                )
            );
        return plain with
        {
            Book = plain.Book.SetItems(charged),
            Places =
            [
                .. plain.Places.Select(
                    (p, i) =>
                        i == places - 1
                            ? p
                            : p with
                            {
                                Openings = [.. p.Openings.Select(o => o with { Into = plain.Places[i + 1].Id })],
                            }
                ),
            ],
            Cells = plain.Cells.SetItems(
                plain
                    .Work.SelectMany(w => plain.Places.Where((_, i) => i % 2 == 0).Select(p => new CellKey(w.Id, p.Id)))
                    .Select(k => KeyValuePair.Create(k, plain.Cells[k] with { Allowance = 100m }))
            ),
        };
    }

    /// <summary>So many work items, each in a section of its own and at every sixth place: 500 places and 60 sections are 5,000 lines.</summary>
    public static Job OfSections(int places, int sections)
    {
        var plain = Of(places, sections);
        string? rank = null;
        Section[] own =
        [
            .. plain.Work.Select(
                (_, i) => new Section(Section.IdOf($"Own {i}"), $"Own {i}", rank = Rank.Between(rank, null))
            ),
        ];
        return plain with
        {
            Sections = [.. own],
            Work = [.. plain.Work.Select((w, i) => w with { Section = own[i].Id })],
            Cells = plain
                .Work.SelectMany(
                    (w, i) => plain.Places.Where((_, p) => p % 6 == i % 6).Select(p => new CellKey(w.Id, p.Id))
                )
                .ToImmutableDictionary(k => k, k => plain.Cells[k]),
        };
    }

    public static Job Of(int places, int items)
    {
        var (role, product) = (
            StarterBook.Entries.OfType<LabourRole>().First(),
            StarterBook.Entries.OfType<Material>().First()
        );
        var book = ImmutableDictionary.CreateBuilder<Guid, BookEntry>();
        (book[role.Id], book[product.Id]) = (role, product);
        Guid Id(int area, int n) => new($"01950000-0000-7000-8{area:D3}-{n:D12}");
        var work = ImmutableArray.CreateBuilder<WorkItem>();
        var sections = ImmutableArray.CreateBuilder<Section>();
        string? rank = null;
        for (var i = 0; i < items; i++)
        {
            var rate = new ProductionRate(
                Id(1, i),
                1,
                $"Rate {i}",
                $"Section {i / 6}",
                i % 2 == 0 ? Measure.NetWallArea : Measure.CeilingArea,
                [new(1, Ratio.Parse($"{150 + i} ft² per h")), new(2, Ratio.Parse($"{90 + i} ft² per h"))],
                role.Id,
                product.Id,
                "",
                ""
            );
            book[rate.Id] = rate;
            if (i % 6 == 0)
                sections.Add(
                    new(Section.IdOf(rate.Section), rate.Section, Rank.Between(sections.LastOrDefault()?.Rank, null))
                );
            work.Add(
                new(
                    Id(2, i),
                    rank = Rank.Between(rank, null),
                    rate.Id,
                    Section.IdOf(rate.Section),
                    rate.Name,
                    2,
                    null,
                    $"Colour {i}",
                    null,
                    ""
                )
            );
        }
        var rooms = ImmutableArray.CreateBuilder<Place>();
        var cells = ImmutableDictionary.CreateBuilder<CellKey, Cell>();
        rank = null;
        for (var p = 0; p < places; p++)
        {
            var line =
                $"Room {p} {10 + p % 20}'{p % 12} x {8 + p % 13} x {8 + p % 3}; door 3 x 6'8; window 4 x 3'6 x{1 + p % 3}";
            rooms.Add(
                TapeLine
                    .ReadOrThrow(line, UnitSystem.Feet)
                    .ToPlace(Id(3, p), $"Floor {p / 40}", rank = Rank.Between(rank, null), line)
            );
            foreach (var item in work)
                cells[new(item.Id, Id(3, p))] = new(CellState.Included, "");
        }
        return Job.Empty(
            Id(4, places * 1000 + items),
            new("Big job", "", "1", null, "Firm", "", "USD", "2026-01-15"),
            UnitSystem.Feet
        ) with
        {
            Places = rooms.ToImmutable(),
            Sections = sections.ToImmutable(),
            Work = work.ToImmutable(),
            Cells = cells.ToImmutable(),
            Book = book.ToImmutable(),
        };
    }
}
