using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>Machines: by the hour for the whole job; by days and visits, rounded up once per machine and work item.</summary>
internal sealed class EquipmentCosts : KindCosts
{
    private readonly OrderedDictionary<Guid, Used> machines = [];
    private readonly OwnParts own = new();

    private sealed class Used(Equipment equipment)
    {
        public Equipment Equipment => equipment;
        public Sum Hours { get; } = new();
        public Sum Units { get; } = new();
        public List<(CompiledItem Item, Val Cost)> ByItem { get; } = [];
    }

    private Used UsedOf(Equipment equipment)
    {
        if (!machines.TryGetValue(equipment.Id, out var used))
            machines.Add(equipment.Id, used = new(equipment));
        return used;
    }

    /// <inheritdoc/>
    public override Sum SumOf(CompiledItem.Part part) =>
        part.Entry is Equipment { Per: EquipmentPer.Hour } hourly ? UsedOf(hourly).Hours : own.SumOf(part);

    /// <inheritdoc/>
    public override void EndItem(CompiledItem item, Job job, Trace trace)
    {
        foreach (var machine in own.Take().GroupBy(o => o.Part.Entry.Id))
            ByUnits(item, [.. machine], job, trace);
    }

    /// <summary>Days and visits are rounded up once per machine, item and job, whatever parts of the item use it; a visit lasts a working day at most.</summary>
    private void ByUnits(CompiledItem item, (CompiledItem.Part Part, Sum Amount)[] parts, Job job, Trace trace)
    {
        var equipment = (Equipment)parts[0].Part.Entry;
        FigurePath Path(string leaf) => new("equipment", equipment.Id, item.Item.Id, leaf);
        var label = trace.On ? $"{equipment.Name}, {item.Item.Name}" : "";
        var (timed, counted) = (new Sum(), new Sum());
        foreach (var (part, amount) in parts)
            (part.Unit.Kind == Kind.Count ? counted : timed).Add(amount.Total);
        if (timed.Total.V == 0 && counted.Total.V == 0)
            return;
        var used = UsedOf(equipment);
        Val units = 0m;
        if (timed.Total.V != 0)
        {
            var hours = trace.Make(timed.Total, "h", label + ": hours", Path("hours"));
            used.Hours.Add(hours);
            units = hours / trace.Crew(job.Crew.HoursPerDay, "h", "hours a day", "hoursPerDay");
        }
        if (counted.Total.V != 0)
        {
            var visits = trace.Make(counted.Total, "", label + ": visits, exact", Path("visits"));
            units = timed.Total.V == 0 ? visits : units + visits;
        }
        units = trace.Make(units.Ceil(), equipment.Per == EquipmentPer.Day ? "days" : "visits", label, Path("units"));
        used.Units.Add(units);
        var cost = units * trace.Book(equipment.Cost, "", "cost of one", equipment.Id);
        used.ByItem.Add((item, trace.Make(cost, "", label + ": cost", Path("cost"))));
    }

    /// <inheritdoc/>
    public override void End(CostsDraft costs, Trace trace)
    {
        foreach (var used in machines.Values)
            costs.Equipment.Add(Of(used, trace));
    }

    private static EquipmentCost Of(Used used, Trace trace)
    {
        var equipment = used.Equipment;
        FigurePath Path(string leaf) => new("equipment", equipment.Id, leaf);
        var name = trace.On ? equipment.Name : "";
        var hours = trace.Total(used.Hours.Total, "h", name + ": hours", Path("hours"));
        if (equipment.Per == EquipmentPer.Hour)
        {
            var perHour = trace.Book(equipment.Cost, "per h", "cost per hour", equipment.Id);
            return new(equipment, hours, hours, trace.Total(hours * perHour, "", name + ": cost", Path("cost")), []);
        }
        var days = equipment.Per == EquipmentPer.Day ? "days" : "visits";
        var units = trace.Total(used.Units.Total, days, name + ": paid for", Path("units"));
        var cost = Sum.Of(used.ByItem.Select(i => i.Cost));
        return new(equipment, hours, units, trace.Total(cost, "", name + ": cost", Path("cost")), [.. used.ByItem]);
    }

    /// <inheritdoc/>
    public override void Share(LineShares lines)
    {
        Val Hourly(CompiledItem.Part part, Val amount) =>
            amount * lines.Trace.Book(((Equipment)part.Entry).Cost, "per h", part.Entry.Name, part.Entry.Id);
        bool IsHourly(CompiledItem.Part part) => ((Equipment)part.Entry).Per == EquipmentPer.Hour;
        foreach (var (line, part, amount) in lines.Of(ComponentKind.Equipment))
            if (IsHourly(part))
                lines.Add(line, part, Hourly(part, amount));
        foreach (var (item, part, amount) in lines.Once(ComponentKind.Equipment))
            if (IsHourly(part))
                lines.AddByHours(item, CostClass.Equipment, Hourly(part, amount));
        foreach (var machine in lines.Costs.Equipment)
        foreach (var (item, cost) in machine.ByItem)
            lines.AddByHours(item, CostClass.Equipment, cost);
    }
}
