using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Checks;

/// <summary>The customer supplies the material, and the unit price stands as if we did (pricing, Bases).</summary>
internal static class PricedAsIfWeSupplied
{
    public static IEnumerable<Finding> In(CheckedJob job)
    {
        foreach (var sold in job.Estimate.Priced.Where(p => p.Kind == OwnPriceKind.UnitPrice))
        {
            var item = sold.Item.Item;
            // A price typed for work that the customer supplies all of was typed with that in mind.
            if (item is { Supply: Supply.CustomerMaterial, UnitPrice: not null })
                continue;
            var places = sold
                .ByLine.Select(l => job.Reckoned.Lines[l.Line])
                .Where(l => l is { Supply: Supply.CustomerMaterial, IsNothing: false, Cell.UnitPrice: null })
                .Select(l => l.Measures.Place)
                .ToArray();
            if (places.Length == 0)
                continue;
            yield return job.Found(
                $"supplied/{item.Id}",
                "A unit price with material that the customer supplies",
                $"{job.Named(sold.Item)} is sold at {job.Estimate.Price.Draft.Words(sold.Sold!.Price)} per {sold.Sold.Unit} also where the customer supplies the material: {Counted.Few([.. places.Select(p => p.Name)], 3)}.",
                "The price covers goods that we do not buy there. Type a unit price for those places, or set this aside.",
                places[0].Id,
                item.Id
            );
        }
    }
}
