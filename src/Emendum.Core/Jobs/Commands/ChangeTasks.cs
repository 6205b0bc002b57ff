using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>A task before and after.</summary>
/// <param name="Was">As it stood; null for one that is new.</param>
/// <param name="Now">As it is to stand; null for one that goes.</param>
public sealed record TaskChange(PlannedTask? Was, PlannedTask? Now);

/// <summary>Changes tasks of the schedule together: what is laid out, moved or edited, with all that it pushes (T6). What it would do was shown before; here each task only has to stand as it stood then.</summary>
public sealed record ChangeTasks(ImmutableArray<TaskChange> Tasks) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        // Laying out anew takes all away and puts as many there.
        if (Tasks.IsDefault || Tasks.Length > 2 * PlannedTask.Most)
            throw RefusedException.Of("tasks", "Say which tasks are changed.");
        var stands = job.Tasks.ToDictionary(t => t.Id);
        var (changes, seen) = (ImmutableArray.CreateBuilder<Change>(), new HashSet<Guid>());
        foreach (var (was, now) in Tasks)
        {
            var id = was?.Id ?? now?.Id ?? throw RefusedException.Of("tasks", "Say which task is changed.");
            if (!seen.Add(id) || (now is not null && now.Id != id))
                throw RefusedException.Of("tasks", "A task is changed once, and stays the task that it is.");
            var (before, seenAs) = (Commands.Node(stands.GetValueOrDefault(id)), Commands.Node(was));
            if (!ChangeSet.Same(before, seenAs))
                throw new ConflictException("tasks", before);
            if (!ChangeSet.Same(before, Commands.Node(now)))
                changes.Add(new($"tasks/{id}", before, Commands.Node(now)));
        }
        return changes.ToImmutable();
    }
}
