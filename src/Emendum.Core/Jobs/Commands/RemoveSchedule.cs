using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Takes the schedule out of the job.</summary>
public sealed record RemoveSchedule() : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book) =>
        [.. job.Schedule.Select(s => new Change($"schedule/{s.Id}", Commands.Node(s), null))];
}
