using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Adds a place read from a tape line, after another or at the end.</summary>
public sealed record AddPlace(Guid Place, string Line, string Group, Guid? After) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        PlacesInJob.IsNew(job, Place);
        var at = After is { } after ? job.Places.IndexOf(Commands.Place(job, after)) + 1 : job.Places.Length;
        return [PlacesInJob.Added(PlacesInJob.Read(job, Place, Line, Group, PlacesInJob.RankAt(job.Places, at)))];
    }
}
