using Emendum.Core;
using Emendum.Core.Drawings;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using PriceRow = Emendum.Core.Proposals.PriceRow;
using PriceTable = Emendum.Core.Proposals.PriceTable;

namespace Emendum.Web.Jobs;

/// <summary>A place as lists show it.</summary>
public sealed record PlaceView(
    Guid Id,
    string Name,
    string Group,
    string Line,
    int Count,
    string Kind,
    string Size,
    FigureView? Main,
    string MainLabel,
    string Finish,
    FigureView? Hours,
    IReadOnlyList<PlaceConditionView> Conditions
)
{
    /// <summary>The view of a place.</summary>
    public static PlaceView Of(Estimate estimate, Place place, FigureView? hours)
    {
        var system = estimate.Job.Units;
        var main = place.Shape.Main is { } m
            ? FigureView.Amount(
                $"places/{place.Id}/{m.Name()}",
                estimate.Reckoned.Measures[place.Id][m],
                Core.Reckoning.Line.SymbolOf(m, system)
            )
            : null;
        return new(
            place.Id,
            place.Name,
            place.Group,
            place.Line,
            place.Count,
            place.Shape.Kind,
            TapeWords.InShort(place, system),
            main,
            place.Shape.Main?.Label(system) ?? "",
            place.Finish,
            hours,
            [.. place.Conditions.Select(c => new PlaceConditionView(c.Condition, c.Band))]
        );
    }
}

/// <summary>What all places come to, under a heading or in the whole job (no heading).</summary>
public sealed record MeasuredView(string Heading, IReadOnlyList<MeasuredTotal> Totals)
{
    /// <summary>The whole job first, then each heading.</summary>
    public static IReadOnlyList<MeasuredView> Of(Estimate estimate)
    {
        var (reckoned, units) = (estimate.Reckoned, estimate.Job.Units);
        return
        [
            new("", MeasuredTotal.Of(MeasureTotals.Of(reckoned, Trace.Silent), units)),
            .. MeasureTotals
                .ByHeading(reckoned, Trace.Silent)
                .Select(h => new MeasuredView(h.Heading, MeasuredTotal.Of(h.Totals, units))),
        ];
    }
}

/// <summary>A measure over several places.</summary>
public sealed record MeasuredTotal(string Name, string Label, FigureView Figure)
{
    public static IReadOnlyList<MeasuredTotal> Of(
        IReadOnlyList<(Measure Measure, Total Total)> totals,
        UnitSystem units
    ) =>
        [
            .. totals.Select(t => new MeasuredTotal(
                t.Measure.Name(),
                t.Measure.Label(units),
                FigureView.Amount(t.Total)
            )),
        ];
}

/// <summary>A figure of a place.</summary>
/// <param name="Name">End of its path.</param>
/// <param name="Label">Words.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Figure">The figure.</param>
/// <param name="Typed">What was typed for it, where it is an override or the user's own.</param>
/// <param name="Derived">What was measured, where it is overridden.</param>
public sealed record MeasureView(
    string Name,
    string Label,
    Kind Kind,
    FigureView Figure,
    TypedQuantity? Typed,
    FigureView? Derived
);

/// <summary>A place with its drawing and all its figures.</summary>
public sealed record PlaceSheetView(
    Guid Id,
    Drawing Drawing,
    IReadOnlyList<MeasureView> Measures,
    IReadOnlyList<MeasureView> Extras,
    string Finish,
    string Notes,
    IReadOnlyList<string> LeadsIn
)
{
    /// <summary>The sheet of a place.</summary>
    public static PlaceSheetView Of(OpenJob open, Guid id)
    {
        var (estimate, job) = (open.Estimate, open.Estimate.Job);
        var place = job.Place(id) ?? throw new NotThereException("That place is not in this job any more.");
        var measures = estimate.Reckoned.Measures[id];
        FigureView Figure(string leaf, Val value, Kind kind) =>
            FigureView.Amount($"places/{id}/{leaf}", value, kind == Kind.Count ? "" : job.Units.For(kind).Symbol);
        FigureView? Derived(Measure measure)
        {
            var path = $"places/{id}/{measure.Name()}/derived";
            return open.Recorded().Figures.TryGetValue(path, out var figure)
                ? FigureView.Amount(path, figure.Value, figure.Unit)
                : null;
        }
        var named = place
            .Shape.Has.Where(measures.Has)
            .Select(m =>
            {
                var typed = place.Typed.FirstOrDefault(t => t.Name == m.Name())?.Quantity;
                return new MeasureView(
                    m.Name(),
                    m.Label(job.Units),
                    m.Kind(),
                    Figure(m.Name(), measures[m], m.Kind()),
                    typed,
                    typed is null ? null : Derived(m)
                );
            });
        var extras = measures.Extras.Select(e => new MeasureView(
            e.Leaf,
            e.Label,
            e.Kind,
            Figure(e.Leaf, e.Value, e.Kind),
            e.Leaf.StartsWith("own/", StringComparison.Ordinal)
                ? place.Typed.FirstOrDefault(t => t.Name == e.Label)?.Quantity
                : null,
            null
        ));
        var incoming = job.Incoming().GetValueOrDefault(id, []);
        return new(
            id,
            Drawing.Of(place, incoming, job.Units, job.Rule),
            [.. named],
            [.. extras],
            place.Finish,
            place.Notes,
            [.. job.Places.Where(p => p.Openings.Any(o => o.Into == id)).Select(p => p.Name)]
        );
    }
}

/// <summary>Reading of a tape line: its words and drawing, or what is wrong with it.</summary>
/// <param name="Name">Name of the place.</param>
/// <param name="Words">What it reads as; every second part is to be stressed.</param>
/// <param name="Drawing">It, drawn.</param>
/// <param name="Refusal">What is wrong with it.</param>
/// <param name="Doubt">What else it could mean.</param>
public sealed record TapeView(
    string Name,
    IReadOnlyList<string> Words,
    Drawing? Drawing,
    Refusal? Refusal,
    TapeDoubt? Doubt
)
{
    /// <summary>Reads a line for a job, for a new place or one that is there, without keeping anything.</summary>
    public static TapeView Of(Job job, string line, Guid? place)
    {
        var (reading, refusal) = TapeLine.Read(line, job.Units);
        if (reading is null)
            return new("", [], null, refusal, null);
        try
        {
            var id = place ?? Guid.CreateVersion7();
            var there = place is { } old ? job.Place(old) : null;
            Command command = there is null
                ? new AddPlace(id, line, "", null)
                : new RemeasurePlace(id, there.Line, line);
            Commands.Apply(job, command, _ => null);
        }
        catch (RefusedException wrong)
        {
            refusal = wrong.Refusal;
        }
        return new(
            reading.Name,
            reading.ReadBack(job.Units),
            Drawing.Of(reading.ToPlace(Guid.Empty, "", "", ""), [], job.Units, job.Rule),
            refusal,
            TapeDoubt.Of(line, reading, job.Units)
        );
    }
}

/// <summary>One figure before and after a change that is only tried.</summary>
public sealed record WhatIfView(string Label, string Now, string Then, string Moved, string Unit);

/// <summary>A place whose walls would change.</summary>
public sealed record PlaceMovedView(Guid Id, string Name, string Now, string Then, string Unit);

/// <summary>What another deduction rule would do to the job.</summary>
public sealed record DeductionView(
    RuleView Rule,
    IReadOnlyList<WhatIfView> Totals,
    IReadOnlyList<PlaceMovedView> Places
)
{
    private static readonly Measure[] Touched =
    [
        Measure.GrossWallArea,
        Measure.DeductedArea,
        Measure.NetWallArea,
        Measure.GrossFaceArea,
        Measure.NetFaceArea,
        Measure.FloorArea,
        Measure.Area,
        Measure.SkirtingLength,
        Measure.RevealLength,
    ];

    /// <summary>Tries a rule.</summary>
    /// <exception cref="RefusedException">There is no such rule.</exception>
    public static DeductionView Of(Estimate now, string name)
    {
        var rule =
            DeductionRule.Find(name)
            ?? throw RefusedException.Of(
                "rule",
                $"“{name}” is not a deduction rule. Own limits read like over 10 ft2; 5 ft2; 3 ft."
            );
        var then = now.If(now.Job with { Deduct = rule.Name });
        var was = MeasureTotals.Of(now.Reckoned, Trace.Silent).ToDictionary(t => t.Measure, t => t.Total);
        var will = MeasureTotals.Of(then.Reckoned, Trace.Silent).ToDictionary(t => t.Measure, t => t.Total);
        var system = now.Job.Units;
        var totals = Touched
            .Where(was.ContainsKey)
            .Select(m =>
                Compared(
                    m.Label(system),
                    FigureView.Amount("", was[m], Line.SymbolOf(m, system)),
                    FigureView.Amount("", will[m], Line.SymbolOf(m, system)),
                    "#,0.0"
                )
            )
            .Append(
                Compared(
                    "Labour",
                    FigureView.Hours("", now.Reckoned.Costs.Hours),
                    FigureView.Hours("", then.Reckoned.Costs.Hours),
                    "#,0.0"
                )
            )
            .Append(
                Compared(
                    "Price before tax",
                    FigureView.Money("", now.Price.BeforeTax, places: now.MoneyPlaces),
                    FigureView.Money("", then.Price.BeforeTax, places: now.MoneyPlaces),
                    "#,0.00"
                )
            );
        var places =
            from place in now.Job.Places
            from measure in new[] { Measure.NetWallArea, Measure.NetFaceArea, Measure.Area }
            where
                now.Reckoned.Measures[place.Id].Has(measure)
                && now.Reckoned.Measures[place.Id][measure].V != then.Reckoned.Measures[place.Id][measure].V
            select new PlaceMovedView(
                place.Id,
                place.Name,
                FigureView.Amount("", now.Reckoned.Measures[place.Id][measure], measure.UnitIn(system).Symbol).Shown,
                FigureView.Amount("", then.Reckoned.Measures[place.Id][measure], measure.UnitIn(system).Symbol).Shown,
                measure.UnitIn(system).Symbol
            );
        return new(ViewOf.Rule(rule), [.. totals], [.. places]);
    }

    private static WhatIfView Compared(string label, FigureView now, FigureView then, string format)
    {
        var moved = then.Value - now.Value;
        return new(
            label,
            now.Shown,
            then.Shown,
            moved == 0 ? "" : moved.ToString($"+{format};−{format}", System.Globalization.CultureInfo.InvariantCulture),
            now.Unit
        );
    }
}

/// <summary>A row of the schedule beside ours.</summary>
/// <param name="Heading">Whether it is a heading, which counts nothing.</param>
/// <param name="Work">The work in its price.</param>
/// <param name="UnitPrice">Its unit price; null where it has none.</param>
/// <param name="Amount">Its amount; null where nothing is in its price.</param>
public sealed record ScheduleRowView(
    Guid Id,
    string Number,
    string Wording,
    string Unit,
    string Quantity,
    bool Heading,
    string Source,
    FigureView? Ours,
    FigureView? Difference,
    FigureView? Percent,
    bool Apart,
    IReadOnlyList<SourceView> Sources,
    IReadOnlyList<ScheduleWorkView> Work,
    FigureView? UnitPrice,
    FigureView? Amount
);

/// <summary>Something of our takeoff that a row can be compared with.</summary>
public sealed record SourceView(string Source, string Label);

/// <summary>Work in the price of a row.</summary>
/// <param name="Of">What it is.</param>
/// <param name="Label">It in words: the work, and where.</param>
/// <param name="Gone">Whether there is no such work any more, or it is nowhere.</param>
public sealed record ScheduleWorkView(ScheduleWork Of, string Label, bool Gone);

/// <summary>The customer's schedule of quantities beside our own takeoff, and priced.</summary>
/// <param name="Rows">Its rows.</param>
/// <param name="Apart">Rows whose quantities are apart.</param>
/// <param name="Open">Rows that are not compared.</param>
/// <param name="Unpriced">Rows without a price.</param>
/// <param name="AsCompared">Rows without a price that can have that of the work they are compared with.</param>
/// <param name="Beside">What the price has beside the rows, and its sums; empty where it cannot be reckoned.</param>
/// <param name="Currency">Of its money.</param>
public sealed record ScheduleView(
    IReadOnlyList<ScheduleRowView> Rows,
    int Apart,
    int Open,
    int Unpriced,
    int AsCompared,
    IReadOnlyList<PriceRow> Beside,
    string Currency
)
{
    /// <summary>The schedule of a job.</summary>
    public static ScheduleView Of(Estimate estimate)
    {
        var job = estimate.Job;
        var sources = Sources(estimate);
        var table = Priced(estimate);
        var lines = new ScheduleRows(job);
        var worked = estimate
            .Reckoned.Lines.Where(l => l.Seen)
            .ToLookup(l => lines.At(l.Item.Item.Id, l.Measures.Place) ?? -1, l => l.Item.Item.Id);
        var rows = ScheduleCompared
            .Of(estimate.Reckoned, Trace.Silent)
            .Select(
                (check, row) =>
                {
                    var (item, price) = (check.Item, table.Rows[row]);
                    var kind = Unit.Find(item.Unit)?.Kind;
                    FigureView? Figure(string leaf, Val? value, string unit) =>
                        value is { } v
                            ? kind == Kind.Count
                                ? FigureView.Fine($"schedule/{item.Id}/{leaf}", v, unit)
                                : FigureView.Amount($"schedule/{item.Id}/{leaf}", v, unit)
                            : null;
                    FigureView? Money(string leaf, decimal? value) =>
                        price.Figure is not null && value is { } v
                            ? FigureView.Money($"schedule/{item.Id}/{leaf}", v, places: estimate.MoneyPlaces)
                            : null;
                    return new ScheduleRowView(
                        item.Id,
                        item.Number,
                        item.Wording,
                        item.Unit,
                        FigureView.Fine("", item.Quantity, "").Shown,
                        item.IsHeading,
                        item.Source,
                        Figure("ours", check.Ours, item.Unit),
                        Figure("difference", check.Difference, item.Unit),
                        check.Percent is { } p ? FigureView.Percent($"schedule/{item.Id}/percent", p) : null,
                        check.Apart,
                        item.IsHeading ? [] : [.. sources.Where(s => s.Kind == kind).Select(s => s.View)],
                        [
                            .. item.Work.Select(w => new ScheduleWorkView(
                                w,
                                Label(job, w),
                                !worked[row].Contains(w.Work)
                            )),
                        ],
                        Money("unitPrice", price.Of?.UnitPrice),
                        Money("price", price.Amount)
                    );
                }
            )
            .ToList();
        return new(
            rows,
            rows.Count(r => r.Apart),
            rows.Count(r => r is { Heading: false, Ours: null }),
            rows.Count(r => r is { Heading: false, Amount: null }),
            PriceAsCompared.Of(job).Count(),
            [.. table.Rows.Skip(rows.Count)],
            table.Currency
        );
    }

    /// <summary>The price of a job by the rows of its schedule, which come first, one each.</summary>
    public static PriceTable Priced(Estimate estimate) =>
        Core.Proposals.Proposal.Price(
            estimate.ShownAs(estimate.Job.Proposal with { Detail = Detail.Schedule }),
            Trace.Silent
        );

    private static string Label(Job job, ScheduleWork work)
    {
        var name = job.Item(work.Work)?.Name ?? "work that is gone";
        return work.Place is { } id ? $"{name} at {job.Place(id)?.Name ?? "a place that is gone"}"
            : work.Group.Length > 0 ? $"{name} in {work.Group}"
            : name;
    }

    private static List<(Kind Kind, SourceView View)> Sources(Estimate estimate)
    {
        var job = estimate.Job;
        var measures = MeasureTotals.Of(estimate.Reckoned, Trace.Silent).Select(t => t.Measure).ToList();
        return
        [
            .. job.Work.Select(w =>
                (
                    Array.Find(estimate.Reckoned.Items, i => i.Item.Id == w.Id)!.Measure.Kind(),
                    new SourceView($"work/{w.Id}", $"Work: {job.SectionOf(w)}, {w.Name}")
                )
            ),
            .. measures.Select(m =>
                (m.Kind(), new SourceView($"measure/{m.Name()}", $"Measured: {m.Label(job.Units)}"))
            ),
            .. from m in measures
            from g in Groups.Of(job)
            select (m.Kind(), new SourceView($"measure/{m.Name()}/{g}", $"Measured: {m.Label(job.Units)}, {g}")),
        ];
    }
}
