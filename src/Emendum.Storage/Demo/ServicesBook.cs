using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using static Emendum.Storage.Demo.Entries;

namespace Emendum.Storage.Demo;

/// <summary>The services Book: washing, hygiene rounds, glass, grounds.</summary>
internal static class ServicesBook
{
    private const int Cleaner = 11,
        LeadCleaner = 12,
        Groundsman = 10;

    /// <summary>Dirt builds up: floors that are washed twice as often take less each time. The firm's own, made up.</summary>
    private static readonly ImmutableArray<BuildUp> Dirt = [new(52, 0.85m), new(26, 1), new(12, 1.35m)];

    private const string Goods = "Cleaning goods",
        Grounds = "Grounds goods";

    public static IEnumerable<BookEntry> Entries() =>
        [
            Role(Groundsman, "Groundskeeper", 20.40m, 5.30m, 1.05m),
            Role(Cleaner, "Cleaner", 17.20m, 3.60m, 0.70m) with
            {
                Premiums = [new("Evenings", 1.2m, 40)],
                SellRate = 39,
            },
            Role(LeadCleaner, "Lead cleaner", 20.10m, 3.60m, 0.85m),
            Material(4001, Goods, "Disinfectant concentrate", "L", "5 L can: 5 at 38", 2) with
            {
                Supplier = "Brightwater Supplies",
                Code = "BW-05",
            },
            Material(4002, Goods, "Neutral cleaner", "L", "5 L can: 5 at 19.50; 20 L drum: 20 at 66", 2) with
            {
                Supplier = "Brightwater Supplies",
                Code = "BW-11",
            },
            Material(
                4003,
                Goods,
                "Floor polish",
                "gal",
                "1 gal can: 1 at 33; 5 gal pail: 5 at 148",
                3,
                "1800 ft² per gal",
                "2200 ft² per gal"
            ),
            Material(4004, Goods, "Glass fluid", "L", "1 L bottle: 1 at 6.20", 0, "90 m² per L"),
            Material(4005, Goods, "Pads and cloths, set", "kit", "set: 1 at 11.40", 0),
            Material(4010, Grounds, "Bark mulch", "yd³", "by the yard: 1 at 44; 2 ft³ bag: 0.074074 at 5.90", 5) with
            {
                Rules = new(3, 65, 0),
                Supplier = "Headland Aggregates",
                Code = "HA-90",
            },
            Material(4011, Grounds, "Lawn seed", "lb", "25 lb sack: 25 at 82; 5 lb bag: 5 at 21", 0),
            Material(4012, Grounds, "Slow fertiliser", "lb", "50 lb sack: 50 at 47", 0),
            Equipment(4020, "Scrubber-drier", 8.90m),
            Equipment(4021, "Pole-fed wash unit", 58, EquipmentPer.Visit),
            Equipment(4022, "Mower, 48 in", 14.20m),
            Equipment(4023, "Boom lift", 240, EquipmentPer.Day),
            new Subcontract(Id(4025), 1, "Green waste, tipped", Unit.CubicYard, 21, false) { Section = "Subcontract" },
            Rate(
                4101,
                "Floors, cleaning",
                "Scrub and dry",
                Measure.FloorArea,
                Cleaner,
                null,
                "Machine-scrub hard floors",
                "Two passes at doors",
                "2,800 ft² per h"
            ) with
            {
                BuildUp = Dirt,
            },
            Rate(
                4102,
                "Floors, cleaning",
                "Strip and polish",
                Measure.FloorArea,
                LeadCleaner,
                4003,
                "Strip and polish resilient floors",
                "Dry between coats",
                "310 ft² per h",
                "260 ft² per h",
                "215 ft² per h"
            ) with
            {
                DryingHours = 1,
            },
            Rate(
                4103,
                "Glass",
                "Wash glass, both faces",
                Measure.GlassArea,
                Cleaner,
                4004,
                "Wash windows inside and out",
                "Frames and sills too",
                "16 m² per h"
            ) with
            {
                Surface = Id(4411),
                BuildUp = [new(52, 0.8m), new(12, 0.9m), new(4, 1), new(2, 1.2m)],
            },
            Rate(
                4104,
                "Washrooms",
                "Deep clean",
                Measure.Count,
                LeadCleaner,
                null,
                "Deep-clean washrooms",
                "Descale, grout, drains",
                "1.6 h per each"
            ) with
            {
                BuildUp = [new(52, 0.6m), new(12, 0.85m), new(4, 1), new(2, 1.3m)],
            },
            Rate(
                4105,
                "Grounds",
                "Mow and edge",
                Measure.Area,
                Groundsman,
                null,
                "Mow lawns and trim edges",
                "Vary the direction",
                "1.2 ha per h"
            ),
            Rate(
                4106,
                "Grounds",
                "Hedge, cut",
                Measure.Length,
                Groundsman,
                null,
                "Cut hedges three faces, rake up",
                "Nesting checked first",
                "14 m per h"
            ),
            Assembly(
                4201,
                "Hygiene rounds",
                "Hygiene wash, per round",
                Measure.FloorArea,
                "Wash and disinfect floors and touched surfaces, one round",
                "Clean to dirty; change cloths by room",
                Part(4201, 1, ComponentKind.Labour, "Wash floors", Cleaner, "floorArea", "0.3 h per 100 m²"),
                Part(4201, 2, ComponentKind.Labour, "Touched surfaces", Cleaner, "q1", "12 room per h"),
                Part(4201, 3, ComponentKind.Material, "Disinfectant", 4001, "floorArea", "1 L per 160 m²"),
                Part(4201, 4, ComponentKind.Material, "Neutral cleaner", 4002, "floorArea", "1 L per 240 m²"),
                Part(4201, 5, ComponentKind.Material, "Pads and cloths", 4005, "q1", "1 kit per 6 room", "step=1"),
                Part(4201, 6, ComponentKind.Equipment, "Scrubber-drier", 4020, "crew 1")
            ) with
            {
                Questions = [Ask(4201, 1, "Rooms in the round", "room", 8, once: true)],
                Step = 0.25m,
                BuildUp = Dirt,
            },
            Assembly(
                4202,
                "Glass",
                "Glasshouse wash, by lift",
                Measure.NetFaceArea,
                "Wash glasshouse glass from a lift",
                "Vents shut; plants covered",
                Part(4202, 1, ComponentKind.Labour, "Wash", Cleaner, "netFaceArea", "38 m² per h"),
                Part(4202, 2, ComponentKind.Labour, "Banksman", LeadCleaner, "of 1", "0.5 h per h"),
                Part(4202, 3, ComponentKind.Equipment, "Boom lift", 4023, "crew 2", "", "group=Reach"),
                Part(
                    4202,
                    4,
                    ComponentKind.Equipment,
                    "Pole-fed unit",
                    4021,
                    "netFaceArea",
                    "1 visit per 600 m²",
                    "group=Reach"
                ),
                Part(4202, 5, ComponentKind.Material, "Glass fluid", 4004, "netFaceArea", "1 L per 70 m²")
            ),
            Assembly(
                4203,
                "Grounds",
                "Mulch beds",
                Measure.Area,
                "Weed and mulch planting beds",
                "Keep off stems",
                Part(4203, 1, ComponentKind.Material, "Mulch", 4010, "area", "1 yd³ per yd³", "depthq1"),
                Part(4203, 2, ComponentKind.Labour, "Weed", Groundsman, "area", "140 ft² per h"),
                Part(4203, 3, ComponentKind.Labour, "Spread", Groundsman, "of 1", "0.8 yd³ per h", "ordered"),
                Part(4203, 4, ComponentKind.Subcontract, "Green waste", 4025, "area", "1 yd³ per 900 ft²", "step=1")
            ) with
            {
                Questions = [Ask(4203, 1, "Depth of mulch", "in", 3, once: true)],
            },
            Assembly(
                4204,
                "Grounds",
                "Lawn, renovate",
                Measure.Area,
                "Rake, seed and feed lawns",
                "Water twice a day for two weeks",
                Part(4204, 1, ComponentKind.Labour, "Rake and seed", Groundsman, "area", "1 h per 900 ft²"),
                Part(4204, 2, ComponentKind.Material, "Seed", 4011, "area", "5 lb per 1000 ft²"),
                Part(4204, 3, ComponentKind.Material, "Feed", 4012, "area", "8 lb per 1000 ft²", "optional"),
                Part(4204, 4, ComponentKind.Equipment, "Mower", 4022, "crew 1")
            ),
            Sold(
                4301,
                "Hygiene rounds",
                "Call-out",
                Measure.Count,
                "each",
                85,
                "A call-out between rounds, first hour in it",
                "Note arrival and leaving"
            ),
            new Condition(Id(4401), 1, "between visitors", "Stop and start while the house is open", 1.2m, 1.2m, 1)
            {
                Section = "Conditions",
            },
            new SurfaceFactor(Id(4411), 1, "Glass, both faces", 2, 1) { Section = "Surfaces" },
            Text(
                4431,
                "Rounds, letter",
                TextUse.Letter,
                "Thank you for asking us to look after your rooms. Below is what one round takes, and what a year of them comes to."
            ),
        ];
}
