using System.Globalization;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;

namespace Emendum.Web.Jobs;

/// <summary>A figure ready to be shown; the browser adds nothing to it.</summary>
/// <param name="Path">Where its workings are.</param>
/// <param name="Shown">Rounded for reading, with thousands marked.</param>
/// <param name="Unit">Its unit, or empty.</param>
/// <param name="Value">All its places.</param>
public sealed record FigureView(string Path, string Shown, string Unit, decimal Value)
{
    private static FigureView Of(string path, Val value, string unit, string format) =>
        new(path, value.V.ToString($"{format};−{format}", CultureInfo.InvariantCulture), unit, value.V);

    /// <summary>Hours to one place.</summary>
    public static FigureView Hours(string path, Val value) => Of(path, value, "h", "#,0.0");

    /// <summary>Money to the cent.</summary>
    public static FigureView Money(string path, Val value, string unit = "") => Of(path, value, unit, "#,0.00");

    /// <summary>A percentage to one place.</summary>
    public static FigureView Percent(string path, Val value) => Of(path, value, "%", "#,0.0");

    /// <summary>A measured quantity to one place; counts whole.</summary>
    public static FigureView Amount(string path, Val value, string unit) =>
        Of(path, value, unit, unit.Length == 0 ? "#,0.##" : "#,0.0");

    /// <summary>Hours to one place.</summary>
    public static FigureView Hours(Total total) => Hours(total.Path, total);

    /// <summary>Money to the cent; <paramref name="unit"/> says per what.</summary>
    public static FigureView Money(Total total, string unit = "") => Money(total.Path, total, unit);

    /// <summary>A percentage to one place.</summary>
    public static FigureView Percent(Total total) => Percent(total.Path, total);

    /// <summary>A measured quantity to one place; counts whole.</summary>
    public static FigureView Amount(Total total) => Amount(total.Path, total, total.Unit);

    /// <summary>A need or purchase to two places.</summary>
    public static FigureView Fine(Total total) => Fine(total.Path, total, total.Unit);

    /// <summary>How far a figure has moved from what it was, signed, to as many places as it is shown with; null where it has not. Its path is the figure's.</summary>
    public static FigureView? Moved(FigureView now, Val was)
    {
        var point = now.Shown.IndexOf('.');
        var places = point < 0 ? 0 : now.Shown.Length - point - 1;
        var moved = decimal.Round(now.Value - was.V, places, MidpointRounding.AwayFromZero);
        var format = places == 0 ? "#,0" : "#,0." + new string('0', places);
        return moved == 0
            ? null
            : now with
            {
                Shown = moved.ToString($"+{format};−{format}", CultureInfo.InvariantCulture),
                Value = moved,
            };
    }

    /// <summary>A need or purchase to two places.</summary>
    public static FigureView Fine(string path, Val value, string unit) => Of(path, value, unit, "#,0.##");
}

/// <summary>The figures at the foot of every job screen.</summary>
public sealed record TallyView(
    FigureView Floor,
    FigureView Worked,
    FigureView Hours,
    FigureView CrewDays,
    FigureView Materials,
    FigureView Cost,
    FigureView BeforeTax,
    FigureView Total,
    FigureView? Margin,
    string MarginWords,
    int CrewSize,
    decimal FloorMargin,
    decimal GoalMargin,
    int Places,
    int Lines,
    int Bought
);

/// <summary>A section under which work stands.</summary>
public sealed record SectionView(Guid Id, string Name);

/// <summary>What undo and redo would do.</summary>
public sealed record UndoView(string? Undo, string? Redo);

/// <summary>A rule by which openings are taken off.</summary>
public sealed record RuleView(string Name, string Label, string Source);

/// <summary>A job with everything its screens show but the views made on request.</summary>
public sealed record JobView(
    Guid Id,
    long Version,
    JobInfo Info,
    UnitSystem Units,
    string Deduct,
    RuleView Rule,
    IReadOnlyList<RuleView> Rules,
    IReadOnlyList<PlaceView> Places,
    IReadOnlyList<WorkView> Work,
    IReadOnlyList<CellsView> Cells,
    IReadOnlyList<Guid> Conditions,
    PaceFactor? Pace,
    IReadOnlyList<SectionView> Sections,
    CrewTerms Crew,
    PricingTerms Pricing,
    ProposalTerms Proposal,
    TallyView Tally,
    UndoView Undo
);

/// <summary>How much the last edit moved the totals, signed; null where it did not.</summary>
public sealed record DeltaView(FigureView? Hours, FigureView? Materials, FigureView? Cost, FigureView? BeforeTax);

/// <summary>What an edit changed: whole new views of what it touched, the new order where that changed, and what is gone. <see cref="Reload"/> says that it touched too much to list.</summary>
public sealed record AnswerView(
    long Version,
    string Did,
    bool Reload,
    IReadOnlyList<PlaceView> Places,
    IReadOnlyList<WorkView> Work,
    IReadOnlyList<CellsView> Cells,
    IReadOnlyList<Guid>? PlaceOrder,
    IReadOnlyList<Guid>? WorkOrder,
    IReadOnlyList<string> GoneCells,
    JobInfo Info,
    UnitSystem Units,
    string Deduct,
    RuleView Rule,
    IReadOnlyList<Guid> Conditions,
    PaceFactor? Pace,
    IReadOnlyList<SectionView> Sections,
    CrewTerms Crew,
    PricingTerms Pricing,
    ProposalTerms Proposal,
    TallyView Tally,
    DeltaView Delta,
    UndoView Undo
);

/// <summary>Makes views from a reckoned job.</summary>
public sealed class ViewOf(Estimate estimate)
{
    private Subtotals? sums;
    private Subtotals All => sums ??= Subtotals.Of(estimate.Reckoned, Trace.Silent);
    private readonly Job job = estimate.Job;

    /// <summary>One place.</summary>
    public PlaceView Place(Place place) =>
        PlaceView.Of(
            estimate,
            place,
            All.PlaceHours.TryGetValue(place.Id, out var hours) ? FigureView.Hours(hours) : null
        );

    /// <summary>One work item.</summary>
    public WorkView Work(CompiledItem compiled) => WorkView.Of(compiled, job, All);

    /// <summary>A deduction rule.</summary>
    public static RuleView Rule(DeductionRule rule) => new(rule.Name, rule.Label, rule.Source);

    /// <summary>The tally.</summary>
    public TallyView Tally()
    {
        var price = estimate.Price;
        var margin = price.Readouts.Margin is { } m ? FigureView.Percent(m) : null;
        return new(
            FigureView.Amount(estimate.Reckoned.Costs.FloorArea),
            FigureView.Hours(estimate.Reckoned.Costs.Worked),
            FigureView.Hours(estimate.Reckoned.Costs.Hours),
            FigureView.Amount(estimate.Reckoned.Costs.CrewDays),
            FigureView.Money(price.Classes[CostClass.Material].Cost),
            FigureView.Money(price.Direct),
            FigureView.Money(price.BeforeTax),
            FigureView.Money(price.Total),
            margin,
            Words(price.Readouts.Margin?.Value),
            job.Crew.Size,
            job.Pricing.FloorMargin,
            job.Pricing.GoalMargin,
            job.Places.Sum(p => p.Count),
            estimate.Reckoned.Lines.Length,
            estimate.Reckoned.Costs.Buying.Count(b => b.Bought.V > 0)
        );
    }

    private string Words(Val? margin) =>
        margin is not { } m ? "no price yet"
        : m.V < job.Pricing.FloorMargin ? "below your floor"
        : m.V < job.Pricing.GoalMargin ? "above the floor, under the target"
        : "at or above the target";

    /// <summary>The whole job.</summary>
    public JobView Job(long version, UndoView undo) =>
        new(
            job.Id,
            version,
            job.Info,
            job.Units,
            job.Deduct,
            Rule(job.Rule),
            [.. DeductionRule.All.Select(Rule)],
            [.. job.Places.Select(Place)],
            [.. estimate.Reckoned.Items.Select(Work)],
            CellsView.Of(estimate, InOrder()),
            job.Conditions,
            job.Pace,
            [.. job.Sections.Select(s => new SectionView(s.Id, s.Name))],
            job.Crew,
            job.Pricing,
            job.Proposal,
            Tally(),
            undo
        );

    private IEnumerable<CellKey> InOrder() =>
        from work in job.Work
        from place in job.Places
        let key = new CellKey(work.Id, place.Id)
        where job.Cells.ContainsKey(key)
        select key;

    /// <summary>Most cells an answer lists before it asks the browser to load the job anew.</summary>
    private const int MostCells = 200;

    /// <summary>What has changed since an earlier estimate.</summary>
    /// <param name="before">The earlier estimate.</param>
    /// <param name="version">The job's version now.</param>
    /// <param name="did">What was done.</param>
    /// <param name="undo">What undo would do.</param>
    /// <param name="only">The cells in which they differ, where they differ in nothing else.</param>
    public AnswerView Since(
        Estimate before,
        long version,
        string did,
        UndoView undo,
        IReadOnlyCollection<CellKey>? only = null
    )
    {
        var old = before.Job;
        var touchedPlaces = new HashSet<Guid>();
        var touchedWork = new HashSet<Guid>();
        if (only is null)
        {
            foreach (var place in job.Places)
                if (
                    !before.Reckoned.Measures.TryGetValue(place.Id, out var was)
                    || !ReferenceEquals(was, estimate.Reckoned.Measures[place.Id])
                )
                    touchedPlaces.Add(place.Id);
            var items = before.Reckoned.Items.ToDictionary(i => i.Item.Id);
            foreach (var item in estimate.Reckoned.Items)
                if (!items.TryGetValue(item.Item.Id, out var was) || !ReferenceEquals(was, item))
                    touchedWork.Add(item.Item.Id);
        }
        // A work item is shown with the name of its section.
        if (old.Sections != job.Sections)
            touchedWork.UnionWith(job.Work.Select(w => w.Id));
        var cells = new List<CellKey>();
        var reload = old.Pricing.MaterialCost != job.Pricing.MaterialCost || old.Units != job.Units;
        void Touch(CellKey key)
        {
            touchedPlaces.Add(key.Place);
            touchedWork.Add(key.Work);
        }
        foreach (
            var (key, cell) in only is null
                ? job.Cells
                : only.Where(job.Cells.ContainsKey).Select(k => KeyValuePair.Create(k, job.Cells[k]))
        )
        {
            var same =
                old.Cells.TryGetValue(key, out var was)
                && ReferenceEquals(was, cell)
                && ReferenceEquals(estimate.Reckoned.At(key), before.Reckoned.At(key));
            if (same)
                continue;
            Touch(key);
            if (cells.Count < MostCells)
                cells.Add(key);
            else
                reload = true;
        }
        var gone = new List<string>();
        if (!ReferenceEquals(old.Cells, job.Cells))
        {
            foreach (
                var key in (only ?? old.Cells.Keys).Where(k => old.Cells.ContainsKey(k) && !job.Cells.ContainsKey(k))
            )
            {
                Touch(key);
                gone.Add($"{key.Work}/{key.Place}");
                reload |= gone.Count > MostCells;
            }
        }
        if (reload)
            (cells, gone) = ([], []);
        else if (only is not null)
            sums = Subtotals.Of(estimate.Reckoned, Trace.Silent, touchedPlaces, touchedWork);
        return new(
            version,
            did,
            reload,
            reload ? [] : [.. job.Places.Where(p => touchedPlaces.Contains(p.Id)).Select(Place)],
            reload ? [] : [.. estimate.Reckoned.Items.Where(i => touchedWork.Contains(i.Item.Id)).Select(Work)],
            CellsView.Of(estimate, cells),
            reload || SameOrder(old.Places, job.Places) ? null : [.. job.Places.Select(p => p.Id)],
            reload || SameOrder(old.Work, job.Work) ? null : [.. job.Work.Select(w => w.Id)],
            gone,
            job.Info,
            job.Units,
            job.Deduct,
            Rule(job.Rule),
            job.Conditions,
            job.Pace,
            [.. job.Sections.Select(s => new SectionView(s.Id, s.Name))],
            job.Crew,
            job.Pricing,
            job.Proposal,
            Tally(),
            Moved(before),
            undo
        );
    }

    private static bool SameOrder(
        System.Collections.Immutable.ImmutableArray<Place> a,
        System.Collections.Immutable.ImmutableArray<Place> b
    ) => a.Length == b.Length && a.Select(p => p.Id).SequenceEqual(b.Select(p => p.Id));

    private static bool SameOrder(
        System.Collections.Immutable.ImmutableArray<WorkItem> a,
        System.Collections.Immutable.ImmutableArray<WorkItem> b
    ) => a.Length == b.Length && a.Select(p => p.Id).SequenceEqual(b.Select(p => p.Id));

    private DeltaView Moved(Estimate before) =>
        new(
            FigureView.Moved(FigureView.Hours(estimate.Reckoned.Costs.Hours), before.Reckoned.Costs.Hours),
            FigureView.Moved(
                FigureView.Money(estimate.Price.Classes[CostClass.Material].Cost),
                before.Price.Classes[CostClass.Material].Cost
            ),
            FigureView.Moved(FigureView.Money(estimate.Price.Direct), before.Price.Direct),
            FigureView.Moved(FigureView.Money(estimate.Price.BeforeTax), before.Price.BeforeTax)
        );
}
