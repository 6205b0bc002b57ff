using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>The cost of every line, by class. What was bought is shared to lines by need, in whole cents by largest remainder; what was rounded up or comes once for a work item,
/// by hours. Leftovers are in what was bought, and never a line. Made only for the view that shows it (architecture decision 10).</summary>
public sealed class LineCosts
{
    private LineCosts(ByClass<Val>[] lines) => Lines = lines;

    /// <summary>Cost of each line of the reckoning, by class.</summary>
    public ByClass<Val>[] Lines { get; }

    /// <summary>Shares every cost to the lines that brought it. Travel is of the whole job and of no line.</summary>
    public static LineCosts Of(Reckoned reckoned, Trace trace)
    {
        var (lines, costs) = (reckoned.Lines, reckoned.Costs);
        var sums = Array.ConvertAll(lines, _ => new ByClass<Sum>(_ => new()));
        var loaded = costs.Roles.ToDictionary(r => r.Role.Id, r => r.LoadedCost);
        var needs = costs.Buying.ToDictionary(
            b => (b.Material.Id, b.Colour),
            _ => (At: new List<int>(), Need: new List<Val>())
        );
        for (var n = 0; n < lines.Length; n++)
        {
            var line = lines[n];
            for (var i = 0; i < line.Amounts.Length; i++)
            {
                var part = line.Item.Parts[i];
                if (!line.Costs(part))
                    continue;
                var amount = line.Amounts[i];
                switch (part.Entry)
                {
                    case LabourRole role:
                        sums[n][CostClass.Labour].Add(amount * loaded[role.Id]);
                        break;
                    case Material material:
                        var need = needs[(material.Id, part.Colour)];
                        need.At.Add(n);
                        need.Need.Add(amount);
                        break;
                    case Equipment { Per: EquipmentPer.Hour } equipment:
                        sums[n]
                            [CostClass.Equipment]
                            .Add(amount * trace.Book(equipment.Cost, "per h", equipment.Name, equipment.Id));
                        break;
                    case Subcontract { LumpSum: false } subcontract:
                        sums[n]
                            [CostClass.Subcontract]
                            .Add(
                                amount
                                    * trace.Book(
                                        subcontract.Price,
                                        "per " + subcontract.Unit,
                                        subcontract.Name,
                                        subcontract.Id
                                    )
                            );
                        break;
                    case Assembly:
                        sums[n][CostClass.Fixed].Add(amount * trace.Book(part.Charge, "", part.Name, part.Source));
                        break;
                }
            }
        }
        var ours = Enumerable
            .Range(0, lines.Length)
            .Where(n => lines[n].Ours)
            .ToLookup(n => lines[n].OfItem, ReferenceEqualityComparer.Instance);
        foreach (var once in costs.Once)
        {
            if (once.Part.Entry is LabourRole role)
                ToLines(once.Item, once.Amount * loaded[role.Id], CostClass.Labour);
            else if (once.Part.Entry is Material material)
                needs[(material.Id, once.Part.Colour)].Need.Add(once.Amount);
            else if (once.Part.Entry is Equipment { Per: EquipmentPer.Hour } equipment)
                ToLines(
                    once.Item,
                    once.Amount * trace.Book(equipment.Cost, "per h", equipment.Name, equipment.Id),
                    CostClass.Equipment
                );
        }
        var onceOf = costs.Once.ToLookup(o => (o.Part.Entry.Id, o.Part.Colour));
        for (var b = 0; b < costs.Buying.Length; b++)
        {
            var buy = costs.Buying[b];
            var (at, need) = needs[(buy.Material.Id, buy.Colour)];
            if (need.Count == 0)
                continue;
            var shares = Shared(buy, b + 1, need);
            for (var i = 0; i < at.Count; i++)
                sums[at[i]][CostClass.Material].Add(shares[i]);
            // Needs that come once for a work item stand after those of the lines, in the order of Once.
            var next = at.Count;
            foreach (var once in onceOf[(buy.Material.Id, buy.Colour)])
                ToLines(once.Item, shares[next++], CostClass.Material);
        }
        foreach (var equipment in costs.Equipment)
        foreach (var (item, cost) in equipment.ByItem)
            ToLines(item, cost, CostClass.Equipment);
        foreach (var subcontract in costs.Subcontracts)
        foreach (var (item, cost) in subcontract.Lumps)
            ToLines(item, cost, CostClass.Subcontract);
        foreach (var charge in costs.Charges.Where(c => c.Item is not null && c.Item.Once.Contains(c.Part)))
            ToLines(charge.Item!, charge.Cost, CostClass.Fixed);
        return new(Array.ConvertAll(sums, line => new ByClass<Val>(of => line[of].Total)));

        // What packs cost is whole cents, and so are its parts. What the need costs is not: each line bears its own, as exact as the sum.
        Val[] Shared(BuyLine buy, int number, List<Val> need)
        {
            var cost = buy.Cost(reckoned.Job.Pricing.MaterialCost);
            if (reckoned.Job.Pricing.MaterialCost == MaterialCost.Need)
            {
                var all = new Sum();
                foreach (var one in need)
                    all.Add(one);
                return [.. need.Select(one => all.Total.V == 0 ? cost / need.Count : cost * one / all.Total)];
            }
            return Shares.Of(
                cost.Money(),
                [.. need],
                trace.On
                    ? $"need of {buy.Material.Name}{(buy.Colour.Length == 0 ? "" : ", " + buy.Colour)} (purchase {number})"
                    : "",
                trace
            );
        }

        // By hours; where the work has none, by as many equal parts as there are lines.
        void ToLines(CompiledItem item, Val cost, CostClass kind)
        {
            var at = ours[item].ToArray();
            var hours = new Sum();
            foreach (var n in at)
                hours.Add(lines[n].Hours);
            foreach (var n in at)
                sums[n][kind].Add(hours.Total.V == 0 ? cost / at.Length : cost * lines[n].Hours / hours.Total);
        }
    }
}
