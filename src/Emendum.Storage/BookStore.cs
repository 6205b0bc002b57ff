using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Json;

namespace Emendum.Storage;

/// <summary>One version of an entry, with who saved it and when (UTC; empty for what was there before versions were signed).</summary>
public sealed record SavedVersion(BookEntry Entry, string Person, string At)
{
    /// <summary>Why it was written, where that says more than what differs in it; empty otherwise.</summary>
    public string Why { get; init; } = "";
}

/// <summary>A job that has pinned an entry.</summary>
public sealed record PinnedIn(Guid Job, string Name, string Number);

/// <summary>The Book on disk: every save is a new immutable (id, version) (architecture decision 7).</summary>
public sealed class BookStore(Database database)
{
    /// <summary>The newest version of every entry that is not deleted. One that cannot be read is left out, and named by <see cref="Unread"/>.</summary>
    public List<BookEntry> List() => Everything().Entries;

    /// <summary>Entries that stand in the database and cannot be read.</summary>
    public List<Guid> Unread() => Everything().Unread;

    /// <summary>Both, read once. What rests on an entry that cannot be read stays, and is refused where it is used.</summary>
    public (List<BookEntry> Entries, List<Guid> Unread) Everything()
    {
        var newest = Newest();
        return (
            [.. newest.Select(e => e.Entry).OfType<BookEntry>()],
            [.. newest.Where(e => e.Entry is null).Select(e => e.Id)]
        );
    }

    /// <summary>The Book as it stood at a moment (UTC): the last version of every entry that had been saved by then, and was not deleted.</summary>
    public List<BookEntry> AsOf(DateTime moment) => [.. Newest(moment).Select(e => e.Entry).OfType<BookEntry>()];

    private List<(Guid Id, BookEntry? Entry)> Newest(DateTime? by = null)
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT id, content FROM book_entry b WHERE version = (SELECT max(version) FROM book_entry WHERE id = b.id AND at <= $by) AND id NOT IN (SELECT id FROM book_deleted WHERE at <= $by) ORDER BY id",
            r =>
            {
                try
                {
                    var (id, entry) = (r.GetGuid(0), Read(r.GetString(1)));
                    return (id, entry.Id == id ? entry : null);
                }
                catch (Exception wrong)
                    when (wrong
                            is JsonException
                                or NotSupportedException
                                or InvalidOperationException
                                or ArgumentException
                    )
                {
                    return (r.GetGuid(0), null);
                }
            },
            // Every moment is below this.
            ("$by", by is { } moment ? JobStore.Utc(moment) : "~")
        );
    }

    /// <summary>Saves new versions in one go; <paramref name="why"/> stands with them where it says more than what differs.</summary>
    public void Add(IEnumerable<BookEntry> entries, string person, DateTime now, string why = "")
    {
        using var writing = database.Writes();
        var connection = writing.Connection;
        foreach (var entry in entries)
        {
            connection.Run(
                "INSERT INTO book_entry (id, version, content, person, at, why) VALUES ($id, $version, $content, $person, $at, $why)",
                ("$id", entry.Id),
                ("$version", entry.Version),
                ("$content", JsonSerializer.Serialize(entry, CoreJson.Options)),
                ("$person", person),
                ("$at", JobStore.Utc(now)),
                ("$why", why)
            );
            connection.Run("DELETE FROM book_deleted WHERE id = $id", ("$id", entry.Id));
        }
        writing.Commit();
    }

    /// <summary>Takes an entry out of the Book. Its versions stay, and jobs have their own.</summary>
    public void Delete(Guid id, string person, DateTime now)
    {
        using var connection = database.Connect();
        connection.Run(
            "INSERT OR IGNORE INTO book_deleted VALUES ($id, $person, $at)",
            ("$id", id),
            ("$person", person),
            ("$at", JobStore.Utc(now))
        );
    }

    /// <summary>The newest version of every entry that is deleted: one that comes back goes on from there.</summary>
    public Dictionary<Guid, int> DeletedVersions()
    {
        using var connection = database.Connect();
        return connection
            .Rows(
                "SELECT id, max(version) FROM book_entry WHERE id IN (SELECT id FROM book_deleted) GROUP BY id",
                r => (Id: r.GetGuid(0), Version: r.GetInt32(1))
            )
            .ToDictionary(d => d.Id, d => d.Version);
    }

    /// <summary>All versions of an entry, newest first.</summary>
    public List<SavedVersion> Versions(Guid id)
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT content, person, at, why FROM book_entry WHERE id = $id ORDER BY version DESC",
            r => new SavedVersion(Read(r.GetString(0)), r.GetString(1), r.GetString(2)) { Why = r.GetString(3) },
            ("$id", id)
        );
    }

    /// <summary>Jobs that have pinned an entry, newest change first.</summary>
    public List<PinnedIn> Jobs(Guid id)
    {
        using var connection = database.Connect();
        return connection.Rows(
            "SELECT j.id, j.name, j.number FROM job_pin p JOIN job j ON j.id = p.job_id WHERE p.entry_id = $id ORDER BY j.changed DESC, j.id",
            r => new PinnedIn(r.GetGuid(0), r.GetString(1), r.GetString(2)),
            ("$id", id)
        );
    }

    private static BookEntry Read(string content)
    {
        // Older versions are brought to the present form.
        if (!content.Contains("\"costPerHour\"", StringComparison.Ordinal))
            return JsonSerializer.Deserialize<BookEntry>(content, CoreJson.Options)!;
        var node = JsonNode.Parse(content)!.AsObject();
        JobUpgrade.Entry(node);
        return node.Deserialize<BookEntry>(CoreJson.Options)!;
    }
}
