using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using static Emendum.Storage.Demo.Entries;

namespace Emendum.Storage.Demo;

/// <summary>The outside and site Book: paths, paving, limewash, decks, handrails, surfacing, marking.</summary>
internal static class OutsideBook
{
    private const int Coater = 8,
        Paver = 9,
        Painter = 1;
    private const string Loose = "Stone and binders",
        Coatings = "Outside coatings";

    public static IEnumerable<BookEntry> Entries() =>
        [.. Labour(), .. Goods(), .. Plant(), .. Rates(), .. Paths(), .. Faces(), .. PriceOnly(), .. Around()];

    private static IEnumerable<BookEntry> Labour() =>
        [
            Role(Coater, "Coater", 23.80m, 6.40m, 1.35m),
            Role(Paver, "Paver", 25.10m, 7.10m, 1.60m) with
            {
                Premiums = [new("Early starts", 1.25m, 10)],
            },
        ];

    private static IEnumerable<BookEntry> Goods() =>
        [
            Material(3001, Loose, "Dried gravel, amber", "t", "25 kg bag: 0.025 at 9.80", 3) with
            {
                Supplier = "Headland Aggregates",
                Code = "HA-31A",
                Colour = "amber",
            },
            Material(3002, Loose, "Dried gravel, slate", "t", "25 kg bag: 0.025 at 11.20", 3) with
            {
                Supplier = "Headland Aggregates",
                Code = "HA-31S",
                Colour = "slate",
            },
            Material(3003, Loose, "Resin binder", "kg", "7.5 kg kit: 7.5 at 62", 2) with
            {
                Supplier = "Headland Aggregates",
                Code = "HA-40",
            },
            Material(3004, Loose, "Edge strip, aluminium", "m", "2.5 m length: 2.5 at 27.40", 5),
            Material(
                3005,
                Loose,
                "Clay paver, 4 × 8 in",
                "paver",
                "pallet of 480: 480 at 398; strap of 120: 120 at 112",
                5
            ) with
            {
                Supplier = "Headland Aggregates",
                Code = "HA-77",
                Rules = new(0, 95, 2),
            },
            Material(3006, Loose, "Bedding sand", "t", "bulk bag: 0.85 at 58", 8) with
            {
                Density = R("1.6 t per m³"),
                Supplier = "Headland Aggregates",
                Code = "HA-02",
            },
            Material(3007, Loose, "Crushed stone base", "t", "tipped load by the tonne: 1 at 27", 5) with
            {
                Density = R("1.9 t per m³"),
                Rules = new(8, 120, 0),
                Supplier = "Headland Aggregates",
                Code = "HA-20",
            },
            Material(3008, Loose, "Jointing sand", "kg", "20 kg bag: 20 at 8.90", 5),
            Material(3009, Loose, "Bituminous mix", "ton", "by the ton at the plant: 1 at 96", 3) with
            {
                Rules = new(4, 160, 0),
                Supplier = "Causeway Plant",
            },
            Material(3010, Loose, "Tack coat", "gal", "5 gal pail: 5 at 44", 3),
            Material(
                3020,
                Coatings,
                "Limewash",
                "L",
                "15 L tub: 15 at 71; 5 L tub: 5 at 29",
                5,
                "6 m² per L",
                "8 m² per L"
            ) with
            {
                Brand = "Tidewall",
            },
            Material(
                3021,
                Coatings,
                "Anti-slip deck coating",
                "gal",
                "5 gal pail: 5 at 246; 1 gal can: 1 at 58",
                4
            ) with
            {
                SolidsPercent = 55,
            },
            Material(3022, Coatings, "Deck grit", "lb", "40 lb bag: 40 at 26", 4),
            Material(
                3023,
                Coatings,
                "Wood oil, outside",
                "L",
                "2.5 L tin: 2.5 at 48; 10 L drum: 10 at 164",
                3,
                "12 m per L",
                "18 m per L"
            ),
            Material(
                3024,
                Coatings,
                "Masonry sealer",
                "gal",
                "5 gal pail: 5 at 138",
                3,
                "150 ft² per gal",
                "225 ft² per gal"
            ) with
            {
                Supplier = "Ennis Paint Counter",
                Code = "LP-3024",
            },
            Material(3025, Coatings, "Drive sealer", "gal", "5 gal pail: 5 at 34.90; drum: 55 at 352", 5),
            Material(3026, Coatings, "Sealer sand", "lb", "50 lb bag: 50 at 9.10", 5),
            Material(3027, Coatings, "Sealer additive", "gal", "1 gal jug: 1 at 37", 0),
            Material(3028, Coatings, "Marking paint", "gal", "5 gal pail: 5 at 129", 3, "320 ft per gal") with
            {
                Colour = "white",
            },
            Material(
                3029,
                Coatings,
                "Exterior window paint",
                "qt",
                "1 qt tin: 1 at 31.50",
                4,
                "3 each per qt",
                "3.5 each per qt"
            ),
            Material(3030, Coatings, "Cedar board, 1 × 6", "ft", "12 ft length: 12 at 33.60", 11),
        ];

    private static IEnumerable<BookEntry> Plant() =>
        [
            Equipment(3040, "Mixer, forced action", 9.50m),
            Equipment(3041, "Plate compactor", 74, EquipmentPer.Day),
            Equipment(3042, "Roller, one ton, with low loader", 310, EquipmentPer.Visit),
            Equipment(3043, "Spray rig", 12.40m),
            Equipment(3044, "Scaffold tower, outside", 7.20m),
            new Subcontract(Id(3045), 1, "Excavation with cart-away", Unit.CubicMetre, 64, false)
            {
                Section = "Subcontract",
            },
        ];

    private static IEnumerable<BookEntry> Rates() =>
        [
            Rate(
                3101,
                "Walls outside",
                "Limewash",
                Measure.NetFaceArea,
                Coater,
                3020,
                "Limewash outside walls",
                "Damp the wall; thin coats; out of the sun",
                "14 m² per h",
                "8.2 m² per h",
                "5.8 m² per h"
            ) with
            {
                DryingHours = 24,
                Levels = [new("smooth", 0.9m), new("ordinary", 1), new("rubble stone", 1.4m)],
            },
            Rate(
                3102,
                "Walls outside",
                "Wash down",
                Measure.GrossFaceArea,
                Coater,
                null,
                "Wash walls down and let them dry",
                "Low pressure on old mortar",
                "32 m² per h"
            ) with
            {
                DryingHours = 36,
            },
            Rate(
                3103,
                "Windows outside",
                "Timber windows, paint",
                Measure.WindowCount,
                Painter,
                3029,
                "Prepare and paint timber windows outside",
                "Ease the sashes",
                "1.4 h per window",
                "2.2 h per window"
            ),
            Rate(
                3104,
                "Metal and rails",
                "Handrail, oil",
                Measure.Length,
                Painter,
                3023,
                "Sand and oil handrails",
                "Wipe off after twenty minutes",
                "12 m per h",
                "7.5 m per h"
            ) with
            {
                DryingHours = 12,
            },
            Rate(
                3105,
                "Paving",
                "Seal paving",
                Measure.Area,
                Coater,
                3024,
                "Seal paving against stains",
                "Dry for two days first",
                "0.25 h per 100 ft²",
                "0.45 h per 100 ft²"
            ),
            Rate(
                3106,
                "Parking",
                "Bay lines",
                Measure.Length,
                Coater,
                3028,
                "Mark bays in white",
                "String lines; chalk first",
                "140 ft per h"
            ),
            Rate(
                3107,
                "Eaves",
                "Gutters, clear",
                Measure.EavesLength,
                Coater,
                null,
                "Clear gutters and test the fall",
                "Bag what comes out; hose the downpipes",
                "45 ft per h"
            ),
        ];

    private static IEnumerable<BookEntry> Paths() =>
        [
            Assembly(
                3201,
                "Paths",
                "Resin-bound path, 18 mm",
                Measure.Area,
                "Lay an 18 mm resin-bound gravel surface between aluminium edge strips",
                "Mix three minutes; trowel to a wet edge",
                Part(3201, 1, ComponentKind.Labour, "Mix and lay", Paver, "of 4", "0.42 t per h", "ordered"),
                Part(3201, 2, ComponentKind.Labour, "Edge strip, fix", Paver, "q1", "1 h per 18 m"),
                Part(3201, 3, ComponentKind.Equipment, "Mixer, forced action", 3040, "crew 3"),
                Part(3201, 4, ComponentKind.Material, "Gravel, amber", 3001, "area", "1 t per 31 m²", "group=Gravel"),
                Part(3201, 5, ComponentKind.Material, "Gravel, slate", 3002, "area", "1 t per 31 m²", "group=Gravel"),
                Part(3201, 6, ComponentKind.Material, "Resin binder", 3003, "of 4", "72 kg per t", "ordered"),
                Part(3201, 7, ComponentKind.Material, "Edge strip", 3004, "q1", "1 m per m")
            ) with
            {
                Questions = [Ask(3201, 1, "Edge length", "m", 44, Measure.Perimeter)],
                Levels = [new("straight", 0.85m), new("ordinary", 1), new("curved, stepped", 1.4m)],
                DryingHours = 8,
                Accessories = [Id(3202)],
            },
            Assembly(
                3202,
                "Paths",
                "Path base",
                Measure.Area,
                "Dig out and build up the base of a path",
                "Geotextile first; compact in two lifts",
                Part(3202, 1, ComponentKind.Subcontract, "Dig out", 3045, "area", "1 m³ per m³", "depth=170 mm"),
                Part(
                    3202,
                    2,
                    ComponentKind.Material,
                    "Crushed stone",
                    3007,
                    "area",
                    "1.9 t per m³",
                    "depth=100 mm; compaction=25"
                ),
                Part(
                    3202,
                    3,
                    ComponentKind.Material,
                    "Sand",
                    3006,
                    "area",
                    "1.6 t per m³",
                    "depth=30 mm; compaction=15"
                ),
                Part(3202, 4, ComponentKind.Labour, "Spread and level", Paver, "of 2", "1.1 t per h", "ordered"),
                Part(3202, 5, ComponentKind.Labour, "Screed the sand", Paver, "area", "18 m² per h"),
                Part(3202, 6, ComponentKind.Equipment, "Plate compactor", 3041, "crew 2")
            ),
            Assembly(
                3203,
                "Paving",
                "Brick paving, dry laid",
                Measure.Area,
                "Lay clay pavers on sand, joints swept full",
                "Herringbone; cut last",
                // 144 ÷ (4 × 8) = 4.5 pavers to the square foot laid dry (arithmetic; BIA Technical Note 10, from memory).
                Part(3203, 1, ComponentKind.Material, "Pavers", 3005, "area", "4.5 paver per ft²"),
                Part(
                    3203,
                    2,
                    ComponentKind.Material,
                    "Bedding",
                    3006,
                    "area",
                    "1.6 t per m³",
                    "depth=1 in; compaction=15"
                ),
                Part(3203, 3, ComponentKind.Material, "Jointing sand", 3008, "of 1", "4 kg per 100 paver"),
                Part(3203, 4, ComponentKind.Labour, "Lay", Paver, "of 1", "62 paver per h"),
                Part(3203, 5, ComponentKind.Labour, "Cut edges", Paver, "q1", "16 ft per h"),
                Part(3203, 6, ComponentKind.Equipment, "Plate compactor", 3041, "crew 2")
            ) with
            {
                Questions = [Ask(3203, 1, "Cut edge", "ft", 40, Measure.Perimeter)],
                Levels = Levels,
            },
            Assembly(
                3204,
                "Surfacing",
                "Bituminous surfacing",
                Measure.Area,
                "Surface with bituminous mix, rolled",
                "Mix above 250 °F; tack first",
                // 145 lb/ft³ at an inch is 108.75 lb per yd²; handbooks say about 110 (from memory).
                Part(3204, 1, ComponentKind.Material, "Mix", 3009, "area", "145 lb per ft³", "depthq1"),
                Part(3204, 2, ComponentKind.Material, "Tack coat", 3010, "area", "1 gal per 12 yd²"),
                Part(3204, 3, ComponentKind.Labour, "Lay and rake", Paver, "of 1", "1.4 ton per h", "ordered"),
                Part(3204, 4, ComponentKind.Equipment, "Roller", 3042, "crew 3")
            ) with
            {
                Questions = [Ask(3204, 1, "Rolled thickness", "in", 2)],
            },
            Assembly(
                3205,
                "Surfacing",
                "Drive sealing",
                Measure.Area,
                "Seal the drive in the coats stated, with sand",
                "Dry, above 50 °F, no rain for a day",
                Part(3205, 1, ComponentKind.Material, "Sealer", 3025, "area", "0.15 gal per yd²", "percoat"),
                Part(3205, 2, ComponentKind.Material, "Sand", 3026, "of 1", "4 lb per gal"),
                Part(3205, 3, ComponentKind.Material, "Additive", 3027, "of 1", "2 gal per 100 gal"),
                Part(3205, 4, ComponentKind.Labour, "Clean and edge", Coater, "area", "110 yd² per h", "fixed"),
                Part(3205, 5, ComponentKind.Labour, "Spray", Coater, "area", "190 yd² per h", "percoat"),
                Part(3205, 6, ComponentKind.Equipment, "Spray rig", 3043, "crew 2")
            ) with
            {
                Coats = 2,
                DryingHours = 8,
            },
        ];

    private static IEnumerable<BookEntry> Faces() =>
        [
            Assembly(
                3210,
                "Decks",
                "Jetty deck, anti-slip",
                Measure.Area,
                "Coat the deck anti-slip",
                "Grit into the wet first coat",
                Part(
                    3210,
                    1,
                    ComponentKind.Material,
                    "Coating",
                    3021,
                    "area",
                    "1 gal per 105 ft²",
                    "percoat; coloured"
                ),
                Part(3210, 2, ComponentKind.Material, "Grit", 3022, "area", "9 lb per 100 ft²"),
                Part(3210, 3, ComponentKind.Labour, "Scrub and dry", Coater, "area", "140 ft² per h"),
                Part(3210, 4, ComponentKind.Labour, "Roll", Coater, "area", "1 h per 150 ft²", "percoat"),
                Part(3210, 5, ComponentKind.Charge, "Barriers and signs", 0, "once", "", "charge=60")
            ) with
            {
                Coats = 2,
                DryingHours = 10,
                Levels = Levels,
            },
            Assembly(
                3211,
                "Walls outside",
                "Cedar boarding, replace",
                Measure.NetFaceArea,
                "Replace split boards like for like",
                "Stainless ring-shank nails",
                Part(3211, 1, ComponentKind.Material, "Boards", 3030, "q1", "2.2 ft per ft²"),
                Part(3211, 2, ComponentKind.Labour, "Cut out and fix", Painter, "q1", "9 ft² per h"),
                Part(3211, 3, ComponentKind.Equipment, "Tower", 3044, "crew 2")
            ) with
            {
                Questions = [Ask(3211, 1, "Boards to replace", "ft²", 30)],
            },
        ];

    private static IEnumerable<BookEntry> PriceOnly() =>
        [
            Sold(
                3301,
                "Parking",
                "Bay number",
                Measure.Count,
                "each",
                24,
                "Stencil a number in a bay",
                "All numbers read from the lane"
            ) with
            {
                BreakKind = BreakKind.Whole,
                Breaks = [new(10, 19), new(40, 15)],
            },
            Sold(
                3302,
                "Walls outside",
                "Test panel",
                Measure.Count,
                "each",
                95,
                "A test panel of one square metre, kept to the end",
                "Where it can stay; date it"
            ) with
            {
                Taxable = false,
            },
        ];

    private static IEnumerable<BookEntry> Around() =>
        [
            new Condition(Id(3401), 1, "over water", "Nets, lines and slow steps over the harbour", 1.35m, 1.1m, 1.05m)
            {
                Section = "Conditions",
            },
            new Condition(Id(3402), 1, "winter", "Short days and covers", 1.12m, 1, 1.03m) { Section = "Conditions" },
            new SurfaceFactor(Id(3411), 1, "Profiled sheet", 1.3m, 1) { Section = "Surfaces" },
            new SurfaceFactor(Id(3412), 1, "Rubble stone", 1.25m, 0.7m) { Section = "Surfaces" },
            new SetUp(
                Id(3421),
                1,
                "Up the coast",
                Id(Paver),
                35,
                TravelPer.Visit,
                62,
                DistanceUnit.Kilometre,
                55,
                0.58m
            )
            {
                Section = "Set-up and travel",
            },
            Text(
                3431,
                "Weather",
                TextUse.Terms,
                "Outside work stops in rain and frost. Days lost to weather are not charged, and move the end."
            ),
            Text(
                3432,
                "Curing",
                TextUse.WhatToExpect,
                "Please keep off new surfacing for a day on foot and three days with wheels."
            ),
        ];
}
