using System.Collections.Immutable;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web;

/// <summary>The Book in memory, and the one way in which it changes. What is answered is on disk.</summary>
public sealed class Shelf(BookStore store, TimeProvider time)
{
    private readonly Lock writing = new();
    private volatile State? state;

    private sealed record State(ImmutableDictionary<Guid, BookEntry> Entries, BookIndex Index);

    private State Now => state ?? Load();

    private State Load()
    {
        lock (writing)
            return state ??= Of(store.List().ToImmutableDictionary(e => e.Id));
    }

    private static State Of(ImmutableDictionary<Guid, BookEntry> entries) => new(entries, new(entries.Values));

    /// <summary>The newest version of every entry.</summary>
    public ImmutableDictionary<Guid, BookEntry> Entries => Now.Entries;

    /// <summary>The Book made ready to be searched.</summary>
    public BookIndex Index => Now.Index;

    /// <summary>The newest version of an entry, or null.</summary>
    public BookEntry? Find(Guid id) => Now.Entries.GetValueOrDefault(id);

    /// <summary>The newest version of an entry.</summary>
    /// <exception cref="NotThereException">There is none.</exception>
    public BookEntry Get(Guid id) => Find(id) ?? throw new NotThereException("That entry is not in the Book.");

    /// <summary>Materials that are spread or laid, by name.</summary>
    public IEnumerable<Material> Products =>
        Now
            .Entries.Values.OfType<Material>()
            .Where(m => m.Coverage is not null && !m.Archived)
            .OrderBy(m => m.Name, StringComparer.Ordinal);

    /// <summary>What can be put to work, in Book order.</summary>
    public IEnumerable<WorkEntry> Work => Now.Index.Find(new("", "", "", false)).OfType<WorkEntry>();

    /// <summary>Entries that cannot be reckoned without this one, or offer it.</summary>
    public IEnumerable<BookEntry> UsedBy(Guid id) =>
        Now
            .Entries.Values.Where(e => e.Needs.Contains(id) || (e is WorkEntry work && work.Accessories.Contains(id)))
            .OrderBy(e => e.Name, StringComparer.Ordinal);

    /// <summary>Saves an entry as its next version. <paramref name="was"/> is the version it was made from; 0 for a new one. <paramref name="why"/> stands with the version where it says more than what differs.</summary>
    /// <exception cref="RefusedException">With the field.</exception>
    /// <exception cref="ConflictException">Somebody has saved another version since.</exception>
    public BookEntry Save(BookEntry entry, int was, string person, string why = "")
    {
        lock (writing)
        {
            var old = Find(entry.Id);
            if ((old?.Version ?? 0) != was)
                throw new ConflictException("version", old?.Version);
            if (old is not null && old.GetType() != entry.GetType())
                throw RefusedException.Of("kind", "The kind of an entry does not change; copy it to another.");
            SaveAll([entry], person, why);
            return Get(entry.Id);
        }
    }

    /// <summary>Saves many entries as their next versions, all or none.</summary>
    /// <exception cref="RefusedException">One of them contradicts the Book as it would be; the message names it.</exception>
    public void SaveAll(IReadOnlyList<BookEntry> entries, string person, string why = "")
    {
        lock (writing)
        {
            var deleted = entries.All(e => Now.Entries.ContainsKey(e.Id)) ? [] : store.DeletedVersions();
            var versions = entries
                .Select(e =>
                    e.Settled() with
                    {
                        Version = (Find(e.Id)?.Version ?? deleted.GetValueOrDefault(e.Id)) + 1,
                    }
                )
                .ToArray();
            var changed = Now.Entries.SetItems(versions.Select(e => KeyValuePair.Create(e.Id, e)));
            foreach (var entry in versions)
                // A new entry is filled in bit by bit; one that was whole stays so.
                BookRules.Check(
                    entry,
                    changed,
                    named: entries.Count > 1,
                    unfinished: Find(entry.Id)?.Lacks.Any() ?? true
                );
            // What others rest on may not change under them into something they cannot use.
            if (versions.Length == 1 && Find(versions[0].Id) is not null)
                foreach (var user in UsedBy(versions[0].Id))
                    CheckUser(user, changed, versions[0]);
            store.Add(versions, person, time.GetUtcNow().UtcDateTime, why);
            state = Of(changed);
        }
    }

    private static void CheckUser(BookEntry user, ImmutableDictionary<Guid, BookEntry> changed, BookEntry entry)
    {
        try
        {
            BookRules.Check(user, changed, unfinished: true);
        }
        catch (RefusedException wrong)
        {
            throw RefusedException.Of(
                entry is Material ? "unit" : "",
                $"It is used, and this would break it. {wrong.Refusal.Message}"
            );
        }
    }

    /// <summary>Takes an entry out of the Book; jobs that use it have their own.</summary>
    /// <exception cref="RefusedException">Another entry of the Book needs it.</exception>
    public void Delete(Guid id, string person)
    {
        lock (writing)
        {
            var entry = Get(id);
            var users = Now
                .Entries.Values.Where(e => e.Needs.Contains(id))
                .Select(e => e.Name)
                .Order(StringComparer.Ordinal)
                .ToArray();
            if (users.Length > 0)
                throw RefusedException.Of(
                    "",
                    $"{entry.Name} is used by {Core.Quantities.Counted.Few(users, 4)}. Archive it instead, or change them first."
                );
            store.Delete(id, person, time.GetUtcNow().UtcDateTime);
            state = Of(Now.Entries.Remove(id));
        }
    }
}
