using Emendum.Core.Book;
using Emendum.Core.Pricing;

namespace Emendum.Core.Reckoning;

/// <summary>The cost of every line, by class. What was bought is shared to lines by need, in whole cents by largest remainder; what was rounded up or comes once for a work item,
/// by hours. Leftovers are in what was bought, and never a line. Made only for the view that shows it (architecture decision 10).</summary>
public sealed class LineCosts
{
    private LineCosts(Val[][] byClass) => ByClass = byClass;

    /// <summary>Cost of each line of the reckoning, by class in the order of <see cref="Price.Classes"/>.</summary>
    public Val[][] ByClass { get; }

    /// <summary>Shares every cost to the lines that brought it. Travel is of the whole job and of no line.</summary>
    public static LineCosts Of(Reckoning reckoning, Trace trace)
    {
        var lines = reckoning.Lines;
        var sums = new Sum[lines.Length][];
        for (var n = 0; n < sums.Length; n++)
            sums[n] = [new(), new(), new(), new(), new()];
        var loaded = reckoning.Roles.ToDictionary(r => r.Role.Id, r => r.LoadedCost);
        var needs = reckoning.Buying.ToDictionary(
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
                        sums[n][0].Add(amount * loaded[role.Id]);
                        break;
                    case Material material:
                        var need = needs[(material.Id, part.Colour)];
                        need.At.Add(n);
                        need.Need.Add(amount);
                        break;
                    case Equipment { Per: EquipmentPer.Hour } equipment:
                        sums[n][2].Add(amount * trace.Book(equipment.Cost, "per h", equipment.Name, equipment.Id));
                        break;
                    case Subcontract { LumpSum: false } subcontract:
                        sums[n]
                            [3]
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
                        sums[n][4].Add(amount * trace.Book(part.Charge, "", part.Name, part.Source));
                        break;
                }
            }
        }
        foreach (var once in reckoning.Once)
        {
            if (once.Part.Entry is LabourRole role)
                ToLines(once.Item, once.Amount * loaded[role.Id], 0);
            else if (once.Part.Entry is Material material)
                needs[(material.Id, once.Part.Colour)].Need.Add(once.Amount);
            else if (once.Part.Entry is Equipment { Per: EquipmentPer.Hour } equipment)
                ToLines(once.Item, once.Amount * trace.Book(equipment.Cost, "per h", equipment.Name, equipment.Id), 2);
        }
        foreach (var buy in reckoning.Buying)
        {
            var (at, need) = needs[(buy.Material.Id, buy.Colour)];
            if (need.Count == 0)
                continue;
            var shares = Spread.Share(
                buy.Cost(reckoning.Job.Pricing.MaterialCost).Money(),
                [.. need],
                trace.On
                    ? $"need of {buy.Material.Name}{(buy.Colour.Length == 0 ? "" : ", " + buy.Colour)} (purchase {reckoning.Buying.IndexOf(buy) + 1})"
                    : "",
                trace
            );
            for (var i = 0; i < at.Count; i++)
                sums[at[i]][1].Add(shares[i]);
            // Needs that come once for a work item stand after those of the lines, in the order of Once.
            var next = at.Count;
            foreach (
                var once in reckoning.Once.Where(o => o.Part.Entry.Id == buy.Material.Id && o.Part.Colour == buy.Colour)
            )
                ToLines(once.Item, shares[next++], 1);
        }
        foreach (var equipment in reckoning.Equipment)
        foreach (var (item, cost) in equipment.ByItem)
            ToLines(item, cost, 2);
        foreach (var subcontract in reckoning.Subcontracts)
        {
            foreach (var (item, cost) in subcontract.Lumps)
                ToLines(item, cost, 3);
            if (!subcontract.Subcontract.LumpSum)
                continue;
            foreach (
                var item in reckoning.Items.Where(i =>
                    i.Parts.Any(p => ReferenceEquals(p.Entry, subcontract.Subcontract))
                )
            )
                ToLines(
                    item,
                    trace.Book(
                        subcontract.Subcontract.Price,
                        "",
                        subcontract.Subcontract.Name,
                        subcontract.Subcontract.Id
                    ),
                    3
                );
        }
        foreach (var charge in reckoning.Charges.Where(c => c.Item is not null && c.Item.Once.Contains(c.Part)))
            ToLines(charge.Item!, charge.Cost, 4);
        return new([.. sums.Select(s => s.Select(c => c.Total).ToArray())]);

        // By hours; where the work has none, by as many equal parts as there are lines.
        void ToLines(CompiledItem item, Val cost, int kind)
        {
            var at = Enumerable
                .Range(0, lines.Length)
                .Where(n => ReferenceEquals(lines[n].OfItem, item) && lines[n].Ours)
                .ToArray();
            var hours = new Sum();
            foreach (var n in at)
                hours.Add(lines[n].Hours);
            foreach (var n in at)
                sums[n][kind].Add(hours.Total.V == 0 ? cost / at.Length : cost * lines[n].Hours / hours.Total);
        }
    }
}
