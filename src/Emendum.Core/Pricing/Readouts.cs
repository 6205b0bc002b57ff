using Emendum.Core.Figures;

namespace Emendum.Core.Pricing;

/// <summary>What is read off a price, and moves nothing.</summary>
/// <param name="GrossProfit">Price before tax less direct cost.</param>
/// <param name="Margin">Percent of the price; null when there is no price.</param>
/// <param name="Markup">Percent of the cost; null when there is no cost.</param>
/// <param name="PerFloor">Price before tax per floor area; null when there is none.</param>
/// <param name="PerHour">Price before tax per labour hour; null when there are none.</param>
/// <param name="AtGoal">The price that would reach the company's target margin.</param>
public sealed record Readouts(
    Total GrossProfit,
    Total? Margin,
    Total? Markup,
    Total? PerFloor,
    Total? PerHour,
    Total AtGoal
)
{
    /// <summary>Reads them off.</summary>
    internal static Readouts Of(PriceDraft draft, Total beforeTax)
    {
        var (direct, costs, trace) = (draft.Direct, draft.Costs, draft.Trace);
        Total Readout(Val value, string unit, string label, string leaf) =>
            trace.Total(value, unit, label, new("price", leaf));
        var gross = draft.Money(beforeTax - direct, "Gross profit", "grossProfit");
        var goal = trace.Term(draft.Terms.GoalMargin, "%", "target margin of the company", "goalMargin");
        return new(
            gross,
            beforeTax.V == 0 ? null : Readout(gross * 100m / beforeTax, "%", "Margin", "margin"),
            direct.V == 0 ? null : Readout(gross * 100m / direct, "%", "Markup on cost", "markup"),
            costs.FloorArea.V == 0
                ? null
                : Readout(beforeTax / costs.FloorArea, "per area", "Price per floor area", "perFloor"),
            costs.Hours.V == 0 ? null : Readout(beforeTax / costs.Hours, "per h", "Price per labour hour", "perHour"),
            draft.Money(direct * 100m / (100m - goal), "Price at the target margin", "atGoal")
        );
    }
}
