using Emendum.Core.Book;
using Emendum.Core.Places;
using static Emendum.Storage.Demo.Entries;

namespace Emendum.Storage.Demo;

/// <summary>Outside faces and decks, each with its primer: siding, shingle, masonry, deck boards.</summary>
internal static class FacesBook
{
    private const int Painter = 1,
        Coater = 8;
    private const string Coatings = "Outside coatings";

    public static IEnumerable<BookEntry> Entries() => [.. Goods(), .. Rates()];

    private static IEnumerable<BookEntry> Goods() =>
        [
            Material(
                3050,
                Coatings,
                "Siding primer",
                "gal",
                "5 gal pail: 5 at 148; 1 gal can: 1 at 34",
                4,
                "300 ft² per gal"
            ),
            Material(
                3051,
                Coatings,
                "Siding paint, satin",
                "gal",
                "5 gal pail: 5 at 236; 1 gal can: 1 at 54",
                4,
                "325 ft² per gal",
                "400 ft² per gal"
            ),
            Material(
                3052,
                Coatings,
                "Shingle stain, solid",
                "gal",
                "5 gal pail: 5 at 219; 1 gal can: 1 at 49.50",
                5,
                "150 ft² per gal",
                "225 ft² per gal"
            ),
            Material(
                3053,
                Coatings,
                "Shingle primer, stain blocking",
                "gal",
                "5 gal pail: 5 at 205",
                5,
                "175 ft² per gal"
            ),
            Material(
                3054,
                Coatings,
                "Masonry primer, alkali resistant",
                "gal",
                "5 gal pail: 5 at 162; 1 gal can: 1 at 38",
                4,
                "200 ft² per gal"
            ),
            Material(
                3055,
                Coatings,
                "Masonry paint, smooth",
                "gal",
                "5 gal pail: 5 at 198",
                4,
                "175 ft² per gal",
                "250 ft² per gal"
            ),
            Material(
                3056,
                Coatings,
                "Deck stain, semi-clear",
                "gal",
                "5 gal pail: 5 at 232; 1 gal can: 1 at 53",
                4,
                "175 ft² per gal",
                "275 ft² per gal"
            ),
            Material(3057, Coatings, "Deck cleaner", "gal", "1 gal jug: 1 at 19.80", 3, "250 ft² per gal"),
            Material(
                3058,
                Coatings,
                "Outside caulk",
                "tube",
                "tube: 1 at 7.40; case of 12: 12 at 79",
                6,
                "45 ft per tube"
            ),
            Material(3059, Coatings, "House wash", "gal", "5 gal can: 5 at 64", 3, "900 ft² per gal"),
        ]; // csharpier-ignore

    private static IEnumerable<BookEntry> Rates() =>
        [
            Rate(
                3120,
                "Siding",
                "Wash siding",
                Measure.GrossFaceArea,
                Coater,
                3059,
                "Wash siding down before painting",
                "Work up, rinse down; let it dry two days",
                "320 ft² per h"
            ) with
            {
                DryingHours = 48,
            },
            Rate(
                3121,
                "Siding",
                "Scrape and sand",
                Measure.NetFaceArea,
                Painter,
                null,
                "Scrape and sand loose paint, feather the edges",
                "Test old coats for lead first; catch the chips",
                "120 ft² per h"
            ) with
            {
                Levels = [new("sound", 0.6m), new("ordinary", 1), new("peeling", 1.8m)],
            },
            Rate(
                3122,
                "Siding",
                "Joints outside, caulk",
                Measure.Length,
                Painter,
                3058,
                "Caulk open joints at windows, corners and trim",
                "Not under laps; tool it while wet",
                "60 ft per h"
            ),
            Rate(
                3123,
                "Siding",
                "Prime siding",
                Measure.NetFaceArea,
                Painter,
                3050,
                "Prime siding outside",
                "Bare wood and repairs first",
                "150 ft² per h"
            ) with
            {
                DryingHours = 4,
            },
            Rate(
                3124,
                "Siding",
                "Paint siding",
                Measure.NetFaceArea,
                Painter,
                3051,
                "Paint siding outside",
                "Follow the shade; keep a wet edge to a corner",
                "145 ft² per h",
                "80 ft² per h",
                "56 ft² per h"
            ) with
            {
                DryingHours = 4,
                Levels = [new("smooth laps", 0.9m), new("ordinary", 1), new("rough sawn", 1.25m)],
                Accessories = [Id(3123)],
            },
            Rate(
                3125,
                "Shingle",
                "Prime shingles",
                Measure.NetFaceArea,
                Painter,
                3053,
                "Prime shingles against bleeding",
                "Butts and edges too",
                "105 ft² per h"
            ) with
            {
                DryingHours = 6,
            },
            Rate(
                3126,
                "Shingle",
                "Stain shingles",
                Measure.NetFaceArea,
                Painter,
                3052,
                "Stain shingle walls",
                "Whole courses, corner to corner; back-brush",
                "92 ft² per h",
                "52 ft² per h"
            ) with
            {
                DryingHours = 6,
                Accessories = [Id(3125)],
            },
            Rate(
                3127,
                "Masonry",
                "Prime masonry",
                Measure.NetFaceArea,
                Coater,
                3054,
                "Prime masonry outside",
                "Dry wall only; brush it into the joints",
                "150 ft² per h"
            ) with
            {
                DryingHours = 6,
            },
            Rate(
                3128,
                "Masonry",
                "Paint masonry",
                Measure.NetFaceArea,
                Coater,
                3055,
                "Paint masonry walls outside",
                "Long pile roller; keep off in rain and frost",
                "120 ft² per h",
                "66 ft² per h"
            ) with
            {
                DryingHours = 6,
                Levels = [new("smooth", 0.85m), new("ordinary", 1), new("rough render", 1.3m)],
                Accessories = [Id(3127)],
            },
            Rate(
                3129,
                "Decks",
                "Clean deck",
                Measure.Area,
                Coater,
                3057,
                "Clean and brighten deck boards",
                "Wet the plants; no jets on soft wood",
                "180 ft² per h"
            ) with
            {
                DryingHours = 48,
            },
            Rate(
                3130,
                "Decks",
                "Stain deck",
                Measure.Area,
                Coater,
                3056,
                "Stain deck boards",
                "Two boards at a time, end to end; wipe puddles",
                "170 ft² per h",
                "98 ft² per h"
            ) with
            {
                DryingHours = 12,
                Accessories = [Id(3129)],
            },
        ]; // csharpier-ignore
}
