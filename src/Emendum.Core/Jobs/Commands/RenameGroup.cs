using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Gives a heading, with those nested in it, another name.</summary>
public sealed record RenameGroup(string Was, string Group) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var now = Group.Trim();
        if (Was.Length == 0)
            throw RefusedException.Of("group", "Places without a heading have none to rename.");
        var touched = job.Places.Where(p => PlacesInJob.Moved(p.Group, Was, now) != p.Group).ToList();
        if (touched.Count == 0 && Was != now)
            throw RefusedException.Of("group", "That heading is not in this job any more.");
        return
        [
            .. touched.Select(p => new Change($"places/{p.Id}/group", p.Group, PlacesInJob.Moved(p.Group, Was, now))),
        ];
    }
}
