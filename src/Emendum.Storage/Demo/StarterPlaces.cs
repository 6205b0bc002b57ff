using System.Collections.Immutable;
using Emendum.Core.Places;

namespace Emendum.Storage.Demo;

/// <summary>Lists of usual places and sizes a firm starts with; what is usual where is common practice.</summary>
public static class StarterPlaces
{
    // First, since the lists below are made from it.
    private static readonly Dictionary<char, int> Letters = new()
    {
        ['u'] = 100,
        ['f'] = 101,
        ['s'] = 110,
        ['w'] = 111,
        ['c'] = 120,
        ['a'] = 121,
        ['d'] = 130,
        ['n'] = 131,
        ['k'] = 132,
        ['p'] = 133,
        ['v'] = 141,
        ['t'] = 140,
    };

    private const string Inside = "Inside finishing",
        Outside = "Outside and site",
        Services = "Services";

    /// <summary>Kinds of building and of job, by trade; letters and numbers stand for work of the starter Books.</summary>
    public static readonly UsualPlaces Lists = new(
        [
            List(
                Inside,
                "House",
                "Hall:ufwcdkp",
                "Living room:ufwcdnkp",
                "Dining room:ufwcdnkp",
                "Kitchen:wcdnv",
                "Utility room:wcdv",
                "Bedroom:ufwcdnkpt",
                "Bathroom:wcdnv",
                "Cloakroom:wcdv",
                "Landing:ufwcdkpt",
                "Stair:u",
                "Cupboard:wc"
            ),
            List(
                Inside,
                "Office",
                "Reception:ufwadnkpt",
                "Open-plan office:uwadnkpt",
                "Office:ufwadnkpt",
                "Meeting room:ufwadnkpt",
                "Kitchenette:wcdv",
                "Washroom:wcdv",
                "Copy room:wadv",
                "Server room:wcdv",
                "Corridor:ufwadkpt",
                "Store:wcd"
            ),
            List(
                Inside,
                "School",
                "Classroom:ufwadnkpv",
                "Hall:ufwcdnkp",
                "Library:ufwadnkpt",
                "Staff room:ufwadnkpt",
                "Office:ufwadnkpt",
                "Dining hall:uwadnv",
                "Washroom:wcdv",
                "Changing room:wcdv",
                "Corridor:uwadkpv",
                "Store:wcd"
            ),
            List(
                Inside,
                "Clinic",
                "Waiting room:ufwadnkpv",
                "Reception:ufwadnkpv",
                "Consulting room:ufwadnkpv",
                "Treatment room:ufwadnv",
                "Ward:ufwadnv",
                "Sluice:wcdv",
                "Washroom:wcdv",
                "Staff room:ufwadnkpt",
                "Corridor:uwadkpv",
                "Store:wcd"
            ),
            List(
                Inside,
                "Shop",
                "Shop floor:uwadnv",
                "Fitting room:ufwcdt",
                "Counter:wa",
                "Stockroom:wcd",
                "Office:ufwadnkpt",
                "Staff room:wadnv",
                "Washroom:wcdv",
                "Passage:wcdkp"
            ),
            List(
                Inside,
                "Floors of a house",
                "Hall:2230,2222",
                "Living room:2230,2222",
                "Dining room:2230,2222",
                "Kitchen:2230,141",
                "Bathroom:2230,141",
                "Utility room:2230,141",
                "Bedroom:2230,140",
                "Landing:2230,140",
                "Stair:2230,140"
            ),
            List(
                Inside,
                "Shopfront",
                "Shop windows:2213",
                "Glazed door:2213",
                "Side windows:2213",
                "Windows upstairs:2213",
                "Lettering:2303"
            ),
            List(
                Outside,
                "Outside of a house",
                "Front:3102,3101",
                "Back:3102,3101",
                "Left side:3102,3101",
                "Right side:3102,3101",
                "Gable:3102,3101",
                "Eaves:",
                "Fascia:",
                "Porch:",
                "Garage door:",
                "Fence:"
            ),
            List(
                Outside,
                "Lot and its walks",
                "Parking lot:3205",
                "Drive aisle:3205",
                "Loading bay:3205",
                "Bay lines:3106",
                "Walk:3105",
                "Ramp:3105",
                "Kerb:",
                "Bay numbers:3301"
            ),
            List(
                Services,
                "Cleaning round",
                "Entrance:4201,4101,4103",
                "Reception:4201,4101,4103",
                "Open-plan office:4201,4101,4103",
                "Office:4201,4101,4103",
                "Meeting room:4201,4101,4103",
                "Washroom:4201,4101",
                "Kitchenette:4201,4101",
                "Corridor:4201,4101",
                "Store:4201,4101",
                "Outside windows:4103"
            ),
            List(
                Services,
                "Grounds",
                "Lawn:4105",
                "Planting bed:4203",
                "Hedge:4106",
                "Drive:",
                "Path:",
                "Forecourt:",
                "Terrace:",
                "Kerb:",
                "Steps:",
                "Parking bays:"
            ),
        ]
    );

    /// <summary>Usual sizes, with their units so that they are the same in every job.</summary>
    public static readonly UsualSizes Sizes = new(
        [
            "door 3' x 6'8\"",
            "door 2'8\" x 6'8\"",
            "door 2'6\" x 6'8\"",
            "door 6' x 6'8\"",
            "window 4' x 5'",
            "window 3' x 4'",
            "window 2' x 2'",
            "window 5' x 6'",
            "pass-through 4' x 7'",
            "pass-through 6' x 7'",
        ]
    );

    private static UsualPlaceList List(string trade, string name, params string[] places) =>
        new(name, [.. places.Select(p => p.Split(':')).Select(p => new UsualPlace(p[0], [.. Work(p[1])]))])
        {
            Trade = trade,
        };

    private static IEnumerable<Guid> Work(string codes) =>
        codes.Any(char.IsAsciiDigit)
            ? codes.Split(',').Select(n => StarterBook.Id((int)Demo.Entries.N(n)))
            : codes.Select(letter => StarterBook.Id(Letters[letter]));
}
