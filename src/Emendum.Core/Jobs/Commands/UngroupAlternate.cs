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
        return
        [
            .. Commands.Become(TakeAlternate.CellsOf(job, Alternate), cell => cell with { Alternate = null }),
            new($"alternates/{Alternate}", Commands.Node(there), null),
        ];
    }
}
