using System.Collections.Immutable;
using Emendum.Core.Book;

namespace Emendum.Core.Jobs;

/// <summary>Changes an entry inside this job alone; the Book stays as it is.</summary>
public sealed record SetEntry(BookEntry Was, BookEntry Entry) : Command
{
    /// <inheritdoc/>
    internal override ImmutableArray<Change> Changes(Job job, Func<Guid, BookEntry?> book)
    {
        var now = Entry.Settled();
        if (job.Book.GetValueOrDefault(now.Id) is not { } there)
            throw RefusedException.Of("entry", "That entry is not in this job any more.");
        if (!ChangeSet.Same(Commands.Node(there), Commands.Node(Was)))
            throw new ConflictException("entry", Commands.Node(there));
        if (there.GetType() != now.GetType() || there.Version != now.Version)
            throw RefusedException.Of("entry", "Kind and version of an entry do not change in a job.");
        var change = new Change($"book/{now.Id}", Commands.Node(there), Commands.Node(now));
        if (ChangeSet.Same(change.Before, change.After))
            return [];
        BookRules.Check(
            now,
            job.Book.SetItem(now.Id, now)
                .AddRange(
                    now.Needs.Where(n => !job.Book.ContainsKey(n))
                        .Distinct()
                        .Select(book)
                        .OfType<BookEntry>()
                        .Select(e => KeyValuePair.Create(e.Id, e))
                ),
            named: false
        );
        return Commands.Pinning(job, [change], changed => changed.Book[now.Id].Needs, "entry", book);
    }
}
