using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Storage.Demo;

/// <summary>The made-up reading gallery of the lending library: small, with a choice of carpet tiles and of coats, and an alternate; its customer has chosen and signed.</summary>
public static class GalleryJob
{
    /// <summary>The gallery.</summary>
    public static Job Build(Guid id, Guid customer, string date)
    {
        var draft = new Draft(
            id,
            Draft.Info("Saltmarsh reading gallery", "Ceilings, walls and carpet tile", "2035", customer, date),
            UnitSystem.Feet,
            8000
        );
        var gallery = draft.Place(
            "Gallery",
            "Reading gallery 32 x 14'6 x 10; door 3 x 7 x2; window 4 x 5 x3; pass-through 6 x 8"
        );
        var alcove = draft.Place("Gallery", "Map alcove 12 x 9 x 10; pass-through 6 x 8; window 3 x 4");
        var lobby = draft.Place("Gallery", "Stair lobby 11 x 8'6 x 10; door 3 x 7 x2");
        draft.Work(120, gallery, alcove, lobby);
        var walls = draft.Work(111, gallery, alcove, lobby);
        draft.Set(walls, "colour", "Gannet white");
        draft.Work(132, gallery, alcove, lobby);
        var tiles = draft.Work(140, gallery, alcove);
        var lobbyTiles = draft.Work(140);
        draft.Fill(lobbyTiles, CellState.Alternate, lobby);
        draft.Do(
            new GroupAlternate(draft.Next(), "The stair lobby's floor, too", AlternateKind.Add, [lobbyTiles], [lobby])
        );
        draft.Choice("Carpet tiles", tiles, [], LibraryJob.CarpetTiles(draft));
        draft.Choice(
            "Walls",
            walls,
            [],
            new(draft.Next(), "Two coats") { Coats = 2 },
            new(draft.Next(), "Three coats, washable every day") { Coats = 3 }
        );
        draft.Crew("setUp", StarterBook.Id(3421));
        draft.Text(BlockKind.Letter, 4920);
        draft.Text(BlockKind.Terms, TextsBook.Terms);
        draft.Price(
            "payment",
            new PaymentStep[] { new("on acceptance", 40, null, false), new("on completion", null, null, false) }
        );
        return draft.Job;
    }
}
