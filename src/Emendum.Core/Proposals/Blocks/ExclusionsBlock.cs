using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Work;

namespace Emendum.Core.Proposals;

/// <summary>What is left out on purpose, with the reason where one was given.</summary>
internal static class ExclusionsBlock
{
    public static IEnumerable<Element> Of(Writing writing) => LeftOut(writing.Job);

    /// <summary>What a job leaves out.</summary>
    public static IEnumerable<Element> LeftOut(Job job)
    {
        var places = new PlacesInWords(job);
        var excluded =
            from item in job.Work
            from place in job.Places
            where job.Cells.TryGetValue(new(item.Id, place.Id), out var cell) && cell.State == CellState.Excluded
            group (Place: place, job.Cells[new(item.Id, place.Id)].Note) by item;
        return List(
            excluded.SelectMany(item =>
                item.GroupBy(x => x.Note).Select(g => In(job, item.Key, g.Select(x => x.Place), g.Key, places))
            ),
            places
        );
    }

    /// <summary>Work, where, and why.</summary>
    internal static Bullet In(Job job, WorkItem item, IEnumerable<Place> at, string note, PlacesInWords places)
    {
        var where = places.Of(at);
        // Sentences of places begin with in, or with a name.
        var said = where.StartsWith("in ", StringComparison.Ordinal) || where == "everywhere" ? where : "in " + where;
        return new([new($"{job.Titled(item)} {said}{(note.Length == 0 ? "." : ": " + Writing.Sentence(note))}")]);
    }

    /// <summary>Items, and the lists of places that they name; nothing where there are none.</summary>
    internal static IEnumerable<Element> List(IEnumerable<Bullet> items, PlacesInWords places)
    {
        Bullet[] bullets = [.. items];
        return bullets.Length == 0 ? [] : [new Bullets([.. bullets, .. places.ListItems])];
    }
}
