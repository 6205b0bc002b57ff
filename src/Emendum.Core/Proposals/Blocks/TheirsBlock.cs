using Emendum.Core.Jobs;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Proposals;

/// <summary>What the customer does, by place.</summary>
internal static class TheirsBlock
{
    public static IEnumerable<Element> Of(Writing writing) =>
        Of(writing.Job, writing.Estimate.Reckoned.Lines.Where(l => !l.Hidden));

    /// <summary>What of some lines the customer does.</summary>
    public static IEnumerable<Element> Of(Job job, IEnumerable<Line> lines)
    {
        var places = new PlacesInWords(job);
        return ExclusionsBlock.List(
            lines
                .Where(l => l.Supply == Supply.Customer && !l.IsNothing)
                .GroupBy(l => (Item: l.OfItem, l.Cell.Note))
                .Select(g =>
                    ExclusionsBlock.In(job, g.Key.Item.Item, g.Select(l => l.Measures.Place), g.Key.Note, places)
                ),
            places
        );
    }
}
