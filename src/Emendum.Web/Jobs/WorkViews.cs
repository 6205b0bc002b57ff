using System.Globalization;
using System.Text.Json.Serialization;
using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Pricing;
using Emendum.Core.Quantities;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Core.Work;

namespace Emendum.Web.Jobs;

/// <summary>A work item as the screens show it. <c>Covers</c> is what a product chosen for it must cover; null when it takes none.</summary>
public sealed record WorkView(
    Guid Id,
    Guid Entry,
    string Kind,
    string Section,
    Guid SectionId,
    string Name,
    int Coats,
    IReadOnlyList<int> CoatsOffered,
    Guid? Product,
    Guid? OwnProduct,
    Kind? Covers,
    string Colour,
    string? Pace,
    string PaceShown,
    string Wording,
    string MeasureLabel,
    Kind MeasureKind,
    string Unit,
    IReadOnlyList<string> Parts,
    FigureView? Quantity,
    FigureView? Hours,
    IReadOnlyList<Level> Levels,
    string Difficulty,
    IReadOnlyList<QuestionView> Questions,
    IReadOnlyList<Answer> Answers,
    IReadOnlyList<PickView> Choices,
    IReadOnlyList<Guid> Picks,
    string Hazard,
    string HazardAnswer,
    Supply Supply,
    IReadOnlyList<Guid> Conditions
)
{
    /// <summary>Role, and the item's own where it has one.</summary>
    public required RoleOfWork? Role { get; init; }

    /// <summary>Roles of an assembly's labour, and who does it instead.</summary>
    public required IReadOnlyList<RoleOfPart> Roles { get; init; }

    /// <summary>Who does it instead, as the item has it.</summary>
    public required IReadOnlyList<RoleInstead> RolesInstead { get; init; }

    /// <summary>Surface instead of the entry's own.</summary>
    public required Guid? Surface { get; init; }

    /// <summary>Rounding step in hours, as the entry has it, and the item's own.</summary>
    public required OwnNumber Step { get; init; }

    /// <summary>Drying hours, likewise.</summary>
    public required OwnNumber Drying { get; init; }

    /// <summary>Work items it waits for.</summary>
    public required IReadOnlyList<Guid> WaitsFor { get; init; }

    /// <summary>What the crew reads, as the entry has it, and the item's own.</summary>
    public required OwnText CrewNote { get; init; }

    /// <summary>What the customer reads beside the wording, likewise.</summary>
    public required OwnText CustomerNote { get; init; }

    /// <summary>Whether it is hidden from the customer.</summary>
    public required bool Hidden { get; init; }

    /// <summary>The item's own word on that.</summary>
    public required bool? OwnHidden { get; init; }

    /// <summary>Unit it is counted in here, where that is not the entry's own.</summary>
    public required Unit? CountedIn { get; init; }

    /// <summary>Labour in all, as typed; null where paces hold.</summary>
    public required string? Labour { get; init; }

    /// <summary>Provisional sum for each place.</summary>
    public required string? Allowance { get; init; }

    /// <summary>What a unit of it is sold at in this job, instead of the entry's price.</summary>
    public required UnitPrice? UnitPrice { get; init; }

    /// <summary>What the entry is sold at, in words; empty where it has no such price.</summary>
    public required string SoldAt { get; init; }

    /// <summary>Least charge for it in the job.</summary>
    public required decimal? Least { get; init; }

    /// <summary>How often it is done, as it says itself; null for as the job says.</summary>
    public required Guid? Rhythm { get; init; }

    /// <summary>The view of a work item.</summary>
    public static WorkView Of(CompiledItem compiled, Job job, Subtotals subtotals)
    {
        var (item, entry) = (compiled.Item, compiled.Entry);
        var (rate, assembly) = (entry as ProductionRate, entry as Assembly);
        var pace = item.Pace ?? rate?.Paces.FirstOrDefault(p => p.Coats == item.Coats)?.Pace;
        IReadOnlyList<int> coats =
            rate is { Paces.Length: > 1 } ? [.. rate.Paces.Select(p => p.Coats)]
            : assembly?.Components.Any(c => c.PerCoat) == true ? [1, 2, 3, 4]
            : [];
        var unit = compiled.SymbolIn(job.Units);
        return new(
            item.Id,
            item.Entry,
            entry.KindName(),
            job.SectionOf(item),
            item.Section,
            item.Name,
            item.Coats,
            coats,
            item.Product ?? rate?.Product,
            item.Product,
            rate?.Product is null ? null : compiled.Measure.Kind(),
            item.Colour,
            item.Pace?.ToString(),
            pace?.ToString() ?? "",
            item.Wording,
            compiled.Measure.Label(job.Units),
            compiled.Measure.Kind(),
            unit,
            [
                .. compiled
                    .Parts.Concat(compiled.Once)
                    .Select(p =>
                        $"{p.Name} — {p.Kind.Name}{(p.Time is { } time ? $", {time.Typed} in all" : p.Crew > 0 ? $", crew of {p.Crew}" : p.Ratio is { } ratio ? $", {ratio}" : ", once")}"
                    ),
            ],
            subtotals.ItemQuantity.TryGetValue(item.Id, out var quantity) ? FigureView.Amount(quantity) : null,
            subtotals.ItemHours.TryGetValue(item.Id, out var hours) ? FigureView.Hours(hours) : null,
            entry.Levels,
            item.Difficulty,
            [.. (assembly?.Questions ?? []).Select(q => QuestionView.Of(q, item.Answers, job.Units))],
            item.Answers,
            [
                .. (assembly?.Components ?? [])
                    .Where(c => c.Group.Length > 0 || c.Optional)
                    .Select(c => new PickView(
                        c.Id,
                        c.Name,
                        c.Group,
                        compiled.Parts.Concat(compiled.Once).Any(p => p.Id == c.Id)
                    )),
            ],
            item.Picks,
            assembly?.Hazard ?? "",
            item.HazardAnswer,
            item.Supply,
            item.Conditions
        )
        {
            Role = rate is null ? null : new(item.Role ?? rate.Role, item.Role),
            Roles =
            [
                .. (assembly?.Components ?? [])
                    .Where(c => c.Kind == ComponentKind.Labour)
                    .Select(c => c.Entry!.Value)
                    .Distinct()
                    .Select(role => new RoleOfPart(
                        role,
                        job.Book[role].Name,
                        item.Roles?.FirstOrDefault(r => r.Role == role)?.Instead
                    )),
            ],
            RolesInstead = item.Roles ?? [],
            Surface = item.Surface,
            Step = new(entry.Step, item.Step),
            Drying = new(entry.DryingHours, item.DryingHours),
            WaitsFor = item.WaitsFor,
            CrewNote = new(entry.CrewNote, item.CrewNote),
            CustomerNote = new(entry.CustomerNote, item.CustomerNote),
            Hidden = compiled.Hidden,
            OwnHidden = item.Hidden,
            CountedIn = item.CountedIn,
            Labour = item.Labour,
            Allowance = item.Allowance is { } sum ? Rounding.Text(sum) : null,
            UnitPrice = item.UnitPrice,
            SoldAt = compiled.Entry.Sold is { } sold ? $"{Rounding.Text(sold.Price)} per {sold.Unit}" : "",
            Least = item.Least,
            Rhythm = item.Rhythm,
        };
    }
}

/// <summary>The role of a rate's work, and the item's own choice.</summary>
public sealed record RoleOfWork(Guid Used, Guid? Own);

/// <summary>A role in the labour of an assembly, and who does it instead in this job.</summary>
public sealed record RoleOfPart(Guid Role, string Name, Guid? Instead);

/// <summary>A number as its entry has it, and what stands instead.</summary>
public sealed record OwnNumber(decimal? Book, decimal? Own);

/// <summary>A text as its entry has it, and what stands instead.</summary>
public sealed record OwnText(string Book, string? Own);

/// <summary>A question of an assembly as it is answered; without an answer the place's measure or the usual one stands, said in <c>Otherwise</c>.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Text">The question.</param>
/// <param name="Unit">The unit of the job it is answered in.</param>
/// <param name="BookUnit">The unit of an answer that names none.</param>
/// <param name="Answer">What was answered, with its unit where that is another one.</param>
/// <param name="Otherwise">What stands without an answer.</param>
/// <param name="Once">Whether it is asked once for the job.</param>
public sealed record QuestionView(
    Guid Id,
    string Text,
    string Unit,
    string BookUnit,
    string Answer,
    string Otherwise,
    bool Once
)
{
    /// <summary>The view of a question.</summary>
    public static QuestionView Of(Question question, IEnumerable<Answer> answers, UnitSystem units)
    {
        var (usual, unit) = question.UsualIn(units);
        return new(
            question.Id,
            question.Text,
            unit.Symbol,
            question.Unit.Symbol,
            answers.FirstOrDefault(a => a.Question == question.Id) is { } answer
                ? Rounding.Text(answer.Value)
                    + ((answer.Unit ?? question.Unit) == unit ? "" : $" {answer.Unit ?? question.Unit}")
                : "",
            question.From is { } from
                ? $"{from.Label(units).ToLowerInvariant()} of each place"
                : $"{Rounding.Text(usual)} {unit}",
            question.Once
        );
    }
}

/// <summary>A part that may be taken: one of an either-or group, or an optional one (no group).</summary>
public sealed record PickView(Guid Id, string Name, string Group, bool Taken);

/// <summary>The cells of a work item.</summary>
public sealed record CellsView(Guid Work, IReadOnlyList<CellView> Cells)
{
    /// <summary>Views of cells that stand by work item.</summary>
    public static IReadOnlyList<CellsView> Of(Estimate estimate, IEnumerable<CellKey> keys) =>
        [.. keys.GroupBy(k => k.Work).Select(g => new CellsView(g.Key, [.. g.Select(k => CellView.Of(estimate, k))]))];
}

/// <summary>A cell as the grid shows it.</summary>
/// <param name="Place">Where.</param>
/// <param name="State">What it is.</param>
/// <param name="Note">Its sentence; left out for none.</param>
/// <param name="Differs">Whether anything of it is not as its work item has it.</param>
/// <param name="Allowed">Whether a provisional sum stands instead of hours and goods.</param>
/// <param name="Nothing">Why there is nothing of it, though it is included, and what could be taken instead.</param>
/// <param name="Shown">Hours and quantity; empty where nothing is done.</param>
public sealed record CellView(
    Guid Place,
    CellState State,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] string? Note,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? Differs,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] bool? Allowed,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] NothingView? Nothing,
    CellAmounts? Shown
)
{
    /// <summary>The view of a cell.</summary>
    public static CellView Of(Estimate estimate, CellKey key)
    {
        var cell = estimate.Job.Cells[key];
        var line = estimate.Reckoned.At(key);
        return new(
            key.Place,
            cell.State,
            cell.Note.Length == 0 ? null : cell.Note,
            cell.Differs ? true : null,
            line?.Allowance is null ? null : true,
            line?.IsNothing == true ? NothingView.Of(line, estimate.Job.Units) : null,
            line is not null
                ? new(
                    Core.Quantities.Shown.Tenths(line.Hours.V),
                    FigureView.Amount("", line.Quantity, line.Item.SymbolIn(estimate.Job.Units)).Shown
                )
                : null
        );
    }
}

/// <summary>Why included work comes to nothing.</summary>
/// <param name="Why">The sentence.</param>
/// <param name="Source">What its quantity is taken from now, as the cell has it.</param>
/// <param name="Take">A measure that the place does have; null for none.</param>
public sealed record NothingView(string Why, string Source, QuantitySource? Take)
{
    /// <summary>The view of a line of nothing.</summary>
    public static NothingView Of(Line line, UnitSystem units) =>
        new(
            line.WhyNothing(units),
            line.Cell.Source,
            line.CouldTake(units).Select(m => QuantitySource.Of(line.Measures.Place, m)).FirstOrDefault()
        );
}

/// <summary>What a cell comes to, ready to be shown. The figures are at <c>cells/WORK/PLACE/hours</c> and <c>…/quantity</c>.</summary>
public sealed record CellAmounts(string Hours, string Quantity);

/// <summary>Cost and price of the cells, and of whole rows and columns.</summary>
public sealed record MoneyView(IReadOnlyList<MoneyOfWork> Work, IReadOnlyList<MoneyOfPlace> Places)
{
    /// <summary>The scope grid in money.</summary>
    public static MoneyView Of(Estimate estimate)
    {
        var money = LineMoney.Of(estimate, Trace.Silent);
        string Shown(Val value) => Core.Quantities.Shown.Money(value.V, estimate.MoneyPlaces);
        FigureView Money(Total total) => FigureView.Money(total, places: estimate.MoneyPlaces);
        var lines = estimate.Reckoned.Lines.Select((line, n) => (Line: line, n)).GroupBy(l => l.Line.OfItem.Item.Id);
        return new(
            [
                .. lines.Select(g => new MoneyOfWork(
                    g.Key,
                    Money(money.ItemCost[g.Key]),
                    Money(money.ItemPrice[g.Key]),
                    [
                        .. g.Select(l => new MoneyOfCell(
                            l.Line.Measures.Place.Id,
                            new(Shown(money.Lines.Costs[l.n]), Shown(money.Lines.Lines[l.n]))
                        )),
                    ]
                )),
            ],
            [
                .. money.PlaceCost.Keys.Select(p => new MoneyOfPlace(
                    p,
                    Money(money.PlaceCost[p]),
                    Money(money.PlacePrice[p])
                )),
            ]
        );
    }
}

/// <summary>A column in money.</summary>
public sealed record MoneyOfWork(Guid Work, FigureView Cost, FigureView Price, IReadOnlyList<MoneyOfCell> Cells);

/// <summary>A cell in money; the figures are at <c>lines/WORK/PLACE/cost</c> and <c>…/price</c>.</summary>
public sealed record MoneyOfCell(Guid Place, CellMoney Shown);

/// <summary>Cost and price of a cell, ready to be shown.</summary>
public sealed record CellMoney(string Cost, string Price);

/// <summary>A row in money.</summary>
public sealed record MoneyOfPlace(Guid Place, FigureView Cost, FigureView Price);

/// <summary>A figure of a cell with the sentence that says how it came about.</summary>
public sealed record CellLineView(string Label, FigureView Figure, string Sentence);

/// <summary>Where a cell's quantity may come from.</summary>
public sealed record QuantitySource(string Name, string Label, FigureView Figure)
{
    /// <summary>The view of a measure of a place.</summary>
    public static QuantitySource Of(Place place, OtherMeasure measure) =>
        new(
            measure.Leaf,
            measure.Label,
            FigureView.Amount($"places/{place.Id}/{measure.Leaf}", measure.Value, measure.Unit)
        );
}

/// <summary>What the side sheet says of one cell: its figures, where its quantity may come from, and what may be answered and set there.</summary>
public sealed record CellSheetView(
    IReadOnlyList<CellLineView> Lines,
    IReadOnlyList<QuantitySource> Sources,
    IReadOnlyList<QuestionView> Questions,
    IReadOnlyList<BandView> Bands
)
{
    /// <summary>The sheet of a cell.</summary>
    public static CellSheetView Of(OpenJob open, CellKey key)
    {
        var (estimate, job) = (open.Estimate, open.Estimate.Job);
        var place = job.Place(key.Place) ?? throw new NotThereException("That place is not in this job any more.");
        var item =
            Array.Find(estimate.Reckoned.Items, i => i.Item.Id == key.Work)
            ?? throw new NotThereException("That work is not in this job any more.");
        var measures = estimate.Reckoned.Measures[place.Id];
        var (kind, unit) = (item.Measure.Kind(), Line.SymbolOf(item.Measure, job.Units));
        QuantitySource Source(string leaf, string label, Val value) =>
            new(leaf, label, FigureView.Amount($"places/{place.Id}/{leaf}", value, unit));
        var sources = Measures
            .All.Where(m => m.Kind() == kind && measures.Has(m))
            .Select(m => Source(m.Name(), m.Label(job.Units), measures[m]))
            .Concat(measures.Extras.Where(e => e.Kind == kind).Select(e => Source(e.Leaf, e.Label, e.Value)));
        return new(
            estimate.Reckoned.At(key) is { } line ? [.. LinesOf(open, key, line)] : [],
            [.. sources],
            [.. ((item.Entry as Assembly)?.Questions ?? []).Select(q => QuestionView.Of(q, [], job.Units))],
            [
                .. measures
                    .Extras.Where(e => e.Leaf.StartsWith("bands/", StringComparison.Ordinal))
                    .Select(e => new BandView(e.Leaf, e.Label)),
            ]
        );
    }

    private static IEnumerable<CellLineView> LinesOf(OpenJob open, CellKey key, Line line)
    {
        // Only this place and this line are explained; the whole job is when somebody asks why.
        var (job, trace) = (open.Estimate.Job, Trace.Recording());
        var measures = job.Measured(line.Measures.Place, trace);
        Line.Of(line.OfItem, measures, line.Cell, job, trace);
        var figures = trace.Figures;
        CellLineView Say(string label, string leaf, Func<string, FigureView> view)
        {
            var path = $"cells/{key.Work}/{key.Place}/{leaf}";
            return new(
                label,
                view(path),
                figures.TryGetValue(path, out var figure) ? Explanation.Sentence(figure) : ""
            );
        }
        yield return Say(
            "Quantity",
            "quantity",
            path => FigureView.Amount(path, line.Quantity, line.Item.SymbolIn(job.Units))
        );
        for (var i = 0; i < line.Item.Parts.Length; i++)
        {
            var (part, amount) = (line.Item.Parts[i], line.Amounts[i]);
            yield return Say(part.Name, "parts/" + part.Id, path => FigureView.Fine(path, amount, part.Unit.Symbol));
        }
    }
}

/// <summary>A condition on a place, or on one of its bands.</summary>
public sealed record PlaceConditionView(Guid Condition, string Band);

/// <summary>A height band of a place.</summary>
public sealed record BandView(string Name, string Label);
