using System.Text.Json.Nodes;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Work;

namespace Emendum.Core.Checks;

/// <summary>
/// Included work whose quantity comes to nothing: it is no work, and goes to no customer and no crew. Where its places have another measure of the kind, taking that one is
/// offered (estimating model §4).
/// </summary>
internal static class WorkWithoutMeasure
{
    public static IEnumerable<Finding> In(CheckedJob job) =>
        from line in job.Reckoned.Lines
        where line.IsNothing && line.Measures.Place.Shape is not Unmeasured
        let taken = line.CouldTake(job.Job.Units).FirstOrDefault()
        group line by (line.OfItem, taken?.Leaf, taken?.Label) into none
        let item = none.Key.OfItem
        let first = none.First()
        select job.Found(
            none.Key.Leaf is { } leaf ? $"noMeasure/{item.Item.Id}/{leaf}" : $"noMeasure/{item.Item.Id}",
            "Work of nothing",
            $"{job.Named(item)} comes to nothing in {Places(none)}.",
            $"{first.WhyNothing(job.Job.Units)} {Has(first, job.Job.Units)}",
            first.Measures.Place.Id,
            item.Item.Id,
            offers: none.Key.Leaf is { } take
                ? [new($"Take {none.Key.Label!.ToLowerInvariant()} there", Taking(item.Item, none, take))]
                : [new("Take it out there", TakingOut(item.Item, none))]
        );

    private static string Places(IEnumerable<Line> lines)
    {
        var names = lines.Select(l => l.Measures.Place.Name).ToArray();
        return names.Length <= 3
            ? string.Join(", ", names)
            : $"{string.Join(", ", names.Take(2))} and {names.Length - 2} more";
    }

    private static string Has(Line line, UnitSystem units)
    {
        var could = line.CouldTake(units).ToArray();
        return could.Length == 0
            ? "The place has no measure of that kind: take the work out there, or type its quantity."
            : $"There is {string.Join(", ", could.Take(4).Select(m => $"{m.Label.ToLowerInvariant()} {m.Shown}"))}.";
    }

    private static SetCells Taking(WorkItem item, IEnumerable<Line> lines, string leaf) =>
        new(
            item.Id,
            "source",
            [
                .. lines.Select(l => new AtPlace(
                    l.Measures.Place.Id,
                    JsonValue.Create(l.Cell.Source),
                    JsonValue.Create(leaf)
                )),
            ]
        );

    private static FillCells TakingOut(WorkItem item, IEnumerable<Line> lines) =>
        new(
            [item.Id],
            [.. lines.Select(l => l.Measures.Place.Id)],
            string.Concat(lines.Select(l => FillCells.Letter(l.Cell.State))),
            null
        );
}
