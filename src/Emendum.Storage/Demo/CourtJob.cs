using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Storage.Demo;

/// <summary>The made-up glasshouse court of the Hollin Botanic Trust, in metres: resin-bound paths on a base, brick paving, oiled handrails, glass washing.</summary>
public static class CourtJob
{
    /// <summary>The court, built by the same commands a person gives.</summary>
    public static Job Build(Guid id, Guid customer, string date) => Build(id, customer, date, asFirstSent: false);

    /// <summary>The court as revision A had it, before the Trust asked for a smaller terrace and for the rails to be oiled.</summary>
    public static Job AsFirstSent(Guid id, Guid customer, string date) => Build(id, customer, date, asFirstSent: true);

    private static Job Build(Guid id, Guid customer, string date, bool asFirstSent)
    {
        var draft = new Draft(
            id,
            Draft.Info(
                "Hollin Botanic Trust, glasshouse court",
                "Paths, paving, rails and glass",
                "2040",
                customer,
                date
            ),
            UnitSystem.Metres,
            5000
        );
        var (loop, palm, fern) = (
            draft.Place("Court", "Loop path site 31 x 2"),
            draft.Place("Court", "Palm path site 24 x 1.8"),
            draft.Place("Court", "Fern walk site 15 x 1.6")
        );
        var terrace = draft.Place("Court", asFirstSent ? "Terrace site 12 x 9" : "Terrace site 12 x 7.5");
        var rails = draft.Place("Court", "Handrails run 46");
        var glass = draft.Place("Glasshouse", "South glass face 28 x 4.2");
        var (baseLayers, path) = (draft.Work(3202, loop, palm, fern), draft.Work(3201, loop, palm, fern));
        var (paving, oiling) = (draft.Work(3203, terrace), draft.Work(3104, rails));
        var washing = draft.Work(4202, glass);
        draft.Set(path, "waitsFor", new[] { baseLayers });
        draft.Set(path, "difficulty", "curved, stepped");
        draft.Do(new SetConditions([], [StarterBook.Id(4401)]));
        draft.Crew("setUp", StarterBook.Id(3421));
        // Washing glass is sold by the square metre, whatever the rest is priced by.
        draft.Set(washing, "unitPrice", new UnitPrice(4.25m, Unit.SquareMetre));
        draft.Section(washing, "pricing", new OwnBasis(PriceBasis.UnitPrice));
        // The Trust may do with the paths alone, or have them at a keener price.
        var (asked, paths, keen) = (draft.Next(), draft.Next(), draft.Next());
        draft.Do(new AddVariant(paths, "Paths alone", asked, "As asked"));
        draft.Do(new TakeVariant(asked, paths));
        draft.Do(new SetPiece(PieceKind.Work, paving, PieceState.In, PieceState.Out));
        draft.Do(new SetPiece(PieceKind.Work, oiling, PieceState.In, PieceState.Out));
        draft.Do(new TakeVariant(paths, asked));
        draft.Do(new AddVariant(keen, "Keener", asked, ""));
        draft.Do(new TakeVariant(asked, keen));
        draft.Price("profit", 12m);
        draft.Do(new TakeVariant(keen, asked));
        draft.Text(BlockKind.Letter, 4920);
        draft.Text(BlockKind.Terms, TextsBook.Terms);
        draft.Price(
            "payment",
            new PaymentStep[] { new("on acceptance", 25, null, false), new("on completion", null, null, false) }
        );
        if (!asFirstSent)
        {
            draft.Pictures("What it is made of", 2, BlockKind.Scope, DemoPictures.Gravel, DemoPictures.Bricks);
            draft.Pictures("How it will look", 1, BlockKind.Letter, DemoPictures.Court);
        }
        if (asFirstSent)
        {
            draft.Do(new SetPiece(PieceKind.Work, oiling, PieceState.In, PieceState.Out));
            draft.Price("profit", 11m);
        }
        return draft.Job;
    }
}
