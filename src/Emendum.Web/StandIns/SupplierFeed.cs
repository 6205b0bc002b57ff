using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Storage.Demo;

namespace Emendum.Web.StandIns;

/// <summary>Where suppliers' list prices come from.</summary>
public interface ISupplierFeed
{
    /// <summary>What it is called on screen.</summary>
    string Name { get; }

    /// <summary>Whether it only stands in for a real one.</summary>
    bool IsStandIn { get; }

    /// <summary>The list price of each pack of the goods with that supplier and code, in the order of the packs; null where the supplier has no such goods.</summary>
    IReadOnlyList<decimal>? Prices(string supplier, string code);
}

/// <summary>A made-up feed that ships with the program: the starter Book's prices, each moved by a few percent that follow from its code, always the same.</summary>
public sealed class StandInSupplierFeed : ISupplierFeed
{
    private static readonly Dictionary<(string, string), Material> Goods = StarterBook
        .Entries.OfType<Material>()
        .Where(m => m.Code.Length > 0)
        .ToDictionary(m => (m.Supplier, m.Code));

    /// <inheritdoc/>
    public string Name => "Made-up supplier prices";

    /// <inheritdoc/>
    public bool IsStandIn => true;

    /// <inheritdoc/>
    public IReadOnlyList<decimal>? Prices(string supplier, string code)
    {
        if (!Goods.TryGetValue((supplier, code), out var goods))
            return null;
        var percent = code.Sum(c => c) % 13 - 3m;
        return [.. goods.Packs.Select(p => Rounding.Money(p.Price * (100 + percent) / 100))];
    }
}
