using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Storage.Demo;

/// <summary>The made-up Marrow Street Pottery: limewashed outside walls with gables, timber windows, an anti-slip jetty deck, two notice boards.</summary>
public static class PotteryJob
{
    private const string Outside = "Outside",
        Jetty = "Jetty";

    /// <summary>The pottery job.</summary>
    public static Job Build(Guid id, Guid customer, string date)
    {
        var draft = new Draft(
            id,
            Draft.Info("Marrow Street Pottery", "Limewash, windows and the jetty deck", "2038", customer, date),
            UnitSystem.Feet,
            7000
        );
        var front = draft.Place(Outside, "Street front face 38 x 14; gable 38 x 11; window 4 x 5 x4; door 4 x 7'6");
        var yard = draft.Place(Outside, "Yard side face 52 x 12'6; window 3 x 4 x6; door 3 x 6'8; door 8 x 9");
        var harbour = draft.Place(Outside, "Harbour gable face 26 x 12'6; gable 26 x 9'6; window 4 x 4 x2");
        var kiln = draft.Place(Outside, "Kiln house face 18 x 10; gable 18 x 6; door 4 x 7");
        var wall = draft.Place(Outside, "Yard wall run 64 wide 6'8");
        var boards = draft.Place(Outside, "Notice boards items 2 notice boards");
        var signs = draft.Place(Outside, "Shop lettering run 14");
        var deck = draft.Place(Jetty, "Deck site corners 0,0 46,0 46,9 22,9 22,15 0,15");
        var ramp = draft.Place(Jetty, "Ramp site 18 x 5'6");
        var rail = draft.Place(Jetty, "Handrail run 112");

        Guid[] walls = [front, yard, harbour, kiln];
        var wash = draft.Work(3102, walls);
        var lime = draft.Work(3101, walls);
        draft.Set(lime, "coats", 3);
        draft.Set(lime, "colour", "chalk");
        draft.Set(lime, "surface", StarterBook.Id(3412));
        draft.Set(lime, "waitsFor", new[] { wash });
        draft.Set(lime, kiln, "coats", 2);
        draft.Set(lime, kiln, "colour", "oxide");
        draft.Set(lime, kiln, "customerNote", "The kiln stays cold for four days.");
        draft.Set(lime, harbour, "conditions", new[] { StarterBook.Id(3401) });
        draft.Set(lime, yard, "quantity", new TypedQuantity(Kind.Area, "40 x 12'6", UnitSystem.Feet));
        var cedar = draft.Work(3211, harbour);
        draft.Set(cedar, "answers", new[] { new Answer(StarterBook.Id(321181), 45) });
        var windows = draft.Work(3103, front, yard, harbour);
        draft.Set(windows, "supply", Supply.CustomerMaterial);
        draft.Set(windows, yard, "crewNote", "Two sashes are painted shut; ease them before priming");
        draft.Do(new SetNote(windows, yard, "", "The paint is left over from the shop front and is in the clay store"));
        draft.Work(3107, front, yard);
        draft.Fill(draft.Work(3105), CellState.Alternate, ramp);
        draft.Work(3104, rail);
        var coat = draft.Work(3210, deck, ramp);
        draft.Set(coat, "colour", "slate");
        draft.Set(coat, "difficulty", "fiddly");
        draft.Work(2302, boards);
        var lettering = draft.Work(2303, signs);
        draft.Set(lettering, "customerNote", "The words are settled with you before we draw them out.");
        var panel = draft.Work(3302, boards);
        draft.Fill(panel, CellState.Excluded, boards);
        draft.Do(new SetNote(panel, boards, "", "No test panel: the lime is the one used on the kiln house last year"));

        foreach (var place in new[] { deck, ramp, rail })
            draft.Conditions(place, new PlaceCondition(StarterBook.Id(3401), ""));
        draft.Crew("setUp", StarterBook.Id(3421));
        draft.Price("leastLine", 180m);
        draft.Price("discounts", new[] { new Discount("Second job for the pottery", 4, null) });
        draft.Text(BlockKind.Letter, 4920);
        draft.Text(BlockKind.Expect, TextsBook.Outdoors);
        draft.Text(BlockKind.Terms, TextsBook.Terms);
        draft.Price(
            "payment",
            new PaymentStep[]
            {
                new("deposit, on acceptance", 30, null, false),
                new("when the walls are limewashed", 40, null, false),
                new("when the deck can be walked on", null, null, false),
            }
        );
        return draft.Job;
    }
}
