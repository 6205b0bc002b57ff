using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Storage.Demo;

/// <summary>The made-up showroom of the pottery: a small job of last season, whose prices hold no longer.</summary>
public static class ShowroomJob
{
    /// <summary>The showroom.</summary>
    public static Job Build(Guid id, Guid customer, string date)
    {
        var draft = new Draft(
            id,
            Draft.Info("Marrow Street showroom", "Walls, ceiling and floor of the showroom", "2034", customer, date),
            UnitSystem.Feet,
            8500
        );
        var room = draft.Place("Shop", "Showroom 26 x 18 x 9'6; door 6 x 7; window 8 x 6 x2");
        var back = draft.Place("Shop", "Packing room 12 x 10 x 8'6; door 3 x 6'8 x2");
        draft.Work(120, room, back);
        var walls = draft.Work(111, room, back);
        draft.Set(walls, "colour", "Kelp grey");
        draft.Work(132, room, back);
        draft.Work(141, room, back);
        draft.Crew("setUp", StarterBook.Id(3421));
        draft.Text(BlockKind.Letter, 4920);
        draft.Text(BlockKind.Terms, TextsBook.Terms);
        draft.Price(
            "payment",
            new PaymentStep[] { new("on acceptance", 50, null, false), new("on completion", null, null, false) }
        );
        return draft.Job;
    }
}
