using System.Globalization;

namespace Emendum.Core.Book;

/// <summary>What a search of the Book asks for; an empty field asks for nothing.</summary>
/// <param name="Words">All of them must be found, anywhere in an entry's words; a number also among its prices.</param>
/// <param name="Kind">Kind as files name it.</param>
/// <param name="Trade">Trade.</param>
/// <param name="Archived">Archived entries instead of the others.</param>
public sealed record BookQuery(string Words, string Kind, string Trade, bool Archived);

/// <summary>The Book made ready to be searched: every entry with its words in small letters, in the order of section, order and name.</summary>
public sealed class BookIndex
{
    private readonly (BookEntry Entry, string Name, string Heading, string Text, decimal[] Prices)[] entries;

    /// <summary>Makes entries ready.</summary>
    public BookIndex(IEnumerable<BookEntry> all) =>
        entries = [
            .. all.OrderBy(e => e.Section, StringComparer.OrdinalIgnoreCase)
                .ThenBy(e => e.Order)
                .ThenBy(e => e.Name, StringComparer.OrdinalIgnoreCase)
                .ThenBy(e => e.Id)
                .Select(e =>
                    (
                        e,
                        e.Name.ToLowerInvariant(),
                        $"{e.Section} {e.Name}".ToLowerInvariant(),
                        Words(e).ToLowerInvariant(),
                        Prices(e)
                    )
                ),
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

    /// <summary>Prices an entry is remembered by.</summary>
    private static decimal[] Prices(BookEntry entry) =>
        entry switch
        {
            Material m => [.. m.Packs.Select(p => p.Price)],
            PriceOnlyItem i => [i.Price, i.Minimum, .. i.Breaks.Select(b => b.Price)],
            Subcontract s => [s.Price],
            Equipment e => [e.Cost],
            LabourRole r => r.SellRate is { } sold ? [r.Wage, sold] : [r.Wage],
            _ => [],
        };

    /// <summary>Whether a typed number is one of the prices: 38 is 38.00 and 38.50, 4.75 only itself.</summary>
    private static bool IsPrice(decimal typed, decimal[] prices) =>
        Array.Exists(prices, p => p == typed || (typed == decimal.Truncate(typed) && decimal.Truncate(p) == typed));

    /// <summary>Entries that fit, as <i>Add work</i> ranks them: those whose name, or section and name, begin with the words first, then those that have them there, or a price that was typed, then the rest; each with work first
    /// and in Book order.</summary>
    public IEnumerable<BookEntry> Find(BookQuery query)
    {
        var whole = query.Words.Trim().ToLowerInvariant();
        var words = whole
            .Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
            .Select(w =>
                (
                    Word: w,
                    Number: decimal.TryParse(
                        w,
                        NumberStyles.AllowDecimalPoint,
                        CultureInfo.InvariantCulture,
                        out var number
                    )
                        ? number
                        : (decimal?)null
                )
            )
            .ToArray();
        var type =
            query.Kind.Length == 0
                ? null
                : BookEntry.Kinds.FirstOrDefault(k => k.Kind == query.Kind).Type ?? typeof(BookQuery);
        var found = new List<BookEntry>[] { [], [], [] };
        foreach (var (entry, name, heading, text, prices) in entries)
        {
            if (
                entry.Archived != query.Archived
                || (type is not null && entry.GetType() != type)
                || (query.Trade.Length > 0 && entry.Trade != query.Trade)
            )
                continue;
            bool In(string where) =>
                Array.TrueForAll(
                    words,
                    w =>
                        where.Contains(w.Word, StringComparison.Ordinal)
                        || (w.Number is { } number && IsPrice(number, prices))
                );
            if (!In(text))
                continue;
            var rank =
                whole.Length == 0
                || name.StartsWith(whole, StringComparison.Ordinal)
                || heading.StartsWith(whole, StringComparison.Ordinal)
                    ? 0
                : In(heading) ? 1
                : 2;
            found[rank].Add(entry);
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
