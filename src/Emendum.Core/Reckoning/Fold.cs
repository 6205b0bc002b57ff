using System.Collections.Immutable;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>From the lines of a job to its hours, purchases and costs. Each kind of part adds up by itself (<c>Reckoning/Parts</c>).</summary>
internal sealed class Fold
{
    private readonly Job job;
    private readonly Trace trace;
    private readonly ImmutableArray<KindCosts> kinds = KindCosts.All();
    private readonly List<(CompiledItem, CompiledItem.Part, Val)> once = [];
    private readonly List<(CompiledItem Item, Val Hours)> itemHours = [];

    private Fold(Job job, Trace trace) => (this.job, this.trace) = (job, trace);

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
        return Begun(job, trace, lines).Ended(measures, items, lines, grid, null);
    }

    /// <summary>The lines added up, before anything is bought for them.</summary>
    public static Fold Begun(Job job, Trace trace, Line[] lines)
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
        return fold;
    }

    /// <summary>Goods that are needed, what is mixed on the spot by its parts.</summary>
    public IReadOnlyList<(Material Material, string Colour, Val Need)> Needs() => Goods.Needs(job.Book, trace);

    private MaterialCosts Goods => kinds.OfType<MaterialCosts>().Single();

    /// <summary>What it all comes to.</summary>
    /// <param name="measures">Measures by place.</param>
    /// <param name="items">All work of the job.</param>
    /// <param name="lines">The lines that were added up.</param>
    /// <param name="grid">All lines by position.</param>
    /// <param name="buy">How goods are bought for the needs; null for by themselves.</param>
    public Reckoned Ended(
        Dictionary<Guid, PlaceMeasures> measures,
        CompiledItem[] items,
        Line[] lines,
        Line?[] grid,
        Func<IReadOnlyList<(Material, string, Val)>, ImmutableArray<Purchase>>? buy
    )
    {
        Goods.Buy = buy;
        return new()
        {
            Job = job,
            Measures = measures,
            Items = items,
            Lines = lines,
            Grid = grid,
            Costs = Totals(measures, lines),
        };
    }

    private KindCosts Of(CompiledItem.Part part) => kinds[(int)part.Kind.Kind];

    private void Item(CompiledItem item, ReadOnlySpan<Line> lines)
    {
        // Most lines work as their item says; where a cell has another product or colour, its parts add up elsewhere.
        var sums = new Dictionary<CompiledItem, Sum[]>(ReferenceEqualityComparer.Instance);
        var (worked, into) = (default(CompiledItem), Array.Empty<Sum>());
        var hours = new Sum();
        var (works, supplied) = (false, false);
        foreach (var line in lines)
        {
            if (!ReferenceEquals(worked, line.Item))
            {
                worked = line.Item;
                if (!sums.TryGetValue(worked, out into!))
                    sums[worked] = into = Array.ConvertAll(worked.Parts, part => Of(part).SumOf(part));
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
                if (supplied || !part.Kind.IsGoods)
                    hours.Add(Once(item, part));
        }
        foreach (var kind in kinds)
            kind.EndItem(item, job, trace);
        itemHours.Add((item, hours.Total));
    }

    /// <summary>What comes once for a work item; gives the labour hours of it.</summary>
    private Val Once(CompiledItem item, CompiledItem.Part part)
    {
        if (part.Time is { } time)
            return Kept(item, part, Hours(item, part, time));
        var (amount, unit) = part.Question is { } question
            ? (
                item.AnswerOf(question, trace)
                    ?? trace.Book(question.Usual, question.Unit.Symbol, question.Text, item.Entry.Id),
                question.Unit
            )
            : (trace.Book(1, "", "once", part.Source), Unit.Each);
        if (part.Ratio is { } ratio)
            amount = trace.Convert(
                trace.Turn(amount, unit, ratio, part.Name, part.Source, null, out var to),
                to,
                part.Unit
            );
        if (part is { Question: not null, Coats: > 1 })
            amount *= trace.Typed(part.Coats, "", "coats", null, "work", item.Item.Id);
        var conditions = job
            .Conditions.Select(id => job.Book.GetValueOrDefault(id))
            .OfType<Condition>()
            .Union(item.Conditions)
            .ToImmutableArray();
        amount = Factors.Apply(item, part, amount, conditions, job, trace);
        if (part.Waste != 0)
            amount = amount * (100m + trace.Book(part.Waste, "%", "waste", part.WasteIn)) / 100m;
        if (part is { Question: not null, Step: { } step })
            amount = Factors.Stepped(amount, step, part.Source, trace);
        return Kept(item, part, amount);
    }

    /// <summary>Hours as they were typed: of all people together for labour, of the crew for a machine that is there meanwhile. Nothing multiplies what somebody has said.</summary>
    private Val Hours(CompiledItem item, CompiledItem.Part part, CrewTime time)
    {
        Val Said(decimal value, string unit, string label) =>
            part.TypedIn is { } typed
                ? trace.Typed(value, unit, label, time.Typed, "work", typed)
                : trace.Book(value, unit, label, item.Entry.Id);
        var hours = Said(time.Hours, "h", "hours");
        if (part.Kind.IsLabour)
            return time.People is { } all ? Said(all, "", "people") * hours : hours;
        return time.People is null ? hours / trace.Book(part.Crew, "", part.Name + ", crew", part.Source) : hours;
    }

    /// <summary>Keeps what comes once for a work item; gives the labour hours of it.</summary>
    private Val Kept(CompiledItem item, CompiledItem.Part part, Val amount)
    {
        amount = trace.Make(
            amount,
            part.Unit.Kind == Kind.Count ? "" : part.Unit.Symbol,
            trace.On ? $"{part.Name}, once" : "",
            new("work", item.Item.Id, "once/" + part.Id)
        );
        once.Add((item, part, amount));
        Of(part).Once(item, part, amount);
        return part.Kind.IsLabour ? amount : 0m;
    }

    private Costs Totals(Dictionary<Guid, PlaceMeasures> measures, Line[] lines)
    {
        var works = Array.Exists(lines, l => l.Works);
        var duration = CrewPlan.Of(job, itemHours, trace);
        var labour = kinds.OfType<LabourCosts>().Single();
        var worked = trace.Total(labour.Hours, "h", "Labour hours of the work", new("totals", "workedHours"));
        ChargeCost? way = null;
        if (works && job.Crew.SetUp is { } id && job.Book.GetValueOrDefault(id) is SetUp setUp)
        {
            (var hours, way) = Travel.Of(setUp, job, worked, duration, trace);
            labour.SumOf((LabourRole)job.Book[setUp.Role]).Add(hours);
        }
        var costs = new CostsDraft(duration, job.Book);
        foreach (var kind in kinds)
            kind.End(costs, trace);
        if (way is not null)
            costs.Charges.Add(way);
        var total = trace.Total(
            Sum.Of(costs.Roles.Select(r => r.Hours.Value)),
            "h",
            "Labour hours",
            new("totals", "hours")
        );
        var crew =
            trace.Crew(job.Crew.Size, "", "crew", "size")
            * trace.Crew(job.Crew.HoursPerDay, "h", "hours a day", "hoursPerDay");
        return new()
        {
            Roles = costs.Roles.ToImmutable(),
            Buying = costs.Buying,
            Mixed = costs.Mixed,
            Equipment = costs.Equipment.ToImmutable(),
            Subcontracts = costs.Subcontracts.ToImmutable(),
            Quotes = QuoteCosts.Of(job, lines, trace),
            Charges = costs.Charges.ToImmutable(),
            Once = [.. once],
            Worked = worked,
            Hours = total,
            CrewDays = trace.Total(total / crew, "days", "Crew days", new("totals", "crewDays")),
            Duration = duration,
            FloorArea = FloorArea(measures),
        };
    }

    private Total FloorArea(Dictionary<Guid, PlaceMeasures> measures)
    {
        var floor = new Sum();
        foreach (var place in job.Places.Where(p => measures[p.Id].Has(Measure.FloorArea)))
            floor.Add(
                place.Count == 1
                    ? measures[place.Id][Measure.FloorArea]
                    : measures[place.Id][Measure.FloorArea]
                        * trace.Typed(place.Count, "", "equal places", null, "places", place.Id)
            );
        return trace.Total(
            floor.Total,
            Measure.FloorArea.UnitIn(job.Units).Symbol,
            "Floor area",
            new("totals", "floorArea")
        );
    }
}
