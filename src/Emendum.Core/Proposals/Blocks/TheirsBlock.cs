using Emendum.Core.Work;

namespace Emendum.Core.Proposals;

/// <summary>What the customer does, by place.</summary>
internal static class TheirsBlock
{
    public static IEnumerable<Element> Of(Writing writing)
    {
        var places = new PlacesInWords(writing.Job);
        return ExclusionsBlock.List(
            writing
                .Estimate.Reckoned.Lines.Where(l => l.Supply == Supply.Customer && !l.Hidden && !l.IsNothing)
                .GroupBy(l => (Item: l.OfItem, l.Cell.Note))
                .Select(g =>
                    ExclusionsBlock.In(
                        writing.Job,
                        g.Key.Item.Item,
                        g.Select(l => l.Measures.Place),
                        g.Key.Note,
                        places
                    )
                ),
            places
        );
    }
}
