namespace Emendum.Core.Book;

/// <summary>What an entry must be to be reckoned with.</summary>
public static class BookRules
{
    /// <summary>Checks one entry against the others it stands with. With <paramref name="named"/> the refusal names the entry; without, it stands beside its field.</summary>
    /// <param name="entry">The entry.</param>
    /// <param name="all">Those it stands with, and itself.</param>
    /// <param name="named">Whether the refusal names the entry.</param>
    /// <param name="unfinished">Whether something may still be lacking, as in the Book.</param>
    /// <exception cref="RefusedException">The first thing that is wrong.</exception>
    public static void Check(
        BookEntry entry,
        IReadOnlyDictionary<Guid, BookEntry> all,
        bool named = true,
        bool unfinished = false
    )
    {
        var check = new BookCheck(entry, all, named);
        if (entry.Id == Guid.Empty)
            throw check.Wrong("id", "it needs an id.");
        if (string.IsNullOrWhiteSpace(entry.Name))
            throw check.Wrong("name", "it needs a name.");
        check.Text(entry.Name, "name", 200);
        check.Text(entry.Section, "section", 120);
        check.Text(entry.Trade, "trade", 120);
        check.Text(entry.Source ?? "", "source", 400);
        if (entry.Tags.Length > 40 || entry.Tags.Any(t => t.Length is 0 or > 60))
            throw check.Wrong("tags", "at most 40 tags of at most 60 characters.");
        if (!unfinished && entry.Lacks.FirstOrDefault() is { } lack)
            throw check.Wrong(lack.Field, $"it needs {lack.What} before it can be used.");
        entry.Check(check);
    }
}
