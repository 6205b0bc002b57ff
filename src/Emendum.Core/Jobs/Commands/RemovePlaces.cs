using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;

namespace Emendum.Core.Jobs;

/// <summary>Removes places with their cells.</summary>
public sealed record RemovePlaces(ImmutableArray<Guid> Places) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var ids = Places.ToHashSet();
        if (ids.Count == 0)
            throw RefusedException.Of("places", "No place is chosen.");
        // Openings that led into a place that goes stay where they were entered, as openings of that room alone.
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (
            var other in job.Places.Where(p =>
                !ids.Contains(p.Id) && p.Openings.Any(o => o.Into is { } into && ids.Contains(into))
            )
        )
        {
            var now = other with
            {
                Openings =
                [
                    .. other.Openings.Select(o =>
                        o.Into is { } into && ids.Contains(into) ? o with { Into = null } : o
                    ),
                ],
            };
            changes.Add(
                new(
                    $"places/{other.Id}",
                    Commands.Node(other),
                    Commands.Node(now with { Line = PlaceLine.Print(now, job.Units, id => job.Place(id)?.Name) })
                )
            );
        }
        changes.AddRange(Commands.CellsGone(job, key => ids.Contains(key.Place)));
        changes.AddRange(
            Places.Distinct().Select(id => new Change($"places/{id}", Commands.Node(Commands.Place(job, id)), null))
        );
        return changes.ToImmutable();
    }
}
