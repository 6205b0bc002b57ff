using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>What is read off a price, and moves nothing.</summary>
/// <param name="Cost">All that the price must pay for: direct cost, allowances at their sums, fees.</param>
/// <param name="GrossProfit">Price before tax less that.</param>
/// <param name="Margin">Percent of the price; null when there is no price.</param>
/// <param name="Markup">Percent of the cost; null when there is no cost.</param>
/// <param name="AfterOverhead">Gross profit less overhead and contingency.</param>
/// <param name="PerFloor">Price before tax per floor area; null when there is none.</param>
/// <param name="PerHour">Price before tax per labour hour; null when there are none.</param>
/// <param name="AtFloor">The price that would reach the company's floor margin.</param>
/// <param name="AtGoal">The price that would reach the company's target margin.</param>
public sealed record Readouts(
    Total Cost,
    Total GrossProfit,
    Total? Margin,
    Total? Markup,
    Total AfterOverhead,
    Total? PerFloor,
    Total? PerHour,
    Total AtFloor,
    Total AtGoal
)
{
    /// <summary>Reads them off.</summary>
    internal static Readouts Of(PriceDraft draft)
    {
        var (costs, trace) = (draft.Costs, draft.Trace);
        var beforeTax = draft.Steps.First(s => s.Key == BeforeTaxPass.Key).Amount;
        Total Readout(Val value, string unit, string label, string leaf) =>
            trace.Total(value, unit, label, new("price", leaf));
        var allowed = PriceDraft.Sum(draft.Of(PortionKind.Allowance));
        Val fixedCost = allowed.V == 0 ? draft.Direct : draft.Direct + allowed;
        var cost =
            allowed.V == 0 && draft.Fees.V == 0
                ? draft.Direct
                : draft.Money(
                    draft.Fees.V == 0 ? fixedCost : fixedCost + draft.Fees,
                    "Cost with allowances and fees",
                    "cost"
                );
        var gross = draft.Money(beforeTax - cost, "Gross profit", "grossProfit");
        Total At(decimal margin, string label, string leaf, string term)
        {
            var goal = trace.Term(margin, "%", label, term);
            // Fees grow with the price.
            var left = draft.FeePercent.V == 0 ? 100m - goal : 100m - goal - draft.FeePercent;
            return draft.Money(left.V <= 0 ? 0m : fixedCost * 100m / left, "Price at the " + label, leaf);
        }
        return new(
            cost,
            gross,
            beforeTax.V == 0 ? null : Readout(gross * 100m / beforeTax, "%", "Margin", "margin"),
            cost.V == 0 ? null : Readout(gross * 100m / cost, "%", "Markup on cost", "markup"),
            draft.Money(gross - draft.Overheads, "Left after overhead and contingency", "afterOverhead"),
            costs.FloorArea.V == 0
                ? null
                : Readout(beforeTax / costs.FloorArea, "per area", "Price per floor area", "perFloor"),
            costs.Hours.V == 0 ? null : Readout(beforeTax / costs.Hours, "per h", "Price per labour hour", "perHour"),
            At(draft.Terms.FloorMargin, "floor margin", "atFloor", "floorMargin"),
            At(draft.Terms.GoalMargin, "target margin", "atGoal", "goalMargin")
        );
    }
}
