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
    private static FigureView Of(string path, Val value, string unit, string shown) => new(path, shown, unit, value.V);

    /// <summary>Hours to one place.</summary>
    public static FigureView Hours(string path, Val value) =>
        Of(path, value, "h", Core.Quantities.Shown.Tenths(value.V));

    /// <summary>Money to the cent, or to as many places as its currency has.</summary>
    public static FigureView Money(string path, Val value, string unit = "", int places = 2) =>
        Of(path, value, unit, Core.Quantities.Shown.Money(value.V, places));

    /// <summary>A percentage to one place.</summary>
    public static FigureView Percent(string path, Val value) =>
        Of(path, value, "%", Core.Quantities.Shown.Tenths(value.V));

    /// <summary>A measured quantity, to as many places as its unit is shown with; a count whole, where it is whole.</summary>
    public static FigureView Amount(string path, Val value, string unit) =>
        Of(path, value, unit, Core.Quantities.Shown.Amount(value.V, unit));

    /// <summary>Hours to one place.</summary>
    public static FigureView Hours(Total total) => Hours(total.Path, total);

    /// <summary>Money to the cent; <paramref name="unit"/> says per what.</summary>
    public static FigureView Money(Total total, string unit = "", int places = 2) =>
        Money(total.Path, total, unit, places);

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
        return moved == 0 ? null : now with { Shown = Core.Quantities.Shown.Moved(moved, places), Value = moved };
    }

    /// <summary>A need or purchase to two places.</summary>
    public static FigureView Fine(string path, Val value, string unit) =>
        Of(path, value, unit, Core.Quantities.Shown.Fine(value.V));
}

/// <summary>The figures at the foot of every job screen.</summary>
/// <param name="Year">Whether they are those of the first year of a round.</param>
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
    int Bought,
    bool Year
);

/// <summary>A section under which work stands.</summary>
public sealed record SectionView(Guid Id, string Name, decimal? Least, OwnBasis? Pricing, Doubt? Doubt)
{
    public static SectionView Of(Section section) =>
        new(section.Id, section.Name, section.Least, section.Pricing, section.Doubt);
}

/// <summary>A pricing term in which a job is not as its policy.</summary>
/// <param name="Field">The term, as files name it.</param>
/// <param name="Policy">What the policy says, in words.</param>
public sealed record BentView(string Field, string Policy);

/// <summary>The price policy that a job took, and where the job bends it.</summary>
public sealed record PolicyView(Guid Id, string Name, IReadOnlyList<BentView> Bent)
{
    public static PolicyView? Of(Job job) =>
        job.Policy is not { } policy
            ? null
            : new(
                policy.Id,
                policy.Name,
                [.. policy.Bent(job.Pricing).Select(b => new BentView(b.Key, Words(b.Value)))]
            );

    private static string Words(System.Text.Json.Nodes.JsonNode? value) =>
        value switch
        {
            null => "none",
            System.Text.Json.Nodes.JsonArray { Count: 0 } => "none",
            System.Text.Json.Nodes.JsonArray list => Counted.Of(list.Count, "row"),
            System.Text.Json.Nodes.JsonObject => "set otherwise",
            _ => value.ToString(),
        };
}

/// <summary>What undo and redo would do in a window.</summary>
/// <param name="Undo">The command that undo takes back; null for none.</param>
/// <param name="Redo">The command that redo puts back; null for none.</param>
/// <param name="LeftBehind">Where this window has none of its own: the person's latest of a window that is closed.</param>
public sealed record UndoView(string? Undo, string? Redo, Undoable? LeftBehind);

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
    PolicyView? Policy,
    ProposalTerms Proposal,
    IReadOnlyList<ProposalBlock> Blocks,
    IReadOnlyList<Rhythm> Rhythms,
    RoundTerms Round,
    string Variant,
    TallyView Tally,
    UndoView Undo
);

/// <summary>How much the last edit moved the totals, signed; null where it did not.</summary>
public sealed record DeltaView(FigureView? Hours, FigureView? Materials, FigureView? Cost, FigureView? BeforeTax);

/// <summary>What is of the job as a whole; <paramref name="Variant"/> is the name of the variant that is taken, or empty.</summary>
public sealed record HeadView(
    JobInfo Info,
    UnitSystem Units,
    string Deduct,
    RuleView Rule,
    IReadOnlyList<Guid> Conditions,
    PaceFactor? Pace,
    IReadOnlyList<SectionView> Sections,
    CrewTerms Crew,
    PricingTerms Pricing,
    PolicyView? Policy,
    ProposalTerms Proposal,
    IReadOnlyList<ProposalBlock> Blocks,
    IReadOnlyList<Rhythm> Rhythms,
    RoundTerms Round,
    string Variant
);

/// <summary>What has changed between two versions, the same for everybody: whole new views of what was touched, the new order where that changed, and what is gone.</summary>
/// <param name="From">The earlier version.</param>
/// <param name="To">The later.</param>
/// <param name="Did">The command that led there; empty for several.</param>
/// <param name="Person">Whose it was.</param>
/// <param name="Reload">It is too much to list: the job is to be loaded anew.</param>
/// <param name="Places">Places as they are now.</param>
/// <param name="Work">Work items as they are now.</param>
/// <param name="Cells">Cells as they are now.</param>
/// <param name="PlaceOrder">All places in their order; null where that is the same.</param>
/// <param name="WorkOrder">All work in its order; null where that is the same.</param>
/// <param name="GoneCells">Cells that are not there any more, as work/place.</param>
/// <param name="Head">What is of the job as a whole; null where it is the same.</param>
/// <param name="Tally">The figures at the foot.</param>
public sealed record MovedView(
    long From,
    long To,
    string Did,
    string Person,
    bool Reload,
    IReadOnlyList<PlaceView> Places,
    IReadOnlyList<WorkView> Work,
    IReadOnlyList<CellsView> Cells,
    IReadOnlyList<Guid>? PlaceOrder,
    IReadOnlyList<Guid>? WorkOrder,
    IReadOnlyList<string> GoneCells,
    HeadView? Head,
    TallyView Tally
);

/// <summary>What an answer says to its sender alone.</summary>
/// <param name="Undo">What undo and redo would do.</param>
/// <param name="Delta">How much the edit moved the totals; null where there was none.</param>
public sealed record YoursView(UndoView Undo, DeltaView? Delta);

/// <summary>The answer to an edit.</summary>
/// <param name="Moved">What has changed since the version that its sender holds.</param>
/// <param name="Yours">What is the sender's alone.</param>
/// <param name="Repeated">It had been done before; nothing was done now.</param>
public sealed record AnswerView(MovedView Moved, YoursView Yours, bool Repeated);

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
            FigureView.Money(price.Classes[CostClass.Material].Cost, places: estimate.MoneyPlaces),
            FigureView.Money(price.Direct, places: estimate.MoneyPlaces),
            FigureView.Money(price.BeforeTax, places: estimate.MoneyPlaces),
            FigureView.Money(price.Total, places: estimate.MoneyPlaces),
            margin,
            MarginWords(price.Readouts.Margin?.V, job.Pricing),
            job.Crew.Size,
            job.Pricing.FloorMargin,
            job.Pricing.GoalMargin,
            job.Places.Sum(p => p.Count),
            estimate.Reckoned.Lines.Length,
            estimate.Reckoned.Costs.Buying.Count(b => b.Bought.V > 0),
            !price.Occurrences.IsEmpty
        );
    }

    /// <summary>The guard in words.</summary>
    public static string MarginWords(decimal? margin, PricingTerms terms) =>
        margin is not { } m ? "no price yet"
        : m < 0 ? "a loss"
        : m < terms.FloorMargin ? "below your floor"
        : m < terms.GoalMargin ? "above the floor, under the target"
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
            [.. job.Sections.Select(SectionView.Of)],
            job.Crew,
            job.Pricing,
            PolicyView.Of(job),
            job.Proposal,
            job.Blocks,
            job.Rhythms,
            job.Round,
            Taken,
            Tally(),
            undo
        );

    private string Taken => job.Variants.FirstOrDefault(v => v.Taken)?.Name ?? "";

    private IEnumerable<CellKey> InOrder() =>
        from work in job.Work
        from place in job.Places
        let key = new CellKey(work.Id, place.Id)
        where job.Cells.ContainsKey(key)
        select key;

    private HeadView Head() =>
        new(
            job.Info,
            job.Units,
            job.Deduct,
            Rule(job.Rule),
            job.Conditions,
            job.Pace,
            [.. job.Sections.Select(SectionView.Of)],
            job.Crew,
            job.Pricing,
            PolicyView.Of(job),
            job.Proposal,
            job.Blocks,
            job.Rhythms,
            job.Round,
            Taken
        );

    /// <summary>What has changed between two versions.</summary>
    /// <param name="from">The earlier version.</param>
    /// <param name="to">That of this estimate.</param>
    /// <param name="touched">What differs.</param>
    /// <param name="did">What led there.</param>
    /// <param name="person">Whose it was.</param>
    public MovedView Moved(long from, long to, Touched touched, string did, string person)
    {
        if (touched.Reload)
            return new(from, to, did, person, true, [], [], [], null, null, [], null, Tally());
        sums = Subtotals.Of(estimate.Reckoned, Trace.Silent, touched.Places, touched.Work);
        return new(
            from,
            to,
            did,
            person,
            false,
            [.. job.Places.Where(p => touched.Places.Contains(p.Id)).Select(Place)],
            [.. estimate.Reckoned.Items.Where(i => touched.Work.Contains(i.Item.Id)).Select(Work)],
            CellsView.Of(estimate, touched.Cells.Where(job.Cells.ContainsKey)),
            touched.PlaceOrder ? [.. job.Places.Select(p => p.Id)] : null,
            touched.WorkOrder ? [.. job.Work.Select(w => w.Id)] : null,
            [.. touched.Cells.Where(k => !job.Cells.ContainsKey(k)).Select(k => $"{k.Work}/{k.Place}")],
            touched.Head ? Head() : null,
            Tally()
        );
    }

    /// <summary>How much an edit moved the totals.</summary>
    public static DeltaView Delta(Estimate before, Estimate after) =>
        new(
            FigureView.Moved(FigureView.Hours(after.Reckoned.Costs.Hours), before.Reckoned.Costs.Hours),
            Moved(after, before, of => of.Classes[CostClass.Material].Cost),
            Moved(after, before, of => of.Direct),
            Moved(after, before, of => of.BeforeTax)
        );

    private static FigureView? Moved(Estimate after, Estimate before, Func<Price, Total> of) =>
        FigureView.Moved(FigureView.Money(of(after.Price), places: after.MoneyPlaces), of(before.Price));
}
