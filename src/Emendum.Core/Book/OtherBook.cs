namespace Emendum.Core.Book;

/// <summary>Another Book beside the job's own: an entry is found by its id, else by its kind and name among what the job uses.</summary>
/// <param name="entries">What stands in it.</param>
/// <param name="used">Entries that the job uses.</param>
public sealed class OtherBook(IEnumerable<BookEntry> entries, IReadOnlyDictionary<Guid, BookEntry> used)
{
    private readonly Dictionary<Guid, BookEntry> byId = entries.DistinctBy(e => e.Id).ToDictionary(e => e.Id);
    private ILookup<(Type, string), BookEntry>? byName;

    /// <summary>The entry as it stands there, with the id by which it was asked for; null where there is none, or two of that name.</summary>
    public BookEntry? Find(Guid id)
    {
        if (byId.TryGetValue(id, out var entry))
            return entry;
        if (!used.TryGetValue(id, out var ours))
            return null;
        byName ??= byId.Values.ToLookup(e => (e.GetType(), e.Name.ToUpperInvariant()));
        return byName[(ours.GetType(), ours.Name.ToUpperInvariant())].ToArray() is [var one]
            ? one with
            {
                Id = id,
            }
            : null;
    }
}
