using System.Collections.Immutable;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>What the first year of a round takes and costs: each occurrence as often as it comes, and what is done once. Goods are those that are bought for the year.</summary>
internal sealed class RoundCosts(
    Job job,
    Trace trace,
    ImmutableArray<Occurrence> occurrences,
    Dictionary<(Guid, string), Purchase> bought
)
{
    /// <summary>Adds them up.</summary>
    public Costs Of()
    {
        var floor = occurrences[0].Reckoned.Costs.FloorArea;
        var hours = Year(c => c.Hours, "h", "Labour hours", new("totals", "hours"));
        var crew =
            trace.Crew(job.Crew.Size, "", "crew", "size")
            * trace.Crew(job.Crew.HoursPerDay, "h", "hours a day", "hoursPerDay");
        return new()
        {
            Roles = Roles(),
            Buying = [.. bought.Values],
            Mixed = Mixed(),
            Equipment = Equipment(),
            Subcontracts = Subcontracts(),
            Quotes = Quotes(),
            Charges = Charges(),
            Once =
            [
                .. occurrences.SelectMany(o => o.Reckoned.Costs.Once.Select(c => (c.Item, c.Part, o.InYear(c.Amount)))),
            ],
            Worked = Year(c => c.Worked, "h", "Labour hours of the work", new("totals", "workedHours")),
            Hours = hours,
            CrewDays = trace.Total(hours / crew, "days", "Crew days", new("totals", "crewDays")),
            Duration = new(
                Year(c => c.Duration.Days, "days", "Duration", new("totals", "duration")),
                Year(c => c.Duration.ReturnVisits, "", "Return visits", new("totals", "returnVisits"))
            ),
            FloorArea = trace.Total(floor, floor.Unit, "Floor area", new("totals", "floorArea")),
        };
    }

    private Total Year(Func<Costs, Val> of, string unit, string label, FigurePath path) =>
        trace.Total(Sum.Of(occurrences.Select(o => o.InYear(of(o.Reckoned.Costs)))), unit, label, path);

    /// <summary>What stands in several occurrences, by its id in order of first use, each with what they have of it.</summary>
    private IEnumerable<((Occurrence Of, T One)[] All, T First)> Gathered<T, TKey>(
        Func<Costs, IEnumerable<T>> of,
        Func<T, TKey> key
    ) =>
        occurrences
            .SelectMany(o => of(o.Reckoned.Costs).Select(one => (Of: o, One: one)))
            .GroupBy(x => key(x.One))
            .Select(all => (all.ToArray(), all.First().One));

    private Total Made<T>(
        (Occurrence Of, T One)[] all,
        Func<T, Val> value,
        string unit,
        string label,
        FigurePath path
    ) => trace.Total(Sum.Of(all.Select(x => x.Of.InYear(value(x.One)))), unit, label, path);

    private ImmutableArray<RoleCost> Roles() =>
        [
            .. Gathered(c => c.Roles, r => r.Role.Id)
                .Select(r =>
                {
                    var name = r.First.Role.Name;
                    FigurePath Path(string leaf) => new("roles", r.First.Role.Id, leaf);
                    return new RoleCost(
                        r.First.Role,
                        Made(r.All, x => x.Hours, "h", name + ": hours", Path("hours")),
                        r.First.LoadedCost,
                        Made(r.All, x => x.Cost, "", name + ": cost", Path("cost"))
                    );
                }),
        ];

    private ImmutableArray<Mixed> Mixed() =>
        [
            .. Gathered(c => c.Mixed, m => (m.Material.Id, m.Colour))
                .Select(m =>
                {
                    var (first, name) = (m.First, m.First.Material.Name);
                    FigurePath Path(string leaf) =>
                        new(FigurePath.InColour("mixed", first.Colour), first.Material.Id, leaf);
                    return first with
                    {
                        Quantity = Made(
                            m.All,
                            x => x.Quantity,
                            first.Quantity.Unit,
                            name + ": mixed",
                            Path("quantity")
                        ),
                        Parts =
                        [
                            .. first.Parts.Select(
                                (part, i) =>
                                    part with
                                    {
                                        Amount = Made(
                                            m.All,
                                            x => x.Parts[i].Amount,
                                            part.Amount.Unit,
                                            $"{name}: {part.Name}",
                                            Path(i == 0 ? "base" : $"parts/{i - 1}")
                                        ),
                                    }
                            ),
                        ],
                    };
                }),
        ];

    private ImmutableArray<(CompiledItem Item, Val Cost)> ByItem<T>(
        (Occurrence Of, T One)[] all,
        Func<T, ImmutableArray<(CompiledItem Item, Val Cost)>> of
    ) => [.. all.SelectMany(x => of(x.One).Select(i => (i.Item, x.Of.InYear(i.Cost))))];

    private ImmutableArray<EquipmentCost> Equipment() =>
        [
            .. Gathered(c => c.Equipment, e => e.Equipment.Id)
                .Select(e =>
                {
                    var (first, name) = (e.First, e.First.Equipment.Name);
                    FigurePath Path(string leaf) => new("equipment", first.Equipment.Id, leaf);
                    return new EquipmentCost(
                        first.Equipment,
                        Made(e.All, x => x.Hours, "h", name + ": hours", Path("hours")),
                        Made(e.All, x => x.Units, first.Units.Unit, name + ": paid for", Path("units")),
                        Made(e.All, x => x.Cost, "", name + ": cost", Path("cost")),
                        ByItem(e.All, x => x.ByItem)
                    );
                }),
        ];

    private ImmutableArray<SubcontractCost> Subcontracts() =>
        [
            .. Gathered(c => c.Subcontracts, s => s.Subcontract.Id)
                .Select(s =>
                {
                    var (first, name) = (s.First, s.First.Subcontract.Name);
                    FigurePath Path(string leaf) => new("subcontract", first.Subcontract.Id, leaf);
                    return new SubcontractCost(
                        first.Subcontract,
                        Made(s.All, x => x.Amount, first.Amount.Unit, name, Path("amount")),
                        Made(s.All, x => x.Cost, "", name + ": cost", Path("cost")),
                        ByItem(s.All, x => x.ByItem)
                    );
                }),
        ];

    private ImmutableArray<QuoteCost> Quotes() =>
        [
            .. Gathered(c => c.Quotes, q => q.Quote.Id)
                .Select(q =>
                    q.First with
                    {
                        Cost = Made(
                            q.All,
                            x => x.Cost,
                            "",
                            "Quote of " + q.First.Quote.From,
                            new("quotes", q.First.Quote.Id, "cost")
                        ),
                    }
                ),
        ];

    private ImmutableArray<ChargeCost> Charges() =>
        [
            .. Gathered(c => c.Charges, c => (c.Item?.Item.Id, c.Part?.Id))
                .Select(c =>
                {
                    var first = c.First;
                    return first with
                    {
                        Amount = Made(
                            c.All,
                            x => x.Amount,
                            first.Amount.Unit,
                            first.Name,
                            PathOf(first.Amount, c.All[0].Of)
                        ),
                        Cost = Made(c.All, x => x.Cost, "", first.Name + ": cost", PathOf(first.Cost, c.All[0].Of)),
                    };
                }),
        ];

    /// <summary>The path of a figure of an occurrence, without the occurrence.</summary>
    private FigurePath PathOf(Total figure, Occurrence of)
    {
        var path = figure.Path[(trace.Prefix.Length + Occurrence.Within(of.Id).Length)..];
        var cut = path.IndexOf('/', StringComparison.Ordinal);
        return new(path[..cut], path[(cut + 1)..]);
    }
}
