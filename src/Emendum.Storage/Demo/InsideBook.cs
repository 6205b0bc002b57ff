using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;
using static Emendum.Storage.Demo.Entries;

namespace Emendum.Storage.Demo;

/// <summary>More of the inside finishing Book: tile, panels, boards, resin, film, papering, wood floors, strip-out.</summary>
internal static class InsideBook
{
    private const int Painter = 1,
        Joiner = 2,
        FloorLayer = 3,
        Plasterer = 4,
        Tiler = 5,
        FilmFitter = 6,
        Labourer = 7;
    private const string Tiles = "Tile goods",
        Boards = "Boards and panels",
        Paints = "Paint",
        FloorGoods = "Floor goods";

    public static IEnumerable<BookEntry> Entries() =>
        [
            .. Labour(),
            .. Goods(),
            .. Plant(),
            .. Rates(),
            .. Tiling(),
            .. Linings(),
            .. Floors(),
            .. Removal(),
            .. PriceOnly(),
            .. Around(),
        ];

    private static IEnumerable<BookEntry> Labour() =>
        [
            Role(Tiler, "Tiler", 26.20m, 4.95m, 1.55m),
            Role(FilmFitter, "Film fitter", 23.40m, 3.10m, 0.80m),
            Role(Labourer, "Labourer", 17.80m, 6.20m, 0.90m) with
            {
                Premiums = [new("Saturdays", 1.5m, 8)],
                SellRate = 44,
            },
        ];

    private static IEnumerable<BookEntry> Goods() =>
        [
            Material(2001, Tiles, "Glazed wall tile, 6 × 6 in", "ft²", "carton: 12.5 at 61.25", 8) with
            {
                Supplier = "Slate Lane Tiles",
                Code = "SL-0660",
                Rules = new(0, 55, 3),
            },
            Material(2002, Tiles, "Wall tile adhesive, powder", "lb", "50 lb bag: 50 at 27.90", 4) with
            {
                Supplier = "Slate Lane Tiles",
                Code = "SL-1002",
                Rules = new(0, 55, 0),
            },
            Material(2003, Tiles, "Fine grout", "kg", "5 kg bag: 5 at 16.40; 10 kg bag: 10 at 27", 5) with
            {
                Supplier = "Slate Lane Tiles",
                Code = "SL-1105",
                Density = R("1.6 kg per L"),
            },
            Material(2004, Tiles, "Tile edge, satin aluminium", "ft", "8 ft length: 8 at 14.80", 6) with
            {
                Stock = [new("length", "", "8 ft")],
            },
            Material(2005, Tiles, "Tile edge, white PVC", "ft", "8 ft length: 8 at 5.20", 6),
            Material(
                2006,
                Paints,
                "Stain-block primer",
                "gal",
                "1 gal can: 1 at 41; 5 gal pail: 5 at 184",
                2,
                "320 ft² per gal"
            ) with
            {
                SolidsPercent = 42,
                DryFilm = "1.6 mil",
                Supplier = "Ennis Paint Counter",
                Code = "LP-2006",
            },
            Material(
                2007,
                "Wallcovering",
                "Fleece wallcovering",
                "roll",
                "roll of 57 ft²: 1 at 38.50",
                12,
                "1 roll per 52 ft²"
            ),
            Material(2030, "Wallcovering", "Patterned paper, 0.53 × 10.05 m", "roll", "roll: 1 at 44") with
            {
                Stock = [new("roll", "0.53 m", "10.05 m")],
                Category = "Wallcovering",
            },
            Material(2008, "Wallcovering", "Wallcovering paste", "gal", "2 gal tub: 2 at 29.50", 3),
            Material(2009, Boards, "Hygienic wall panel, 4 × 8 ft", "sheet", "sheet: 1 at 118", 10) with
            {
                Stock = [new("sheet", "4 ft", "8 ft")],
            },
            Material(2010, Boards, "Panel adhesive", "tube", "tube: 1 at 7.90; box of 12: 12 at 84", 5),
            Material(2011, Boards, "Panel joint strip", "ft", "10 ft length: 10 at 13.60", 8),
            Material(2012, Boards, "Gypsum board, 1/2 in, 4 × 8 ft", "ft²", "sheet: 32 at 17.30", 10) with
            {
                Stock = [new("sheet", "4 ft", "8 ft")],
                Rules = new(320, 70, 0),
            },
            Material(2013, Boards, "Board screws", "lb", "5 lb box: 5 at 21", 5),
            Material(2014, Boards, "Joint compound", "gal", "4.5 gal pail: 4.5 at 22.75", 8),
            Material(2015, Boards, "Joint tape", "ft", "roll of 500 ft: 500 at 6.80", 5),
            Material(2016, Boards, "Corner bead", "ft", "10 ft length: 10 at 4.95", 7),
            Material(2017, FloorGoods, "Floor leveller", "lb", "50 lb bag: 50 at 36.50", 5) with
            {
                Density = R("1.75 t per m³"),
            },
            Material(2018, FloorGoods, "Oak floor board, 5 in", "ft²", "bundle: 19.5 at 148.20", 9) with
            {
                Colour = "natural",
            },
            Material(
                2019,
                FloorGoods,
                "Hardwax floor oil",
                "gal",
                "1 L tin: 0.264172 at 46; 2.5 L tin: 0.66043 at 104",
                2,
                "880 ft² per gal",
                "1100 ft² per gal"
            ),
            Material(2020, FloorGoods, "Resin floor, base", "gal", "4 gal pail: 4 at 252; 1 gal can: 1 at 69", 4),
            Material(2021, FloorGoods, "Resin floor, hardener", "gal", "1 gal can: 1 at 78", 4),
            Material(2022, FloorGoods, "Quartz sand, 0.4 to 0.8 mm", "lb", "55 lb bag: 55 at 14.20", 6),
            Material(2023, FloorGoods, "Floor thinner", "gal", "1 gal can: 1 at 24", 0) with
            {
                Taxed = true,
                PriceIncludesTax = true,
            },
            Material(2024, "Film", "Frosted window film", "ft²", "roll of 4 × 50 ft: 200 at 330", 12) with
            {
                Stock = [new("roll", "4 ft", "50 ft"), new("roll", "5 ft", "50 ft")],
            },
            Material(2025, "Film", "Film fitting fluid", "floz", "32 oz bottle: 32 at 9.60", 0),
            Material(
                2026,
                "Trim",
                "Crown moulding, primed, 3 1/2 in",
                "ft",
                "16 ft length: 16 at 31.40",
                9,
                "1 ft per ft"
            ),
            Material(
                2027,
                "Trim",
                "Decorator's caulk",
                "tube",
                "tube: 1 at 3.45; box of 24: 24 at 71",
                0,
                "1 tube per 55 ft"
            ),
            Material(
                2028,
                Paints,
                "Radiator enamel",
                "qt",
                "1 qt tin: 1 at 27.60",
                3,
                "5 each per qt",
                "6 each per qt"
            ),
            Material(
                2029,
                "Removal",
                "Skip, 6 yd³, with haulage",
                "yd³",
                "skip: 6 at 315; small skip: 3 at 198",
                0
            ) with
            {
                Taxed = false,
            },
        ];

    private static IEnumerable<BookEntry> Plant() =>
        [
            Equipment(2040, "Tile saw", 38, EquipmentPer.Day),
            Equipment(2041, "Dust extractor", 2.60m),
            Equipment(2042, "Scissor lift", 165, EquipmentPer.Day),
            Equipment(2043, "Floor sander with edger", 92, EquipmentPer.Visit),
            new Subcontract(Id(2045), 1, "Asbestos survey", Unit.Each, 480, true) { Section = "Subcontract" },
            new Subcontract(Id(2046), 1, "Tipping, mixed rubble", Unit.ShortTon, 92, false) { Section = "Subcontract" },
        ];

    private static IEnumerable<BookEntry> Rates() =>
        [
            Rate(
                2101,
                "Walls",
                "Block stains",
                Measure.NetWallArea,
                Painter,
                2006,
                "Seal stained and patched walls",
                "Only where marked; cut in tight",
                "210 ft² per h"
            ),
            Rate(
                2102,
                "Walls",
                "Hang fleece",
                Measure.NetWallArea,
                Painter,
                2007,
                "Hang fleece wallcovering, seams tight",
                "Paste the wall",
                "0.9 h per 50 ft²"
            ) with
            {
                Accessories = [Id(2101)],
            },
            Rate(
                2103,
                "Trim",
                "Caulk joints",
                Measure.SkirtingLength,
                Painter,
                2027,
                "Caulk open joints at trim",
                "Smooth it once; paint the day after",
                "90 ft per h"
            ),
            Rate(
                2104,
                "Trim",
                "Crown, fit",
                Measure.CorniceLength,
                Joiner,
                2026,
                "Supply and fit primed crown moulding",
                "Cope inside corners",
                "1 h per 16 ft"
            ) with
            {
                Levels = Levels,
                Accessories = [Id(2103)],
            },
            Rate(
                2105,
                "Woodwork",
                "Doors, hang",
                Measure.DoorCount,
                Joiner,
                null,
                "Hang doors on new hinges",
                "Three hinges from 7 ft up",
                "1.75 h per door"
            ) with
            {
                Levels = [new("hollow", 0.8m), new("solid", 1), new("fire-rated", 1.3m)],
            },
            Rate(
                2106,
                "Heating",
                "Radiators, enamel",
                Measure.Count,
                Painter,
                2028,
                "Paint radiators, heat-proof enamel",
                "Cold and off",
                "0.9 h per each",
                "1.5 h per each"
            ),
            Rate(
                2107,
                "Floors",
                "Wood floor, sand",
                Measure.FloorArea,
                FloorLayer,
                null,
                "Sand wood floors in three passes",
                "36, 60, 100 grit; edges by hand",
                "55 ft² per h"
            ),
            Rate(
                2108,
                "Floors",
                "Wood floor, oil",
                Measure.FloorArea,
                FloorLayer,
                2019,
                "Oil wood floors",
                "No foot traffic overnight",
                "260 ft² per h",
                "150 ft² per h"
            ) with
            {
                DryingHours = 10,
            },
            Rate(
                2109,
                "Stairs",
                "Treads and risers, paint",
                Measure.DevelopedArea,
                Painter,
                null,
                "Paint treads and risers",
                "Every second tread per day",
                "75 ft² per h",
                "42 ft² per h"
            ),
            Rate(
                2110,
                "Cleaning up",
                "Handover clean",
                Measure.FloorArea,
                Labourer,
                null,
                "Leave rooms swept and wiped",
                "Sills and sockets too; take all waste along",
                "0.35 h per 100 ft²"
            ) with
            {
                Hidden = true,
            },
            Rate(
                2111,
                "Reveals",
                "Reveals, make good",
                Measure.RevealLength,
                Plasterer,
                null,
                "Make good window and door reveals",
                "Square to the frame",
                "1 h per 14 ft"
            ),
        ];

    private static IEnumerable<BookEntry> Tiling() =>
        [
            Assembly(
                2201,
                "Walls",
                "Wall tile",
                Measure.NetWallArea,
                "Tile walls with glazed tile, joints grouted",
                "Set out from the window; full tiles at eye level",
                Part(2201, 1, ComponentKind.Material, "Tile", 2001, "netWallArea", "1 ft² per ft²", "coloured"),
                Part(2201, 2, ComponentKind.Material, "Adhesive", 2002, "of 1", "1.1 lb per ft²"),
                // (152 + 152) ÷ (152 · 152) · 3 mm · 6 mm · 1.6 kg/L = 0.379 kg/m²: the formula printed by grout makers (from memory).
                Part(2201, 3, ComponentKind.Material, "Grout", 2003, "of 1", "0.379 kg per m²"),
                Part(2201, 4, ComponentKind.Labour, "Set tile", Tiler, "netWallArea", "14 ft² per h"),
                Part(2201, 5, ComponentKind.Labour, "Grout and wash", Tiler, "netWallArea", "55 ft² per h"),
                Part(
                    2201,
                    6,
                    ComponentKind.Material,
                    "Edge, aluminium",
                    2004,
                    "q1",
                    "1 ft per ft",
                    "group=Edge; step=1"
                ),
                Part(2201, 7, ComponentKind.Material, "Edge, white", 2005, "q1", "1 ft per ft", "group=Edge"),
                Part(2201, 8, ComponentKind.Equipment, "Tile saw", 2040, "crew 1")
            ) with
            {
                Questions = [Ask(2201, 1, "Open tile edges", "ft", 16)],
                Levels = Levels,
                DryingHours = 24,
                Surface = null,
            },
            Assembly(
                2203,
                "Walls",
                "Patterned paper, in drops",
                Measure.Perimeter,
                "Hang patterned wallcovering, straight match",
                "Plumb every third drop",
                Part(2203, 1, ComponentKind.Material, "Rolls", 2030, "perimeter") with
                {
                    Drops = new("0.53 m", "10.05 m", "10 cm", "32 cm", Id(2203 * 100 + 81)),
                },
                Part(2203, 2, ComponentKind.Material, "Paste", 2008, "of 1", "1 gal per 9 roll"),
                Part(2203, 3, ComponentKind.Labour, "Hang", Painter, "of 1", "1.1 h per roll")
            ) with
            {
                Questions = [Ask(2203, 1, "Height of a drop", "ft", 8)],
                Levels = Levels,
                DryingHours = 12,
            },
            Assembly(
                2202,
                "Walls",
                "Splashback",
                Measure.Length,
                "Tile a splashback two feet high",
                "Start from the middle; whole tiles at the top",
                Part(2202, 1, ComponentKind.Material, "Tile", 2001, "length", "2 ft² per ft", "coloured"),
                Part(2202, 2, ComponentKind.Material, "Adhesive", 2002, "of 1", "1.1 lb per ft²", "ordered"),
                Part(2202, 3, ComponentKind.Labour, "Set and grout", Tiler, "of 1", "9 ft² per h", "step=0.25"),
                Part(2202, 4, ComponentKind.Charge, "Socket cut-outs", 0, "q1", "1 each per each", "charge=12.50")
            ) with
            {
                Questions = [Ask(2202, 1, "Sockets to cut round", "each", 2)],
                Step = 0.5m,
            },
        ];

    private static IEnumerable<BookEntry> Linings() =>
        [
            Assembly(
                2210,
                "Walls",
                "Hygienic panels",
                Measure.NetWallArea,
                "Line walls with hygienic panels, joints sealed",
                "Leave 1/8 in at floor and ceiling",
                Part(2210, 1, ComponentKind.Material, "Panel", 2009, "netWallArea", "1 sheet per 32 ft²"),
                Part(2210, 2, ComponentKind.Material, "Adhesive", 2010, "of 1", "2.5 tube per sheet", "ordered"),
                Part(2210, 3, ComponentKind.Material, "Joint strip", 2011, "of 1", "9 ft per sheet", "ordered"),
                Part(2210, 4, ComponentKind.Labour, "Fit panels", Joiner, "netWallArea", "22 ft² per h"),
                Part(2210, 5, ComponentKind.Labour, "Corner trims", Joiner, "cornerCount", "0.4 h per corner"),
                Part(
                    2210,
                    6,
                    ComponentKind.Material,
                    "Sealant at the base",
                    2027,
                    "skirtingLength",
                    "1 tube per 40 ft",
                    "optional"
                )
            ),
            Assembly(
                2211,
                "Ceilings",
                "Board and joint",
                Measure.CeilingArea,
                "Board ceilings with gypsum board, joints taped and sanded",
                "Stagger butt joints",
                Part(2211, 1, ComponentKind.Material, "Board", 2012, "ceilingArea", "1 ft² per ft²"),
                Part(2211, 2, ComponentKind.Material, "Screws", 2013, "of 1", "1 lb per 100 ft²", "ordered"),
                Part(2211, 3, ComponentKind.Material, "Compound", 2014, "of 1", "0.94 gal per 100 ft²"),
                Part(2211, 4, ComponentKind.Material, "Tape", 2015, "of 1", "37 ft per 100 ft²"),
                Part(2211, 5, ComponentKind.Labour, "Board", Joiner, "ceilingArea", "48 ft² per h"),
                Part(2211, 6, ComponentKind.Labour, "Joint and sand", Plasterer, "ceilingArea", "40 ft² per h"),
                Part(2211, 7, ComponentKind.Equipment, "Scissor lift", 2042, "crew 2", "", "")
            ) with
            {
                Accessories = [Id(120)],
                DryingHours = 16,
                Levels = Levels,
            },
            Assembly(
                2212,
                "Walls",
                "Corner beads",
                Measure.CornerCount,
                "Fit corner beads, filled flush",
                "Plumb before filling",
                Part(2212, 1, ComponentKind.Material, "Bead", 2016, "q1", "1 ft per ft"),
                Part(2212, 2, ComponentKind.Material, "Compound", 2014, "of 1", "1 gal per 90 ft", "ordered"),
                Part(2212, 3, ComponentKind.Labour, "Fix and fill", Plasterer, "of 1", "18 ft per h")
            ) with
            {
                Questions = [Ask(2212, 1, "Length of outside corners", "ft", 24)],
            },
            Assembly(
                2213,
                "Glazing film",
                "Frosted film",
                Measure.GlassArea,
                "Supply and fit frosted film on glass",
                "Wash twice; no lint",
                // Bleed on every edge and off-cuts; common practice.
                Part(2213, 1, ComponentKind.Material, "Film", 2024, "glassArea", "1 ft² per ft²", "waste=15"),
                Part(2213, 3, ComponentKind.Material, "Fluid", 2025, "of 1", "1.2 floz per 10 ft²"),
                Part(2213, 4, ComponentKind.Labour, "Clean and fit", FilmFitter, "glassArea", "20 ft² per h")
            ) with
            {
                Levels = [new("large panes", 0.8m), new("ordinary", 1), new("small panes", 1.5m)],
            },
        ];

    private static IEnumerable<BookEntry> Floors() =>
        [
            Assembly(
                2220,
                "Floors",
                "Levelling layer",
                Measure.FloorArea,
                "Level floors with a flowing compound",
                "Prime the night before; gauge pins at six feet",
                Part(2220, 1, ComponentKind.Material, "Leveller", 2017, "floorArea", "1.75 t per m³", "depthq1"),
                Part(2220, 2, ComponentKind.Labour, "Mix and pour", FloorLayer, "of 1", "420 lb per h", "ordered"),
                Part(2220, 3, ComponentKind.Labour, "Prime", FloorLayer, "floorArea", "350 ft² per h")
            ) with
            {
                Questions = [Ask(2220, 1, "Mean thickness", "in", 0.25m)],
                DryingHours = 12,
            },
            Assembly(
                2221,
                "Floors",
                "Resin floor, broadcast",
                Measure.FloorArea,
                "Lay a seamless resin floor with quartz, sealed",
                "Check moisture first; spiked shoes",
                Part(
                    2221,
                    1,
                    ComponentKind.Material,
                    "Base",
                    2020,
                    "floorArea",
                    "1 gal per 90 ft²",
                    "percoat; coloured"
                ),
                Part(2221, 2, ComponentKind.Material, "Hardener", 2021, "of 1", "50 gal per 100 gal", "ordered"),
                Part(2221, 3, ComponentKind.Material, "Thinner", 2023, "of 1", "5 gal per 100 gal"),
                Part(2221, 4, ComponentKind.Material, "Quartz", 2022, "of 1", "18 lb per gal"),
                Part(2221, 5, ComponentKind.Labour, "Grind and clean", FloorLayer, "floorArea", "95 ft² per h"),
                Part(
                    2221,
                    6,
                    ComponentKind.Labour,
                    "Mix and spread",
                    FloorLayer,
                    "floorArea",
                    "1 h per 80 ft²",
                    "percoat"
                ),
                Part(
                    2221,
                    7,
                    ComponentKind.Labour,
                    "Coved edge",
                    FloorLayer,
                    "skirtingLength",
                    "1 h per 20 ft",
                    "optional"
                ),
                Part(2221, 8, ComponentKind.Equipment, "Dust extractor", 2041, "crew 2")
            ) with
            {
                Coats = 2,
                DryingHours = 12,
                Levels = Levels,
            },
            Assembly(
                2222,
                "Floors",
                "Oak boards",
                Measure.FloorArea,
                "Lay oak boards, glued down",
                "Rack out of four bundles",
                Part(2222, 1, ComponentKind.Material, "Boards", 2018, "floorArea", "1 ft² per ft²"),
                Part(2222, 2, ComponentKind.Labour, "Lay", FloorLayer, "floorArea", "19 ft² per h"),
                Part(2222, 3, ComponentKind.Labour, "Undercut doors", Joiner, "doorCount", "0.5 h per door", "fixed"),
                Part(2222, 4, ComponentKind.Equipment, "Sander, one visit", 2043, "once", "", "optional")
            ) with
            {
                Accessories = [Id(2108), Id(132)],
                Levels = Levels,
            },
        ];

    private static IEnumerable<BookEntry> Removal() =>
        [
            Assembly(
                2230,
                "Strip-out",
                "Old floor, take up",
                Measure.FloorArea,
                "Take up and dispose of the old floor covering",
                "Bag what is loose; mind the screed",
                Part(2230, 1, ComponentKind.Labour, "Take up", Labourer, "floorArea", "60 ft² per h"),
                Part(
                    2230,
                    2,
                    ComponentKind.Material,
                    "Skip",
                    2029,
                    "floorArea",
                    "1 yd³ per yd³",
                    "depthq1; compaction=45"
                ),
                Part(2230, 3, ComponentKind.Subcontract, "Tipping", 2046, "floorArea", "0.9 t per m³", "depthq1"),
                Part(2230, 4, ComponentKind.Subcontract, "Survey", 2045, "once", "", "optional")
            ) with
            {
                WhereNone = Measure.DevelopedArea,
                Questions = [Ask(2230, 1, "Thickness taken up", "in", 0.5m)],
                Hazard = "Was the old covering, with its glue, tested for asbestos?",
            },
            Assembly(
                2231,
                "Strip-out",
                "Old plaster, hack off",
                Measure.NetWallArea,
                "Hack off loose plaster and cart away",
                "Dust sheets at every door",
                Part(2231, 1, ComponentKind.Labour, "Hack off", Labourer, "netWallArea", "26 ft² per h"),
                Part(
                    2231,
                    2,
                    ComponentKind.Material,
                    "Skip",
                    2029,
                    "netWallArea",
                    "1 yd³ per yd³",
                    "depth=0.75 in; compaction=60"
                ),
                Part(2231, 3, ComponentKind.Equipment, "Dust extractor", 2041, "crew 1"),
                Part(2231, 4, ComponentKind.Charge, "Dust wall and mats", 0, "once", "", "charge=85")
            ) with
            {
                Hazard = "Is there lead paint or asbestos behind?",
                Levels = Levels,
            },
        ];

    private static IEnumerable<BookEntry> PriceOnly() =>
        [
            Sold(
                2301,
                "Consulting",
                "Colour consultation",
                Measure.Count,
                "each",
                38,
                "Colour advice on site, with sample boards",
                "Bring the boards and the fan of the day"
            ) with
            {
                BreakKind = BreakKind.Packages,
                Breaks = [new(2, 90), new(3, 125)],
            },
            Sold(
                2302,
                "Signs",
                "Notice board, oiled frame",
                Measure.Count,
                "each",
                215,
                "Make and hang a notice board with an oiled frame",
                "Level; the top at five feet six"
            ) with
            {
                BreakKind = BreakKind.Whole,
                Breaks = [new(4, 189)],
                NeverMoreThanNext = true,
            },
            Sold(
                2303,
                "Walls",
                "Lettering on walls",
                Measure.Length,
                "ft",
                14.50m,
                "Paint lettering on prepared walls",
                "Set out in chalk; have it seen before painting"
            ) with
            {
                BreakKind = BreakKind.Slices,
                Breaks = [new(20, 12), new(60, 10.50m)],
                Minimum = 120,
            },
        ];

    private static IEnumerable<BookEntry> Around() =>
        [
            new Condition(
                Id(2401),
                1,
                "occupied",
                "People live or work there: moving, covering and clearing every day",
                1.15m,
                1,
                1
            )
            {
                Section = "Conditions",
            },
            new Condition(Id(2402), 1, "night work", "Work after hours, by lamps", 1.22m, 1, 1)
            {
                Section = "Conditions",
            },
            new Condition(Id(2403), 1, "slow access", "Stairs only, or a long carry", 1.1m, 1.05m, 1)
            {
                Section = "Conditions",
            },
            new Condition(Id(2404), 1, "above 10 ft", "From towers and planks", 1.3m, 1, 1.02m)
            {
                Section = "Conditions",
            },
            new SurfaceFactor(Id(2411), 1, "Heavy texture", 1.12m, 0.8m) { Section = "Surfaces" },
            new SurfaceFactor(Id(2412), 1, "Panelled, both faces", 2.2m, 1) { Section = "Surfaces" },
            new SurfaceFactor(Id(2413), 1, "Thirsty new plaster", 1, 0.75m) { Section = "Surfaces" },
            new SetUp(
                Id(2421),
                1,
                "In Port Ennis",
                Id(Labourer),
                25,
                TravelPer.CrewDay,
                9,
                DistanceUnit.Mile,
                20,
                0.85m
            )
            {
                Section = "Set-up and travel",
            },
            Text(
                2431,
                "Rooms are cleared",
                TextUse.Exclusions,
                "Moving furniture, books and equipment is not in our price. Please clear the rooms, or ask us to."
            ),
            Text(
                2432,
                "How we leave a room",
                TextUse.WhatToExpect,
                "We cover floors, tape edges and leave every room swept at the end of the day."
            ),
            Text(
                2433,
                "Inside scope, general",
                TextUse.Scope,
                "Prepare, prime and finish the surfaces listed, with the products named, in the coats stated."
            ),
        ];
}
