using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Storage.Demo;

/// <summary>The made-up yearly hygiene round of the clinic: floors every fortnight, more once a month and each quarter, glass twice a year, and a first deep round.</summary>
public static class ClinicRound
{
    private const string Clinical = "Clinical rooms",
        Front = "Front of house",
        Back = "Back of house";

    /// <summary>The job.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="customer">The clinic.</param>
    /// <param name="date">Its date.</param>
    /// <param name="start">The day of its first visit.</param>
    public static Job Build(Guid id, Guid customer, string date, string start)
    {
        var draft = new Draft(
            id,
            Draft.Info("Quayside hygiene round", "Yearly hygiene-wash round of the clinic", "2036", customer, date),
            UnitSystem.Feet,
            6500
        );
        var waiting = draft.Place(Front, "Waiting room 22 x 16 x 9; window 5 x 6 x2");
        var desk = draft.Place(Front, "Reception 12'4 x 9 x 9");
        var consulting = draft.Place(Front, "Consulting rooms 11'6 x 10 x 9 x3; window 3 x 4");
        var prep = draft.Place(Clinical, "Preparation 16 x 12'8 x 9; window 4 x 4");
        var theatre = draft.Place(Clinical, "Theatre 17'3 x 14 x 9");
        var xray = draft.Place(Clinical, "X-ray 10 x 9'6 x 9");
        var recovery = draft.Place(Clinical, "Recovery ward 20 x 11 x 9; window 4 x 4 x2");
        var isolation = draft.Place(Clinical, "Isolation 9 x 8'6 x 9");
        var kennels = draft.Place(Back, "Kennels 24 x 13 x 9; window 3 x 3 x4");
        var wash = draft.Place(Back, "Dog wash 8 x 7 x 9");
        var store = draft.Place(Back, "Drug store 7'8 x 6 x 9");
        var staff = draft.Place(Back, "Staff room 13 x 11 x 9; window 4 x 4");
        var washroom = draft.Place(Back, "Washrooms items 2 washrooms");
        Guid[] wet = [prep, theatre, xray, recovery, isolation, kennels, wash, consulting],
            all = [.. wet, waiting, desk, store, staff];

        Guid Rhythm(string name, int times, bool usual, bool ownVisit)
        {
            var rhythm = draft.Next();
            draft.Do(new AddRhythm(new(rhythm, "", name, RhythmKind.Times, times) { OwnVisit = ownVisit }, usual));
            return rhythm;
        }
        Rhythm("Fortnightly", 26, usual: true, ownVisit: true);
        var monthly = Rhythm("Monthly", 12, usual: false, ownVisit: false);
        var quarterly = Rhythm("Quarterly", 4, usual: false, ownVisit: false);
        var halfYearly = Rhythm("Twice a year", 2, usual: false, ownVisit: true);

        draft.Work(4201, all);
        var scrub = draft.Work(4101, [.. wet, waiting]);
        draft.Set(scrub, "rhythm", monthly);
        var deep = draft.Work(4104, washroom);
        draft.Set(deep, "rhythm", quarterly);
        var glass = draft.Work(4103, waiting, consulting, prep, recovery, kennels, staff);
        draft.Set(glass, "rhythm", halfYearly);
        var polish = draft.Work(4102, waiting, desk, staff);
        draft.Set(polish, "rhythm", Core.Jobs.Rhythm.Once);
        draft.Set(polish, "wording", "Strip and polish the floors of the dry rooms before the first round");

        draft.Round("start", start);
        draft.Round("rise", 3m);
        draft.Round("years", 3);
        draft.Round(
            "supplies",
            new[]
            {
                new YearSupply(draft.Next(), "Hand towels, carton", 30, 29.60m, [1, 7]),
                new YearSupply(draft.Next(), "Soap, 5 L", 12, 18.45m, [1, 4, 7, 10]),
            }
        );
        draft.Price("leastJob", 180m);
        draft.Price("rounding", new PriceRounding(5, true, false));
        draft.Crew("size", 2);
        draft.Crew("setUp", StarterBook.Id(3421));
        draft.Text(BlockKind.Letter, 4930);
        draft.Text(BlockKind.Expect, 4931);
        draft.Text(BlockKind.Terms, TextsBook.RoundTerms);
        return draft.Job;
    }
}
