using Emendum.Core.Book;
using Emendum.Core.Places;
using static Emendum.Storage.Demo.Entries;

namespace Emendum.Storage.Demo;

/// <summary>Finishes on floors that are there, and kinds of film by the glass.</summary>
internal static class FloorsAndFilmBook
{
    private const int FloorLayer = 3,
        Painter = 1,
        FilmFitter = 6;
    private const string Finishes = "Floor finishes",
        Films = "Film";

    public static IEnumerable<BookEntry> Entries() =>
        [
            Material(
                2060,
                Finishes,
                "Floor lacquer, water-borne",
                "gal",
                "1 gal can: 1 at 88; 5 gal pail: 5 at 412",
                4,
                "450 ft² per gal",
                "550 ft² per gal"
            ),
            Material(
                2061,
                Finishes,
                "Floor oil, hard wax",
                "L",
                "2.5 L tin: 2.5 at 96; 10 L drum: 10 at 352",
                3,
                "24 m² per L",
                "32 m² per L"
            ),
            Material(
                2062,
                Finishes,
                "Concrete floor paint",
                "gal",
                "1 gal can: 1 at 44; 5 gal pail: 5 at 198",
                4,
                "300 ft² per gal",
                "380 ft² per gal"
            ),
            Material(2063, Finishes, "Abrasive set for floors", "kit", "set: 1 at 38", 0),
            Material(2064, Films, "Safety film, 8 mil", "ft²", "60 in × 100 ft roll: 500 at 690", 12),
            Material(2065, Films, "Solar film, 20 % light", "ft²", "60 in × 100 ft roll: 500 at 545", 12),
            Material(2066, Films, "Edge sealant for film", "tube", "tube: 1 at 13.80", 5),
            Equipment(2067, "Floor sander and edger", 118, EquipmentPer.Day),
            Assembly(
                2240,
                "Floor finishes",
                "Timber floor, sand",
                Measure.FloorArea,
                "Sand timber floors in three grits",
                "Nails down first; vacuum between grits",
                Part(2240, 1, ComponentKind.Labour, "Sand", FloorLayer, "floorArea", "55 ft² per h"),
                Part(2240, 2, ComponentKind.Labour, "Edges", FloorLayer, "perimeter", "40 ft per h"),
                Part(2240, 3, ComponentKind.Material, "Abrasives", 2063, "floorArea", "1 kit per 450 ft²"),
                Part(2240, 4, ComponentKind.Equipment, "Sander and edger", 2067, "crew 1")
            ) with
            {
                Levels = Levels,
            },
            Rate(
                2130,
                "Floor finishes",
                "Timber floor, lacquer",
                Measure.FloorArea,
                FloorLayer,
                2060,
                "Lacquer timber floors",
                "Along the boards; de-nib after the first coat",
                "300 ft² per h",
                "150 ft² per h",
                "98 ft² per h"
            ) with
            {
                DryingHours = 4,
                Accessories = [Id(2240)],
            },
            Rate(
                2131,
                "Floor finishes",
                "Timber floor, oil",
                Measure.FloorArea,
                FloorLayer,
                2061,
                "Oil timber floors",
                "Thin; buff it in; rags into water",
                "24 m² per h",
                "12.5 m² per h"
            ) with
            {
                DryingHours = 8,
                Accessories = [Id(2240)],
            },
            Rate(
                2132,
                "Floor finishes",
                "Concrete floor, paint",
                Measure.FloorArea,
                Painter,
                2062,
                "Paint concrete floors",
                "Degrease and etch first; no traffic for a day",
                "260 ft² per h",
                "140 ft² per h"
            ) with
            {
                DryingHours = 12,
            },
            Assembly(
                2241,
                "Glass",
                "Safety film",
                Measure.GlassArea,
                "Fit safety film to glass, edges sealed",
                "Clean to the beading; seal all four edges",
                Part(2241, 1, ComponentKind.Material, "Film", 2064, "glassArea", "1 ft² per ft²"),
                Part(2241, 2, ComponentKind.Material, "Edge sealant", 2066, "glassArea", "1 tube per 60 ft²"),
                Part(2241, 3, ComponentKind.Labour, "Clean and fit", FilmFitter, "glassArea", "16 ft² per h"),
                Part(2241, 4, ComponentKind.Labour, "Seal edges", FilmFitter, "glassArea", "45 ft² per h")
            ),
            Assembly(
                2242,
                "Glass",
                "Solar film",
                Measure.GlassArea,
                "Fit solar film to glass",
                "Tell them it clears in thirty days",
                Part(2242, 1, ComponentKind.Material, "Film", 2065, "glassArea", "1 ft² per ft²"),
                Part(2242, 2, ComponentKind.Labour, "Clean and fit", FilmFitter, "glassArea", "19 ft² per h")
            ) with
            {
                Levels = [new("large panes", 0.85m), new("ordinary", 1), new("small panes", 1.5m)],
            },
            Rate(
                2133,
                "Glass",
                "Old film, take off",
                Measure.GlassArea,
                FilmFitter,
                null,
                "Take old film and its glue off glass",
                "Steam; fresh blades; no scraping on coated glass",
                "28 ft² per h"
            ),
        ]; // csharpier-ignore
}
