using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes the name of an alternate away: its work stands as it stands, each piece by itself.</summary>
public sealed record UngroupAlternate(Guid Alternate) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var there = RenameAlternate.Find(job, Alternate);
        var write = ChangeSet.CellWriter();
        return
        [
            .. TakeAlternate
                .CellsOf(job, Alternate)
                .Select(c => new Change(
                    $"cells/{c.Key.Work}/{c.Key.Place}",
                    write(c.Value),
                    write(c.Value with { Alternate = null })
                )),
            new($"alternates/{Alternate}", Commands.Node(there), null),
        ];
    }
}
