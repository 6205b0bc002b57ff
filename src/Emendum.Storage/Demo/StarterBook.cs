using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;
using static Emendum.Storage.Demo.Entries;

namespace Emendum.Storage.Demo;

/// <summary>The made-up Books of the made-up firm Larkspur &amp; Pell Finishing: inside finishing, outside and site, services. Paces and coverages are of the size that is common
/// practice; names and prices are invented.</summary>
public static class StarterBook
{
    /// <summary>Every entry.</summary>
    public static readonly ImmutableArray<BookEntry> Entries =
    [
        .. Of(
            "Inside finishing",
            [
                .. Roles(),
                .. Materials(),
                .. Equipment(),
                .. Rates(),
                .. Assemblies(),
                .. InsideBook.Entries(),
                .. FloorsAndFilmBook.Entries(),
                .. TextsBook.Inside(),
            ]
        ),
        .. Of(
            "Outside and site",
            [.. OutsideBook.Entries(), .. FacesBook.Entries(), .. LotsBook.Entries(), .. TextsBook.Outside()]
        ),
        .. Of("Services", [.. ServicesBook.Entries(), .. GroundsBook.Entries(), .. TextsBook.Services()]),
    ];

    /// <summary>A fixed id.</summary>
    public static Guid Id(int number) => Demo.Entries.Id(number);

    private const int Painter = 1,
        Joiner = 2,
        FloorLayer = 3,
        Plasterer = 4;
    private const int Eggshell = 20,
        CeilingMatt = 21,
        WoodSatin = 22,
        SkimPlaster = 23,
        SkirtingBoard = 24,
        SheetVinyl = 25,
        SheetAdhesive = 26,
        CarpetTile = 27,
        CeilingTile = 28,
        CeilingGrid = 29,
        TileTackifier = 30,
        WindowSatin = 31;
    private const int Roller = 40,
        Tower = 41;

    private static IEnumerable<BookEntry> Roles()
    {
        return
        [
            Role(Painter, "Painter", 22.00m, 4.35m, 1.10m),
            Role(Joiner, "Joiner", 25.50m, 5.10m, 1.40m),
            Role(FloorLayer, "Floor layer", 24.00m, 4.80m, 1.25m),
            Role(Plasterer, "Plasterer", 24.50m, 5.60m, 1.20m),
        ];
    }

    private static IEnumerable<BookEntry> Materials()
    {
        static Material M(
            int id,
            string name,
            Unit unit,
            string coverage,
            string? later,
            decimal waste,
            params Pack[] packs
        ) =>
            new(
                Id(id),
                1,
                name,
                unit,
                [.. packs],
                coverage.Length == 0 ? null : R(coverage),
                later is null ? null : R(later),
                waste,
                true
            )
            {
                Supplier = id is >= 23 and <= 30 && id != 24 ? "Ropewalk Trade Supply" : "Ennis Paint Counter",
                Code = $"LP-{id:D4}",
                Category = id is < 23 or 31 ? "Paint" : "Floors and linings",
            };
        return
        [
            M(
                Eggshell,
                "Harbour eggshell",
                Unit.Gallon,
                "360 ft² per gal",
                "400 ft² per gal",
                1,
                new Pack("1 gal can", 1, 48),
                new Pack("5 gal pail", 5, 215)
            ),
            M(
                CeilingMatt,
                "Gull ceiling matt",
                Unit.Gallon,
                "350 ft² per gal",
                "380 ft² per gal",
                1,
                new Pack("1 gal can", 1, 34.50m),
                new Pack("5 gal pail", 5, 149)
            ),
            M(
                WoodSatin,
                "Wharf wood satin",
                Unit.Gallon,
                "640 ft per gal",
                "760 ft per gal",
                2,
                new Pack("1 qt tin", 0.25m, 21.80m),
                new Pack("1 gal can", 1, 62)
            ),
            M(
                WindowSatin,
                "Wharf wood satin, doors and windows",
                Unit.Gallon,
                "16 each per gal",
                "18 each per gal",
                2,
                new Pack("1 qt tin", 0.25m, 21.80m),
                new Pack("1 gal can", 1, 62)
            ),
            M(
                SkimPlaster,
                "Lime-white skim plaster",
                Unit.Pound,
                "1 ft² per 0.62 lb",
                null,
                5,
                new Pack("55 lb bag", 55, 19.40m)
            ),
            M(
                SkirtingBoard,
                "Skirting board, primed, 4 in",
                Unit.Foot,
                "1 ft per ft",
                null,
                8,
                new Pack("12 ft length", 12, 15.60m),
                new Pack("16 ft length", 16, 20.20m)
            ),
            M(
                SheetVinyl,
                "Slipway sheet flooring",
                Unit.SquareFoot,
                "",
                null,
                7,
                new Pack("by the square foot", 1, 3.95m)
            ),
            M(
                SheetAdhesive,
                "Sheet adhesive",
                Unit.Gallon,
                "",
                null,
                3,
                new Pack("1 gal tub", 1, 39),
                new Pack("4 gal pail", 4, 138)
            ),
            M(
                CarpetTile,
                "Estuary carpet tile",
                Unit.SquareFoot,
                "1 ft² per ft²",
                null,
                4,
                new Pack("case of 48 ft²", 48, 196)
            ),
            M(
                TileTackifier,
                "Carpet tile tackifier",
                Unit.Gallon,
                "",
                null,
                3,
                new Pack("1 gal tub", 1, 31),
                new Pack("4 gal pail", 4, 112)
            ),
            M(
                CeilingTile,
                "Hush acoustic tile, 2 × 2 ft",
                Unit.SquareFoot,
                "",
                null,
                6,
                new Pack("carton of 64 ft²", 64, 168)
            ),
            M(CeilingGrid, "Ceiling grid, tees", Unit.Foot, "", null, 5, new Pack("bundle of 240 ft", 240, 204)),
        ];
    }

    private static IEnumerable<BookEntry> Equipment() =>
        [
            Demo.Entries.Equipment(Roller, "Floor roller, 100 lb", 3.20m),
            Demo.Entries.Equipment(Tower, "Rolling tower", 4.75m),
        ];

    private static IEnumerable<BookEntry> Rates()
    {
        return
        [
            Rate(
                100,
                "Preparation",
                "Cover up",
                Measure.FloorArea,
                Painter,
                null,
                "Protect floors and furniture and clear up after",
                "Fleece on floors, film on shelving",
                "260 ft² per h"
            ),
            Rate(
                101,
                "Preparation",
                "Fill and sand",
                Measure.NetWallArea,
                Painter,
                null,
                "Fill, sand and dust down walls",
                "Two fills at fixings",
                "230 ft² per h"
            ),
            Rate(
                110,
                "Walls",
                "Skim coat",
                Measure.NetWallArea,
                Plasterer,
                SkimPlaster,
                "Skim walls smooth",
                "Bond coat on glossy areas",
                "0.75 h per 60 ft²"
            ),
            Rate(
                111,
                "Walls",
                "Paint",
                Measure.NetWallArea,
                Painter,
                Eggshell,
                "Paint walls, washable eggshell",
                "Cut in, then roll",
                "160 ft² per h",
                "95 ft² per h",
                "68 ft² per h"
            ) with
            {
                DryingHours = 4,
                Levels = Levels,
            },
            Rate(
                120,
                "Ceilings",
                "Paint",
                Measure.CeilingArea,
                Painter,
                CeilingMatt,
                "Paint ceilings, dead matt",
                "Roll towards the light",
                "180 ft² per h",
                "110 ft² per h",
                "80 ft² per h"
            ),
            Rate(
                130,
                "Woodwork",
                "Doors",
                Measure.DoorCount,
                Painter,
                WindowSatin,
                "Paint doors with their frames, both faces",
                "Take off furniture",
                "0.9 h per door",
                "1.5 h per door",
                "2.05 h per door"
            ),
            Rate(
                131,
                "Woodwork",
                "Windows",
                Measure.WindowCount,
                Painter,
                WindowSatin,
                "Paint windows inside",
                "Do not paint weather seals",
                "0.8 h per window",
                "1.35 h per window",
                "1.85 h per window"
            ),
            Rate(
                132,
                "Woodwork",
                "Skirting, fit",
                Measure.SkirtingLength,
                Joiner,
                SkirtingBoard,
                "Supply and fit new primed skirting",
                "Scribe to the floor",
                "1 h per 28 ft"
            ) with
            {
                Accessories = [Id(133)],
            },
            Rate(
                133,
                "Woodwork",
                "Skirting, paint",
                Measure.SkirtingLength,
                Painter,
                WoodSatin,
                "Paint skirting",
                "",
                "110 ft per h",
                "66 ft per h",
                "47 ft per h"
            ),
            Rate(
                140,
                "Floors",
                "Carpet tile",
                Measure.FloorArea,
                FloorLayer,
                CarpetTile,
                "Supply and lay carpet tile",
                "Arrows quarter-turned",
                "62 ft² per h"
            ) with
            {
                WhereNone = Measure.DevelopedArea,
            },
        ];
    }

    private static IEnumerable<BookEntry> Assemblies()
    {
        static Component C(
            int id,
            string name,
            ComponentKind kind,
            int entry,
            Measure? measure,
            int? of,
            int? crew,
            string? ratio,
            bool ordered = false,
            decimal? waste = null
        ) =>
            new(
                Id(id),
                name,
                kind,
                Id(entry),
                measure,
                of is { } o ? Id(o) : null,
                crew,
                ratio is null ? null : R(ratio),
                ordered,
                waste
            )
            {
                Scales = kind == ComponentKind.Labour,
            };
        return
        [
            new Core.Book.Assembly(
                Id(141),
                1,
                "Sheet flooring",
                "Floors",
                Measure.FloorArea,
                [
                    C(
                        300,
                        "Sheet, cut to the room",
                        ComponentKind.Material,
                        SheetVinyl,
                        Measure.FloorArea,
                        null,
                        null,
                        "1 ft² per ft²",
                        waste: 7
                    ),
                    C(
                        301,
                        "Adhesive",
                        ComponentKind.Material,
                        SheetAdhesive,
                        null,
                        300,
                        null,
                        "1 gal per 140 ft²",
                        ordered: true
                    ),
                    C(
                        302,
                        "Lay and weld",
                        ComponentKind.Labour,
                        FloorLayer,
                        Measure.FloorArea,
                        null,
                        null,
                        "48 ft² per h"
                    ),
                    C(303, "Roller, while the crew works", ComponentKind.Equipment, Roller, null, null, 2, null),
                ],
                "Supply and lay sheet flooring, seams welded",
                "Roll twice; keep the room above 64 °F"
            )
            {
                WhereNone = Measure.DevelopedArea,
            },
            new Core.Book.Assembly(
                Id(121),
                1,
                "Acoustic ceiling",
                "Ceilings",
                Measure.CeilingArea,
                [
                    C(
                        310,
                        "Tile",
                        ComponentKind.Material,
                        CeilingTile,
                        Measure.CeilingArea,
                        null,
                        null,
                        "1 ft² per ft²"
                    ),
                    C(
                        311,
                        "Grid",
                        ComponentKind.Material,
                        CeilingGrid,
                        Measure.CeilingArea,
                        null,
                        null,
                        "1.05 ft per ft²"
                    ),
                    C(
                        312,
                        "Hang grid and tile",
                        ComponentKind.Labour,
                        Joiner,
                        Measure.CeilingArea,
                        null,
                        null,
                        "34 ft² per h"
                    ),
                    C(313, "Tower, while the crew works", ComponentKind.Equipment, Tower, null, null, 2, null),
                ],
                "Supply and hang an acoustic tile ceiling",
                "Laser line first; border tiles over half"
            ),
        ];
    }
}
