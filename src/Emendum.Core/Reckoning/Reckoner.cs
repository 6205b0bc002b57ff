using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>Hours and cost of one role.</summary>
public sealed record RoleLine(LabourRole Role, Val Hours, Val LoadedCost, Val Cost);

/// <summary>What is needed and bought of one material and colour.</summary>
public sealed record BuyLine(Material Material, string Colour, string Key, Val Need, decimal[] Packs, Val Bought, Val BoughtCost, Val NeedCost);

/// <summary>Hours and cost of one piece of equipment.</summary>
public sealed record EquipmentLine(Equipment Equipment, Val Hours, Val Cost);

/// <summary>Everything reckoned of a job. Whatever a screen, a document or a file shows comes from here.</summary>
public sealed class Reckoning
{
    /// <summary>What was reckoned.</summary>
    public required Job Job { get; init; }
    /// <summary>Measures by place.</summary>
    public required Dictionary<Guid, PlaceMeasures> Measures { get; init; }
    /// <summary>Work items looked up, in job order.</summary>
    public required CompiledItem[] Items { get; init; }
    /// <summary>Included cells, by work item and then place in job order.</summary>
    public required Line[] Lines { get; init; }
    /// <summary>The same by position: work item × places + place; null where nothing is done.</summary>
    public required Line?[] Grid { get; init; }
    /// <summary>Labour by role, in order of first use.</summary>
    public required ImmutableArray<RoleLine> Roles { get; init; }
    /// <summary>Materials, in order of first use.</summary>
    public required ImmutableArray<BuyLine> Buying { get; init; }
    /// <summary>Equipment, in order of first use.</summary>
    public required ImmutableArray<EquipmentLine> Equipment { get; init; }
    /// <summary>Labour hours of the job.</summary>
    public required Val Hours { get; init; }
    /// <summary>Days for the crew.</summary>
    public required Val CrewDays { get; init; }
    /// <summary>Floor of all places.</summary>
    public required Val FloorArea { get; init; }
    /// <summary>The price.</summary>
    public required Price Price { get; init; }

    private Dictionary<Guid, int>? itemAt, placeAt;

    /// <summary>The line of a cell, or null where nothing is done.</summary>
    public Line? At(CellKey key)
    {
        itemAt ??= Positions(Items.Length, i => Items[i].Item.Id);
        placeAt ??= Positions(Job.Places.Length, i => Job.Places[i].Id);
        return itemAt.TryGetValue(key.Work, out var item) && placeAt.TryGetValue(key.Place, out var place) ? Grid[item * Job.Places.Length + place] : null;
    }

    private static Dictionary<Guid, int> Positions(int count, Func<int, Guid> id)
    {
        var positions = new Dictionary<Guid, int>(count);
        for (var i = 0; i < count; i++) positions.Add(id(i), i);
        return positions;
    }
}

/// <summary>The reckoning: a pure function of the job with its pinned entries (architecture decision 2). A map over cells, then a fold.</summary>
public static class Reckoner
{
    /// <summary>Reckons <paramref name="job"/>. With an earlier reckoning of a like job, lines whose inputs are the same objects are taken over;
    /// the result is the same either way. Only a silent reckoning takes over.</summary>
    /// <exception cref="RefusedException">Something in it cannot be reckoned.</exception>
    public static Reckoning Reckon(Job job, Trace trace, Reckoning? earlier = null)
    {
        try
        {
            return ReckonOrOverflow(job, trace, trace.On ? null : earlier);
        }
        catch (OverflowException)
        {
            throw RefusedException.Of("", "The numbers are too large to reckon. Check the sizes, rates and prices.");
        }
    }

    private static Reckoning ReckonOrOverflow(Job job, Trace trace, Reckoning? earlier)
    {
        var measures = MeasureAll(job, trace, earlier);
        var items = CompileAll(job, earlier);
        var grid = new Line?[items.Length * job.Places.Length];
        var lines = new List<Line>(job.Cells.Count);
        var inOrder = new PlaceMeasures[job.Places.Length];
        for (var p = 0; p < inOrder.Length; p++) inOrder[p] = measures[job.Places[p].Id];
        // Cells mostly change one at a time: then an earlier line stands at the same position.
        var samePositions = earlier is not null && earlier.Job.Work == job.Work && earlier.Job.Places == job.Places;
        for (var i = 0; i < items.Length; i++)
        {
            for (var p = 0; p < inOrder.Length; p++)
            {
                var key = new CellKey(items[i].Item.Id, inOrder[p].Place.Id);
                if (!job.Cells.TryGetValue(key, out var cell) || cell.State != CellState.Included) continue;
                var at = i * inOrder.Length + p;
                var line = samePositions ? earlier!.Grid[at] : earlier?.At(key);
                if (line is null || !line.IsOf(items[i], inOrder[p], cell)) line = Line.Of(items[i], inOrder[p], cell, job.Units, trace);
                grid[at] = line;
                lines.Add(line);
            }
        }
        return Fold(job, trace, measures, items, [.. lines], grid);
    }

    private static Dictionary<Guid, PlaceMeasures> MeasureAll(Job job, Trace trace, Reckoning? earlier)
    {
        var rule = job.Rule;
        var sameRule = earlier is not null && earlier.Job.Deduct == job.Deduct && earlier.Job.Units == job.Units;
        var measures = new Dictionary<Guid, PlaceMeasures>(job.Places.Length);
        var incoming = job.Incoming();
        foreach (var place in job.Places)
        {
            var from = incoming.GetValueOrDefault(place.Id, []);
            measures.Add(place.Id, sameRule && earlier!.Measures.TryGetValue(place.Id, out var kept) && kept.IsOf(place, from)
                ? kept
                : PlaceMeasures.Of(place, from, job.Units, rule, trace));
        }
        return measures;
    }

    private static CompiledItem[] CompileAll(Job job, Reckoning? earlier)
    {
        var kept = earlier is not null && ReferenceEquals(earlier.Job.Book, job.Book) ? earlier.Items.ToDictionary(i => i.Item.Id) : null;
        return [.. job.Work.Select(item => kept is not null && kept.TryGetValue(item.Id, out var compiled) && ReferenceEquals(compiled.Item, item) ? compiled : CompiledItem.Of(item, job.Book))];
    }

    private sealed class Pool(BookEntry entry, string colour)
    {
        public BookEntry Entry => entry;
        public string Colour => colour;
        public Sum Amount { get; } = new();
    }

    private static Reckoning Fold(Job job, Trace trace, Dictionary<Guid, PlaceMeasures> measures, CompiledItem[] items, Line[] lines, Line?[] grid)
    {
        var pools = new Dictionary<(Guid, string), Pool>();
        var order = new List<Pool>();
        Pool[] slots = [];
        CompiledItem? current = null;
        foreach (var line in lines)
        {
            if (!ReferenceEquals(current, line.Item))
            {
                current = line.Item;
                slots = [.. current.Parts.Select(part =>
                {
                    var colour = part.Entry is Material ? line.Item.Item.Colour : "";
                    if (pools.TryGetValue((part.Entry.Id, colour), out var pool)) return pool;
                    order.Add(pool = pools[(part.Entry.Id, colour)] = new(part.Entry, colour));
                    return pool;
                })];
            }
            for (var i = 0; i < slots.Length; i++) slots[i].Amount.Add(line.Amounts[i]);
        }

        var roles = order.Where(p => p.Entry is LabourRole).Select(p => RoleOf((LabourRole)p.Entry, p.Amount.Total, trace)).ToImmutableArray();
        var buying = order.Where(p => p.Entry is Material).Select(p => Buy((Material)p.Entry, p.Colour, p.Amount.Total, trace)).ToImmutableArray();
        var equipment = order.Where(p => p.Entry is Equipment).Select(p => EquipmentOf((Equipment)p.Entry, p.Amount.Total, trace)).ToImmutableArray();

        var hours = new Sum();
        foreach (var role in roles) hours.Add(role.Hours);
        var totalHours = trace.Make(hours.Total, "h", "Labour hours", new("totals", "hours"));
        var crew = trace.Term(job.Pricing.CrewSize, "", "crew", "crewSize") * trace.Term(job.Pricing.HoursPerDay, "h", "hours a day", "hoursPerDay");
        var floor = new Sum();
        foreach (var place in job.Places.Where(p => measures[p.Id].Has(Measure.FloorArea)))
            floor.Add(place.Count == 1 ? measures[place.Id][Measure.FloorArea] : measures[place.Id][Measure.FloorArea] * trace.Typed(place.Count, "", "equal places", null, "places", place.Id));
        var floorArea = trace.Make(floor.Total, Measure.FloorArea.UnitIn(job.Units).Symbol, "Floor area", new("totals", "floorArea"));
        return new()
        {
            Job = job,
            Measures = measures,
            Items = items,
            Lines = lines,
            Grid = grid,
            Roles = roles,
            Buying = buying,
            Equipment = equipment,
            Hours = totalHours,
            CrewDays = trace.Make(totalHours / crew, "days", "Crew days", new("totals", "crewDays")),
            FloorArea = floorArea,
            Price = Price.Of(job.Pricing, roles, buying, equipment, totalHours, floorArea, trace),
        };
    }

    private static RoleLine RoleOf(LabourRole role, Val hours, Trace trace)
    {
        FigurePath Path(string leaf) => new("roles", role.Id, leaf);
        var total = trace.Make(hours, "h", trace.On ? $"{role.Name}: hours" : "", Path("hours"));
        Val percent = 100m, perHour = 0m;
        foreach (var item in role.Burden)
        {
            if (item.Percent is { } p) percent += trace.Book(p, "%", item.Name, role.Id);
            if (item.PerHour is { } h) perHour += trace.Book(h, "per h", item.Name, role.Id);
        }
        var loaded = trace.Make(trace.Book(role.Wage, "per h", "wage", role.Id) * percent / 100m + perHour, "per h", trace.On ? $"{role.Name}: loaded cost" : "", Path("loadedCost"));
        return new(role, total, loaded, trace.Make(total * loaded, "", trace.On ? $"{role.Name}: cost" : "", Path("cost")));
    }

    private static BuyLine Buy(Material material, string colour, Val amount, Trace trace)
    {
        var key = colour.Length == 0 ? "" : "~" + Uri.EscapeDataString(colour);
        FigurePath Path(string leaf) => new("buy" + key, material.Id, leaf);
        var name = trace.On ? colour.Length == 0 ? material.Name : $"{material.Name}, {colour}" : "";
        var need = trace.Make(amount, material.Unit.Symbol, name + ": needed", Path("need"));
        var counts = CheapestPacks.Cover(need.V, material.Packs);
        decimal size = 0, price = 0;
        for (var i = 0; i < counts.Length; i++) (size, price) = (size + counts[i] * material.Packs[i].Size, price + counts[i] * material.Packs[i].Price);
        Val Chosen(decimal value, string gives) =>
            new(value, trace.On ? new Packs(need.HowOrConstant, [.. counts.Select((n, i) => new PackCount(material.Packs[i].Size, material.Packs[i].Price, n))], gives) : null);
        var bought = trace.Make(Chosen(size, "quantity"), material.Unit.Symbol, name + ": bought", Path("bought"));
        var cost = trace.Make(Chosen(price, "cost"), "", name + ": bought cost", Path("boughtCost"));
        var needCost = trace.Make(bought.V == 0 ? cost : need * cost / bought, "", name + ": cost of the need", Path("needCost"));
        return new(material, colour, key, need, counts, bought, cost, needCost);
    }

    private static EquipmentLine EquipmentOf(Equipment equipment, Val hours, Trace trace)
    {
        var total = trace.Make(hours, "h", trace.On ? $"{equipment.Name}: hours" : "", new("equipment", equipment.Id, "hours"));
        return new(equipment, total, trace.Make(total * trace.Book(equipment.CostPerHour, "per h", "cost per hour", equipment.Id), "", trace.On ? $"{equipment.Name}: cost" : "", new("equipment", equipment.Id, "cost")));
    }
}
