using System.Collections.Frozen;
using Emendum.Core.Book;
using Emendum.Storage;

namespace Emendum.Web;

/// <summary>The Book in memory.</summary>
public sealed class Shelf(BookStore store)
{
    private readonly Lazy<FrozenDictionary<Guid, BookEntry>> entries = new(() => store.List().ToFrozenDictionary(e => e.Id));

    /// <summary>The newest version of an entry, or null.</summary>
    public BookEntry? Find(Guid id) => entries.Value.GetValueOrDefault(id);

    /// <summary>Materials that are spread or laid, by name.</summary>
    public IEnumerable<Material> Products => entries.Value.Values.OfType<Material>().Where(m => m.Coverage is not null).OrderBy(m => m.Name, StringComparer.Ordinal);

    /// <summary>Rates and assemblies in order of section and name.</summary>
    public IEnumerable<BookEntry> Work => entries.Value.Values.Where(e => e is ProductionRate or Assembly).OrderBy(e => e.Id);
}
