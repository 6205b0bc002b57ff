using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;

namespace Emendum.Core.Pricing;

/// <summary>One tax, on the whole price or on the materials' part of it.</summary>
internal static class TaxPass
{
    public const string Key = "tax";

    public static PriceDraft Of(PriceDraft draft)
    {
        var terms = draft.Terms;
        var taxable = draft.Money(Taxed(draft), "Taxed", "taxable");
        var tax = draft.Money(
            taxable * draft.Trace.Term(terms.TaxRate, "%", terms.TaxName, "taxRate") / 100m,
            "Tax",
            Key
        );
        var note = terms.TaxOn switch
        {
            TaxOn.Nothing => "not charged",
            TaxOn.Materials => $"{PriceDraft.Percent(terms.TaxRate)} on materials, {PriceDraft.Words(taxable)}",
            _ => PriceDraft.Percent(terms.TaxRate) + " on the price",
        };
        var label = terms.TaxName.Length == 0 ? "Tax" : terms.TaxName;
        return draft with
        {
            Steps = draft.Steps.Add(new(Key, label, note, StepKind.Tax, tax, [new(PriceBody.Job, tax)])),
            Taxable = taxable,
        };
    }

    /// <summary>Under tax on materials, their part of the price is shared out in proportion to the classes with their markups, and of it what goods that are taxed cost: not
    /// those untaxed or bought with tax. Price-only items are taxed as each says, allowances always, wherever the job is taxed at all.</summary>
    private static Val Taxed(PriceDraft draft)
    {
        var terms = draft.Terms;
        if (terms.TaxOn == TaxOn.Nothing)
            return 0m;
        var taxed = draft.OfCosts;
        if (terms.TaxOn == TaxOn.Materials)
        {
            var marked = draft.Classes.Select(c => c.Of.Marked.Value);
            var shares = Shares.Of(taxed, [.. marked], "price by class", draft.Trace);
            taxed = new ByClass<Val>(of => shares[(int)of])[CostClass.Material];
            var (free, all) = (new Sum(), new Sum());
            foreach (var line in draft.Costs.Buying)
            {
                all.Add(line.Cost(terms.MaterialCost));
                if (!line.Material.Taxed || line.Material.PriceIncludesTax)
                    free.Add(line.Cost(terms.MaterialCost));
            }
            if (free.Total.V != 0)
                taxed = taxed * (all.Total - free.Total) / all.Total;
        }
        foreach (var line in draft.Priced)
            if (line.Entry?.Taxable != false)
                taxed += line.Price;
        return taxed;
    }
}
