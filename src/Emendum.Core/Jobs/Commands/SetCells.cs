using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a field of cells of one work item, but their state and sentence; null lets them fall back to it. Entries they name are pinned.</summary>
public sealed record SetCells(Guid Work, string Field, ImmutableArray<AtPlace> At) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var work = Commands.Item(job, Work).Id;
        CellKey Key(AtPlace at) => new(work, at.Place);
        if (At.Any(at => !job.Cells.ContainsKey(Key(at))))
            throw RefusedException.Of(Field, "Include the work here first.");
        return Commands.Pinning(
            job,
            Commands.SetAll(job, $"cells/{work}", Field, At),
            changed => At.SelectMany(at => changed.Cells[Key(at)].Uses),
            Field,
            book
        );
    }
}
