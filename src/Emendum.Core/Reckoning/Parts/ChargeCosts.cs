using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>Fixed charges, each of its own work item.</summary>
internal sealed class ChargeCosts : KindCosts
{
    private readonly List<ChargeCost> charges = [];
    private readonly OwnParts own = new();

    /// <inheritdoc/>
    public override Sum SumOf(CompiledItem.Part part) => own.SumOf(part);

    /// <inheritdoc/>
    public override void EndItem(CompiledItem item, Job job, Trace trace)
    {
        foreach (var (part, amount) in own.Take())
            if (amount.Total.V != 0)
                charges.Add(Of(item, part, amount.Total, trace));
    }

    /// <summary>Money for so many of a part.</summary>
    public static ChargeCost Of(CompiledItem item, CompiledItem.Part part, Val amount, Trace trace)
    {
        FigurePath Path(string leaf) => new("charges", item.Item.Id, part.Id, leaf);
        var label = trace.On ? $"{part.Name}, {item.Item.Name}" : "";
        var made = trace.Total(amount, "", label, Path("amount"));
        var cost = made * trace.Book(part.Charge, "", part.Name, part.Source);
        return new(part.Name, item, part, made, trace.Total(cost, "", label + ": cost", Path("cost")));
    }

    /// <inheritdoc/>
    public override void End(CostsDraft costs, Trace trace) => costs.Charges.AddRange(charges);

    /// <inheritdoc/>
    public override void Share(LineShares lines)
    {
        foreach (var (line, part, amount) in lines.Of(ComponentKind.Charge))
            lines.Add(line, part, amount * lines.Trace.Book(part.Charge, "", part.Name, part.Source));
        foreach (var charge in lines.Costs.Charges)
            if (charge is { Item: { } item, Part: { } part } && item.Once.Contains(part))
                lines.AddByHours(item, CostClass.Fixed, charge.Cost);
    }
}
