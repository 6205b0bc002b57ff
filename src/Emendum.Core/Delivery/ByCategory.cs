using System.Collections.Immutable;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;

namespace Emendum.Core.Delivery;

/// <summary>Money by tax category, in the order in which the contract has them; before tax.</summary>
/// <param name="Amounts">One for each category.</param>
public sealed record ByCategory(ImmutableArray<decimal> Amounts)
{
    /// <summary>All of it.</summary>
    public decimal Sum => Amounts.Sum();

    /// <summary>Nothing of so many categories.</summary>
    public static ByCategory Nothing(int categories) => new([.. new decimal[categories]]);

    /// <summary>Money of so many categories.</summary>
    public static ByCategory Of(params ReadOnlySpan<decimal> amounts) => new([.. amounts]);

    /// <summary>One with the other; the shorter has nothing of the categories that it does not know yet.</summary>
    public static ByCategory operator +(ByCategory a, ByCategory b) =>
        new([.. Enumerable.Range(0, Math.Max(a.Amounts.Length, b.Amounts.Length)).Select(i => a[i] + b[i])]);

    /// <summary>One without the other.</summary>
    public static ByCategory operator -(ByCategory a, ByCategory b) =>
        a + new ByCategory([.. b.Amounts.Select(x => -x)]);

    /// <summary>So many times all of it.</summary>
    public ByCategory Times(int count) => new([.. Amounts.Select(a => a * count)]);

    /// <summary>What it has of a category; nothing of one that it does not know.</summary>
    public decimal this[int category] => category < Amounts.Length ? Amounts[category] : 0;

    /// <summary>An amount shared over the categories by what there is in each (M3), in the smallest unit of the currency, by largest remainder; where there is nothing in any, by <paramref name="otherwise"/>.</summary>
    /// <param name="amount">Money in the currency's places.</param>
    /// <param name="otherwise">What it is shared by where nothing is there.</param>
    /// <param name="places">Places of the currency.</param>
    public ByCategory Share(decimal amount, ByCategory otherwise, int places)
    {
        // What is below nothing in a category bears nothing.
        var weights = Amounts.Select(a => Math.Max(a, 0)).ToArray();
        if (weights.Sum() == 0)
            weights = [.. otherwise.Amounts.Select(a => Math.Max(a, 0))];
        return new([.. Split.ByLargestRemainder(amount, weights, places)]);
    }

    /// <summary>Its tax: each rate once on all that it falls on, half away from zero (pricing.md, Steps).</summary>
    /// <param name="categories">The categories.</param>
    /// <param name="places">Places of the currency.</param>
    public decimal Tax(ImmutableArray<TaxCategory> categories, int places)
    {
        var tax = 0m;
        foreach (var one in categories.SelectMany(c => c.Taxes).DistinctBy(t => t.Id))
        {
            var on = Enumerable.Range(0, categories.Length).Where(i => categories[i].Taxes.Any(t => t.Id == one.Id));
            tax += Rounding.Money(on.Sum(i => this[i]) * one.Rate / 100m, places);
        }
        return tax;
    }
}
