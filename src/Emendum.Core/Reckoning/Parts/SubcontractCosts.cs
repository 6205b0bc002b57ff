using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>Work of other firms: by the unit for the whole job; a lump sum once for each work item that really brings it: not where the customer does that work, a sum is allowed
/// for it, or there is none of it.</summary>
internal sealed class SubcontractCosts : KindCosts
{
    private readonly OrderedDictionary<Guid, Bought> bought = [];
    private readonly OwnParts lumps = new();

    private sealed class Bought(Subcontract subcontract)
    {
        public Subcontract Subcontract => subcontract;
        public Sum Amount { get; } = new();

        /// <summary>What is of a work item and of no line of it: lump sums, and what comes once.</summary>
        public List<(CompiledItem Item, Val Amount)> ByItem { get; } = [];
    }

    private Bought BoughtOf(Subcontract subcontract)
    {
        if (!bought.TryGetValue(subcontract.Id, out var of))
            bought.Add(subcontract.Id, of = new(subcontract));
        return of;
    }

    /// <inheritdoc/>
    public override Sum SumOf(CompiledItem.Part part) =>
        part.Entry is Subcontract { LumpSum: false } byUnit ? BoughtOf(byUnit).Amount : lumps.SumOf(part);

    /// <inheritdoc/>
    public override void Once(CompiledItem item, CompiledItem.Part part, Val amount)
    {
        base.Once(item, part, amount);
        if (part.Entry is Subcontract { LumpSum: false } byUnit)
            BoughtOf(byUnit).ByItem.Add((item, amount));
    }

    /// <inheritdoc/>
    public override void EndItem(CompiledItem item, Job job, Trace trace)
    {
        foreach (var (part, _) in lumps.Take().Where(l => l.Amount.Total.V != 0).DistinctBy(l => l.Part.Entry.Id))
            BoughtOf((Subcontract)part.Entry).ByItem.Add((item, trace.Book(1, "", "once for the work", part.Entry.Id)));
    }

    /// <inheritdoc/>
    public override void End(CostsDraft costs, Trace trace)
    {
        foreach (var of in bought.Values)
            costs.Subcontracts.Add(Of(of, trace));
    }

    private static SubcontractCost Of(Bought bought, Trace trace)
    {
        var subcontract = bought.Subcontract;
        FigurePath Path(string leaf) => new("subcontract", subcontract.Id, leaf);
        var unit = subcontract.LumpSum || subcontract.Unit.Kind == Kind.Count ? "" : subcontract.Unit.Symbol;
        var amount = trace.Total(
            subcontract.LumpSum
                ? trace.Book(bought.ByItem.Count, "", "pieces of work", subcontract.Id)
                : bought.Amount.Total,
            unit,
            trace.On ? subcontract.Name + ": amount" : "",
            Path("amount")
        );
        var per = unit.Length == 0 ? "" : "per " + unit;
        var price = trace.Book(subcontract.Price, per, subcontract.Name, subcontract.Id);
        return new(
            subcontract,
            amount,
            trace.Total(amount * price, "", trace.On ? subcontract.Name + ": cost" : "", Path("cost")),
            [.. bought.ByItem.Select(i => (i.Item, i.Amount * price))]
        );
    }

    /// <inheritdoc/>
    public override void Share(LineShares lines)
    {
        foreach (var (line, part, amount) in lines.Of(ComponentKind.Subcontract))
            if (part.Entry is Subcontract { LumpSum: false } byUnit)
                lines.Add(
                    line,
                    part,
                    amount * lines.Trace.Book(byUnit.Price, "per " + byUnit.Unit, byUnit.Name, byUnit.Id)
                );
        foreach (var subcontract in lines.Costs.Subcontracts)
        foreach (var (item, cost) in subcontract.ByItem)
            lines.AddByHours(item, CostClass.Subcontract, cost);
    }
}
