using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using static Emendum.Storage.Demo.Entries;

namespace Emendum.Storage.Demo;

/// <summary>Lots and drives: crack filling, sealer mixed on the spot, stone and surfacing by depth; signs and lettering.</summary>
internal static class LotsBook
{
    private const int Coater = 8,
        Paver = 9,
        SignMaker = 13;
    private const string Loose = "Stone and binders",
        Coatings = "Outside coatings",
        Signs = "Sign goods";

    public static IEnumerable<BookEntry> Entries() => [.. Goods(), .. Lots(), .. SignWork()];

    private static IEnumerable<BookEntry> Goods() =>
        [
            Role(SignMaker, "Sign maker", 24.20m, 3.40m, 1.00m),
            Material(
                3060,
                Coatings,
                "Crack filler, pourable",
                "gal",
                "1 gal jug: 1 at 17.60; 5 gal pail: 5 at 76",
                5,
                "75 ft per gal"
            ),
            Material(3061, Coatings, "Oil spot primer", "gal", "5 gal pail: 5 at 96", 5, "200 ft² per gal"),
            // Spread at a little over a tenth of a gallon to the square yard; water, sand and additive as sealer makers commonly say.
            Material(
                3062,
                Coatings,
                "Lot sealer, mixed on the spot",
                "gal",
                "",
                3,
                "70 ft² per gal",
                "90 ft² per gal"
            ) with
            {
                Mix = new(
                    Id(3025),
                    [
                        new(null, "Water", "25 %", false),
                        new(Id(3027), "", "2 %", false),
                        new(Id(3026), "", "3 lb per gal", false),
                    ]
                ),
            },
            Material(3063, Loose, "Crusher run", "ton", "by the ton: 1 at 29.50", 5) with
            {
                Rules = new(10, 85, 0),
                Supplier = "Headland Aggregates",
                Code = "HA-34",
            },
            Equipment(3064, "Crack router", 46, EquipmentPer.Day),
            Equipment(3065, "Print and cut table", 11.50m),
            Material(3070, Signs, "Aluminium panel, 4 × 8 ft", "sheet", "sheet: 1 at 92", 8),
            Material(3071, Signs, "Print film", "ft²", "roll, 54 in × 150 ft: 675 at 395", 12),
            Material(3072, Signs, "Laminate, matt", "ft²", "roll, 54 in × 150 ft: 675 at 270", 12),
            Material(3073, Signs, "Edge trim", "ft", "8 ft length: 8 at 11.60", 10),
            Material(3074, Signs, "Fixings for a sign", "kit", "kit: 1 at 6.90", 0),
            Material(3075, Signs, "Transfer tape", "ft²", "roll of 900 ft²: 900 at 118", 10),
        ]; // csharpier-ignore

    private static IEnumerable<BookEntry> Lots() =>
        [
            Rate(
                3140,
                "Lots",
                "Fill cracks",
                Measure.Length,
                Coater,
                3060,
                "Clean out and fill cracks",
                "Blow them dry; two passes where it sinks",
                "110 ft per h"
            ) with
            {
                DryingHours = 4,
            },
            Rate(
                3141,
                "Lots",
                "Prime oil spots",
                Measure.Area,
                Coater,
                3061,
                "Prime oil spots before sealing",
                "Scrape and burn off first",
                "140 ft² per h"
            ) with
            {
                DryingHours = 1,
            },
            Rate(
                3142,
                "Lots",
                "Seal lot",
                Measure.Area,
                Coater,
                3062,
                "Seal the lot against water and oil",
                "Stir all day; cut in at kerbs by hand; shut for a day",
                "520 yd² per h",
                "280 yd² per h"
            ) with
            {
                CountedIn = Unit.SquareYard,
                DryingHours = 8,
            },
            Assembly(
                3220,
                "Lots",
                "Stone base, by depth",
                Measure.Area,
                "Lay and compact a stone base",
                "In layers of at most four inches",
                Part(
                    3220,
                    1,
                    ComponentKind.Material,
                    "Crusher run",
                    3063,
                    "area",
                    "1.4 ton per yd³",
                    "depthq1;compaction=15"
                ),
                Part(3220, 2, ComponentKind.Labour, "Spread and grade", Paver, "of 1", "3.5 ton per h", "ordered"),
                Part(3220, 3, ComponentKind.Equipment, "Roller", 3042, "crew 3")
            ) with
            {
                Questions = [Ask(3220, 1, "Depth of stone", "in", 6)],
                CountedIn = Unit.SquareYard,
            },
            Assembly(
                3221,
                "Lots",
                "Patch, cut out and fill",
                Measure.Area,
                "Cut out broken surfacing and patch it",
                "Square the edges; tack them",
                Part(3221, 1, ComponentKind.Material, "Mix", 3009, "area", "145 lb per ft³", "depthq1;waste=8"),
                Part(3221, 2, ComponentKind.Material, "Tack coat", 3010, "area", "1 gal per 10 yd²"),
                Part(3221, 3, ComponentKind.Labour, "Cut out and load", Paver, "area", "45 ft² per h"),
                Part(3221, 4, ComponentKind.Labour, "Fill and tamp", Paver, "of 1", "0.6 ton per h", "ordered"),
                Part(3221, 5, ComponentKind.Equipment, "Plate compactor", 3041, "crew 2")
            ) with
            {
                Questions = [Ask(3221, 1, "Depth of the patch", "in", 3)],
            },
        ]; // csharpier-ignore

    private static IEnumerable<BookEntry> SignWork() =>
        [
            Assembly(
                3230,
                "Signs",
                "Panel sign, made and hung",
                Measure.Count,
                "Make and hang panel signs with printed, laminated faces and trimmed edges",
                "Proof signed before printing; level, and as high as the drawing says",
                Part(3230, 1, ComponentKind.Material, "Panel", 3070, "q1", "1 sheet per 32 ft²"),
                Part(3230, 2, ComponentKind.Material, "Print film", 3071, "q1", "1 ft² per ft²"),
                Part(3230, 3, ComponentKind.Material, "Laminate", 3072, "of 2", "1 ft² per ft²"),
                Part(3230, 4, ComponentKind.Material, "Edge trim", 3073, "q2", "1 ft per ft"),
                Part(3230, 5, ComponentKind.Material, "Fixings", 3074, "count", "1 kit per sign"),
                Part(3230, 6, ComponentKind.Labour, "Print, laminate, mount", SignMaker, "q1", "16 ft² per h"),
                Part(3230, 7, ComponentKind.Labour, "Hang", SignMaker, "count", "0.75 h per sign"),
                Part(3230, 8, ComponentKind.Equipment, "Print and cut table", 3065, "of 6", "1 h per h")
            ) with
            {
                Questions =
                [
                    Ask(3230, 1, "Area of the signs here, together", "ft²", 12),
                    Ask(3230, 2, "Edges of the signs here, together", "ft", 14),
                ],
            },
            Assembly(
                3231,
                "Signs",
                "Cut lettering",
                Measure.Count,
                "Cut and apply film lettering",
                "Clean the ground with alcohol; no wind",
                Part(3231, 1, ComponentKind.Material, "Film", 3071, "count", "0.6 ft² per letter"),
                Part(3231, 2, ComponentKind.Material, "Transfer tape", 3075, "of 1", "1 ft² per ft²"),
                Part(3231, 3, ComponentKind.Labour, "Cut and weed", SignMaker, "count", "24 letter per h"),
                Part(3231, 4, ComponentKind.Labour, "Set out and apply", SignMaker, "count", "18 letter per h")
            ),
        ]; // csharpier-ignore
}
