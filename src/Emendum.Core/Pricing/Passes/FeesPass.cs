using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>Costs that are a percent of the price, on the price at this step or on what the customer pays: everything else ÷ (1 − Σf). Allowances count, and what falls on them is borne by
/// the others. Under a fixed price fees come out of it and are not added.</summary>
internal static class FeesPass
{
    public static PriceDraft Of(PriceDraft draft)
    {
        var (fees, trace) = (draft.Terms.Fees, draft.Trace);
        var so = PriceDraft.Sum(draft.Portions);
        if (fees.IsEmpty || so.V <= 0)
            return draft;
        Val[] rates = [.. fees.Select(f => trace.Term(f.Percent, "%", f.Name, "fees"))];
        Val OfAll(bool onTotal) => Sum.Of(rates.Where((_, i) => fees[i].OnTotal == onTotal));
        var (onPrice, onTotal) = (OfAll(false), OfAll(true));
        // What is borne by the others where there are any.
        var bears = draft.Portions.Where(p => p.Of != PortionKind.Allowance).ToArray();
        if (PriceDraft.Sum(bears).V == 0)
            bears = [.. draft.Portions];
        var (x, taxOfX) = (PriceDraft.Sum(bears), Tax(draft, bears));
        var withTax = so + Tax(draft, draft.Portions);
        var hundred = onTotal.V == 0 ? onPrice : onPrice + onTotal * (x + taxOfX) / x;
        if (hundred.V >= 95)
            throw RefusedException.Of(
                "fees",
                "Fees leave nothing of the price: together they are 95 percent and more."
            );
        var within = draft.Terms.Basis == PriceBasis.Fixed;
        var all = draft.Money(
            within
                ? (so * onPrice + withTax * onTotal) / 100m
                : (so * onPrice + withTax * onTotal) * x / (x * (100m - onPrice) - (x + taxOfX) * onTotal),
            "Fees",
            "fees"
        );
        draft = draft with { Fees = all, FeePercent = hundred };
        var amounts =
            fees.Length == 1
                ? [all.Value]
                : Shares.Of(
                    all,
                    [.. fees.Select((f, i) => rates[i] * (f.OnTotal ? withTax : so))],
                    "fees by what they are a percent of",
                    draft.Places,
                    trace
                );
        for (var i = 0; i < fees.Length; i++)
        {
            var amount = draft.Money(amounts[i], fees[i].Name, $"fees/{i + 1}");
            var note =
                PriceDraft.Percent(fees[i].Percent)
                + (fees[i].OnTotal ? " of what the customer pays" : " of the price");
            draft = within
                ? draft.With(
                    new(
                        $"fees/{i + 1}",
                        fees[i].Name,
                        note + ", out of the fixed price",
                        StepKind.Within,
                        amount,
                        ImmutableArray<StepPart>.Empty
                    )
                )
                : draft.Spread($"fees/{i + 1}", fees[i].Name, note, amount, p => bears.Any(b => b.Of == p.Of));
        }
        return draft;
    }

    /// <summary>Tax that these parts bring, not rounded.</summary>
    private static Val Tax(PriceDraft draft, IEnumerable<Portion> portions)
    {
        var sum = new Sum();
        foreach (var portion in portions)
        foreach (var tax in portion.Tax.Taxes)
            sum.Add(portion.Amount * draft.Trace.Term(tax.Rate, "%", tax.Name, "taxes") / 100m);
        return sum.Total;
    }
}
