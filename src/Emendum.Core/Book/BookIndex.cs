namespace Emendum.Core.Book;

/// <summary>What a search of the Book asks for; an empty field asks for nothing.</summary>
/// <param name="Words">All of them must be found, anywhere in an entry's words.</param>
/// <param name="Kind">Kind as files name it.</param>
/// <param name="Trade">Trade.</param>
/// <param name="Archived">Archived entries instead of the others.</param>
public sealed record BookQuery(string Words, string Kind, string Trade, bool Archived);

/// <summary>The Book made ready to be searched: every entry with its words in small letters, in the order of section, order and name.</summary>
public sealed class BookIndex
{
    private readonly (BookEntry Entry, string Name, string Text)[] entries;

    /// <summary>Makes entries ready.</summary>
    public BookIndex(IEnumerable<BookEntry> all) =>
        entries = [
            .. all.OrderBy(e => e.Section, StringComparer.OrdinalIgnoreCase)
                .ThenBy(e => e.Order)
                .ThenBy(e => e.Name, StringComparer.OrdinalIgnoreCase)
                .ThenBy(e => e.Id)
                .Select(e => (e, e.Name.ToLowerInvariant(), Words(e).ToLowerInvariant())),
        ];

    /// <summary>What an entry is found by.</summary>
    private static string Words(BookEntry entry) =>
        string.Join(
            ' ',
            new[]
            {
                entry.Name,
                entry.Section,
                entry.Trade,
                BookEntry.Kinds.First(k => k.Type == entry.GetType()).Words,
            }
                .Concat(entry.Tags)
                .Concat(
                    entry switch
                    {
                        Material m => [m.Brand, m.Category, m.Supplier, m.Code, m.Colour],
                        WorkEntry w => [w.Wording],
                        BookText t => [t.Body],
                        Condition c => [c.Reason],
                        _ => Array.Empty<string>(),
                    }
                )
        );

    /// <summary>Entries that fit: those whose name begins with the words first, then those that have them in the name, then the rest, each with work first and in Book order.</summary>
    public IEnumerable<BookEntry> Find(BookQuery query)
    {
        var whole = query.Words.Trim().ToLowerInvariant();
        var words = whole.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        var type =
            query.Kind.Length == 0
                ? null
                : BookEntry.Kinds.FirstOrDefault(k => k.Kind == query.Kind).Type ?? typeof(BookQuery);
        var found = new List<BookEntry>[] { [], [], [] };
        foreach (var (entry, name, text) in entries)
        {
            if (
                entry.Archived != query.Archived
                || (type is not null && entry.GetType() != type)
                || (query.Trade.Length > 0 && entry.Trade != query.Trade)
            )
                continue;
            var fits = true;
            foreach (var word in words)
                if (!text.Contains(word, StringComparison.Ordinal))
                {
                    fits = false;
                    break;
                }
            if (fits)
                found[
                    whole.Length == 0 || name.StartsWith(whole, StringComparison.Ordinal) ? 0
                    : name.Contains(whole, StringComparison.Ordinal) ? 1
                    : 2
                ]
                    .Add(entry);
        }
        // What was searched for by name is mostly work; goods of the same name stand below it.
        return whole.Length == 0 ? found[0] : found.SelectMany(f => f.OrderBy(e => e is WorkEntry ? 0 : 1));
    }

    /// <summary>The trades, in order.</summary>
    public IEnumerable<string> Trades() =>
        entries.Select(e => e.Entry.Trade).Where(t => t.Length > 0).Distinct().Order(StringComparer.OrdinalIgnoreCase);

    /// <summary>Sections, in order.</summary>
    public IEnumerable<string> Sections() =>
        entries
            .Select(e => e.Entry.Section)
            .Where(t => t.Length > 0)
            .Distinct()
            .Order(StringComparer.OrdinalIgnoreCase);
}
