using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>What the customer pays.</summary>
internal static class TotalPass
{
    public const string Key = "total";

    public static PriceDraft Of(PriceDraft draft)
    {
        var total = draft.Money(draft.So, "Customer pays", Key);
        var before = draft.Steps.First(s => s.Key == BeforeTaxPass.Key);
        var after = draft.Steps.SkipWhile(s => s != before).Skip(1).SelectMany(s => s.Parts);
        return draft with
        {
            Steps = draft.Steps.Add(new(Key, "Customer pays", "", StepKind.Sum, total, [.. before.Parts, .. after])),
            So = total,
        };
    }
}
