using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes one product for another wherever the job uses it: in work items, in cells, and in the parts of its assemblies.</summary>
public sealed record ReplaceProduct(Guid From, Guid To) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (job.Book.GetValueOrDefault(From) is not Material from)
            throw RefusedException.Of("from", "That product is not used in this job.");
        if (From == To)
            return [];
        if ((job.Book.GetValueOrDefault(To) ?? book(To)) is not Material to)
            throw RefusedException.Of("to", "That product is not in the Book any more.");
        if (to.Unit.Kind != from.Unit.Kind)
            throw RefusedException.Of(
                "to",
                $"{to.Name} is bought by the {to.Unit}, {from.Name} by the {from.Unit}: it cannot take its place."
            );
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var item in job.Work)
        {
            var taken = item.Product ?? (job.Book.GetValueOrDefault(item.Entry) as ProductionRate)?.Product;
            if (taken == From)
                changes.Add(new($"work/{item.Id}/product", Commands.Node(item.Product), Commands.Node<Guid?>(To)));
        }
        foreach (
            var (key, cell) in job
                .Cells.Where(c => c.Value.Product == From)
                .OrderBy(c => c.Key.Work)
                .ThenBy(c => c.Key.Place)
        )
            changes.Add(
                new($"cells/{key.Work}/{key.Place}/product", Commands.Node(cell.Product), Commands.Node<Guid?>(To))
            );
        foreach (
            var assembly in job
                .Book.Values.OfType<Assembly>()
                .Where(a => a.Components.Any(c => c.Entry == From))
                .OrderBy(a => a.Id)
        )
            changes.Add(
                new(
                    $"book/{assembly.Id}",
                    Commands.Node<BookEntry>(assembly),
                    Commands.Node<BookEntry>(
                        assembly with
                        {
                            Components =
                            [
                                .. assembly.Components.Select(c => c.Entry == From ? c with { Entry = To } : c),
                            ],
                        }
                    )
                )
            );
        if (changes.Count == 0)
            throw RefusedException.Of("from", $"No work of this job takes {from.Name}.");
        return [.. Commands.Pin(job, To, "to", book), .. changes];
    }
}
