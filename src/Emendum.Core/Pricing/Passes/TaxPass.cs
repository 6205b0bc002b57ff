using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Pricing;

/// <summary>Taxes that are charged: each once, on all that it falls on, half away from zero. None falls on another.</summary>
internal static class TaxPass
{
    public const string Key = "tax";

    public static PriceDraft Of(PriceDraft draft)
    {
        var charged = draft.Terms.Taxes.Where(t => t.IsCharged).ToArray();
        if (charged.Length == 0)
            return With(draft, null, 0);
        for (var i = 0; i < charged.Length; i++)
            draft = With(draft, charged[i], i);
        return draft;
    }

    private static PriceDraft With(PriceDraft draft, Tax? tax, int at)
    {
        var number = at == 0 ? "" : $"/{at + 1}";
        var taxed = draft.Money(
            tax is null ? 0m : PriceDraft.Sum(draft.Portions.Where(p => p.Tax.Taxes.Any(t => t.Id == tax.Id))),
            tax is null || at == 0 ? "Taxed" : "Taxed, " + tax.Name,
            "taxable" + number
        );
        var rate = draft.Trace.Term(tax?.Rate ?? 0, "%", tax?.Name ?? "tax", "taxes");
        var amount = draft.Money(taxed * rate / 100m, at == 0 ? "Tax" : tax!.Name, Key + number);
        var step = new PriceStep(
            Key + number,
            tax?.Name ?? "Tax",
            tax is null ? "none charged" : Note(draft, tax, taxed),
            StepKind.Tax,
            amount,
            [new(PortionKind.Job, null, null, amount)]
        );
        return draft with
        {
            Steps = draft.Steps.Add(step),
            So = draft.So + amount,
            Taxes = draft.Taxes.Add(new(tax, taxed, amount)),
        };
    }

    private static string Note(PriceDraft draft, Tax tax, Total taxed)
    {
        if (draft.Terms.Exemption is { } exemption)
            return "not charged: " + exemption.Reason;
        if (tax.On.IsEmpty)
            return "not charged";
        var on = tax.On.Length == Tax.Everything.Length ? "the price" : InWords(tax.On);
        return $"{PriceDraft.Percent(tax.Rate)} on {on}, {draft.Words(taxed.V)}";
    }

    /// <summary>What a tax falls on, in words.</summary>
    internal static string InWords(ImmutableArray<TaxOn> on)
    {
        var words = on.Where(o => o != TaxOn.PriceOnly || on.Length == 1).Order().Select(TaxCategories.Words).ToArray();
        return words.Length == 1 ? words[0] : string.Join(", ", words[..^1]) + " and " + words[^1];
    }
}
