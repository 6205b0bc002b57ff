using Emendum.Core.Book;
using static Emendum.Storage.Demo.Entries;

namespace Emendum.Storage.Demo;

/// <summary>Texts of the made-up firm for its proposals: letters, about the firm, terms, what to expect, covers.</summary>
internal static class TextsBook
{
    /// <summary>Id of the text about the firm.</summary>
    public const int About = 4902;

    /// <summary>Id of the usual terms.</summary>
    public const int Terms = 4903;

    /// <summary>Id of what to expect outside.</summary>
    public const int Outdoors = 4921;

    /// <summary>Id of the terms of a round.</summary>
    public const int RoundTerms = 4932;

    /// <summary>Those of inside work, and of any.</summary>
    public static IEnumerable<BookEntry> Inside() =>
        [
            Text(
                4901,
                "Letter after a visit",
                TextUse.Letter,
                """
                Thank you for showing us round. Below is what we would do at {job}, room by room, and what it costs: *{total} with tax*, for everything that is listed.

                Whoever measured the rooms with you answers your questions, and comes by again if you want to talk it through on the spot.
                """
            ),
            Text(
                About,
                "About Larkspur & Pell",
                TextUse.About,
                """
                We are eleven people in Port Ennis: painters, plasterers, floor layers and two apprentices. One of us leads your job from the first day to the last and has a telephone that is answered.

                - We are insured for what we do in your house.
                - We come when we said, or ring the day before.
                - What we open, we close; what we dirty, we clean.
                """
            ),
            Text(
                Terms,
                "Usual terms",
                TextUse.Terms,
                """
                The price is for the work that is listed, with materials, equipment and clearing up. It holds until {valid until}.

                Work that is asked for on the way is written down, priced and signed before it is done. We take care of what stays in the rooms; what is fragile or dear to you is moved by you.

                Faults that show within two years of the last day are put right by us at our cost.
                """
            ),
            Text(
                4904,
                "Quiet hours",
                TextUse.WhatToExpect,
                """
                # Noise and dust
                Sanding and stripping are done between nine and four. Doors to rooms that are in use stay shut and taped.
                """
            ),
            Text(4905, "Cover line", TextUse.Cover, "Prepared for you by _{firm}_, from measures taken on the spot."),
        ];

    /// <summary>Those of outside work.</summary>
    public static IEnumerable<BookEntry> Outside() =>
        [
            Text(
                4920,
                "Letter, outside work",
                TextUse.Letter,
                """
                Thank you for the walk round the outside. The price below is for a dry spell: *{total} with tax*. We fix the days with you when the forecast holds.
                """
            ),
            Text(
                Outdoors,
                "Weather and scaffolds",
                TextUse.WhatToExpect,
                """
                - We do not coat in rain, in frost, or in the sun at noon; a day lost to weather moves the rest by a day.
                - Plants within an arm's length of the walls are tied back and covered.
                - The scaffold stays up over night; ladders are taken off it.
                """
            ),
            Text(
                4922,
                "What scaffolds hide",
                TextUse.Exclusions,
                "- Repairs to timber or masonry that show only from the scaffold; we tell you before we touch them."
            ),
        ];

    /// <summary>Those of services.</summary>
    public static IEnumerable<BookEntry> Services() =>
        [
            Text(
                4930,
                "Letter, a year of visits",
                TextUse.Letter,
                """
                Below is what we would do on which days, and what it comes to: *{a month} a month* before tax, the same every month.
                """
            ),
            Text(
                4931,
                "Keys and alarms",
                TextUse.WhatToExpect,
                "Keys are kept in our safe under a number and never with your address. Whoever opens an alarmed door has been shown how by you."
            ),
            Text(
                RoundTerms,
                "Terms of a round",
                TextUse.Terms,
                """
                A visit that falls on a public holiday is made up in the same week. Either of us ends the round with two months' notice.

                A visit that was not as it should be is done again the next working day, at our cost.
                """
            ),
        ];
}
