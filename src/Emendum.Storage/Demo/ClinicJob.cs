using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Storage.Demo;

/// <summary>The made-up Quayside Veterinary Clinic: resin floors, wall tile and panels, frosted film, and a hygiene-wash round; it stays open while we work.</summary>
public static class ClinicJob
{
    private const string Clinical = "Clinical rooms",
        Front = "Front of house",
        Back = "Back of house";

    /// <summary>The clinic job.</summary>
    public static Job Build(Guid id, Guid customer, string date)
    {
        var draft = new Draft(
            id,
            Draft.Info("Quayside Veterinary Clinic", "Floors, walls and a hygiene round", "2039", customer, date),
            UnitSystem.Feet,
            6000
        );
        var waiting = draft.Place(
            Front,
            "Waiting room walls 22 r 9 r 8 l 7 r 14 r 16 x 9; door 6 x 7; window 5 x 6 x2; pass-through 4 x 7"
        );
        var desk = draft.Place(Front, "Reception 12'4 x 9 x 9; door 3 x 6'8; pass-through 5 x 4 raised");
        var consulting = draft.Place(
            Front,
            "Consulting rooms 11'6 x 10 x 9 x3; door 3 x 6'8; window 3 x 4; band splash to 4"
        );
        var prep = draft.Place(
            Clinical,
            "Preparation 16 x 12'8 x 9; door 3 x 6'8 x2; window 4 x 4; band splash to 5; island 6 x 2'6 at 5,5"
        );
        var theatre = draft.Place(Clinical, "Theatre 17'3 x 14 x 9; door 4 x 7 x2; band tile to 7");
        var xray = draft.Place(Clinical, "X-ray 10 x 9'6 x 9; door 4 x 7");
        var recovery = draft.Place(
            Clinical,
            "Recovery ward 20 x 11 x 9; door 4 x 7; window 4 x 4 x2; band splash to 5"
        );
        var isolation = draft.Place(Clinical, "Isolation 9 x 8'6 x 9; door 3 x 6'8; band splash to 5");
        var kennels = draft.Place(Back, "Kennels 24 x 13 x 9; door 4 x 7; window 3 x 3 x4; band splash to 5");
        var wash = draft.Place(Back, "Dog wash 8 x 7 x 9; door 3 x 6'8; band tile to 7");
        var store = draft.Place(Back, "Drug store 7'8 x 6 x 9; door 3 x 6'8");
        var staff = draft.Place(Back, "Staff room 13 x 11 x 9; door 3 x 6'8; window 4 x 4");
        var stair = draft.Place(Back, "Back steps stair 15 rise 7 1/4\" going 10\" wide 3'2; landing 3'2 x 3'6");
        Guid[] clinical = [prep, theatre, xray, recovery, isolation],
            resin = [.. clinical, kennels, wash, consulting],
            dry = [waiting, desk, staff];

        var strip = draft.Work(2230, [.. resin, .. dry]);
        draft.Set(
            strip,
            "hazardAnswer",
            "Tested by the landlord in spring: none found; the report is in the job's notes"
        );
        var level = draft.Work(2220, theatre, recovery, kennels);
        var floor = draft.Work(2221, resin);
        draft.Set(floor, "colour", "Harbour grey");
        draft.Set(floor, "waitsFor", new[] { strip, level });
        draft.Set(floor, wash, "colour", "Signal blue");
        var sheet = draft.Work(141, waiting, desk);
        draft.Set(sheet, "waitsFor", new[] { strip });
        draft.Fill(draft.Work(140), CellState.Alternate, staff);

        var tile = draft.Work(2201, theatre, wash);
        foreach (var place in new[] { theatre, wash })
            draft.Set(tile, place, "source", "bands/1");
        draft.Set(tile, wash, "answers", new[] { new Answer(StarterBook.Id(220181), 31) });
        var panels = draft.Work(2210, consulting, prep, recovery, isolation, kennels);
        foreach (var place in new[] { consulting, prep, recovery, isolation, kennels })
            draft.Set(panels, place, "source", "bands/1");
        draft.Set(panels, "waitsFor", new[] { floor });
        var paint = draft.Work(111, waiting, desk, consulting, prep, theatre, xray, recovery, isolation, store, staff);
        draft.Set(paint, "colour", "Eelgrass white");
        foreach (var place in new[] { consulting, prep, recovery, isolation })
            draft.Set(paint, place, "source", "bands/2");
        draft.Set(paint, theatre, "source", "bands/2");
        draft.Set(paint, theatre, "coats", 3);
        draft.Set(paint, waiting, "colour", "Samphire");
        draft.Work(120, waiting, desk, consulting, prep, recovery, staff, store, isolation);
        var board = draft.Work(2211, theatre, xray);
        draft.Set(board, theatre, "crewNote", "Leave the lamp's steel open; the installer follows on the Thursday");
        var doors = draft.Work(130, [waiting, desk, .. clinical, consulting, staff, store]);
        draft.Fill(doors, CellState.Excluded, xray);
        draft.Do(new SetNote(doors, xray, "", "The lead-lined door stays as delivered"));
        draft.Work(2109, stair);
        var film = draft.Work(2213, consulting, recovery);
        draft.Set(film, "difficulty", "small panes");
        var fittings = draft.Work(2301, desk);
        draft.Set(fittings, "name", "Desk signs");
        draft.Do(new MoveWork(fittings, Section.IdOf("Signs"), null) { Name = "Signs" });
        draft.Set(fittings, "wording", "Signs for the desk and three doors, to be chosen");
        draft.Set(fittings, "allowance", 640m);
        var round = draft.Work(4201, [.. resin, .. dry, store]);
        draft.Set(round, "wording", "Wash and disinfect floors and touched surfaces before the rooms are handed back");
        draft.Set(round, "waitsFor", new[] { panels, paint });
        draft.Set(round, "step", 0.25m);

        draft.Do(new SetConditions([], [StarterBook.Id(2401)]));
        draft.Conditions(theatre, new PlaceCondition(StarterBook.Id(2402), ""));
        draft.Conditions(
            kennels,
            new PlaceCondition(StarterBook.Id(2402), ""),
            new PlaceCondition(StarterBook.Id(2404), "bands/2")
        );
        draft.Do(new SetPace(null, new(1.05m, "first job with the new resin crew")));
        draft.Crew("setUp", StarterBook.Id(3421));
        draft.Price(
            "taxes",
            draft.Job.Pricing.Taxes.Add(
                new(StarterBook.Id(970), "Service tax", 2.5m, [TaxOn.Labour, TaxOn.Subcontract], TaxWay.Charged)
            )
        );
        // Two firms have quoted for the tiling; neither is taken.
        var tiling = draft.Job.Item(tile)!.Section;
        Guid[] ours = [.. draft.Job.Work.Where(w => w.Section == tiling && w.Id != tile).Select(w => w.Id)];
        draft.Do(
            new AddQuote(
                new(draft.Next(), "", tiling, "the tiler", 3_480m, false)
                {
                    ValidUntil = "2027-01-31",
                    LeavesOut = [.. ours],
                    Without = "making good behind the old panels",
                }
            )
        );
        draft.Do(
            new AddQuote(
                new(draft.Next(), "", tiling, "the tiler's cousin", 3_120m, false)
                {
                    ValidUntil = "2026-12-04",
                    LeavesOut = [.. ours],
                    Without = "grout in a colour; carrying up",
                }
            )
        );
        draft.Text(BlockKind.Letter, 4901);
        draft.Text(BlockKind.Terms, TextsBook.Terms);
        draft.Shows("detail", Detail.Place);
        draft.Price(
            "payment",
            new PaymentStep[]
            {
                new("on acceptance, for the resin", null, 2_500m, false),
                new("when the theatre is handed back", null, null, false),
                new("on completion", null, null, false),
            }
        );
        return draft.Job;
    }
}
