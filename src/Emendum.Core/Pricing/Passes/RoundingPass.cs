using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Pricing;

/// <summary>Rounds the price before tax, or what the customer pays by an untaxed amount of its own. A price that somebody typed stands as it is; a fixed price is not rounded before tax.</summary>
internal static class RoundingPass
{
    public static PriceDraft BeforeTax(PriceDraft draft) =>
        draft.Terms is { Rounding: { AfterTax: false } rounding, Basis: not PriceBasis.Fixed }
            ? Rounded(draft, rounding.To, rounding.Up, "rounding", p => p.Of != PortionKind.Allowance)
            : draft;

    public static PriceDraft AfterTax(PriceDraft draft) =>
        draft.Terms is { Rounding: { AfterTax: true } rounding }
            ? Rounded(draft, rounding.To, rounding.Up, "roundingAfterTax", null)
            : draft;

    private static PriceDraft Rounded(PriceDraft draft, decimal to, bool up, string key, Func<Portion, bool>? on)
    {
        var so = draft.So;
        if (so.V <= 0)
            return draft;
        if (draft.Terms.Typed == so.V)
        {
            draft.Trace.Assume(so, Relation.Same, so.V, "The price was typed, and is rounded when something moves it.");
            return draft;
        }
        var step = draft.Trace.Term(to, "", "rounded to", "rounding");
        var whole = up ? (so / step).Ceil() : (so / step + 0.5m).Floor();
        var amount = draft.Money(whole * step - so, "Rounding", key);
        var note = $"{(up ? "up" : "nearest")} to {Rounding.Text(to)}, {(on is null ? "after" : "before")} tax";
        if (amount.V == 0 && !draft.Trace.Follows)
            return draft;
        return on is not null
            ? draft.Spread(key, "Rounding", note, amount, on)
            : draft with
            {
                Steps = draft.Steps.Add(
                    new(
                        key,
                        "Rounding",
                        note + ", not taxed",
                        StepKind.Added,
                        amount,
                        ImmutableArray.Create(new StepPart(PortionKind.Job, null, null, amount))
                    )
                ),
                So = so + amount,
            };
    }
}
