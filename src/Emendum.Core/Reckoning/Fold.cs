using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>From the lines of a job to its hours, purchases, costs and price.</summary>
internal sealed class Fold
{
    private readonly Job job;
    private readonly Trace trace;
    private readonly Dictionary<(Guid, string), Pool> pools = [];
    private readonly List<Pool> order = [];
    private readonly List<ChargeLine> charges = [];
    private readonly List<(CompiledItem, CompiledItem.Part, Val)> once = [];
    private readonly List<(CompiledItem Item, Val Hours)> itemHours = [];

    private Fold(Job job, Trace trace) => (this.job, this.trace) = (job, trace);

    /// <summary>All of one entry that a job takes, in one colour.</summary>
    private sealed class Pool(BookEntry entry, string colour)
    {
        public BookEntry Entry => entry;
        public string Colour => colour;
        public Sum Amount { get; } = new();
        public Sum Units { get; } = new();
        public List<(CompiledItem Item, Val Amount)> ByItem { get; } = [];
        public List<CompiledItem> Lumps { get; } = [];
    }

    /// <summary>Folds the lines, which stand by work item.</summary>
    public static Reckoned Of(
        Job job,
        Trace trace,
        Dictionary<Guid, PlaceMeasures> measures,
        CompiledItem[] items,
        Line[] lines,
        Line?[] grid
    )
    {
        var fold = new Fold(job, trace);
        for (var from = 0; from < lines.Length; )
        {
            var to = from + 1;
            while (to < lines.Length && ReferenceEquals(lines[to].OfItem, lines[from].OfItem))
                to++;
            fold.Item(lines[from].OfItem, lines.AsSpan(from, to - from));
            from = to;
        }
        return fold.Totals(measures, items, lines, grid);
    }

    private Pool PoolOf(BookEntry entry, string colour)
    {
        if (pools.TryGetValue((entry.Id, colour), out var pool))
            return pool;
        order.Add(pool = pools[(entry.Id, colour)] = new(entry, colour));
        return pool;
    }

    /// <summary>What a work item takes of its own, apart from what the job takes together: charges, machines by the day or visit, lump sums.</summary>
    private sealed class Own(CompiledItem.Part part)
    {
        public CompiledItem.Part Part => part;
        public Sum Amount { get; } = new();
    }

    private void Item(CompiledItem item, ReadOnlySpan<Line> lines)
    {
        // Most lines work as their item says; where a cell has another product or colour, its parts go to other pools.
        var sums = new Dictionary<CompiledItem, Sum[]>(ReferenceEqualityComparer.Instance);
        var own = new List<Own>();
        var (worked, into) = (default(CompiledItem), Array.Empty<Sum>());
        var hours = new Sum();
        var (works, supplied) = (false, false);
        foreach (var line in lines)
        {
            if (!ReferenceEquals(worked, line.Item))
            {
                worked = line.Item;
                if (!sums.TryGetValue(worked, out into!))
                    sums[worked] = into = SumsOf(worked, own);
            }
            hours.Add(line.Hours);
            works |= line.Works;
            supplied |= line.Works && line.Supply == Work.Supply.We;
            for (var i = 0; i < into.Length; i++)
                if (line.Costs(worked.Parts[i]))
                    into[i].Add(line.Amounts[i]);
        }
        if (works)
        {
            // Goods that come once are the customer's where the customer supplies all material.
            foreach (var part in item.Once)
                if (supplied || part.Kind != ComponentKind.Material)
                    hours.Add(Once(item, part, own));
        }
        foreach (var charge in own.Where(o => o.Part.Entry is Assembly && o.Amount.Total.V != 0))
            Charge(item, charge.Part, charge.Amount.Total);
        foreach (var machine in own.Where(o => o.Part.Entry is Equipment).GroupBy(o => o.Part.Entry.Id))
            ByUnits(item, [.. machine]);
        foreach (
            var lump in own.Where(o => o.Part.Entry is Subcontract && o.Amount.Total.V != 0)
                .DistinctBy(o => o.Part.Entry.Id)
        )
            PoolOf(lump.Part.Entry, "").Lumps.Add(item);
        itemHours.Add((item, hours.Total));
    }

    /// <summary>Where each part of an item adds up: in a pool of the job, or for the item alone.</summary>
    private Sum[] SumsOf(CompiledItem item, List<Own> own) =>
        [.. item.Parts.Select(part => IsOwn(part) ? OwnOf(part, own).Amount : PoolOf(part.Entry, part.Colour).Amount)];

    private static bool IsOwn(CompiledItem.Part part) =>
        part.Entry is Assembly or Equipment { Per: not EquipmentPer.Hour } or Subcontract { LumpSum: true };

    private static Own OwnOf(CompiledItem.Part part, List<Own> own)
    {
        var found = own.Find(o => o.Part.Id == part.Id);
        if (found is null)
            own.Add(found = new(part));
        return found;
    }

    /// <summary>Days and visits are rounded up once per machine, item and job, whatever parts of the item use it; a visit lasts a working day at most.</summary>
    private void ByUnits(CompiledItem item, Own[] parts)
    {
        var equipment = (Equipment)parts[0].Part.Entry;
        FigurePath Path(string leaf) => new("equipment", equipment.Id, item.Item.Id, leaf);
        var label = trace.On ? $"{equipment.Name}, {item.Item.Name}" : "";
        var (timed, counted) = (new Sum(), new Sum());
        foreach (var part in parts)
            (part.Part.Unit.Kind == Kind.Count ? counted : timed).Add(part.Amount.Total);
        if (timed.Total.V == 0 && counted.Total.V == 0)
            return;
        Val units = 0m;
        if (timed.Total.V != 0)
        {
            var hours = trace.Make(timed.Total, "h", label + ": hours", Path("hours"));
            PoolOf(equipment, "").Amount.Add(hours);
            units = hours / trace.Term(job.Pricing.HoursPerDay, "h", "hours a day", "hoursPerDay");
        }
        if (counted.Total.V != 0)
        {
            var visits = trace.Make(counted.Total, "", label + ": visits, exact", Path("visits"));
            units = timed.Total.V == 0 ? visits : units + visits;
        }
        units = trace.Make(units.Ceil(), equipment.Per == EquipmentPer.Day ? "days" : "visits", label, Path("units"));
        var pool = PoolOf(equipment, "");
        pool.Units.Add(units);
        var cost = units * trace.Book(equipment.Cost, "", "cost of one", equipment.Id);
        pool.ByItem.Add((item, trace.Make(cost, "", label + ": cost", Path("cost"))));
    }

    private void Charge(CompiledItem item, CompiledItem.Part part, Val amount)
    {
        var label = trace.On ? $"{part.Name}, {item.Item.Name}" : "";
        var made = trace.Total(amount, "", label, new("charges", item.Item.Id, part.Id, "amount"));
        charges.Add(
            new(
                part.Name,
                item,
                part,
                made,
                trace.Total(
                    made * trace.Book(part.Charge, "", part.Name, part.Source),
                    "",
                    label + ": cost",
                    new("charges", item.Item.Id, part.Id, "cost")
                )
            )
        );
    }

    /// <summary>What comes once for a work item; gives the labour hours of it.</summary>
    private Val Once(CompiledItem item, CompiledItem.Part part, List<Own> own)
    {
        var amount = trace.Book(1, "", "once", part.Source);
        if (part.Ratio is { } ratio)
            amount = trace.Convert(
                trace.Turn(amount, Unit.Each, ratio, part.Name, part.Source, null, out var to),
                to,
                part.Unit
            );
        var conditions = job
            .Conditions.Select(id => job.Book.GetValueOrDefault(id))
            .OfType<Condition>()
            .Union(item.Conditions)
            .ToImmutableArray();
        amount = Factors.Apply(item, part, amount, conditions, job, trace);
        if (part.Waste != 0)
            amount = amount * (100m + trace.Book(part.Waste, "%", "waste", part.WasteIn)) / 100m;
        amount = trace.Make(
            amount,
            part.Unit.Kind == Kind.Count ? "" : part.Unit.Symbol,
            trace.On ? $"{part.Name}, once" : "",
            new("work", item.Item.Id, "once/" + part.Id)
        );
        once.Add((item, part, amount));
        // A machine without an amount of time comes for a day or visit.
        if (part.Entry is Equipment { Per: not EquipmentPer.Hour } && part.Ratio is null)
            part = part with { Unit = Unit.Each };
        (IsOwn(part) ? OwnOf(part, own).Amount : PoolOf(part.Entry, part.Colour).Amount).Add(amount);
        return part.IsLabour ? amount : 0m;
    }

    private Reckoned Totals(Dictionary<Guid, PlaceMeasures> measures, CompiledItem[] items, Line[] lines, Line?[] grid)
    {
        var duration = CrewPlan.Of(job, itemHours, trace);
        var worked = new Sum();
        foreach (var pool in order.Where(p => p.Entry is LabourRole))
            worked.Add(pool.Amount.Total);
        var workedHours = trace.Total(worked.Total, "h", "Labour hours of the work", new("totals", "workedHours"));
        if (
            job.Pricing.SetUp is { } id
            && job.Book.GetValueOrDefault(id) is SetUp setUp
            && Array.Exists(lines, l => l.Works)
        )
        {
            var (hours, way) = Travel.Of(setUp, job, workedHours, duration, trace);
            PoolOf(job.Book[setUp.Role], "").Amount.Add(hours);
            if (way is not null)
                charges.Add(way);
        }
        var roles = order
            .Where(p => p.Entry is LabourRole)
            .Select(p => RoleOf((LabourRole)p.Entry, p.Amount.Total))
            .ToImmutableArray();
        var buying = Buying.Of(
            [.. order.Where(p => p.Entry is Material).Select(p => ((Material)p.Entry, p.Colour, p.Amount.Total))],
            trace
        );
        var equipment = order.Where(p => p.Entry is Equipment).Select(EquipmentOf).ToImmutableArray();
        var subcontracts = order.Where(p => p.Entry is Subcontract).Select(SubcontractOf).ToImmutableArray();
        var total = new Sum();
        foreach (var role in roles)
            total.Add(role.Hours);
        var totalHours = trace.Total(total.Total, "h", "Labour hours", new("totals", "hours"));
        var crew =
            trace.Term(job.Pricing.CrewSize, "", "crew", "crewSize")
            * trace.Term(job.Pricing.HoursPerDay, "h", "hours a day", "hoursPerDay");
        var floor = new Sum();
        foreach (var place in job.Places.Where(p => measures[p.Id].Has(Measure.FloorArea)))
            floor.Add(
                place.Count == 1
                    ? measures[place.Id][Measure.FloorArea]
                    : measures[place.Id][Measure.FloorArea]
                        * trace.Typed(place.Count, "", "equal places", null, "places", place.Id)
            );
        var floorArea = trace.Total(
            floor.Total,
            Measure.FloorArea.UnitIn(job.Units).Symbol,
            "Floor area",
            new("totals", "floorArea")
        );
        return new()
        {
            Job = job,
            Measures = measures,
            Items = items,
            Lines = lines,
            Grid = grid,
            Costs = new()
            {
                Roles = roles,
                Buying = buying,
                Equipment = equipment,
                Subcontracts = subcontracts,
                Charges = [.. charges],
                Once = [.. once],
                Worked = workedHours,
                Hours = totalHours,
                CrewDays = trace.Total(totalHours / crew, "days", "Crew days", new("totals", "crewDays")),
                Duration = duration,
                FloorArea = floorArea,
            },
        };
    }

    private RoleLine RoleOf(LabourRole role, Val hours)
    {
        FigurePath Path(string leaf) => new("roles", role.Id, leaf);
        var total = trace.Total(hours, "h", trace.On ? $"{role.Name}: hours" : "", Path("hours"));
        Val wage = trace.Book(role.Wage, "per h", "wage", role.Id),
            percent = 100m,
            perHour = 0m,
            fixedPercent = 0m,
            fixedPerHour = 0m;
        foreach (var item in role.Burden)
        {
            var follows = item.FollowsPremiums || role.Premiums.IsEmpty;
            if (item.Percent is { } p)
            {
                if (follows)
                    percent += trace.Book(p, "%", item.Name, role.Id);
                else
                    fixedPercent += trace.Book(p, "%", item.Name, role.Id);
            }
            if (item.PerHour is not { } h)
                continue;
            if (follows)
                perHour += trace.Book(h, "per h", item.Name, role.Id);
            else
                fixedPerHour += trace.Book(h, "per h", item.Name, role.Id);
        }
        var loaded = wage * percent / 100m + perHour;
        if (!role.Premiums.IsEmpty)
        {
            // Each premium lifts its share of the hours by what its multiplier is above one.
            Val lift = 100m;
            foreach (var premium in role.Premiums)
                lift +=
                    trace.Book(premium.SharePercent, "%", premium.Name + ", share of hours", role.Id)
                    * (trace.Book(premium.Multiplier, "", premium.Name, role.Id) - 1m);
            loaded = loaded * lift / 100m;
            if (fixedPercent.V != 0)
                loaded += wage * fixedPercent / 100m;
            if (fixedPerHour.V != 0)
                loaded += fixedPerHour;
        }
        var cost = trace.Total(loaded, "per h", trace.On ? $"{role.Name}: loaded cost" : "", Path("loadedCost"));
        return new(
            role,
            total,
            cost,
            trace.Total(total * cost, "", trace.On ? $"{role.Name}: cost" : "", Path("cost"))
        );
    }

    private EquipmentLine EquipmentOf(Pool pool)
    {
        var equipment = (Equipment)pool.Entry;
        FigurePath Path(string leaf) => new("equipment", equipment.Id, leaf);
        var name = trace.On ? equipment.Name : "";
        var hours = trace.Total(pool.Amount.Total, "h", name + ": hours", Path("hours"));
        if (equipment.Per == EquipmentPer.Hour)
            return new(
                equipment,
                hours,
                hours,
                trace.Total(
                    hours * trace.Book(equipment.Cost, "per h", "cost per hour", equipment.Id),
                    "",
                    name + ": cost",
                    Path("cost")
                ),
                []
            );
        var cost = new Sum();
        foreach (var (_, amount) in pool.ByItem)
            cost.Add(amount);
        return new(
            equipment,
            hours,
            trace.Total(
                pool.Units.Total,
                equipment.Per == EquipmentPer.Day ? "days" : "visits",
                name + ": paid for",
                Path("units")
            ),
            trace.Total(cost.Total, "", name + ": cost", Path("cost")),
            [.. pool.ByItem]
        );
    }

    private SubcontractLine SubcontractOf(Pool pool)
    {
        var subcontract = (Subcontract)pool.Entry;
        FigurePath Path(string leaf) => new("subcontract", subcontract.Id, leaf);
        (CompiledItem Item, Val Amount)[] lumps = subcontract.LumpSum
            ? [.. pool.Lumps.Select(i => (i, trace.Book(1, "", "once for the work", subcontract.Id)))]
            : [.. once.Where(o => ReferenceEquals(o.Item2.Entry, subcontract)).Select(o => (o.Item1, o.Item3))];
        var unit = subcontract.LumpSum || subcontract.Unit.Kind == Kind.Count ? "" : subcontract.Unit.Symbol;
        var amount = trace.Total(
            subcontract.LumpSum ? LumpsOf(pool, subcontract) : pool.Amount.Total,
            unit,
            trace.On ? subcontract.Name + ": amount" : "",
            Path("amount")
        );
        var price = trace.Book(
            subcontract.Price,
            unit.Length == 0 ? "" : "per " + unit,
            subcontract.Name,
            subcontract.Id
        );
        return new(
            subcontract,
            amount,
            trace.Total(amount * price, "", trace.On ? subcontract.Name + ": cost" : "", Path("cost")),
            [.. lumps.Select(l => (l.Item1, l.Item2 * price))]
        );
    }

    /// <summary>A lump sum is paid once for each work item that brings it: not where the customer does that work, a sum is allowed for it, or there is none of it.</summary>
    private Val LumpsOf(Pool pool, Subcontract subcontract) =>
        pool.Lumps.Count == 0 ? 0m : trace.Book(pool.Lumps.Count, "", "pieces of work", subcontract.Id);
}
