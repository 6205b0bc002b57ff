using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>What the year comes to, without what is done once.</summary>
internal static class YearPass
{
    public const string Key = "year";

    public static PriceDraft Of(PriceDraft draft)
    {
        var amount = draft.Money(draft.So, "A year", Key);
        return draft with
        {
            Steps = draft.Steps.Add(
                new(
                    Key,
                    "A year",
                    "without what is done once",
                    StepKind.Sum,
                    amount,
                    [.. draft.Portions.Select(p => new StepPart(p.Of, p.Section, p.Tax, p.Amount))]
                )
            ),
            So = amount,
        };
    }
}
