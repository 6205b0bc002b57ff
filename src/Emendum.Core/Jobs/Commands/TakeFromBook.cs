using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Work;

namespace Emendum.Core.Jobs;

/// <summary>Takes the newest versions of entries from the Book.</summary>
/// <param name="Entries">Which; the job uses them already.</param>
/// <param name="Work">A work item that gives up what it has instead of its entry; none when null.</param>
public sealed record TakeFromBook(ImmutableArray<Guid> Entries, Guid? Work) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var changes = ImmutableArray.CreateBuilder<Change>();
        var growing = job;
        foreach (var id in Entries.Distinct())
        {
            if (job.Book.GetValueOrDefault(id) is not { } there)
                throw RefusedException.Of("entries", "That entry is not in this job any more.");
            var newest =
                book(id)
                ?? throw RefusedException.Of(
                    "entries",
                    $"{there.Name} is not in the Book any more; the job keeps its own."
                );
            foreach (
                var pin in newest
                    .Needs.SelectMany(need => Commands.Pin(growing, need, "entries", book))
                    .DistinctBy(c => c.Path)
            )
            {
                changes.Add(pin);
                growing = ChangeSet.Apply(growing, [pin]);
            }
            var change = new Change($"book/{id}", Commands.Node(there), Commands.Node(newest));
            if (!ChangeSet.Same(change.Before, change.After))
                changes.Add(change);
        }
        if (Work is { } work)
        {
            var item = Commands.Item(job, work);
            var entry = (WorkEntry)(book(item.Entry) ?? job.Book[item.Entry]);
            var (section, made) = WorkInJob.SectionNamed(job, entry.Section);
            var plain = AsInBook(item, entry) with { Section = section };
            if (section != item.Section)
                plain = plain with { Rank = WorkInJob.RankAfter(job.Work, section, job.Work[^1]) };
            changes.AddRange(made);
            if (!ChangeSet.Same(Commands.Node(item), Commands.Node(plain)))
                changes.Add(new($"work/{work}", Commands.Node(item), Commands.Node(plain)));
            if (section != item.Section)
                changes.AddRange(WorkInJob.Emptied(job, item));
        }
        return changes.ToImmutable();
    }

    /// <summary>The work item without what it has instead of its entry. Coats, colour, answers and what is of this job alone stay.</summary>
    private static WorkItem AsInBook(WorkItem item, WorkEntry entry) =>
        item with
        {
            Pace = null,
            Product = null,
            Role = null,
            Surface = null,
            Step = null,
            DryingHours = null,
            CrewNote = null,
            CustomerNote = null,
            Hidden = null,
            Wording = entry.Wording,
            Name = entry.Name,
        };
}
