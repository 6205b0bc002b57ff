using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;

namespace Emendum.Core.Pricing;

/// <summary>What is bought for the year, with a markup of its own. It is no line's, and nothing that happens to the occurrences reaches it (pricing, Rounds).</summary>
internal static class SuppliesPass
{
    public const string Key = "supplies";

    public static PriceDraft Of(PriceDraft draft)
    {
        var (round, trace) = (draft.Reckoned.Job.Round, draft.Trace);
        if (round.Supplies.All(s => s.Quantity * s.Each == 0))
            return draft;
        var cost = draft.Money(
            Sum.Of(round.Supplies.Select(s => CostOf(draft, s).Value)),
            "Supplies of the year",
            Key + "/cost"
        );
        var markup = draft.Money(
            cost
                * trace.Typed(round.SupplyMarkup, "%", "markup on supplies", null, "round", draft.Reckoned.Job.Id)
                / 100m,
            "Markup on supplies",
            Key + "/markup"
        );
        var amount = draft.Money(cost + markup, "Supplies with markup", Key);
        var portion = new Portion(PortionKind.Job, null, draft.Categories.Of(TaxOn.Material), amount)
        {
            Lines = new([], []),
        };
        return draft with
        {
            Steps = draft.Steps.Add(
                new(
                    Key,
                    "Supplies for the year",
                    $"{draft.Words(cost.V)} and {PriceDraft.Percent(round.SupplyMarkup)}",
                    StepKind.Added,
                    amount,
                    [new(portion.Of, null, portion.Tax, amount)]
                )
            ),
            Portions = draft.Portions.Add(portion),
            Classes = new(of =>
                of != CostClass.Material
                    ? draft.Classes[of]
                    : draft.Classes[of] with
                    {
                        Cost = draft.Money(draft.Classes[of].Cost + cost, "Materials and supplies", "material/all"),
                        Markup = draft.Money(draft.Classes[of].Markup + markup, "Markup on both", "material/allMarkup"),
                        Marked = draft.Money(
                            draft.Classes[of].Marked + amount,
                            "Both with markup",
                            "material/allMarked"
                        ),
                    }
            ),
            Direct = draft.Money(draft.Direct + cost, "Direct cost with supplies", "direct/all"),
            So = draft.So + amount,
        };
    }

    /// <summary>What one supply costs in the year.</summary>
    public static Total CostOf(PriceDraft draft, YearSupply supply)
    {
        Val Typed(decimal value, string label) =>
            draft.Trace.Typed(value, "", draft.Trace.On ? $"{supply.Name}, {label}" : "", null, "round", supply.Id);
        return draft.Money(
            Typed(supply.Quantity, "how many") * Typed(supply.Each, "one"),
            supply.Name,
            $"{Key}/{supply.Id}"
        );
    }
}
