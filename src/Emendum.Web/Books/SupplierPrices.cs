using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Emendum.Web.StandIns;

namespace Emendum.Web.Books;

/// <summary>A price that a supplier proposes for a pack.</summary>
public sealed record ProposedPack(string Name, string Old, string New, string Percent);

/// <summary>Goods whose list prices differ from the Book's.</summary>
public sealed record ProposedPrice(
    Guid Id,
    string Name,
    string Supplier,
    string Code,
    IReadOnlyList<ProposedPack> Packs
);

/// <summary>What a supplier feed proposes.</summary>
public sealed record FeedView(string Name, bool IsStandIn, IReadOnlyList<ProposedPrice> Prices);

/// <summary>Goods chosen from a feed.</summary>
public sealed record ChosenPrices(IReadOnlyList<Guid> Ids);

/// <summary>A job whose price would move if it took the chosen prices; until it does, it stays as it is.</summary>
public sealed record MovedJob(Guid Id, string Name, string Now, string Then, string Moves);

/// <summary>Prices that suppliers propose, taken by choice.</summary>
public static class SupplierPrices
{
    /// <summary>Maps them.</summary>
    public static void MapSupplierFeed(this IEndpointRouteBuilder book)
    {
        book.MapGet(
            "/feed",
            (Shelf shelf, ISupplierFeed feed) =>
                new FeedView(feed.Name, feed.IsStandIn, [.. Proposed(shelf, feed).Select(p => View(p.Was, p.Now))])
        );
        book.MapPost(
            "/feed/jobs",
            (ChosenPrices chosen, Shelf shelf, ISupplierFeed feed, BookStore store, OpenJobs open) =>
                Moved(Chosen(chosen, shelf, feed), store, open)
        );
        book.MapPost(
            "/feed/take",
            (ChosenPrices chosen, Shelf shelf, ISupplierFeed feed) =>
            {
                var taken = Chosen(chosen, shelf, feed);
                if (taken.Count > 0)
                    shelf.SaveAll(taken, BookEndpoints.Owner);
                return new BookTaken(0, taken.Count);
            }
        );
    }

    private static IEnumerable<(Material Was, Material Now)> Proposed(Shelf shelf, ISupplierFeed feed)
    {
        foreach (var material in shelf.Index.Find(new("", "material", "", false)).OfType<Material>())
        {
            if (
                feed.Prices(material.Supplier, material.Code) is not { } prices
                || prices.Count != material.Packs.Length
            )
                continue;
            if (material.Packs.Select(p => p.Price).SequenceEqual(prices))
                continue;
            yield return (
                material,
                material with
                {
                    Packs = [.. material.Packs.Zip(prices, (pack, price) => pack with { Price = price })],
                }
            );
        }
    }

    private static List<BookEntry> Chosen(ChosenPrices chosen, Shelf shelf, ISupplierFeed feed)
    {
        var ids = chosen.Ids.ToHashSet();
        return [.. Proposed(shelf, feed).Where(p => ids.Contains(p.Now.Id)).Select(p => p.Now)];
    }

    private static string Percent(decimal was, decimal now) =>
        was == 0 ? "new" : $"{(now - was) * 100 / was:+0.0;−0.0;0.0} %";

    private static ProposedPrice View(Material was, Material now) =>
        new(
            now.Id,
            now.Name,
            now.Supplier,
            now.Code,
            [
                .. was.Packs.Zip(
                    now.Packs,
                    (a, b) =>
                        new ProposedPack(
                            a.Name,
                            FigureView.Money("", a.Price).Shown,
                            FigureView.Money("", b.Price).Shown,
                            string.Create(
                                System.Globalization.CultureInfo.InvariantCulture,
                                $"{Percent(a.Price, b.Price)}"
                            )
                        )
                ),
            ]
        );

    private static List<MovedJob> Moved(List<BookEntry> changed, BookStore store, OpenJobs open)
    {
        var jobs = changed.SelectMany(e => store.Jobs(e.Id)).DistinctBy(j => j.Job);
        var moved = new List<MovedJob>();
        foreach (var pinned in jobs)
        {
            var now = open.Get(pinned.Job).Estimate;
            var prices = changed.OfType<Material>().ToDictionary(m => m.Id, m => m.Packs);
            var then = now.If(
                now.Job with
                {
                    Book = now.Job.Book.SetItems(
                        now.Job.Book.Values.OfType<Material>()
                            .Where(m => prices.TryGetValue(m.Id, out var packs) && packs.Length == m.Packs.Length)
                            .Select(m => KeyValuePair.Create(m.Id, (BookEntry)(m with { Packs = prices[m.Id] })))
                    ),
                }
            );
            var by = Rounding.Money(then.Price.BeforeTax.V - now.Price.BeforeTax.V);
            if (by == 0)
                continue;
            moved.Add(
                new(
                    pinned.Job,
                    pinned.Name,
                    FigureView.Money("", now.Price.BeforeTax).Shown,
                    FigureView.Money("", then.Price.BeforeTax).Shown,
                    (by > 0 ? "+" : "") + FigureView.Money("", by).Shown
                )
            );
        }
        return moved;
    }
}
