using System.Collections.Immutable;
using Emendum.Core.Places;

namespace Emendum.Storage.Demo;

/// <summary>Lists of usual places and sizes a firm starts with; what is usual where is common practice.</summary>
public static class StarterPlaces
{
    // First, since the lists below are made from it.
    private static readonly Dictionary<char, int> Entries = new()
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

    /// <summary>Seven kinds of building; letters stand for work of the starter Book.</summary>
    public static readonly UsualPlaces Lists = new(
        [
            List(
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
                "Outside of a house",
                "Front:",
                "Back:",
                "Left side:",
                "Right side:",
                "Gable:",
                "Eaves:",
                "Fascia:",
                "Porch:",
                "Garage door:",
                "Fence:"
            ),
            List(
                "Grounds",
                "Drive:",
                "Path:",
                "Forecourt:",
                "Terrace:",
                "Lawn:",
                "Planting bed:",
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

    private static UsualPlaceList List(string name, params string[] places) =>
        new(
            name,
            [
                .. places
                    .Select(p => p.Split(':'))
                    .Select(p => new UsualPlace(p[0], [.. p[1].Select(letter => StarterBook.Id(Entries[letter]))])),
            ]
        );
}
