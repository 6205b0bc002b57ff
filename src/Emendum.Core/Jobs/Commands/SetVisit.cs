using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Says when a rhythm is done: instead of another, on a visit of its own, or while the crew is there anyway.</summary>
/// <param name="Rhythm">Which.</param>
/// <param name="Was">As it was.</param>
/// <param name="Now">As it is to be.</param>
public sealed record SetVisit(Guid Rhythm, VisitOf Was, VisitOf Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var path = $"rhythms/{SetRhythm.Find(job, Rhythm).Id}/";
        return
        [
            .. Commands.Set(job, path + "instead", Commands.Node(Was.Instead), Commands.Node(Now.Instead)),
            .. Commands.Set(job, path + "ownVisit", Commands.Node(Was.OwnVisit), Commands.Node(Now.OwnVisit)),
        ];
    }
}

/// <summary>When a rhythm is done.</summary>
/// <param name="Instead">Of which rhythm it takes the place; null for none.</param>
/// <param name="OwnVisit">Whether it needs a visit of its own.</param>
public sealed record VisitOf(Guid? Instead, bool OwnVisit);
