using System.Globalization;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Quantities;
using Emendum.Web.Jobs;
using Emendum.Web.StandIns;

namespace Emendum.Web.Books;

/// <summary>Goods of a supplier's catalogue.</summary>
/// <param name="Code">The supplier's code.</param>
/// <param name="Name">What they are.</param>
/// <param name="Supplier">Who sells them.</param>
/// <param name="Category">The supplier's heading.</param>
/// <param name="Packs">How they are sold, with prices.</param>
/// <param name="Coverage">What one unit covers, or that it is not said; empty where nothing is covered.</param>
/// <param name="Have">The entry of the Book that has them already.</param>
public sealed record GoodsView(
    string Code,
    string Name,
    string Supplier,
    string Category,
    string Packs,
    string Coverage,
    Guid? Have
);

/// <summary>What a search of the catalogue found: the first goods, and how many there are.</summary>
public sealed record CatalogueView(
    string Name,
    bool IsStandIn,
    int Found,
    int All,
    IReadOnlyList<string> Categories,
    IReadOnlyList<GoodsView> Goods
);

/// <summary>Goods to take over into the Book.</summary>
/// <param name="Codes">Their codes.</param>
/// <param name="Work">Whether a rate is made for each that work can be made of, for its pace and role to be filled in.</param>
public sealed record TakeGoods(IReadOnlyList<string> Codes, bool Work);

/// <summary>Entries that a taking-over made, and which of them still need something.</summary>
public sealed record GoodsTaken(IReadOnlyList<NamedEntry> Added, int Unfinished);

/// <summary>The supplier's own catalogue: searched, and taken over from into the Book.</summary>
public static class SupplierGoods
{
    /// <summary>Most goods shown of a search, and most taken over at once.</summary>
    public const int Most = 100;

    /// <summary>Maps it.</summary>
    public static void MapSupplierGoods(this IEndpointRouteBuilder book)
    {
        book.MapGet("/catalogue", Find);
        book.MapPost("/catalogue/take", Take);
    }

    private static CatalogueView Find(string? words, string? category, Shelf shelf, ISupplierCatalogue catalogue)
    {
        var sought = (words ?? "")
            .ToLowerInvariant()
            .Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)
            .Take(20)
            .ToArray();
        var have = shelf
            .Entries.Values.OfType<Material>()
            .Where(m => m.Code.Length > 0)
            .GroupBy(m => (m.Supplier, m.Code))
            .ToDictionary(g => g.Key, g => g.First().Id);
        var found = catalogue
            .Goods.Where(g =>
                (string.IsNullOrEmpty(category) || g.Category == category) && Array.TrueForAll(sought, w => Has(g, w))
            )
            .ToList();
        return new(
            catalogue.Name,
            catalogue.IsStandIn,
            found.Count,
            catalogue.Goods.Count,
            [.. catalogue.Goods.Select(g => g.Category).Distinct()],
            [
                .. found
                    .Take(Most)
                    .Select(g => new GoodsView(
                        g.Code,
                        g.Name,
                        g.Supplier,
                        g.Category,
                        string.Join(" · ", g.Packs.Select(p => $"{p.Name} {FigureView.Money("", p.Price).Shown}")),
                        !g.Spread ? ""
                            : g.Coverage is { } coverage ? coverage.ToString()
                            : "coverage not said",
                        have.TryGetValue((g.Supplier, g.Code), out var id) ? id : null
                    )),
            ]
        );
    }

    /// <summary>A word stands in the name, code or heading, or is a price as people remember it.</summary>
    private static bool Has(CatalogueGoods goods, string word) =>
        goods.Name.Contains(word, StringComparison.OrdinalIgnoreCase)
        || goods.Code.Contains(word, StringComparison.OrdinalIgnoreCase)
        || goods.Category.Contains(word, StringComparison.OrdinalIgnoreCase)
        || (
            decimal.TryParse(word, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var price)
            && goods.Packs.Any(p => p.Price == price)
        );

    private static GoodsTaken Take(TakeGoods take, Shelf shelf, ISupplierCatalogue catalogue)
    {
        if (take.Codes.Count > Most)
            throw RefusedException.Of("codes", $"At most {Most} goods are taken over at once.");
        var wanted = take.Codes.ToHashSet(StringComparer.Ordinal);
        var goods = catalogue.Goods.Where(g => wanted.Contains(g.Code)).ToList();
        if (goods.Count < wanted.Count)
            throw RefusedException.Of("codes", "Some of these goods are not in the catalogue any more.");
        var have = shelf.Entries.Values.OfType<Material>().Select(m => (m.Supplier, m.Code)).ToHashSet();
        var added = new List<BookEntry>();
        foreach (var one in goods.Where(g => !have.Contains((g.Supplier, g.Code))))
        {
            var material = Material(one);
            added.Add(material);
            if (take.Work && one.Against is { } measure)
                added.Add(
                    new ProductionRate(
                        Guid.CreateVersion7(),
                        1,
                        one.Name,
                        one.Category,
                        measure,
                        [],
                        Guid.Empty,
                        material.Id,
                        one.Name,
                        ""
                    )
                );
        }
        if (added.Count > 0)
            shelf.SaveAll(added, BookEndpoints.Owner);
        return new([.. added.Select(BookViews.Named)], added.Count(e => e.Lacks.Any()));
    }

    private static Material Material(CatalogueGoods goods) =>
        new(Guid.CreateVersion7(), 1, goods.Name, goods.Unit, [.. goods.Packs], goods.Coverage, null, 0, true)
        {
            Section = "Materials",
            Category = goods.Category,
            Supplier = goods.Supplier,
            Code = goods.Code,
            CoverageWanted = goods.Spread && goods.Coverage is null,
        };
}
