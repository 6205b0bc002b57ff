using Emendum.Core.Jobs;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Storage.Demo;

/// <summary>The made-up refit of the Saltmarsh Lending Library: 30 rooms, the stair and the outside, built by the same commands a person gives.</summary>
public static class LibraryJob
{
    private const string Letter = """
        Thank you for walking us round the library. We would do the work in three stretches so that one reading room is always open, and leave each room swept and usable on the evening we finish it.

        The price below covers labour, materials, equipment and clearing up.
        """;

    private const string Terms = """
        We agree start dates with you in writing and keep one named person on site throughout. Paint and floor samples are laid out for you to approve before we order.

        The lobby mat and its well are yours; we lay up to them. These prices hold until {valid until}.
        """;

    /// <summary>The library job.</summary>
    public static Job Build(Guid id, Guid customer, string date)
    {
        var draft = new Draft(
            id,
            Draft.Info("Saltmarsh Lending Library", "Refit, ground and first floor", "2041", customer, date),
            UnitSystem.Feet,
            1000
        );
        draft.Job = draft.Job with { Proposal = draft.Job.Proposal with { Detail = Detail.Place } };
        var places = Rooms.Select(r => (Id: draft.Place(r.Group, r.Line), r.Work)).ToList();
        var items = new Dictionary<char, Guid>();
        foreach (
            var (key, entry) in new[]
            {
                ('u', 100),
                ('f', 101),
                ('s', 110),
                ('w', 111),
                ('c', 120),
                ('a', 121),
                ('d', 130),
                ('n', 131),
                ('k', 132),
                ('p', 133),
                ('v', 141),
                ('t', 140),
            }
        )
            items[key] = draft.Work(entry);
        draft.Set(items['w'], "colour", "Gannet white");
        draft.Set(items['p'], "colour", "Tidal grey");
        foreach (var (key, item) in items)
        {
            draft.Fill(
                item,
                CellState.Included,
                [.. places.Where(p => p.Work.Contains(key, StringComparison.Ordinal)).Select(p => p.Id)]
            );
            draft.Fill(
                item,
                CellState.Excluded,
                [
                    .. places
                        .Where(p => p.Work.Contains(char.ToUpperInvariant(key), StringComparison.Ordinal))
                        .Select(p => p.Id),
                ]
            );
        }
        draft.Do(new SetNote(items['t'], places[0].Id, "", "The library lays its own lobby mat; leave the well clear"));
        draft.Do(new SetNote(items['n'], places[5].Id, "", "The stained glass stays as it is"));
        draft.Do(
            new GroupAlternate(
                draft.Next(),
                "Leave out the two stores",
                AlternateKind.Deduct,
                [],
                [.. draft.Job.Places.Where(p => p.Name is "Parcel store" or "Cleaner's store").Select(p => p.Id)]
            )
        );
        // The colour of the lobby's tiles goes with that of the reading rooms; the walls have tiers.
        Guid[] carpeted =
        [
            .. draft
                .Job.Places.Select(p => p.Id)
                .Where(p => draft.Job.Cells.GetValueOrDefault(new(items['t'], p))?.State == CellState.Included),
        ];
        var tiles = draft.Choice("Carpet tiles of the reading rooms", items['t'], carpeted[1..], CarpetTiles(draft));
        var first = draft.Choice(
            $"Carpet tiles of {draft.Job.Place(carpeted[0])!.Name.ToLowerInvariant()}",
            items['t'],
            carpeted[..1],
            new(draft.Next(), "Loop, slate"),
            new(draft.Next(), "Loop, moss")
            {
                Price = 4.35m,
                Supplier = "Ropewalk Trade Supply",
                Code = "RT-412",
            }
        );
        draft.Do(new SetChoice(first, "follows", null, tiles.ToString()));
        draft.Choice(
            "Walls",
            items['w'],
            [],
            new(draft.Next(), "Two coats") { Coats = 2 },
            new(draft.Next(), "Three coats, washable every day") { Coats = 3 }
        );
        // Old sashes may take much longer, and what lies under the carpet is not known.
        draft.Set(items['n'], "doubt", new Doubt(-10, 60, -5, 15));
        draft.Set(items['t'], "doubt", new Doubt(-5, 35, -5, 10));
        draft.Do(new SetSureness(null, Sureness.Starting with { Shared = 40 }));
        draft.Words(BlockKind.Letter, Letter);
        draft.Words(BlockKind.Terms, Terms);
        draft.Text(BlockKind.Expect, 2432);
        draft.Block(BlockKind.About, TextsBook.About, BlockKind.Letter);
        draft.Price(
            "payment",
            new PaymentStep[]
            {
                new("on acceptance", null, null, false),
                new("when the ground floor is handed back", null, null, false),
                new("within fourteen days of the last room", null, null, false),
            }
        );
        return draft.Job;
    }

    /// <summary>Carpet tiles to choose from.</summary>
    internal static ChoiceOption[] CarpetTiles(Draft draft) =>
        [
            new ChoiceOption(draft.Next(), "Loop, slate"),
            new(draft.Next(), "Loop, moss")
            {
                Price = 4.35m,
                Supplier = "Ropewalk Trade Supply",
                Code = "RT-412",
            },
            new(draft.Next(), "Cut pile, slate")
            {
                Price = 5.90m,
                Supplier = "Ropewalk Trade Supply",
                Code = "RT-530",
            },
        ];

    /// <summary>Group, tape line, and a letter for each kind of work; a capital letter excludes it.</summary>
    private static readonly (string Group, string Line, string Work)[] Rooms =
    [
        ("Ground floor", "Entrance hall 17'8 x 12 x 11; door 6 x 7'6; door 3 x 6'8 x2; window 4 x 6 x2", "ufwadnkpT"),
        ("Ground floor", "Reading room 24'6 x 18 x 9'2; door 3 x 6'8 x2; window 4 x 5 x3", "ufwadnkpt"),
        (
            "Ground floor",
            "Children's corner walls 20 r 10 r 8 l 6 r 12 r 16 x 9'2; door 3 x 6'8; window 4 x 5 x3",
            "ufswcdnkpv"
        ),
        ("Ground floor", "Lending desk 18 x 12'6 x 9'2; pass-through 6 x 7 deep 6\"; window 3 x 4", "ufwcnkpv"),
        ("Ground floor", "Newspaper room 16 x 14'3 x 9'2; door 3 x 6'8; window 4 x 5 x2", "ufwadnkpt"),
        ("Ground floor", "Reference room 28 x 19'6 x 10'4; door 3 x 7 x2; window 5 x 7 x4 sill", "ufwadNkpt"),
        ("Ground floor", "Workroom 14 x 11 x 8'6; door 3 x 6'8; window 3 x 4", "ufwcdnkpv"),
        ("Ground floor", "Parcel store 9 x 7'6 x 8'6; door 3 x 6'8", "uwcdkpv"),
        ("Ground floor", "Staff room 15'4 x 11'8 x 8'6; door 3 x 6'8; window 4 x 4 x2", "ufwcdnkpv"),
        ("Ground floor", "Kitchen 10'6 x 8'4 x 8'6; door 2'8 x 6'8; window 3 x 3'6", "ufwcdnkpv"),
        ("Ground floor", "Washrooms 8 x 6 x 8'6 x2; door 2'8 x 6'8; window 2 x 2", "wcdnv"),
        ("Ground floor", "Accessible washroom 7'6 x 7 x 8'6; door 3'2 x 6'8", "wcdv"),
        ("Ground floor", "Boiler room 11 x 9 x 8'6; door 3 x 6'8", "wcd"),
        ("Ground floor", "Rear passage 26 x 4'6 x 8'6; door 3 x 6'8 x4", "ufwcdkpv"),
        ("Ground floor", "Community room 30 x 22 x 10'4; door 6 x 7 x2; window 5 x 6 x5", "ufswadnkpt"),
        ("Ground floor", "Stair to first floor stair 17 rise 7 1/4\" going 10\" wide 3'6; landing 3'6 x 4", ""),
        ("First floor", "Upper landing 19 x 9'4 x 9; door 3 x 6'8 x5; window 4 x 6", "ufwcdnkpt"),
        ("First floor", "Local history 25'6 x 12'6 x 9; door 3 x 6'8 x2; window 4 x 5 x3", "ufwadnkpt"),
        ("First floor", "Map room 17 x 15 x 9; door 3 x 6'8; window 4 x 5 x2", "ufwadnkpt"),
        ("First floor", "Study bays 7'3 x 8 x 9 x4; pass-through 4 x 7; window 3 x 4", "ufwcnkpt"),
        ("First floor", "Quiet room 16'8 x 13 x 9; door 3 x 6'8; window 4 x 5 x2", "ufwadnkpt"),
        ("First floor", "Music library 21 x 14'6 x 9; door 3 x 6'8; window 4 x 5 x2", "ufwadnkpt"),
        ("First floor", "Listening booths 6 x 5 x 9 x3; door 2'6 x 6'8", "wcdt"),
        ("First floor", "Archive 18'6 x 14 x 9; door 3 x 7", "uwcdkpv"),
        ("First floor", "Conservation room 13'9 x 12 x 9; door 3 x 6'8; window 4 x 4 x2", "ufwcdnkpv"),
        ("First floor", "Librarian's office 11 x 11 x 9; door 3 x 6'8; window 4 x 5", "ufwcdnkpt"),
        ("First floor", "Meeting room 18 x 13'6 x 9; door 3 x 6'8; window 4 x 5 x2", "ufswcdnkpt"),
        ("First floor", "IT room 9'6 x 8 x 9; door 3 x 6'8", "uwcdkpv"),
        ("First floor", "Cleaner's store 6 x 5'6 x 9; door 2'6 x 6'8", "wcdv"),
        ("First floor", "Upper passage 31 x 4'8 x 9; door 3 x 6'8 x6", "ufwcdkpt"),
        ("First floor", "Terrace room 16 x 12'2 x 9; door 5 x 6'8; window 5 x 5 x2", "ufwcdnkpt"),
        ("Outside", "Street front face 44 x 24; gable 44 x 10; window 4 x 6 x8; door 6 x 8", ""),
        ("Outside", "Book return court site 26 x 14 deep 4\"; island 5 x 3 at 18,2", ""),
    ];
}
