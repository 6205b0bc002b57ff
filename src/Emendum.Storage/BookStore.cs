using System.Text.Json;
using Emendum.Core.Book;
using Emendum.Core.Jobs;

namespace Emendum.Storage;

/// <summary>The Book on disk: every save is a new immutable (id, version) (architecture decision 7).</summary>
public sealed class BookStore(Database database)
{
    /// <summary>The newest version of every entry.</summary>
    public List<BookEntry> List()
    {
        using var connection = database.Connect();
        return connection.Rows("SELECT content FROM book_entry b WHERE version = (SELECT max(version) FROM book_entry WHERE id = b.id) ORDER BY id",
            r => JsonSerializer.Deserialize<BookEntry>(r.GetString(0), JobJson.Options)!);
    }

    /// <summary>Adds entries in one go.</summary>
    public void Add(IEnumerable<BookEntry> entries)
    {
        using var connection = database.Connect();
        using var transaction = connection.BeginTransaction();
        foreach (var entry in entries)
            connection.Run("INSERT INTO book_entry VALUES ($id, $version, $content)", ("$id", entry.Id), ("$version", entry.Version), ("$content", JsonSerializer.Serialize(entry, JobJson.Options)));
        transaction.Commit();
    }
}
