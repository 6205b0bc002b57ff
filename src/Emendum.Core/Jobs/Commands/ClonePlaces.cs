using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Places;

namespace Emendum.Core.Jobs;

/// <summary>Copies places with their work. A heading given is replaced at the front of theirs; without one the copies get a free name beside the original.</summary>
public sealed record ClonePlaces(ImmutableArray<PlaceCopy> Places, string? GroupWas, string? Group) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        if (Places.IsEmpty)
            throw RefusedException.Of("places", "No place is chosen.");
        if (Places.Length + job.Places.Length > JobRules.MostPlaces)
            throw RefusedException.Of("places", $"A job takes at most {JobRules.MostPlaces} places.");
        Commands.OnceEach(Places.Select(p => p.From));
        Commands.OnceEach(Places.Select(p => p.To));
        var copies = Places.ToDictionary(p => p.From, p => p.To);
        var places = job.Places;
        var taken = job.Places.Select(p => (p.Group, p.Name)).ToHashSet();
        var changes = ImmutableArray.CreateBuilder<Change>();
        var added = new List<Place>();
        foreach (var original in job.Places.Where(p => copies.ContainsKey(p.Id)))
        {
            var id = copies[original.Id];
            PlacesInJob.IsNew(job, id);
            var group = this is { GroupWas: { } was, Group: { } now }
                ? PlacesInJob.Moved(original.Group, was, now.Trim())
                : original.Group;
            var name = PlacesInJob.FreeName(original.Name, n => taken.Contains((group, n)));
            taken.Add((group, name));
            // A group's copy stands after the group; a place's copy after the place.
            var at = Group is null
                ? places.IndexOf(places.First(p => p.Id == original.Id)) + 1
                : PlacesInJob.EndOfGroup(places, group);
            var copy = original with
            {
                Id = id,
                Name = name,
                Group = group,
                Rank = PlacesInJob.RankAt(places, at),
                Openings =
                [
                    .. original.Openings.Select(o =>
                        o.Into is { } into && copies.TryGetValue(into, out var other) ? o with { Into = other } : o
                    ),
                ],
            };
            places = places.Insert(at, copy);
            added.Add(copy);
        }
        if (added.Count != Places.Length)
            throw RefusedException.Of("places", "That place is not in this job any more.");
        var names = added.ToDictionary(p => p.Id, p => p.Name);
        foreach (var copy in added)
            changes.Add(
                PlacesInJob.Added(
                    copy with
                    {
                        Line = PlaceLine.Print(
                            copy,
                            job.Units,
                            id => names.GetValueOrDefault(id) ?? job.Place(id)?.Name
                        ),
                    }
                )
            );
        foreach (var work in job.Work)
        foreach (var copy in Places)
            if (job.Cells.TryGetValue(new(work.Id, copy.From), out var cell))
                changes.Add(new($"cells/{work.Id}/{copy.To}", null, Commands.Node(cell)));
        return changes.ToImmutable();
    }

    /// <inheritdoc/>
    internal override bool CellsAreSound => true;
}

/// <summary>A place and the id of its copy.</summary>
public sealed record PlaceCopy(Guid From, Guid To);
