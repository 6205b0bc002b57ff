using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Reads a place anew from an edited tape line.</summary>
public sealed record RemeasurePlace(Guid Place, string Was, string Line) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var place = Commands.Place(job, Place);
        if (place.Line != Was)
            throw new ConflictException("line", place.Line);
        if (place.Line == Line.Trim())
            return [];
        var now = PlacesInJob.Read(job, place.Id, Line, place.Group, place.Rank) with
        {
            Typed = place.Typed,
            Finish = place.Finish,
            Notes = place.Notes,
        };
        var changes = ImmutableArray.Create(new Change($"places/{place.Id}", Commands.Node(place), Commands.Node(now)));
        return now.Name == place.Name
            ? changes
            :
            [
                .. changes,
                .. PlacesInJob.Relettered(
                    job,
                    other => other.Id != place.Id && other.Openings.Any(o => o.Into == place.Id),
                    job.Units,
                    id => id == place.Id ? now.Name : job.Place(id)?.Name
                ),
            ];
    }
}
