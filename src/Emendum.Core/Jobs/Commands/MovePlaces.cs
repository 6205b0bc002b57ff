using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Puts places, in the order given, under a heading: before a place of it, after one, or (both null) at its end.</summary>
public sealed record MovePlaces(ImmutableArray<PlaceWas> Places, string Group, Guid? Before, Guid? After) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var group = Group.Trim();
        Commands.OnceEach(Places.Select(p => p.Place));
        var moving = Places.Select(p => Commands.Place(job, p.Place)).ToList();
        foreach (var (place, was) in moving.Zip(Places))
            if (place.Group != was.Was)
                throw new ConflictException("group", place.Group);
        var staying = job.Places.RemoveAll(moving.Contains);
        var at =
            Before is { } before ? staying.IndexOf(Commands.Place(job, before))
            : After is { } after ? staying.IndexOf(Commands.Place(job, after)) + 1
            : PlacesInJob.EndOfGroup(staying, group);
        if (at < 0 || (After is not null && at == 0))
            throw RefusedException.Of("places", "A place cannot be put beside itself.");
        var changes = ImmutableArray.CreateBuilder<Change>();
        foreach (var place in moving)
        {
            var now = place with { Group = group, Rank = PlacesInJob.RankAt(staying, at) };
            staying = staying.Insert(at++, now);
            changes.Add(new($"places/{place.Id}", Commands.Node(place), Commands.Node(now)));
        }
        return [.. changes.Where(c => !ChangeSet.Same(c.Before, c.After))];
    }
}
