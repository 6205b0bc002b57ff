using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Sets a field of a work item, but its id, rank and entry. Entries it names are pinned.</summary>
public sealed record SetWork(Guid Work, string Field, JsonNode? Was, JsonNode? Now) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var change = Commands.Set(job, Commands.Field($"work/{Commands.Item(job, Work).Id}", Field), Was, Now);
        return Commands.Pinning(job, change, changed => changed.Item(Work)!.Uses, Field, book);
    }
}
