using System.Globalization;
using System.Text.Json.Nodes;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
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
    public static FigureView Amount(string path, Val value, string unit) => Of(path, value, unit, unit.Length == 0 ? "#,0.##" : "#,0.0");

    /// <summary>A need or purchase to two places.</summary>
    public static FigureView Fine(string path, Val value, string unit) => Of(path, value, unit, "#,0.##");
}

/// <summary>A work item as the screens show it. <c>Covers</c> is what a product chosen for it must cover; null when it takes none.</summary>
public sealed record WorkView(
    Guid Id, Guid Entry, string Kind, string Section, string Name, int Coats, IReadOnlyList<int> CoatsOffered, Guid? Product, Guid? OwnProduct, Kind? Covers,
    string Colour, string? Pace, string PaceShown, string Wording, string CrewNote, string MeasureLabel, IReadOnlyList<string> Parts, FigureView? Quantity, FigureView? Hours,
    IReadOnlyList<Level> Levels, string Difficulty, IReadOnlyList<QuestionView> Questions, IReadOnlyList<Answer> Answers, IReadOnlyList<PickView> Choices, IReadOnlyList<Guid> Picks, string Hazard, string HazardAnswer, Supply Supply, IReadOnlyList<Guid> Conditions);

/// <summary>A question of an assembly as a work item answers it; without an answer the place's measure or the usual one stands, said in <c>Otherwise</c>.</summary>
public sealed record QuestionView(Guid Id, string Text, string Unit, string Answer, string Otherwise);

/// <summary>A part that may be taken: one of an either-or group, or an optional one (no group).</summary>
public sealed record PickView(Guid Id, string Name, string Group, bool Taken);

/// <summary>A cell as the grid shows it.</summary>
public sealed record CellView(Guid Work, Guid Place, CellState State, string Note, string Hours, string Quantity, string Unit);

/// <summary>A figure of a cell with the sentence that says how it came about.</summary>
public sealed record CellLineView(string Label, FigureView Figure, string Sentence);

/// <summary>What the side sheet says of one included cell.</summary>
public sealed record CellSheetView(IReadOnlyList<CellLineView> Lines)
{
    /// <summary>Quantity, and what each part takes; empty for a cell that is not included.</summary>
    public static CellSheetView Of(OpenJob job, CellKey key)
    {
        var figures = job.Recorded().Figures;
        if (job.Reckoning.At(key) is not { } line) return new([]);
        CellLineView Say(string label, string leaf, Func<string, FigureView> view)
        {
            var path = $"cells/{key.Work}/{key.Place}/{leaf}";
            return new(label, view(path), figures.TryGetValue(path, out var figure) ? Explanation.Sentence(figure) : "");
        }
        return new(
        [
            Say("Quantity", "quantity", path => FigureView.Amount(path, line.Quantity, Line.SymbolOf(line.Item.Measure, job.Reckoning.Job.Units))),
            .. line.Item.Parts.Select((part, i) => Say(part.Name, "parts/" + part.Id, path => FigureView.Fine(path, line.Amounts[i], part.Unit.Symbol))),
        ]);
    }
}

/// <summary>The figures at the foot of every job screen.</summary>
public sealed record TallyView(
    FigureView Floor, FigureView Worked, FigureView Hours, FigureView CrewDays, FigureView Materials, FigureView Cost, FigureView BeforeTax, FigureView Total, FigureView? Margin,
    string MarginWords, int CrewSize, decimal FloorMargin, decimal GoalMargin, int Places, int Lines, int Bought);

/// <summary>What undo and redo would do.</summary>
public sealed record UndoView(string? Undo, string? Redo);

/// <summary>A rule by which openings are taken off.</summary>
public sealed record RuleView(string Name, string Label, string Source);

/// <summary>A job with everything its screens show but the views made on request.</summary>
public sealed record JobView(
    Guid Id, long Version, JobInfo Info, UnitSystem Units, string Deduct, RuleView Rule, IReadOnlyList<RuleView> Rules, IReadOnlyList<PlaceView> Places, IReadOnlyList<WorkView> Work,
    IReadOnlyList<CellView> Cells, PricingTerms Pricing, ProposalTerms Proposal, TallyView Tally, UndoView Undo);

/// <summary>How much the last edit moved the totals, signed, ready to show; empty where it did not.</summary>
public sealed record DeltaView(string Hours, string Materials, string Cost, string BeforeTax);

/// <summary>What an edit changed: whole new views of what it touched, the new order where that changed, and what is gone. <see cref="Reload"/> says that it touched too much to list.</summary>
public sealed record AnswerView(
    long Version, string Did, bool Reload, IReadOnlyList<PlaceView> Places, IReadOnlyList<WorkView> Work, IReadOnlyList<CellView> Cells,
    IReadOnlyList<Guid>? PlaceOrder, IReadOnlyList<Guid>? WorkOrder, IReadOnlyList<string> GoneCells,
    JobInfo Info, UnitSystem Units, string Deduct, RuleView Rule, PricingTerms Pricing, ProposalTerms Proposal, TallyView Tally, DeltaView Delta, UndoView Undo);

/// <summary>Makes views from a reckoned job.</summary>
public sealed class ViewOf(Reckoning reckoning)
{
    private readonly Subtotals subtotals = Subtotals.Of(reckoning, Trace.Silent);
    private readonly Job job = reckoning.Job;

    /// <summary>One place.</summary>
    public PlaceView Place(Place place) => PlaceView.Of(reckoning, place, subtotals.PlaceHours.TryGetValue(place.Id, out var hours) ? FigureView.Hours($"places/{place.Id}/hours", hours) : null);

    /// <summary>One work item.</summary>
    public WorkView Work(CompiledItem compiled)
    {
        var (item, entry) = (compiled.Item, compiled.Entry);
        var (rate, assembly) = (entry as ProductionRate, entry as Assembly);
        var pace = item.Pace ?? rate?.Paces.FirstOrDefault(p => p.Coats == item.Coats)?.Pace;
        IReadOnlyList<int> coats = rate is { Paces.Length: > 1 } ? [.. rate.Paces.Select(p => p.Coats)] : assembly?.Components.Any(c => c.PerCoat) == true ? [1, 2, 3, 4] : [];
        return new(item.Id, item.Entry, entry.KindName(), item.Section, item.Name, item.Coats, coats,
            item.Product ?? rate?.Product, item.Product, rate?.Product is null ? null : compiled.Measure.Kind(),
            item.Colour, item.Pace?.ToString(), pace?.ToString() ?? "", item.Wording, entry.CrewNote, compiled.Measure.Label(job.Units),
            [.. compiled.Parts.Concat(compiled.Once).Select(p => $"{p.Name} — {p.Kind.ToString().ToLowerInvariant()}{(p.Crew > 0 ? $", crew of {p.Crew}" : p.Ratio is { } ratio ? $", {ratio}" : ", once")}")],
            subtotals.ItemQuantity.TryGetValue(item.Id, out var quantity) ? FigureView.Amount($"work/{item.Id}/quantity", quantity, Line.SymbolOf(compiled.Measure, job.Units)) : null,
            subtotals.ItemHours.TryGetValue(item.Id, out var hours) ? FigureView.Hours($"work/{item.Id}/hours", hours) : null,
            entry.Levels, item.Difficulty,
            [.. (assembly?.Questions ?? []).Select(q => new QuestionView(q.Id, q.Text, q.Unit.Symbol, item.Answers.FirstOrDefault(a => a.Question == q.Id) is { } answer ? Rounding.Text(answer.Value) : "", q.From is { } from ? $"{from.Label(job.Units).ToLowerInvariant()} of each place" : $"{Rounding.Text(q.Usual)} {q.Unit}"))],
            item.Answers,
            [.. (assembly?.Components ?? []).Where(c => c.Group.Length > 0 || c.Optional).Select(c => new PickView(c.Id, c.Name, c.Group, compiled.Parts.Concat(compiled.Once).Any(p => p.Id == c.Id)))],
            item.Picks, assembly?.Hazard ?? "", item.HazardAnswer, item.Supply, item.Conditions);
    }

    /// <summary>A deduction rule.</summary>
    public static RuleView Rule(DeductionRule rule) => new(rule.Name, rule.Label, rule.Source);

    /// <summary>One cell.</summary>
    public CellView Cell(CellKey key, Cell cell)
    {
        if (reckoning.At(key) is not { } line) return new(key.Work, key.Place, cell.State, cell.Note, "", "", "");
        return new(key.Work, key.Place, cell.State, cell.Note, line.Hours.V.ToString("#,0.0", CultureInfo.InvariantCulture), line.Quantity.V.ToString(line.Item.Measure.Kind() == Kind.Count ? "#,0.##" : "#,0.0", CultureInfo.InvariantCulture), Line.SymbolOf(line.Item.Measure, job.Units));
    }

    /// <summary>The tally.</summary>
    public TallyView Tally()
    {
        var price = reckoning.Price;
        var margin = price.Margin is { } m ? FigureView.Percent("price/margin", m) : null;
        return new(
            FigureView.Amount("totals/floorArea", reckoning.FloorArea, Line.SymbolOf(Measure.FloorArea, job.Units)), FigureView.Hours("totals/workedHours", reckoning.Worked), FigureView.Hours("totals/hours", reckoning.Hours),
            FigureView.Amount("totals/crewDays", reckoning.CrewDays, "days"), FigureView.Money("price/material", price.Classes[1].Cost), FigureView.Money("price/direct", price.Direct),
            FigureView.Money("price/beforeTax", price.BeforeTax), FigureView.Money("price/total", price.Total), margin, Words(price.Margin), job.Pricing.CrewSize, job.Pricing.FloorMargin, job.Pricing.GoalMargin,
            job.Places.Sum(p => p.Count), reckoning.Lines.Length, reckoning.Buying.Count(b => b.Bought.V > 0));
    }

    private string Words(Val? margin) => margin is not { } m ? "no price yet"
        : m.V < job.Pricing.FloorMargin ? "below your floor"
        : m.V < job.Pricing.GoalMargin ? "above the floor, under the target"
        : "at or above the target";

    /// <summary>The whole job.</summary>
    public JobView Job(long version, UndoView undo) => new(
        job.Id, version, job.Info, job.Units, job.Deduct, Rule(job.Rule), [.. DeductionRule.All.Select(Rule)],
        [.. job.Places.Select(Place)], [.. reckoning.Items.Select(Work)], [.. InOrder().Select(k => Cell(k, job.Cells[k]))], job.Pricing, job.Proposal, Tally(), undo);

    private IEnumerable<CellKey> InOrder() =>
        from work in job.Work from place in job.Places let key = new CellKey(work.Id, place.Id) where job.Cells.ContainsKey(key) select key;

    /// <summary>Most cells an answer lists before it asks the browser to load the job anew.</summary>
    private const int MostCells = 200;

    /// <summary>What has changed since an earlier reckoning.</summary>
    public AnswerView Since(Reckoning before, long version, string did, UndoView undo)
    {
        var old = before.Job;
        var touchedPlaces = new HashSet<Guid>();
        var touchedWork = new HashSet<Guid>();
        foreach (var place in job.Places)
            if (!before.Measures.TryGetValue(place.Id, out var was) || !ReferenceEquals(was, reckoning.Measures[place.Id])) touchedPlaces.Add(place.Id);
        var items = before.Items.ToDictionary(i => i.Item.Id);
        foreach (var item in reckoning.Items)
            if (!items.TryGetValue(item.Item.Id, out var was) || !ReferenceEquals(was, item)) touchedWork.Add(item.Item.Id);
        var cells = new List<CellView>();
        var reload = old.Pricing.MaterialCost != job.Pricing.MaterialCost || old.Units != job.Units;
        void Touch(CellKey key)
        {
            touchedPlaces.Add(key.Place);
            touchedWork.Add(key.Work);
        }
        foreach (var (key, cell) in job.Cells)
        {
            var same = old.Cells.TryGetValue(key, out var was) && ReferenceEquals(was, cell) && ReferenceEquals(reckoning.At(key), before.At(key));
            if (same) continue;
            Touch(key);
            if (cells.Count < MostCells) cells.Add(Cell(key, cell));
            else reload = true;
        }
        var gone = new List<string>();
        if (!ReferenceEquals(old.Cells, job.Cells))
        {
            foreach (var key in old.Cells.Keys.Where(k => !job.Cells.ContainsKey(k)))
            {
                Touch(key);
                gone.Add($"{key.Work}/{key.Place}");
                reload |= gone.Count > MostCells;
            }
        }
        if (reload) (cells, gone) = ([], []);
        return new(version, did, reload,
            reload ? [] : [.. job.Places.Where(p => touchedPlaces.Contains(p.Id)).Select(Place)], reload ? [] : [.. reckoning.Items.Where(i => touchedWork.Contains(i.Item.Id)).Select(Work)], cells,
            reload || SameOrder(old.Places, job.Places) ? null : [.. job.Places.Select(p => p.Id)], reload || SameOrder(old.Work, job.Work) ? null : [.. job.Work.Select(w => w.Id)], gone,
            job.Info, job.Units, job.Deduct, Rule(job.Rule), job.Pricing, job.Proposal, Tally(), Delta(before), undo);
    }

    private static bool SameOrder(System.Collections.Immutable.ImmutableArray<Place> a, System.Collections.Immutable.ImmutableArray<Place> b) => a.Length == b.Length && a.Select(p => p.Id).SequenceEqual(b.Select(p => p.Id));

    private static bool SameOrder(System.Collections.Immutable.ImmutableArray<WorkItem> a, System.Collections.Immutable.ImmutableArray<WorkItem> b) => a.Length == b.Length && a.Select(p => p.Id).SequenceEqual(b.Select(p => p.Id));

    private DeltaView Delta(Reckoning before)
    {
        static string Signed(decimal now, decimal was, string format)
        {
            var moved = decimal.Round(now - was, format.Length - format.IndexOf('.') - 1, MidpointRounding.AwayFromZero);
            return moved == 0 ? "" : moved.ToString($"+{format};−{format}", CultureInfo.InvariantCulture);
        }
        return new(
            Signed(reckoning.Hours.V, before.Hours.V, "#,0.0"), Signed(reckoning.Price.Classes[1].Cost.V, before.Price.Classes[1].Cost.V, "#,0.00"),
            Signed(reckoning.Price.Direct.V, before.Price.Direct.V, "#,0.00"), Signed(reckoning.Price.BeforeTax.V, before.Price.BeforeTax.V, "#,0.00"));
    }
}
