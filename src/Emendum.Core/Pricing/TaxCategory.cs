using System.Collections.Immutable;
using Emendum.Core.Jobs;

namespace Emendum.Core.Pricing;

/// <summary>What taxes fall on an amount, as an invoice has to say it (EN 16931, VAT category code).</summary>
/// <param name="Number">Its place among those of the price.</param>
/// <param name="Code"><c>S</c> standard, <c>Z</c> zero rate, <c>E</c> exempt, <c>AE</c> reverse charge, <c>O</c> outside the scope.</param>
/// <param name="Taxes">The taxes charged, in the order of the terms.</param>
public sealed record TaxCategory(int Number, string Code, ImmutableArray<Tax> Taxes)
{
    private readonly List<string> reasons = [];

    /// <summary>Why no tax is charged; empty where it is.</summary>
    public string Reason => string.Join("; ", reasons);

    /// <summary>Percent of all its taxes together.</summary>
    public decimal Rate => Taxes.Sum(t => t.Rate);

    internal void Because(string reason)
    {
        if (reason.Length > 0 && !reasons.Contains(reason))
            reasons.Add(reason);
    }
}

/// <summary>The tax categories of one price, in the order in which they are first met.</summary>
internal sealed class TaxCategories(PricingTerms terms)
{
    private readonly List<TaxCategory> all = [];

    /// <summary>The category of what is of a kind; <paramref name="exempt"/> says why it is exempt, null where it is not.</summary>
    public TaxCategory Of(TaxOn of, string? exempt = null)
    {
        if (terms.Exemption is { } customer)
            return Of(
                customer.Kind switch
                {
                    ExemptKind.ReverseCharge => "AE",
                    ExemptKind.Outside => "O",
                    _ => "E",
                },
                [],
                customer.Reason
            );
        if (exempt is not null)
            return Of("E", [], exempt);
        ImmutableArray<Tax> taxes = [.. terms.Taxes.Where(t => t.IsCharged && t.On.Contains(of))];
        if (!taxes.IsEmpty)
            return Of(taxes.All(t => t.Rate == 0) ? "Z" : "S", taxes, "");
        return terms.Taxes.Any(t => t.IsCharged && !t.On.IsEmpty)
            ? Of("E", [], "no tax is charged on " + Words(of))
            : Of("O", [], "no tax is charged");
    }

    /// <summary>The category of this price that is like one of another.</summary>
    public TaxCategory Like(TaxCategory other) => Of(other.Code, other.Taxes, other.Reason);

    private TaxCategory Of(string code, ImmutableArray<Tax> taxes, string reason)
    {
        var found = all.FirstOrDefault(c => c.Code == code && c.Taxes.SequenceEqual(taxes));
        if (found is null)
            all.Add(found = new(all.Count, code, taxes));
        found.Because(reason);
        return found;
    }

    /// <summary>What a tax falls on, in words.</summary>
    public static string Words(TaxOn of) =>
        of switch
        {
            TaxOn.Labour => "labour",
            TaxOn.Material => "materials",
            TaxOn.Equipment => "equipment",
            TaxOn.Subcontract => "subcontracts",
            TaxOn.Fixed => "fixed charges",
            _ => "price-only items",
        };
}
