namespace Emendum.Core.Pricing;

/// <summary>What the customer pays.</summary>
internal static class TotalPass
{
    public const string Key = "total";

    public static PriceDraft Of(PriceDraft draft)
    {
        var beforeTax = draft.Steps.First(s => s.Key == BeforeTaxPass.Key);
        var tax = draft.Steps.First(s => s.Key == TaxPass.Key);
        var total = draft.Money(beforeTax.Amount + tax.Amount, "Customer pays", Key);
        var step = new PriceStep(Key, "Customer pays", "", StepKind.Sum, total, [.. beforeTax.Parts, .. tax.Parts]);
        return draft with { Steps = draft.Steps.Add(step) };
    }
}
