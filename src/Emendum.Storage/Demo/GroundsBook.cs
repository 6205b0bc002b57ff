using Emendum.Core.Book;
using Emendum.Core.Places;
using static Emendum.Storage.Demo.Entries;

namespace Emendum.Storage.Demo;

/// <summary>Grounds through the year and windows: kinds of feed and mulch, snow and ice by lot and walk, windows washed.</summary>
internal static class GroundsBook
{
    private const int Groundsman = 10,
        Cleaner = 11;
    private const string Grounds = "Grounds goods";

    public static IEnumerable<BookEntry> Entries() =>
        [
            Material(4030, Grounds, "Spring feed, 24-4-8", "lb", "50 lb sack: 50 at 41", 2),
            Material(4031, Grounds, "Autumn feed, 12-4-20", "lb", "50 lb sack: 50 at 44", 2),
            Material(4032, Grounds, "Organic feed, 6-2-4", "lb", "40 lb sack: 40 at 36", 2),
            Material(4033, Grounds, "Hardwood mulch", "yd³", "by the yard: 1 at 36", 5) with
            {
                Rules = new(3, 65, 0),
                Supplier = "Headland Aggregates",
                Code = "HA-91",
            },
            Material(4034, Grounds, "Cedar mulch", "yd³", "by the yard: 1 at 58", 5) with
            {
                Rules = new(3, 65, 0),
                Supplier = "Headland Aggregates",
                Code = "HA-92",
            },
            Material(4035, Grounds, "Dyed mulch", "yd³", "by the yard: 1 at 47", 5) with
            {
                Rules = new(3, 65, 0),
                Supplier = "Headland Aggregates",
                Code = "HA-93",
            },
            Material(4036, Grounds, "Rock salt", "lb", "50 lb bag: 50 at 8.40; ton: 2000 at 168", 3),
            Material(4037, Grounds, "Ice melter for walks", "lb", "50 lb bag: 50 at 21.50", 3),
            Equipment(4040, "Plough truck with spreader", 48),
            Equipment(4041, "Snow blower", 9.60m),
            Equipment(4042, "Push spreader", 2.10m),
            Assembly(
                4220,
                "Grounds",
                "Lawn, feed",
                Measure.Area,
                "Feed lawns",
                "Sweep paths; not before heavy rain",
                Part(4220, 1, ComponentKind.Material, "Spring feed", 4030, "area", "4.2 lb per 1000 ft²", "group=Feed"),
                Part(4220, 2, ComponentKind.Material, "Autumn feed", 4031, "area", "8.3 lb per 1000 ft²", "group=Feed"),
                Part(
                    4220,
                    3,
                    ComponentKind.Material,
                    "Organic feed",
                    4032,
                    "area",
                    "16.7 lb per 1000 ft²",
                    "group=Feed"
                ),
                Part(4220, 4, ComponentKind.Labour, "Spread", Groundsman, "area", "0.75 acre per h"),
                Part(4220, 5, ComponentKind.Equipment, "Push spreader", 4042, "crew 1")
            ),
            Assembly(
                4221,
                "Grounds",
                "Mulch beds, choice of mulch",
                Measure.Area,
                "Edge and mulch planting beds",
                "Even depth; keep off stems and siding",
                Part(4221, 1, ComponentKind.Material, "Bark", 4010, "area", "1 yd³ per yd³", "depthq1;group=Mulch"),
                Part(4221, 2, ComponentKind.Material, "Hardwood", 4033, "area", "1 yd³ per yd³", "depthq1;group=Mulch"),
                Part(4221, 3, ComponentKind.Material, "Cedar", 4034, "area", "1 yd³ per yd³", "depthq1;group=Mulch"),
                Part(4221, 4, ComponentKind.Material, "Dyed", 4035, "area", "1 yd³ per yd³", "depthq1;group=Mulch"),
                Part(4221, 5, ComponentKind.Labour, "Barrow and spread", Groundsman, "of 1", "0.9 yd³ per h", "ordered")
            ) with
            {
                Questions = [Ask(4221, 1, "Depth of mulch", "in", 2)],
            },
            Assembly(
                4222,
                "Snow and ice",
                "Lot, plough and salt, each time",
                Measure.Area,
                "Plough and salt the lot, each time it is called for",
                "Stack away from drains; mind the kerbs",
                Part(4222, 1, ComponentKind.Labour, "Plough", Groundsman, "area", "1.1 acre per h"),
                Part(4222, 2, ComponentKind.Material, "Rock salt", 4036, "area", "500 lb per acre"),
                Part(4222, 3, ComponentKind.Equipment, "Plough truck", 4040, "crew 1")
            ),
            Assembly(
                4223,
                "Snow and ice",
                "Walks, clear and treat, each time",
                Measure.Area,
                "Clear and treat walks and steps, each time it is called for",
                "To the full width; treat within the hour",
                Part(4223, 1, ComponentKind.Labour, "Clear", Groundsman, "area", "1600 ft² per h"),
                Part(4223, 2, ComponentKind.Material, "Ice melter", 4037, "area", "1 lb per 50 ft²"),
                Part(4223, 3, ComponentKind.Equipment, "Snow blower", 4041, "crew 1", "", "optional")
            ),
            Rate(
                4120,
                "Windows",
                "Wash inside",
                Measure.GlassArea,
                Cleaner,
                4004,
                "Wash windows inside",
                "Sills cleared first; wipe the frames",
                "130 ft² per h"
            ),
            Rate(
                4121,
                "Windows",
                "Wash outside",
                Measure.GlassArea,
                Cleaner,
                4004,
                "Wash windows outside",
                "Pole-fed above the ground floor",
                "150 ft² per h"
            ) with
            {
                Levels = [new("ground floor", 0.8m), new("ordinary", 1), new("by ladder", 1.6m)],
            },
            Rate(
                4122,
                "Windows",
                "Screens, take down and wash",
                Measure.WindowCount,
                Cleaner,
                null,
                "Take down, wash and refit screens",
                "Mark each with its window",
                "14 window per h"
            ),
            Rate(
                4123,
                "Windows",
                "Tracks and sills",
                Measure.WindowCount,
                Cleaner,
                null,
                "Clean tracks and sills",
                "Vacuum before wiping",
                "20 window per h"
            ),
        ]; // csharpier-ignore
}
